/**
 * Would a last map from the bank's quantiles to stated ones help? It is learned on the scores of one part of the universe
 * (scripts/bench/universe.ts --part tuned), by number of readings and readings since a change, and tried on the other
 * (--part reported).
 *
 *   npx tsx scripts/bench/calibration.ts tuned.jsonl reported.jsonl
 */
import { readFileSync } from "node:fs";
import { crps } from "../../core/forecast/score";
import type { UniverseScore } from "./universe";

const LEVELS = Array.from({ length: 99 }, (_, i) => (i + 1) / 100);
/** Fewer origins than this learn no map of their own. */
const FEWEST = 60;

const read = (path: string) =>
  readFileSync(path, "utf8")
    .split("\n")
    .filter(Boolean)
    .map((line) => JSON.parse(line) as UniverseScore);
const [tuned, reported] = process.argv.slice(2).map(read) as [UniverseScore[], UniverseScore[]];

const groupOf = ({ readings, sinceChange }: UniverseScore) =>
  `${readings <= 5 ? "3-5" : readings <= 10 ? "6-10" : readings <= 20 ? "11-20" : readings <= 50 ? "21-50" : "over 50"}, ` +
  (sinceChange === null ? "no change" : sinceChange <= 8 ? "changed lately" : "changed long ago");

/** Share of the forecast that lies below what came. */
const pitOf = ({ quantiles, truth }: UniverseScore) => quantiles.filter((q) => q !== null && q <= truth).length / 100;

/** By group: what share of the truths lay below each stated level, smoothed to be rising. */
const pits = new Map<string, number[]>();
for (const s of tuned) pits.set(groupOf(s), [...(pits.get(groupOf(s)) ?? []), pitOf(s)]);
const every = tuned.map(pitOf).sort((a, b) => a - b);
const sortedOf = (group: string) => {
  const own = pits.get(group) ?? [];
  return own.length >= FEWEST ? [...own].sort((a, b) => a - b) : every;
};

/** The quantiles as the map states them: level p is where a share p of the truths lay below. */
function mapped(s: UniverseScore): (number | null)[] {
  const own = sortedOf(groupOf(s));
  return LEVELS.map((p) => {
    const level = own[Math.min(own.length - 1, Math.floor(p * own.length))]!;
    const place = Math.min(98, Math.max(0, Math.round(level * 100) - 1));
    return s.quantiles[place]!;
  });
}

const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length;
const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!;
/** Beyond the horizon counts as ten times the truth, in both alike. */
const finite = (s: UniverseScore, q: readonly (number | null)[]) => q.map((v) => Math.min(v ?? Infinity, 10 * s.truth));

function told(all: readonly UniverseScore[], quantilesOf: (s: UniverseScore) => (number | null)[]): string {
  const at = all.map((s) => ({ s, q: finite(s, quantilesOf(s)) }));
  const share = (test: (s: UniverseScore, q: number[]) => boolean) => mean(at.map(({ s, q }) => (test(s, q) ? 1 : 0)));
  const errors = at.map(({ s, q }) => crps(q, s.truth) / s.truth);
  return [
    share((s, q) => s.truth >= q[9]! && s.truth <= q[89]!).toFixed(3),
    share((s, q) => s.truth < q[9]!).toFixed(3),
    share((s, q) => s.truth < q[4]!).toFixed(3),
    median(errors).toFixed(3),
    mean(errors.map((e) => Math.min(3, e))).toFixed(3),
  ].join(" | ");
}

const six = reported.filter((s) => s.readings >= 6);
process.stdout.write(
  "| | origins | covers | before P10 | before P5 | CRPS/true, median | mean |\n|---|---|---|---|---|---|---|\n",
);
for (const [name, of] of [
  ["as the bank says", (s: UniverseScore) => s.quantiles],
  ["through the map", mapped],
] as const) {
  process.stdout.write(`| ${name} | ${six.length} | ${told(six, of)} |\n`);
  for (const group of [...new Set(six.map(groupOf))].sort()) {
    const own = six.filter((s) => groupOf(s) === group);
    if (own.length >= 60) process.stdout.write(`| ${name}: ${group} | ${own.length} | ${told(own, of)} |\n`);
  }
}
