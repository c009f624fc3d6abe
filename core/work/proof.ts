/** Before beside after, medians of a few readings: is the difference more than the scatter of both, and is it what the new part should read? */
import { normalCdf } from "../numeric/normal";
import { median } from "../trend/robust";

export interface Proof {
  /** After minus before. */
  difference: number;
  /** Its standard uncertainty. */
  uncertainty: number;
  /** Chance that it is better now, 0 to 1. */
  better: number;
  verdict: "proven" | "no change seen" | "worse" | "better, not as new";
}

/** From this chance on a difference counts. Two sides: one in forty that it is called by accident. */
const SURE = 0.975;

/** Variance of a median of n normal readings, of one reading's; of three by their order statistics, of many by its limit. */
const varianceOfMedian = (n: number): number => (n <= 2 ? 1 / n : n === 3 ? 0.4487 : Math.PI / (2 * n));

/**
 * Hold the readings after a piece of work against those before it.
 * Source: GUM 5.1.2, the uncertainty of a difference of independent means; the level is common practice.
 * @param before readings before, corrected; at least one
 * @param after readings after, corrected; at least one
 * @param scatter standard deviation of one corrected reading of this point, above 0
 * @param harm which way is worse
 * @param expected what the part should read now, and how well that is known (standard uncertainty); null: not known
 * @returns the difference, its uncertainty, and what it proves
 * @throws {RangeError} where a side is empty or `scatter` is not above 0
 * @example
 * proofOf([8.1, 8.3, 8.2], [1.9], 0.2, "rising", null).verdict // "proven"
 */
export function proofOf(
  before: readonly number[],
  after: readonly number[],
  scatter: number,
  harm: "rising" | "falling" | "both",
  expected: { value: number; uncertainty: number } | null,
): Proof {
  if (before.length === 0 || after.length === 0) throw new RangeError("both sides need a reading");
  if (!(scatter > 0)) throw new RangeError("the scatter must be above 0");
  const [was, is] = [median([...before]), median([...after])];
  const difference = is - was;
  const uncertainty = scatter * Math.sqrt(varianceOfMedian(before.length) + varianceOfMedian(after.length));
  // of a quantity that may be off to both sides, better is nearer to what is expected
  const gain =
    harm === "rising"
      ? -difference
      : harm === "falling"
        ? difference
        : expected
          ? Math.abs(was - expected.value) - Math.abs(is - expected.value)
          : 0;
  const better = normalCdf(gain / uncertainty);
  if (better <= 1 - SURE) return { difference, uncertainty, better, verdict: "worse" };
  if (better < SURE) return { difference, uncertainty, better, verdict: "no change seen" };
  if (expected) {
    const off = (is - expected.value) * (harm === "falling" ? -1 : 1);
    const known = Math.hypot(scatter * Math.sqrt(varianceOfMedian(after.length)), expected.uncertainty);
    const away = harm === "both" ? Math.abs(off) : off;
    if (normalCdf(away / known) > SURE) return { difference, uncertainty, better, verdict: "better, not as new" };
  }
  return { difference, uncertainty, better, verdict: "proven" };
}
