/**
 * The forecast on a universe of lives whose laws nobody can know by name (core/simulation/universe.ts), by family and by
 * kind of peers; every forecast as one JSON line. scripts/bench/universeTable.ts makes tables of them.
 *
 *   tsx scripts/bench/universe.ts --peers none|same|mixed|foreign|replaced --part tuned|reported|report --lives 12 > scores.jsonl
 */
import { parseArgs } from "node:util";
import { assess, defaultPrior, learnPrior, random, type WearPrior } from "@core";
import { measuredLives, type FleetLife, type Trouble } from "../../core/simulation/fleet";
import {
  universeCourse,
  universeFamilies,
  type UniverseCourse,
  type UniverseFamily,
} from "../../core/simulation/universe";
import { crps } from "../../core/forecast/score";
import { contextOf, NOISES, peerOf, pointOf, readingsOf, READINGS, TIME_SCALES } from "./origins";
import { drawnSeed } from "./drawn";
import { rivalForecast } from "./rival";

export type UniversePeers = "none" | "same" | "mixed" | "foreign" | "replaced";

export interface UniverseScore {
  family: UniverseFamily;
  peers: UniversePeers;
  noise: number;
  readings: number;
  /** Share of the life at which it was asked. */
  age: number;
  /** Hours of the whole life. */
  life: number;
  /** Readings since the last change of the rate; null: none yet. */
  sinceChange: number | null;
  /** True time left, hours. */
  truth: number;
  /** Quantiles 1 % to 99 % of the time left; Infinity as null: beyond the horizon. */
  quantiles: (number | null)[];
  crps: number;
  rival: { quantiles: (number | null)[]; crps: number };
  ms: number;
}

const DAY = 86_400_000;
const ORIGINS = [0.25, 0.4, 0.55, 0.7, 0.85, 0.95];
const PEERS = 8;
/** Families that no constant is chosen on. "reported" has seeds that were looked at for long; those of "report" are drawn anew every day. */
const REPORTED: readonly UniverseFamily[] = ["jumps", "wanders", "blows", "rests", "renewals"];
export const LEVELS = Array.from({ length: 99 }, (_, i) => (i + 1) / 100);

const { values: options } = parseArgs({
  options: {
    peers: { type: "string", default: "none" },
    part: { type: "string", default: "tuned" },
    lives: { type: "string", default: "10" },
    families: { type: "string" },
    trouble: { type: "string" },
    rival: { type: "boolean", default: false },
  },
});
const peers = options.peers as UniversePeers;
const lives = Number(options.lives);
/** What is tuned sees one part, what is reported the other: other seeds, and the families that are left out in turn. */
const LEARNT = universeFamilies.filter((f) => !REPORTED.includes(f));
const families = options.families?.split(",") as UniverseFamily[] | undefined;
const drawn = options.part === "report" ? drawnSeed(`universe ${peers} ${options.trouble ?? ""}`) : null;
if (drawn) process.stderr.write(`${drawn.told}\n`);

type Life = FleetLife & { course: UniverseCourse };

function fleet(
  family: UniverseFamily,
  count: number,
  seed: number,
  timeScale: number,
  noise: number,
  readings: number,
) {
  const trouble = options.trouble as Trouble | undefined;
  const plan = { seed, lives: count, noise, readingsPerLife: readings, timeScale, ...(trouble && { trouble }) };
  return measuredLives(plan, random(seed).fork(`${family} ${noise} ${readings}`), (rng, scale, end) =>
    universeCourse(family, rng, scale, end),
  );
}

/** The peers of a fleet: of its own kind, of several kinds, or of none like it. */
function peersOf(family: UniverseFamily, seed: number, timeScale: number, noise: number, readings: number): WearPrior {
  if (peers === "none") return defaultPrior;
  const others = universeFamilies.filter((f) => f !== family);
  const kinds: UniverseFamily[] = Array.from({ length: PEERS }, (_, i) => {
    if (peers === "same" || peers === "replaced") return family;
    if (peers === "mixed") return i % 4 === 0 ? family : others[(seed + (i % 4)) % others.length]!;
    return others[(seed + i) % others.length]!;
  });
  const told = kinds.flatMap((kind, i) => {
    const [life] = fleet(kind, 1, seed * 100 + 7 * i + 1, timeScale, noise, readings);
    return life ? peerOf(life, i, peers === "replaced" ? "replaced" : "ended") : [];
  });
  return learnPrior(told, defaultPrior);
}

const quantilesOf = (draws: readonly number[]) => {
  const sorted = [...draws].sort((a, b) => a - b);
  return LEVELS.map((p) => {
    const value = sorted[Math.min(sorted.length - 1, Math.ceil(p * sorted.length) - 1)]!;
    return Number.isFinite(value) ? value : null;
  });
};

function scoreLife(life: Life, family: UniverseFamily, noise: number, prior: WearPrior): void {
  let before = 0;
  for (const origin of ORIGINS) {
    const n = life.readings.filter((r) => r.hours <= origin * life.crossing).length;
    if (n < 3 || n === before) continue;
    before = n;
    const last = life.readings[n - 1]!;
    const start = performance.now();
    const made = assess(readingsOf(life, n), pointOf(life), contextOf(life, prior, last.at));
    const ms = performance.now() - start;
    if (!made.forecast) continue;
    const truth = life.crossing - last.hours;
    const horizon = made.forecast.horizonHours;
    const draws = made.forecast.crossingDates.map((d) =>
      d === null ? Infinity : ((d - last.at) / DAY) * life.hoursPerDay,
    );
    const bounded = (values: readonly number[]) => values.map((v) => Math.min(v, horizon));
    const changed = life.course.changes.filter((h) => h < last.hours).at(-1);
    const rival = options.rival ? rivalForecast(made.series, life.limit) : [horizon];
    const score: UniverseScore = {
      family,
      peers,
      noise,
      readings: n,
      age: origin,
      life: life.crossing,
      sinceChange: changed === undefined ? null : life.readings.slice(0, n).filter((r) => r.hours > changed).length,
      truth,
      quantiles: quantilesOf(draws),
      crps: crps(bounded(draws), truth) / truth,
      rival: { quantiles: quantilesOf(rival), crps: crps(bounded(rival), truth) / truth },
      ms,
    };
    process.stdout.write(`${JSON.stringify(score)}\n`);
  }
}

let turn = drawn?.seed ?? (options.part === "tuned" ? 40_000 : 80_000);
for (const family of families ?? (options.part === "tuned" ? LEARNT : REPORTED))
  for (const noise of NOISES)
    for (const readings of READINGS) {
      turn++;
      const timeScale = TIME_SCALES[turn % TIME_SCALES.length]!;
      const prior = peersOf(family, turn, timeScale, noise, readings);
      for (const life of fleet(family, lives, turn, timeScale, noise, readings)) scoreLife(life, family, noise, prior);
    }
