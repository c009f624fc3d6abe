/** Mann-Kendall trend test. Mann (1945), Kendall (1975). */
import { normalCdf } from "../numeric/normal";

export interface MannKendall {
  /** Sum of signs of all later-minus-earlier differences. */
  s: number;
  variance: number;
  z: number;
  /** Two-sided, normal approximation with continuity correction and ties. */
  p: number;
  tau: number;
}

/**
 * Test a series in time order for a monotone trend, with ties. Mann, Econometrica 13 (1945); Kendall (1975).
 * @param y values in time order, at least 3
 * @returns S, its variance, z, the two-sided p and Kendall's tau-b
 * @throws {RangeError} for fewer than 3 values.
 * @example mannKendall([1, 2, 3, 4, 5]) // { s: 10, variance: 16.67, z: 2.205, p: 0.02749, tau: 1 }
 */
export function mannKendall(y: readonly number[]): MannKendall {
  const n = y.length;
  if (n < 3) throw new RangeError("Mann-Kendall needs at least 3 values.");
  let s = 0;
  for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) s += Math.sign(y[j]! - y[i]!);
  const counts = new Map<number, number>();
  for (const v of y) counts.set(v, (counts.get(v) ?? 0) + 1);
  let ties = 0;
  let tiedPairs = 0;
  for (const c of counts.values()) {
    ties += c * (c - 1) * (2 * c + 5);
    tiedPairs += (c * (c - 1)) / 2;
  }
  const variance = (n * (n - 1) * (2 * n + 5) - ties) / 18;
  const z = s === 0 || variance === 0 ? 0 : (s - Math.sign(s)) / Math.sqrt(variance);
  const pairs = (n * (n - 1)) / 2;
  const tau = pairs === tiedPairs ? 0 : s / Math.sqrt(pairs * (pairs - tiedPairs));
  return { s, variance, z, p: 2 * normalCdf(-Math.abs(z)), tau };
}
