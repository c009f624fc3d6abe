/** The forecast of a fast course: at the pace of its newest readings, with a doubt as wide as two readings leave. */
import { DAY, MONTH } from "../units/time";
import { inverseEcdf } from "../trend/robust";
import type { FastCourse } from "./course";
import { beforeStops } from "./dated";
import type { Duty } from "./dates";
import type { AssessContext, AssessedForecast } from "./types";
import { normalQuantile } from "../numeric/normal";

/** Of the time that is left, in logarithms: two steps tell a pace to a factor of one and a half (grade). */
const SPREAD = 0.4;
const QUANTILES = 100;
const FAN_STEPS = 8;

/** The bank's forecast with the dates of the course in place of its own: it has not seen yet how fast this goes. */
export function courseForecast(
  course: FastCourse,
  bank: AssessedForecast,
  last: number,
  duty: Duty,
  context: Pick<AssessContext, "stops" | "now">,
): AssessedForecast {
  const dates = Array.from({ length: QUANTILES }, (_, i) => {
    const z = normalQuantile((i + 0.5) / QUANTILES);
    return last + course.toLimit * Math.exp(SPREAD * z);
  });
  const quantile = (p: number) => inverseEcdf(dates, p);
  const hours = (p: number) => ((quantile(p) - last) / DAY) * duty.hoursPerDay;
  const { level, perMonth } = course;
  const end = Math.max(quantile(0.9), context.now) - last;
  return {
    ...bank,
    hours: { p5: hours(0.05), p10: hours(0.1), p50: hours(0.5), p90: hours(0.9) },
    dates: { p5: quantile(0.05), p10: quantile(0.1), p50: quantile(0.5), p90: quantile(0.9) },
    crossingDates: dates,
    beforeStops: beforeStops(dates, context),
    crossed: course.toLimit === 0 ? 1 : 0,
    crossedSince: course.beyondSince,
    rising: 1,
    // the wear models have not seen this pace: what they make of the life is not told beside it
    like: null,
    paths: [],
    change: { probability: 0, at: null },
    step: { probability: 0, at: null },
    fan: Array.from({ length: FAN_STEPS + 1 }, (_, i) => {
      const at = last + (end * i) / FAN_STEPS;
      const way = (pace: number) => level + perMonth * ((at - last) / MONTH) * pace;
      const edges = [way(Math.exp(-SPREAD)), way(Math.exp(SPREAD))].sort((p, q) => p - q);
      return { at, p10: edges[0]!, p50: way(1), p90: edges[1]! };
    }),
  };
}
