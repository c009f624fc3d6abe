/** The form of a write-up, in the browser too. */
export { recordWords, writeUpSchema, writtenUp } from "./form";
