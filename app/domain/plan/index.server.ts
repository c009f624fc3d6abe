/** What other subjects use of the plan. */
export { keptPlans } from "./kept.server";
export { costsOf, planSites } from "./pieces.server";
export { scorecardPage } from "./scorecard.server";
