/** The same calendar month of earlier years: the check on a correction for temperature. */
import { TZDate } from "@date-fns/tz";
import { median } from "../trend/robust";

export interface SameMonth {
  month: number;
  median: number;
  least: number;
  greatest: number;
  readings: number;
}

const MS_PER_DAY = 86_400_000;

/**
 * Median, least and greatest of readings in the month of `at` and its two neighbours (December and
 * January are neighbours), in the site's time zone, in earlier years of the same life. Undefined with
 * fewer than three readings.
 */
export function sameMonthOf(
  readings: readonly { at: number; value: number }[],
  at: number,
  timeZone: string,
): SameMonth | undefined {
  const month = new TZDate(at, timeZone).getMonth();
  const values = readings
    .filter((r) => at - r.at > 200 * MS_PER_DAY)
    .filter((r) => {
      const distance = Math.abs(new TZDate(r.at, timeZone).getMonth() - month);
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
