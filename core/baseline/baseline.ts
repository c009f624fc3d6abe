/**
 * A baseline: what a life of a component reads as new at its reference condition. Robust centre and
 * spread of the readings after run-in (median and MAD), never narrower than the readings' own uncertainty.
 */
import { median, robustSpread } from "../trend/robust";
import { theilSen } from "../trend/theilSen";

export type BaselineKind = "commissioning" | "firstReadings" | "maker";

export interface Baseline {
  kind: BaselineKind;
  /** Centre, core unit of the indicator. */
  centre: number;
  /** Standard deviation of one reading about the centre. */
  spread: number;
  /** Standard uncertainty of the centre itself. */
  uncertainty: number;
  readings: number;
  /** Fewer than 20 readings: limits drawn from it give more false alarms than stated. */
  provisional: boolean;
}

/** Readings from which a baseline is no longer called provisional (false-alarm figures: two-sided CUSUM). */
export const SETTLED_BASELINE = 20;
const LONGEST = 12;

export interface BaselineReading {
  /** Running hours of the life. */
  hours: number;
  value: number;
  /** Standard uncertainty of the value, core unit. */
  uncertainty: number;
}

/** Over less running than this, in hours, nothing wears. */
const LEAST_RUN = 1;
/** Fewest readings from which a slope within the baseline is believed. */
const FEWEST_SLOPE = 5;
const SLOPE_CONFIDENCE = 0.99;

/**
 * Baseline from the first readings of a life: those after `runInHours`, at most the first 12. A part that
 * wears while its baseline is taken (Theil-Sen slope other than zero at 99 %) gets the line's level at the
 * first of them, and the spread about the line.
 * Undefined when there is no reading after run-in.
 */
export function baselineOf(
  readings: readonly BaselineReading[],
  { runInHours = 0, kind = "firstReadings" as BaselineKind } = {},
): Baseline | undefined {
  const after = readings.filter((r) => r.hours >= runInHours);
  const first = (after.length >= 3 ? after : readings).slice(0, LONGEST);
  if (first.length === 0) return undefined;
  const start = first[0]!.hours;
  const slope = slopeOf(first);
  const values = first.map((r) => r.value - slope * (r.hours - start));
  const own = median(first.map((r) => r.uncertainty));
  const spread = Math.max(own, robustSpread(values));
  return {
    kind,
    centre: median(values),
    spread,
    // 1.253: standard error of the median over that of the mean for normal readings
    uncertainty: (1.253 * spread) / Math.sqrt(first.length),
    readings: first.length,
    provisional: first.length < SETTLED_BASELINE,
  };
}

/** Slope of a value over running hours where it is proved, else 0. */
function slopeOf(readings: readonly BaselineReading[]): number {
  if (readings.length < FEWEST_SLOPE || readings[readings.length - 1]!.hours - readings[0]!.hours < LEAST_RUN) return 0;
  const { slope, low, high } = theilSen(
    readings.map((r) => r.hours),
    readings.map((r) => r.value),
    { confidence: SLOPE_CONFIDENCE },
  );
  return low > 0 || high < 0 ? slope : 0;
}

/** A baseline stated by the maker: no readings of its own. */
export function makersBaseline(value: number, uncertainty: number): Baseline {
  return { kind: "maker", centre: value, spread: uncertainty, uncertainty, readings: 0, provisional: false };
}
