/**
 * A verdict that does not flicker: a trend that was proved stands until the readings speak against it, not until the next
 * reading happens to be a little low. Proved and released at two levels, as a thermostat switches.
 */
import { normalCdf } from "../numeric/normal";

export interface TrendLevels {
  /** Two-sided p of Mann-Kendall below which a trend is proved, and above which one that was proved is given up. */
  proves: number;
  releases: number;
  /** Chance that the rate matters, from which a trend is proved, and below which it is given up. */
  rises: number;
  falls: number;
}

/** Readings that a recent trend looks at, beside the whole course, and how many more it takes before it does. */
const RECENT = 24;
const MORE = 6;
/** Fewer readings prove no trend. */
const FEWEST = 4;

/** Two-sided p of S, by its normal approximation with continuity correction; ties are not many enough to matter here. */
function pOf(s: number, n: number): number {
  if (n < 2) return 1;
  const deviation = Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
  return Math.min(1, 2 * (1 - normalCdf(Math.max(0, Math.abs(s) - 1) / deviation)));
}

/**
 * Does a trend stand, as it was seen reading by reading?
 * @param values in time order
 * @param rising for each of them: chance that the rate matters, as was known then, 0 to 1
 * @param levels at which a trend is proved and given up
 * @returns does it stand after the last of them
 * @example Number(sustained([1, 1], [1, 1], { proves: 0.01, releases: 0.5, rises: 0.9, falls: 0.2 })) // 0
 */
export function sustained(values: readonly number[], rising: readonly number[], levels: TrendLevels): boolean {
  let stands = false;
  let whole = 0;
  const recent: number[] = [];
  values.forEach((value, k) => {
    for (let i = 0; i < k; i++) whole += Math.sign(value - values[i]!);
    recent.push(value);
    if (recent.length > RECENT) recent.shift();
    if (k + 1 < FEWEST) return;
    const all = pOf(whole, k + 1);
    const late = k + 1 > RECENT + MORE ? 2 * pOf(kendall(recent), recent.length) : all;
    const p = Math.min(all, late);
    const chance = rising[k] ?? 0;
    stands = stands ? p < levels.releases && chance >= levels.falls : p < levels.proves && chance >= levels.rises;
  });
  return stands;
}

/** S of Mann and Kendall. */
function kendall(values: readonly number[]): number {
  let s = 0;
  for (let j = 1; j < values.length; j++) for (let i = 0; i < j; i++) s += Math.sign(values[j]! - values[i]!);
  return s;
}
