/**
 * The assessment of one life at one point: baseline, change, trend, forecast, margin and verdict.
 * Derived data: it can be thrown away and made again from the readings.
 */
import { baselineOf, makersBaseline, type Baseline } from "../baseline/baseline";
import { limitProblem as problemOf, resolveLimits, type Limits } from "../baseline/limit";
import { excess, leavesMargin, nearestSide, sidesOf, usedTowards, type LimitSide } from "../baseline/margin";
import { dynamicViscosity } from "../fluid/viscosity";
import { fluidAt } from "../fluid/measured";
import { FEWEST_READINGS, crossingProbability, forecast as runForecast, type Forecast } from "../forecast/forecast";
import type { FilterReading } from "../forecast/hypothesis";
import { ownExponents } from "../forecast/exponents";
import { withoutCourse } from "../forecast/prior";
import { pathLabel } from "../forecast/wearPath";
import { inverseEcdf, median, robustSpread } from "../trend/robust";
import { mannKendall } from "../trend/mannKendall";
import { theilSen } from "../trend/theilSen";
import { quantityOf } from "../units/quantities";
import type { Working } from "../working";
import { fullContext, fullPoint, fullReadings } from "./inputs";
import { datesOf, dutyFromReadings, type Duty } from "./dates";
import { noiseOf } from "./noise";
import { chanceBeyond, levelFromReadings, type BelievedLevel } from "./level";
import { correctSeries, hoursOf, lifeStart, range, type CorrectedSeries } from "./series";
import { BEYOND, conditionState, urgencyOf } from "../state/state";
import { summarise } from "./summary";
import { isUnconfirmed } from "./unconfirmed";
import { verdictOf } from "./verdict";
import { lastReadingWorking } from "./workings";
import type {
  AssessContext,
  AssessPoint,
  AssessedForecast,
  Assessment,
  ContextInput,
  Expectation,
  PointInput,
  ReadingInput,
  SeriesPoint,
} from "./types";

const DAY = 86_400_000;
const MONTH_DAYS = 30.4375;
/** Many points are tested at once, so one in a hundred rather than one in twenty. */
const TREND_P = 0.01;
const RISING = 0.9;
/** Readings looked at for a recent trend. */
const RECENT = 24;
const OUTLIER = 0.5;
/** Relative standard uncertainty that takes a reading out of every fit. */
const NOT_BELIEVED = 100;

/** A plain indicator is mapped to s = 1 as new and s = 2 at the limit. */
const PLAIN_LIMIT = Math.LN2;
const PLAIN_FLOOR = 0.2;
/** A leakage as new below this share of its limit is nought: only its distance to the limit says anything. */
const LEAST_NEW = 1e-4;

interface Indicator {
  readings: FilterReading[];
  lnLimit: number;
  corrected: boolean;
  /** Indicator (over as new) back to core units. */
  toValue(s: number): number;
}

/**
 * Assess the readings of one life (in time order). Never throws on readings: what cannot be said is
 * null and the verdict says why. What a caller leaves out is taken as not known (inputs.ts). A long life is
 * summarised first (summary.ts); a newest reading that cannot be believed on its own is left out until a second
 * one agrees (unconfirmed.ts).
 */
export function assess(
  given: readonly ReadingInput[],
  givenPoint: PointInput,
  givenContext: ContextInput = {},
): Assessment {
  const all = fullReadings(given);
  const point = fullPoint(givenPoint);
  const context = fullContext(givenContext, all);
  const readings = summarise(all);
  const count = Math.max(context.readingsInAll ?? 0, all.length);
  const whole = correctSeries(readings, point, context);
  const newest = whole.readings.at(-1) ?? null;
  const unconfirmed =
    newest !== null &&
    !newest.recalled &&
    !newest.doubtful &&
    isUnconfirmed(
      whole.readings
        .filter((r) => !r.recalled && !r.doubtful)
        .map((r) => ({ value: r.corrected, uncertainty: r.uncertainty })),
      quantityOf(point.quantity).floor,
      spanOf(whole, point, context),
    );
  const corrected: CorrectedSeries = unconfirmed ? { ...whole, readings: whole.readings.slice(0, -1) } : whole;
  const series = corrected.readings;
  const { baseline, limits, limitProblem } = scaleOf(corrected, point, context);
  const noted = hoursOf(readings, context).believed;
  const duty = dutyFromReadings(
    series.filter((_, i) => noted[i]),
    context.duty,
  );

  const believed = series.filter((r) => !r.recalled);
  const fromReadings = levelFromReadings(believed);
  const side = limits && baseline && fromReadings ? nearestSide(fromReadings.value, baseline.centre, limits) : null;
  const indicator =
    side && baseline && leavesMargin(baseline.centre, side) ? indicatorOf(corrected, baseline, side, point) : null;
  const dirt = dirtOf(series, point, context);
  const cast =
    indicator && indicator.lnLimit > 0 && series.length >= FEWEST_READINGS
      ? runForecast({
          readings: indicator.readings,
          lnLimit: indicator.lnLimit,
          corrected: indicator.corrected,
          newAt: lifeStart(context),
          prior: {
            ...(point.knownWhenNew ? context.prior : withoutCourse(context.prior)),
            noise: noiseOf(indicator.readings, indicator.corrected, context.prior.noise),
            ...(dirt && { dirtAt: dirt.hours }),
          },
        })
      : null;

  const marked: SeriesPoint[] = whole.readings.map((r, i) => ({
    id: r.id,
    at: r.at,
    hours: r.hours,
    raw: r.raw,
    corrected: r.corrected,
    uncertainty: r.uncertainty,
    mark:
      unconfirmed && i === series.length
        ? "unconfirmed"
        : (r.mark ?? (cast && cast.outlier[i]! > OUTLIER ? "outlier" : null)),
  }));
  const judged = unconfirmed ? marked.slice(0, -1) : marked;

  const level = cast && indicator ? levelOf(cast, indicator) : fromReadings;
  const beyond = level && limits && baseline ? chanceBeyond(level, limits, believed) : 0;
  const alreadyBeyond = baseline !== undefined && side !== null && !leavesMargin(baseline.centre, side);
  const trend = trendOf(judged, cast);
  const margin = marginOf(cast, indicator, baseline, side, judged, fromReadings);
  const forecast = cast && series.length ? datedForecast(cast, indicator!, judged, duty, context) : null;
  const usableStop = usable(context);
  const beforeUsableStop =
    beyond >= BEYOND ? 1 : forecast ? probabilityBy(forecast, usableStop ?? context.now + 365 * DAY) : 0;
  const state = conditionState({
    readings: count - (unconfirmed ? 1 : 0),
    knownWhenNew: point.knownWhenNew,
    hasLimit: limits !== null,
    margin: margin?.value ?? null,
    beyond,
    trendProved: trend.proved,
    beforeUsableStop,
  });
  const noTrend = forecast && !trend.proved && beyond < BEYOND ? { earliest: forecast.dates.p5 } : null;
  const nextStop = context.stops.filter((s) => s.at > context.now).sort((a, b) => a.at - b.at)[0] ?? null;
  const partial = {
    state,
    readings: count,
    forecast,
    noTrend,
    trend,
    limitProblem,
    beyond,
    alreadyBeyond,
    unconfirmed: unconfirmed ? { at: newest.at, raw: newest.raw } : null,
  };
  return {
    ...partial,
    urgency: urgencyOf(
      state,
      state === "drifting" || state === "alert" || state === "alarm" ? beforeUsableStop : 0,
      margin?.value ?? null,
    ),
    lastAt: newest?.at ?? null,
    lastRaw: newest?.raw ?? null,
    baseline: baseline ?? null,
    limits,
    margin,
    correction:
      corrected.exponents && point.reference
        ? {
            a: corrected.exponents.a,
            b: corrected.exponents.b,
            ua: corrected.exponents.ua,
            ub: corrected.exponents.ub,
            readings: corrected.exponents.readings,
            reference: point.reference,
          }
        : null,
    series: marked,
    expectation: expectationOf(cast, indicator, forecast, corrected, point, level?.value ?? null, context),
    verdict: verdictOf(partial, {
      quantity: point.quantity,
      rule: point.limit,
      limits,
      limit: side?.limit ?? null,
      fullFlow: point.fullFlow,
      reference: corrected.exponents ? point.reference : null,
      level: level?.value ?? null,
      asNew: alreadyBeyond ? null : (baseline?.centre ?? null),
      perMonth: cast && indicator ? monthlyRate(cast, indicator, duty) : null,
      knownWhenNew: point.knownWhenNew,
      leadTimeDays: context.leadTimeDays,
      partReadyAt: context.partReadyAt,
      nextStop,
      now: context.now,
      dirt:
        dirt && cast
          ? {
              at: dirt.at,
              readingsSince: series.filter((r) => r.at > dirt.at).length,
              faster:
                trend.proved &&
                series.at(-1)!.at > dirt.at &&
                cast.change.probability > 0.5 &&
                cast.change.hours !== null &&
                Math.abs(cast.change.hours - dirt.hours) < Math.max(DIRT_NEAR_HOURS, 0.1 * dirt.hours),
            }
          : null,
    }),
    workings: {
      last: lastReadingWorking(readings.at(-1), newest ?? undefined, corrected.exponents, point, context),
      baseline: baseline ? baselineWorking(baseline, point) : null,
      forecast: cast && forecast && indicator ? forecastWorking(cast, forecast, indicator, duty, context) : null,
    },
    life:
      cast && indicator && side && !firstReadBeyond(believed, side)
        ? lifeOf(cast, indicator, series, point, context)
        : null,
  };
}

/** Baseline and limits of a series; the limit may rest on the baseline. */
function scaleOf(
  corrected: CorrectedSeries,
  point: AssessPoint,
  context: AssessContext,
): { baseline: Baseline | undefined; limits: Limits | null; limitProblem: string | null } {
  const own = baselineFor(corrected, point, context);
  const rule = point.limit;
  const scale = { ...(point.fullFlow !== null && { fullFlow: point.fullFlow }), ...(own && { baseline: own.centre }) };
  const resolved = rule ? resolveLimits(rule, scale) : null;
  // a baseline that stands at its limit is no fault of the rule: the level is held against the limit all the same
  const problem =
    !rule || !resolved
      ? "No limit is set."
      : !resolved.ok
        ? resolved.message
        : (problemOf(
            rule,
            quantityOf(point.quantity).harm,
            rule.basis === "multipleOfNew" ? scale : { ...(point.fullFlow !== null && { fullFlow: point.fullFlow }) },
          ) ?? null);
  const limits = resolved?.ok && !problem ? resolved.limits : null;
  return { baseline: own && limits ? soundBaseline(own, limits, point) : own, limits, limitProblem: problem };
}

/** A part that was first read beyond its limit has no baseline of its own; the maker's figure for a new one serves where it is known. */
function soundBaseline(own: Baseline, limits: Limits, { makersNew }: AssessPoint): Baseline {
  const beyondAny = (centre: number) => sidesOf(limits).some((side) => !leavesMargin(centre, side));
  return makersNew !== null && beyondAny(own.centre) && !beyondAny(makersNew)
    ? makersBaseline(makersNew, Math.abs(makersNew) * 0.1)
    : own;
}

/** Distance from baseline to the nearer limit, core unit; null: no limit. */
function spanOf(corrected: CorrectedSeries, point: AssessPoint, context: AssessContext): number | null {
  const { baseline, limits } = scaleOf(corrected, point, context);
  const spans =
    baseline && limits
      ? sidesOf(limits)
          .map((side) => Math.abs(excess(baseline.centre, side)))
          .filter((span) => span > 0)
      : [];
  return spans.length > 0 ? spans.reduce((least, span) => Math.min(least, span)) : null;
}

/** P10 to P90 of a normal, in standard deviations. */
const P10_P90 = 2.563;

function levelOf(cast: Forecast, indicator: Indicator): BelievedLevel {
  return {
    value: indicator.toValue(cast.level.centre),
    deviation: Math.abs(indicator.toValue(cast.level.high) - indicator.toValue(cast.level.low)) / P10_P90,
  };
}

/** A change of rate this near to the dirt belongs to it, running hours. */
const DIRT_NEAR_HOURS = 1500;

/** Quantities that dirt wears at: a gap, a bore, a seat. */
const WORN_BY_DIRT: readonly string[] = [
  "caseDrainFlow",
  "leakageFlow",
  "flow",
  "creep",
  "strokeTime",
  "responseTime",
  "pilotMargin",
];

/** Dirt that came in during this life, at its running hours; before the first reading it is part of the life. */
function dirtOf(
  series: CorrectedSeries["readings"],
  point: AssessPoint,
  { dirt, duty }: AssessContext,
): { at: number; hours: number } | null {
  const first = series[0];
  const last = series.at(-1);
  if (!dirt || !first || !last || dirt.at < first.at || !WORN_BY_DIRT.includes(point.quantity)) return null;
  if (dirt.at >= last.at) return { at: dirt.at, hours: last.hours + ((dirt.at - last.at) / DAY) * duty.hoursPerDay };
  const after = series.findIndex((r) => r.at > dirt.at);
  const [from, to] = [series[after - 1]!, series[after]!];
  return { at: dirt.at, hours: from.hours + ((dirt.at - from.at) / (to.at - from.at)) * (to.hours - from.hours) };
}

function baselineFor(corrected: CorrectedSeries, point: AssessPoint, context: AssessContext): Baseline | undefined {
  if (point.makersNew !== null && (corrected.readings.length < 3 || !point.knownWhenNew))
    return makersBaseline(point.makersNew, Math.abs(point.makersNew) * 0.1);
  return baselineOf(
    corrected.readings
      .filter((r) => !r.doubtful && !r.recalled)
      .map((r) => ({ hours: r.hours - lifeStart(context), value: r.corrected, uncertainty: r.uncertainty })),
    { runInHours: context.runInHours, kind: point.knownWhenNew ? "commissioning" : "firstReadings" },
  );
}

function indicatorOf(corrected: CorrectedSeries, baseline: Baseline, side: LimitSide, point: AssessPoint): Indicator {
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
      u: r.recalled ? NOT_BELIEVED : r.doubtful ? 0.5 : Math.abs(quantityOf(point.quantity).floor / span),
    })),
  };
}

function trendOf(series: readonly SeriesPoint[], cast: Forecast | null): Assessment["trend"] {
  const used = series.filter((r) => r.mark !== "outlier" && r.mark !== "doubtful" && r.mark !== "recalled");
  // readings of one moment have no course
  if (used.length < 4 || used[0]!.at === used.at(-1)!.at)
    return { proved: false, mannKendall: { raw: null, corrected: null }, slope: null };
  const values = used.map((r) => r.corrected);
  const raw = mannKendall(used.map((r) => r.raw)).p;
  const whole = mannKendall(values).p;
  const recent = values.length > RECENT + 6 ? mannKendall(values.slice(-RECENT)).p : whole;
  const slope = theilSen(
    used.map((r) => r.at / DAY / MONTH_DAYS),
    values,
  );
  return {
    proved: Math.min(whole, 2 * recent) < TREND_P && cast !== null && cast.rising >= RISING,
    mannKendall: { raw, corrected: whole },
    slope: { perMonth: slope.slope, low: slope.low, high: slope.high },
  };
}

/** P90 of a normal, in standard deviations. */
const P90 = 1.2816;

function marginOf(
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

function usable(context: AssessContext): number | null {
  const ready = context.partReadyAt ?? context.now + (context.leadTimeDays ?? 0) * DAY;
  const stops = context.stops.map((s) => s.at).filter((at) => at >= ready);
  return stops.length ? Math.min(...stops) : null;
}

/** Chance of crossing by a date, from the stored quantiles of the crossing date. */
export function probabilityBy(forecast: Pick<AssessedForecast, "crossingDates">, at: number): number {
  const { crossingDates } = forecast;
  return crossingDates.filter((date) => date !== null && date <= at).length / crossingDates.length;
}

function datedForecast(
  cast: Forecast,
  indicator: Indicator,
  series: readonly SeriesPoint[],
  duty: Duty,
  context: AssessContext,
): AssessedForecast {
  const last = series[series.length - 1]!;
  const dates = datesOf(cast.crossings, last.at, duty);
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
    beforeStops: context.stops
      .filter((s) => s.at > context.now)
      .sort((a, b) => a.at - b.at)
      .slice(0, 6)
      .map((s) => ({ stopId: s.id, at: s.at, probability: crossingProbability(dates, s.at) })),
    horizonHours: cast.horizon,
    crossed: cast.crossed,
    crossedSince: cast.crossedSince === null ? null : (series.find((r) => r.hours >= cast.crossedSince!)?.at ?? null),
    rising: cast.rising,
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

/** Rate in core units a month, through the duty. */
function monthlyRate(cast: Forecast, indicator: Indicator, duty: Duty): number {
  return (indicator.toValue(1 + cast.rate.centre) - indicator.toValue(1)) * ((duty.hoursPerDay * MONTH_DAYS) / 1000);
}

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

function expectationOf(
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
  const { floor } = quantityOf(point.quantity);
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

/** Beyond its limit when it was first read: nobody knows after how many hours it got there, so it tells its peers nothing. */
function firstReadBeyond(believed: CorrectedSeries["readings"], side: LimitSide): boolean {
  return excess(median(believed.slice(0, 3).map((r) => r.corrected)), side) >= 0;
}

function lifeOf(
  cast: Forecast,
  indicator: Indicator,
  series: CorrectedSeries["readings"],
  point: AssessPoint,
  context: AssessContext,
): Assessment["life"] {
  const start = lifeStart(context);
  const age = series[series.length - 1]!.hours - start;
  const told = {
    noise: cast.noise,
    regimes: cast.regimes,
    ...(point.knownWhenNew && { course: cast.course }),
    ...(indicator.corrected && { exponents: ownExponents(cast.exponents, context.prior.exponents) }),
  };
  // what was altered or broke in one step did not wear out: it lasted at least until then
  if (cast.step.hours !== null) return { hours: cast.step.hours - start, censored: true, ...told };
  if (cast.crossedSince !== null && cast.crossed > 0.5)
    return { hours: cast.crossedSince - start, censored: false, reached: true, ...told };
  return cast.p50 === null
    ? { hours: age + cast.horizon, censored: true, ...told }
    : { hours: age + cast.p50, censored: cast.rising < RISING, ...told };
}

function baselineWorking(baseline: Baseline, point: AssessPoint): Working {
  const row = (label: string, value: number) => ({ label, value, quantity: point.quantity, digits: 3 });
  return {
    formula:
      baseline.kind === "maker"
        ? "Baseline from the manufacturer's figure"
        : `Baseline from the first ${baseline.readings} readings after run-in`,
    rows: [
      row("centre (median)", baseline.centre),
      row("spread (1.4826·MAD, small-sample factor)", baseline.spread),
      row("standard uncertainty of the centre", baseline.uncertainty),
      { label: "readings", value: baseline.readings },
    ],
    source: "Median and median absolute deviation; never narrower than the readings' own uncertainty.",
    ...(baseline.provisional && {
      note: "Provisional: fewer than 20 readings, so limits drawn from it give more false alarms than stated.",
    }),
  };
}

function forecastWorking(
  cast: Forecast,
  forecast: AssessedForecast,
  indicator: Indicator,
  duty: Duty,
  context: AssessContext,
): Working {
  return {
    formula: "Competing wear paths, weighted by how well each predicted the readings",
    rows: [
      { label: "indicator now, over as new", value: cast.level.centre, digits: 3 },
      { label: "limit, over as new", value: Math.exp(indicator.lnLimit), digits: 3 },
      { label: "rate, per 1000 running hours", value: cast.rate.centre, digits: 2 },
      { label: "chance that the rate is above zero", value: cast.rising * 100, quantity: "share", digits: 3 },
      { label: "noise of a reading", value: cast.noise * 100, quantity: "share", digits: 2 },
      ...cast.paths
        .filter((p) => p.share >= 0.05)
        .map((p) => ({
          label: `path: ${pathLabel(p.id)}`,
          value: p.share * 100,
          quantity: "share" as const,
          digits: 2,
        })),
      {
        label: "chance of a sudden step of the level in this life",
        value: cast.step.probability * 100,
        quantity: "share",
        digits: 2,
      },
      {
        label: "chance that the rate has changed in this life",
        value: cast.change.probability * 100,
        quantity: "share",
        digits: 2,
      },
      ...(forecast.hours.p10 === null
        ? []
        : [
            {
              label: "P10, running hours after the last reading",
              value: forecast.hours.p10,
              quantity: "runningHours" as const,
            },
          ]),
      ...(forecast.hours.p50 === null
        ? []
        : [{ label: "P50", value: forecast.hours.p50, quantity: "runningHours" as const }]),
      ...(forecast.hours.p90 === null
        ? []
        : [{ label: "P90", value: forecast.hours.p90, quantity: "runningHours" as const }]),
      { label: "duty, running hours a day", value: duty.hoursPerDay, digits: 3 },
      { label: "typical hours to the limit among peers", value: context.prior.timeScale, quantity: "runningHours" },
    ],
    source:
      "Bank of extended Kalman filters on z = (s^λ − 1)/λ with soft change points; crossings drawn from " +
      "the inverse Gaussian first passage (Folks and Chhikara 1978).",
    note:
      context.prior.lives === 0
        ? "No peer histories yet: a weak default is used instead."
        : `Prior from ${context.prior.lives} peer histories.`,
  };
}
