/**
 * When does the indicator of one life cross its limit? P10, P50, P90 in running hours from the last
 * reading, the chance of crossing by any hour, a fan for the chart, and which paths said so.
 */
import { inverseEcdf } from "../trend/robust";
import { random } from "../random/random";
import { drawCrossing, drawState, newRate, systematic, turnedRate, type Rng } from "./draws";
import { DIRT_CHANGES, runFilter, type FilterResult } from "./filter";
import type { FilterReading, Hypothesis } from "./hypothesis";
import { lifetimeOdds } from "./lifetime";
import { courseOf, type CoursePoint } from "./course";
import { leftOfPeers } from "./ended";
import { likeness } from "./likeness";
import { withoutPeers, type WearPrior } from "./prior";
import { fromPath, lnIndicator, lnIndicatorSlope, wearPathIds, type WearPathId } from "./wearPath";

export interface ForecastInput {
  readings: readonly FilterReading[];
  /** ln of the limit over the as-new level. */
  lnLimit: number;
  prior: WearPrior;
  /** Are the exponents of the leakage correction unknown? */
  corrected: boolean;
  /** Running hours at which the part was new; the first reading when not known. */
  newAt?: number;
  /** Of the point: its draws are its own. */
  seed?: number;
}

export interface FanPoint {
  /** Running hours after the last reading. */
  hours: number;
  p10: number;
  p50: number;
  p90: number;
}

export interface Forecast {
  /** Running hours after the last reading; null: beyond the horizon. */
  p5: number | null;
  p10: number | null;
  p50: number | null;
  p90: number | null;
  /** Horizon in running hours: nothing is said beyond it. */
  horizon: number;
  /** Sorted draws of the crossing, running hours after the last reading; Infinity: not within the horizon. */
  crossings: number[];
  /** Probability that the indicator is at or beyond its limit now. */
  crossed: number;
  /** Running hours (absolute) since when the filtered level stands beyond the limit. */
  crossedSince: number | null;
  /** After each reading: probability that the rate is fast enough to matter, the limit within five usual lives. */
  rising: number[];
  /** Indicator over as new, at the last reading: centre and P10, P90. */
  level: { centre: number; low: number; high: number };
  /** Rate of the indicator over as new, per 1000 running hours: centre and standard deviation. */
  rate: { centre: number; deviation: number };
  /** Exponents as the filter ended with them. */
  exponents: { a: number; b: number; ua: number; ub: number };
  /** Share of each wear path, largest first. */
  paths: { id: WearPathId; share: number }[];
  /** Probability of at least one change of rate in this life, and when it most likely was (running hours). */
  change: { probability: number; hours: number | null };
  /** Probability of a sudden step of the level, and when it most likely was (running hours). */
  step: { probability: number; hours: number | null };
  /** Relative standard deviation of the readings. */
  noise: number;
  fan: FanPoint[];
  outlier: number[];
  /** Share of probability that this life is like its peers; null: none is known. */
  like: number | null;
  /** Shares of the regimes that these readings alone speak for: as if no peer were known. */
  regimes: Record<string, number>;
  /** The course so far, for its peers. */
  course: CoursePoint[];
}

const DRAWS = 400;
/** Drawn first; those that suit the lifetimes of the peers are kept. */
const FIRST_DRAWS = 800;
/** Smaller shares of a regime are not kept. */
const NEGLIGIBLE_SHARE = 1e-4;
/** Of the draws of a life that is like its peers, so many end as they ended (chosen on the tuned part of scripts/bench/universe.ts). */
const AS_PEERS = 0.2;
/** So many draws may be cut short by damage that sets in unseen (chosen there too). */
const DAMAGED = 0.2;
const FAN_DRAWS = 200;
const FAN_STEPS = 16;
const HORIZON_SCALES = 4;
/** Where two banks run, one with the peers and one without, each keeps this share of the hypotheses. */
const OF_TWO = 0.5;
/** Fewest readings for a forecast. */
export const FEWEST_READINGS = 3;

/**
 * Forecast one life.
 * @throws {RangeError} with fewer than 3 readings or a limit not beyond as new.
 */
export function forecast({
  readings,
  lnLimit,
  prior,
  corrected,
  newAt = readings[0]?.hours ?? 0,
  seed = 0,
}: ForecastInput): Forecast {
  if (readings.length < FEWEST_READINGS) throw new RangeError(`A forecast needs at least ${FEWEST_READINGS} readings.`);
  if (!(lnLimit > 0)) throw new RangeError("The limit must lie beyond the as-new level.");
  const since = Math.min(newAt, readings[0]!.hours);
  const width = prior.lives > 0 ? OF_TWO : 1;
  const told = runFilter(readings, lnLimit, prior, corrected, since, width);
  const alone = prior.lives > 0 ? runFilter(readings, lnLimit, withoutPeers(prior), corrected, since, width) : null;
  const like = alone ? likeness(told.foretold, alone.foretold).at(-1)! : 1;
  const { hypotheses, weights, outlier, level, rising } = alone ? mixed(told, alone, like) : told;
  const rng = random(readings.length * 7919 + 17 + seed);
  const horizon = Math.max(60_000, HORIZON_SCALES * prior.timeScale);

  const mix = (f: (h: Hypothesis) => number) => hypotheses.reduce((sum, h, i) => sum + weights[i]! * f(h), 0);
  const age = readings[readings.length - 1]!.hours - Math.min(newAt, readings[0]!.hours);
  /** Clock hours per running hour at the present age. */
  const pace = (h: Hypothesis) => h.path.clock.pace(age, h.timeScale);
  // dirt that no reading has seen yet: the rate may have changed all the same
  const changedSince =
    prior.contaminatedAt !== undefined && prior.contaminatedAt >= readings[readings.length - 1]!.hours;
  const first = systematic(weights, FIRST_DRAWS, rng.uniform()).map((index) => {
    const h = hypotheses[index]!;
    const [z, d] = drawState(h, rng);
    const state = { h, z, d: changedSince && rng.uniform() < DIRT_CHANGES ? newRate(h, d, rng) : d };
    return { state, crossing: drawCrossing(h, z, state.d, age, horizon, rng) };
  });
  const lifetime = lifetimeOdds(lnLimit, prior, corrected, horizon, rng);
  const ofPeers = new Set(told.hypotheses);
  const suits = first.map(({ state, crossing }) =>
    ofPeers.has(state.h) ? (crossing <= 0 ? 1 : lifetime(age + crossing)) : null,
  );
  // the lifetimes of the peers move draws among those that are like them, and take none from the others
  const usual = meanOf(suits.filter((o) => o !== null));
  const odds = suits.map((o) => (o === null ? 1 : o / usual));
  const all = odds.reduce((sum, o) => sum + o, 0);
  const kept = systematic(
    odds.map((o) => o / all),
    DRAWS,
    rng.uniform(),
  ).map((index) => first[index]!);
  const states = kept.map((k) => k.state);
  const usedNow = (Math.exp(mix((h) => lnIndicator(h.z, h.path.lambda))) - 1) / Math.expm1(lnLimit);
  const left = prior.ended ? leftOfPeers(prior.ended, usedNow, age) : null;
  const levels = Float64Array.from(states, ({ h, z }) => Math.exp(lnIndicator(z, h.path.lambda))).sort();
  const asPeers = left ? AS_PEERS * like : 0;
  const [peerAt, damageAt, damageOf] = [evenly(Math.SQRT2, rng), evenly(GOLDEN, rng), evenly(Math.sqrt(3), rng)];
  const crossings = kept
    .map(({ crossing }, i) => {
      if (crossing <= 0) return crossing;
      const own = peerAt(i) < asPeers ? left!(rng) : crossing;
      return damageAt(i) < DAMAGED ? Math.min(own, -prior.damageHours * Math.log(1 - damageOf(i))) : own;
    })
    .sort((p, q) => p - q);
  const quantile = (p: number) => {
    const value = inverseEcdf(crossings, p);
    return value < horizon ? value : null;
  };

  /** Indicator per 1000 running hours for one unit of drift. */
  const gear = (h: Hypothesis) => fromPath(h.z, h.path.lambda) * lnIndicatorSlope(h.z, h.path.lambda) * pace(h) * 1000;
  const rateCentre = mix((h) => gear(h) * h.d);
  const rateVariance = mix((h) => (gear(h) * h.d - rateCentre) ** 2 + gear(h) ** 2 * h.pdd);

  const a = mix((h) => h.a);
  const b = mix((h) => h.b);
  /** Chance that an event is in the history of the hypotheses, and its likeliest moment. */
  const event = (at: (h: Hypothesis) => number) => {
    const moments = new Map<number, number>();
    hypotheses.forEach((h, i) => moments.set(at(h), (moments.get(at(h)) ?? 0) + weights[i]!));
    const probability = 1 - (moments.get(-1) ?? 0);
    const likeliest = [...moments].filter(([hours]) => hours >= 0).sort((p, q) => q[1] - p[1])[0];
    return { probability, hours: likeliest && probability > 0.5 ? likeliest[0] : null };
  };

  return {
    p5: quantile(0.05),
    p10: quantile(0.1),
    p50: quantile(0.5),
    p90: quantile(0.9),
    horizon,
    crossings,
    crossed: crossings.filter((t) => t <= 0).length / DRAWS,
    crossedSince: crossedSince(readings, level, lnLimit),
    rising,
    level: {
      centre: Math.exp(mix((h) => lnIndicator(h.z, h.path.lambda))),
      low: inverseEcdf(levels, 0.1),
      high: inverseEcdf(levels, 0.9),
    },
    rate: { centre: rateCentre, deviation: Math.sqrt(Math.max(0, rateVariance)) },
    exponents: {
      a,
      b,
      ua: Math.sqrt(mix((h) => h.paa + (h.a - a) ** 2)),
      ub: Math.sqrt(mix((h) => h.pbb + (h.b - b) ** 2)),
    },
    paths: wearPathIds
      .map((id) => ({ id, share: hypotheses.reduce((sum, h, i) => sum + (h.path.id === id ? weights[i]! : 0), 0) }))
      .sort((p, q) => q.share - p.share),
    change: event((h) => h.changedAt),
    step: event((h) => h.steppedAt),
    noise: Math.sqrt(mix((h) => h.r)),
    fan: fanOf(states, crossings, horizon, age, rng),
    outlier,
    like: prior.lives > 0 ? like : null,
    regimes: alone
      ? ownRegimes(alone.hypotheses, alone.weights, withoutPeers(prior))
      : ownRegimes(hypotheses, weights, prior),
    course: courseOf(
      readings.map((r, i) => ({
        hours: r.hours,
        lnS: r.y - a * r.lnPressure + b * r.lnViscosity,
        outlier: outlier[i]!,
      })),
      lnLimit,
      Math.min(newAt, readings[0]!.hours),
      Math.sqrt(mix((h) => h.r)),
    ),
  };
}

const GOLDEN = (1 + Math.sqrt(5)) / 2;
/** Numbers from 0 to 1, evener than chance: multiples of an irrational, from a start of their own. */
const evenly = (step: number, rng: Rng) => {
  const start = rng.uniform();
  return (i: number) => (start + i * step) % 1;
};

const meanOf = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length);

/** The two banks as one: that which knows the peers by its share, that which does not by the rest. */
function mixed(told: FilterResult, alone: FilterResult, like: number): FilterResult {
  const blend = (p: readonly number[], q: readonly number[]) => p.map((v, i) => like * v + (1 - like) * q[i]!);
  return {
    hypotheses: [...told.hypotheses, ...alone.hypotheses],
    weights: [...told.weights.map((w) => like * w), ...alone.weights.map((w) => (1 - like) * w)],
    outlier: blend(told.outlier, alone.outlier),
    level: blend(told.level, alone.level),
    foretold: blend(told.foretold, alone.foretold),
    rising: blend(told.rising, alone.rising),
  };
}

/** Probability that the crossing comes within `hours` of the last reading. */
export function crossingProbability(crossings: readonly number[], hours: number): number {
  let low = 0;
  let high = crossings.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (crossings[middle]! <= hours) low = middle + 1;
    else high = middle;
  }
  return low / crossings.length;
}

/** Shares of the regimes of the laws by the likelihood of the readings alone, under the usual prior. */
function ownRegimes(
  hypotheses: readonly Hypothesis[],
  weights: readonly number[],
  prior: WearPrior,
): Record<string, number> {
  const shares: Record<string, number> = {};
  hypotheses.forEach(({ regime }, i) => {
    if (regime.path.id !== "course")
      shares[regime.id] =
        (shares[regime.id] ?? 0) + (weights[i]! * regime.prior) / (prior.regimes?.[regime.id] ?? regime.prior);
  });
  const total = Object.values(shares).reduce((a, b) => a + b, 0);
  // nothing but the peers' course is left: no law was told
  if (total === 0) return {};
  return Object.fromEntries(
    Object.entries(shares)
      .map(([id, share]) => [id, share / total] as const)
      .filter(([, share]) => share > NEGLIGIBLE_SHARE),
  );
}

function fanOf(
  states: readonly { h: Hypothesis; z: number; d: number }[],
  crossings: readonly number[],
  horizon: number,
  age: number,
  rng: Rng,
): FanPoint[] {
  const far = inverseEcdf(crossings, 0.9);
  const reach = Math.min(horizon, Number.isFinite(far) ? far * 1.15 : Math.max(4000, age * 0.5));
  const step = Math.max(1, reach) / FAN_STEPS;
  const paths = states.filter((_, i) => i % Math.ceil(states.length / FAN_DRAWS) === 0).map((s) => ({ ...s }));
  const at = (hours: number): FanPoint => {
    const sorted = Float64Array.from(paths, ({ h, z }) => Math.exp(Math.min(6, lnIndicator(z, h.path.lambda)))).sort();
    return { hours, p10: inverseEcdf(sorted, 0.1), p50: inverseEcdf(sorted, 0.5), p90: inverseEcdf(sorted, 0.9) };
  };
  const fan = [at(0)];
  for (let i = 1; i <= FAN_STEPS; i++) {
    for (const path of paths) {
      const du =
        path.h.path.clock.at(age + i * step, path.h.timeScale) -
        path.h.path.clock.at(age + (i - 1) * step, path.h.timeScale);
      path.z += path.d * du + Math.sqrt(path.h.q * du) * rng.normal();
      path.d = turnedRate(path.h, path.d, step / path.h.timeScale, rng);
    }
    fan.push(at(i * step));
  }
  return fan;
}

function crossedSince(readings: readonly FilterReading[], level: readonly number[], lnLimit: number): number | null {
  let since: number | null = null;
  level.forEach((value, i) => {
    if (value < lnLimit) since = null;
    else since ??= readings[i]!.hours;
  });
  return since;
}
