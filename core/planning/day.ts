/** Calendar days of a site, written 2027-01-18: stops and orders are days, not moments. */
import { TZDate } from "@date-fns/tz";
import { lightFormat } from "date-fns";

const DAY = 86_400_000;

/** The calendar day of a moment (epoch ms) in a time zone. */
export function dayOf(ms: number, timeZone: string): string {
  return lightFormat(new TZDate(ms, timeZone), "yyyy-MM-dd");
}

/** The moment (epoch ms) at which a day begins in a time zone. */
export function dayStart(day: string, timeZone: string): number {
  const [y, m, d] = day.split("-").map(Number) as [number, number, number];
  return new TZDate(y, m - 1, d, timeZone).getTime();
}

/** The day so many days on; `count` may be negative. */
export function addDays(day: string, count: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + count * DAY).toISOString().slice(0, 10);
}

/** Days from one day to another. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / DAY);
}

/** The first day after a stop that begins on `startsOn` and lasts `days`. */
export function stopEnds({ startsOn, days }: { startsOn: string; days: number }): string {
  return addDays(startsOn, days);
}

/** Years in which anything of a plant's record can lie. */
const YEARS = [1950, 2200] as const;

/** Does this day exist? 30 February does not. */
export function isDay(y: number, m: number, d: number): boolean {
  if (y < YEARS[0] || y > YEARS[1]) return false;
  const date = new Date(Date.UTC(y, m - 1, d));
  return date.getUTCMonth() === m - 1 && date.getUTCDate() === d;
}

/** A calendar day as it is typed, 2026-11-20; undefined when there is no such day. */
export function calendarDay(text: string): string | undefined {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text.trim());
  return match && isDay(Number(match[1]), Number(match[2]), Number(match[3])) ? match[0] : undefined;
}
