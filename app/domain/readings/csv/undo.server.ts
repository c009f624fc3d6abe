/** An import of readings is taken back as a whole. */
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { points, readings } from "~/db/schema";
import type { Actor } from "~/domain/access/index.server";
import type { Answer } from "~/domain/answer";
import { markStale } from "~/domain/condition/index.server";
import { takeImportBack } from "~/domain/takenBack.server";
import { now } from "~/runtime/clock.server";

/**
 * Its readings stay on record as superseded and count no more, so that the file can be brought in again under another mapping.
 * What was corrected since stays corrected.
 */
export function undoImport(id: string, actor: Actor): Promise<Answer> {
  return takeImportBack(id, actor, async (tx, { fileName }) => {
    const gone = await tx
      .update(readings)
      .set({
        supersededAt: new Date(now()),
        supersededBy: actor.name,
        supersededWhy: `import of ${fileName} undone`,
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
    await markStale(tx, touched);
    return { readings: gone.length, points: touched.length };
  });
}
