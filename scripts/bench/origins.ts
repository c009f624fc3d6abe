/** Rolling origins over simulated fleets: what the forecast said at shares of every life, and how good it was. */
import {
  assess,
  defaultPrior,
  learnPrior,
  type AssessContext,
  type AssessPoint,
  type AssessReading,
  type WearPrior,
} from "@core";
import { fleetFluid, fleetReference, simulateFleet, type FleetLaw, type FleetLife } from "../../core/simulation/fleet";
import { alphaLambda, crps, prognosticHorizon } from "../../core/forecast/score";
import { rivals } from "./rivals";

const DAY = 86_400_000;
export const NOISES = [0.02, 0.05, 0.1];
export const READINGS = [12, 24, 48, 90];
/** Centres of the running hours to the limit, fleet by fleet. */
export const TIME_SCALES = [6000, 18_000, 50_000];
export const bins = [
  [3, 5],
  [6, 10],
  [11, 20],
  [21, 50],
  [51, 1000],
] as const;
export const binName = (n: number) =>
  bins.map(([low, high]) => (high > 999 ? `over ${low - 1}` : `${low}-${high}`))[
    bins.findIndex(([low, high]) => n >= low && n <= high)
  ]!;

export interface Score {
  law: FleetLaw;
  noise: number;
  readings: number;
  covered: boolean;
  below: boolean;
  relativeCrps: number;
  /** (median − truth)/truth, bounded. */
  bias: number;
  alphaLambda: boolean;
  /** Prognostic horizon over the whole life. */
  horizonShare: number;
  rivals: Record<string, number>;
  ms: number;
}

export function contextOf(life: FleetLife, prior: WearPrior, now: number): AssessContext {
  return {
    now,
    fluid: fleetFluid,
    measured: [],
    contamination: null,
    prior,
    duty: { hoursPerDay: life.hoursPerDay, deviation: 0.05 },
    stops: [],
    leadTimeDays: null,
    runInHours: 0,
    lifeStartHours: 0,
    lifeStartedAt: null,
    meterChanges: [],
    readingsInAll: null,
    partReadyAt: null,
    nextChanceDays: 28,
    accepted: 0.3,
    repairedAt: null,
    seed: 0,
  };
}

export function readingsOf(life: FleetLife, count: number): AssessReading[] {
  return life.readings.slice(0, count).map((r, i) => ({
    id: String(i),
    at: r.at,
    hours: r.hours,
    value: r.value,
    pressure: r.pressure,
    temperature: r.temperature,
    uncertainty: null,
    doubtful: false,
    recalled: false,
  }));
}

export function pointOf(life: FleetLife): AssessPoint {
  return {
    quantity: "caseDrainFlow",
    limit: { basis: "absolute", upper: life.limit, lower: null },
    reference: fleetReference,
    fullFlow: null,
    knownWhenNew: true,
    makersNew: null,
  };
}

/** Origins: shares of the life at which a forecast is asked for. */
const ORIGINS = [0.25, 0.4, 0.55, 0.7, 0.85, 0.95];

export function scoreLife(life: FleetLife, law: FleetLaw, noise: number, prior: WearPrior): Score[] {
  const scores: Omit<Score, "horizonShare">[] = [];
  const medians: { median: number; truth: number }[] = [];
  let before = 0;
  for (const origin of ORIGINS) {
    const n = life.readings.filter((r) => r.hours <= origin * life.crossing).length;
    if (n < 3 || n === before) continue;
    before = n;
    const readings = readingsOf(life, n);
    const last = life.readings[n - 1]!;
    const start = performance.now();
    const made = assess(readings, pointOf(life), contextOf(life, prior, last.at));
    const ms = performance.now() - start;
    if (!made.forecast) continue;
    const truth = life.crossing - last.hours;
    const horizon = made.forecast.horizonHours;
    const draws = made.forecast.crossingDates.map((d) =>
      d === null ? horizon : ((d - last.at) / DAY) * life.hoursPerDay,
    );
    const { p10, p50, p90 } = made.forecast.dates;
    const hours = (d: number | null) => (d === null ? Infinity : ((d - last.at) / DAY) * life.hoursPerDay);
    medians.push({ median: Math.min(hours(p50), horizon), truth });
    scores.push({
      law,
      noise,
      readings: n,
      ms,
      covered: truth >= hours(p10) && truth <= hours(p90),
      below: truth < hours(p10),
      relativeCrps: crps(draws, truth) / truth,
      bias: Math.min(hours(p50), horizon) / truth - 1,
      alphaLambda: alphaLambda(draws, truth),
      rivals: Object.fromEntries(
        Object.entries(rivals).map(([name, rival]) => [
          name,
          Math.abs(rival(made.series, life.limit, horizon) - truth) / truth,
        ]),
      ),
    });
  }
  // the horizon belongs to the life: every origin carries it
  const horizonShare = prognosticHorizon(medians) / life.crossing;
  return scores.map((s) => ({ ...s, horizonShare }));
}

/** What peers did: ran to their limit, or were replaced at some share of their life, as most parts are. */
export type Peers = "none" | "ended" | "replaced";

/** Shares of the life at which parts are replaced. */
const REPLACED = [0.62, 0.7, 0.78, 0.86, 0.94];

/** What a life tells its peers. */
export function peerOf(life: FleetLife, index: number, peers: Peers) {
  const readings =
    peers === "ended"
      ? life.readings
      : life.readings.filter((r) => r.hours <= REPLACED[index % REPLACED.length]! * life.crossing);
  if (readings.length < 3) return [];
  const told = assess(
    readingsOf(life, readings.length),
    pointOf(life),
    contextOf(life, defaultPrior, readings.at(-1)!.at),
  ).life;
  if (!told) return [];
  return [peers === "ended" ? { ...told, hours: life.crossing, censored: false, reached: true } : told];
}

export const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? Number.NaN;
export const share = (values: boolean[]) => values.filter(Boolean).length / values.length;

export interface ScoreOptions {
  laws: readonly FleetLaw[];
  /** Lives in every fleet. */
  lives: number;
  seed: number;
  /** Which peer lives the forecast knows. */
  peers: Peers;
}

/** Lives before the ones that are judged. */
export const PEERS = 8;

export const priorOf = (lives: readonly FleetLife[], peers: Peers) =>
  learnPrior(
    lives.flatMap((life, i) => peerOf(life, i, peers)),
    defaultPrior,
  );

export function scoreFleets({ laws, lives, seed, peers }: ScoreOptions): Score[] {
  const scores: Score[] = [];
  let turn = seed;
  for (const law of laws) {
    for (const noise of NOISES) {
      for (const readingsPerLife of READINGS) {
        turn++;
        const timeScale = TIME_SCALES[turn % 3]!;
        const fleet = simulateFleet({
          law,
          noise,
          readingsPerLife,
          seed: turn,
          lives: lives + (peers === "none" ? 0 : PEERS),
          timeScale,
        });
        const prior = peers === "none" ? defaultPrior : priorOf(fleet.splice(0, PEERS), peers);
        for (const life of fleet) scores.push(...scoreLife(life, law, noise, prior));
      }
    }
  }
  return scores;
}
