/**
 * The assessment of one life at one point: baseline, change, trend, forecast, margin and verdict.
 * Derived data: it can be thrown away and made again from the readings.
 */
import { DAY } from "../units/time";
import { leavesMargin, nearestSide, type LimitSide } from "../baseline/margin";
import { FEWEST_READINGS, forecast as runForecast } from "../forecast/forecast";
import { withoutCourse } from "../forecast/prior";
import { quantityOf } from "../units/quantities";
import { fullContext, fullPoint, fullReadings } from "./inputs";
import { dutyFromReadings } from "./dates";
import { decideBy, EARLIEST, LIKELY, readingInterval, type Decision } from "./decide";
import { growingNoise, noiseOf } from "./noise";
import { fastCourse, type FastCourse } from "./course";
import { courseForecast } from "./courseForecast";
import { floorOf } from "./floor";
import { chanceBeyond, gotBetter, levelFromReadings, levelOf, twoBeyond } from "./level";
import { firstReadBeyond, lifeOf } from "./lifeTold";
import { marginOf } from "./marginNow";
import { sinceRepair } from "./repair";
import { correctSeries, hoursOf, lifeStart, type CorrectedSeries } from "./series";
import { BEYOND, conditionState, urgencyOf, type StateFacts } from "../state/state";
import { summarise } from "./summary";
import { isUnconfirmed } from "./unconfirmed";
import { isOverdue, nextChance } from "./timing";
import { trendOf } from "./trendNow";
import { verdictOf } from "./verdict";
import { datedForecast, monthlyRate, probabilityBy } from "./dated";
import { expectationOf } from "./expectation";
import { indicatorOf } from "./indicator";
import { contaminationOf } from "./contaminationHours";
import { scaleOf, spanOf } from "./scale";
import { baselineWorking, courseWorking, forecastWorking, lastReadingWorking, wordWorking } from "./workings";
import type { Assessment, ContextInput, PointInput, ReadingInput, SeriesPoint } from "./types";

const OUTLIER = 0.5;
/** A change of rate this near to the dirt belongs to it, running hours. */
const CONTAMINATION_NEAR_HOURS = 1500;

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
  const point = fullPoint(givenPoint);
  const context = fullContext(givenContext, fullReadings(given));
  const all = sinceRepair(fullReadings(given), point, context);
  const readings = summarise(all);
  const count = Math.max(context.readingsInAll ?? 0, all.length);
  const whole = correctSeries(readings, point, context);
  const newest = whole.readings.at(-1) ?? null;
  const levels = believedOf(whole.readings).map((r) => ({ at: r.at, value: r.corrected, uncertainty: r.uncertainty }));
  const weather = quantityOf(point.quantity).weather ?? false;
  const wholeLimits = scaleOf(whole, point, context).limits;
  // a course first: what goes on in one direction is no odd reading, however far it went
  const courseOf = (of: typeof levels) =>
    wholeLimits
      ? fastCourse(of, wholeLimits, { floor: floorOf(point), weather: weather && !aYearIsSeen(levels) })
      : null;
  const wholeCourse = courseOf(levels);
  const unconfirmed =
    wholeCourse === null &&
    newest !== null &&
    !newest.recalled &&
    !newest.doubtful &&
    isUnconfirmed(levels, floorOf(point), spanOf(whole, point, context));
  // a reading that is not believed neither ends a course nor moves the correction of the others
  const course = unconfirmed ? courseOf(levels.slice(0, -1)) : wholeCourse;
  const corrected: CorrectedSeries = unconfirmed ? correctSeries(readings.slice(0, -1), point, context) : whole;
  const series = corrected.readings;
  const { baseline, limits, limitProblem } = scaleOf(corrected, point, context);
  const noted = hoursOf(readings, context).believed;
  const duty = dutyFromReadings(
    series.filter((_, i) => noted[i]),
    context.duty,
  );

  const believed = believedOf(series);
  const fromReadings = course ? { value: course.level, deviation: course.scatter } : levelFromReadings(believed);
  const side = limits && baseline && fromReadings ? nearestSide(fromReadings.value, baseline.centre, limits) : null;
  const indicator =
    side && baseline && leavesMargin(baseline.centre, side) ? indicatorOf(corrected, baseline, side, point) : null;
  const contamination = contaminationOf(series, point, context);
  const scatter =
    indicator &&
    growingNoise(indicator.readings, noiseOf(indicator.readings, indicator.corrected, context.prior.noise));
  const cast =
    indicator && scatter && indicator.lnLimit > 0 && series.length >= FEWEST_READINGS
      ? runForecast({
          readings: scatter.readings,
          lnLimit: indicator.lnLimit,
          corrected: indicator.corrected,
          newAt: lifeStart(context),
          seed: context.seed,
          prior: {
            ...(point.knownWhenNew ? context.prior : withoutCourse(context.prior)),
            noise: scatter.noise,
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
        : (r.mark ?? (cast && cast.outlier[i]! > OUTLIER && !isOfCourse(course, series, i) ? "outlier" : null)),
  }));
  const judged = unconfirmed ? marked.slice(0, -1) : marked;

  const filtered = cast && indicator ? levelOf(cast, indicator) : undefined;
  const level =
    course || !filtered || (fromReadings && gotBetter(filtered, fromReadings, believed, side))
      ? fromReadings
      : filtered;
  const { chance: readBeyond, side: beyondSide } =
    level && limits && baseline ? chanceBeyond(level, limits, believed) : { chance: 0, side: null };
  const alreadyBeyond = baseline !== undefined && side !== null && !leavesMargin(baseline.centre, side);
  const shownTrend = trendOf(judged, cast);
  // less than a year of what follows the weather: a warm half-year is no wear, and a cold one no recovery
  const firstYear = weather && !aYearIsSeen(levels);
  const followed = level === filtered;
  const margin = marginOf(followed ? cast : null, indicator, baseline, side, judged, level);
  const perMonth = course ? course.perMonth : cast && indicator ? monthlyRate(cast, indicator, duty) : null;
  const fromBank = cast && series.length ? datedForecast(cast, indicator!, judged, duty, context) : null;
  const forecast = course && fromBank ? courseForecast(course, fromBank, judged.at(-1)!.at, duty, context) : fromBank;
  // a forecast that is sure needs no rank test over all readings
  const { at: chanceAt, isStop } = nextChance(context);
  const sure = forecast !== null && !firstYear && probabilityBy(forecast, chanceAt + SOON_AFTER) >= SURE;
  const trend = { ...shownTrend, proved: course !== null || ((shownTrend.proved || sure) && !firstYear) };
  // the last readings alone may lean back from a rise that is proved: that is scatter, and the date stands
  const towards = trend.proved && side !== null && trend.slope !== null && !movesAway(trend.slope.perMonth, side);
  const away = side !== null && perMonth !== null && movesAway(perMonth, side) && !towards;
  // the course goes on to today, whether or not anybody reads it
  const passed = forecast && trend.proved && !away ? probabilityBy(forecast, context.now) : 0;
  const beyond = Math.max(readBeyond, passed);
  const before = (at: number) => (beyond >= BEYOND ? 1 : forecast && !away ? probabilityBy(forecast, at) : 0);
  const beforeUsableStop = before(chanceAt);
  const interval = readingInterval(levels);
  const dated = forecast && !away && beyond < BEYOND ? forecast : null;
  const decision = dated && decideBy(dated, context, EARLIEST);
  const likely = dated && decideBy(dated, context, LIKELY);
  const withoutStops = dated && decideBy(dated, { ...context, stops: [] }, LIKELY);
  const within = (by: Decision | null) => (by ? (by.by - context.now) / interval : Infinity);
  const facts: StateFacts = {
    readings: count - (unconfirmed ? 1 : 0),
    knownWhenNew: point.knownWhenNew,
    hasLimit: limits !== null,
    margin: margin?.value ?? null,
    beyond,
    trendProved: trend.proved && !away,
    beforeUsableStop,
    stopIsPlanned: isStop,
    accepted: context.accepted,
    decideWithin: {
      likely: within(likely),
      earliest: within(decision),
      withoutStops: within(withoutStops),
    },
    course: course?.readings ?? 0,
    twoBeyond: limits !== null && twoBeyond(believed, limits, unconfirmed, count),
  };
  const state = conditionState({ ...facts, standing: context.standing });
  const held = state !== conditionState(facts);
  const noTrend =
    forecast && (away || !(trend.proved || held)) && beyond < BEYOND
      ? {
          earliest: away ? null : forecast.dates.p5,
          slow: !away && !firstYear && side !== null && movesSlowly(trend, side),
        }
      : null;
  const nextStop = context.stops.filter((s) => s.at > context.now).sort((a, b) => a.at - b.at)[0] ?? null;
  const partial = {
    state,
    readings: count,
    forecast,
    noTrend,
    decide: noTrend ? null : decision,
    held,
    trend,
    limitProblem,
    beyond,
    beyondSide: beyondSide?.side ?? null,
    course: course?.readings ?? 0,
    overdue: isOverdue(levels, context.now),
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
    // what was only ever read beyond its limit is not what a reading should be
    expectation:
      alreadyBeyond && readBeyond >= BEYOND
        ? null
        : expectationOf(cast, indicator, forecast, corrected, point, level?.value ?? null, context),
    verdict: verdictOf(partial, {
      quantity: point.quantity,
      rule: point.limit,
      limits,
      limit: side?.limit ?? null,
      fullFlow: point.fullFlow,
      reference: corrected.exponents ? point.reference : null,
      level: level?.value ?? null,
      asNew: alreadyBeyond ? null : (baseline?.centre ?? null),
      perMonth,
      beyondLimit: beyondSide?.limit ?? null,
      lastAt: newest?.at ?? null,
      recalled: all.filter((r) => r.recalled && !r.beforeRepair).length,
      repairedAt: context.repairedAt,
      readSinceRepair: levels.length,
      firstYear,
      away,
      passed: readBeyond < BEYOND && passed > readBeyond ? passed : 0,
      newestRaw: newest?.raw ?? null,
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
      forecast: !(cast && forecast && indicator)
        ? null
        : course
          ? courseWorking(course, forecast, duty, point.quantity)
          : forecastWorking(cast, forecast, indicator, duty, context),
      word: limits && count > 0 ? wordWorking(facts, { chanceAt, interval, decision, likely }, context) : null,
    },
    life:
      cast && indicator && side && !firstReadBeyond(believed, side)
        ? lifeOf(cast, indicator, series, point, context)
        : null,
  };
}

/** Readings that count in full: neither found out, nor put down as doubtful while others are there. */
function believedOf<T extends { recalled: boolean; doubtful: boolean }>(readings: readonly T[]): T[] {
  const used = readings.filter((r) => !r.recalled);
  const sure = used.filter((r) => !r.doubtful);
  return sure.length > 0 ? sure : used;
}

/** A forecast is sure of itself when it gives the limit this chance by two months after it could be helped. */
const SURE = 0.95;
const SOON_AFTER = 60 * DAY;

/** Of what follows the weather a whole year shows what is wear: this much of one. */
const WHOLE_YEAR = 350 * DAY;
const aYearIsSeen = (levels: readonly { at: number }[]) =>
  levels.length > 0 && levels.at(-1)!.at - levels[0]!.at >= WHOLE_YEAR;

/** Is the reading at this place one of a fast course's? */
function isOfCourse(course: FastCourse | null, series: readonly { recalled: boolean; doubtful: boolean }[], i: number) {
  if (!course) return false;
  return believedOf(series).slice(-course.readings).includes(series[i]!);
}

/** The rank test is sure that it moves towards its limit, though the rate does not matter yet. */
const movesSlowly = ({ mannKendall, slope }: Assessment["trend"], side: LimitSide) =>
  mannKendall.corrected !== null &&
  mannKendall.corrected < SURE_IT_MOVES &&
  slope !== null &&
  slope.low * slope.high > 0 &&
  !movesAway(slope.perMonth, side);
/** Two-sided p from which a movement is told; as strict as where a trend is proved. */
const SURE_IT_MOVES = 0.01;

/** Does it move away from its nearer limit? Then there is no date for it. */
const movesAway = (perMonth: number, side: LimitSide) => (side.side === "upper" ? perMonth < 0 : perMonth > 0);
