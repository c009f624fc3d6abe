/** The plan: pieces, options, kept plans, what came of forecasts. */
export { alternativesOf } from "./alternatives.server";
export { bookPlan } from "./bookPlan.server";
export { calendarText, feedsOf, makeFeed, opensFeed, revokeFeed } from "./calendar.server";
export { type KeptPlan, dropPlan, keepPlan, keptPlans, setCosts } from "./kept.server";
export { type KindLives, type RunningPart, livesPage } from "./lives.server";
export { type OrderLine, ordersCsv, ordersOf } from "./orders.server";
export { type SitePlan, costsOf, planSites, sitePlan } from "./pieces.server";
export { type LifeEnd, type ScoreGroup, scorecardPage } from "./scorecard.server";
