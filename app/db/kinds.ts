/** Words that are stored; the browser may know them without knowing a table. */
export const interventionKinds = ["replacement", "inspection", "repair"] as const;
export type InterventionKind = (typeof interventionKinds)[number];

/** What was found at a part of a campaign: nobody looked, the new variant, the old one, the old one and done. */
export const campaignResults = ["open", "new", "old", "done"] as const;
export type CampaignResult = (typeof campaignResults)[number];
/** Where a piece of work came from. */
export const workOrigins = ["", "fault", "isolation", "plan", "debris", "campaign", "job"] as const;
export type WorkOrigin = (typeof workOrigins)[number];
