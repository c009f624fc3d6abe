/** Limits and the basis they rest on. */
import type { Harm } from "../units/quantity";

/** How a limit was chosen; shown wherever the limit is drawn. */
export const limitBases = {
  shareOfFullFlow: "share of full flow",
  multipleOfNew: "multiple of new",
  absolute: "absolute",
  maker: "manufacturer's figure",
} as const;

export type LimitBasis = keyof typeof limitBases;
export const limitBasisIds = Object.keys(limitBases) as LimitBasis[];

/** A limit nearer to the baseline than this, core units, leaves no margin that anything could measure. */
export const NO_MARGIN = 1e-9;

export interface LimitRule {
  basis: LimitBasis;
  /** Percent for shareOfFullFlow, a factor for multipleOfNew, else core units. Null: no limit on that side. */
  upper: number | null;
  lower: number | null;
}

export interface Limits {
  upper: number | null;
  lower: number | null;
}

export type LimitResult = { ok: true; limits: Limits } | { ok: false; message: string };

/**
 * Limits in core units from the rule by which they were set.
 * @param rule percent of full flow, multiple of new, or a figure in core units
 * @param known what the rule may need
 * @param known.fullFlow theoretical flow at the reference speed, L/min
 * @param known.baseline centre of the baseline, core unit
 * @returns the limits, or what is missing
 * @example resolveLimits({ basis: "shareOfFullFlow", upper: 10, lower: null }, { fullFlow: 65.25 }).limits // { upper: 6.525, lower: null }
 * @example resolveLimits({ basis: "multipleOfNew", upper: 3, lower: null }, {}).ok // false
 */
export function resolveLimits(
  rule: LimitRule,
  { fullFlow, baseline }: { fullFlow?: number; baseline?: number },
): LimitResult {
  const scale = (factor: number): Limits => ({
    upper: rule.upper === null ? null : rule.upper * factor,
    lower: rule.lower === null ? null : rule.lower * factor,
  });
  if (rule.upper === null && rule.lower === null) return { ok: false, message: "No limit is set." };
  switch (rule.basis) {
    case "shareOfFullFlow":
      return fullFlow
        ? { ok: true, limits: scale(fullFlow / 100) }
        : { ok: false, message: "A share of full flow needs the displacement and the speed of the component." };
    case "multipleOfNew":
      return baseline
        ? { ok: true, limits: scale(baseline) }
        : { ok: false, message: "A multiple of new needs a baseline." };
    default:
      return { ok: true, limits: scale(1) };
  }
}

/**
 * Can a rule be used with this direction of harm and this baseline? A limit equal to the baseline leaves no margin and is refused.
 * @param rule percent of full flow, multiple of new, or a figure in core units
 * @param harm direction in which the quantity does harm
 * @param known what the rule may need
 * @param known.fullFlow theoretical flow at the reference speed, L/min
 * @param known.baseline centre of the baseline, core unit
 * @returns what is wrong with it; undefined when nothing is
 * @example limitProblem({ basis: "absolute", upper: null, lower: 60 }, "rising", {})
 * // "This quantity does harm as it rises: give an upper limit."
 * @example limitProblem({ basis: "absolute", upper: 80, lower: null }, "rising", { baseline: 50 }) // undefined
 */
export function limitProblem(
  rule: LimitRule,
  harm: Harm,
  { fullFlow, baseline }: { fullFlow?: number; baseline?: number },
): string | undefined {
  if (harm === "rising" && rule.upper === null) return "This quantity does harm as it rises: give an upper limit.";
  if (harm === "falling" && rule.lower === null) return "This quantity does harm as it falls: give a lower limit.";
  if (harm === "both" && rule.upper === null && rule.lower === null) return "Give an upper or a lower limit.";
  if (rule.upper !== null && rule.lower !== null && rule.upper <= rule.lower)
    return "The upper limit must lie above the lower one.";
  if (rule.basis === "multipleOfNew" && rule.upper !== null && rule.upper <= 1)
    return "A multiple of new above 1 is needed, for example 3.";
  const resolved = resolveLimits(rule, {
    fullFlow,
    baseline: rule.basis === "multipleOfNew" ? (baseline ?? 1) : baseline,
  });
  if (!resolved.ok) return resolved.message;
  const { upper, lower } = resolved.limits;
  if (
    baseline !== undefined &&
    [upper, lower].some((limit) => limit !== null && Math.abs(limit - baseline) <= NO_MARGIN)
  )
    return "The limit equals the baseline: no margin would be left.";
  return undefined;
}
