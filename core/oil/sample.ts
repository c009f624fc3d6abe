/** A sample of oil: its results, where and how it was taken, and what cannot be in one. */
import { parseIso4406 } from "../contamination/iso4406";
import { analyteIds, analytes, countIds, countSizes, type AnalyteId } from "./analytes";

export interface Result {
  value: number;
  /** Reported as "less than": the true value lies between 0 and `value`. */
  below?: boolean;
  /** Reported as "more than", or too many to count. */
  above?: boolean;
}
export type Results = Partial<Record<AnalyteId, Result>>;

export const samplePlaces = {
  port: "sampling port, line live",
  tank: "tank, half way down",
  drain: "drain or bottom of the tank",
  bowl: "filter bowl or component",
  notStated: "place not stated",
} as const;
export type SamplePlace = keyof typeof samplePlaces;
export const sampleStates = {
  working: "at work, warm",
  warm: "just stopped, warm",
  cold: "standing, cold",
  notStated: "state not stated",
} as const;
export type SampleState = keyof typeof sampleStates;

export interface OilSample {
  id: string;
  number: string;
  at: number;
  /** Running hours of the machine; null: not noted. */
  hours: number | null;
  place: SamplePlace;
  state: SampleState;
  results: Results;
  /** Code as the laboratory wrote it, where it reported no counts. */
  code: string | null;
  /** As the laboratory or the person wrote it; left out: none. */
  remark?: string;
}

/**
 * Why a sample cannot be compared with the others. What settles is in the drain, and what has settled is not in a cold sample.
 * @param sample where and in which state it was taken
 * @returns the reason; null: it can be compared
 * @example incomparable({ place: "port", state: "working" }) // null
 * @example incomparable({ place: "tank", state: "cold" }) // "taken cold and standing: the dirt had settled"
 */
export function incomparable({ place, state }: Pick<OilSample, "place" | "state">): string | null {
  if (place === "drain") return "taken from the drain: what has settled is in it";
  if (place === "bowl") return "taken from a filter bowl or a component: it is not the circuit's oil";
  if (state === "cold") return "taken cold and standing: the dirt had settled";
  return null;
}

/** Plain value of a result for a curve: a "less than" stands at half of its bound. */
export function middle({ value, below }: Result): number {
  return below ? value / 2 : value;
}

/**
 * What cannot be in a report: values below zero or in the wrong unit, counts that rise with size, a code that is none.
 * @param results in core units: counts per mL, metals and water in ppm by mass
 * @param code as the laboratory wrote it; null: none
 * @returns messages by the name of the field (an analyte, or "code"); empty: nothing is wrong
 * @example sampleProblems({ over4: { value: 1000 }, over6: { value: 1200 } }, null)
 * // { over6: "More particles over 6 µm than over 4 µm cannot be: counts are cumulative, and fall with size." }
 * @example sampleProblems({ over4: { value: 1000 }, over6: { value: 300 } }, "17/15/12") // {}
 */
export function sampleProblems(results: Results, code: string | null): Partial<Record<AnalyteId | "code", string>> {
  const problems: Partial<Record<AnalyteId | "code", string>> = {};
  for (const id of analyteIds) {
    const result = results[id];
    if (!result) continue;
    if (!(result.value >= 0)) problems[id] = "Not below zero.";
    else if (id === "waterShare" && result.value > 100)
      problems[id] = "A share of saturation ends at 100 %: state free water beyond that in ppm.";
    else if (id === "water" && result.value > 200_000)
      problems[id] = "More than a fifth of it would be water: check the unit (ppm, or % with its sign).";
    else if (result.value > analytes[id].greatest)
      problems[id] = `More ${analytes[id].short} than there can be: check the unit.`;
  }
  let before: { id: (typeof countIds)[number]; result: Result } | null = null;
  for (const id of countIds) {
    const result = results[id];
    if (!result) continue;
    // "less than 5" over a larger size says nothing against 3 over a smaller one
    if (before && !result.below && !before.result.above && result.value > before.result.value)
      problems[id] ??=
        `More particles over ${countSizes[id]} µm than over ${countSizes[before.id]} µm cannot be: counts are cumulative, and fall with size.`;
    before = { id, result };
  }
  const { kv40, kv100 } = results;
  if (kv40 && kv100 && kv100.value >= kv40.value)
    problems.kv100 ??= "Oil is thinner at 100 °C than at 40 °C: are the two exchanged?";
  if (code) {
    try {
      parseIso4406(code);
    } catch (error) {
      problems.code = (error as Error).message;
    }
  }
  return problems;
}
