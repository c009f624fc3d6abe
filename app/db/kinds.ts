/** Words that are stored; the browser may know them without knowing a table. */
export const interventionKinds = ["replacement", "inspection", "repair"] as const;
export type InterventionKind = (typeof interventionKinds)[number];
