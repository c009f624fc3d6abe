/** The share of the margin that a point has used over its life, for a small line beside a word. */
import { leavesMargin, nearestSide, sidesOf, usedTowards } from "../baseline/margin";
import { presentLevel } from "./expectation";
import { P10_P90 } from "../numeric/normal";
import type { BelievedLevel } from "./level";
import type { Assessment } from "./types";

/** Moments that a small line shows; more cannot be told apart. */
const MOST_MOMENTS = 24;
/** Fewer tell no course. */
const FEWEST_MOMENTS = 4;

export interface MarginMoment {
  /** epoch ms. */
  at: number;
  /** 0 as when new, 1 at the limit. */
  used: number;
}

/**
 * The margin used as it went, towards the limit that is nearest now: a small line beside a word.
 * @param assessed an assessment
 * @returns at most 24 moments, oldest first, the present last; 0 as when new, 1 at the limit; empty: too few readings, or no limit
 * @example
 * const readings = Array.from({ length: 24 }, (_, month) => ({ at: month * 30 * DAY, value: 50 + month }));
 * const line = marginHistory(assess(readings, { quantity: "temperature", limit: { upper: 80 } }));
 * line.at(-1).used > line[0].used // true
 * marginHistory(assess(readings, { quantity: "temperature" })) // []
 */
export function marginHistory({
  expectation,
  baseline,
  limits,
  lastAt,
}: Pick<Assessment, "expectation" | "baseline" | "limits" | "lastAt">): MarginMoment[] {
  if (!expectation || !baseline || !limits || lastAt === null || sidesOf(limits).length === 0) return [];
  const plain = (centre: number) => (expectation.scale === "log" ? Math.exp(centre) : centre);
  const levels = [
    ...expectation.behind.map(({ at, centre }) => ({ at, value: plain(centre) })),
    { at: lastAt, value: presentLevel(expectation).value },
  ];
  if (levels.length < FEWEST_MOMENTS) return [];
  const side = nearestSide(levels.at(-1)!.value, baseline.centre, limits);
  const every = Math.max(1, Math.ceil(levels.length / MOST_MOMENTS));
  return levels
    .filter((_, i) => (levels.length - 1 - i) % every === 0)
    .map(({ at, value }) => ({ at, used: usedTowards(value, baseline.centre, side) }));
}

/**
 * The level of a point now, at its reference condition. After a step the spread of the last dozen readings says nothing
 * of it (192, 192, 171, 170 bar: 9 bar); the margin that was judged does.
 * @param assessed an assessment with a baseline
 * @returns core unit of its quantity; its deviation is that of the level, not of one more reading
 * @example
 * const readings = [50, 51, 50, 52, 51, 53].map((value, month) => ({ at: month * 30 * DAY, value }));
 * levelNow(assess(readings, { quantity: "temperature", limit: { upper: 80 } })) // { value: 52.01, deviation: 0.7435 }
 */
export function levelNow({
  expectation,
  baseline,
  limits,
  margin,
}: Pick<Assessment, "limits" | "margin"> & {
  [K in "expectation" | "baseline"]: NonNullable<Assessment[K]>;
}): BelievedLevel {
  const level = presentLevel(expectation);
  if (!margin || !limits || sidesOf(limits).length === 0) return level;
  const side = nearestSide(level.value, baseline.centre, limits);
  if (!leavesMargin(baseline.centre, side)) return level;
  return { ...level, deviation: (Math.abs(side.limit - baseline.centre) * (margin.high - margin.low)) / P10_P90 };
}
