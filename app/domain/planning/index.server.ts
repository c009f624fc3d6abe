/** What other subjects use of planning: stops. */
export { notOver, notOverOf } from "./stops.server";
