/** The one writer of the record of changes. */
import type { Queryable } from "~/db/client.server";
import { changes } from "~/db/schema";
import type { Actor } from "./actor";

export interface Change {
  what: string;
  /** The record that was changed. */
  recordId?: string;
  before?: unknown;
  after?: unknown;
}

/** Note who changed what, within the transaction that changes it. */
export async function audit(tx: Queryable, actor: Actor, change: Change): Promise<void> {
  await tx.insert(changes).values({ ...change, by: actor.name, byId: actor.id });
}
