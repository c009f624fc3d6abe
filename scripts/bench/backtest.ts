/**
 * Rolling-origin back-test of the forecast over simulated fleets: coverage of P10-P90, bias, α-λ and CRPS
 * over the true time left, beside straight lines and the single best curve. Prints tables; with --json it
 * writes them to a file for docs/forecast.md.
 *
 *   tsx scripts/bench/backtest.ts [--set tuned|heldOut] [--lives N] [--seed N] [--prior default|sisters]
 */
import { assess, defaultPrior, learnPrior, type AssessContext, type AssessPoint, type AssessReading, type WearPrior } from "@core";
import { fleetFluid, fleetReference, heldOutLaws, simulateFleet, tunedLaws, type FleetLaw, type FleetLife } from "../../core/simulation/fleet";
import { alphaLambda, crps } from "../../core/forecast/score";
import { rivals } from "./rivals";
import { parseArgs } from "node:util";
import { writeFileSync } from "node:fs";

const { values: options } = parseArgs({ options: { set: { type: "string", default: "heldOut" }, lives: { type: "string", default: "12" }, seed: { type: "string", default: "0" }, prior: { type: "string", default: "default" }, json: { type: "string" }, laws: { type: "string" } } });
const DAY = 86_400_000;
const NOISES = [0.02, 0.05, 0.1];
const READINGS = [12, 24, 48, 90];
const bins = [[3, 5], [6, 10], [11, 20], [21, 50], [51, 1000]] as const;
const binName = (n: number) => bins.map(([low, high]) => (high > 999 ? `over ${low - 1}` : `${low}-${high}`))[bins.findIndex(([low, high]) => n >= low && n <= high)]!;

interface Score {
  law: FleetLaw;
  noise: number;
  readings: number;
  covered: boolean;
  below: boolean;
  relativeCrps: number;
  /** (median − truth)/truth, bounded. */
  bias: number;
  alphaLambda: boolean;
  rivals: Record<string, number>;
  ms: number;
}

function contextOf(life: FleetLife, prior: WearPrior, now: number): AssessContext {
  return { now, fluid: fleetFluid, prior, duty: { hoursPerDay: life.hoursPerDay, deviation: 0.05 }, stops: [], leadTimeDays: null, runInHours: 0, lifeStartHours: 0 };
}

function readingsOf(life: FleetLife, count: number): AssessReading[] {
  return life.readings.slice(0, count).map((r, i) => ({ id: String(i), at: r.at, hours: r.hours, value: r.value, pressure: r.pressure, temperature: r.temperature, uncertainty: null, doubtful: false }));
}

function pointOf(life: FleetLife): AssessPoint {
  return { quantity: "caseDrainFlow", limit: { basis: "absolute", upper: life.limit, lower: null }, reference: fleetReference, fullFlow: null, knownWhenNew: true, makersNew: null };
}

/** Origins: shares of the life at which a forecast is asked for. */
const ORIGINS = [0.25, 0.4, 0.55, 0.7, 0.85, 0.95];

function scoreLife(life: FleetLife, law: FleetLaw, noise: number, prior: WearPrior): Score[] {
  const scores: Score[] = [];
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
    const draws = made.forecast.crossingDates.map((d) => (d === null ? horizon : ((d - last.at) / DAY) * life.hoursPerDay));
    const { p10, p50, p90 } = made.forecast.dates;
    const hours = (d: number | null) => (d === null ? Infinity : ((d - last.at) / DAY) * life.hoursPerDay);
    scores.push({
      law, noise, readings: n, ms,
      covered: truth >= hours(p10) && truth <= hours(p90), below: truth < hours(p10),
      relativeCrps: crps(draws, truth) / truth,
      bias: Math.min(hours(p50), horizon) / truth - 1,
      alphaLambda: alphaLambda(draws, truth),
      rivals: Object.fromEntries(Object.entries(rivals).map(([name, rival]) => [name, Math.abs(rival(made.series, life.limit, horizon) - truth) / truth])),
    });
  }
  return scores;
}

/** What a life that ran to its limit tells its sisters. */
function sisterOf(life: FleetLife) {
  if (life.readings.length < 3) return [];
  const told = assess(readingsOf(life, life.readings.length), pointOf(life), contextOf(life, defaultPrior, life.readings.at(-1)!.at)).life;
  return told ? [{ ...told, hours: life.crossing, censored: false }] : [];
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? Number.NaN;
const share = (values: boolean[]) => values.filter(Boolean).length / values.length;

const laws = options.laws ? (options.laws.split(",") as FleetLaw[]) : options.set === "tuned" ? tunedLaws : options.set === "heldOut" ? heldOutLaws : [...tunedLaws, ...heldOutLaws];
const base = Number(options.seed) + (options.set === "tuned" ? 1000 : 500_000);
const scores: Score[] = [];
let seed = base;
for (const law of laws) {
  for (const noise of NOISES) {
    for (const readingsPerLife of READINGS) {
      seed++;
      const timeScale = [6000, 18_000, 50_000][seed % 3]!;
      const fleet = simulateFleet({ law, noise, readingsPerLife, seed, lives: Number(options.lives) + (options.prior === "sisters" ? 8 : 0), timeScale });
      const sisters = options.prior === "sisters" ? fleet.splice(0, 8) : [];
      const prior = learnPrior(sisters.flatMap((s) => sisterOf(s)), defaultPrior);
      for (const life of fleet) scores.push(...scoreLife(life, law, noise, prior));
    }
  }
}

function table(title: string, key: (s: Score) => string): Record<string, unknown>[] {
  const groups = new Map<string, Score[]>();
  for (const s of scores) groups.set(key(s), [...(groups.get(key(s)) ?? []), s]);
  process.stdout.write(`\n${title.padEnd(30)} origins  cover  below  CRPS/true  med.bias  α-λ   last5  all    best curve\n`);
  return [...groups].map(([name, group]) => {
    const row = {
      group: name, origins: group.length, coverage: share(group.map((s) => s.covered)), below: share(group.map((s) => s.below)), crps: median(group.map((s) => s.relativeCrps)),
      bias: median(group.map((s) => s.bias)), alphaLambda: share(group.map((s) => s.alphaLambda)), ...Object.fromEntries(Object.keys(rivals).map((r) => [r, median(group.map((s) => s.rivals[r]!))])),
    } as Record<string, number | string>;
    const f = (v: unknown, d = 3) => (v as number).toFixed(d);
    process.stdout.write(`${name.padEnd(30)} ${String(group.length).padStart(6)}  ${f(row.coverage, 2)}   ${f(row.below, 2)}   ${f(row.crps)}      ${f(row.bias, 2).padStart(5)}     ${f(row.alphaLambda, 2)}  ${Object.keys(rivals).map((r) => f(row[r], 2)).join("   ")}\n`);
    return row;
  });
}

const order = bins.map(([low]) => binName(low));
scores.sort((a, b) => order.indexOf(binName(a.readings)) - order.indexOf(binName(b.readings)));
const known = scores.filter((s) => s.readings >= 6);
const tables = {
  laws,
  overall: table("all", () => "all"),
  byReadings: table("by number of readings", (s) => binName(s.readings)),
  byLaw: table("by law", (s) => s.law),
  byNoise: table("by noise", (s) => `noise ${s.noise}`),
  byLawAndReadings: table("by law and readings", (s) => `${s.law}, ${binName(s.readings)}`),
};
process.stdout.write(`\n6 readings and more: CRPS/true ${median(known.map((s) => s.relativeCrps)).toFixed(3)}, coverage ${share(known.map((s) => s.covered)).toFixed(3)}; assess: median ${median(scores.map((s) => s.ms)).toFixed(1)} ms, at 50-70 readings ${median(scores.filter((s) => s.readings >= 50 && s.readings <= 70).map((s) => s.ms)).toFixed(1)} ms\n`);
if (options.json) writeFileSync(options.json, `${JSON.stringify(tables, null, 1)}\n`);
