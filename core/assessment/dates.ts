/** Running hours to dates, through a duty that is itself uncertain. */
import { DAY } from "../units/time";
import { random } from "../random/random";

/** A machine that hardly runs still runs so many hours a day: below this its dates would leave the calendar. */
const LEAST_DUTY = 0.01;

export interface Duty {
  hoursPerDay: number;
  /** Relative standard deviation. */
  deviation: number;
}

/**
 * The duty from the hours noted with readings over about the last year; the machine's stated duty
 * where they say too little. Readings in time order, hours of one counter.
 */
export function dutyFromReadings(readings: readonly { at: number; hours: number }[], stated: Duty): Duty {
  const atLeast = { ...stated, hoursPerDay: Math.max(LEAST_DUTY, stated.hoursPerDay) };
  const last = readings[readings.length - 1];
  if (!last) return atLeast;
  const recent = readings.filter((r) => last.at - r.at <= 400 * DAY);
  const first = recent[0]!;
  const days = (last.at - first.at) / DAY;
  if (recent.length < 4 || days < 60 || last.hours <= first.hours) return atLeast;
  return {
    hoursPerDay: Math.max(LEAST_DUTY, (last.hours - first.hours) / days),
    deviation: Math.max(0.05, 0.3 / Math.sqrt(recent.length)),
  };
}

/** Dates (epoch ms, sorted) for running hours after `from`; Infinity stays. Deterministic; `seed`: of the point, so that many points do not share one luck. */
export function datesOf(hours: readonly number[], from: number, duty: Duty, seed = 0): number[] {
  const rng = random(90_001 + seed);
  const perDay = Math.max(duty.hoursPerDay, LEAST_DUTY);
  return hours
    .map((h) => {
      const rate = perDay * Math.exp(duty.deviation * rng.normal());
      return Number.isFinite(h) ? from + (h / rate) * DAY : Infinity;
    })
    .sort((p, q) => p - q);
}
