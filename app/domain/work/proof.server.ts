/** Before beside after, at the same reference condition: what the difference proves, and what the part should read now. */
import { and, eq, inArray, isNull } from "drizzle-orm";
import { correctSeries, median, proofOf, quantityOf, robustSpread, type PointQuantityId, type Proof } from "@core";
import { db } from "~/db/client.server";
import { circuitDiagrams, components, points, type interventions } from "~/db/schema";
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

const COMPARED = 3;
/** Readings from which the scatter of a point is told. */
const SCATTER_FROM = 5;
/** Of a reading, where too few were taken to tell: a share of it (common practice for flow and pressure at a machine). */
const USUAL_SCATTER = 0.03;
/** How well a manufacturer's value is known, as a share. */
const MAKERS_DOUBT = 0.1;

const side = (values: number[]) => (values.length ? { value: median(values), readings: values.length } : null);

/** Scatter of one reading: of the life before, about its own course; never nothing. */
function scatterOf(before: readonly number[], least: number): number {
  const steps = before.slice(1).map((v, i) => (v - before[i]!) / Math.SQRT2);
  return Math.max(before.length >= SCATTER_FROM ? robustSpread(steps) : 0, least, Number.EPSILON);
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
  const doneAt = work.doneAt!.getTime();
  const modelled = await modelOf(work.componentId);
  return Promise.all(
    setups.map(async (setup): Promise<BeforeAfter> => {
      const point = assessPointOf(setup);
      const corrected = async (lifeId: string | null, from: number, to: number) => {
        const found = lifeId ? await readingsOfLife(db(), setup.pointId, lifeId) : [];
        return correctSeries(
          found.filter((r) => r.at >= from && r.at < to),
          point,
          contextOf(setup, []),
        )
          .readings.filter((r) => !r.recalled)
          .map((r) => r.corrected);
      };
      const [before, after] = await Promise.all([
        corrected(work.endedLifeId ?? setup.lifeId, 0, doneAt),
        corrected(work.startedLifeId ?? setup.lifeId, doneAt, Infinity),
      ]);
      const [last, first] = [before.slice(-COMPARED), after.slice(0, COMPARED)];
      const model = modelled.get(setup.pointId) ?? null;
      const expected = expectedOf(point, model, before, work.startedLifeId !== null);
      const name = names.get(setup.pointId)!;
      const level = Math.abs(side(last)?.value ?? 0);
      return {
        pointId: setup.pointId,
        name: name.name,
        quantity: setup.quantity,
        unit: name.unit,
        fullFlow: point.fullFlow,
        reference: point.reference,
        before: side(last),
        after: side(first),
        expected,
        proof:
          last.length > 0 && first.length > 0
            ? proofOf(
                last,
                first,
                scatterOf(before, USUAL_SCATTER * level),
                quantityOf(setup.quantity).harm,
                expected && { value: expected.value, uncertainty: MAKERS_DOUBT * Math.abs(expected.value) },
              )
            : null,
      };
    }),
  );
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

/** The manufacturer's value of a new part, else what the circuit's model shows, else what the part before read as new. */
function expectedOf(
  point: ReturnType<typeof assessPointOf>,
  model: number | null,
  before: readonly number[],
  renewed: boolean,
): BeforeAfter["expected"] {
  if (point.makersNew !== null) return { value: point.makersNew, basis: "manufacturer’s value" };
  if (model !== null) return { value: model, basis: "the circuit’s model" };
  return renewed && before.length >= 2 * SCATTER_FROM
    ? { value: median(before.slice(0, SCATTER_FROM)), basis: "the part before, when it was new" }
    : null;
}

/** Is it proven? By the point that condemned it where there is one, else by any; null: nothing was read since. */
export function provenBy(rows: readonly BeforeAfter[], pointId: string | null): boolean | null {
  const own = pointId ? rows.filter((r) => r.pointId === pointId) : rows;
  const told = own.filter((r) => r.proof !== null);
  if (told.length === 0) return null;
  return told.some((r) => r.proof!.verdict === "proven");
}
