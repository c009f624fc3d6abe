/** What each role may do. Written once; the server checks it in every loader and action. */
import type { Role } from "~/db/peopleTables";

const order: Record<Role, number> = { viewer: 0, technician: 1, engineer: 2 };

/** May a person of role `has` do what needs role `needs`? */
export function mayAct(has: Role, needs: Role): boolean {
  return order[has] >= order[needs];
}
