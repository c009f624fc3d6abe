/**
 * Has a series of samples stepped up? Counts scatter by a constant factor, so their logarithms are compared. A step
 * is asked for twice over: it must be large (at least `least`) and clear of the scatter about both levels.
 */
import { median, robustSpread } from "../trend/robust";

export interface SampleStep {
  /** Index of the first sample after the step. */
  index: number;
  /** ln of the level after over the level before, with its 90 % interval. */
  size: number;
  low: number;
  high: number;
  /** Samples that stand on the new level. */
  after: number;
}

/** Two counts of one oil differ by about a third (sampling and counting together; common practice). */
const USUAL_SCATTER = 0.3;
/** Clear of scatter: this many standard errors. The best of many places is looked for, so it is more than usual. */
const CLEAR = 4.2;
const FEWEST_BEFORE = 3;
/** Samples on either side that a step is judged by: what was long ago was another wear. */
const WINDOW = 8;
const Z90 = 1.645;

/**
 * The clearest step upward in values (ln) in time order; null: none. One sample alone makes a step only when it
 * is far out. By simulation of 20 steady samples about 1 in 100 series shows one (wear.test.ts).
 * @param values ln of counts
 * @param options what is worth telling
 * @param options.least ln of the smallest step worth telling; ln 2 is one number of ISO 4406.
 * @param options.scatter standard deviation of ln that samples of steady oil have
 */
export function stepUp(
  values: readonly number[],
  { least = Math.LN2 * 0.9, scatter = USUAL_SCATTER }: { least?: number; scatter?: number } = {},
): SampleStep | null {
  let best: (SampleStep & { clear: number }) | null = null;
  for (let k = FEWEST_BEFORE; k < values.length; k++) {
    const before = values.slice(Math.max(0, k - WINDOW), k);
    const after = values.slice(k, k + WINDOW);
    const size = median(after) - median(before);
    if (size < least) continue;
    const spread = Math.max(scatter, robustSpread(before), after.length > 2 ? robustSpread(after) : 0);
    const error = spread * Math.sqrt(1 / before.length + 1 / after.length) * 1.25;
    const clear = size / error;
    // the first sample after must itself stand on the new level: else the step is elsewhere
    if (clear < CLEAR || values[k]! < median(before) + size * 0.4 || values[k - 1]! > median(before) + size * 0.6)
      continue;
    if (!best || clear > best.clear)
      best = { index: k, size, low: size - Z90 * error, high: size + Z90 * error, after: values.length - k, clear };
  }
  if (!best) return null;
  const { clear: _clear, ...step } = best;
  return step;
}
