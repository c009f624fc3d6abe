/** An import of a laboratory's file is taken back as a whole. */
import { and, eq, isNull } from "drizzle-orm";
import { samples } from "~/db/oilTables";
import type { Actor } from "~/domain/access/index.server";
import type { Answer } from "~/domain/answer";
import { markOilStale } from "~/domain/condition/index.server";
import { takeImportBack } from "~/domain/takenBack.server";
import { now } from "~/runtime/clock.server";

/** Its samples stay on record as withdrawn, and their numbers are free again. */
export function undoLabImport(id: string, actor: Actor): Promise<Answer> {
  return takeImportBack(id, actor, async (tx, { fileName }) => {
    const gone = await tx
      .update(samples)
      .set({ withdrawnAt: new Date(now()), withdrawnBy: actor.name, withdrawnWhy: `import of ${fileName} undone` })
      .where(and(eq(samples.importId, id), isNull(samples.withdrawnAt)))
      .returning({ circuitId: samples.circuitId });
    const circuits = [...new Set(gone.map((s) => s.circuitId))];
    await markOilStale(tx, circuits);
    return { samples: gone.length, circuits: circuits.length };
  });
}
