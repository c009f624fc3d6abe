/**
 * Where a test point would shorten the isolations to come: cases drawn at random for a circuit are walked as the house would
 * walk them, with the points that it has and with one more.
 */
import type { Netlist } from "../circuit/netlist";
import { random, type Random } from "../random/random";
import { beginCase, chancesOf, type IsolationCase, type TestAt } from "./case";
import { effortOf, servedByPoint } from "./effort";
import type { GaugeEvidence } from "./evidence";
import { symptomIds, symptoms, type SymptomId } from "./knowledge/symptoms";
import type { TestId } from "./knowledge/tests";
import { ranks, risks, type Rank } from "./knowledge/types";
import { predictionOf } from "./predicted";
import { bestTest, walk, type Step } from "./walk";

export interface TestPointAdvice {
  /** Cases that were drawn, and their mean minutes with what is there. */
  cases: number;
  minutes: number;
  /** The best first; empty: none saves anything worth it. */
  points: TestPoint[];
}

export interface TestPoint {
  /** The test that it serves, at its element. */
  at: string;
  element: string | null;
  text: string;
  /** Read in rounds: known before anything is wrong. Else a coupling, where the instrument is put on when it is needed. */
  inRounds: boolean;
  /** An instrument in the line instead of a gauge. */
  meter: boolean;
  /** Minutes saved an isolation, mean over all cases, with its standard error. */
  saved: number;
  error: number;
  /** How much less often the circuit is opened, an isolation. */
  opened: number;
  /** Is it worth more than chance may have brought, by twice its standard error? */
  sure: boolean;
}

const CASES = 80;
/** Places that are tried: those whose tests take most minutes now. */
const TRIED = 6;
const SHOWN = 3;
/** What is not sure and saves fewer minutes than this is not worth a line. */
const WORTH_A_LINE = 2;
/** At least so many standard errors above nothing. */
const SURE = 2;

/** What a machine shows while it works, so that a point read in rounds has it: no test of its own is needed. */
const READ_AT_WORK: readonly string[] = [
  "inlet.vacuum",
  "pump.caseDrain",
  "motor.caseDrain",
  "filter.drop",
  "reduced.pressure",
  "loop.charge",
] satisfies TestId[];

interface Drawn {
  symptom: SymptomId;
  truth: number;
  rng: Random;
}

type CaseOf = (symptom: SymptomId) => IsolationCase;

/** Symptoms by how often causes that this circuit can have bring them, and among those the cause. */
function drawCases(caseOf: CaseOf, count: number, seed: number): Drawn[] {
  const weighed = symptomIds.flatMap((symptom) => {
    const ranked = new Map<string, Rank>(
      (Object.entries(symptoms[symptom].causes) as [Rank, readonly string[]][]).flatMap(([rank, ids]) =>
        ids.map((id): [string, Rank] => [id, rank]),
      ),
    );
    const c = caseOf(symptom);
    const listed = c.suspects.map((s, i) => ({ i, rank: ranked.get(s.cause), weight: s.weight }));
    const own = listed.filter((s) => s.rank !== undefined);
    if (own.length < 2) return [];
    const weight = own.reduce((sum, s) => sum + ranks[s.rank!] * ranks[c.suspects[s.i]!.about.rank], 0);
    return [{ symptom, own, weight }];
  });
  const rng = random(seed).fork("test points");
  const oneOf = <T extends { weight: number }>(items: readonly T[]): T => {
    let left = rng.uniform() * items.reduce((s, x) => s + x.weight, 0);
    return items.find((x) => (left -= x.weight) <= 0) ?? items.at(-1)!;
  };
  if (weighed.length === 0) return [];
  return Array.from({ length: count }, (_, k) => {
    const { symptom, own } = oneOf(weighed);
    return { symptom, truth: oneOf(own).i, rng: rng.fork(`case ${k}`) };
  });
}

/** The same case shows the same, whatever else is fitted. */
function answerOf(c: IsolationCase, { truth, rng }: Drawn) {
  return (at: TestAt): string => {
    const chances = Object.entries(chancesOf(c, at, { suspects: [truth], weight: 1 }));
    let left = rng.fork(at.id).uniform();
    return (chances.find(([, p]) => (left -= p) <= 0) ?? chances[0]!)[0];
  };
}

interface Walked {
  minutes: number;
  steps: readonly Step[];
  /** How often the circuit was opened. */
  opened: number;
  /** Minutes with the risk counted as minutes, as the next best test is chosen by. */
  cost: number;
}

/** Walk a case as drawn, with what is fitted there or known from the start. */
function walked(c: IsolationCase, d: Drawn, fitted: ReadonlySet<string>, known?: TestAt): Walked {
  const own = { ...c, fitted };
  const answer = answerOf(own, d);
  const given = known && own.tests.some((t) => t.id === known.id) ? [{ at: known.id, result: answer(known) }] : [];
  const { steps, minutes } = walk(own, answer, bestTest, given);
  const taken = steps.map((s) => effortOf(own, s.test).risk);
  return {
    steps,
    minutes,
    opened: taken.filter((r) => r === "opens").length,
    cost: taken.reduce((sum, r) => sum + risks[r], minutes),
  };
}

const mean = (values: readonly number[]) => values.reduce((s, x) => s + x, 0) / Math.max(1, values.length);

/** Does a point of the circuit read there already what the test would? */
function isRead(netlist: Netlist, { test, element }: TestAt): boolean {
  const prediction = predictionOf(test);
  return netlist.gauges.some(
    (g) => g.element === element && prediction?.reads === g.reads && prediction.port === g.port,
  );
}

/**
 * The two or three test points that would most shorten the isolations to come.
 * @param netlist diagram of the circuit
 * @param evidence what its model predicts of tests, gauges left out; null: its model is not used
 * @param options how it is tried
 * @param options.cases how many cases are drawn
 * @param options.seed from which they are drawn
 * @returns the best first, by minutes and risk together
 * @example testPointAdvice(circuitOf({ tank: ["tank"] }, []), null, { cases: 1 }).points.length < 4 // true
 */
export function testPointAdvice(
  netlist: Netlist,
  evidence: GaugeEvidence | null,
  { cases = CASES, seed = 1 }: { cases?: number; seed?: number } = {},
): TestPointAdvice {
  const begun = new Map<SymptomId, IsolationCase>();
  const caseOf: CaseOf = (symptom) => {
    const c = begun.get(symptom) ?? beginCase(symptom, evidence && { netlist, evidence }, undefined, netlist);
    begun.set(symptom, c);
    return c;
  };
  const drawn = drawCases(caseOf, cases, seed);
  const none: ReadonlySet<string> = new Set();
  const before = drawn.map((d) => walked(caseOf(d.symptom), d, none));
  // what a test takes now, over all cases: a point is worth little more
  const spent = new Map<string, { test: TestAt; minutes: number }>();
  for (const { steps } of before)
    for (const { test, minutes } of steps)
      spent.set(test.id, { test, minutes: (spent.get(test.id)?.minutes ?? 0) + minutes });
  const served = [...spent.values()].filter(({ test }) => pointFor(netlist, test) !== null);
  const tried = served.sort((a, b) => b.minutes - a.minutes).slice(0, TRIED);
  const points = tried.map(({ test }) => {
    const inRounds = pointFor(netlist, test) === "in rounds";
    const after = drawn.map((d) =>
      walked(caseOf(d.symptom), d, inRounds ? none : new Set([test.id]), inRounds ? test : undefined),
    );
    const gained = (of: (w: Walked) => number) => {
      const gains = before.map((b, i) => of(b) - of(after[i]!));
      const by = mean(gains);
      const spread = Math.sqrt(mean(gains.map((g) => (g - by) ** 2)));
      return { by, error: spread / Math.sqrt(Math.max(1, gains.length - 1)) };
    };
    const [minutes, opened, cost] = [gained((w) => w.minutes), gained((w) => w.opened), gained((w) => w.cost)];
    return {
      at: test.id,
      element: test.element,
      text: test.text,
      inRounds,
      meter: test.about.prepare === "meter",
      saved: minutes.by,
      error: minutes.error,
      opened: opened.by,
      worth: cost.by,
      sure: cost.by > SURE * cost.error,
    };
  });
  return {
    cases: drawn.length,
    minutes: mean(before.map((b) => b.minutes)),
    points: points
      .filter((p) => p.worth > 0 && p.saved > (p.sure ? 0 : WORTH_A_LINE))
      .sort((a, b) => b.worth - a.worth)
      .slice(0, SHOWN)
      .map(({ worth: _worth, ...point }): TestPoint => point),
  };
}

/** What a test point would be for a test; null: none helps, or it is there. */
function pointFor(netlist: Netlist, at: TestAt): "in rounds" | "coupling" | null {
  if (at.element === null) return null;
  if (READ_AT_WORK.includes(at.test)) return isRead(netlist, at) ? null : "in rounds";
  return servedByPoint(at.about) ? "coupling" : null;
}
