/** Points and readings as the core wants them. */
import { and, count, eq, isNull, sql } from "drizzle-orm";
import {
  dayOf,
  dayStart,
  partReadyOn,
  quantityOf,
  theoreticalFlow,
  type AssessPoint,
  type AssessReading,
  type AssessStop,
  type MeasuredViscosity,
  type MeterChange,
  type SeriesContext,
} from "@core";
import { statement, type Queryable } from "~/db/client.server";
import { oilAssessments } from "~/db/oilTables";
import {
  circuits,
  components,
  fluids,
  hourMeterChanges,
  instrumentRecalls,
  instruments,
  interventions,
  lives,
  machines,
  points,
  readings,
  sites,
  workRuns,
} from "~/db/schema";
import { leadTimeNow } from "./chances.server";
import { now } from "~/runtime/clock.server";

/** Everything about a point that an assessment needs, except readings, stops and peers. */
export function pointSetups(tx: Queryable) {
  return tx
    .select({
      pointId: points.id,
      quantity: points.quantity,
      referencePressure: points.referencePressure,
      referenceTemperature: points.referenceTemperature,
      limitBasis: points.limitBasis,
      limitUpper: points.limitUpper,
      limitLower: points.limitLower,
      makersNew: points.makersNew,
      componentKind: components.kind,
      displacement: components.displacement,
      speed: components.speed,
      leadTimeDays: leadTimeNow,
      runInHours: components.runInHours,
      hoursPerDay: machines.hoursPerDay,
      dutyDeviation: machines.dutyDeviation,
      circuitId: circuits.id,
      siteId: machines.siteId,
      timeZone: sites.timeZone,
      orderedOn: sql<
        string | null
      >`(select max(i.part_ordered_on)::text from ${interventions} i where i.component_id = ${components.id} and i.done_at is null and i.cancelled_at is null)`,
      kv40: fluids.kv40,
      kv100: fluids.kv100,
      density15: fluids.density15,
      measured: sql<MeasuredViscosity[] | null>`${oilAssessments.detail} -> 'measured'`,
      contaminatedAt: oilAssessments.contaminatedAt,
      contaminationFactor: oilAssessments.contaminationFactor,
      // the newest repair of the part in this life, by when its work began: it is proved before it is written up
      repairedAt: sql<
        string | null
      >`(select to_char(max(coalesce((select min(w.started_at) from ${workRuns} w where w.intervention_id = i.id),
        greatest(i.booked_at, i.done_at - interval '8 hours'))) at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')
        from ${interventions} i where i.component_id = ${components.id} and i.kind = 'repair' and i.done_at is not null
          and i.done_at > ${lives.startedAt})`,
      nextChanceDays: sites.nextChanceDays,
      acceptedPercent: sites.acceptedPercent,
      lifeId: lives.id,
      lifeStartHours: lives.startHours,
      lifeStartedAt: lives.startedAt,
      knownWhenNew: lives.knownWhenNew,
      meterChanges: sql<MeterChange[] | null>`(select jsonb_agg(jsonb_build_object('at', (extract(epoch
        from ${hourMeterChanges.at}) * 1000)::int8, 'before', ${hourMeterChanges.before}, 'after', ${hourMeterChanges.after})
        order by ${hourMeterChanges.at})
        from ${hourMeterChanges} where ${hourMeterChanges.machineId} = ${machines.id} and ${hourMeterChanges.withdrawnAt} is null)`,
    })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .leftJoin(fluids, eq(fluids.id, circuits.fluidId))
    .leftJoin(oilAssessments, eq(oilAssessments.circuitId, circuits.id))
    .leftJoin(lives, and(eq(lives.componentId, components.id), isNull(lives.endedAt)));
}

export type PointSetup = Awaited<ReturnType<typeof pointSetups>>[number];

/** Leakage needs both, a filter element only a temperature. */
function referenceOf(
  s: Pick<PointSetup, "quantity" | "referencePressure" | "referenceTemperature">,
): AssessPoint["reference"] {
  if (s.referenceTemperature === null) return null;
  if (s.referencePressure === null)
    return quantityOf(s.quantity).correction === "element"
      ? { pressure: 1, temperature: s.referenceTemperature }
      : null;
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
  return s.kv40 !== null && s.kv100 !== null && s.density15 !== null
    ? { kv40: s.kv40, kv100: s.kv100, density15: s.density15 }
    : null;
}

/** A life as an assessment needs it: when it began, and what the hour meter showed then. */
export interface LifeStart {
  startHours: number;
  startedAt: Date;
}

/** A number of a point's own, so that its draws are not another's. */
const seedOf = (id: string) => parseInt(id.replaceAll("-", "").slice(0, 7), 16);

/** Context of an assessment, without what peers tell. `life`: of another life than the present one. */
export function contextOf(s: PointSetup, siteStops: readonly AssessStop[], life?: LifeStart): SeriesContext {
  return {
    now: now(),
    fluid: fluidOf(s),
    measured: s.measured ?? [],
    contamination: s.contaminatedAt ? { at: s.contaminatedAt.getTime(), factor: s.contaminationFactor ?? 1 } : null,
    duty: { hoursPerDay: s.hoursPerDay, deviation: s.dutyDeviation },
    stops: siteStops,
    leadTimeDays: s.leadTimeDays,
    partReadyAt: s.orderedOn
      ? dayStart(
          partReadyOn({ leadTimeDays: s.leadTimeDays, orderedOn: s.orderedOn, today: dayOf(now(), s.timeZone) }),
          s.timeZone,
        )
      : null,
    runInHours: s.runInHours,
    lifeStartHours: life?.startHours ?? s.lifeStartHours ?? 0,
    lifeStartedAt: (life?.startedAt ?? s.lifeStartedAt)?.getTime() ?? null,
    meterChanges: s.meterChanges ?? [],
    readingsInAll: null,
    nextChanceDays: s.nextChanceDays,
    accepted: s.acceptedPercent / 100,
    // of an ended life the part that came after was repaired, not this one
    repairedAt: !life && s.repairedAt ? Date.parse(s.repairedAt) : null,
    seed: seedOf(s.pointId),
  };
}

/** Is a reading's instrument recalled for its moment? Asked when it is read, so that a reading that arrives late, or is corrected, is covered as well. */
export const recalledNow = sql<boolean>`exists (select 1 from ${instrumentRecalls}
  where ${instrumentRecalls.instrumentId} = ${readings.instrumentId} and ${instrumentRecalls.withdrawnAt} is null
  and ${readings.takenAt} between ${instrumentRecalls.fromAt} and ${instrumentRecalls.untilAt})`;

/** Columns of a reading that an assessment looks at. */
export const assessedColumns = {
  id: readings.id,
  pointId: readings.pointId,
  lifeId: readings.lifeId,
  takenAt: readings.takenAt,
  value: readings.value,
  pressure: readings.pressure,
  temperature: readings.temperature,
  speed: readings.speed,
  hours: readings.hours,
  doubtful: readings.doubtful,
  recalled: recalledNow,
  fullScale: instruments.fullScale,
  accuracyClass: instruments.accuracyClass,
};

interface ReadingRow {
  id: string;
  takenAt: Date;
  value: number;
  pressure: number | null;
  temperature: number | null;
  speed: number | null;
  hours: number | null;
  doubtful: boolean;
  recalled: boolean;
  fullScale: number | null;
  accuracyClass: number | null;
}

/** A stored reading as the core wants it. A class is a permissible error, taken as a rectangle. */
export function assessReadingOf(r: ReadingRow): AssessReading {
  return {
    id: r.id,
    at: r.takenAt.getTime(),
    hours: r.hours,
    value: r.value,
    pressure: r.pressure,
    temperature: r.temperature,
    speed: r.speed,
    doubtful: r.doubtful,
    recalled: r.recalled,
    uncertainty:
      r.fullScale !== null && r.accuracyClass !== null ? (r.accuracyClass * r.fullScale) / 100 / Math.sqrt(3) : null,
  };
}

/** A life with more readings than this is read at moments spread over it: a logger's file costs no more than a notebook. */
const WHOLE = 300;
const FIRST = 40;
const LAST = 120;
const MOMENTS = 140;
/** Readings at each moment, of which the middle one will speak. */
const AT_EACH = 3;

const assessedRows = (tx: Queryable) =>
  tx.select(assessedColumns).from(readings).leftJoin(instruments, eq(instruments.id, readings.instrumentId));

const firstOfLife = statement((tx) =>
  assessedRows(tx)
    .where(
      and(
        eq(readings.lifeId, sql.placeholder("life")),
        eq(readings.pointId, sql.placeholder("point")),
        isNull(readings.supersededAt),
      ),
    )
    .orderBy(readings.takenAt)
    .limit(WHOLE + 1),
);

/**
 * The readings of one life at one point, in time order; of a long life its first, its newest, and some at moments
 * evenly spread between them. Each moment is one look into the index, so the cost does not grow with the life.
 */
export async function readingsOfLife(tx: Queryable, pointId: string, lifeId: string): Promise<AssessReading[]> {
  const whole = await firstOfLife({ life: lifeId, point: pointId }, tx);
  if (whole.length <= WHOLE) return whole.map(assessReadingOf);
  const own = sql`${readings.lifeId} = ${lifeId} and ${readings.pointId} = ${pointId} and ${readings.supersededAt} is null`;
  const chosen = sql`${readings.id} in (
    (select id from readings where ${own} order by taken_at limit ${FIRST})
    union (select id from readings where ${own} order by taken_at desc limit ${LAST})
    union (select r.id from (select min(taken_at) as first, max(taken_at) as last from readings where ${own}) e
      cross join generate_series(1, ${MOMENTS}) g cross join lateral
      (select id from readings where ${own} and taken_at >= e.first + (e.last - e.first) * g / ${MOMENTS + 1} order by taken_at limit ${AT_EACH}) r))`;
  return (await assessedRows(tx).where(chosen).orderBy(readings.takenAt)).map(assessReadingOf);
}

/** How many readings a life has at a point. */
export async function countOfLife(tx: Queryable, pointId: string, lifeId: string): Promise<number> {
  const [all] = await tx
    .select({ n: count() })
    .from(readings)
    .where(and(eq(readings.lifeId, lifeId), eq(readings.pointId, pointId), isNull(readings.supersededAt)));
  return all?.n ?? 0;
}
