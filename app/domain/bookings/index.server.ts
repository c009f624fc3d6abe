/** Planned and finished work, what is due, campaigns. */
export { beginCampaign, campaignList, campaignPage, closeCampaign, settlePart } from "./campaigns.server";
export { bookWork, changeWork, finishWork } from "./commands.server";
export { type BookingContext, bookingContext } from "./context.server";
export { AHEAD, type DueItem, dueWork, exercisePlan, keepMove, noteMove } from "./due.server";
export { type JobEvent, type JobPage, type JobRow, jobList, jobPage } from "./job.server";
export { type WorkRow, workPage } from "./list.server";
export { type InterventionPage, interventionPage } from "./page.server";
