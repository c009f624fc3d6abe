/** What came of a life, so that forecasts can be held to account: when it crossed its limit, or how long it had not. */
import type { Limits } from "../baseline/limit";
import { excess, sidesOf } from "../baseline/margin";
import { median } from "../trend/robust";
import type { SeriesPoint } from "./types";

export interface LifeOutcome {
  /** When it crossed its limit, epoch ms, as later readings show; null: not so far. */
  crossedAt: number | null;
  /** Newest reading that is believed, epoch ms. */
  seenUntil: number;
}

/** Readings of which the middle one speaks. */
const WINDOW = 3;
/** Of all windows from the crossing on, so many must lie beyond: one that came back was no crossing. */
const STAYS = 0.7;

/**
 * When the level crossed a limit for good: the middle of three successive readings lies beyond, and so do most that
 * follow. The crossing lies half way between the last reading within and the first beyond.
 * @param series corrected readings of one life, in time order
 * @param limits core unit; null: none is set
 * @param ended the part was taken out: its last reading, if beyond, is what it was taken out for
 * @returns epoch ms; null: no limit, or fewer than three readings that are believed
 * @example
 * const series = [70, 72, 78, 83, 85, 88].map((corrected, k) => ({ at: k * 1000, corrected, mark: null }));
 * outcomeOf(series, { upper: 80, lower: null }) // { crossedAt: 2500, seenUntil: 5000 }
 */
export function outcomeOf(series: readonly SeriesPoint[], limits: Limits | null, ended = false): LifeOutcome | null {
  const believed = series.filter((r) => r.mark === null || r.mark === "offCondition" || r.mark === "noConditions");
  if (!limits || believed.length < WINDOW) return null;
  const sides = sidesOf(limits);
  const isBeyond = (value: number) => sides.some((side) => excess(value, side) > 0);
  const windows = believed.slice(WINDOW - 1).map((_, i) => {
    const own = believed.slice(i, i + WINDOW);
    return { at: own[1]!.at, beyond: isBeyond(median(own.map((r) => r.corrected))) };
  });
  const seenUntil = believed.at(-1)!.at;
  const first = windows.findIndex((w, i) => {
    const rest = windows.slice(i);
    return w.beyond && rest.filter((r) => r.beyond).length >= STAYS * rest.length;
  });
  if (first < 0) {
    const [before, last] = believed.slice(-2) as [SeriesPoint, SeriesPoint];
    const takenOut = ended && isBeyond(last.corrected);
    return { crossedAt: takenOut ? (before.at + last.at) / 2 : null, seenUntil };
  }
  const { at } = windows[first]!;
  const before = believed.filter((r) => r.at < at).at(-1)?.at ?? at;
  return { crossedAt: (before + at) / 2, seenUntil };
}
