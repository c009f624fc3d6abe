/** Margin used: 0 % as new, 100 % at the limit. It makes unlike quantities comparable. */
import type { Limits } from "./limit";

/**
 * Share of the margin from baseline to limit that is used, 1 at the limit; the larger side for
 * two-sided limits. Negative: better than new.
 * @throws RangeError when a limit equals the baseline or none is given.
 */
export function marginUsed(value: number, baseline: number, { upper, lower }: Limits): number {
  const sides = [upper, lower].filter((limit): limit is number => limit !== null);
  if (sides.length === 0) throw new RangeError("No limit.");
  return Math.max(...sides.map((limit) => sideMargin(value, baseline, limit)));
}

/** Margin used towards one limit. @throws RangeError when the limit equals the baseline. */
export function sideMargin(value: number, baseline: number, limit: number): number {
  if (limit === baseline) throw new RangeError("The limit equals the baseline: margin used is undefined.");
  return (value - baseline) / (limit - baseline);
}

/** The limit that matters: the side of which more margin is used. */
export function nearestLimit(value: number, baseline: number, { upper, lower }: Limits): number {
  if (upper === null && lower === null) throw new RangeError("No limit.");
  if (upper === null) return lower!;
  if (lower === null) return upper;
  return sideMargin(value, baseline, upper) >= sideMargin(value, baseline, lower) ? upper : lower;
}
