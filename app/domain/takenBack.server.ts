/** An import is taken back as a whole, whatever it brought in: what it brought stays on record and counts no more. */
import { eq } from "drizzle-orm";
import { db, type Queryable } from "~/db/client.server";
import { imports } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import type { Answer } from "~/domain/answer";
import { requestAssessment } from "~/platform/jobs.server";
import { now } from "~/runtime/clock.server";

/**
 * Take an import back in one transaction, once however often it is asked for.
 * @param take sets aside what the import brought; what it returns is told in the record of changes
 */
export async function takeImportBack(
  id: string,
  actor: Actor,
  take: (tx: Queryable, record: { id: string; fileName: string }) => Promise<Record<string, number>>,
): Promise<Answer> {
  const done = await db().transaction(async (tx): Promise<Answer> => {
    const [record] = await tx.select().from(imports).where(eq(imports.id, id)).for("update");
    if (!record?.doneAt)
      return { ok: false, because: "gone", problems: { form: "Nothing of this file was imported." } };
    if (record.undoneAt) return { ok: true, id };
    const taken = await take(tx, record);
    await tx
      .update(imports)
      .set({ undoneAt: new Date(now()), undoneBy: actor.name })
      .where(eq(imports.id, id));
    await audit(tx, actor, { what: `took back the import of ${record.fileName}`, recordId: id, after: taken });
    return { ok: true, id };
  });
  if (done.ok) await requestAssessment();
  return done;
}
