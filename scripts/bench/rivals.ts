/** What people do without a model: straight lines and the single best curve through the corrected readings. Time left in hours. */
import { theilSen, weightedLine, type SeriesPoint } from "@core";
import { fromPath, toPath, wearPaths } from "../../core/forecast/wearPath";

type Rival = (series: readonly SeriesPoint[], limit: number, horizon: number) => number;

function lineCrossing(hours: number[], values: number[], limit: number, horizon: number): number {
  const line = weightedLine(hours, values);
  const left = (limit - line.intercept) / line.slope - hours[hours.length - 1]!;
  return line.slope > 0 ? Math.min(horizon, Math.max(0, left)) : horizon;
}

export const rivals: Record<string, Rival> = {
  lastFive: (series, limit, horizon) =>
    lineCrossing(
      series.slice(-5).map((r) => r.hours),
      series.slice(-5).map((r) => r.corrected),
      limit,
      horizon,
    ),
  allReadings: (series, limit, horizon) =>
    lineCrossing(
      series.map((r) => r.hours),
      series.map((r) => r.corrected),
      limit,
      horizon,
    ),
  bestCurve(series, limit, horizon) {
    const base = series[0]!.corrected;
    const hours = series.map((r) => r.hours);
    let best = { error: Infinity, left: horizon };
    for (const { lambda } of wearPaths) {
      const z = series.map((r) => toPath(r.corrected / base, lambda));
      const line = theilSen(hours, z);
      const error = series.reduce(
        (sum, r, i) => sum + Math.abs(r.corrected - base * fromPath(line.intercept + line.slope * hours[i]!, lambda)),
        0,
      );
      const left =
        line.slope > 0
          ? (toPath(limit / base, lambda) - line.intercept) / line.slope - hours[hours.length - 1]!
          : horizon;
      if (error < best.error) best = { error, left: Math.min(horizon, Math.max(0, left)) };
    }
    return best.left;
  },
};
