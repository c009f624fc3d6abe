/** A series as the forecast takes it: over its value as new, or its way from the baseline to the limit. */
import type { Baseline } from "../baseline/baseline";
import { usedTowards, type LimitSide } from "../baseline/margin";
import type { FilterReading } from "../forecast/hypothesis";
import { floorOf } from "./floor";
import type { CorrectedSeries } from "./series";
import type { AssessPoint } from "./types";

/** Relative standard uncertainty that takes a reading out of every fit. */
const NOT_BELIEVED = 100;
/** A plain indicator is mapped to s = 1 as new and s = 2 at the limit. */
const PLAIN_LIMIT = Math.LN2;
const PLAIN_FLOOR = 0.2;
/** A leakage as new below this share of its limit is nought: only its distance to the limit says anything. */
const LEAST_NEW = 1e-4;

/** What the forecast follows: 1 as new, and a limit above it, on a scale where wear is a rise. */
export interface Indicator {
  readings: FilterReading[];
  lnLimit: number;
  corrected: boolean;
  /** Indicator (over as new) back to core units. */
  toValue(s: number): number;
}

/** The indicator of a corrected series against its baseline and limit. */
export function indicatorOf(
  corrected: CorrectedSeries,
  baseline: Baseline,
  side: LimitSide,
  point: AssessPoint,
): Indicator {
  const { limit } = side;
  if (corrected.exponents && !corrected.fixed && limit > 0 && baseline.centre > limit * LEAST_NEW) {
    return {
      corrected: true,
      lnLimit: Math.log(limit / baseline.centre),
      toValue: (s) => s * baseline.centre,
      readings: corrected.readings.map((r) => ({
        hours: r.hours,
        y: Math.log(Math.max(r.raw, 1e-6) / baseline.centre),
        lnPressure: r.lnPressure,
        lnViscosity: r.lnViscosity,
        u: r.recalled ? NOT_BELIEVED : (r.doubtful ? 5 : 1) * (r.mark === "noConditions" ? 0.25 : 0.01),
      })),
    };
  }
  const span = limit - baseline.centre;
  return {
    corrected: false,
    lnLimit: PLAIN_LIMIT,
    toValue: (s) => baseline.centre + (s - 1) * span,
    readings: corrected.readings.map((r) => ({
      hours: r.hours,
      y: Math.log(Math.max(PLAIN_FLOOR, 1 + usedTowards(r.corrected, baseline.centre, side))),
      lnPressure: 0,
      lnViscosity: 0,
      u: r.recalled ? NOT_BELIEVED : r.doubtful ? 0.5 : Math.abs(floorOf(point) / span),
    })),
  };
}
