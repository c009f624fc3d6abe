/** The standard normal distribution, with the digits of its lower tail kept. */

/** P90 of the standard normal: P10 to P90 is 80 % of it. */
export const P90 = 1.2816;
/** From P10 to P90, in standard deviations. */
export const P10_P90 = 2 * P90;

const LN_SQRT_2PI = 0.5 * Math.log(2 * Math.PI);
/** Below this the tail is computed by itself: one half plus a sum that is nearly minus one half has lost its digits. */
const TAIL = -3;
/** Terms of the continued fraction; at the edge of the tail they give 12 digits. */
const TERMS = 60;

/** Mills ratio Φ(−x)/φ(x) for x ≥ 3 by Laplace's continued fraction. Abramowitz and Stegun 26.2.14. */
function millsRatio(x: number): number {
  let fraction = x;
  for (let k = TERMS; k >= 1; k--) fraction = x + k / fraction;
  return 1 / fraction;
}

/** Density of the standard normal distribution at z. */
export function normalPdf(z: number): number {
  return Math.exp(-0.5 * z * z - LN_SQRT_2PI);
}

/**
 * Standard normal distribution function, to 15 digits in the middle and 12 in the lower tail, down to the smallest
 * numbers there are. The middle is the series z + z³/3 + z⁵/(3·5) + … of Abramowitz and Stegun 26.2.11.
 */
export function normalCdf(z: number): number {
  if (z < TAIL) return Math.exp(lnNormalCdf(z));
  if (z > -TAIL) return 1 - Math.exp(lnNormalCdf(-z));
  let term = z;
  let sum = z;
  for (let k = 3; Math.abs(term) > 1e-17 * Math.abs(sum); k += 2) {
    term *= (z * z) / k;
    sum += term;
  }
  return 0.5 + sum * normalPdf(z);
}

/** Natural logarithm of the standard normal distribution function; finite far into the lower tail. */
export function lnNormalCdf(z: number): number {
  return z < TAIL ? -0.5 * z * z - LN_SQRT_2PI + Math.log(millsRatio(-z)) : Math.log(normalCdf(z));
}

/**
 * Standard normal quantile: a rational start (Abramowitz and Stegun 26.2.23, good to 4.5e-4) and Newton steps on the
 * logarithm of the lower tail, which is nearly straight in z².
 * @param p in (0, 1); 0 and 1 give minus and plus infinity
 * @example normalQuantile(0.975) // 1.9599639845400539
 */
export function normalQuantile(p: number): number {
  if (!(p > 0 && p < 1)) return p === 0 ? -Infinity : p === 1 ? Infinity : NaN;
  if (p > 0.5) return -normalQuantile(1 - p);
  const t = Math.sqrt(-2 * Math.log(p));
  const above = 2.515517 + t * (0.802853 + t * 0.010328);
  const below = 1 + t * (1.432788 + t * (0.189269 + t * 0.001308));
  let z = above / below - t;
  for (let i = 0; i < 4; i++) {
    const ln = lnNormalCdf(z);
    const slope = Math.exp(-0.5 * z * z - LN_SQRT_2PI - ln);
    z += (Math.log(p) - ln) / slope;
  }
  return z;
}
