/** What a life's readings are held against: its baseline and its limits. */
import { baselineOf, makersBaseline, type Baseline } from "../baseline/baseline";
import { limitProblem as problemOf, resolveLimits, type Limits } from "../baseline/limit";
import { excess, leavesMargin, sidesOf } from "../baseline/margin";
import { quantityOf } from "../units/quantities";
import { lifeStart, type CorrectedSeries } from "./series";
import type { AssessContext, AssessPoint } from "./types";

/** Baseline and limits of a series; the limit may rest on the baseline. */
export function scaleOf(
  corrected: CorrectedSeries,
  point: AssessPoint,
  context: AssessContext,
): { baseline: Baseline | undefined; limits: Limits | null; limitProblem: string | null } {
  const own = baselineFor(corrected, point, context);
  const rule = point.limit;
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

function baselineFor(corrected: CorrectedSeries, point: AssessPoint, context: AssessContext): Baseline | undefined {
  if (point.makersNew !== null && (corrected.readings.length < 3 || !point.knownWhenNew))
    return makersBaseline(point.makersNew, Math.abs(point.makersNew) * 0.1);
  return baselineOf(
    corrected.readings
      .filter((r) => !r.doubtful && !r.recalled)
      .map((r) => ({ hours: r.hours - lifeStart(context), value: r.corrected, uncertainty: r.uncertainty })),
    { runInHours: context.runInHours, kind: point.knownWhenNew ? "commissioning" : "firstReadings" },
  );
}
