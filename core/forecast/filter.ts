/**
 * Competing wear paths as a bank of extended Kalman filters with soft change points.
 *
 * A hypothesis is a regime of wear (regime.ts), a time scale, a level of reading noise and a history of
 * changes of rate and of steps. Its state is (z, drift, a, b): place on the path, rate per hour, and the two
 * exponents of the leakage correction, so that correction and trend share their doubt. Readings enter
 * in log space: y = ln s(z) + a·ln(p/p_ref) − b·ln(μ/μ_ref) + noise, with a heavy second component
 * for outliers. A hypothesis weighs its prior times its one-step predictive likelihoods.
 */
import { regimes, type Regime } from "./regime";
import { lnIndicator, lnIndicatorSlope, toPath, type WearPath } from "./wearPath";
import type { WearPrior } from "./prior";

export interface FilterReading {
  /** Running hours. */
  hours: number;
  /** ln of the reading over the life's as-new level. */
  y: number;
  lnPressure: number;
  lnViscosity: number;
  /** Relative standard uncertainty of the instrument. */
  u: number;
}

interface OddReading {
  index: number;
  probability: number;
  earlier: OddReading | null;
}

export class Hypothesis {
  z = 0;
  d = 0;
  a = 1;
  b = 1;
  pzz = 0; pzd = 0; pza = 0; pzb = 0;
  pdd = 0; pda = 0; pdb = 0;
  paa = 0; pab = 0; pbb = 0;
  logWeight = 0;
  /** Running hours of the last change of rate; -1: none. */
  changedAt = -1;
  /** Running hours of the last step of the level; -1: none. */
  steppedAt = -1;
  /** Readings that this hypothesis takes for outliers, newest first, shared with its ancestors. */
  odd: OddReading | null = null;

  constructor(
    readonly regime: Regime,
    /** z at the limit. */
    readonly zLimit: number,
    /** Running hours from as new to the limit that this hypothesis starts from. */
    readonly timeScale: number,
    /** Variance of z per hour of the path's clock. */
    readonly q: number,
    /** Variance of a reading, log units. */
    readonly r: number,
    /** Rate expected before any reading, z per hour of the clock. */
    readonly driftMean: number,
  ) {}

  get path(): WearPath {
    return this.regime.path;
  }

  child(): Hypothesis {
    const c = new Hypothesis(this.regime, this.zLimit, this.timeScale, this.q, this.r, this.driftMean);
    c.z = this.z; c.d = this.d; c.a = this.a; c.b = this.b;
    c.pzz = this.pzz; c.pzd = this.pzd; c.pza = this.pza; c.pzb = this.pzb;
    c.pdd = this.pdd; c.pda = this.pda; c.pdb = this.pdb;
    c.paa = this.paa; c.pab = this.pab; c.pbb = this.pbb;
    c.logWeight = this.logWeight;
    c.changedAt = this.changedAt;
    c.steppedAt = this.steppedAt;
    c.odd = this.odd;
    return c;
  }

  /** From here on another rate: wider than before, centred between the old rate and the prior's. */
  changeRate(hours: number): void {
    const base = Math.max(this.d, NEW_RATE_FLOOR * this.driftMean);
    const grown = NEW_RATE_MEAN * base;
    this.pzd *= 0.5; this.pda *= 0.5; this.pdb *= 0.5;
    this.pdd = 0.25 * this.pdd + (NEW_RATE_SPREAD * base) ** 2;
    this.d = grown;
    this.changedAt = hours;
  }

  /** The level itself has jumped: something was altered, or broke. */
  jump(hours: number): void {
    this.pzz += (STEP_SHARE * this.zLimit) ** 2;
    this.steppedAt = hours;
  }

  /** Go on by `dt` hours of the path's clock. */
  advance(dt: number): void {
    this.z += this.d * dt;
    this.pzz += dt * (2 * this.pzd + dt * this.pdd) + this.q * dt;
    this.pzd += dt * this.pdd;
    if (this.regime.turn > 0) this.turn(dt);
    this.pza += dt * this.pda;
    this.pzb += dt * this.pdb;
  }

  /** Doubt of a rate that walks at random: an integrated random walk. */
  private turn(dt: number): void {
    const q = (this.regime.turn * Math.max(this.d, TURNING_FLOOR * this.driftMean)) ** 2 / this.timeScale;
    this.pzz += (q * dt ** 3) / 3;
    this.pzd += (q * dt * dt) / 2;
    this.pdd += q * dt;
  }

  /** Take in a reading. Adds its predictive log likelihood to the weight. */
  update(reading: FilterReading, index: number): void {
    const { lambda } = this.path;
    const g = lnIndicatorSlope(this.z, lambda);
    const ha = reading.lnPressure;
    const hb = -reading.lnViscosity;
    const e = reading.y - (lnIndicator(this.z, lambda) + this.a * ha + this.b * hb);
    const vz = this.pzz * g + this.pza * ha + this.pzb * hb;
    const vd = this.pzd * g + this.pda * ha + this.pdb * hb;
    const va = this.pza * g + this.paa * ha + this.pab * hb;
    const vb = this.pzb * g + this.pab * ha + this.pbb * hb;
    const r = this.r + reading.u * reading.u;
    const s1 = g * vz + ha * va + hb * vb + r;
    const s2 = s1 + OUTLIER_VARIANCE * r + OUTLIER_FLOOR;
    const l1 = (1 - OUTLIER_SHARE) * Math.exp((-0.5 * e * e) / s1) / Math.sqrt(s1);
    const l2 = (OUTLIER_SHARE * Math.exp((-0.5 * e * e) / s2)) / Math.sqrt(s2);
    const total = l1 + l2;
    const w = total > 0 ? l1 / total : 0;
    if (w < 1 - NOTED_OUTLIER) this.odd = { index, probability: 1 - w, earlier: this.odd };
    this.logWeight += Math.log(total > 1e-300 ? total : 1e-300);
    const gain = w / s1 + (1 - w) / s2;
    const step = gain * e;
    const spread = w * (1 - w) * (1 / s1 - 1 / s2) ** 2 * e * e - gain;
    this.z += step * vz;
    this.d += step * vd;
    this.a += step * va;
    this.b += step * vb;
    this.pzz += spread * vz * vz; this.pzd += spread * vz * vd; this.pza += spread * vz * va; this.pzb += spread * vz * vb;
    this.pdd += spread * vd * vd; this.pda += spread * vd * va; this.pdb += spread * vd * vb;
    this.paa += spread * va * va; this.pab += spread * va * vb; this.pbb += spread * vb * vb;
    if (this.pzz < 1e-12) this.pzz = 1e-12;
    if (this.pdd < 0) this.pdd = 0;
  }
}

const OUTLIER_SHARE = 0.03;
const OUTLIER_VARIANCE = 24;
const OUTLIER_FLOOR = 0.06;
/** Smaller chances of being an outlier are not kept. */
const NOTED_OUTLIER = 0.05;
/** Hypotheses kept: many while readings say little, then fewer. */
const EARLY_BEAM = 400;
const EARLY_READINGS = 8;
const LATE_BEAM = 120;
const beamAt = (k: number) => Math.max(LATE_BEAM, EARLY_BEAM * Math.min(1, EARLY_READINGS / (k + 1)));
/** Of those kept, this share, the best, may change its rate or take a step at the next reading. */
const FORKING = 0.25;
const NEGLIGIBLE = Math.log(1e-5);
const EXPONENT_SD = 0.3;
/** A rate that turns is doubted as if it were at least this share of the usual rate. */
const TURNING_FLOOR = 0.3;
/** Rate of a part in which nothing wears yet, share of the usual rate. */
const DORMANT_SD = 0.05;
/** Doubt of the as-new level before any reading, ln units. */
const START_SD = 0.2;
/** Spread of a sudden step of the level, share of the way from as new to the limit. */
const STEP_SHARE = 0.7;
/** Prior chance of a step between two readings. */
const STEP_CHANCE = 0.001;
const LN_STEP = Math.log(STEP_CHANCE);

/** Doubt of the rate as new, share of the usual one. */
const RATE_SD = 0.5;
const NOISE_LEVELS = [0.7, 1.4] as const;
/** The rate after a change, over the rate before: mean and spread of what is more often faster than slower. */
export const NEW_RATE_MEAN = 1.8;
export const NEW_RATE_SPREAD = 1.6;
/** A change of rate starts from at least this share of the rate expected as new. */
export const NEW_RATE_FLOOR = 0.8;

export interface FilterResult {
  /** Hypotheses with their weights, which sum to one. */
  hypotheses: Hypothesis[];
  weights: number[];
  /** For every reading: probability that it is an outlier, seen from the last one, and the filtered ln s after it. */
  outlier: number[];
  level: number[];
}

/** Chance that dirt in the oil has changed the rate of a part (common practice: about every second one suffers). */
export const DIRT_CHANGES = 0.5;

/** Chance of a change of rate between two readings. */
function hazardOf(h: Hypothesis, prior: WearPrior, from: number, to: number): number {
  const usual = Math.min(0.3, 1 - Math.exp((-h.regime.changes * (to - from)) / h.timeScale));
  return prior.dirtAt !== undefined && prior.dirtAt >= from && prior.dirtAt < to ? Math.max(usual, DIRT_CHANGES) : usual;
}

/** One hypothesis for every regime, time scale and reading noise, before any reading; the weights sum to one. */
export function startBank(lnLimit: number, prior: WearPrior, corrected: boolean): Hypothesis[] {
  const bank: Hypothesis[] = [];
  const ratio = Math.exp(prior.spread);
  const scales = [{ factor: 1 / ratio, share: 0.3 }, { factor: 1, share: 0.4 }, { factor: ratio, share: 0.3 }];
  for (const regime of regimes) {
    const { path } = regime;
    const zLimit = toPath(Math.exp(lnLimit), path.lambda);
    const usual = prior.regimes?.[regime.id] ?? regime.prior;
    for (const { factor, share } of scales) {
      const timeScale = prior.timeScale * factor;
      const rate = zLimit / timeScale;
      for (const noise of NOISE_LEVELS) {
        const h = new Hypothesis(regime, zLimit, timeScale, (regime.wander * zLimit) ** 2 / timeScale, (noise * prior.noise) ** 2, rate);
        h.d = regime.dormant ? 0 : rate;
        h.pzz = START_SD ** 2;
        h.pdd = (regime.dormant ? DORMANT_SD * rate : RATE_SD * rate) ** 2;
        if (corrected) h.paa = h.pbb = EXPONENT_SD ** 2;
        h.logWeight = Math.log((usual * share) / NOISE_LEVELS.length);
        bank.push(h);
      }
    }
  }
  return bank;
}

/**
 * Run the bank over the readings of one life (in time order).
 * @param lnLimit ln of the limit over the as-new level, above 0.
 * @param newAt running hours at which the part was new, not after the first reading.
 * @param corrected true when the exponents are unknowns; false: readings need no correction.
 */
export function runFilter(readings: readonly FilterReading[], lnLimit: number, prior: WearPrior, corrected: boolean, newAt = readings[0]?.hours ?? 0): FilterResult {
  let bank = startBank(lnLimit, prior, corrected);
  const level: number[] = [];
  let weights: number[] = [];
  readings.forEach((reading, k) => {
    const dt = k === 0 ? 0 : Math.max(0, reading.hours - readings[k - 1]!.hours);
    if (dt > 0) {
      const old = bank.length;
      for (let i = 0; i < Math.min(FORKING * beamAt(k), old); i++) {
        const bent = bank[i]!.child();
        bent.changeRate(readings[k - 1]!.hours);
        bent.logWeight += Math.log(hazardOf(bent, prior, readings[k - 1]!.hours, reading.hours));
        const stepped = bank[i]!.child();
        stepped.jump(reading.hours);
        stepped.logWeight += LN_STEP;
        bank.push(bent, stepped);
      }
      for (let i = 0; i < old; i++) bank[i]!.logWeight += Math.log(1 - hazardOf(bank[i]!, prior, readings[k - 1]!.hours, reading.hours) - STEP_CHANCE);
      for (const h of bank) h.advance(h.path.clock.at(reading.hours - newAt, h.timeScale) - h.path.clock.at(readings[k - 1]!.hours - newAt, h.timeScale));
    }
    for (const h of bank) h.update(reading, k);
    bank.sort((p, q) => q.logWeight - p.logWeight);
    const best = bank[0]!.logWeight;
    bank = bank.filter((h, i) => i < beamAt(k) && h.logWeight - best > NEGLIGIBLE);
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
  });
  const outlier = readings.map(() => 0);
  bank.forEach((h, i) => {
    for (let odd = h.odd; odd; odd = odd.earlier) outlier[odd.index] = Math.min(1, outlier[odd.index]! + weights[i]! * odd.probability);
  });
  return { hypotheses: bank, weights, outlier, level };
}
