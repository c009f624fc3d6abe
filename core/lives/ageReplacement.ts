/**
 * Age at which a part is best replaced: least long-run cost (C_p·R(T) + C_f·F(T)) / ∫₀ᵀ R dt. Barlow and
 * Hunter, Operations Research 8 (1960).
 */
import { weibullReliability } from "./weibull";

export interface AgeReplacementInput {
  shape: number;
  scale: number;
  /** Cost of a planned replacement and of an unplanned one, same unit. */
  planned: number;
  unplanned: number;
  shapeInterval?: { low: number; high: number };
}

export interface AgeReplacement {
  /** Best age; null: running to failure is never dearer. */
  age: number | null;
  /** Cost per hour at that age, or when running to failure. */
  costRate: number;
  /** Cost per hour when running to failure: C_f over the mean life. */
  runToFailure: number;
  /** Why there is no best age, or why it is in doubt. */
  note: string;
}

/** ∫₀ᵀ R dt by Simpson's rule. */
function meanUpTo(age: number, weibull: { shape: number; scale: number }): number {
  // t = T·s²: the steep start of shapes below 1 is spread out
  const STEPS = 400;
  let sum = 0;
  for (let i = 0; i <= STEPS; i++) {
    const s = i / STEPS;
    sum += (i === 0 || i === STEPS ? 1 : i % 2 ? 4 : 2) * weibullReliability(age * s * s, weibull) * 2 * age * s;
  }
  return sum / (3 * STEPS);
}

/** Cost per hour of replacing at an age. */
export function replacementCostRate(age: number, { shape, scale, planned, unplanned }: AgeReplacementInput): number {
  const alive = weibullReliability(age, { shape, scale });
  return (planned * alive + unplanned * (1 - alive)) / meanUpTo(age, { shape, scale });
}

/**
 * The age at which a planned replacement costs least an hour, from a Weibull life. Barlow and Hunter, Operations Research 8 (1960).
 * @param input shape, scale in hours and both costs, all above 0; `shapeInterval`, where known, tells whether the data show yet that
 * age matters
 * @returns the age in hours, null where running to failure is cheapest; costs per hour; a note
 * @throws {RangeError} when shape, scale or a cost is not above zero.
 * @example ageReplacement({ shape: 3, scale: 10000, planned: 1, unplanned: 10 })
 * // { age: 3825, costRate: 0.0003949, runToFailure: 0.00112 }
 * @example ageReplacement({ shape: 0.9, scale: 10000, planned: 1, unplanned: 10 }).age // null
 */
export function ageReplacement(input: AgeReplacementInput): AgeReplacement {
  const { shape, scale, planned, unplanned, shapeInterval } = input;
  for (const v of [shape, scale, planned, unplanned])
    if (!(v > 0) || !Number.isFinite(v)) throw new RangeError("Shape, scale and both costs must be above zero.");
  const far = scale * (-Math.log(1e-12)) ** (1 / shape);
  const runToFailure = unplanned / meanUpTo(far, { shape, scale });
  if (shape <= 1)
    return {
      age: null,
      costRate: runToFailure,
      runToFailure,
      note: "The shape is not above 1: an old part fails no sooner than a new one, so replacing by age gains nothing.",
    };
  if (unplanned <= planned)
    return {
      age: null,
      costRate: runToFailure,
      runToFailure,
      note: "An unplanned replacement costs no more than a planned one: run to failure.",
    };
  let low = Math.log(scale * 1e-3);
  let high = Math.log(far);
  const ratio = (Math.sqrt(5) - 1) / 2;
  const cost = (lnAge: number) => replacementCostRate(Math.exp(lnAge), input);
  for (let i = 0; i < 70; i++) {
    const a = high - ratio * (high - low);
    const b = low + ratio * (high - low);
    if (cost(a) < cost(b)) high = b;
    else low = a;
  }
  const age = Math.exp((low + high) / 2);
  const costRate = replacementCostRate(age, input);
  if (costRate >= runToFailure * (1 - 1e-6))
    return { age: null, costRate: runToFailure, runToFailure, note: "No age is cheaper than running to failure." };
  const doubt =
    shapeInterval && shapeInterval.low <= 1
      ? "The interval of the shape reaches 1 or below: the data do not show yet that age matters, so treat this age with caution."
      : "";
  return { age, costRate, runToFailure, note: doubt };
}
