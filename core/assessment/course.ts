/**
 * A fast course: readings that leave what went before and go on, each beyond the last. A pump that goes in six weeks has three such
 * readings in its life, and no rank test over all of them proves anything in time.
 */
import { DAY, MONTH } from "../units/time";
import { excess, sidesOf, type LimitSide } from "../baseline/margin";
import type { Limits } from "../baseline/limit";
import { median, robustSpread } from "../trend/robust";
import { theilSen } from "../trend/theilSen";

export interface CourseReading {
  at: number;
  value: number;
  /** Standard uncertainty, same unit. */
  uncertainty: number;
}

export interface FastCourse {
  /** Readings that make it up, the newest of a life: two at least. */
  readings: number;
  side: LimitSide;
  /** The newest of them, which is the level, and what one reading scatters. */
  level: number;
  scatter: number;
  /** Of the level, core unit a month. */
  perMonth: number;
  /** When it reaches its limit at the faster of both rates, ms after the newest reading; 0: it is beyond. */
  toLimit: number;
  /** The first reading from which all are beyond the limit, epoch ms; null: the newest is not. */
  beyondSince: number | null;
}

/** Readings before it that tell what the life was like, at most and at least. */
const BEFORE = 12;
const FEWEST_BEFORE = 3;
/** So many scatters away from what was expected a reading is no scatter. */
const AWAY = 4;
/** The next one may fall back by so many scatters of a step, and goes on all the same. */
const BACK = 2;
/** A course is fast when it reaches its limit within so many of its own intervals. */
const SOON = 6;
/** Scatter of a plain reading, relative, where too few tell it (common practice). */
const USUAL = 0.05;
const TELLS_SCATTER = 5;
/** Readings of one course, at most: of a longer one the forecast knows as much. */
const LONGEST = 8;
/** Factors by which a unit or a decimal is mixed up: a pair that stands there asks, it does not wear. */
const UNIT_FACTORS = [3.785411784, 6.894757, 10, 14.5038, 25.4, 100];
const OF_FACTOR = 0.02;

/**
 * What a quantity that follows the weather must show in its first year, so that it is no spring: steps that grow by this factor, a
 * last one of more kelvin a month than the weather brings, and so many kelvin away from where it was (grade).
 */
const WEATHER = { grows: 1.15, step: 4.5, away: 8 } as const;

/**
 * The fast course that the newest readings make, if they do.
 * @param readings believed ones of one life, in time order, at the reference condition
 * @param limits core units; without one nothing is reached
 * @param rule floor below which nothing can be told apart, core unit; does the quantity follow the weather?
 * @returns the course; null: none
 * @example
 * const monthly = [2, 2.02, 1.98, 2.01, 1.99, 2, 2.8, 3.9].map((value, i) => ({ at: i * 30 * DAY, value, uncertainty: 0.02 }));
 * fastCourse(monthly, { upper: 6.5, lower: null }, { floor: 0.01, weather: false }).readings // 2
 * fastCourse(monthly.slice(0, -1), { upper: 6.5, lower: null }, { floor: 0.01, weather: false }) // null
 */
export function fastCourse(
  readings: readonly CourseReading[],
  limits: Limits,
  { floor, weather }: { floor: number; weather: boolean },
): FastCourse | null {
  let found: FastCourse | null = null;
  // the longest that still leaves enough before it
  for (let count = 2; count <= Math.min(LONGEST, readings.length - FEWEST_BEFORE); count++)
    found = courseOf(readings, count, limits, floor, weather) ?? found;
  return found;
}

function courseOf(
  readings: readonly CourseReading[],
  count: number,
  limits: Limits,
  floor: number,
  weather: boolean,
): FastCourse | null {
  const before = readings.slice(0, -count).slice(-BEFORE);
  const own = readings.slice(-count);
  const { expected, scatter, centre } = soundOf(before, floor);
  const away = own.map((r) => r.value - expected(r.at));
  const sign = Math.sign(away[0]!);
  const far = away.map((d) => sign * d);
  if (far.some((d) => d <= AWAY * scatter)) return null;
  const goesOn = far.every((d, i) => i === 0 || d >= far[i - 1]! - BACK * scatter);
  const grows = far.every((d, i) => i === 0 || d > far[i - 1]! + (count > 2 ? scatter : 0));
  if (!goesOn || !grows || isUnitSlip(own, centre)) return null;
  const side = sidesOf(limits).find((s) => (s.side === "upper") === sign > 0);
  if (!side) return null;
  const last = own.at(-1)!;
  const level = last.value;
  const gap = last.at - own.at(-2)!.at;
  const step = Math.abs(level - own.at(-2)!.value);
  const left = -excess(level, side);
  const perMonth = ((level - own.at(-2)!.value) / Math.max(gap, DAY)) * MONTH;
  const lastWithin = readings.findLastIndex((r) => excess(r.value, side) < 0);
  const beyondSince = readings[lastWithin + 1]?.at ?? null;
  const course = { readings: count, side, level, scatter, perMonth, beyondSince };
  if (left <= 0) return { ...course, toLimit: 0 };
  const intervals = intervalsToLimit(far, left, step, weather);
  if (!(intervals <= SOON)) return null;
  if (weather && !beyondWeather(own, far)) return null;
  return { ...course, toLimit: intervals * gap };
}

/** What the readings before say of the time after, and how far one of them scatters about it. */
function soundOf(before: readonly CourseReading[], floor: number) {
  const centre = median(before.map((r) => r.value));
  const own = median(before.map((r) => r.uncertainty));
  if (before.length < TELLS_SCATTER || before[0]!.at === before.at(-1)!.at)
    return { expected: () => centre, centre, scatter: Math.max(floor, own, Math.abs(centre) * USUAL) };
  const { slope, low, high } = theilSen(
    before.map((r) => r.at / DAY),
    before.map((r) => r.value),
    { confidence: 0.99 },
  );
  // only a slope that is proved goes on: of a level one, scatter would be carried far ahead
  const rate = low > 0 || high < 0 ? slope : 0;
  const about = before.map((r) => r.value - rate * (r.at / DAY));
  const start = median(about);
  return {
    expected: (at: number) => start + rate * (at / DAY),
    centre,
    scatter: Math.max(floor, own, robustSpread(about)),
  };
}

/** Own intervals until the limit, at the faster of the last step and of the growth of the distance; the weather does not grow. */
function intervalsToLimit(far: readonly number[], left: number, step: number, weather: boolean): number {
  const linear = left / step;
  const ratio = far.at(-1)! / far.at(-2)!;
  if (weather || ratio <= 1) return linear;
  return Math.min(linear, Math.log((far.at(-1)! + left) / far.at(-1)!) / Math.log(ratio));
}

function beyondWeather(own: readonly CourseReading[], far: readonly number[]): boolean {
  const steps = far.map((d, i) => d - (far[i - 1] ?? 0));
  const [before, last] = steps.slice(-2) as [number, number];
  const months = Math.max(1, (own.at(-1)!.at - own.at(-2)!.at) / MONTH);
  return last >= WEATHER.grows * before && last >= WEATHER.step * months && far.at(-1)! >= WEATHER.away;
}

/** Do all of them stand at one factor of a unit from what was before: a meter that was changed, or read in another unit? */
function isUnitSlip(own: readonly CourseReading[], centre: number): boolean {
  if (!(centre > 0)) return false;
  return [...UNIT_FACTORS, ...UNIT_FACTORS.map((f) => 1 / f)].some((factor) =>
    own.every((r) => Math.abs(r.value / centre / factor - 1) <= Math.max(OF_FACTOR, USUAL)),
  );
}
