/** The normal and Student distributions, from the jStat package. */
import jStat from "jstat";

/** Below this the tail is computed by itself: one half times (1 + erf) has lost its digits there. */
const TAIL = -3;
/** Terms of the continued fraction; at the edge of the tail they give 12 digits. */
const TERMS = 60;

/** Mills ratio Φ(−x)/φ(x) for x ≥ 3 by Laplace's continued fraction. Abramowitz and Stegun 26.2.14. */
function millsRatio(x: number): number {
  let fraction = x;
  for (let k = TERMS; k >= 1; k--) fraction = x + k / fraction;
  return 1 / fraction;
}

/** Standard normal distribution function. The lower tail keeps its digits down to the smallest numbers there are. */
export function normalCdf(z: number): number {
  return z < TAIL ? Math.exp(lnNormalCdf(z)) : jStat.normal.cdf(z, 0, 1);
}

/** Natural logarithm of the standard normal distribution function; finite far into the lower tail. */
export function lnNormalCdf(z: number): number {
  return z < TAIL
    ? -0.5 * z * z - 0.5 * Math.log(2 * Math.PI) + Math.log(millsRatio(-z))
    : Math.log(jStat.normal.cdf(z, 0, 1));
}

/** Standard normal quantile, p in (0, 1). */
export function normalQuantile(p: number): number {
  return jStat.normal.inv(p, 0, 1);
}

/** Student t quantile, p in (0, 1), degrees of freedom above 0. */
export function studentQuantile(p: number, df: number): number {
  return jStat.studentt.inv(p, df);
}
