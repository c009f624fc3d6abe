/** Odd readings by their distance from a running median. They are marked and weighted down, never deleted. */
import { median, robustSpread } from "../trend/robust";

export interface OutlierMark {
  index: number;
  /** Distance from the running median in robust standard deviations, signed. */
  distance: number;
}

const WINDOW = 3;

/**
 * Indices of values further than `limit` robust standard deviations from the median of their neighbours, as
 * many before as after (at most three each; the first and last have one neighbour). Fewer than 5 values: none.
 * `floor`: the least standard deviation believed.
 */
export function outliers(
  values: readonly number[],
  { limit = 4, floor = 0 }: { limit?: number; floor?: number } = {},
): OutlierMark[] {
  const n = values.length;
  if (n < 5) return [];
  const residuals = values.map((value, i) => {
    const reach = Math.max(1, Math.min(WINDOW, i, n - 1 - i));
    const neighbours = [...values.slice(Math.max(0, i - reach), i), ...values.slice(i + 1, i + 1 + reach)];
    return value - median(neighbours);
  });
  const spread = Math.max(floor, robustSpread(residuals));
  if (!(spread > 0)) return [];
  return residuals.flatMap((r, index) => (Math.abs(r) > limit * spread ? [{ index, distance: r / spread }] : []));
}
