/**
 * What the scorecard teaches: where too few lives of a kind crossed between P10 and P90, forecasts of that kind are drawn
 * wider about their middle, by the least factor with which the past ones would have held.
 */
import { scorecard, type IssuedForecast } from "./scorecard";

/** Lives that crossed before anything is learned: fewer say too little. */
export const FEWEST_TO_LEARN = 8;
/** Share that should come between P10 and P90. */
const HELD = 0.8;
/** Factors that are tried, in the logarithm of the time left. */
const FACTORS = [1.15, 1.3, 1.5, 1.75, 2, 2.4, 3];

/** A moment moved away from the middle, by the logarithm of the time left. */
export function widenedAt(at: number, middle: number, from: number, factor: number): number {
  const [left, usual] = [at - from, middle - from];
  return left <= 0 || usual <= 0 ? at : from + usual * (left / usual) ** factor;
}

/** A forecast drawn wider about its P50. One without a P50 stays as it is. */
function widened(f: IssuedForecast, factor: number): IssuedForecast {
  const { p50, issuedAt } = f;
  if (p50 === null) return f;
  const move = (at: number | null) => (at === null ? null : widenedAt(at, p50, issuedAt, factor));
  return { ...f, p10: move(f.p10), p90: move(f.p90) };
}

/**
 * By how much forecasts of one kind are to be widened, so that the past ones would have held their 80 %.
 * @param issued forecasts of that kind with what came, epoch ms
 * @returns a factor of 1 to 3 on the logarithm of the time left over its middle; 1 where they held, or fewer than 8 lives crossed
 * @example
 * const late = [..."abcdefgh"].map((life) => (
 *   { life, issuedAt: 0, p10: 100, p50: 200, p90: 300, outcome: { at: 500, crossed: true } }
 * ));
 * wideningOf(late) // 2.4
 */
export function wideningOf(issued: readonly IssuedForecast[]): number {
  const { crossed, covered } = scorecard(issued);
  if (crossed < FEWEST_TO_LEARN || !covered || covered.share >= HELD) return 1;
  const enough = FACTORS.find((k) => scorecard(issued.map((f) => widened(f, k))).covered!.share >= HELD);
  return enough ?? FACTORS.at(-1)!;
}

/**
 * Quantiles of the crossing drawn wider about their middle; those beyond the forecast stay beyond.
 * @param crossings ascending, epoch ms; null: beyond
 * @param now when the forecast was made, epoch ms
 * @param factor 1 or more, from `wideningOf`
 * @returns as many moments, epoch ms
 * @example widenCrossings([100, 200, 400, null], 0, 2) // [25, 100, 400, null]
 */
export function widenCrossings(crossings: readonly (number | null)[], now: number, factor: number): (number | null)[] {
  const middle = crossings[Math.floor(crossings.length / 2)] ?? null;
  if (factor === 1 || middle === null) return [...crossings];
  return crossings.map((at) => (at === null ? null : widenedAt(at, middle, now, factor)));
}
