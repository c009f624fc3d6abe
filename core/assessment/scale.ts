/** What a life's readings are held against: its baseline and its limits. */
import { baselineOf, makersBaseline, type Baseline } from "../baseline/baseline";
import { limitProblem as problemOf, resolveLimits, type Limits } from "../baseline/limit";
import { excess, leavesMargin, sidesOf } from "../baseline/margin";
import { median } from "../trend/robust";
import { quantityOf } from "../units/quantities";
import { limitsWithoutBaseline } from "./floor";
import { lifeStart, type CorrectedSeries } from "./series";
import type { AssessContext, AssessPoint } from "./types";

const NONE: Limits = { upper: null, lower: null };
/** Readings within its limits that tell how a part is when it is well, where it was first read beyond them. */
const FEWEST_SOUND = 3;

/** Baseline and limits of a series; the limit may rest on the baseline. */
export function scaleOf(
  corrected: CorrectedSeries,
  point: AssessPoint,
  context: AssessContext,
): { baseline: Baseline | undefined; limits: Limits | null; limitProblem: string | null } {
  const rule = point.limit;
  const own = baselineFor(corrected, point, context, limitsWithoutBaseline(point));
  const scale = { ...(point.fullFlow !== null && { fullFlow: point.fullFlow }), ...(own && { baseline: own.centre }) };
  const resolved = rule ? resolveLimits(rule, scale) : null;
  // a baseline that stands at its limit is no fault of the rule: the level is held against the limit all the same
  const problem =
    !rule || !resolved
      ? "No limit is set."
      : !resolved.ok
        ? resolved.message
        : (problemOf(
            rule,
            quantityOf(point.quantity).harm,
            rule.basis === "multipleOfNew" ? scale : { ...(point.fullFlow !== null && { fullFlow: point.fullFlow }) },
          ) ?? null);
  const limits = resolved?.ok && !problem ? resolved.limits : null;
  return { baseline: own && limits ? soundBaseline(own, limits, point) : own, limits, limitProblem: problem };
}

/** A part that was first read beyond its limit has no baseline of its own; the maker's figure for a new one serves where it is known. */
function soundBaseline(own: Baseline, limits: Limits, { makersNew }: AssessPoint): Baseline {
  const beyondAny = (centre: number) => sidesOf(limits).some((side) => !leavesMargin(centre, side));
  return makersNew !== null && beyondAny(own.centre) && !beyondAny(makersNew)
    ? makersBaseline(makersNew, Math.abs(makersNew) * 0.1)
    : own;
}

/** Distance from baseline to the nearer limit, core unit; null: no limit. */
export function spanOf(corrected: CorrectedSeries, point: AssessPoint, context: AssessContext): number | null {
  const { baseline, limits } = scaleOf(corrected, point, context);
  const spans =
    baseline && limits
      ? sidesOf(limits)
          .map((side) => Math.abs(excess(baseline.centre, side)))
          .filter((span) => span > 0)
      : [];
  return spans.length > 0 ? spans.reduce((least, span) => Math.min(least, span)) : null;
}

function baselineFor(
  corrected: CorrectedSeries,
  point: AssessPoint,
  context: AssessContext,
  limits: Limits | null,
): Baseline | undefined {
  if (point.makersNew !== null && (corrected.readings.length < 3 || !point.knownWhenNew))
    return makersBaseline(point.makersNew, Math.abs(point.makersNew) * 0.1);
  const believed = corrected.readings.filter((r) => !r.doubtful && !r.recalled);
  // what lies beyond a limit is not how the part is when it is well; where nothing else was read, there is no such thing
  const sound = believed.filter((r) => sidesOf(limits ?? NONE).every((side) => excess(r.corrected, side) < 0));
  // and of a part that was first read beyond it, only what was read since it was set right
  const first = believed.slice(0, 3).map((r) => r.corrected);
  const begunBeyond = first.length > 0 && sidesOf(limits ?? NONE).some((side) => excess(median(first), side) >= 0);
  const used = sound.length >= (begunBeyond ? FEWEST_SOUND : 1) ? sound : believed;
  return baselineOf(
    used.map((r) => ({ hours: r.hours - lifeStart(context), value: r.corrected, uncertainty: r.uncertainty })),
    { runInHours: context.runInHours, kind: point.knownWhenNew ? "commissioning" : "firstReadings" },
  );
}
