/** Everything about one point: its place, its lives, its readings as read and corrected, its assessment. */
import { and, desc, eq, isNotNull, sql } from "drizzle-orm";
import { DAY, correctSeries, isFarReference, quantityOf, sameMonthOf, type UnitPreference } from "@core";
import { db } from "~/db/client.server";
import { circuits, components, machines, photos, points, readings } from "~/db/schema";
import {
  stopsBySite,
  assessPointOf,
  assessReadingOf,
  contextOf,
  fluidOf,
  readingsOfLife,
  usualAt,
} from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { dueAt, roundJoins } from "./due.server";
import { notFound } from "~/platform/missing";
import { isUuid } from "~/platform/validate";
import { pointPlace } from "./place.server";
import {
  bookedWork,
  countByLife,
  lastNotedHours,
  livesOf,
  newestPhotos,
  setupOf,
  shelfOf,
  storedAssessment,
  supersededCount,
  TABLE_PAGE,
  tableRows,
} from "./pointQueries.server";
import { type ChartLife, thin, type TableReading, uncorrected, countsOf } from "./chartSeries.server";

/** The point's own page. */
export async function pointPage(id: string, page: number, units: UnitPreference = {}) {
  const point = { point: id };
  const [place, [setup], lifeRows, rows, [stored], shelf, [superseded], booked, taken, byLife] = await Promise.all([
    pointPlace(id, units),
    setupOf(point),
    livesOf(point),
    tableRows({ ...point, from: page * TABLE_PAGE }),
    storedAssessment(point),
    shelfOf({}),
    supersededCount(point),
    bookedWork(point),
    newestPhotos(point),
    countByLife(point),
  ]);
  if (!setup) throw notFound("point");
  const assessed = assessPointOf(setup);
  const detail = stored?.detail ?? null;
  const marks = detail?.marks ?? {};
  const currentLife = lifeRows.find((life) => life.endedAt === null);
  const readAtLoad =
    quantityOf(place.point.quantity).correction === "leakage" && place.point.referencePressure !== null;
  // a long life is told by some of its readings; those of the table's page stand among them
  const [corrected, ahead, usual, { total, inLife }, lastHours] = await Promise.all([
    Promise.all(
      lifeRows.map(async (life) => {
        const told = await readingsOfLife(db(), id, life.id);
        const known = new Set(told.map((r) => r.id));
        const own = [
          ...told,
          ...rows.filter((r) => r.lifeId === life.id && !known.has(r.id)).map(assessReadingOf),
        ].sort((p, q) => p.at - q.at);
        const series = correctSeries(own, assessed, contextOf(setup, [], life)).readings.map((r) => ({
          ...r,
          mark: marks[r.id] ?? r.mark,
        }));
        return { life, series };
      }),
    ),
    stopsBySite(db(), [place.siteId]),
    readAtLoad ? usualAt(id) : null,
    countsOf(id, byLife, currentLife?.id),
    (page === 0 && rows.find((r) => r.hours !== null)?.hours) ||
      lastNotedHours(point).then(([noted]) => noted?.hours ?? null),
  ]);
  corrected.reverse();
  const current = corrected.find((c) => c.life.endedAt === null);
  const chart: ChartLife[] = corrected
    .filter((c) => c.series.length > 0)
    .map(({ life, series }) => ({
      id: life.id,
      startedAt: life.startedAt.getTime(),
      endedAt: life.endedAt?.getTime() ?? null,
      serial: life.serial,
      readings: thin(series.map((r) => ({ at: r.at, raw: r.raw, corrected: r.corrected, mark: r.mark }))),
    }));
  const byId = new Map(corrected.flatMap((c) => c.series).map((r) => [r.id, r]));
  const table = rows.map((row): TableReading => {
    const r = byId.get(row.id) ?? uncorrected(row);
    return {
      ...r,
      entered: row.entered,
      least: row.least,
      pressure: row.pressure,
      temperature: row.temperature,
      noted: row.hours,
      by: row.by,
      instrument: row.instrument,
      note: row.note,
      keptBecause: row.keptBecause,
    };
  });
  const last = current?.series.at(-1) ?? null;
  const farFrom =
    usual &&
    isFarReference({ pressure: place.point.referencePressure, temperature: place.point.referenceTemperature }, usual)
      ? usual
      : null;
  const sameMonth = last
    ? (sameMonthOf(
        current!.series.map((r) => ({ at: r.at, value: r.raw })),
        last.at,
        place.timeZone,
      ) ?? null)
    : null;
  return {
    place,
    unit: place.point.unit,
    quantity: place.point.quantity,
    readState: place.point.state,
    conditions: place.point.conditionsText,
    retired: place.point.retiredAt !== null,
    limit: {
      basis: place.point.limitBasis,
      setBy: place.point.limitSetBy,
      setAt: place.point.limitSetAt?.getTime() ?? null,
      reason: place.point.limitReason,
    },
    fullFlow: assessed.fullFlow,
    reference: assessed.reference,
    farFrom,
    fluid: fluidOf(setup),
    state: stored?.state ?? "unread",
    verdict: stored?.verdict ?? [{ text: "No reading yet." }],
    margin: stored?.margin ?? null,
    stale: stored?.stale ?? true,
    detail: detail,
    chart,
    table,
    rowsAtOnce: TABLE_PAGE,
    total,
    page,
    superseded: superseded?.count ?? 0,
    marked: [...byId.values()].filter((r) => r.mark).length,
    lifeStartedAt: current?.life.startedAt.getTime() ?? null,
    inLife,
    photos: taken.map((p) => ({ id: p.id, at: p.at.getTime(), by: p.by })),
    sameMonth,
    last,
    instruments: shelf,
    instrumentId: place.point.instrumentId,
    stops: (ahead.get(place.siteId) ?? []).sort((a, b) => a.at - b.at),
    booked,
    now: now(),
    lastHours,
  };
}

export type PointPage = Awaited<ReturnType<typeof pointPage>>;

/** The next point of the same round that is due, to go on to after saving. */
export async function nextPointOf(id: string): Promise<string | null> {
  const rows = await db().execute<{ id: string }>(sql`
    select p.id from ${roundJoins} join round_points here on here.round_id = rp.round_id and here.point_id = ${id} and rp.position > here.position
    where ${dueAt()} < ${new Date(now() + 7 * DAY).toISOString()} order by rp.position limit 1`);
  return rows.rows[0]?.id ?? null;
}

/** One reading of a point. `Missing` when it is not there. */
export async function readingOf(pointId: string, readingId: string) {
  const [reading] = await db()
    .select()
    .from(readings)
    .where(and(eq(readings.pointId, pointId), eq(readings.id, readingId)));
  if (!reading) throw notFound("reading");
  return reading;
}

export async function photoOf(id: string): Promise<{ mediaType: string; content: Buffer }> {
  const [row] = await db()
    .select({ mediaType: photos.mediaType, content: photos.content })
    .from(photos)
    .where(eq(photos.id, id));
  if (!row) throw notFound("photograph");
  return row;
}

/** Superseded readings of a point, newest first, for the record. */
export async function supersededReadings(pointId: string) {
  return db()
    .select()
    .from(readings)
    .where(and(eq(readings.pointId, pointId), isNotNull(readings.supersededAt)))
    .orderBy(desc(readings.supersededAt))
    .limit(50);
}

/** The reading that was just saved, to be named on the page that follows; null where the address names none. */
export async function savedReading(id: string | null) {
  if (!isUuid(id)) return null;
  const [row] = await db()
    .select({
      entered: readings.entered,
      pointId: readings.pointId,
      machine: machines.name,
      component: components.name,
    })
    .from(readings)
    .innerJoin(points, eq(points.id, readings.pointId))
    .innerJoin(components, eq(components.id, points.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .where(eq(readings.id, id));
  return row ?? null;
}
