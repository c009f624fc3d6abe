/** How much of the margin is used, and how sure that is. */
import type { Baseline } from "../baseline/baseline";
import { usedTowards, type LimitSide } from "../baseline/margin";
import type { Forecast } from "../forecast/forecast";
import { P90 } from "../numeric/normal";
import type { Indicator } from "./indicator";
import type { BelievedLevel } from "./level";
import type { Assessment, SeriesPoint } from "./types";

/** Of the forecast's level where there is one, else of the readings'. */
export function marginOf(
  cast: Forecast | null,
  indicator: Indicator | null,
  baseline: Baseline | undefined,
  side: LimitSide | null,
  series: readonly SeriesPoint[],
  level: BelievedLevel | undefined,
): Assessment["margin"] {
  if (!baseline || side === null || !level) return null;
  const used = (value: number) => usedTowards(value, baseline.centre, side);
  const shown = series.filter((r) => r.mark !== "recalled");
  const before = shown.length > 1 ? used(shown[shown.length - 2]!.corrected) : null;
  if (cast && indicator)
    return {
      value: used(indicator.toValue(cast.level.centre)),
      low: used(indicator.toValue(cast.level.low)),
      high: used(indicator.toValue(cast.level.high)),
      before,
    };
  const ends = [used(level.value - P90 * level.deviation), used(level.value + P90 * level.deviation)].sort(
    (p, q) => p - q,
  );
  return { value: used(level.value), low: ends[0]!, high: ends[1]!, before };
}
