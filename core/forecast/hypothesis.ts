/** One hypothesis of the bank: a regime of wear with its state (z, drift, a, b), an extended Kalman filter. */
import type { Regime } from "./regime";
import { lnIndicator, lnIndicatorSlope, toPath, type WearPath } from "./wearPath";

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
  pzz = 0;
  pzd = 0;
  pza = 0;
  pzb = 0;
  pdd = 0;
  pda = 0;
  pdb = 0;
  paa = 0;
  pab = 0;
  pbb = 0;
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
    c.z = this.z;
    c.d = this.d;
    c.a = this.a;
    c.b = this.b;
    c.pzz = this.pzz;
    c.pzd = this.pzd;
    c.pza = this.pza;
    c.pzb = this.pzb;
    c.pdd = this.pdd;
    c.pda = this.pda;
    c.pdb = this.pdb;
    c.paa = this.paa;
    c.pab = this.pab;
    c.pbb = this.pbb;
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
    this.pzd *= 0.5;
    this.pda *= 0.5;
    this.pdb *= 0.5;
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
    const ha = reading.lnPressure;
    const hb = -reading.lnViscosity;
    const rest = reading.y - this.a * ha - this.b * hb;
    // a level that has just jumped is wide open: the reading, not the level before it, says where to linearise
    const about = this.steppedAt === reading.hours ? toPath(Math.exp(rest), lambda) : this.z;
    const g = lnIndicatorSlope(about, lambda);
    const e = rest - (lnIndicator(about, lambda) + g * (this.z - about));
    const vz = this.pzz * g + this.pza * ha + this.pzb * hb;
    const vd = this.pzd * g + this.pda * ha + this.pdb * hb;
    const va = this.pza * g + this.paa * ha + this.pab * hb;
    const vb = this.pzb * g + this.pab * ha + this.pbb * hb;
    const r = this.r + reading.u * reading.u;
    const s1 = g * vz + ha * va + hb * vb + r;
    const s2 = s1 + OUTLIER_VARIANCE * r + OUTLIER_FLOOR;
    const l1 = ((1 - OUTLIER_SHARE) * Math.exp((-0.5 * e * e) / s1)) / Math.sqrt(s1);
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
    this.pzz += spread * vz * vz;
    this.pzd += spread * vz * vd;
    this.pza += spread * vz * va;
    this.pzb += spread * vz * vb;
    this.pdd += spread * vd * vd;
    this.pda += spread * vd * va;
    this.pdb += spread * vd * vb;
    this.paa += spread * va * va;
    this.pab += spread * va * vb;
    this.pbb += spread * vb * vb;
    if (this.pzz < 1e-12) this.pzz = 1e-12;
    if (this.pdd < 0) this.pdd = 0;
  }
}

const OUTLIER_SHARE = 0.03;
const OUTLIER_VARIANCE = 24;
const OUTLIER_FLOOR = 0.06;
/** Smaller chances of being an outlier are not kept. */
const NOTED_OUTLIER = 0.05;
/** A rate that turns is doubted as if it were at least this share of the usual rate. */
const TURNING_FLOOR = 0.3;
/** Spread of a sudden step of the level, share of the way from as new to the limit. */
const STEP_SHARE = 0.7;

/** The rate after a change, over the rate before: mean and spread of what is more often faster than slower. */
export const NEW_RATE_MEAN = 2.5;
export const NEW_RATE_SPREAD = 3;
/** A change of rate starts from at least this share of the rate expected as new. */
export const NEW_RATE_FLOOR = 0.8;
