/** What other subjects use of readings: where a point stands, saving one, what is due. */
export { dueAt, intervalDays, roundJoins, usualDays } from "./due.server";
export { pumpedFlow } from "./knownOfCircuit.server";
export { logReading } from "./log.server";
export { pointPlace } from "./place.server";
export { hoursQuestionOf } from "./questions.server";
