/** Tables of scores that scripts/bench/universe.ts printed: tsx scripts/bench/universeTable.ts scores.jsonl [...]. */
import { readFileSync } from "node:fs";
import type { UniverseScore } from "./universe";

const rows = process.argv
  .slice(2)
  .filter((a) => !a.startsWith("-"))
  .flatMap((file) =>
    readFileSync(file, "utf8")
      .split("\n")
      .filter(Boolean)
      .map((line) => JSON.parse(line) as UniverseScore),
  );
const CAP = 3;
const at = (q: readonly (number | null)[], p: number) => q[Math.round(100 * p) - 1] ?? Infinity;
const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? NaN;
const mean = (values: number[]) => values.reduce((s, v) => s + v, 0) / values.length;
const share = (values: boolean[]) => mean(values.map(Number));

function cells(
  group: UniverseScore[],
  of: (s: UniverseScore) => { quantiles: (number | null)[]; crps: number },
): string[] {
  const f = (v: number, digits = 2) => (Number.isFinite(v) ? v.toFixed(digits) : "–");
  return [
    String(group.length),
    f(share(group.map((s) => s.truth >= at(of(s).quantiles, 0.1) && s.truth <= at(of(s).quantiles, 0.9)))),
    f(share(group.map((s) => s.truth < at(of(s).quantiles, 0.1)))),
    f(share(group.map((s) => s.truth < at(of(s).quantiles, 0.05))), 3),
    f(median(group.map((s) => of(s).crps)), 3),
    f(mean(group.map((s) => Math.min(CAP, of(s).crps))), 3),
    f(median(group.map((s) => at(of(s).quantiles, 0.5) / s.truth - 1))),
  ];
}
const bins = (values: readonly number[], v: number) => values.findIndex((x) => v <= x);
const keys: Record<string, (s: UniverseScore) => string> = {
  all: () => "all",
  readings: (s) =>
    ["3-5", "6-10", "11-20", "21-50", "over 50"][bins([5, 10, 20, 50, Infinity], s.readings)]! + " readings",
  age: (s) => `at ${s.age} of the life`,
  family: (s) => s.family,
  life: (s) => (s.life < 6000 ? "life under 6000 h" : s.life < 20000 ? "life to 20 000 h" : "life over 20 000 h"),
  change: (s) =>
    s.sinceChange === null
      ? "no change yet"
      : ["0-3", "4-8", "9-20", "over 20"][bins([3, 8, 20, Infinity], s.sinceChange)]! + " readings since a change",
  noise: (s) => `noise ${s.noise}`,
};
const say = (text: string) => process.stdout.write(`${text}\n`);
const six = rows.filter((s) => s.readings >= 6);
say("| | origins | covered | before P10 | before P5 | CRPS/true, median | mean, capped at 3 | P50 late |");
say("|---|---|---|---|---|---|---|---|");
for (const [name, key] of Object.entries(keys)) {
  const groups = new Map<string, UniverseScore[]>();
  for (const s of name === "readings" ? rows : six) groups.set(key(s), [...(groups.get(key(s)) ?? []), s]);
  for (const [title, group] of [...groups].sort(([a], [b]) => a.localeCompare(b)))
    say(`| ${name === "all" ? "**all, six readings and more**" : title} | ${cells(group, (s) => s).join(" | ")} |`);
}
if (process.argv.includes("--rival")) say(`| rival | ${cells(six, (s) => s.rival).join(" | ")} |`);
const long = rows.filter((s) => s.readings >= 50 && s.readings <= 70);
const ms = (of: UniverseScore[]) => median(of.map((s) => s.ms)).toFixed(1);
say(`median ${ms(rows)} ms, at 50-70 readings ${ms(long)} ms`);
