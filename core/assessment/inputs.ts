/** What a caller left out of an assessment, filled with what is usual. */
import { defaultPrior } from "../forecast/prior";
import { ACCEPTED } from "../state/state";
import type { AssessContext, AssessPoint, AssessReading, ContextInput, PointInput, ReadingInput } from "./types";

/** Readings with everything that was left out: not known, not doubtful, not recalled. */
export function fullReadings(readings: readonly ReadingInput[]): AssessReading[] {
  return readings.map((r, i) => ({
    id: r.id ?? String(i),
    at: r.at,
    value: r.value,
    hours: r.hours ?? null,
    pressure: r.pressure ?? null,
    temperature: r.temperature ?? null,
    speed: r.speed ?? null,
    uncertainty: r.uncertainty ?? null,
    doubtful: r.doubtful ?? false,
    recalled: r.recalled ?? false,
  }));
}

/** A point with everything that was left out: no reference, no full flow, no manufacturer's value. */
export function fullPoint({
  quantity,
  limit,
  reference,
  fullFlow,
  knownWhenNew,
  makersNew,
  referenceSpeed,
}: PointInput): AssessPoint {
  return {
    quantity,
    limit: limit ? { basis: limit.basis ?? "absolute", upper: limit.upper ?? null, lower: limit.lower ?? null } : null,
    reference: reference ?? null,
    fullFlow: fullFlow ?? null,
    knownWhenNew: knownWhenNew ?? true,
    makersNew: makersNew ?? null,
    referenceSpeed: referenceSpeed ?? null,
  };
}

/** Usual duty where none is stated: a shift a day, known to 15 %. */
const usualDuty = { hoursPerDay: 8, deviation: 0.15 };

/** Within so many days a plant stops a machine that has to be stopped, until it says otherwise (common practice). */
export const NEXT_CHANCE_DAYS = 28;

/** `now` is the last reading where it is left out; the life then began at the first one's running hours, or at zero. */
export function fullContext(context: ContextInput, readings: readonly AssessReading[]): AssessContext {
  return {
    now: context.now ?? readings[readings.length - 1]?.at ?? 0,
    fluid: context.fluid ?? null,
    measured: context.measured ?? [],
    contamination: context.contamination ?? null,
    prior: { ...defaultPrior, ...context.prior },
    duty: context.duty ?? usualDuty,
    stops: context.stops ?? [],
    leadTimeDays: context.leadTimeDays ?? null,
    partReadyAt: context.partReadyAt ?? null,
    runInHours: context.runInHours ?? 0,
    lifeStartHours: context.lifeStartHours ?? 0,
    lifeStartedAt: context.lifeStartedAt ?? null,
    meterChanges: context.meterChanges ?? [],
    readingsInAll: context.readingsInAll ?? null,
    nextChanceDays: context.nextChanceDays ?? NEXT_CHANCE_DAYS,
    accepted: context.accepted ?? ACCEPTED,
    repairedAt: context.repairedAt ?? null,
    standing: context.standing ?? null,
    seed: context.seed ?? 0,
  };
}
