/** Before beside after, at the same reference condition: what the difference proves, and what the part should read now. */
import { and, asc, eq, inArray, isNull } from "drizzle-orm";
import {
  correctSeries,
  expectedAfter,
  HOUR,
  median,
  proofOf,
  proofSides,
  quantityOf,
  resolveLimits,
  type PointQuantityId,
  type Proof,
} from "@core";
import { db } from "~/db/client.server";
import { circuitDiagrams, components, points, workRuns, type interventions } from "~/db/schema";
import { assessPointOf, contextOf, pointSetups, readingsOfLife } from "~/domain/condition/index.server";

export interface BeforeAfter {
  pointId: string;
  name: string;
  quantity: PointQuantityId;
  unit: string;
  fullFlow: number | null;
  reference: { pressure: number; temperature: number } | null;
  before: { value: number; readings: number } | null;
  after: { value: number; readings: number } | null;
  /** What the part should read now, and on what that rests. */
  expected: { value: number; basis: string } | null;
  /** Null: one side was not read. */
  proof: Proof | null;
}

/** Work without a procedure takes a shift at most: what was read in it, after the booking, was read to prove it. */
const SHIFT = 8 * HOUR;
/** How well a manufacturer's value is known, as a share. */
const MAKERS_DOUBT = 0.1;

const side = (values: number[]) => (values.length ? { value: median(values), readings: values.length } : null);

/**
 * When the work began: people prove it first and write it up later, so that what proves it is older than the write-up.
 * The first of its procedures tells; without one, the shift in which it was done, after it was booked.
 */
async function beganAt(work: typeof interventions.$inferSelect): Promise<number> {
  const doneAt = work.doneAt!.getTime();
  const [run] = await db()
    .select({ at: workRuns.startedAt })
    .from(workRuns)
    .where(eq(workRuns.interventionId, work.id))
    .orderBy(asc(workRuns.startedAt))
    .limit(1);
  return Math.min(doneAt, run ? run.at.getTime() : Math.max(work.bookedAt.getTime(), doneAt - SHIFT));
}

/** Every point of the component of a piece of work that is done. */
export async function beforeAndAfter(work: typeof interventions.$inferSelect): Promise<BeforeAfter[]> {
  const setups = await pointSetups(db()).where(and(eq(points.componentId, work.componentId), isNull(points.retiredAt)));
  const ids = setups.map((s) => s.pointId);
  const names = new Map(
    ids.length === 0
      ? []
      : (
          await db()
            .select({ id: points.id, name: points.name, unit: points.unit })
            .from(points)
            .where(inArray(points.id, ids))
        ).map((p) => [p.id, p]),
  );
  const began = await beganAt(work);
  const modelled = await modelOf(work.componentId);
  const rows: BeforeAfter[] = [];
  // a part has a dozen points at most, and all of this may run in one transaction, on its one connection
  for (const setup of setups) {
    const point = assessPointOf(setup);
    const corrected = async (lifeId: string | null, isOf: (at: number) => boolean) => {
      const found = lifeId ? await readingsOfLife(db(), setup.pointId, lifeId) : [];
      return correctSeries(
        found.filter((r) => isOf(r.at)),
        point,
        contextOf(setup, []),
      )
        .readings.filter((r) => !r.recalled)
        .map((r) => r.corrected);
    };
    const renewed = work.startedLifeId !== null;
    const whole = await corrected(work.endedLifeId ?? setup.lifeId, (at) => at < began);
    const since = await corrected(work.startedLifeId ?? setup.lifeId, (at) => renewed || at >= began);
    const known = point.limit
      ? resolveLimits(point.limit, { ...(point.fullFlow && { fullFlow: point.fullFlow }) })
      : null;
    const limits = known?.ok ? known.limits : null;
    const { before, after, scatter } = proofSides(whole, since, limits);
    const expected = expectedAfter({
      makersNew: point.makersNew,
      model: modelled.get(setup.pointId) ?? null,
      before: whole,
      renewed,
    });
    const name = names.get(setup.pointId)!;
    rows.push({
      pointId: setup.pointId,
      name: name.name,
      quantity: setup.quantity,
      unit: name.unit,
      fullFlow: point.fullFlow,
      reference: point.reference,
      before: side(before),
      after: side(after),
      expected,
      proof:
        before.length > 0 && after.length > 0
          ? proofOf(
              before,
              after,
              scatter,
              quantityOf(setup.quantity).harm,
              expected && { value: expected.value, uncertainty: MAKERS_DOUBT * Math.abs(expected.value) },
              limits,
            )
          : null,
    });
  }
  return rows;
}

/** What the healthy model of the circuit shows at each gauge, where it fits what they showed. */
async function modelOf(componentId: string): Promise<Map<string, number>> {
  const [row] = await db()
    .select({ fit: circuitDiagrams.fit })
    .from(circuitDiagrams)
    .innerJoin(components, eq(components.circuitId, circuitDiagrams.circuitId))
    .where(eq(components.id, componentId));
  const met = row?.fit?.fits ? row.fit.met : [];
  return new Map(met.flatMap((m) => (m.model === null ? [] : [[m.pointId, m.model] as const])));
}
