/** The level that is believed now, and the chance that it lies beyond a limit. */
import { excess, sidesOf, type LimitSide } from "../baseline/margin";
import type { Limits } from "../baseline/limit";
import { FEWEST_READINGS, type Forecast } from "../forecast/forecast";
import { median, robustSpread } from "../trend/robust";
import { normalCdf, P10_P90 } from "../numeric/normal";
import type { Indicator } from "./indicator";

export interface BelievedLevel {
  /** Core unit of the indicator, at its reference condition. */
  value: number;
  /** Standard deviation of the level, core unit. */
  deviation: number;
}

/** Newest readings that a level is taken from when there is no forecast. */
const NEWEST = 3;
/** Standard error of a median over that of a mean. */
const OF_MEDIAN = 1.253;
/** Share of a reading's uncertainty that is the same in all of them: it does not average out (common practice). */
const COMMON = 0.5;
const USUAL_UNCERTAINTY = 0.01;

/** Level from the newest readings alone. Undefined without a reading. */
export function levelFromReadings(
  readings: readonly { corrected: number; uncertainty: number }[],
): BelievedLevel | undefined {
  const newest = readings.slice(-NEWEST);
  if (newest.length === 0) return undefined;
  const values = newest.map((r) => r.corrected);
  const own = median(newest.map((r) => r.uncertainty));
  // two readings that disagree: half their distance each way
  const scatter = values.length === 2 ? Math.abs(values[0]! - values[1]!) / 2 : robustSpread(values);
  return {
    value: median(values),
    deviation: Math.hypot(
      (OF_MEDIAN * Math.max(own, scatter)) / Math.sqrt(values.length),
      values.length === 2 ? scatter : 0,
    ),
  };
}

/** Chance that the level lies at or beyond one of its limits, and which, with what the readings have in common counted. */
export function chanceBeyond(
  level: BelievedLevel,
  limits: Limits,
  readings: readonly { uncertainty: number }[],
): { chance: number; side: LimitSide | null } {
  const newest = readings.slice(-NEWEST).map((r) => r.uncertainty);
  const common = COMMON * (newest.length > 0 ? median(newest) : Math.abs(level.value) * USUAL_UNCERTAINTY);
  const deviation = Math.max(Math.hypot(level.deviation, common), 1e-12);
  return sidesOf(limits).reduce<{ chance: number; side: LimitSide | null }>(
    (most, side) => {
      const by = excess(level.value, side);
      const chance = by >= 0 ? Math.max(0.5, normalCdf(by / deviation)) : normalCdf(by / deviation);
      return chance > most.chance || most.side === null ? { chance, side } : most;
    },
    { chance: 0, side: null },
  );
}

/** The level that the forecast follows. */
export function levelOf(cast: Forecast, indicator: Indicator): BelievedLevel {
  return {
    value: indicator.toValue(cast.level.centre),
    deviation: Math.abs(indicator.toValue(cast.level.high) - indicator.toValue(cast.level.low)) / P10_P90,
  };
}

/** Newest readings that all lie on the better side of what the bank follows, and how far, in their own deviations. */
const BETTER_READINGS = 3;
const BETTER_BY = 3;

/** A level that got better is what was read: the bank, which reckons with wear, follows it late. */
export function gotBetter(
  filtered: BelievedLevel,
  fromReadings: BelievedLevel,
  believed: readonly { corrected: number; uncertainty: number }[],
  side: LimitSide | null,
): boolean {
  const newest = believed.slice(-BETTER_READINGS);
  if (!side || newest.length < BETTER_READINGS) return false;
  const by = (value: number) => excess(filtered.value, side) - excess(value, side);
  const doubt = Math.max(fromReadings.deviation, filtered.deviation / 2);
  return newest.every((r) => by(r.corrected) > 0) && by(fromReadings.value) > BETTER_BY * doubt;
}

/** The two newest believed readings lie beyond one limit, the last one no slip: never less than an alarm. */
export function twoBeyond(
  believed: readonly { corrected: number; uncertainty: number; doubtful: boolean }[],
  limits: Limits,
  unconfirmed: boolean,
  count: number,
): boolean {
  const two = believed.slice(-2);
  if (unconfirmed || two.length < 2 || count < FEWEST_READINGS) return false;
  return sidesOf(limits).some((side) => two.every((r) => !r.doubtful && excess(r.corrected, side) > 2 * r.uncertainty));
}
