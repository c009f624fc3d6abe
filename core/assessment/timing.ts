/** When somebody can help, and whether somebody should have looked. */
import { median } from "../trend/robust";
import { DAY } from "../units/time";
import type { AssessContext } from "./types";

/**
 * The next chance to help: the first stop at which the part can be there, one under way until it ends; without such a stop what the
 * plant says it can do, or when the part comes, if that is later.
 */
export function nextChance(context: AssessContext): { at: number; isStop: boolean } {
  const { now, stops, nextChanceDays } = context;
  const ready = Math.max(now, context.partReadyAt ?? now + (context.leadTimeDays ?? 0) * DAY);
  const usable = stops.filter((s) => (s.until ?? s.at + DAY) > ready).map((s) => Math.max(s.at, ready));
  return usable.length > 0
    ? { at: Math.min(...usable), isStop: true }
    : { at: Math.max(ready, now + nextChanceDays * DAY), isStop: false };
}

/** So many usual intervals without a reading, and so long at least, are too long. */
const OVERDUE_INTERVALS = 2.5;
const OVERDUE_LEAST = 60 * DAY;
const USUAL_INTERVAL = 30 * DAY;

/** Has nobody read it for so long that what was said may no longer hold? */
export function isOverdue(levels: readonly { at: number }[], now: number): boolean {
  const last = levels.at(-1);
  if (!last) return false;
  const gaps = levels.slice(1).map((r, i) => r.at - levels[i]!.at);
  const usual = gaps.length > 0 ? median(gaps) : USUAL_INTERVAL;
  return now - last.at > Math.max(OVERDUE_LEAST, OVERDUE_INTERVALS * usual);
}
