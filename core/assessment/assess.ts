/**
 * The assessment of one life at one point: baseline, change, trend, forecast, margin and verdict.
 * Derived data: it can be thrown away and made again from the readings.
 */
import { DAY, MONTH } from "../units/time";
import type { Baseline } from "../baseline/baseline";
import { excess, leavesMargin, nearestSide, usedTowards, type LimitSide } from "../baseline/margin";
import { FEWEST_READINGS, forecast as runForecast, type Forecast } from "../forecast/forecast";
import { ownExponents } from "../forecast/exponents";
import { withoutCourse } from "../forecast/prior";
import { median } from "../trend/robust";
import { mannKendall } from "../trend/mannKendall";
import { sustained } from "../trend/sustained";
import { theilSen } from "../trend/theilSen";
import { quantityOf } from "../units/quantities";
import { fullContext, fullPoint, fullReadings } from "./inputs";
import { dutyFromReadings } from "./dates";
import { noiseOf } from "./noise";
import { chanceBeyond, levelFromReadings, P10_P90, type BelievedLevel } from "./level";
import { correctSeries, hoursOf, lifeStart, type CorrectedSeries } from "./series";
import { BEYOND, conditionState, urgencyOf } from "../state/state";
import { summarise } from "./summary";
import { isUnconfirmed } from "./unconfirmed";
import { verdictOf } from "./verdict";
import { datedForecast, monthlyRate, probabilityBy } from "./dated";
import { expectationOf } from "./expectation";
import { indicatorOf, type Indicator } from "./indicator";
import { contaminationOf } from "./contaminationHours";
import { scaleOf, spanOf } from "./scale";
import { baselineWorking, forecastWorking, lastReadingWorking } from "./workings";
import type {
  AssessContext,
  AssessPoint,
  Assessment,
  ContextInput,
  PointInput,
  ReadingInput,
  SeriesPoint,
} from "./types";

/** Many points are tested at once, so one in a hundred rather than one in twenty. */
const RISING = 0.9;
/** Once it is proved it stands until the readings speak against it (scripts/bench/verdicts.ts measures both sides). */
const LEVELS = { proves: 0.01, releases: 0.5, rises: RISING, falls: 0.2 };
const OUTLIER = 0.5;

/**
 * Assess the readings of one life (in time order): level, margin, trend, forecast, state and verdict. What cannot be said is null
 * and the verdict says why. A long life is summarised first (summary.ts); a newest reading that cannot be believed on its own is
 * left out until a second one agrees (unconfirmed.ts).
 * @param given readings, epoch ms and core units; what is left out of one is taken as not known (inputs.ts)
 * @param givenPoint what the point reads, with its limit and its reference condition, bar and °C
 * @param givenContext the present, oil, duty, stops and what peers tell; left out: what is usual
 * @returns the assessment, in core units
 * @throws {RangeError} for a reference temperature at which ASTM D341 has no viscosity; never for a reading
 * @example
 * const readings = [50, 51, 50, 52, 51, 53].map((value, month) => ({ at: month * 30 * DAY, value }));
 * assess(readings, { quantity: "temperature", limit: { upper: 80 } }).state // "steady"
 * assess(readings, { quantity: "temperature", limit: { upper: 45 } }).state // "alarm"
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
  // a reading that is not believed must not move the correction of the others either
  const corrected: CorrectedSeries = unconfirmed ? correctSeries(readings.slice(0, -1), point, context) : whole;
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
  const contamination = contaminationOf(series, point, context);
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
            ...(contamination && { contaminatedAt: contamination.hours }),
          },
        })
      : null;

  const shown = unconfirmed ? [...series, newest] : series;
  const marked: SeriesPoint[] = shown.map((r, i) => ({
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
      contamination:
        contamination && cast
          ? {
              at: contamination.at,
              readingsSince: series.filter((r) => r.at > contamination.at).length,
              faster:
                trend.proved &&
                series.at(-1)!.at > contamination.at &&
                cast.change.probability > 0.5 &&
                cast.change.hours !== null &&
                Math.abs(cast.change.hours - contamination.hours) <
                  Math.max(CONTAMINATION_NEAR_HOURS, 0.1 * contamination.hours),
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

function levelOf(cast: Forecast, indicator: Indicator): BelievedLevel {
  return {
    value: indicator.toValue(cast.level.centre),
    deviation: Math.abs(indicator.toValue(cast.level.high) - indicator.toValue(cast.level.low)) / P10_P90,
  };
}

/** A change of rate this near to the dirt belongs to it, running hours. */
const CONTAMINATION_NEAR_HOURS = 1500;

function trendOf(series: readonly SeriesPoint[], cast: Forecast | null): Assessment["trend"] {
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
    : { hours: age + cast.p50, censored: cast.rising.at(-1)! < RISING, ...told };
}
