/** The words as a person lives with them: what is told of a life at each reading and between, and how long before its limit. */
import {
  assess,
  random,
  rememberState,
  standingOf,
  type AssessContext,
  type Assessment,
  type AssessPoint,
  type AssessReading,
  type StateMemory,
} from "@core";
import { measuredLives, type FleetLife } from "../../core/simulation/fleet";
import { universeCourse, type UniverseFamily } from "../../core/simulation/universe";

export const DAY = 86_400_000;
export const YEAR = 365 * DAY;
/** Weeks until a part is there, and the time that it takes to order it. */
export const LEAD_DAYS = 56;
export const TO_ORDER = 28 * DAY;

/** Running hours to the limit, and readings in such a life: one a month. */
export const LENGTHS = [
  [6000, 17],
  [15_000, 42],
  [28_000, 78],
] as const;
export const NOISES = [0.03, 0.06];
/** What is told at a moment. */
export interface Told {
  at: number;
  state: Assessment["state"];
  p50: number | null;
  /** "Not before" was said of it; null: it was not. */
  notBefore: number | null;
}

export const warns = (t: Told) => t.state === "alert" || t.state === "alarm";
export const alarms = (t: Told) => t.state === "alarm";

/** Two stops a year, from half a year after the first reading on. */
const stopsFrom = (first: number) =>
  Array.from({ length: 60 }, (_, i) => ({ id: String(i), at: first + (i + 1) * 0.5 * YEAR }));

/** Told at each reading, and a fortnight later. */
export function toldOf(
  readings: readonly AssessReading[],
  point: AssessPoint,
  stopsKnown: boolean,
  context: (now: number) => AssessContext,
): Told[] {
  const stops = stopsKnown ? stopsFrom(readings[0]!.at) : [];
  const told: Told[] = [];
  let memory: StateMemory | null = null;
  for (let n = 3; n <= readings.length; n++) {
    const last = readings[n - 1]!;
    const next = readings[n]?.at ?? Infinity;
    for (const now of [last.at + 3_600_000, last.at + 14 * DAY]) {
      if (now >= next) continue;
      const known = readings.slice(0, n);
      const given = { ...context(now), leadTimeDays: LEAD_DAYS, stops: stops.filter((s) => s.at > now) };
      const made = assess(known, point, { ...given, standing: standingOf(memory, known, point, given) });
      memory = rememberState(made.state, known, point, given, memory);
      told.push({
        at: now,
        state: made.state,
        p50: made.forecast && !made.noTrend ? made.forecast.dates.p50 : null,
        notBefore: made.noTrend?.earliest ?? null,
      });
    }
  }
  return told;
}

/** Is what was said taken back at some time, by being said no more? */
export const takenBack = (told: readonly Told[], says: (t: Told) => boolean) =>
  told.some((t, i) => i > 0 && says(told[i - 1]!) && !says(t));
/** Days before the limit at which it was said for the first time. */
export const daysAhead = (told: readonly Told[], says: (t: Told) => boolean, limitAt: number) => {
  const first = told.find(says);
  return first ? (limitAt - first.at) / DAY : -Infinity;
};

/** Lives of each family and length, `lives` of each, by seeds that follow on `from`. */
export function familyLives(
  from: number,
  families: readonly UniverseFamily[],
  lives: number,
): { family: UniverseFamily; hours: number; count: number; noise: number; seed: number; life: FleetLife }[] {
  let seed = from;
  return LENGTHS.flatMap(([hours, count], i) =>
    families.flatMap((family) =>
      Array.from({ length: lives }).flatMap(() => {
        seed++;
        const noise = NOISES[(seed + i) % NOISES.length]!;
        const plan = { seed, lives: 1, noise, readingsPerLife: count, timeScale: hours };
        const made = measuredLives(plan, random(seed).fork(family), (rng, scale, end) =>
          universeCourse(family, rng, scale, end),
        );
        return made.map((life) => ({ family, hours, count, noise, seed, life }));
      }),
    ),
  );
}

/** When the limit of a life is reached, epoch ms. */
export function limitOf(life: FleetLife): number {
  const first = life.readings[0]!;
  return first.at + ((life.crossing - first.hours) / life.hoursPerDay) * DAY;
}
