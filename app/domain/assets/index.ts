/** Words and lines of the fleet, in the browser too. */
export { analyteField, analyteLines } from "./analyteLines";
export { type RecordKind, isRecordKind, recordSpecs } from "./form";
export { type FieldSpec } from "./recordSpec";
