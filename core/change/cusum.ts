/** Tabular two-sided CUSUM in units of sigma. Montgomery, Introduction to Statistical Quality Control. */
import { random } from "../random/random";
import { median, robustSpread } from "../trend/robust";

export interface CusumOptions {
  target: number;
  /** Standard deviation of one value, above zero. */
  sigma: number;
  /** Allowance, in sigma; 0.5 sees a shift of one sigma best. */
  k?: number;
  /** Decision interval, in sigma; a signal is strictly above it. */
  h?: number;
}

export interface Cusum {
  upper: number[];
  lower: number[];
  /** Both arms start anew after a signal. `since`: index from which the arm had been climbing. */
  signals: { index: number; arm: "upper" | "lower"; since: number }[];
}

/**
 * Two-sided CUSUM: finds small lasting shifts of a level. Montgomery, Introduction to Statistical Quality Control.
 * @param values in time order
 * @param options target and sigma in the unit of the values, sigma above 0; allowance k and decision interval h in sigma
 * @returns both arms in sigma, and where one went above h; after a signal both start anew
 * @throws {RangeError} when sigma is not above zero.
 * @example cusum([0, 0, 2, 2, 2, 2], { target: 0, sigma: 1 }).signals // [{ index: 5, arm: "upper", since: 2 }]
 */
export function cusum(values: readonly number[], { target, sigma, k = 0.5, h = 5 }: CusumOptions): Cusum {
  if (!(sigma > 0)) throw new RangeError("Sigma must be above zero.");
  let up = 0;
  let down = 0;
  let upSince = 0;
  let downSince = 0;
  const result: Cusum = { upper: [], lower: [], signals: [] };
  values.forEach((value, index) => {
    const z = (value - target) / sigma;
    if (up === 0) upSince = index;
    if (down === 0) downSince = index;
    up = Math.max(0, up + z - k);
    down = Math.max(0, down - z - k);
    result.upper.push(up);
    result.lower.push(down);
    if (up > h || down > h) {
      const arm = up > h ? "upper" : "lower";
      result.signals.push({ index, arm, since: arm === "upper" ? upSince : downSince });
      up = 0;
      down = 0;
    }
  });
  return result;
}

/**
 * Chance that a CUSUM signals within `readings` although nothing changed, when target and sigma were taken
 * from `baseline` readings themselves; Infinity: known. By simulation with a fixed seed.
 */
export function falseAlarmRate({
  readings,
  baseline,
  k = 0.5,
  h = 5,
  runs = 2000,
}: {
  readings: number;
  baseline: number;
  k?: number;
  h?: number;
  runs?: number;
}): number {
  const rng = random(20_261 + readings * 31 + (Number.isFinite(baseline) ? baseline : 0));
  let alarms = 0;
  for (let run = 0; run < runs; run++) {
    let target = 0;
    let sigma = 1;
    if (Number.isFinite(baseline)) {
      const first = Array.from({ length: baseline }, () => rng.normal());
      target = median(first);
      sigma = Math.max(1e-6, robustSpread(first));
    }
    const values = Array.from({ length: readings }, () => rng.normal());
    if (cusum(values, { target, sigma, k, h }).signals.length > 0) alarms++;
  }
  return alarms / runs;
}
