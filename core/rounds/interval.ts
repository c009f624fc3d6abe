/** How often a point is read: closer as the end nears. Common practice. */
import { DAY } from "../units/time";
/** At least this many readings before the earliest plausible crossing (P10). */
const READINGS_BEFORE_END = 6;
const SHORTEST_DAYS = 7;

/**
 * Days until the next reading: the usual interval, or shorter where P10 of the crossing comes near, so that at
 * least six readings lie before it; never under a week.
 * @param usualDays above 0
 * @param p10 of the crossing, epoch ms; null: none is in sight
 * @param now epoch ms
 * @returns days
 * @throws {RangeError} for an interval that is not above zero
 * @example readingInterval(30, null, 0) // 30
 */
export function readingInterval(usualDays: number, p10: number | null, now: number): number {
  if (!(usualDays > 0)) throw new RangeError("The interval must be above zero.");
  if (p10 === null) return usualDays;
  const wanted = Math.floor((p10 - now) / DAY / READINGS_BEFORE_END);
  return Math.min(usualDays, Math.max(SHORTEST_DAYS, wanted));
}
