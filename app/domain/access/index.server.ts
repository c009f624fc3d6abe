/** Who may what, who acts, and the record of what was changed. */
export type { Actor } from "./actor";
export { audit } from "./audit.server";
export {
  type Done,
  type Person,
  addPerson,
  changeOwnPassword,
  changePerson,
  people,
  setAccess,
  setPassword,
} from "./people.server";
export { saveUnits } from "./preferences.server";
export { type Writer, writerOf } from "./writer.server";
