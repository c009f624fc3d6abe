/** Exponentially weighted moving average chart with fixed limits. Roberts, Technometrics 1 (1959); Montgomery. */
export interface EwmaOptions {
  target: number;
  /** Standard deviation of one value, above zero. */
  sigma: number;
  /** Weight of the newest value, above 0 and at most 1. */
  lambda?: number;
  /** Width of the limits in standard deviations of the average. */
  L?: number;
}

export interface Ewma {
  values: number[];
  upper: number;
  lower: number;
  /** Indices strictly outside the limits. */
  signals: number[];
}

/**
 * Exponentially weighted moving average with fixed limits: finds small shifts, smooths single odd readings. Roberts,
 * Technometrics 1 (1959).
 * @param values in time order; the average starts at the target
 * @param options target and sigma in the unit of the values, sigma above 0; lambda above 0 and at most 1; L in sigma of the average
 * @returns the averages, the limits and which averages lie strictly outside
 * @throws {RangeError} when sigma or lambda is out of range.
 * @example ewma([1, 1], { target: 0, sigma: 1 }) // { values: [0.2, 0.36], upper: 0.9873, lower: -0.9873, signals: [] }
 */
export function ewma(values: readonly number[], { target, sigma, lambda = 0.2, L = 2.962 }: EwmaOptions): Ewma {
  if (!(sigma > 0)) throw new RangeError("Sigma must be above zero.");
  if (!(lambda > 0 && lambda <= 1)) throw new RangeError("Lambda lies above 0 and at most at 1.");
  const half = L * sigma * Math.sqrt(lambda / (2 - lambda));
  let z = target;
  const averages = values.map((value) => (z = lambda * value + (1 - lambda) * z));
  return {
    values: averages,
    upper: target + half,
    lower: target - half,
    signals: averages.flatMap((v, i) => (Math.abs(v - target) > half ? [i] : [])),
  };
}
