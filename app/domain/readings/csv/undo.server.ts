/** An import is taken back as a whole. */
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { imports, points, readings } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import type { Answer } from "~/domain/answer";
import { markStale } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";

/**
 * Take an import back as a whole: its readings stay on record as superseded and count no more, so that the file can be brought in
 * again under another mapping. What was corrected since stays corrected.
 */
export async function undoImport(id: string, actor: Actor): Promise<Answer> {
  return db().transaction(async (tx): Promise<Answer> => {
    const [record] = await tx.select().from(imports).where(eq(imports.id, id)).for("update");
    if (!record?.doneAt) return { ok: false, status: 404, problems: { form: "Nothing of this file was imported." } };
    if (record.undoneAt) return { ok: true, id };
    const gone = await tx
      .update(readings)
      .set({
        supersededAt: new Date(now()),
        supersededBy: actor.name,
        supersededWhy: `import of ${record.fileName} undone`,
      })
      .where(and(eq(readings.importId, id), isNull(readings.supersededAt)))
      .returning({ pointId: readings.pointId });
    const touched = [...new Set(gone.map((r) => r.pointId))];
    if (touched.length > 0)
      await tx
        .update(points)
        .set({
          lastReadingAt: sql`(select max(r.taken_at) from readings r where r.point_id = ${points.id} and r.superseded_at is null)`,
        })
        .where(inArray(points.id, touched));
    await tx
      .update(imports)
      .set({ undoneAt: new Date(now()), undoneBy: actor.name })
      .where(eq(imports.id, id));
    await audit(tx, actor, {
      what: `took back the import of ${record.fileName}`,
      recordId: id,
      after: { readings: gone.length, points: touched.length },
    });
    await markStale(tx, touched);
    return { ok: true, id };
  });
}
