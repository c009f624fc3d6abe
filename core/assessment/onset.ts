/** Since when a level has stood away from its baseline. */
import type { Assessment } from "./types";
import { presentLevel } from "./expectation";

/** A level is away from its baseline beyond so many standard uncertainties. */
const AWAY = 2;

/**
 * The first of the moments since which the level has stood away from its baseline without coming back: when a fault began.
 * @param assessed an assessment
 * @returns epoch ms; null: it stands at its baseline, or too few readings tell
 * @example
 * const level = (month) => (month < 12 ? 50 : 60) + (month % 3);
 * const readings = Array.from({ length: 24 }, (_, month) => ({ at: month * 30 * DAY, value: level(month) }));
 * onsetOf(assess(readings, { quantity: "temperature", limit: { upper: 80 } })) / (30 * DAY) // 12
 * onsetOf(assess(readings.slice(0, 12), { quantity: "temperature", limit: { upper: 80 } })) // null
 */
export function onsetOf({
  expectation,
  baseline,
  lastAt,
}: Pick<Assessment, "expectation" | "baseline" | "lastAt">): number | null {
  if (!expectation || !baseline || lastAt === null) return null;
  const log = expectation.scale === "log";
  const centre = log ? Math.log(Math.max(baseline.centre, 1e-12)) : baseline.centre;
  const own = log ? baseline.uncertainty / Math.max(Math.abs(baseline.centre), 1e-12) : baseline.uncertainty;
  const side = (at: number, deviation: number) => {
    const z = (at - centre) / Math.hypot(deviation, own);
    return Math.abs(z) > AWAY ? Math.sign(z) : 0;
  };
  const { value } = presentLevel(expectation);
  const present = log ? Math.log(Math.max(value, 1e-12)) : value;
  const last = side(present, expectation.behind.at(-1)?.deviation ?? 0);
  if (last === 0) return null;
  let since = lastAt;
  for (const moment of [...expectation.behind].reverse()) {
    if (side(moment.centre, moment.deviation) !== last) break;
    since = moment.at;
  }
  return since;
}
