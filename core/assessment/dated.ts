/** A forecast in running hours brought to dates. */
import { DAY, MONTH } from "../units/time";
import { crossingProbability, type Forecast } from "../forecast/forecast";
import { inverseEcdf } from "../trend/robust";
import { datesOf, type Duty } from "./dates";
import type { Indicator } from "./indicator";
import type { AssessContext, AssessedForecast, SeriesPoint } from "./types";

/**
 * Chance of crossing by a date, from the stored quantiles of the crossing date.
 * @param forecast its crossing dates, ascending epoch ms; null: beyond its horizon
 * @param at epoch ms
 * @returns 0 to 1, in steps of one over their number
 * @example probabilityBy({ crossingDates: [100, 200, 300, null] }, 250) // 0.5
 */
export function probabilityBy(forecast: Pick<AssessedForecast, "crossingDates">, at: number): number {
  const { crossingDates } = forecast;
  return crossingDates.filter((date) => date !== null && date <= at).length / crossingDates.length;
}

/** A forecast in dates: through the duty, before each stop, as a fan for the chart. */
export function datedForecast(
  cast: Forecast,
  indicator: Indicator,
  series: readonly SeriesPoint[],
  duty: Duty,
  context: AssessContext,
): AssessedForecast {
  const last = series[series.length - 1]!;
  const dates = datesOf(cast.crossings, last.at, duty, context.seed);
  const quantile = (p: number) => {
    const date = inverseEcdf(dates, p);
    return Number.isFinite(date) ? date : null;
  };
  const crossingDates = Array.from({ length: 100 }, (_, i) => quantile((i + 0.5) / 100));
  const dateAtHours = (hours: number) => last.at + ((hours - last.hours) / duty.hoursPerDay) * DAY;
  return {
    hours: { p5: cast.p5, p10: cast.p10, p50: cast.p50, p90: cast.p90 },
    dates: { p5: quantile(0.05), p10: quantile(0.1), p50: quantile(0.5), p90: quantile(0.9) },
    crossingDates,
    beforeStops: beforeStops(dates, context),
    horizonHours: cast.horizon,
    crossed: cast.crossed,
    crossedSince: cast.crossedSince === null ? null : (series.find((r) => r.hours >= cast.crossedSince!)?.at ?? null),
    rising: cast.rising.at(-1)!,
    like: cast.like,
    paths: cast.paths,
    change: {
      probability: cast.change.probability,
      at: cast.change.hours === null ? null : dateAtHours(cast.change.hours),
    },
    step: {
      probability: cast.step.probability,
      at: cast.step.hours === null ? null : (series.find((r) => r.hours >= cast.step.hours!)?.at ?? null),
    },
    fan: cast.fan.map((f) => {
      const edges = [indicator.toValue(f.p10), indicator.toValue(f.p90)].sort((p, q) => p - q);
      return { at: dateAtHours(last.hours + f.hours), p10: edges[0]!, p50: indicator.toValue(f.p50), p90: edges[1]! };
    }),
  };
}

/** Stops that a forecast is asked about. */
const STOPS_TOLD = 6;

/** Chance of crossing before each of the next stops. `dates`: ascending epoch ms, Infinity beyond the horizon. */
export const beforeStops = (dates: readonly number[], { stops, now }: Pick<AssessContext, "stops" | "now">) =>
  stops
    .filter((s) => s.at > now)
    .sort((a, b) => a.at - b.at)
    .slice(0, STOPS_TOLD)
    .map((s) => ({ stopId: s.id, at: s.at, probability: crossingProbability(dates, s.at) }));

/** Rate in core units a month, through the duty. */
export function monthlyRate(cast: Forecast, indicator: Indicator, duty: Duty): number {
  return (indicator.toValue(1 + cast.rate.centre) - indicator.toValue(1)) * ((duty.hoursPerDay * (MONTH / DAY)) / 1000);
}
