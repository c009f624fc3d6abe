/** What is still altered on a machine when work on it ends: put back first, or accepted by name, each entry for itself. */
import { and, asc, eq, isNull } from "drizzle-orm";
import { db, type Queryable } from "~/db/client.server";
import { acceptedChanges, circuits, components, interventions, temporaryChanges } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import type { Answer } from "~/domain/answer";
import { isUuid } from "~/platform/validate";
import { now } from "~/runtime/clock.server";

/** More than anybody leaves altered on one machine. */
const MOST = 50;

/** What is altered on the machine of a component and not put back, with who accepted it for this piece of work. */
export async function alteredAt(q: Queryable, work: { id: string; componentId: string }) {
  const rows = await q
    .select({
      id: temporaryChanges.id,
      what: temporaryChanges.what,
      acceptedBy: acceptedChanges.by,
      acceptedAt: acceptedChanges.at,
    })
    .from(temporaryChanges)
    .innerJoin(circuits, eq(circuits.machineId, temporaryChanges.machineId))
    .innerJoin(components, eq(components.circuitId, circuits.id))
    .leftJoin(
      acceptedChanges,
      and(eq(acceptedChanges.changeId, temporaryChanges.id), eq(acceptedChanges.interventionId, work.id)),
    )
    .where(and(eq(components.id, work.componentId), isNull(temporaryChanges.putBackAt)))
    .orderBy(asc(temporaryChanges.at))
    .limit(MOST);
  return rows.map((r) => ({ ...r, acceptedAt: r.acceptedAt?.getTime() ?? null }));
}

export type Altered = Awaited<ReturnType<typeof alteredAt>>[number];

/** What was accepted for a piece of work; it stays on the record when it is put back later. */
export async function acceptedFor(interventionId: string) {
  const rows = await db()
    .select({
      what: temporaryChanges.what,
      by: acceptedChanges.by,
      at: acceptedChanges.at,
      putBackAt: temporaryChanges.putBackAt,
      putBackBy: temporaryChanges.putBackBy,
    })
    .from(acceptedChanges)
    .innerJoin(temporaryChanges, eq(temporaryChanges.id, acceptedChanges.changeId))
    .where(eq(acceptedChanges.interventionId, interventionId))
    .orderBy(asc(acceptedChanges.at));
  return rows.map((r) => ({ ...r, at: r.at.getTime(), putBackAt: r.putBackAt?.getTime() ?? null }));
}

/** Accept entries by name, in the transaction of what needs it. One that was accepted already keeps its name. */
export async function acceptByName(
  tx: Queryable,
  interventionId: string,
  changes: readonly Pick<Altered, "id" | "what">[],
  actor: Actor,
): Promise<void> {
  if (changes.length === 0) return;
  await tx
    .insert(acceptedChanges)
    .values(
      changes.map((c) => ({ interventionId, changeId: c.id, at: new Date(now()), by: actor.name, byId: actor.id })),
    )
    .onConflictDoNothing();
  await audit(tx, actor, {
    what: "accepted what stays altered after work",
    recordId: interventionId,
    after: { accepted: changes.map((c) => c.what) },
  });
}

/** An engineer accepts one entry before the record is signed. */
export async function acceptAltered(id: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const { changeId } = fields;
  return db().transaction(async (tx): Promise<Answer> => {
    const [work] = await tx.select().from(interventions).where(eq(interventions.id, id)).for("update");
    if (!work) return { ok: false, because: "gone", problems: { form: "This work is gone." } };
    if (work.signedAt)
      return { ok: false, because: "conflict", problems: { form: `${work.signedBy} has signed the record already.` } };
    const entry = isUuid(changeId) ? (await alteredAt(tx, work)).find((a) => a.id === changeId) : undefined;
    if (!entry) return { ok: false, because: "conflict", problems: { form: "That was put back in the meantime." } };
    await acceptByName(tx, id, entry.acceptedBy ? [] : [entry], actor);
    return { ok: true, id };
  });
}
