/** How noisy the readings of a life are. */
import type { FilterReading } from "../forecast/hypothesis";
import { median, robustSpread } from "../trend/robust";

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

/** Fewest second differences in each half that tell whether the noise grows with the level, and what counts beside them for "it does not". */
const FEWEST_HALF = 5;
const PSEUDO_HALF = 3;
/** A half that scatters by no more than this factor more may do so by chance. */
const BY_CHANCE = 1.3;
/** It grows by this factor from one half to the other at most. */
const MOST_GROWTH = 4;

/**
 * Readings whose noise grows with the level: a worn part hunts, and its gauge with it. What the upper half of the levels scatters over
 * what the lower half does, shrunk towards one, is spread over the levels between and beyond.
 * @param readings of one life, in time order
 * @param noise of a reading on the whole, ln units, by `noiseOf`
 * @returns the noise of its lowest levels, and the readings with what comes on top of it in their own uncertainty
 */
export function growingNoise(
  readings: readonly FilterReading[],
  noise: number,
): { noise: number; readings: readonly FilterReading[] } {
  const plain = readings.map((r) => r.y - r.lnPressure + r.lnViscosity);
  const parts = plain.slice(2).map((y, i) => ({
    level: median([plain[i]!, plain[i + 1]!, y]),
    second: y - 2 * plain[i + 1]! + plain[i]!,
  }));
  parts.sort((p, q) => p.level - q.level);
  const half = Math.floor(parts.length / 2);
  if (half < FEWEST_HALF) return { noise, readings };
  const [low, high] = [parts.slice(0, half), parts.slice(-half)];
  const spread = (of: typeof parts) => robustSpread(of.map((p) => p.second));
  const centre = (of: typeof parts) => median(of.map((p) => p.level));
  const way = centre(high) - centre(low);
  const told = Math.log(Math.min(MOST_GROWTH, Math.max(1, spread(high) / spread(low) / BY_CHANCE)));
  const growth = (told * half) / (half + PSEUDO_HALF);
  // a level that stays where it is says nothing of what noise does with it
  if (!(growth > 0) || !(way > noise)) return { noise, readings };
  const least = noise * Math.exp(-growth / 2);
  return {
    noise: least,
    readings: readings.map((r, i) => {
      const place = Math.min(1, Math.max(0, (plain[i]! - centre(low)) / way));
      return { ...r, u: Math.hypot(r.u, least * Math.sqrt(Math.exp(2 * growth * place) - 1)) };
    }),
  };
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
