/** Instruments, their checks and recalls, and which of them fits a point. */
import { and, asc, count, desc, eq, getTableColumns, isNull, sql } from "drizzle-orm";
import { DAY, instrumentFitness, kinematicViscosity, quantityOf, type InstrumentFitness } from "@core";
import { db } from "~/db/client.server";
import { assessments, instrumentChecks, instrumentRecalls, instruments, readings, points } from "~/db/schema";
import { currentDetail, fluidOf, pointSetups } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { notFound } from "~/platform/missing";
import { pointPlace } from "~/domain/readings/index.server";

export type InstrumentRow = typeof instruments.$inferSelect;

/** Readings of an instrument that are counted for the list; more are "over". */
export const COUNTED_READINGS = 1000;

/** The register, with how many readings each has taken: one look into the index for each, not all readings. */
export async function instrumentList() {
  // by name: of a single table the builder writes a column bare, and "id" would be that of the reading
  const counted = sql<number>`(select count(*)::int from (select 1 from readings r
    where r.instrument_id = instruments.id and r.superseded_at is null limit ${COUNTED_READINGS + 1}) x)`;
  const rows = await db()
    .select({ instrument: instruments, n: counted })
    .from(instruments)
    .orderBy(sql`${instruments.retiredAt} is not null`, asc(instruments.tag));
  return rows.map((r) => ({
    ...r.instrument,
    readings: r.n,
    due: dueOf(r.instrument),
  }));
}

/** "never", "out", "soon" (within a month) or "good". */
function dueOf(i: InstrumentRow): "never" | "out" | "soon" | "good" {
  if (!i.calibrationDueAt) return "never";
  const left = i.calibrationDueAt.getTime() - now();
  return left < 0 ? "out" : left < 30 * DAY ? "soon" : "good";
}

export async function instrumentRow(id: string): Promise<InstrumentRow> {
  const [row] = await db().select().from(instruments).where(eq(instruments.id, id));
  if (!row) throw notFound("instrument");
  return row;
}

/** One instrument: what it read lately, its checks, its recalls. */
export async function instrumentPage(id: string) {
  const [instrument, checks, recalls, [since]] = await Promise.all([
    instrumentRow(id),
    db()
      .select()
      .from(instrumentChecks)
      .where(eq(instrumentChecks.instrumentId, id))
      .orderBy(desc(instrumentChecks.at))
      .limit(40),
    db()
      .select({
        ...getTableColumns(instrumentRecalls),
        // by name: of a single table the builder writes a column bare
        count: sql<number>`(select count(*)::int from readings r where r.instrument_id = instrument_recalls.instrument_id
          and r.superseded_at is null and r.taken_at between instrument_recalls.from_at and instrument_recalls.until_at)`,
      })
      .from(instrumentRecalls)
      .where(eq(instrumentRecalls.instrumentId, id))
      .orderBy(desc(instrumentRecalls.createdAt))
      .limit(20),
    db()
      .select({ n: count(), points: sql<number>`count(distinct ${readings.pointId})::int` })
      .from(readings)
      .where(and(eq(readings.instrumentId, id), isNull(readings.supersededAt))),
  ]);
  const good = checks.find((c) => c.passed);
  const failed = checks.find((c) => !c.passed && !recalls.some((r) => r.withdrawnAt === null && r.untilAt >= c.at));
  const before = failed ? checks.find((c) => c.passed && c.at < failed.at) : good;
  const lastGood = Math.max(good?.at.getTime() ?? 0, instrument.calibratedAt?.getTime() ?? 0) || null;
  return {
    instrument,
    due: dueOf(instrument),
    lastGood,
    inDoubt: { from: (before?.at ?? instrument.calibratedAt)?.getTime() ?? null, until: failed?.at.getTime() ?? now() },
    failedUnrecalled: failed !== undefined,
    now: now(),
    readings: since?.n ?? 0,
    points: since?.points ?? 0,
    checks: checks.map((c) => ({
      id: c.id,
      at: c.at.getTime(),
      kind: c.kind,
      points: c.points,
      passed: c.passed,
      certificate: c.certificate,
      note: c.note,
      by: c.by,
    })),
    recalls: recalls.map((r) => ({
      id: r.id,
      from: r.fromAt.getTime(),
      until: r.untilAt.getTime(),
      reason: r.reason,
      readings: r.count,
      by: r.by,
      withdrawnBy: r.withdrawnBy,
      withdrawnWhy: r.withdrawnWhy,
    })),
  };
}

/** Share of the way from as new to the limit that a reading must be able to show. */
const SHARE_TO_SEE = 0.25;
/** Without a limit: this share of the usual value. */
const SHARE_OF_VALUE = 0.1;
/** A pressure can rise to this many times the working pressure when an outlet is closed, where no rating is stated. */
const WORST_PRESSURE = 1.5;

export interface Fit {
  instrument: { id: string; tag: string; name: string; fullScale: number; accuracyClass: number };
  fitness: InstrumentFitness;
}

/** Which instrument on the shelf fits a point, the best first, and why the others do not. */
export async function fitsOf(pointId: string) {
  const [place, [setup], [stored]] = await Promise.all([
    pointPlace(pointId),
    pointSetups(db()).where(eq(points.id, pointId)),
    db()
      .select({ detail: currentDetail, lastRaw: assessments.lastRaw })
      .from(assessments)
      .where(eq(assessments.pointId, pointId)),
  ]);
  if (!setup) throw notFound("point");
  const { dimension } = quantityOf(place.point.quantity);
  // the smoothed level: one odd reading must not choose the gauge
  const level = stored?.detail?.expectation;
  const expected = level ? (level.scale === "log" ? Math.exp(level.centre) : level.centre) : (stored?.lastRaw ?? null);
  const limits = stored?.detail?.limits;
  const limit = limits?.upper ?? limits?.lower ?? null;
  const baseline = stored?.detail?.baseline?.centre ?? null;
  const shelf = await db().select().from(instruments).where(isNull(instruments.retiredAt)).orderBy(instruments.tag);
  if (expected === null) return { place, need: null, fits: [] as Fit[], others: shelf.length };
  const worst =
    dimension === "pressure"
      ? (limits?.upper ?? Math.abs(expected) * WORST_PRESSURE)
      : Math.max(Math.abs(expected), limits?.upper ?? 0) * 1.1;
  const fluid = fluidOf(setup);
  const need = {
    expected,
    greatest: Math.max(Math.abs(expected), worst),
    change:
      limit !== null && baseline !== null && limit !== baseline
        ? Math.abs(limit - baseline) * SHARE_TO_SEE
        : Math.max(Math.abs(expected) * SHARE_OF_VALUE, 1e-6),
    ...(fluid && { viscosity: kinematicViscosity(fluid, place.point.referenceTemperature ?? 50) }),
    now: now(),
  };
  const same = shelf.filter((i) => quantityOf(i.quantity).dimension === dimension);
  const fits = same.map((i): Fit => ({
    instrument: { id: i.id, tag: i.tag, name: i.name, fullScale: i.fullScale, accuracyClass: i.accuracyClass },
    fitness: instrumentFitness(
      {
        fullScale: i.fullScale,
        accuracyClass: i.accuracyClass,
        principle: i.principle,
        calibrationDue: i.calibrationDueAt?.getTime() ?? null,
        ...(i.leastReading !== null && { leastReading: i.leastReading }),
        ...(i.viscosityLow !== null &&
          i.viscosityHigh !== null && { viscosity: { low: i.viscosityLow, high: i.viscosityHigh } }),
      },
      need,
    ),
  }));
  const rank = (f: Fit) => (f.fitness.preferred ? 0 : f.fitness.fit ? 1 : 2);
  return {
    place,
    need,
    fits: fits.sort((a, b) => rank(a) - rank(b) || a.fitness.expanded - b.fitness.expanded),
    others: shelf.length - same.length,
  };
}
