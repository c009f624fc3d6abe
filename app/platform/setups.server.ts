/** Points and readings as the core wants them. */
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { quantityOf, theoreticalFlow, type AssessContext, type AssessPoint, type AssessReading, type AssessStop, type MeasuredViscosity, type WearPrior } from "@core";
import type { Queryable } from "~/db/client.server";
import { oilAssessments } from "~/db/oilTables";
import { circuits, components, fluids, instruments, lives, machines, points, readings } from "~/db/schema";
import { now } from "./clock.server";

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

/** Readings of these lives at these points, in time order, by point and life. */
export async function readingsOfLives(tx: Queryable, pointIds: readonly string[], lifeIds: readonly string[]): Promise<(pointId: string, lifeId: string | null) => AssessReading[]> {
  const rows = lifeIds.length === 0 ? [] : await tx.select(assessedColumns).from(readings).leftJoin(instruments, eq(instruments.id, readings.instrumentId))
    .where(and(inArray(readings.lifeId, [...lifeIds]), inArray(readings.pointId, [...pointIds]), isNull(readings.supersededAt)))
    .orderBy(readings.pointId, readings.takenAt);
  const found = new Map<string, AssessReading[]>();
  for (const row of rows) {
    const key = `${row.pointId} ${row.lifeId}`;
    const list = found.get(key) ?? [];
    list.push(assessReadingOf(row));
    found.set(key, list);
  }
  return (pointId, lifeId) => found.get(`${pointId} ${lifeId}`) ?? [];
}
