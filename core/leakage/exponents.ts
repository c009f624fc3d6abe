/**
 * The exponents of the leakage correction learned from a component's own readings, shrunk towards
 * laminar (1). Model: ln Q = c + g·t + a·ln(p/p_ref) − b·ln(μ/μ_ref) + e, ridge priors a, b ~ N(1, 0.3²).
 * The slope g over time keeps slow wear from being taken for a seasonal effect.
 */
import { solveSymmetric } from "../trend/linear";

export interface ExponentReading {
  /** Time, any unit. */
  time: number;
  lnFlow: number;
  /** ln(p/p_ref) */
  lnPressure: number;
  /** ln(μ/μ_ref) */
  lnViscosity: number;
}

export interface LearnedExponents {
  a: number;
  b: number;
  /** Standard uncertainties; the prior's 0.3 when nothing could be learned. */
  ua: number;
  ub: number;
  /** Readings that they were learned from; 0: laminar assumed. */
  readings: number;
}

const PRIOR_SD = 0.3;
const FEWEST = 8;

/**
 * Learn a and b. Fewer than 8 readings, or readings without spread, leave them at 1 with the prior's
 * uncertainty. Outliers are weighted down by two rounds of Huber weights.
 */
export function learnExponents(readings: readonly ExponentReading[], noiseFloor = 0.02): LearnedExponents {
  const n = readings.length;
  if (n < FEWEST) return { a: 1, b: 1, ua: PRIOR_SD, ub: PRIOR_SD, readings: 0 };
  const t0 = readings[0]!.time;
  const span = Math.max(1e-9, readings[n - 1]!.time - t0);
  const rows = readings.map((r) => [
    1,
    (r.time - t0) / span,
    ((r.time - t0) / span) ** 2,
    r.lnPressure,
    -r.lnViscosity,
  ]);
  const y = readings.map((r) => r.lnFlow);
  let weights = readings.map(() => 1);
  let sigma = 0.1;
  let solution = { x: [0, 0, 0, 1, 1], inverse: [] as number[][] };
  for (let round = 0; round < 4; round++) {
    const precision = 1 / sigma ** 2;
    const normal = Array.from({ length: 5 }, () => Array<number>(5).fill(0));
    const right = Array<number>(5).fill(0);
    rows.forEach((row, i) => {
      const w = weights[i]! * precision;
      for (let j = 0; j < 5; j++) {
        right[j]! += w * row[j]! * y[i]!;
        for (let k = 0; k < 5; k++) normal[j]![k]! += w * row[j]! * row[k]!;
      }
    });
    for (const j of [0, 1, 2]) normal[j]![j]! += 1e-9;
    for (const j of [3, 4]) {
      normal[j]![j]! += 1 / PRIOR_SD ** 2;
      right[j]! += 1 / PRIOR_SD ** 2;
    }
    solution = solveSymmetric(normal, right);
    const residuals = rows.map((row, i) => y[i]! - row.reduce((sum, v, j) => sum + v * solution.x[j]!, 0));
    const sorted = residuals.map(Math.abs).sort((p, q) => p - q);
    sigma = Math.max(noiseFloor, 1.4826 * sorted[Math.floor(n / 2)]!);
    weights = residuals.map((r) => Math.min(1, (2 * sigma) / Math.max(1e-12, Math.abs(r))));
  }
  return {
    a: solution.x[3]!,
    b: solution.x[4]!,
    ua: Math.sqrt(Math.max(0, solution.inverse[3]![3]!)),
    ub: Math.sqrt(Math.max(0, solution.inverse[4]![4]!)),
    readings: n,
  };
}
