/** Student's t distribution, through the incomplete beta function. */
import { normalQuantile } from "./normal";

/** Natural logarithm of the gamma function, x > 0: Stirling's series (Abramowitz and Stegun 6.1.41) from 10 upward. */
function lnGamma(x: number): number {
  let shift = 0;
  let at = x;
  for (; at < 10; at++) shift += Math.log(at);
  const r = 1 / (at * at);
  const series = (1 / 12 - r * (1 / 360 - r * (1 / 1260 - r * (1 / 1680 - r / 1188)))) / at;
  return (at - 0.5) * Math.log(at) - at + 0.5 * Math.log(2 * Math.PI) + series - shift;
}

const lnBeta = (a: number, b: number) => lnGamma(a) + lnGamma(b) - lnGamma(a + b);

/** Continued fraction of the incomplete beta function, Abramowitz and Stegun 26.5.8, from the far end inward. */
function betaFraction(x: number, a: number, b: number): number {
  let fraction = 1;
  for (let m = 120; m >= 1; m--) {
    const odd = (-(a + m - 1) * (a + b + m - 1) * x) / ((a + 2 * m - 2) * (a + 2 * m - 1));
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    fraction = 1 + odd / (1 + even / fraction);
  }
  return 1 / fraction;
}

/** Regularised incomplete beta function, x in [0, 1], a and b above 0. */
function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0 || x >= 1) return x <= 0 ? 0 : 1;
  const front = (p: number, q: number, y: number) => Math.exp(p * Math.log(y) + q * Math.log1p(-y) - lnBeta(p, q)) / p;
  return x < (a + 1) / (a + b + 2)
    ? front(a, b, x) * betaFraction(x, a, b)
    : 1 - front(b, a, 1 - x) * betaFraction(1 - x, b, a);
}

/** Density of Student's t at `t` with `df` degrees of freedom, above 0. */
export function studentPdf(t: number, df: number): number {
  return Math.exp(-lnBeta(0.5, df / 2) - 0.5 * Math.log(df) - ((df + 1) / 2) * Math.log1p((t * t) / df));
}

/** Distribution function of Student's t at `t` with `df` degrees of freedom, above 0. */
export function studentCdf(t: number, df: number): number {
  const tail = 0.5 * incompleteBeta(df / (df + t * t), df / 2, 0.5);
  return t > 0 ? 1 - tail : tail;
}

/**
 * Student t quantile, by halving between bounds that are widened until they hold it.
 * @param p in (0, 1)
 * @param df degrees of freedom, above 0
 * @example studentQuantile(0.975, 10) // 2.2281388519649385
 */
export function studentQuantile(p: number, df: number): number {
  if (!(p > 0 && p < 1)) return p === 0 ? -Infinity : p === 1 ? Infinity : NaN;
  if (p > 0.5) return -studentQuantile(1 - p, df);
  if (p === 0.5) return 0;
  let low = Math.min(-1, 2 * normalQuantile(p));
  while (studentCdf(low, df) > p) low *= 2;
  let high = 0;
  for (let i = 0; i < 200; i++) {
    const middle = (low + high) / 2;
    if (middle === low || middle === high) return middle;
    if (studentCdf(middle, df) > p) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}
