/** What a plant adds to the knowledge of the house: kept, listed, taken out of use. Isolations keep what held when they began. */
import { and, asc, eq, isNull } from "drizzle-orm";
import type { PlantKnowledge } from "@core";
import { db } from "~/db/client.server";
import { plantKnowledge } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import { formIsOld, type Answer } from "~/domain/answer";
import { sentBefore, sentMeanwhile } from "~/domain/sent.server";
import { isUuid } from "~/platform/validate";
import { now } from "~/runtime/clock.server";
import { knowledgeOf, plantCause, plantRank, plantTest } from "./plantForm";

/** More than this is no longer what a page or an isolation should carry. */
const MOST = 200;

/** Every entry in use, the oldest first: of two that rank the same cause the newer one holds. */
export async function plantEntries() {
  return db()
    .select()
    .from(plantKnowledge)
    .where(isNull(plantKnowledge.retiredAt))
    .orderBy(asc(plantKnowledge.enteredAt))
    .limit(MOST);
}

/** What the plant adds, as an isolation reckons with it. */
export async function plantAdds(): Promise<Omit<PlantKnowledge, "found">> {
  return knowledgeOf(await plantEntries());
}

const isKind = (kind: string | undefined): kind is "cause" | "test" | "rank" =>
  kind === "cause" || kind === "test" || kind === "rank";

/** Add a cause, a test or a rank, by `kind`. */
export async function addKnowledge(fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const { kind } = fields;
  if (!isKind(kind) || !isUuid(fields.submission ?? "")) return formIsOld();
  const entries = await plantEntries();
  const before = await sentBefore(db(), plantKnowledge, fields.submission!, {});
  if (before) return before;
  if (entries.length >= MOST)
    return { ok: false, problems: { form: `There are ${MOST} entries. Take one out of use before you add another.` } };
  const checked =
    kind === "cause"
      ? await plantCause(fields)
      : kind === "test"
        ? await plantTest(fields, knowledgeOf(entries).causes ?? {})
        : await plantRank(fields);
  if (!checked.ok) return checked;
  try {
    return await db().transaction(async (tx): Promise<Answer> => {
      const [row] = await tx
        .insert(plantKnowledge)
        .values({
          [kind]: checked.value,
          enteredAt: new Date(now()),
          enteredBy: actor.name,
          submission: checked.submission,
        })
        .returning({ id: plantKnowledge.id });
      await audit(tx, actor, {
        what: `added a ${kind} to the plant's own knowledge of faults`,
        recordId: row!.id,
        after: { [kind]: checked.value },
      });
      return { ok: true, id: row!.id };
    });
  } catch (error) {
    const same = await sentMeanwhile(error, plantKnowledge, fields.submission!, {});
    if (same) return same;
    throw error;
  }
}

/** Take an entry out of use. Isolations that began with it keep it. */
export async function retireKnowledge(id: string, actor: Actor): Promise<Answer> {
  if (!isUuid(id)) return formIsOld();
  return db().transaction(async (tx): Promise<Answer> => {
    const [row] = await tx
      .update(plantKnowledge)
      .set({ retiredAt: new Date(now()) })
      .where(and(eq(plantKnowledge.id, id), isNull(plantKnowledge.retiredAt)))
      .returning();
    if (row)
      await audit(tx, actor, {
        what: "took an entry of the plant's own knowledge of faults out of use",
        recordId: id,
        after: { retired: row.cause?.label ?? row.test?.label ?? row.rank?.cause },
      });
    return { ok: true, id };
  });
}
