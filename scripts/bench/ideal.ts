/**
 * What could a forecaster reach at all? One is built that knows far more than ours: the forms of the wear laws, the ranges
 * that their parameters were drawn from, the levels of noise and the spread of the lives. It weighs them by the readings
 * (sequential Monte Carlo over the random numbers that a life is made from), so no other forecaster does better
 * on these lives on average, but for its own sampling error.
 *
 *   tsx scripts/bench/ideal.ts [--lives N] [--seed N]             knows nothing of peers: eight laws tuned on compete
 *   tsx scripts/bench/ideal.ts --peers [--lives N] [--seed N]   knows what an endless number of peers would tell: law, centre of the lives, noise
 *
 * Laws whose life takes hundreds of random numbers (lumpy wear, blows, a wandering rate) are left out.
 */
import { parseArgs } from "node:util";
import { defaultPrior, dynamicViscosity, random, type WearPrior } from "@core";
import { crps } from "../../core/forecast/score";
import { normalCdf } from "../../core/numeric/normal";
import {
  fleetFluid,
  fleetLaws,
  fleetReference,
  simulateFleet,
  type FleetLaw,
  type FleetLife,
} from "../../core/simulation/fleet";
import type { Random } from "../../core/random/random";
import {
  binName,
  bins,
  median,
  NOISES,
  priorOf,
  READINGS,
  scoreLife,
  share,
  PEERS,
  TIME_SCALES,
  type Score,
} from "./origins";

const { values: options } = parseArgs({
  options: {
    lives: { type: "string", default: "1" },
    seed: { type: "string", default: "31000" },
    peers: { type: "boolean", default: false },
  },
});

/** Laws by the random numbers that their course takes. */
const tuned = {
  linear: 0,
  clearance: 0,
  exponential: 0,
  accelerating: 0,
  oneChange: 2,
  fading: 0,
  delayedOnset: 1,
  runInThenSteady: 2,
} satisfies Partial<Record<FleetLaw, number>>;
const known = {
  ...tuned,
  squareRoot: 0,
  twoChanges: 4,
  square: 0,
  fatigue: 0,
  sCurve: 0,
  waves: 1,
  logarithmic: 0,
  pauses: 4,
} satisfies Partial<Record<FleetLaw, number>>;
type KnownLaw = keyof typeof known;
const tunedLaws = Object.keys(tuned) as KnownLaw[];
const knownLaws = options.peers ? (Object.keys(known) as KnownLaw[]) : tunedLaws;

/** Spread of the lives of a fleet, and outliers, as simulateFleet makes them. */
const SPREAD = 0.35;
const ODD = { share: 0.02, reach: 0.6 };
const PARTICLES = 300;
const SWEEPS = 5;
/** Time scale, end, two exponents, noise; what the course takes comes after. */
const OWN = 5;

interface Known {
  law: KnownLaw;
  life: FleetLife;
  hours: number[];
  y: number[];
  lnPressure: number[];
  lnViscosity: number[];
  /** ln time scale by its place in the distribution. */
  lnScale: (place: number) => number;
  /** Levels that the noise may have. */
  noises: readonly number[];
}

/** Quantiles of ln time scale over fleets of these centres. */
function scaleQuantile(centres: readonly number[]): (place: number) => number {
  const [low, high] = [Math.log(centres[0]!) - 5 * SPREAD, Math.log(centres.at(-1)!) + 5 * SPREAD];
  const steps = 4000;
  const cdf = Array.from(
    { length: steps + 1 },
    (_, i) =>
      centres.reduce((sum, c) => sum + normalCdf((low + ((high - low) * i) / steps - Math.log(c)) / SPREAD), 0) /
      centres.length,
  );
  return (place) => {
    let [a, b] = [0, steps];
    while (b - a > 1) {
      const middle = (a + b) >> 1;
      if (cdf[middle]! < place) a = middle;
      else b = middle;
    }
    const within = Math.min(1, Math.max(0, (place - cdf[a]!) / Math.max(1e-12, cdf[b]! - cdf[a]!)));
    return low + ((high - low) * (a + within)) / steps;
  };
}

/** A source of random numbers that gives what it is told. */
function told(places: Float64Array): Random {
  let next = OWN;
  const uniform = () => normalCdf(places[next++]!);
  return {
    uniform,
    between: (low, high) => low + (high - low) * uniform(),
    normal: () => places[next++]!,
    pick: (items) => items[Math.floor(uniform() * items.length)]!,
    fork: () => told(places),
  };
}

interface Particle {
  x: Float64Array;
  lnLikelihood: number;
  timeScale: number;
}

function particle(x: Float64Array, { law, life, hours, y, lnPressure, lnViscosity, lnScale, noises }: Known): Particle {
  const timeScale = Math.exp(lnScale(normalCdf(x[0]!)));
  // the limit is known; how it is made of the level as new and the end is not
  const [low, high] = [Math.max(2.5, life.limit / 2), Math.min(6, life.limit / 0.8)];
  const end = low * (high / low) ** normalCdf(x[1]!);
  const a = 0.85 + 0.25 * normalCdf(x[2]!);
  const b = 0.5 + 0.5 * normalCdf(x[3]!);
  const noise = noises[Math.min(noises.length - 1, Math.floor(noises.length * normalCdf(x[4]!)))]!;
  const course = fleetLaws[law](told(x), timeScale, end);
  const usual = (1 - ODD.share) / (noise * Math.sqrt(2 * Math.PI));
  let lnLikelihood = 0;
  for (let i = 0; i < y.length; i++) {
    const e =
      y[i]! - Math.log(life.limit / end) - Math.log(course(hours[i]!)) - a * lnPressure[i]! + b * lnViscosity[i]!;
    lnLikelihood += Math.log(
      usual * Math.exp(-0.5 * (e / noise) ** 2) + (Math.abs(e) < ODD.reach ? ODD.share / (2 * ODD.reach) : 1e-12),
    );
  }
  return { x, lnLikelihood, timeScale };
}

/** Time scales by what the readings say under one law, and the evidence for it. */
function weighed(known_: Known, rng: Random): { evidence: number; timeScales: number[] } {
  const size = OWN + known[known_.law];
  let cloud = Array.from({ length: PARTICLES }, () =>
    particle(
      Float64Array.from({ length: size }, () => rng.normal()),
      known_,
    ),
  );
  let evidence = 0;
  for (let heat = 0; heat < 1;) {
    const best = Math.max(...cloud.map((p) => p.lnLikelihood));
    const weightsAt = (to: number) => cloud.map((p) => Math.exp((to - heat) * (p.lnLikelihood - best)));
    const effective = (to: number) => {
      const w = weightsAt(to);
      return w.reduce((s, v) => s + v, 0) ** 2 / w.reduce((s, v) => s + v * v, 0);
    };
    let next = 1;
    if (effective(1) < PARTICLES / 2) {
      let low = heat;
      for (let i = 0; i < 30; i++) {
        const middle = (low + next) / 2;
        if (effective(middle) < PARTICLES / 2) next = middle;
        else low = middle;
      }
    }
    const weights = weightsAt(next);
    const whole = weights.reduce((s, v) => s + v, 0);
    evidence += Math.log(whole / PARTICLES) + (next - heat) * best;
    heat = next;
    const offset = rng.uniform();
    let [sum, at] = [0, -1];
    cloud = cloud.map((_, i) => {
      while (sum < ((i + offset) / PARTICLES) * whole && at < PARTICLES - 1) sum += weights[++at]!;
      return cloud[at]!;
    });
    for (let sweep = 0; sweep < SWEEPS; sweep++) {
      const step = ((sweep % 2 ? 0.3 : 1) * 1.68) / Math.sqrt(size);
      cloud.forEach((p, i) => {
        const [q, r] = [rng.pick(cloud), rng.pick(cloud)];
        const moved = particle(
          p.x.map((v, k) => v + step * (q.x[k]! - r.x[k]!) + 0.01 * rng.normal()),
          known_,
        );
        const prior = p.x.reduce((s, v, k) => s + (v * v - moved.x[k]! ** 2) / 2, 0);
        if (Math.log(1 - rng.uniform()) < heat * (moved.lnLikelihood - p.lnLikelihood) + prior) cloud[i] = moved;
      });
    }
  }
  return { evidence, timeScales: cloud.map((p) => p.timeScale) };
}

interface Compared {
  law: KnownLaw;
  noise: number;
  readings: number;
  /** CRPS over the true time left: of one who knows which law it is, of one who knows the eight (without peers), and ours. */
  law1: number;
  laws8: number | null;
  ours: Score;
}

const muRef = dynamicViscosity(fleetFluid, fleetReference.temperature);
const DRAWS = 600;

/** What is known of the fleet of a life before its readings. */
interface Expected {
  prior: WearPrior;
  lnScale: (place: number) => number;
  noises: readonly number[];
}

function compare(
  law: KnownLaw,
  noise: number,
  life: FleetLife,
  { prior, lnScale, noises }: Expected,
  rng: Random,
): Compared[] {
  const ours = scoreLife(life, law, noise, prior);
  return ours.map((score) => {
    const read = life.readings.slice(0, score.readings);
    const last = read.at(-1)!.hours;
    const truth = life.crossing - last;
    const base = {
      life,
      hours: read.map((r) => r.hours),
      y: read.map((r) => Math.log(r.value)),
      lnPressure: read.map((r) => Math.log(r.pressure / fleetReference.pressure)),
      lnViscosity: read.map((r) => Math.log(dynamicViscosity(fleetFluid, r.temperature) / muRef)),
      lnScale,
      noises,
    };
    const found = (options.peers ? [law] : tunedLaws).map((each) => ({
      each,
      ...weighed({ ...base, law: each }, rng),
    }));
    const best = Math.max(...found.map((f) => f.evidence));
    const whole = found.reduce((sum, f) => sum + Math.exp(f.evidence - best), 0);
    const left = (scales: readonly number[]) => scales.map((t) => Math.max(0, t - last));
    const mixed = found.flatMap((f) =>
      Array.from({ length: Math.round((DRAWS * Math.exp(f.evidence - best)) / whole) }, () => rng.pick(f.timeScales)),
    );
    return {
      law,
      noise,
      readings: score.readings,
      law1: crps(left(found.find((f) => f.each === law)!.timeScales), truth) / truth,
      laws8: options.peers ? null : crps(left(mixed), truth) / truth,
      ours: score,
    };
  });
}

const compared: Compared[] = [];
let turn = Number(options.seed);
for (const law of knownLaws) {
  for (const noise of NOISES) {
    for (const readingsPerLife of READINGS) {
      turn++;
      const timeScale = TIME_SCALES[turn % 3]!;
      const fleet = simulateFleet({
        law,
        noise,
        readingsPerLife,
        seed: turn,
        lives: Number(options.lives) + (options.peers ? PEERS : 0),
        timeScale,
      });
      const expected = options.peers
        ? { prior: priorOf(fleet.splice(0, PEERS), "ended"), lnScale: scaleQuantile([timeScale]), noises: [noise] }
        : { prior: defaultPrior, lnScale: scaleQuantile(TIME_SCALES), noises: NOISES };
      for (const life of fleet) compared.push(...compare(law, noise, life, expected, random(turn)));
    }
  }
}

function row(name: string, group: Compared[]): void {
  if (group.length)
    process.stdout.write(
      `| ${name} | ${group.length} | ${median(group.map((c) => c.law1)).toFixed(3)} | ` +
        `${options.peers ? "" : `${median(group.map((c) => c.laws8!)).toFixed(3)} | `}${median(group.map((c) => c.ours.relativeCrps)).toFixed(3)} ` +
        `| ${share(group.map((c) => c.ours.covered)).toFixed(2)} |\n`,
    );
}
process.stdout.write(
  `|  | origins | knows the law | ${options.peers ? "" : "knows the eight laws | "}this forecast | ` +
    `its P10-P90 covers |\n|---|---|---|${options.peers ? "" : "---|"}---|---|\n`,
);
row("**all**", compared);
for (const [low] of bins)
  row(
    `${binName(low)} readings`,
    compared.filter((c) => binName(c.readings) === binName(low)),
  );
for (const law of knownLaws)
  row(
    law,
    compared.filter((c) => c.law === law),
  );
for (const noise of NOISES)
  row(
    `noise ${noise}`,
    compared.filter((c) => c.noise === noise),
  );
