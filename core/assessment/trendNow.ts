/** Is it proved that it rises or falls, and how fast? */
import type { Forecast } from "../forecast/forecast";
import { mannKendall } from "../trend/mannKendall";
import { sustained } from "../trend/sustained";
import { theilSen } from "../trend/theilSen";
import { MONTH } from "../units/time";
import type { Assessment, SeriesPoint } from "./types";

/** Many points are tested at once, so one in a hundred rather than one in twenty. */
export const RISING = 0.9;
/** Once it is proved it stands until the readings speak against it (scripts/bench/verdicts.ts measures both sides). */
const LEVELS = { proves: 0.01, releases: 0.5, rises: RISING, falls: 0.2 };

/** The trend of the readings that are shown, without those that count for nothing. */
export function trendOf(series: readonly SeriesPoint[], cast: Forecast | null): Assessment["trend"] {
  const used = series.filter((r) => r.mark !== "outlier" && r.mark !== "doubtful" && r.mark !== "recalled");
  // readings of one moment have no course
  if (used.length < 4 || used[0]!.at === used.at(-1)!.at)
    return { proved: false, mannKendall: { raw: null, corrected: null }, slope: null };
  const values = used.map((r) => r.corrected);
  const raw = mannKendall(used.map((r) => r.raw)).p;
  const whole = mannKendall(values).p;
  // the cast knows every judged reading; those that are left out of the trend are left out of its course too
  const rising = series.flatMap((r, i) => (used.includes(r) ? [cast?.rising[i] ?? 0] : []));
  const slope = theilSen(
    used.map((r) => r.at / MONTH),
    values,
  );
  return {
    proved: cast !== null && sustained(values, rising, LEVELS),
    mannKendall: { raw, corrected: whole },
    slope: { perMonth: slope.slope, low: slope.low, high: slope.high },
  };
}
