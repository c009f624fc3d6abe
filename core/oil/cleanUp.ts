/** How a tank cleans up: steady state, time to target, a better element or an off-line loop, and measured beside predicted. */
import { cleanUpTime, filterEfficiency, steadyCount, type TankBalance } from "../contamination/filter";

export interface CleanUpPlan {
  /** Ingress that explains the usual count, (1/mL)·(L/min). */
  ingress: number;
  steady: number;
  /** Minutes of running from now to the target; null: never. */
  minutes: number | null;
  /** Running minutes at the target that carry as much dirt through the circuit as the clean-up: what the event costs. Null: never clean. */
  exposure: number | null;
}

/**
 * What cleaning a tank takes: one well-mixed volume, a filter of constant efficiency, constant ingress.
 * @param balance volume in L and flow in L/min above 0, filtration ratio above 1, ingress in (1/mL)·(L/min), 0 or more
 * @param now particles per mL
 * @param target particles per mL, above 0
 * @returns minutes of running, the count that settles, and the dirt that passes meanwhile
 * @throws {RangeError} for a value out of its range
 * @example cleanUpPlan({ volume: 100, flow: 50, beta: 2, ingress: 0 }, 1000, 100) // { steady: 0, minutes: 9.21 }
 */
export function cleanUpPlan(balance: TankBalance, now: number, target: number): CleanUpPlan {
  const steady = steadyCount(balance);
  const minutes = cleanUpTime(balance, now, target);
  return {
    ingress: balance.ingress,
    steady,
    minutes,
    exposure: minutes === null ? null : exposureOf(balance, now, minutes) / target,
  };
}

/** ∫N dt over some minutes, (1/mL)·min: N_s·t + (N_0 − N_s)·τ·(1 − e^(−t/τ)). */
function exposureOf(balance: TankBalance, now: number, minutes: number): number {
  const steady = steadyCount(balance);
  const tau = balance.volume / (balance.flow * filterEfficiency(balance.beta));
  return steady * minutes + (now - steady) * tau * (1 - Math.exp(-minutes / tau));
}

/**
 * Two filters on one tank act as one with the sum of what they take: Q = Q1 + Q2, η = (Q1·η1 + Q2·η2)/Q.
 * @param one flow in L/min above 0, filtration ratio of 1 or more
 * @param other the same
 * @returns flow and filtration ratio of both together
 * @throws {RangeError} for a ratio below 1
 * @example together({ flow: 50, beta: 2 }, { flow: 50, beta: 4 }) // { flow: 100, beta: 2.667 }
 */
export function together(
  one: { flow: number; beta: number },
  other: { flow: number; beta: number },
): { flow: number; beta: number } {
  const flow = one.flow + other.flow;
  const eta = (one.flow * filterEfficiency(one.beta) + other.flow * filterEfficiency(other.beta)) / flow;
  return { flow, beta: 1 / (1 - eta) };
}

export interface CleanUpFit {
  /** Share of the predicted clearing (Q·η/V) that the samples show; 1: as predicted. */
  share: number;
  low: number;
  high: number;
  /** Count that it settles at, as fitted: what comes in while it is watched need not be what usually does. */
  settles: number;
  fitted(minutes: number): number;
}

/** ln scatter of a count (common practice). */
const SCATTER = 0.3;

/**
 * How fast did a tank really clean up? The clearing rate and the level that fit best by least squares on ln counts, with the 90 %
 * profile interval of the rate from the scatter of counts (30 %, common practice).
 * @param balance as predicted, in the units of `cleanUpPlan`
 * @param samples running minutes since the first, counts per mL above 0, in order, at least 4
 * @returns share of the predicted clearing; null when too little was cleaned to tell
 * @throws {RangeError} for fewer than 4 samples.
 * @example
 * const balance = { volume: 100, flow: 50, beta: 2, ingress: 0 };
 * const samples = [0, 3, 6, 9].map((minutes) => ({ minutes, count: countAfter(balance, 1000, minutes) }));
 * fitCleanUp(balance, samples) // { share: 1.018, low: 0.7149, high: 2.063, settles: 5.27 }
 */
export function fitCleanUp(
  balance: TankBalance,
  samples: readonly { minutes: number; count: number }[],
): CleanUpFit | null {
  if (samples.length < 4) throw new RangeError("At least 4 samples are needed.");
  const least = Math.min(...samples.map((s) => s.count));
  const rate = (balance.flow * filterEfficiency(balance.beta)) / balance.volume;
  const starts = [0.7, 0.85, 1, 1.2, 1.45].map((f) => f * samples[0]!.count);
  if (samples[0]!.count < least * 1.5) return null;
  const levels = [0, ...Array.from({ length: 24 }, (_, i) => least * (0.05 + (i * 1.3) / 23))];
  const at = (share: number, start: number, level: number, minutes: number) =>
    level + (start - level) * Math.exp(-rate * share * minutes);
  const errorOf = (share: number) => {
    let best = { error: Infinity, level: 0, start: 0 };
    for (const start of starts)
      for (const level of levels) {
        const error = samples.reduce(
          (sum, s) =>
            sum +
            (Math.log(Math.max(s.count, 0.01)) - Math.log(Math.max(at(share, start, level, s.minutes), 0.01))) ** 2,
          0,
        );
        if (error < best.error) best = { error, level, start };
      }
    return { share, ...best };
  };
  const tried = Array.from({ length: 121 }, (_, i) => errorOf(Math.exp(Math.log(0.02) + (i * Math.log(200)) / 120)));
  const best = tried.reduce((p, q) => (q.error < p.error ? q : p));
  const inside = tried.filter((t) => t.error - best.error <= 2.706 * SCATTER ** 2);
  return {
    share: best.share,
    low: inside[0]!.share,
    high: inside.at(-1)!.share,
    settles: best.level,
    fitted: (minutes) => at(best.share, best.start, best.level, minutes),
  };
}
