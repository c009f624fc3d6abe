/** What a reading at a point should be, by the level of its time and the conditions it is taken under. */
import { fluidAt } from "../fluid/measured";
import { dynamicViscosity } from "../fluid/viscosity";
import type { Forecast } from "../forecast/forecast";
import { median, robustSpread } from "../trend/robust";
import { floorOf } from "./floor";
import type { Indicator } from "./indicator";
import { P10_P90 } from "../numeric/normal";
import type { BelievedLevel } from "./level";
import { range, type CorrectedSeries } from "./series";
import type { AssessContext, AssessedForecast, AssessPoint, Expectation } from "./types";

function aheadOf(forecast: AssessedForecast | null, scale: (value: number) => number): Expectation["ahead"] {
  return (forecast?.fan ?? []).map((f) => ({
    at: f.at,
    centre: scale(f.p50),
    deviation: Math.abs(scale(f.p90) - scale(f.p10)) / P10_P90,
  }));
}

/** Readings that tell the level of a moment gone by, and moments that are kept. */
const PAST_WINDOW = 5;
const PAST_MOMENTS = 40;

/** The level as it was: running medians at up to forty moments, before the newest reading. */
function behindOf(
  readings: CorrectedSeries["readings"],
  scale: (value: number) => number,
  deviation: number,
): Expectation["behind"] {
  const used = readings.filter((r) => !r.recalled && !r.doubtful);
  const every = Math.max(1, Math.ceil(used.length / PAST_MOMENTS));
  return used.slice(0, -1).flatMap((r, i) => {
    if (i % every !== 0) return [];
    const window = used.slice(Math.max(0, i - (PAST_WINDOW >> 1)), i + (PAST_WINDOW >> 1) + 1);
    return [
      {
        at: r.at,
        centre: scale(median(window.map((w) => w.corrected))),
        deviation: deviation / Math.sqrt(window.length),
      },
    ];
  });
}

/** What the next reading should be: the level and its spread, as it was, is, and is forecast. null: too few readings. */
export function expectationOf(
  cast: Forecast | null,
  indicator: Indicator | null,
  forecast: AssessedForecast | null,
  corrected: CorrectedSeries,
  point: AssessPoint,
  level: number | null,
  context: AssessContext,
): Expectation | null {
  if (level === null || corrected.readings.length < 3) return null;
  const reference = corrected.exponents ? point.reference : null;
  const floor = floorOf(point);
  if (corrected.exponents && level > 0) {
    const exponents = corrected.fixed ? corrected.exponents : (cast?.exponents ?? corrected.exponents);
    const own = median(corrected.readings.map((r) => r.uncertainty / Math.max(r.corrected, floor)));
    const deviation = cast && !corrected.fixed ? Math.hypot(cast.noise, 0.01) : Math.max(0.05, own);
    const ln = (value: number) => Math.log(Math.max(value, floor));
    return {
      scale: "log",
      behind: behindOf(corrected.readings, ln, deviation),
      ahead: aheadOf(forecast, ln),
      centre: ln(level),
      deviation,
      a: exponents.a,
      b: exponents.b,
      ua: exponents.ua,
      ub: exponents.ub,
      reference,
      fluidNow: context.fluid ? fluidAt(context.fluid, context.measured, context.now) : null,
      referenceViscosity: context.fluid && reference ? dynamicViscosity(context.fluid, reference.temperature) : null,
      seen: {
        lnPressure: range(corrected.readings.map((r) => r.lnPressure)),
        lnViscosity: range(corrected.readings.map((r) => r.lnViscosity)),
      },
    };
  }
  const values = corrected.readings.filter((r) => !r.recalled).map((r) => r.corrected);
  const recent = values.slice(-12);
  const spread = Math.max(
    robustSpread(recent),
    floor,
    indicator && cast ? Math.abs(indicator.toValue(1 + cast.noise) - indicator.toValue(1)) : 0,
  );
  const same = (value: number) => value;
  return {
    scale: "plain",
    behind: behindOf(corrected.readings, same, spread),
    ahead: aheadOf(forecast, same),
    centre: level,
    deviation: spread,
    a: 0,
    b: 0,
    ua: 0,
    ub: 0,
    reference: null,
    fluidNow: null,
    referenceViscosity: null,
    seen: null,
  };
}

/**
 * The level of a point now, at its reference condition.
 * @returns core unit of its quantity; its deviation is that of the level, not of one more reading
 */
export function presentLevel({ scale, centre, deviation, behind }: Expectation): BelievedLevel {
  const own = behind.at(-1)?.deviation ?? deviation;
  return scale === "log"
    ? { value: Math.exp(centre), deviation: Math.exp(centre) * own }
    : { value: centre, deviation: own };
}
