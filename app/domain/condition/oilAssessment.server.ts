/**
 * Rows are taken in one order everywhere: a circuit, its oil's assessment, then the assessments of its points. A circuit
 * is locked "no key", since a row that refers to it and is written twice in one transaction wants its key.
 *
 * What a circuit's oil says is made here, when a sample lands and in jobs; pages only read it. Like points, a
 * circuit is stale from the moment something about its oil changes until it has been assessed again.
 */
import { and, eq, isNull, ne, sql } from "drizzle-orm";
import { isDeepStrictEqual } from "node:util";
import { assessOil, urgenciesOf, type OilAssessment } from "@core";
import { db, isDatabaseDown, type Queryable } from "~/db/client.server";
import { oilAssessments } from "~/db/oilTables";
import { components, points } from "~/db/schema";
import { markStale, oilIsFresh } from "./marking.server";
import { claimStale, sweep } from "./claims.server";
import { now } from "~/runtime/clock.server";
import { log } from "~/runtime/log.server";
import { errorText } from "~/runtime/errors";

import { oilInput } from "./oilInput.server";
import { OIL_SHAPE } from "./oilStored.server";

/** Assess the oil of these circuits, one after another. */
export async function assessCircuits(circuitIds: readonly string[]): Promise<void> {
  for (const id of circuitIds) await assessCircuit(id);
}

/** Assess the oil of one circuit now and store the result. Points that reckon with it become stale. A failure is noted at the circuit. */
export async function assessCircuit(circuitId: string): Promise<void> {
  const [row] = await db()
    .select({ asked: oilAssessments.asked })
    .from(oilAssessments)
    .where(eq(oilAssessments.circuitId, circuitId));
  try {
    const input = await oilInput(db(), circuitId);
    if (!input) return;
    const found = assessOil(input);
    await db().transaction((tx) => store(tx, circuitId, found, row?.asked ?? 0));
  } catch (error) {
    if (isDatabaseDown(error)) throw error;
    log.error({ err: errorText(error), circuitId }, "the oil of a circuit could not be judged");
    await db()
      .update(oilAssessments)
      .set({ failure: errorText(error), failures: sql`${oilAssessments.failures} + 1`, triedAt: new Date() })
      .where(eq(oilAssessments.circuitId, circuitId));
  }
}

async function store(tx: Queryable, circuitId: string, found: OilAssessment, asked: number): Promise<void> {
  const asDate = (ms: number | null | undefined) => (ms === null || ms === undefined ? null : new Date(ms));
  const [before] = await tx
    .select({
      contaminatedAt: oilAssessments.contaminatedAt,
      measured: sql<{ at: number }[] | null>`${oilAssessments.detail} -> 'measured'`,
    })
    .from(oilAssessments)
    .where(eq(oilAssessments.circuitId, circuitId))
    .for("update");
  const values = {
    state: found.state,
    urgency: found.urgency,
    lastAt: asDate(found.lastAt),
    code: found.code,
    target: found.target?.text ?? null,
    margin: found.margin,
    verdict: found.verdict,
    contaminatedAt: asDate(found.contamination?.at),
    contaminationFactor: found.contamination?.factor ?? null,
    detail: found,
    shape: OIL_SHAPE,
    failure: null,
    failures: 0,
    triedAt: null,
    assessedAt: new Date(now()),
  };
  await tx
    .insert(oilAssessments)
    .values({ circuitId, ...values, stale: false })
    .onConflictDoUpdate({
      target: oilAssessments.circuitId,
      set: { ...values, stale: sql`${oilAssessments.asked} <> ${asked}` },
    });
  const same =
    (before?.contaminatedAt?.getTime() ?? null) === (asDate(found.contamination?.at)?.getTime() ?? null) &&
    isDeepStrictEqual(before?.measured ?? [], JSON.parse(JSON.stringify(found.measured)));
  if (same) return;
  const affected = await tx
    .select({ id: points.id })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .where(and(eq(components.circuitId, circuitId), isNull(points.retiredAt)));
  await markStale(
    tx,
    affected.map((a) => a.id),
  );
  // its points changed because of it: that does not ask for it again
  await oilIsFresh(tx, circuitId, asked + 1);
}

/** Assess every stale circuit, oldest first, until none is left or the time is up. */
export async function assessStaleCircuits(until = Infinity): Promise<void> {
  await db()
    .update(oilAssessments)
    .set({ stale: true })
    .where(and(ne(oilAssessments.shape, OIL_SHAPE), eq(oilAssessments.stale, false)));
  await sweep(() => claimStale("oil_assessments", "circuit_id"), assessCircuit, until);
}

/** Mark circuits stale, within the transaction that changes something about their oil. A circuit without an assessment gets one. */
export async function markOilStale(tx: Queryable, circuitIds: readonly string[]): Promise<void> {
  if (circuitIds.length === 0) return;
  await tx
    .insert(oilAssessments)
    .values(
      [...new Set(circuitIds)].sort().map((circuitId) => ({
        circuitId,
        state: "unread" as const,
        urgency: urgenciesOf("unread")[0],
        verdict: [{ text: "No sample yet." }],
        stale: true,
      })),
    )
    .onConflictDoUpdate({
      target: oilAssessments.circuitId,
      set: { stale: true, asked: sql`${oilAssessments.asked} + 1`, failures: 0, triedAt: null },
    });
}

/** Assess at once; a failure leaves the circuit stale for the worker, and what was saved is safe either way. */
export async function assessOilNow(circuitId: string): Promise<void> {
  await assessCircuits([circuitId]).catch((error: Error) =>
    log.error({ err: errorText(error), circuitId }, "the oil's assessment is left to the worker"),
  );
}
