/** What a word that was told rests on, kept with it, so that it is not taken back by something else than the point. */
import type { ConditionState, Standing } from "../state/state";
import { digest } from "./digest";
import type { AssessPoint, AssessReading, AssessStop, SeriesContext } from "./types";

export interface StateMemory {
  state: ConditionState;
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
 * @param context duty, oil, stops and lead time
 * @returns small enough to be kept with the assessment
 * @throws {never}
 * @example rememberState("alert", [], { quantity: "flow" }, { stops: [] }).state // "alert"
 */
export function rememberState(
  state: ConditionState,
  readings: readonly AssessReading[],
  point: AssessPoint,
  context: SeriesContext,
): StateMemory {
  return {
    state,
    readings: { count: readings.length, digest: digest(readings) },
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
 * standingOf(told, [], { quantity: "flow" }, { ...context, now: 9 }) // { state: "alert", changed: "nothing" }
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
  // a stop that went by is no change of the plan
  const ahead = (stops: StateMemory["stops"]) => JSON.stringify(stops.filter(([, at]) => at > context.now));
  const sameRest = memory.rest === restOf(point, context) && ahead(memory.stops) === ahead(stopsOf(context.stops));
  const changed = !sameReadings || !sameRest ? "all" : readings.length > count ? "reading" : "nothing";
  return { state: memory.state, changed };
}

const restOf = (point: AssessPoint, context: SeriesContext) => {
  const { fluid, duty, meterChanges, lifeStartHours, lifeStartedAt, runInHours, repairedAt } = context;
  const { leadTimeDays, partReadyAt, nextChanceDays } = context;
  return digest([
    point,
    [fluid, duty, meterChanges, lifeStartHours, lifeStartedAt, runInHours, repairedAt],
    [leadTimeDays, partReadyAt, nextChanceDays],
  ]);
};

/** More are not looked at by any rule. */
const MOST_STOPS = 12;
const stopsOf = (stops: readonly AssessStop[]): StateMemory["stops"] =>
  [...stops]
    .sort((a, b) => a.at - b.at)
    .slice(0, MOST_STOPS)
    .map((s) => [s.id, s.at]);
