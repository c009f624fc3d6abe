/** When dirt came into a circuit, on the running hours of a part that it wears. */
import { DAY } from "../units/time";
import type { CorrectedSeries } from "./series";
import type { AssessContext, AssessPoint } from "./types";

/** Quantities that dirt wears at: a gap, a bore, a seat. */
const WORN_BY_CONTAMINATION: readonly string[] = [
  "caseDrainFlow",
  "leakageFlow",
  "flow",
  "creep",
  "strokeTime",
  "responseTime",
  "pilotMargin",
];

/** Dirt that came in during this life, at its running hours; before the first reading it is part of the life. */
export function contaminationOf(
  series: CorrectedSeries["readings"],
  point: AssessPoint,
  { contamination, duty }: AssessContext,
): { at: number; hours: number } | null {
  const first = series[0];
  const last = series.at(-1);
  if (
    !contamination ||
    !first ||
    !last ||
    contamination.at < first.at ||
    !WORN_BY_CONTAMINATION.includes(point.quantity)
  )
    return null;
  if (contamination.at >= last.at)
    return { at: contamination.at, hours: last.hours + ((contamination.at - last.at) / DAY) * duty.hoursPerDay };
  const after = series.findIndex((r) => r.at > contamination.at);
  const [from, to] = [series[after - 1]!, series[after]!];
  return {
    at: contamination.at,
    hours: from.hours + ((contamination.at - from.at) / (to.at - from.at)) * (to.hours - from.hours),
  };
}
