/** Words and lines of the fleet, in the browser too. */
export { analyteField, analyteLines } from "./analyteLines";
export { type FieldSpec, type RecordKind, isRecordKind, recordSpecs } from "./form";
