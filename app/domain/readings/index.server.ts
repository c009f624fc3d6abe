/** Readings: where a point stands, saving one, importing many, what is due. */
export { correctReading, setLimit } from "./commands.server";
export { pointChoices, readingsQuery, recordsPage } from "./csv/export.server";
export { preview, runImport, saveMapping, storedPreview } from "./csv/import.server";
export { type NameInFile, namesOf, tieNames } from "./csv/names.server";
export { undoImport } from "./csv/undo.server";
export { dueAt, intervalDays, roundJoins, usualDays } from "./due.server";
export { pumpedFlow } from "./knownOfCircuit.server";
export { logReading } from "./log.server";
export { pointPlace } from "./place.server";
export {
  type PointPage,
  nextPointOf,
  photoOf,
  pointPage,
  readingOf,
  savedReading,
  supersededReadings,
} from "./pointPage.server";
export { hoursQuestionOf } from "./questions.server";
