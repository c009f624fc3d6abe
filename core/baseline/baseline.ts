/**
 * A baseline: what a life of a component reads as new at its reference condition. Robust centre and
 * spread of the readings after run-in (median and MAD), never narrower than the readings' own doubt.
 */
import { median, robustSpread } from "../trend/robust";

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
  /** Fewer than 20 readings: limits drawn from it cry wolf more often than they say. */
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

/**
 * Baseline from the first readings of a life: those after `runInHours`, at most the first 12.
 * Undefined when there is no reading after run-in.
 */
export function baselineOf(readings: readonly BaselineReading[], { runInHours = 0, kind = "firstReadings" as BaselineKind } = {}): Baseline | undefined {
  const after = readings.filter((r) => r.hours >= runInHours);
  const first = (after.length >= 3 ? after : readings).slice(0, LONGEST);
  if (first.length === 0) return undefined;
  const values = first.map((r) => r.value);
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

/** A baseline stated by the maker: no readings of its own. */
export function makersBaseline(value: number, uncertainty: number): Baseline {
  return { kind: "maker", centre: value, spread: uncertainty, uncertainty, readings: 0, provisional: false };
}
