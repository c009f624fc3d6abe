/** Calendar days of a site, written 2027-01-18: stops and orders are days, not moments. */
import { DAY } from "./time";
import { TZDate } from "@date-fns/tz";
import { lightFormat } from "date-fns";

/**
 * The calendar day of a moment in a time zone.
 * @param ms epoch ms
 * @param timeZone IANA name of the site's zone
 * @returns the day, as 2027-01-18
 * @example dayOf(Date.UTC(2027, 0, 18, 23, 30), "Europe/Berlin") // "2027-01-19"
 */
export function dayOf(ms: number, timeZone: string): string {
  return lightFormat(new TZDate(ms, timeZone), "yyyy-MM-dd");
}

/**
 * The moment at which a day begins in a time zone.
 * @param day as 2027-01-18
 * @param timeZone IANA name of the site's zone
 * @returns epoch ms
 * @example new Date(dayStart("2027-01-19", "Europe/Berlin")).toISOString() // "2027-01-18T23:00:00.000Z"
 */
export function dayStart(day: string, timeZone: string): number {
  const [y, m, d] = day.split("-").map(Number) as [number, number, number];
  return new TZDate(y, m - 1, d, timeZone).getTime();
}

/**
 * The day some days on. Days of the calendar: a change of the clocks makes none longer.
 * @param day as 2027-01-18
 * @param count whole days; negative: back
 * @returns the day
 * @example addDays("2026-12-31", 1) // "2027-01-01"
 */
export function addDays(day: string, count: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + count * DAY).toISOString().slice(0, 10);
}

/**
 * Days from one day to another.
 * @param from as 2027-01-18
 * @param to as 2027-01-18
 * @returns whole days; negative where `to` comes first
 * @example daysBetween("2026-03-28", "2026-03-30") // 2, over a change of the clocks
 */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / DAY);
}

/** The first day after a stop that begins on `startsOn` and lasts `days`. */
export function stopEnds({ startsOn, days }: { startsOn: string; days: number }): string {
  return addDays(startsOn, days);
}

/** Years in which anything of a plant's record can lie. */
const YEARS = [1950, 2200] as const;

/**
 * Does this day exist, and can it lie in a plant's record (1950 to 2200)?
 * @param y year
 * @param m month, 1 to 12
 * @param d day of the month, 1 to 31
 * @returns false for 30 February
 * @example isDay(2028, 2, 29) // true
 * @example isDay(2027, 2, 29) // false
 */
export function isDay(y: number, m: number, d: number): boolean {
  if (y < YEARS[0] || y > YEARS[1]) return false;
  const date = new Date(Date.UTC(y, m - 1, d));
  return date.getUTCMonth() === m - 1 && date.getUTCDate() === d;
}

/**
 * Read a calendar day as it is typed or filed.
 * @param text as 2026-11-20; blanks around it do not matter
 * @returns the day; undefined where there is no such day
 * @example calendarDay(" 2026-11-20 ") // "2026-11-20"
 * @example calendarDay("2026-02-30") // undefined
 */
export function calendarDay(text: string): string | undefined {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text.trim());
  return match && isDay(Number(match[1]), Number(match[2]), Number(match[3])) ? match[0] : undefined;
}
