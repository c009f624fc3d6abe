/** Medians and robust spread. */

/**
 * The median (mean of the two middle values when even).
 * @param values any unit, at least one, in any order
 * @returns in that unit
 * @throws {RangeError} when empty.
 * @example median([3, 1, 10, 2]) // 2.5
 */
export function median(values: readonly number[]): number {
  if (values.length === 0) throw new RangeError("No values.");
  const sorted = Float64Array.from(values).sort();
  const half = sorted.length >> 1;
  return sorted.length % 2 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/**
 * The value below which a share p (0 to 1) lies, inverse empirical distribution (R type 1).
 * @param sorted values in rising order, at least one
 * @param p share
 * @throws {RangeError} when there is no value
 * @example inverseEcdf([1, 2, 3, 4], 0.5) // 2
 */
export function inverseEcdf(sorted: ArrayLike<number>, p: number): number {
  if (sorted.length === 0) throw new RangeError("No values.");
  return sorted[Math.min(sorted.length - 1, Math.max(0, Math.ceil(p * sorted.length - 1e-9) - 1))]!;
}

/**
 * Mean of 1.4826·MAD over σ for normal samples of size n; the raw figure is divided by it.
 * By simulation with 400 000 samples a size: reference/statistics.py makes it again.
 */
const smallSample: readonly [size: number, mean: number][] = [
  [2, 0.8369],
  [3, 0.6733],
  [4, 0.7341],
  [5, 0.8222],
  [6, 0.8407],
  [7, 0.8791],
  [8, 0.8868],
  [9, 0.9083],
  [10, 0.9125],
  [12, 0.9288],
  [15, 0.9465],
  [20, 0.9593],
  [30, 0.9733],
  [50, 0.9845],
  [100, 0.9921],
];

function madBias(n: number): number {
  let previous = smallSample[0]!;
  for (const entry of smallSample) {
    if (entry[0] === n) return entry[1];
    if (entry[0] > n) return previous[1] + ((entry[1] - previous[1]) * (n - previous[0])) / (entry[0] - previous[0]);
    previous = entry;
  }
  return 1;
}

/**
 * Robust standard deviation: 1.4826·MAD over its small-sample mean (`smallSample`, by simulation).
 * @param values any unit
 * @returns in that unit; 0 for fewer than 2 values
 * @example robustSpread([1, 2, 3, 4, 100]) // 1.803
 */
export function robustSpread(values: readonly number[]): number {
  if (values.length < 2) return 0;
  const centre = median(values);
  return (1.4826 * median(values.map((v) => Math.abs(v - centre)))) / madBias(values.length);
}
