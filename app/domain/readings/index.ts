/** The forms of readings, in the browser too. */
export { importFields, mappingOf } from "./csv/mapping";
