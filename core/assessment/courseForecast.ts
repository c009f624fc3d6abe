/** The forecast of a fast course: at the pace of its newest readings, with a doubt as wide as two readings leave. */
import { DAY } from "../units/time";
import type { FastCourse } from "./course";
import { crossingProbability } from "../forecast/forecast";
import { inverseEcdf } from "../trend/robust";
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
  context: Pick<AssessContext, "stops" | "now">,
): AssessedForecast {
  const dates = Array.from({ length: QUANTILES }, (_, i) => {
    const z = normalQuantile((i + 0.5) / QUANTILES);
    return last + course.toLimit * Math.exp(SPREAD * z);
  });
  const quantile = (p: number) => inverseEcdf(dates, p);
  const { side, level, perMonth } = course;
  const end = Math.max(quantile(0.9), context.now) - last;
  return {
    ...bank,
    dates: { p5: quantile(0.05), p10: quantile(0.1), p50: quantile(0.5), p90: quantile(0.9) },
    crossingDates: dates,
    beforeStops: context.stops
      .filter((s) => s.at > context.now)
      .sort((a, b) => a.at - b.at)
      .slice(0, 6)
      .map((s) => ({ stopId: s.id, at: s.at, probability: crossingProbability(dates, s.at) })),
    crossed: course.toLimit === 0 ? 1 : 0,
    crossedSince: course.toLimit === 0 ? last : null,
    rising: 1,
    fan: Array.from({ length: FAN_STEPS + 1 }, (_, i) => {
      const at = last + (end * i) / FAN_STEPS;
      const way = (pace: number) => level + perMonth * ((at - last) / (30.4375 * DAY)) * pace;
      const edges = [way(Math.exp(-SPREAD)), way(Math.exp(SPREAD))].sort((p, q) => p - q);
      return { at, p10: edges[0]!, p50: way(1), p90: edges[1]! };
    }).filter((f) => side.side === "upper" || f.p50 > -Infinity),
  };
}
