/** Why a forecast moved though nobody read the point: what else it rests on is remembered with it. */
import { digest } from "./digest";
import type { AssessPoint, AssessReading, SeriesContext } from "./types";

/** What a forecast rests on beside the readings themselves; each is compared, never read. */
export type ForecastBasis = Record<"taken" | Exclude<MoveCause, "time">, string>;

/** What makes a forecast move without a new reading. `readings`: old ones were corrected or recalled; `time`: days went by. */
export type MoveCause = "readings" | "peers" | "oil" | "duty" | "point" | "time";
const CAUSES = ["readings", "peers", "oil", "duty", "point"] as const;

/** A forecast as it was told, dates in epoch ms; null: none was told, or beyond the horizon. */
export interface ToldForecast {
  at: number;
  dates: { p10: number | null; p50: number | null; p90: number | null };
  basis: ForecastBasis;
}

/** The middle date went from one to another without a reading in between. Epoch ms; null: beyond the horizon. */
export interface ForecastMove {
  /** When the earlier one was told. */
  toldAt: number;
  from: number | null;
  to: number | null;
  because: MoveCause[];
}

/** What was told last with what it rests on, and how it moved since the newest reading; null: it did not. */
export interface ForecastMemory {
  told: ToldForecast;
  moved: ForecastMove | null;
}

/** A forecast that moves by more than this share of its own width says why. */
const TOLD_SHARE = 0.1;

/**
 * What a forecast rests on, short enough to be kept with it: used to tell later why it moved.
 * @param readings of the life, as read
 * @param point limit, reference and plate
 * @param context oil, duty, hours of the machine
 * @param peers what the peers tell, as stored
 * @returns a digest each; two are equal when nothing of it changed (but for 1 in 4 billion)
 * @throws {never}
 * @example
 * const context = { fluid: null, measured: [], contamination: null, duty: { hoursPerDay: 8, deviation: 0.1 }, meterChanges: [] };
 * const [one, two] = [[], ["a peer"]].map((peers) => forecastBasis([], { quantity: "flow" }, context, peers));
 * [one.peers === two.peers, one.oil === two.oil] // [false, true]
 */
export function forecastBasis(
  readings: readonly AssessReading[],
  point: AssessPoint,
  context: SeriesContext,
  peers: readonly string[],
): ForecastBasis {
  const { fluid, measured, contamination, duty, meterChanges, lifeStartHours, lifeStartedAt, runInHours } = context;
  return {
    taken: digest(readings.map((r) => r.at)),
    readings: digest([readings, context.repairedAt]),
    peers: digest(peers),
    oil: digest([fluid, measured, contamination]),
    duty: digest([duty, meterChanges, lifeStartHours, lifeStartedAt, runInHours]),
    point: digest(point),
  };
}

/**
 * Hold a new forecast against the one told before. Small moves are held against the same earlier one, so that many
 * small ones are told as well as a large one.
 * @param before what was remembered with the last assessment of this life; null: nothing
 * @param now the forecast as it is told now
 * @returns what to remember; `moved` says by how much and why, until the point is read again
 * @throws {never}
 * @example
 * const told = (day) => ({ at: 0, dates: { p10: day - 50, p50: day, p90: day + 50 }, basis: { taken: "a", peers: String(day) } });
 * const first = rememberForecast(null, told(400));
 * rememberForecast(first, told(420)).moved // { toldAt: 0, from: 400, to: 420, because: ["peers"] }
 */
export function rememberForecast(before: ForecastMemory | null, now: ToldForecast): ForecastMemory {
  if (!before || before.told.basis.taken !== now.basis.taken) return { told: now, moved: null };
  const { told } = before;
  if (!hasMoved(told.dates, now.dates)) return before;
  const because = CAUSES.filter((c) => told.basis[c] !== now.basis[c]);
  return {
    told: now,
    moved: {
      toldAt: told.at,
      from: told.dates.p50,
      to: now.dates.p50,
      because: because.length > 0 ? because : ["time"],
    },
  };
}

function hasMoved(before: ToldForecast["dates"], after: ToldForecast["dates"]): boolean {
  const width = widthOf(before) ?? widthOf(after);
  // nothing was dated, and nothing is
  if (width === null) return false;
  if (before.p50 === null || after.p50 === null) return before.p50 !== after.p50;
  return Math.abs(after.p50 - before.p50) > TOLD_SHARE * width;
}

/** From P10 to P90, or twice from P10 to P50 where P90 lies beyond the horizon. */
function widthOf({ p10, p50, p90 }: ToldForecast["dates"]): number | null {
  if (p10 === null || p50 === null) return null;
  return p90 === null ? 2 * (p50 - p10) : p90 - p10;
}
