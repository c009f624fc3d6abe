/** Margin used: 0 % as new, 100 % at the limit. It makes unlike quantities comparable. */
import { NO_MARGIN, type Limits } from "./limit";

/** One limit and the side on which harm lies. */
export interface LimitSide {
  side: "upper" | "lower";
  limit: number;
}

/**
 * The limits that are set, each with the side on which harm lies.
 * @param limits core units; null: none on that side
 * @returns none, one or two sides, the upper one first
 * @example sidesOf({ upper: 80, lower: null }) // [{ side: "upper", limit: 80 }]
 */
export function sidesOf({ upper, lower }: Limits): LimitSide[] {
  return [
    ...(upper === null ? [] : [{ side: "upper" as const, limit: upper }]),
    ...(lower === null ? [] : [{ side: "lower" as const, limit: lower }]),
  ];
}

/**
 * How far a value lies beyond a limit.
 * @param value in the unit of the limit
 * @param side the limit and its side
 * @returns in that unit; at or below zero: within
 * @example excess(85, { side: "upper", limit: 80 }) // 5
 */
export function excess(value: number, { side, limit }: LimitSide): number {
  return side === "upper" ? value - limit : limit - value;
}

/**
 * Does a baseline leave a margin towards this limit? One at the limit or beyond it leaves none, nor does one so close
 * (a limit of -5e-324 under a baseline of 0) that a share of the margin between them would be no number.
 */
export function leavesMargin(baseline: number, side: LimitSide): boolean {
  return excess(baseline, side) < -NO_MARGIN;
}

/**
 * Share of the margin towards one limit that is used: 0 at the baseline, 1 at the limit. Negative: better than new.
 * Where the baseline itself stands at the limit or beyond it, the value is held against the limit alone: 1 at the
 * limit, more beyond it, as a share of the limit's own size.
 */
export function usedTowards(value: number, baseline: number, side: LimitSide): number {
  if (leavesMargin(baseline, side)) return (value - baseline) / (side.limit - baseline);
  return 1 + excess(value, side) / Math.max(Math.abs(side.limit) || Math.abs(baseline), NO_MARGIN);
}

/**
 * The side of which more margin is used.
 * @throws {RangeError} when no limit is given.
 */
export function nearestSide(value: number, baseline: number, limits: Limits): LimitSide {
  const sides = sidesOf(limits);
  if (sides.length === 0) throw new RangeError("No limit.");
  return sides.reduce((worst, side) =>
    usedTowards(value, baseline, side) > usedTowards(value, baseline, worst) ? side : worst,
  );
}
