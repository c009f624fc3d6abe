/** Weighted least squares line with intervals; Draper and Smith, Applied Regression Analysis. */
import { studentQuantile } from "../numeric/student";

export interface WeightedLine {
  slope: number;
  intercept: number;
  slopeError: number;
  /** Residual standard deviation of a reading of weight 1. */
  sigma: number;
  degreesOfFreedom: number;
  /** Two-sided interval of the slope. */
  slopeInterval(confidence: number): { low: number; high: number };
  /** Prediction interval at x for a new reading of the stated weight (1 unless said). */
  predict(x: number, options?: { confidence?: number; weight?: number }): { fit: number; low: number; high: number };
}

/**
 * Fit y = intercept + slope·x with weights proportional to 1/variance. Draper and Smith, Applied Regression Analysis.
 * @param x any unit
 * @param y values, as many
 * @param weights above 0, as many; left out: all alike
 * @returns the line with its errors, and intervals at any x
 * @throws {RangeError} for fewer than 3 readings, a weight not above zero, or a single x.
 * @example weightedLine([0, 1, 2, 3], [1, 3.1, 4.9, 7]) // { slope: 1.98, intercept: 1.03, slopeError: 0.04243 }
 */
export function weightedLine(
  x: readonly number[],
  y: readonly number[],
  weights: readonly number[] = x.map(() => 1),
): WeightedLine {
  const n = x.length;
  if (n < 3 || y.length !== n || weights.length !== n)
    throw new RangeError("A line needs at least 3 readings with x, y and weight each.");
  if (weights.some((w) => !(w > 0))) throw new RangeError("Weights must be above zero.");
  const sum = (f: (i: number) => number) => x.reduce((total, _, i) => total + f(i), 0);
  const w = sum((i) => weights[i]!);
  const meanX = sum((i) => weights[i]! * x[i]!) / w;
  const meanY = sum((i) => weights[i]! * y[i]!) / w;
  const sxx = sum((i) => weights[i]! * (x[i]! - meanX) ** 2);
  if (!(sxx > 0)) throw new RangeError("All readings have the same time.");
  const slope = sum((i) => weights[i]! * (x[i]! - meanX) * (y[i]! - meanY)) / sxx;
  const intercept = meanY - slope * meanX;
  const degreesOfFreedom = n - 2;
  const sigma = Math.sqrt(sum((i) => weights[i]! * (y[i]! - intercept - slope * x[i]!) ** 2) / degreesOfFreedom);
  const slopeError = sigma / Math.sqrt(sxx);
  const t = (confidence: number) => studentQuantile(0.5 + confidence / 2, degreesOfFreedom);
  return {
    slope,
    intercept,
    slopeError,
    sigma,
    degreesOfFreedom,
    slopeInterval: (confidence) => ({
      low: slope - t(confidence) * slopeError,
      high: slope + t(confidence) * slopeError,
    }),
    predict(at, { confidence = 0.95, weight = 1 } = {}) {
      const fit = intercept + slope * at;
      const half = t(confidence) * sigma * Math.sqrt(1 / weight + 1 / w + (at - meanX) ** 2 / sxx);
      return { fit, low: fit - half, high: fit + half };
    },
  };
}
