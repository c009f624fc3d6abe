/** What other subjects use of planning: stops, and whether a part is there. */
export { notOver, notOverOf } from "./stops.server";
export { leadTimeNow, leadTimeNowOf } from "./parts.server";
