/** Draws from the bank: which hypothesis, where it stands, and when it crosses the limit. */
import type { random } from "../random/random";
import { drawFirstPassage } from "./firstPassage";
import { NEW_RATE_FLOOR, NEW_RATE_MEAN, NEW_RATE_SPREAD, type Hypothesis } from "./hypothesis";

export type Rng = ReturnType<typeof random>;

/** The same mean and spread of a new rate as the filter's, as a lognormal. */
const NEW_RATE_LN_SD = Math.sqrt(Math.log(1 + (NEW_RATE_SPREAD / NEW_RATE_MEAN) ** 2));
const NEW_RATE_LN_MEAN = Math.log(NEW_RATE_MEAN) - NEW_RATE_LN_SD ** 2 / 2;
/** A rate that turns is drawn anew so many times in a time scale, and not beyond so many. */
const LEGS = 12;
const MOST_LEGS = 60;
const MOST_CHANGES = 8;

/** Indices drawn by weights that sum to one, evenly spread (systematic resampling). */
export function systematic(weights: readonly number[], draws: number, offset: number): number[] {
  const picks: number[] = [];
  let index = 0;
  let sum = weights[0] ?? 1;
  for (let i = 0; i < draws; i++) {
    const target = (i + offset) / draws;
    while (sum < target && index < weights.length - 1) sum += weights[++index]!;
    picks.push(index);
  }
  return picks;
}

/** Place and rate of one draw. Wear does not heal: a rate below zero is drawn again, then taken as none. */
export function drawState(h: Hypothesis, rng: Rng): [z: number, d: number] {
  const sz = Math.sqrt(h.pzz);
  const slope = h.pzd / h.pzz;
  const rest = Math.sqrt(Math.max(0, h.pdd - slope * h.pzd));
  let z = h.z;
  for (let attempt = 0; attempt < 6; attempt++) {
    const e = rng.normal();
    z = h.z + sz * e;
    const d = h.d + slope * sz * e + rest * rng.normal();
    if (d > 0) return [z, d];
  }
  return [z, 1e-6 * h.driftMean];
}

/** A rate drawn anew: what a change of wear leaves behind. */
export function newRate(h: Hypothesis, d: number, rng: Rng): number {
  const base = Math.max(d, NEW_RATE_FLOOR * h.driftMean);
  return base * Math.exp(NEW_RATE_LN_MEAN + NEW_RATE_LN_SD * rng.normal());
}

/** The rate of a regime that turns, after a share of its time scale. */
export function turnedRate(h: Hypothesis, d: number, share: number, rng: Rng): number {
  return rng.uniform() < h.regime.changes * share
    ? newRate(h, d, rng)
    : d * Math.exp(h.regime.turn * Math.sqrt(share) * rng.normal());
}

/** Running hours from an age to the limit, changes of rate still to come drawn on the way; Infinity: beyond the horizon. */
export function drawCrossing(h: Hypothesis, z: number, d: number, age: number, horizon: number, rng: Rng): number {
  const { clock } = h.path;
  const sigma = Math.sqrt(h.q);
  const { turn, changes } = h.regime;
  let hours = 0;
  let u = clock.at(age, h.timeScale);
  for (let leg = 0; leg < (turn > 0 ? MOST_LEGS : MOST_CHANGES); leg++) {
    if (z >= h.zLimit) return hours;
    const next = hours + h.timeScale * (turn > 0 ? 1 / LEGS : -Math.log(1 - rng.uniform()) / changes);
    const uNext = clock.at(age + next, h.timeScale);
    const passage = drawFirstPassage(h.zLimit - z, d, sigma, rng);
    if (u + passage <= uNext || next > horizon) {
      const at = Number.isFinite(passage) ? clock.hours(u + passage, h.timeScale) - age : Infinity;
      return at > horizon ? Infinity : Math.max(0, at);
    }
    z = Math.min(h.zLimit - 1e-9, z + d * (uNext - u) + sigma * Math.sqrt(uNext - u) * rng.normal());
    hours = next;
    u = uNext;
    d = turn > 0 ? turnedRate(h, d, 1 / LEGS, rng) : newRate(h, d, rng);
  }
  return Infinity;
}
