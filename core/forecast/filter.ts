/**
 * Competing wear paths as a bank of extended Kalman filters with soft change points.
 *
 * A hypothesis is a regime of wear (regime.ts), a time scale, a level of reading noise and a history of
 * changes of rate and of steps. Its state is (z, drift, a, b): place on the path, rate per hour, and the two
 * exponents of the leakage correction, so that correction and trend share their doubt. Readings enter
 * in log space: y = ln s(z) + a·ln(p/p_ref) − b·ln(μ/μ_ref) + noise, with a heavy second component
 * for outliers. A hypothesis weighs its prior times its one-step predictive likelihoods.
 */
import { normalCdf } from "../numeric/normal";
import { startBank } from "./bank";
import type { FilterReading, Hypothesis } from "./hypothesis";
import type { WearPrior } from "./prior";
import type { Regime } from "./regime";
import { lnIndicator } from "./wearPath";

/** Hypotheses kept: many while readings say little, then fewer. */
const EARLY_BEAM = 400;
const EARLY_READINGS = 8;
const LATE_BEAM = 40;
const beamAt = (k: number, width: number) =>
  width * Math.max(LATE_BEAM, EARLY_BEAM * Math.min(1, EARLY_READINGS / (k + 1)));
/** Of those kept, this share, the best, may change its rate or take a step at the next reading. */
const FORKING = 0.25;
const NEGLIGIBLE = Math.log(1e-4);
/** Only of what is not so much unlikelier than the best: what changes or steps is unlikelier still. */
const FORKED = Math.log(1e-3);
/** Of a chance over the whole bank smaller shares than this say nothing. */
const LEAST_SHARE = 1e-3;
/** Prior chance of a step between two readings. */
const STEP_CHANCE = 0.004;
const LN_STEP = Math.log(STEP_CHANCE);
/** One odd reading suits an outlier better: so many of the best steps are kept for so many readings all the same. */
const STEPS_KEPT = 6;
const STEP_WAITS = 3;

export interface FilterResult {
  /** Hypotheses with their weights, which sum to one. */
  hypotheses: Hypothesis[];
  weights: number[];
  /** For every reading: probability that it is an outlier, seen from the last one, and the filtered ln s after it. */
  outlier: number[];
  level: number[];
  /** For every reading: ln of the density that the bank gave it before it came. */
  foretold: number[];
  /** After every reading: chance that the rate is fast enough to matter (the limit within five usual lives). */
  rising: number[];
}

/** Chance that dirt in the oil has changed the rate of a part (common practice: about every second one suffers). */
export const DIRT_CHANGES = 0.5;

/** Slowest rate that matters, share of the usual one. */
const SLOWEST_RATE = 0.2;

/** Chance that the rate of a hypothesis matters, at an age in running hours. */
function matters(h: Hypothesis, age: number, timeScale: number): number {
  const slowest = (SLOWEST_RATE * h.zLimit) / timeScale / h.path.clock.pace(age, h.timeScale);
  return normalCdf((h.d - slowest) / Math.sqrt(Math.max(1e-30, h.pdd)));
}

const sumOf = (bank: readonly Hypothesis[]) => bank.reduce((sum, h) => sum + Math.exp(h.logWeight), 0);

interface Step {
  /** How far the clock of the path goes on. */
  clock: number;
  /** ln of the chance that the rate changes, and that nothing happens. */
  lnChange: number;
  lnStay: number;
}

/**
 * What happens between two readings by regime and time scale: hundreds of hypotheses share a few dozen of them, and
 * their powers and logarithms had taken a third of the time of a forecast.
 */
function stepsBetween(prior: WearPrior, from: number, to: number, newAt: number): (h: Hypothesis) => Step {
  const known = new Map<Regime, Map<number, Step>>();
  const { contaminatedAt } = prior;
  const dirty = contaminatedAt !== undefined && contaminatedAt >= from && contaminatedAt < to;
  return ({ regime, timeScale }) => {
    let scales = known.get(regime);
    if (!scales) known.set(regime, (scales = new Map<number, Step>()));
    let step = scales.get(timeScale);
    if (!step) {
      const usual = Math.min(0.3, 1 - Math.exp((-regime.changes * (to - from)) / timeScale));
      const hazard = dirty ? Math.max(usual, DIRT_CHANGES) : usual;
      const { clock } = regime.path;
      step = {
        clock: clock.at(to - newAt, timeScale) - clock.at(from - newAt, timeScale),
        lnChange: Math.log(hazard),
        lnStay: Math.log(1 - hazard - STEP_CHANCE),
      };
      scales.set(timeScale, step);
    }
    return step;
  };
}

/**
 * Run the bank over the readings of one life (in time order).
 * @param readings of the life
 * @param lnLimit ln of the limit over the as-new level, above 0.
 * @param prior what peers tell, or the default
 * @param corrected true when the exponents are unknowns; false: readings need no correction.
 * @param newAt running hours at which the part was new, not after the first reading.
 * @param width share of the usual number of hypotheses that is kept, 0 to 1
 */
export function runFilter(
  readings: readonly FilterReading[],
  lnLimit: number,
  prior: WearPrior,
  corrected: boolean,
  newAt = readings[0]?.hours ?? 0,
  width = 1,
): FilterResult {
  let bank = startBank(lnLimit, prior, corrected);
  const level: number[] = [];
  const foretold: number[] = [];
  const rising: number[] = [];
  let weights: number[] = [];
  readings.forEach((reading, k) => {
    const dt = k === 0 ? 0 : Math.max(0, reading.hours - readings[k - 1]!.hours);
    if (dt > 0) {
      const old = bank.length;
      const from = readings[k - 1]!.hours;
      const stepOf = stepsBetween(prior, from, reading.hours, newAt);
      const forking = FORKING * beamAt(k, width);
      for (let i = 0; i < old; i++) {
        const h = bank[i]!;
        const step = stepOf(h);
        if (i < forking && h.logWeight > FORKED) {
          const bent = h.child();
          bent.changeRate(from);
          bent.logWeight += step.lnChange;
          const stepped = h.child();
          stepped.jump(reading.hours);
          stepped.logWeight += LN_STEP;
          bent.advance(step.clock);
          stepped.advance(step.clock);
          bank.push(bent, stepped);
        }
        h.logWeight += step.lnStay;
        h.advance(step.clock);
      }
    }
    const before = sumOf(bank);
    for (const h of bank) h.update(reading, k);
    foretold.push(Math.log(sumOf(bank)) - Math.log(before));
    let best = -Infinity;
    for (const h of bank) best = Math.max(best, h.logWeight);
    const since = readings[Math.max(0, k - STEP_WAITS)]!.hours;
    const most = beamAt(k, width);
    let waiting = 0;
    // most of what forked is negligible: what is dropped is not sorted
    bank = bank
      .filter((h) => h.logWeight - best > NEGLIGIBLE)
      .sort((p, q) => q.logWeight - p.logWeight)
      .filter((h, i) => i < most || (h.steppedAt >= since && waiting++ < STEPS_KEPT));
    let total = 0;
    weights = bank.map((h) => {
      h.logWeight -= best;
      const w = Math.exp(h.logWeight);
      total += w;
      return w;
    });
    let lnS = 0;
    for (let i = 0; i < bank.length; i++) lnS += (weights[i]! /= total) * lnIndicator(bank[i]!.z, bank[i]!.path.lambda);
    level.push(lnS);
    let [chance, share] = [0, 0];
    for (let i = 0; i < bank.length && (i === 0 || weights[i]! > LEAST_SHARE); i++) {
      chance += weights[i]! * matters(bank[i]!, reading.hours - newAt, prior.timeScale);
      share += weights[i]!;
    }
    rising.push(chance / share);
  });
  const outlier = readings.map(() => 0);
  bank.forEach((h, i) => {
    for (let odd = h.odd; odd; odd = odd.earlier)
      outlier[odd.index] = Math.min(1, outlier[odd.index]! + weights[i]! * odd.probability);
  });
  return { hypotheses: bank, weights, outlier, level, foretold, rising };
}
