/** A part that was repaired is another one: what it read before is kept, and no longer what is expected of it. */
import { excess, sidesOf } from "../baseline/margin";
import { limitsWithoutBaseline } from "./floor";
import type { AssessContext, AssessPoint, AssessReading } from "./types";

/**
 * Readings of a life with those of before its repair marked, once something was read since. People read a part again before they touch
 * it and prove it before they write it up: of what was read since the work began, only what follows the last reading beyond a limit counts
 * where the newest lies within.
 */
export function sinceRepair(
  readings: AssessReading[],
  point: AssessPoint,
  { repairedAt }: Pick<AssessContext, "repairedAt">,
): AssessReading[] {
  if (repairedAt === null) return readings;
  const usable = (r: AssessReading) => !r.recalled && !r.doubtful;
  const last = readings.findLast(usable);
  if (!last || last.at < repairedAt) return readings;
  const limits = limitsWithoutBaseline(point);
  const isBeyond = (r: AssessReading) => limits !== null && sidesOf(limits).some((side) => excess(r.value, side) >= 0);
  const bad = isBeyond(last) ? undefined : readings.findLast((r) => usable(r) && r.at >= repairedAt && isBeyond(r));
  const from = bad ? bad.at + 1 : repairedAt;
  return readings.map((r) => (r.at < from ? { ...r, recalled: true, beforeRepair: true } : r));
}
