/** How a tank cleans up: steady state, time to target, a better element or an off-line loop, and measured beside predicted. */
import { cleanUpTime, countAfter, filterEfficiency, steadyCount, type TankBalance } from "../contamination/filter";

export interface CleanUpPlan {
  /** Ingress that explains the usual count, (1/mL)·(L/min). */
  ingress: number;
  steady: number;
  /** Minutes of running from now to the target; null: never. */
  minutes: number | null;
  /** Running minutes at the target that carry as much dirt through the circuit as the clean-up: what the event costs. Null: never clean. */
  exposure: number | null;
}

/** Plan for a balance: from a count now to a target, both per mL. */
export function cleanUpPlan(balance: TankBalance, now: number, target: number): CleanUpPlan {
  const steady = steadyCount(balance);
  const minutes = cleanUpTime(balance, now, target);
  return { ingress: balance.ingress, steady, minutes, exposure: minutes === null ? null : exposureOf(balance, now, minutes) / target };
}

/** ∫N dt over some minutes, (1/mL)·min: N_s·t + (N_0 − N_s)·τ·(1 − e^(−t/τ)). */
function exposureOf(balance: TankBalance, now: number, minutes: number): number {
  const steady = steadyCount(balance);
  const tau = balance.volume / (balance.flow * filterEfficiency(balance.beta));
  return steady * minutes + (now - steady) * tau * (1 - Math.exp(-minutes / tau));
}

/** Two filters on one tank act as one with the sum of what they take: Q = Q1 + Q2, η = (Q1·η1 + Q2·η2)/Q. */
export function together(one: { flow: number; beta: number }, other: { flow: number; beta: number }): { flow: number; beta: number } {
  const flow = one.flow + other.flow;
  const eta = (one.flow * filterEfficiency(one.beta) + other.flow * filterEfficiency(other.beta)) / flow;
  return { flow, beta: 1 / (1 - eta) };
}

export interface CleanUpFit {
  /** Share of the predicted clearing (Q·η/V) that the samples show; 1: as predicted. */
  share: number;
  low: number;
  high: number;
  predicted: { minutes: number; count: number }[];
}

/** ln scatter of a count (common practice). */
const SCATTER = 0.3;

/**
 * How fast did it really clean up? Samples (running minutes since the first, count per mL, in order, at least 3)
 * against the balance: the clearing rate that fits best by least squares on ln counts, with its 90 % interval from the
 * scatter of counts. Null when too little was cleaned to tell. @throws RangeError for fewer than 3 samples.
 */
export function fitCleanUp(balance: TankBalance, samples: readonly { minutes: number; count: number }[]): CleanUpFit | null {
  if (samples.length < 3) throw new RangeError("At least 3 samples are needed.");
  const start = samples[0]!.count;
  const steady = steadyCount(balance);
  if (start < steady * 1.5) return null;
  const errorOf = (share: number) => {
    // ingress is held, so the level that it settles at moves with the clearing rate
    const slowed = { ...balance, flow: balance.flow * share };
    return samples.slice(1).reduce((sum, s) => sum + (Math.log(Math.max(s.count, 0.01)) - Math.log(Math.max(countAfter(slowed, start, s.minutes), 0.01))) ** 2, 0);
  };
  const shares = Array.from({ length: 161 }, (_, i) => Math.exp(Math.log(0.02) + (i * Math.log(200)) / 160));
  const errors = shares.map(errorOf);
  const best = Math.min(...errors);
  const inside = shares.filter((_, i) => errors[i]! - best <= 2.706 * SCATTER ** 2 * 2);
  return {
    share: shares[errors.indexOf(best)]!, low: inside[0]!, high: inside.at(-1)!,
    predicted: samples.map((s) => ({ minutes: s.minutes, count: countAfter(balance, start, s.minutes) })),
  };
}

