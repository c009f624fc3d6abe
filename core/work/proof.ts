/** Before beside after, medians of a few readings: is the difference more than the scatter of both, and is it what the new part should read? */
import { normalCdf } from "../numeric/normal";
import { excess, sidesOf } from "../baseline/margin";
import type { Limits } from "../baseline/limit";
import { median, robustSpread } from "../trend/robust";

export interface Proof {
  /** After minus before. */
  difference: number;
  /** Its standard uncertainty. */
  uncertainty: number;
  /** Chance that it is better now, 0 to 1. */
  better: number;
  verdict: "proven" | "no change seen" | "worse" | "better, not as new";
}

const NONE: Limits = { upper: null, lower: null };

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
 * @param limits where one side lies beyond them, nearer to them is better, whatever is expected; null: none are set
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
  limits: Limits | null = null,
): Proof {
  if (before.length === 0 || after.length === 0) throw new RangeError("both sides need a reading");
  if (!(scatter > 0)) throw new RangeError("the scatter must be above 0");
  const [was, is] = [median([...before]), median([...after])];
  const difference = is - was;
  const uncertainty = scatter * Math.sqrt(varianceOfMedian(before.length) + varianceOfMedian(after.length));
  const beyond = (value: number) =>
    sidesOf(limits ?? NONE).reduce((most, side) => Math.max(most, excess(value, side)), 0);
  // beyond a limit the distance to it tells; else, of a quantity that may be off to both sides, nearer to what is expected is better
  const gain =
    beyond(was) > 0 || beyond(is) > 0
      ? beyond(was) - beyond(is)
      : harm === "rising"
        ? -difference
        : harm === "falling"
          ? difference
          : expected
            ? Math.abs(was - expected.value) - Math.abs(is - expected.value)
            : 0;
  const better = normalCdf(gain / uncertainty);
  if (better <= 1 - SURE) return { difference, uncertainty, better, verdict: "worse" };
  if (better < SURE) return { difference, uncertainty, better, verdict: "no change seen" };
  if (beyond(is) > 0) return { difference, uncertainty, better, verdict: "better, not as new" };
  if (expected && beyond(expected.value) === 0) {
    const off = (is - expected.value) * (harm === "falling" ? -1 : 1);
    const known = Math.hypot(scatter * Math.sqrt(varianceOfMedian(after.length)), expected.uncertainty);
    const away = harm === "both" ? Math.abs(off) : off;
    if (normalCdf(away / known) > SURE) return { difference, uncertainty, better, verdict: "better, not as new" };
  }
  return { difference, uncertainty, better, verdict: "proven" };
}

/** Readings compared on each side. */
const COMPARED = 3;
/** Of one before the newest: so many scatters off, and it tells of another time. */
const AGREES = 3;
/** Readings from which the scatter of a point is told. */
const SCATTER_FROM = 5;
/** Of a reading, where too few were taken to tell: a share of it (common practice for flow and pressure at a machine). */
const USUAL_SCATTER = 0.03;

export interface ProofSides {
  before: number[];
  after: number[];
  /** Standard deviation of one reading. */
  scatter: number;
}

/**
 * Which readings a proof compares: before, the one that condemned the part with those before it that agree with it; after, those
 * since the work began, without the first that still stood beyond a limit where the last does not (read before the part was touched).
 * @param before corrected readings of the part before the work began, in time order
 * @param after corrected readings since then, in time order
 * @param limits core units; null: none are set
 * @returns at most three of each, and how far one reading scatters
 * @example
 * proofSides([2, 2.1, 0.3], [0.3, 2.2], { upper: null, lower: 1.5 }) // { before: [0.3], after: [2.2] }
 */
export function proofSides(before: readonly number[], after: readonly number[], limits: Limits | null): ProofSides {
  const steps = before.slice(1).map((v, i) => (v - before[i]!) / Math.SQRT2);
  const condemned = before.at(-1) ?? 0;
  const own = before.length >= SCATTER_FROM ? robustSpread(steps) : 0;
  const scatter = Math.max(own, USUAL_SCATTER * Math.abs(condemned), Number.EPSILON);
  const last = before.slice(-COMPARED);
  const apart = last.findLastIndex((v) => Math.abs(v - condemned) > AGREES * scatter);
  const isBeyond = (v: number) => sidesOf(limits ?? NONE).some((side) => excess(v, side) > 0);
  const within = after.length > 0 && !isBeyond(after.at(-1)!);
  const since = within ? after.slice(after.findLastIndex(isBeyond) + 1) : after;
  return { before: last.slice(apart + 1), after: since.slice(0, COMPARED), scatter };
}

/** Readings of the part before that tell how it was when new; it must have twice as many in all. */
const AS_NEW = 5;

/**
 * What a part should read after work on it: the manufacturer's value of a new one, else what the circuit's model shows, else what
 * the part before it read when it was new.
 * @param known the manufacturer's value and the model's, in the point's unit, null where there is none; readings before, corrected,
 * in time order; whether the part was renewed, so that it is as new
 * @returns the value and on what it rests; null: nothing tells it
 * @throws {never}
 * @example expectedAfter({ makersNew: 1.8, model: 2, before: [], renewed: false }).basis // "manufacturer’s value"
 */
export function expectedAfter({
  makersNew,
  model,
  before,
  renewed,
}: {
  makersNew: number | null;
  model: number | null;
  before: readonly number[];
  renewed: boolean;
}): { value: number; basis: string } | null {
  if (makersNew !== null) return { value: makersNew, basis: "manufacturer’s value" };
  if (model !== null) return { value: model, basis: "the circuit’s model" };
  return renewed && before.length >= 2 * AS_NEW
    ? { value: median(before.slice(0, AS_NEW)), basis: "the part before, when it was new" }
    : null;
}

/**
 * Is work proven? By the point that condemned the part where there is one, else by any of its points.
 * @param compared points of the part with what their readings prove; null: one side was not read
 * @param pointId the point that condemned it; null: none
 * @returns null: nothing that counts was read since
 * @throws {never}
 * @example isProven([{ pointId: "a", proof: null }], null) // null
 */
export function isProven(
  compared: readonly { pointId: string; proof: Pick<Proof, "verdict"> | null }[],
  pointId: string | null,
): boolean | null {
  const told = compared.flatMap((c) => (c.proof && (pointId === null || c.pointId === pointId) ? [c.proof] : []));
  return told.length === 0 ? null : told.some((proof) => proof.verdict === "proven");
}
