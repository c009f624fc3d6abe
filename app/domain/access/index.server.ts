/** What other subjects use of access: who acts, and the record of what was changed. */
export type { Actor } from "./actor";
export { audit } from "./audit.server";
export { writerOf, type Writer } from "./writer.server";
