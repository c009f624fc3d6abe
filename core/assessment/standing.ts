/** What a word that was told rests on, kept with it, so that it is not taken back by something else than the point. */
import type { ConditionState, Standing } from "../state/state";
import { HOUR } from "../units/time";
import { digest } from "./digest";
import type { AssessPoint, AssessReading, AssessStop, SeriesContext } from "./types";

export interface StateMemory {
  state: ConditionState;
  /** When it was told by these readings for the first time, epoch ms. */
  at: number;
  /** How many readings it was told by, and a digest of them. */
  readings: { count: number; digest: string };
  /** Limit, plate, duty, fluid, lead time: what may take it back without a reading. */
  rest: string;
  /** Stops that were known, by id and epoch ms. */
  stops: [id: string, at: number][];
}

/**
 * What to remember of a word.
 * @param state that was told
 * @param readings of the life, in time order, as read
 * @param point limit, reference and plate
 * @param context the present, duty, oil, stops and lead time
 * @param before what was remembered last; left out or null: nothing
 * @returns small enough to be kept with the assessment
 * @throws {never}
 * @example rememberState("alert", [], { quantity: "flow" }, { now: 0, stops: [] }).state // "alert"
 */
export function rememberState(
  state: ConditionState,
  readings: readonly AssessReading[],
  point: AssessPoint,
  context: SeriesContext,
  before: StateMemory | null = null,
): StateMemory {
  const told = { count: readings.length, digest: digest(readings) };
  const since = before?.readings.digest === told.digest ? before.at : context.now;
  return {
    state,
    at: since,
    readings: told,
    rest: restOf(point, context),
    stops: stopsOf(context.stops),
  };
}

/**
 * The word that stands, and whether anything of this point has changed since.
 * @param memory of the last assessment of this life; null: nothing was told
 * @param readings of the life now, in time order
 * @param point limit, reference and plate now
 * @param context the present, duty, oil, stops and lead time
 * @returns what `assess` takes as `standing`; null: nothing was told
 * @throws {never}
 * @example
 * const context = { now: 0, stops: [] };
 * const told = rememberState("alert", [], { quantity: "flow" }, context);
 * standingOf(told, [], { quantity: "flow" }, { ...context, now: DAY }) // { state: "alert", changed: "nothing" }
 */
export function standingOf(
  memory: StateMemory | null,
  readings: readonly AssessReading[],
  point: AssessPoint,
  context: SeriesContext,
): Standing | null {
  if (!memory) return null;
  const { count } = memory.readings;
  const sameReadings = readings.length >= count && digest(readings.slice(0, count)) === memory.readings.digest;
  // of a long life another selection is given once it was read again
  const selected = (context.readingsInAll ?? 0) > readings.length;
  // a stop that went by is no change of the plan, and of a long plan no more is known than was looked at
  const looked = memory.stops.length < MOST_STOPS ? Infinity : memory.stops.at(-1)![1];
  const ahead = (stops: StateMemory["stops"]) =>
    JSON.stringify(stops.filter(([, at]) => at > context.now && at <= looked));
  const sameRest = memory.rest === restOf(point, context) && ahead(memory.stops) === ahead(stopsOf(context.stops));
  if (!sameRest || (!sameReadings && !selected)) return { state: memory.state, changed: "all" };
  if (!sameReadings || readings.length > count) return { state: memory.state, changed: "reading" };
  // what came in together tells one another only when all of it was judged: the order of that must not decide
  return { state: memory.state, changed: context.now - memory.at < SETTLES ? "all" : "nothing" };
}

const restOf = (point: AssessPoint, context: SeriesContext) => {
  const { fluid, duty, meterChanges, lifeStartHours, lifeStartedAt, runInHours, repairedAt } = context;
  const { leadTimeDays, partReadyAt, nextChanceDays, accepted } = context;
  return digest([
    point,
    [fluid, duty, meterChanges, lifeStartHours, lifeStartedAt, runInHours, repairedAt],
    [leadTimeDays, partReadyAt, nextChanceDays, accepted],
  ]);
};

/** A word settles for so long after it was first told by these readings: a large fleet that was imported is judged through by then. */
const SETTLES = 6 * HOUR;

/** More are not looked at by any rule. */
const MOST_STOPS = 12;
const stopsOf = (stops: readonly AssessStop[]): StateMemory["stops"] =>
  [...stops]
    .sort((a, b) => a.at - b.at)
    .slice(0, MOST_STOPS)
    .map((s) => [s.id, s.at]);
