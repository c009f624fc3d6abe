/** What other subjects use of readings: where a point stands, saving one, what is due. */
export { dueAt, intervalDays, roundJoins, usualDays } from "./due.server";
export { hoursQuestionOf, logReading, pointPlace } from "./log.server";
