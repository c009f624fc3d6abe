/** Theil-Sen slope with its interval. Sen, J. Am. Stat. Assoc. 63 (1968). */
import { normalQuantile } from "../numeric/normal";
import { median } from "./robust";

export interface TheilSen {
  slope: number;
  /** median(y) − slope·median(x), SciPy's "separate" intercept. */
  intercept: number;
  low: number;
  high: number;
  confidence: number;
}

/**
 * Median of the pairwise slopes with Sen's interval (normal approximation with ties in y): a trend that single odd readings do not
 * bend. Pairs with equal x are left out. Sen, J. Am. Stat. Assoc. 63 (1968).
 * @param x times, any unit
 * @param y values, as many; the cost grows with the square of their number
 * @param options how sure the interval is
 * @param options.confidence above 0 and below 1
 * @returns the slope in units of y over x, with its interval
 * @throws {RangeError} for fewer than 2 distinct x.
 * @example theilSen([0, 1, 2, 3, 4], [1, 3, 5, 70, 9]).slope // 2
 */
export function theilSen(
  x: readonly number[],
  y: readonly number[],
  { confidence = 0.95 }: { confidence?: number } = {},
): TheilSen {
  const n = x.length;
  if (y.length !== n) throw new RangeError("x and y differ in length.");
  const slopes: number[] = [];
  for (let i = 0; i < n; i++) {
    for (let j = i + 1; j < n; j++) {
      const dx = x[j]! - x[i]!;
      if (dx !== 0) slopes.push((y[j]! - y[i]!) / dx);
    }
  }
  if (slopes.length === 0) throw new RangeError("Theil-Sen needs two different times.");
  const sorted = Float64Array.from(slopes).sort();
  const slope = median(slopes);
  const z = normalQuantile(0.5 + confidence / 2);
  const tie = (values: readonly number[]) => {
    const counts = new Map<number, number>();
    for (const v of values) counts.set(v, (counts.get(v) ?? 0) + 1);
    return [...counts.values()].reduce((sum, c) => sum + c * (c - 1) * (2 * c + 5), 0);
  };
  const sigma = Math.sqrt(Math.max(0, (n * (n - 1) * (2 * n + 5) - tie(y) - tie(x)) / 18));
  const count = sorted.length;
  const upper = Math.min(count - 1, Math.round((count + z * sigma) / 2));
  const lower = Math.max(0, Math.round((count - z * sigma) / 2) - 1);
  return { slope, intercept: median(y) - slope * median(x), low: sorted[lower]!, high: sorted[upper]!, confidence };
}
