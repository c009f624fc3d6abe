/** Running hours to dates, through a duty that is itself uncertain. */
import { DAY } from "../units/time";
import { median } from "../trend/robust";
import { random } from "../random/random";

/** A machine that hardly runs still runs so many hours a day: below this its dates would leave the calendar. */
const LEAST_DUTY = 0.01;

export interface Duty {
  hoursPerDay: number;
  /** Relative standard deviation. */
  deviation: number;
  /** Hours a day while it is not standing, where it stood for some time; left out: it did not. */
  running?: number;
}

/** Between two readings at less than this share of its usual pace it was standing for some of the time (grade). */
const STANDING = 0.5;
/** While running it must be faster than on the whole by this factor, or it is no standing. */
const MUCH_FASTER = 1.1;
/** Nobody knows whether it will stand again: so many of the dates are reckoned as if it did not. */
const STANDS_NO_MORE = 0.5;

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
  const hoursPerDay = Math.max(LEAST_DUTY, (last.hours - first.hours) / days);
  const running = whileRunning(recent);
  return {
    hoursPerDay,
    deviation: Math.max(0.05, 0.3 / Math.sqrt(recent.length)),
    ...(running > hoursPerDay * MUCH_FASTER && { running }),
  };
}

/** Hours a day between readings, those between which it stood left out. */
function whileRunning(readings: readonly { at: number; hours: number }[]): number {
  const gaps = readings
    .slice(1)
    .map((r, i) => ({ days: (r.at - readings[i]!.at) / DAY, hours: r.hours - readings[i]!.hours }))
    .filter((g) => g.days > 0);
  const usual = median(gaps.map((g) => g.hours / g.days));
  const ran = gaps.filter((g) => g.hours >= STANDING * usual * g.days);
  const days = ran.reduce((sum, g) => sum + g.days, 0);
  return days > 0 ? ran.reduce((sum, g) => sum + g.hours, 0) / days : 0;
}

/** Dates (epoch ms, sorted) for running hours after `from`; Infinity stays. Deterministic; `seed`: of the point, so that many points do not share one luck. */
export function datesOf(hours: readonly number[], from: number, duty: Duty, seed = 0): number[] {
  const rng = random(90_001 + seed);
  const perDay = Math.max(duty.hoursPerDay, LEAST_DUTY);
  return hours
    .map((h) => {
      const pace = duty.running && rng.uniform() < STANDS_NO_MORE ? duty.running : perDay;
      const rate = pace * Math.exp(duty.deviation * rng.normal());
      return Number.isFinite(h) ? from + (h / rate) * DAY : Infinity;
    })
    .sort((p, q) => p - q);
}
