/**
 * How good a forecast was, once the truth is known. CRPS: Gneiting and Raftery, J. Am. Stat. Assoc. 102
 * (2007). α-λ accuracy: Saxena et al., Int. J. Prognostics and Health Management 1 (2010).
 */

/**
 * Continuous ranked probability score of equally likely draws against the truth, in the unit of both:
 * E|X − y| − ½E|X − X'|. 0 is perfect; of a single draw it is the absolute error.
 * @throws {RangeError} without draws.
 */
export function crps(draws: readonly number[], truth: number): number {
  const n = draws.length;
  if (n === 0) throw new RangeError("No draws.");
  const sorted = Float64Array.from(draws).sort();
  let error = 0;
  let spread = 0;
  for (let i = 0; i < n; i++) {
    error += Math.abs(sorted[i]! - truth);
    // Σ over pairs |x_i − x_j| = 2·Σ (2i − n + 1)·x_(i)
    spread += (2 * i - n + 1) * sorted[i]!;
  }
  return error / n - spread / (n * n);
}

/** α-λ: does the share of draws within ±α of the true time left reach one half? */
export function alphaLambda(draws: readonly number[], truth: number, alpha = 0.2): boolean {
  const within = draws.filter((d) => Math.abs(d - truth) <= alpha * truth).length;
  return within >= draws.length / 2;
}

/**
 * Prognostic horizon: true time left at the first origin after which the median stays within ±α of the
 * truth at all later origins; 0 when the last one already misses.
 */
export function prognosticHorizon(origins: readonly { median: number; truth: number }[], alpha = 0.2): number {
  let horizon = 0;
  for (let i = origins.length - 1; i >= 0; i--) {
    const { median, truth } = origins[i]!;
    if (Math.abs(median - truth) > alpha * truth) break;
    horizon = truth;
  }
  return horizon;
}
