/** Who took an entry and who sent it: a tablet goes from hand to hand, and keeps what was taken without a network. */
import { and, eq, isNull, ne } from "drizzle-orm";
import { db } from "~/db/client.server";
import { users } from "~/db/peopleTables";
import { isUuid } from "~/platform/validate";
import type { Actor } from "./actor";

export interface Writer {
  by: string;
  byId: string | null;
  /** The person signed in, where the entry names somebody else. */
  sentBy: string | null;
  sentById: string | null;
}

/**
 * Whom an entry is put down to: the person whom it names, if that is somebody who may take entries and still works here, with who
 * sent it beside; anybody else's entry is the sender's own.
 */
export async function writerOf(named: string | undefined, sender: Actor): Promise<Writer> {
  const own = { by: sender.name, byId: sender.id, sentBy: null, sentById: sender.id };
  if (!isUuid(named) || named === sender.id) return own;
  const [person] = await db()
    .select({ id: users.id, name: users.name })
    .from(users)
    .where(and(eq(users.id, named), isNull(users.retiredAt), ne(users.role, "viewer")));
  return person ? { by: person.name, byId: person.id, sentBy: sender.name, sentById: sender.id } : own;
}
