/** The normal and Student distributions, from the jStat package. */
import jStat from "jstat";

/** Standard normal distribution function. */
export function normalCdf(z: number): number {
  return jStat.normal.cdf(z, 0, 1);
}

/** Standard normal quantile, p in (0, 1). */
export function normalQuantile(p: number): number {
  return jStat.normal.inv(p, 0, 1);
}

/** Student t quantile, p in (0, 1), degrees of freedom above 0. */
export function studentQuantile(p: number, df: number): number {
  return jStat.studentt.inv(p, df);
}
