/** Statistics of values of which some are only known to be less than a bound. */
export interface MaybeBelow {
  value: number;
  below?: boolean;
}

/**
 * Quantile by the Kaplan-Meier estimate for left-censored values (Helsel, Statistics for Censored Environmental
 * Data, 2012: the survival curve of the values turned about). Null: it lies among the "less than" values, below
 * every number that was read.
 * @throws {RangeError} when there is no value or p is not inside 0 to 1.
 */
export function censoredQuantile(values: readonly MaybeBelow[], p: number): number | null {
  if (values.length === 0) throw new RangeError("No value.");
  if (!(p > 0 && p < 1)) throw new RangeError("p lies between 0 and 1.");
  const levels = [...new Set(values.filter((v) => !v.below).map((v) => v.value))].sort((a, b) => b - a);
  // F(x) = product over read levels above x of (1 - number at the level / number at or below it); the smallest level with F >= p
  let cumulative = 1;
  let found: number | null = null;
  for (const level of levels) {
    if (cumulative < p - 1e-12) break;
    found = level;
    const atOrBelow = values.filter((v) => v.value <= level).length;
    const at = values.filter((v) => !v.below && v.value === level).length;
    cumulative *= 1 - at / atOrBelow;
  }
  return cumulative >= p - 1e-12 ? null : found;
}
