/** Blind trials of the isolation: the house beside a fixed checklist, a random order, and one who knows the truth. */
import { isolationTests, preparations, random, risks, type TestAt } from "@core";
import { actOf } from "../../core/isolation/knowledge/causes";
import type { Advice } from "../../core/isolation/next";
import { oddsOf } from "../../core/isolation/case";
import { bestTest, walk, type Chooser, type Walk } from "../../core/isolation/walk";
import { testIds } from "../../core/isolation/knowledge/tests";
import { drawTruth, houseCase, trialCircuits, type Truth } from "./world";

const say = (text: string) => process.stdout.write(`${text}\n`);
const CASES = Number(process.argv[2] ?? 400);
const circuits = trialCircuits();

const sure = ({ decided }: Advice) => decided;
/** From outside to inside, cheap before dear: the order in which a careful list stands. */
const listOrder: readonly string[] = [...testIds].sort(
  (a, b) =>
    risks[isolationTests[a].risk] - risks[isolationTests[b].risk] || cost(isolationTests[a]) - cost(isolationTests[b]),
);
function cost({ minutes, prepare }: TestAt["about"]) {
  return minutes + preparations[prepare].minutes;
}

interface Way {
  name: string;
  choose: (truth: Truth, seed: number) => Chooser;
}

const notYet = (all: readonly TestAt[], results: readonly { at: string }[]) =>
  all.filter((t) => !results.some((r) => r.at === t.id));

function ways(all: readonly TestAt[], own: ReturnType<typeof houseCase>): Way[] {
  return [
    { name: "house", choose: () => bestTest },
    {
      name: "checklist",
      choose: () => (advice, _odds, results) =>
        sure(advice)
          ? undefined
          : notYet(all, results).sort((a, b) => listOrder.indexOf(a.test) - listOrder.indexOf(b.test))[0],
    },
    {
      name: "random order",
      choose: (_truth, seed) => {
        const rng = random(seed).fork("order");
        return (advice, _odds, results) => {
          const left = notYet(all, results);
          return sure(advice) || left.length === 0 ? undefined : rng.pick(left);
        };
      },
    },
    {
      name: "knows the truth",
      // the test whose result, known beforehand, raises the true cause most for its minutes
      choose: (truth) => (advice, odds, results) => {
        if (sure(advice)) return undefined;
        const [first] = truth.present;
        const gain = (t: TestAt) => {
          const after = oddsOf(own, [...results, { at: t.id, result: truth.answer(t)! }]).suspects[first!]!;
          return (after - odds.suspects[first!]!) / cost(t.about);
        };
        return notYet(all, results)
          .map((t) => ({ t, gain: gain(t) }))
          .filter((x) => x.gain > 0)
          .sort((a, b) => b.gain - a.gain)[0]?.t;
      },
    },
  ];
}

interface Outcome {
  family: string;
  right: boolean;
  rightAct: boolean;
  minutes: number;
  tests: number;
  /** Tests that open the circuit or close an outlet, before the last one. */
  opened: number;
  said: number;
  odd: boolean;
}

function outcomeOf(truth: Truth, own: ReturnType<typeof houseCase>, w: Walk): Outcome {
  const top = w.odds.suspects.reduce((best, p, i) => (p > w.odds.suspects[best]! ? i : best), 0);
  const act = (i: number) => actOf(own.suspects[i]!.about, own.suspects[i]!.element);
  return {
    family: truth.symptom,
    right: truth.present.includes(top),
    rightAct: truth.present.some((i) => act(i) === act(top)),
    minutes: w.minutes,
    tests: w.steps.length,
    opened: w.steps.filter((s) => risks[s.test.about.risk] >= risks.deadhead).length,
    said: w.odds.suspects[top]!,
    odd: truth.present.length > 1 || truth.misleading,
  };
}

const mean = (values: number[]) => values.reduce((s, v) => s + v, 0) / Math.max(1, values.length);
const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/** Mean distance between what was said and what was right, by tenths of what was said. */
function calibration(outcomes: readonly Outcome[]) {
  const bins = Array.from({ length: 10 }, (_, i) => outcomes.filter((o) => Math.min(9, Math.floor(10 * o.said)) === i));
  const error = bins.reduce(
    (s, bin) =>
      s +
      (bin.length / outcomes.length) * Math.abs(mean(bin.map((o) => o.said)) - mean(bin.map((o) => Number(o.right)))),
    0,
  );
  return {
    error,
    bins: bins.map((bin) => ({
      n: bin.length,
      said: mean(bin.map((o) => o.said)),
      right: mean(bin.map((o) => Number(o.right))),
    })),
  };
}

const seed = Number(process.argv[3] ?? 7);
const world = random(seed).fork("world");
const found = new Map<string, Outcome[]>();
for (let i = 0; i < CASES; i++) {
  const rng = random(seed * 100_000 + i);
  const truth = drawTruth(circuits, world, rng);
  const own = houseCase(truth);
  for (const way of ways(own.tests, own)) {
    const w = walk(own, truth.answer, way.choose(truth, i));
    const list = found.get(way.name) ?? [];
    list.push(outcomeOf(truth, own, w));
    found.set(way.name, list);
  }
}
const percent = (x: number) => `${(100 * x).toFixed(0)} %`;
say(`${CASES} cases, seed ${seed}\n`);
say("| way | right cause | right act | minutes, median | mean | tests | opened or deadheaded | calibration error |");
say("|---|---|---|---|---|---|---|---|");
for (const [name, o] of found)
  say(
    `| ${name} | ${percent(mean(o.map((x) => Number(x.right))))} | ${percent(mean(o.map((x) => Number(x.rightAct))))} | ` +
      `${median(o.map((x) => x.minutes))} | ${mean(o.map((x) => x.minutes)).toFixed(0)} | ${mean(o.map((x) => x.tests)).toFixed(1)} | ` +
      `${mean(o.map((x) => x.opened)).toFixed(2)} | ${(100 * calibration(o).error).toFixed(1)} points |`,
  );
const house = found.get("house")!;
say("\n| said | cases | right |\n|---|---|---|");
for (const b of calibration(house).bins) if (b.n > 0) say(`| ${percent(b.said)} | ${b.n} | ${percent(b.right)} |`);
say("\n| symptom | cases | right cause | right act | minutes, median | checklist |\n|---|---|---|---|---|---|");
const list = found.get("checklist")!;
for (const family of [...new Set(house.map((o) => o.family))].sort()) {
  const own = house.filter((o) => o.family === family);
  const theirs = list.filter((o) => o.family === family);
  say(
    `| ${family} | ${own.length} | ${percent(mean(own.map((x) => Number(x.right))))} | ${percent(mean(own.map((x) => Number(x.rightAct))))} | ` +
      `${median(own.map((x) => x.minutes))} | ${median(theirs.map((x) => x.minutes))} |`,
  );
}
for (const odd of [false, true]) {
  const own = house.filter((o) => o.odd === odd);
  const kind = odd ? "second fault or misleading sign" : "one fault, no misleading sign";
  const right = percent(mean(own.map((x) => Number(x.right))));
  const act = percent(mean(own.map((x) => Number(x.rightAct))));
  say(`\n${kind}: ${own.length} cases, right ${right}, act ${act}`);
}
