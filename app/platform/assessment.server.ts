/**
 * Assessments are made here, when a reading lands and in jobs; pages only read them.
 * A point is stale from the moment something about it changes (in the same transaction) until it has
 * been assessed again, so an assessment that was lost on the way is made by the next sweep.
 */
import { and, eq, gte, inArray, isNull, sql } from "drizzle-orm";
import { assess, type AssessStop, type PointQuantityId, type ReadingMark } from "@core";
import { db, type Queryable } from "~/db/client.server";
import { oilAssessments } from "~/db/oilTables";
import { assessments, forecastsIssued, points, stops } from "~/db/schema";
import { now } from "./clock.server";
import { keepLessons, priorsOf, tellEndedLives } from "./lessons.server";
import { assessPointOf, contextOf, pointSetups, readingsOfLives } from "./setups.server";

const BATCH = 50;

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
    await tellEndedLives(tx, setups);
    const readOf = await readingsOfLives(tx, setups.map((s) => s.pointId), setups.flatMap((s) => s.lifeId ?? []));
    const siteStops = await stopsBySite(tx, setups.map((s) => s.siteId));
    const priors = await priorsOf(tx, setups);
    const at = new Date(now());
    const made = setups.map((s) => {
      const { series, life, ...rest } = assess(readOf(s.pointId, s.lifeId), assessPointOf(s), contextOf(s, siteStops.get(s.siteId) ?? [], priors(s)));
      const marks: Record<string, ReadingMark> = {};
      for (const point of series) if (point.mark) marks[point.id] = point.mark;
      return { setup: s, life, detail: { ...rest, marks } };
    });
    const asDate = (ms: number | null | undefined) => (ms === null || ms === undefined ? null : new Date(ms));
    await tx
      .insert(assessments)
      .values(made.map(({ setup, detail }) => {
        const shown = detail.noTrend ? null : detail.forecast;
        return {
          pointId: setup.pointId, lifeId: setup.lifeId, state: detail.state, urgency: detail.urgency, readings: detail.readings,
          lastAt: asDate(detail.lastAt), lastRaw: detail.lastRaw, margin: detail.margin, verdict: detail.verdict,
          p10: asDate(shown?.dates.p10), p50: asDate(shown?.dates.p50), p90: asDate(shown?.dates.p90), detail, stale: false, assessedAt: at,
        };
      }))
      .onConflictDoUpdate({ target: assessments.pointId, set: Object.fromEntries(
        (["lifeId", "state", "urgency", "readings", "lastAt", "lastRaw", "margin", "verdict", "p10", "p50", "p90", "detail", "stale", "assessedAt"] as const)
          .map((column) => [column, sql.raw(`excluded."${assessments[column].name}"`)]),
      ) });
    await keepLessons(tx, made.flatMap(({ setup, life }) => (setup.lifeId ? [{ pointId: setup.pointId, lifeId: setup.lifeId, told: life }] : [])));
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

