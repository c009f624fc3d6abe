/** Hold points that are closed by what they ask for: a reading or a test, a photograph or a finding, not by a press. */
import { and, eq, gte, isNull } from "drizzle-orm";
import type { WorkStep } from "@core";
import type { Queryable } from "~/db/client.server";
import { points, readings, testRecords, workFindings, workPhotos, workRuns } from "~/db/schema";

interface At {
  runId: string;
  interventionId: string;
  componentId: string;
}

/** Why a step that is closed by evidence cannot be done yet; null: it can. */
export async function missingFor(tx: Queryable, closedBy: WorkStep["closedBy"], at: At): Promise<string | null> {
  switch (closedBy) {
    case undefined:
      return null;
    case "evidence":
      return (await hasEvidence(tx, at))
        ? null
        : "Take a photograph or write down a finding first: this hold is closed by it.";
    case "reading":
      return (await wasMeasured(tx, at))
        ? null
        : "Log the reading at its point, or keep the test, first: this hold is closed by it. Nothing was read at this part since the procedure began.";
  }
}

async function hasEvidence(tx: Queryable, { interventionId }: At): Promise<boolean> {
  const [photo] = await tx
    .select({ id: workPhotos.id })
    .from(workPhotos)
    .where(eq(workPhotos.interventionId, interventionId))
    .limit(1);
  if (photo) return true;
  const [finding] = await tx
    .select({ id: workFindings.id })
    .from(workFindings)
    .where(and(eq(workFindings.interventionId, interventionId), isNull(workFindings.withdrawnAt)))
    .limit(1);
  return finding !== undefined;
}

async function wasMeasured(tx: Queryable, { runId, componentId }: At): Promise<boolean> {
  const [run] = await tx.select({ at: workRuns.startedAt }).from(workRuns).where(eq(workRuns.id, runId));
  if (!run) return false;
  const [reading] = await tx
    .select({ id: readings.id })
    .from(readings)
    .innerJoin(points, eq(points.id, readings.pointId))
    .where(and(eq(points.componentId, componentId), gte(readings.takenAt, run.at), isNull(readings.supersededAt)))
    .limit(1);
  if (reading) return true;
  const [test] = await tx
    .select({ id: testRecords.id })
    .from(testRecords)
    .where(and(eq(testRecords.componentId, componentId), gte(testRecords.at, run.at)))
    .limit(1);
  return test !== undefined;
}
