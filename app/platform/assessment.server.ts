/**
 * Assessments are made here, when a reading lands and in jobs; pages only read them.
 * A point is stale from the moment something about it changes (in the same transaction) until it has
 * been assessed again, so an assessment that was lost on the way is made by the next sweep.
 */
import { and, eq, gte, inArray, isNull, sql } from "drizzle-orm";
import { assess, type Assessment, defaultPrior, learnPrior, quantityOf, theoreticalFlow, type AssessContext, type AssessPoint, type AssessReading, type AssessStop, type MeasuredViscosity, type PointQuantityId, type ReadingMark, type SisterLife, type WearPrior } from "@core";
import { db, type Queryable } from "~/db/client.server";
import { oilAssessments } from "~/db/oilTables";
import { assessments, circuits, components, fluids, forecastsIssued, instruments, lives, machines, points, readings, stops } from "~/db/schema";
import { now } from "./clock.server";

const BATCH = 50;
const MAX_SISTERS = 200;

/** Everything about a point that an assessment needs, except readings, stops and sisters. */
export function pointSetups(tx: Queryable) {
  return tx
    .select({
      pointId: points.id, quantity: points.quantity, referencePressure: points.referencePressure, referenceTemperature: points.referenceTemperature,
      limitBasis: points.limitBasis, limitUpper: points.limitUpper, limitLower: points.limitLower, makersNew: points.makersNew,
      componentKind: components.kind, displacement: components.displacement, speed: components.speed, leadTimeDays: components.leadTimeDays, runInHours: components.runInHours,
      hoursPerDay: machines.hoursPerDay, dutyDeviation: machines.dutyDeviation, siteId: machines.siteId,
      kv40: fluids.kv40, kv100: fluids.kv100, density15: fluids.density15,
      measured: sql<MeasuredViscosity[] | null>`${oilAssessments.detail} -> 'measured'`, dirtAt: oilAssessments.dirtAt, dirtFactor: oilAssessments.dirtFactor,
      lifeId: lives.id, lifeStartHours: lives.startHours, knownWhenNew: lives.knownWhenNew,
    })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .leftJoin(fluids, eq(fluids.id, circuits.fluidId))
    .leftJoin(oilAssessments, eq(oilAssessments.circuitId, circuits.id))
    .leftJoin(lives, and(eq(lives.componentId, components.id), isNull(lives.endedAt)));
}

export type PointSetup = Awaited<ReturnType<typeof pointSetups>>[number];

/** Leakage needs both, a filter element only a temperature. */
function referenceOf(s: Pick<PointSetup, "quantity" | "referencePressure" | "referenceTemperature">): AssessPoint["reference"] {
  if (s.referenceTemperature === null) return null;
  if (s.referencePressure === null) return quantityOf(s.quantity).correction === "element" ? { pressure: 1, temperature: s.referenceTemperature } : null;
  return { pressure: s.referencePressure, temperature: s.referenceTemperature };
}

/** The point as the core wants it. */
export function assessPointOf(s: PointSetup, knownWhenNew = s.knownWhenNew ?? true): AssessPoint {
  return {
    quantity: s.quantity,
    limit: s.limitBasis ? { basis: s.limitBasis, upper: s.limitUpper, lower: s.limitLower } : null,
    reference: referenceOf(s),
    referenceSpeed: s.speed,
    fullFlow: s.displacement && s.speed ? theoreticalFlow(s.displacement, s.speed) : null,
    knownWhenNew,
    makersNew: s.makersNew,
  };
}

/** The fluid of the point's circuit, if one is stated. */
export function fluidOf(s: Pick<PointSetup, "kv40" | "kv100" | "density15">) {
  return s.kv40 !== null && s.kv100 !== null && s.density15 !== null ? { kv40: s.kv40, kv100: s.kv100, density15: s.density15 } : null;
}

/** Context of an assessment. */
export function contextOf(s: PointSetup, siteStops: readonly AssessStop[], prior: WearPrior, lifeStartHours = s.lifeStartHours ?? 0): AssessContext {
  return {
    now: now(),
    fluid: fluidOf(s),
    measured: s.measured ?? [],
    dirt: s.dirtAt ? { at: s.dirtAt.getTime(), factor: s.dirtFactor ?? 1 } : null,
    prior,
    duty: { hoursPerDay: s.hoursPerDay, deviation: s.dutyDeviation },
    stops: siteStops,
    leadTimeDays: s.leadTimeDays,
    runInHours: s.runInHours,
    lifeStartHours,
  };
}

/** Columns of a reading that an assessment looks at. */
export const assessedColumns = {
  id: readings.id, pointId: readings.pointId, lifeId: readings.lifeId, takenAt: readings.takenAt, value: readings.value, pressure: readings.pressure,
  temperature: readings.temperature, speed: readings.speed, hours: readings.hours, doubtful: readings.doubtful, recallId: readings.recallId, fullScale: instruments.fullScale, accuracyClass: instruments.accuracyClass,
};

interface ReadingRow {
  id: string; takenAt: Date; value: number; pressure: number | null; temperature: number | null; speed: number | null; hours: number | null; doubtful: boolean; recallId: string | null; fullScale: number | null; accuracyClass: number | null;
}

/** A stored reading as the core wants it. A class is a permissible error, taken as a rectangle. */
export function assessReadingOf(r: ReadingRow): AssessReading {
  return {
    id: r.id, at: r.takenAt.getTime(), hours: r.hours, value: r.value, pressure: r.pressure, temperature: r.temperature, speed: r.speed, doubtful: r.doubtful, recalled: r.recallId !== null,
    uncertainty: r.fullScale !== null && r.accuracyClass !== null ? (r.accuracyClass * r.fullScale) / 100 / Math.sqrt(3) : null,
  };
}

/** The start of a planned stop as a moment. */
export function stopMoment(startsOn: string): number {
  return Date.parse(`${startsOn}T06:00:00Z`);
}

/** Stops to come of the sites, by site. */
export async function stopsBySite(tx: Queryable, siteIds: readonly string[]): Promise<Map<string, AssessStop[]>> {
  const bySite = new Map<string, AssessStop[]>();
  if (siteIds.length === 0) return bySite;
  const rows = await tx
    .select({ id: stops.id, siteId: stops.siteId, startsOn: stops.startsOn })
    .from(stops)
    .where(and(inArray(stops.siteId, [...new Set(siteIds)]), isNull(stops.retiredAt), gte(stops.startsOn, new Date(now()).toISOString().slice(0, 10))));
  for (const row of rows) {
    const list = bySite.get(row.siteId) ?? [];
    list.push({ id: row.id, at: stopMoment(row.startsOn) });
    bySite.set(row.siteId, list);
  }
  return bySite;
}

const familyOf = (s: { componentKind: string; quantity: string }) => `${s.componentKind}/${s.quantity}`;

/** What sister points of the same kind of component and quantity say, by family. */
async function priorsOf(tx: Queryable, setups: readonly PointSetup[]): Promise<Map<string, (pointId: string) => WearPrior>> {
  const families = [...new Set(setups.map(familyOf))];
  const result = await tx.execute<{ family: string; pointId: string; life: NonNullable<SisterLifeRow["life"]> }>(sql`
    select family, "pointId", life from (
      select c.kind || '/' || p.quantity as family, a.point_id as "pointId", a.life,
             row_number() over (partition by c.kind, p.quantity order by a.assessed_at desc, a.point_id) as place
      from assessments a join points p on p.id = a.point_id join components c on c.id = p.component_id
      where a.life is not null and p.retired_at is null and c.kind || '/' || p.quantity in ${families}
    ) ranked where place <= ${MAX_SISTERS}`);
  const byFamily = new Map<string, { pointId: string; life: SisterLife }[]>();
  for (const row of result.rows) {
    const list = byFamily.get(row.family) ?? [];
    list.push({ pointId: row.pointId, life: { ...row.life, hours: row.life.hoursToLimit } });
    byFamily.set(row.family, list);
  }
  return new Map(
    families.map((family) => [family, (pointId: string) => learnPrior((byFamily.get(family) ?? []).filter((s) => s.pointId !== pointId).map((s) => s.life), defaultPrior)]),
  );
}

interface SisterLifeRow {
  life: Assessment["life"];
}

/** Assess these points now and store the result. */
export async function assessPoints(pointIds: readonly string[]): Promise<void> {
  for (let i = 0; i < pointIds.length; i += BATCH) await assessBatch(pointIds.slice(i, i + BATCH));
}

async function assessBatch(pointIds: readonly string[]): Promise<void> {
  await db().transaction(async (tx) => {
    // locked before the readings are read: a reading that lands meanwhile marks the point stale after us
    await tx.select({ id: assessments.pointId }).from(assessments).where(inArray(assessments.pointId, [...pointIds])).orderBy(assessments.pointId).for("update");
    const setups = await pointSetups(tx).where(inArray(points.id, [...pointIds]));
    if (setups.length === 0) return;
    const lifeIds = setups.flatMap((s) => (s.lifeId ? [s.lifeId] : []));
    const rows = lifeIds.length === 0 ? [] : await tx.select(assessedColumns).from(readings).leftJoin(instruments, eq(instruments.id, readings.instrumentId))
      .where(and(inArray(readings.lifeId, lifeIds), inArray(readings.pointId, setups.map((s) => s.pointId)), isNull(readings.supersededAt)))
      .orderBy(readings.pointId, readings.takenAt);
    const byPoint = new Map<string, AssessReading[]>();
    for (const row of rows) {
      const list = byPoint.get(row.pointId) ?? [];
      list.push(assessReadingOf(row));
      byPoint.set(row.pointId, list);
    }
    const siteStops = await stopsBySite(tx, setups.map((s) => s.siteId));
    const priors = await priorsOf(tx, setups);
    const at = new Date(now());
    const made = setups.map((s) => {
      const { series, ...rest } = assess(byPoint.get(s.pointId) ?? [], assessPointOf(s), contextOf(s, siteStops.get(s.siteId) ?? [], priors.get(familyOf(s))!(s.pointId)));
      const marks: Record<string, ReadingMark> = {};
      for (const point of series) if (point.mark) marks[point.id] = point.mark;
      return { setup: s, detail: { ...rest, marks } };
    });
    const asDate = (ms: number | null | undefined) => (ms === null || ms === undefined ? null : new Date(ms));
    await tx
      .insert(assessments)
      .values(made.map(({ setup, detail }) => {
        const shown = detail.noTrend ? null : detail.forecast;
        return {
          pointId: setup.pointId, lifeId: setup.lifeId, state: detail.state, urgency: detail.urgency, readings: detail.readings,
          lastAt: asDate(detail.lastAt), lastRaw: detail.lastRaw, margin: detail.margin, verdict: detail.verdict,
          p10: asDate(shown?.dates.p10), p50: asDate(shown?.dates.p50), p90: asDate(shown?.dates.p90), life: detail.life, detail, stale: false, assessedAt: at,
        };
      }))
      .onConflictDoUpdate({ target: assessments.pointId, set: Object.fromEntries(
        (["lifeId", "state", "urgency", "readings", "lastAt", "lastRaw", "margin", "verdict", "p10", "p50", "p90", "life", "detail", "stale", "assessedAt"] as const)
          .map((column) => [column, sql.raw(`excluded."${assessments[column].name}"`)]),
      ) });
    const issued = made.flatMap(({ setup, detail }) => {
      const { forecast } = detail;
      if (!forecast || !setup.lifeId || detail.lastAt === null || detail.noTrend) return [];
      return [{ pointId: setup.pointId, lifeId: setup.lifeId, issuedAt: at, lastReadingAt: new Date(detail.lastAt), readings: detail.readings, p10: asDate(forecast.dates.p10), p50: asDate(forecast.dates.p50), p90: asDate(forecast.dates.p90), paths: forecast.paths }];
    });
    if (issued.length) await tx.insert(forecastsIssued).values(issued).onConflictDoNothing();
  });
}

/** Assess every stale point, batch by batch. Several workers may run it: each batch is locked by its rows. */
export async function assessStalePoints(): Promise<void> {
  for (;;) {
    const rows = await db().select({ id: assessments.pointId }).from(assessments).where(eq(assessments.stale, true)).limit(BATCH);
    if (rows.length === 0) return;
    await assessPoints(rows.map((r) => r.id));
  }
}

/** Readings that the oil of their circuit is judged with: filters, and leakage that wear metals are held against. */
export const oilQuantities: readonly PointQuantityId[] = ["pressureDrop", "caseDrainFlow", "leakageFlow"];

/** Mark points stale, within the transaction that changes something about them. */
export async function markStale(tx: Queryable, pointIds: readonly string[]): Promise<void> {
  if (pointIds.length === 0) return;
  // the oil first, then the points: whoever marks or assesses them takes their rows in this order
  await tx.execute(sql`update oil_assessments set stale = true where circuit_id in (
    select c.circuit_id from points p join components c on c.id = p.component_id where p.id in ${[...pointIds]} and p.quantity in ${oilQuantities})`);
  await tx.update(assessments).set({ stale: true }).where(inArray(assessments.pointId, [...pointIds]));
}

/** Mark every point and every circuit's oil stale. */
export async function markAllStale(): Promise<void> {
  await db().update(assessments).set({ stale: true });
  await db().update(oilAssessments).set({ stale: true });
}

/** A new point has an assessment from the start: "no reading yet". */
export async function addEmptyAssessments(tx: Queryable, pointIds: readonly string[]): Promise<void> {
  if (pointIds.length === 0) return;
  await tx.insert(assessments).values(pointIds.map((pointId) => ({ pointId, state: "unproven" as const, urgency: 10, readings: 0, verdict: [{ text: "No reading yet." }], stale: true }))).onConflictDoNothing();
}

