/** Who does something: every command of the domain is told, so that the record knows the person and not just a name. */
import type { Role } from "~/db/peopleTables";

export interface Actor {
  /** The person; null where a program acts (the demo's loader). */
  id: string | null;
  /** As the record shows it. */
  name: string;
  role: Role;
}
