/**
 * First passage of a Wiener process with drift through a level: the inverse Gaussian distribution.
 * Folks and Chhikara, J. R. Stat. Soc. B 40 (1978).
 */
import { lnNormalCdf, normalCdf } from "../numeric/normal";
import type { Random } from "../random/random";

/**
 * Chance that a wandering level with a drift has passed a limit by a time: the inverse Gaussian distribution. Folks and Chhikara,
 * J. R. Stat. Soc. B 40 (1978).
 * @param t time; 0 or less gives 0
 * @param distance to the limit, above 0
 * @param drift per unit time, above 0
 * @param sigma wandering per √time, above 0
 * @returns 0 to 1
 * @example firstPassageCdf(25, 5, 0.2, 0.15) // 0.530
 */
export function firstPassageCdf(t: number, distance: number, drift: number, sigma: number): number {
  if (t <= 0) return 0;
  const root = sigma * Math.sqrt(t);
  // a factor that grows beyond all numbers times one that vanishes: together in logarithms
  const second = Math.exp((2 * drift * distance) / sigma ** 2 + lnNormalCdf((-distance - drift * t) / root));
  return Math.min(1, normalCdf((drift * t - distance) / root) + second);
}

/**
 * Time by which a level has passed its limit with a given chance, by bisection.
 * @param p chance, above 0 and below 1
 * @param distance to the limit, above 0
 * @param drift per unit time, above 0
 * @param sigma wandering per √time, above 0
 * @returns time, in the unit of the drift
 * @example firstPassageQuantile(0.5, 5, 0.2, 0.15) // 24.72
 */
export function firstPassageQuantile(p: number, distance: number, drift: number, sigma: number): number {
  let low = 0;
  let high = distance / drift;
  while (firstPassageCdf(high, distance, drift, sigma) < p) high *= 2;
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (firstPassageCdf(middle, distance, drift, sigma) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * Draw a first passage time; Infinity when the level is never reached. Michael, Schucany and Haas,
 * The American Statistician 30 (1976).
 */
export function drawFirstPassage(distance: number, drift: number, sigma: number, rng: Random): number {
  if (distance <= 0) return 0;
  if (sigma <= 0) return drift > 0 ? distance / drift : Infinity;
  if (drift <= 0 && rng.uniform() >= Math.exp((2 * drift * distance) / sigma ** 2)) return Infinity;
  const speed = Math.max(Math.abs(drift), 1e-12);
  const mean = distance / speed;
  const shape = (distance / sigma) ** 2;
  const y = rng.normal() ** 2;
  const x =
    mean + (mean * mean * y) / (2 * shape) - (mean / (2 * shape)) * Math.sqrt(4 * mean * shape * y + (mean * y) ** 2);
  return rng.uniform() <= mean / (mean + x) ? x : (mean * mean) / x;
}
