/** By when it must be decided: the last chance to act before the limit, less the time that the part takes. */
import { median } from "../trend/robust";
import { DAY } from "../units/time";
import type { AssessContext, AssessedForecast } from "./types";

/** The limit is taken to be reached no sooner than at this chance. */
export const EARLIEST = 0.1;
/** And at this one it is as likely before as after. */
export const LIKELY = 0.5;

export interface Decision {
  /** Epoch ms; in the past: it cannot wait. */
  by: number;
  /** The stop that it is to be decided for; null: none comes in time, so the machine is stopped for it. */
  stopId: string | null;
}

/**
 * The last moment to decide what is done before a limit is reached: one rule for the state, for Today and for the plan.
 * With stops it is the last one before the earliest date of the limit at which the part can be there, less the part's
 * lead time. Where none comes in time, or the date lies beyond the last stop that is known, the machine is stopped for
 * it: the earliest date less the lead time, or less what the plant needs to stop a machine where that is longer.
 * @param forecast its crossing dates, ascending epoch ms; null in it: beyond the horizon
 * @param context the present, stops, lead time in days, when an ordered part is there, how soon the plant can stop
 * @param chance that the limit is reached sooner than the date taken, 0 to 1; usually `EARLIEST`
 * @returns the decision; null: the limit is not reached within the horizon, at that chance
 * @throws {never}
 * @example
 * const may = { now: 0, stops: [{ id: "may", at: 100 * DAY }, { id: "june", at: 130 * DAY }], leadTimeDays: 30, partReadyAt: null, nextChanceDays: 28 };
 * decideBy({ crossingDates: [110 * DAY] }, may, 0.1).stopId // "may"
 * decideBy({ crossingDates: [150 * DAY] }, { ...may, stops: [] }, 0.1).by / DAY // 120
 */
export function decideBy(
  { crossingDates }: Pick<AssessedForecast, "crossingDates">,
  context: Pick<AssessContext, "now" | "stops" | "leadTimeDays" | "partReadyAt" | "nextChanceDays">,
  chance: number,
): Decision | null {
  const limitAt = crossingDates[Math.min(crossingDates.length - 1, Math.floor(chance * crossingDates.length))] ?? null;
  if (limitAt === null) return null;
  const { now, stops, leadTimeDays, partReadyAt, nextChanceDays } = context;
  const lead = partReadyAt === null ? (leadTimeDays ?? 0) * DAY : 0;
  const ready = Math.max(now, partReadyAt ?? now + lead);
  const ahead = stops.filter((s) => (s.until ?? s.at + DAY) > ready).sort((a, b) => a.at - b.at);
  const inTime = ahead.filter((s) => s.at < limitAt).at(-1);
  if (inTime && inTime !== ahead.at(-1)) return { by: Math.max(inTime.at, ready) - lead, stopId: inTime.id };
  const extra = limitAt - Math.max(lead, nextChanceDays * DAY);
  // the last stop that is known is not the last that there will be: later than it the machine can be stopped still
  return inTime && inTime.at - lead > extra ? { by: inTime.at - lead, stopId: inTime.id } : { by: extra, stopId: null };
}

const USUAL_INTERVAL = 30 * DAY;
const LEAST_INTERVAL = 7 * DAY;
const LONGEST_INTERVAL = 60 * DAY;

/**
 * From one reading to the next, as this point is usually read: the measure of how soon is soon.
 * @param levels moments of its readings, epoch ms, in time order
 * @returns ms, within a week and two months; a month where nothing tells it
 * @throws {never}
 * @example readingInterval([{ at: 0 }, { at: 30 * DAY }, { at: 61 * DAY }, { at: 90 * DAY }]) / DAY // 30
 */
export function readingInterval(levels: readonly { at: number }[]): number {
  const gaps = levels.slice(1).map((r, i) => r.at - levels[i]!.at);
  const usual = gaps.length > 0 ? median(gaps) : USUAL_INTERVAL;
  return Math.min(LONGEST_INTERVAL, Math.max(LEAST_INTERVAL, usual));
}
