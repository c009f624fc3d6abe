/** What laboratories found over time, analyte by analyte, for small pictures beside one another. */
import { analyteIds, analytes, type AnalyteId } from "./analytes";
import { incomparable, middle, type OilSample } from "./sample";

export interface SampleSeries {
  id: AnalyteId;
  /** In time order; `below`: reported as "less than", and drawn at half of it. */
  points: { at: number; value: number; below: boolean }[];
}

/** Fewer make no picture. */
const FEWEST = 2;
/** A picture as small as these shows no more. */
const MOST = 40;
/** Particles have a picture of their own; a share of saturation follows the temperature it was taken at. */
const NOT_DRAWN: ReadonlySet<AnalyteId> = new Set(["waterShare", "kv100"]);

/**
 * Series of every analyte of the oil's condition, of wear and of dirt that was reported at least twice.
 * @param samples in time order; those that cannot be compared are left out
 * @returns series in the order of the analytes, each of its newest 40 results in core units
 * @throws {never}
 * @example
 * const sample = (at, iron) => ({ at, place: "port", state: "working", results: { iron: { value: iron } } });
 * sampleSeries([sample(1, 10), sample(2, 14)]).map((s) => [s.id, s.points.length]) // [["iron", 2]]
 */
export function sampleSeries(samples: readonly OilSample[]): SampleSeries[] {
  const used = samples.filter((s) => incomparable(s) === null);
  return analyteIds
    .filter((id) => ["condition", "wear", "contaminant"].includes(analytes[id].group) && !NOT_DRAWN.has(id))
    .map((id) => ({
      id,
      points: used
        .flatMap((s) => {
          const result = s.results[id];
          return result ? [{ at: s.at, value: middle(result), below: result.below === true }] : [];
        })
        .slice(-MOST),
    }))
    .filter((s) => s.points.length >= FEWEST);
}
