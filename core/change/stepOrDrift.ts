/**
 * Has a series stayed, jumped or drifted? Three descriptions compete by the Bayesian information criterion:
 * a constant, a step at the best place, a straight line. Schwarz, Annals of Statistics 6 (1978).
 */
export interface ChangeShape {
  kind: "none" | "step" | "drift";
  /** Index of the first value after the step; null unless a step. */
  at: number | null;
  /** Size of the step, or change of the line over the whole series; unit of the values. */
  size: number;
  /** Weight of each description, sums to one. */
  weights: { none: number; step: number; drift: number };
}

/**
 * Which shape explains a change best: none, a step at one moment, or a drift, weighed by BIC.
 * @param times in rising order, any unit
 * @param values at those times, at least 6
 * @throws {RangeError} for fewer than 6 values or values and times of different length.
 */
export function stepOrDrift(times: readonly number[], values: readonly number[]): ChangeShape {
  const n = values.length;
  if (n < 6 || times.length !== n) throw new RangeError("At least 6 values with their times are needed.");
  const mean = (from: number, to: number) => values.slice(from, to).reduce((s, v) => s + v, 0) / (to - from);
  const squares = (from: number, to: number, m: number) => values.slice(from, to).reduce((s, v) => s + (v - m) ** 2, 0);
  const all = mean(0, n);
  const flat = squares(0, n, all);
  let step = { at: 2, residual: Infinity, size: 0 };
  for (let at = 2; at <= n - 2; at++) {
    const [a, b] = [mean(0, at), mean(at, n)];
    const residual = squares(0, at, a) + squares(at, n, b);
    if (residual < step.residual) step = { at, residual, size: b - a };
  }
  const meanTime = times.reduce((s, t) => s + t, 0) / n;
  const sxx = times.reduce((s, t) => s + (t - meanTime) ** 2, 0);
  const slope = sxx > 0 ? times.reduce((s, t, i) => s + (t - meanTime) * (values[i]! - all), 0) / sxx : 0;
  const line = values.reduce((s, v, i) => s + (v - all - slope * (times[i]! - meanTime)) ** 2, 0);
  const floor = 1e-12 * Math.max(1e-300, flat) + 1e-300;
  // the best of many places is chosen: it counts as two parameters, since one lets noise pass for a step
  const bic = (residual: number, parameters: number) =>
    n * Math.log(Math.max(residual, floor) / n) + parameters * Math.log(n);
  const scores = { none: bic(flat, 1), step: bic(step.residual, 4), drift: bic(line, 2) };
  const best = Math.min(...Object.values(scores));
  const raw = {
    none: Math.exp((best - scores.none) / 2),
    step: Math.exp((best - scores.step) / 2),
    drift: Math.exp((best - scores.drift) / 2),
  };
  const total = raw.none + raw.step + raw.drift;
  const weights = { none: raw.none / total, step: raw.step / total, drift: raw.drift / total };
  const kind = (Object.keys(weights) as ChangeShape["kind"][]).reduce((p, q) => (weights[q] > weights[p] ? q : p));
  return {
    kind,
    at: kind === "step" ? step.at : null,
    size: kind === "step" ? step.size : kind === "drift" ? slope * (times[n - 1]! - times[0]!) : 0,
    weights,
  };
}
