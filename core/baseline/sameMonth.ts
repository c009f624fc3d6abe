/** The same calendar month of earlier years: the check on a correction for temperature. */
import { DAY } from "../units/time";
import { TZDate } from "@date-fns/tz";
import { median } from "../trend/robust";

export interface SameMonth {
  month: number;
  median: number;
  least: number;
  greatest: number;
  readings: number;
}

/** Month (0 to 11) in a time zone. In the middle of a month no zone has another one, and asking for the zone's takes 10 µs. */
function monthIn(at: number, timeZone: string): number {
  const utc = new Date(at);
  const day = utc.getUTCDate();
  return day > 1 && day < 28 ? utc.getUTCMonth() : new TZDate(at, timeZone).getMonth();
}

/**
 * Readings of the same season in earlier years of a life: the check on a correction for temperature.
 * @param readings of one life: epoch ms and value
 * @param at epoch ms; its month and the two beside it count, those of the last 200 days do not
 * @param timeZone IANA name of the site's zone, in which months are told
 * @returns month 1 to 12, median, least and greatest in the unit of the values; undefined with fewer than three readings
 * @example
 * const readings = [10, 11, 12, 13].map((month, k) => ({ at: Date.UTC(2025, month - 1, 15), value: 3 + k }));
 * sameMonthOf(readings, Date.UTC(2026, 10, 24), "Europe/London") // { month: 11, median: 4, least: 3, greatest: 5, readings: 3 }
 */
export function sameMonthOf(
  readings: readonly { at: number; value: number }[],
  at: number,
  timeZone: string,
): SameMonth | undefined {
  const month = monthIn(at, timeZone);
  const values = readings
    .filter((r) => at - r.at > 200 * DAY)
    .filter((r) => {
      const distance = Math.abs(monthIn(r.at, timeZone) - month);
      return Math.min(distance, 12 - distance) <= 1;
    })
    .map((r) => r.value);
  if (values.length < 3) return undefined;
  return {
    month: month + 1,
    median: median(values),
    least: values.reduce((m, v) => Math.min(m, v)),
    greatest: values.reduce((m, v) => Math.max(m, v)),
    readings: values.length,
  };
}
