/** How noisy the readings of a life are. */
import type { FilterReading } from "../forecast/hypothesis";
import { robustSpread } from "../trend/robust";

/** Fewest second differences that tell a noise. */
const FEWEST = 3;
/** Readings that the expected noise counts for. */
const PSEUDO = 5;
/** Variance of a second difference over that of a reading: 1 + 4 + 1. */
const SECOND = 6;
/** Noise of a plain indicator without a correction, at least, until its readings tell. */
const PLAIN = 0.05;
/** How far the exponents of the correction may be off. */
const EXPONENT_DOUBT = 0.3;

/**
 * Noise of a reading, ln units: robust spread of second differences, less what other exponents of the correction
 * explain (ridge regression), shrunk to what is expected.
 */
export function noiseOf(readings: readonly FilterReading[], corrected: boolean, expected: number): number {
  const n = readings.length - 2;
  if (n < FEWEST) return corrected ? expected : Math.max(expected, PLAIN);
  const second = (f: (r: FilterReading) => number) =>
    readings.slice(2).map((r, i) => f(r) - 2 * f(readings[i + 1]!) + f(readings[i]!));
  const y = second((r) => r.y - r.lnPressure + r.lnViscosity);
  const whole = robustSpread(y) / Math.sqrt(SECOND);
  const own = corrected
    ? robustSpread(
        explained(
          y,
          second((r) => r.lnPressure),
          second((r) => -r.lnViscosity),
          (SECOND * whole ** 2) / EXPONENT_DOUBT ** 2,
        ),
      ) / Math.sqrt(SECOND)
    : whole;
  return Math.sqrt((PSEUDO * expected ** 2 + n * own ** 2) / (PSEUDO + n));
}

/** What is left of y after a ridge regression on p and v. */
function explained(y: readonly number[], p: readonly number[], v: readonly number[], ridge: number): number[] {
  const sum = (a: readonly number[], b: readonly number[]) => a.reduce((total, value, i) => total + value * b[i]!, 0);
  const [pp, pv, vv] = [sum(p, p) + ridge, sum(p, v), sum(v, v) + ridge];
  const [py, vy] = [sum(p, y), sum(v, y)];
  const determinant = pp * vv - pv * pv;
  if (!(determinant > 0)) return [...y];
  const [a, b] = [(py * vv - vy * pv) / determinant, (vy * pp - py * pv) / determinant];
  return y.map((value, i) => value - a * p[i]! - b * v[i]!);
}
