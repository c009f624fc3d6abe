/**
 * A hidden fault to practise on: a template's circuit, a symptom, tests whose results come from the circuit with the
 * fault in it or from the tables. The same seed is the same case everywhere, so that a class can share it.
 */
import { gaugeReader, workCommands } from "../circuit/gauges";
import { elementKinds } from "../circuit/kinds";
import type { Netlist } from "../circuit/netlist";
import { templateNetlist } from "../circuit/ofTemplate";
import { templateIds, type TemplateId } from "../equipment/templates";
import { random, type Random } from "../random/random";
import { beginCase, chancesOf, oddsOf, type IsolationCase, type Suspect, type TestAt, type TestResult } from "./case";
import { actOf } from "./knowledge/causes";
import { symptomIds, symptoms, type SymptomId } from "./knowledge/symptoms";
import { preparations, type Preparation } from "./knowledge/types";
import { adviceOf } from "./next";
import { predictionOf, withTestGauges } from "./predicted";
import { actCost, moneyOf, renewalCost, renewedIn } from "./practiceCost";
import { walk } from "./walk";

export const practiceLevels = {
  1: { label: "Plain", says: "One gross fault; tests show what they should." },
  2: { label: "As in life", says: "One fault of any size; tests show what they usually show." },
  3: { label: "Misleading", says: "A small fault; one test in eight shows what it should not." },
} as const;
export type PracticeLevel = keyof typeof practiceLevels;

/** Seeds that a class can tell one another. */
export const MOST_SEED = 9999;

/** A test's result, and what the instrument showed where there is one: as a factor of what is usual. */
export interface Shown {
  result: string;
  times: number | null;
}

export interface PracticeCase {
  template: TemplateId;
  symptom: SymptomId;
  netlist: Netlist;
  /** As the house would begin it. */
  own: IsolationCase;
  /** The hidden suspect, by its place in the case. */
  truth: number;
  show: (test: TestAt) => Shown;
}

/** Severity as a power of ten of the greatest: gross, any, small. */
const SEVERITIES: Record<PracticeLevel, [number, number]> = { 1: [-0.4, -0.1], 2: [-1.5, -0.2], 3: [-1.7, -1] };
/** One test in so many misleads, at the last level. */
const MISLEADS = 8;

/** What a test with a gauge shows on the circuit with its fault, as a factor of healthy; null: the model has no answer. */
function gaugesOf(netlist: Netlist, own: IsolationCase, truth: number, severity: number) {
  const { element, about } = own.suspects[truth]!;
  const { fault } = about;
  if (element === null || !fault) return () => null;
  const added = withTestGauges(netlist);
  const read = gaugeReader(added.netlist, new Map(added.states));
  const usual = { commands: workCommands(netlist) };
  const healthy = new Map(read(usual).values);
  const now = read({ ...usual, faults: { [element]: { [fault]: severity } } }).values;
  return (test: TestAt, rng: Random): number | null => {
    const [before, after] = [healthy.get(test.id), now.get(test.id)];
    if (typeof before !== "number" || typeof after !== "number" || Math.abs(before) < 1e-6) return null;
    return (after / before) * (1 + (predictionOf(test.test)?.good ?? 0) * rng.normal());
  };
}

/** What a case hides, as a plain record: kept with a run, it outlives changes of the knowledge and of the templates. */
export interface PracticeHidden {
  template: TemplateId;
  symptom: SymptomId;
  /** Id of the suspect that it is. */
  suspect: string;
  severity: number;
}

const caseOn = (template: TemplateId, symptom: SymptomId) => {
  const netlist = templateNetlist(template);
  return { netlist, own: beginCase(symptom, null, undefined, netlist) };
};

/**
 * Draw what the practice case of a level and a seed hides.
 * @param level 1 to 3
 * @param seed 1 to 9999
 * @returns the same for the same seed, as long as knowledge and templates stay as they are
 * @example drawPractice(1, 7).severity > 0 // true
 */
export function drawPractice(level: PracticeLevel, seed: number): PracticeHidden {
  const rng = random(seed * 10 + level).fork("practice");
  for (;;) {
    const template = rng.pick(templateIds);
    const symptom = rng.pick(symptomIds);
    const { netlist, own } = caseOn(template, symptom);
    const listed = new Set<string>(Object.values(symptoms[symptom].causes).flat());
    const likely = own.suspects.filter((s) => listed.has(s.cause));
    if (likely.length < 4) continue;
    const { element, about, id: suspect } = rng.pick(likely);
    const kind = netlist.elements.find((e) => e.id === element)?.kind;
    const { fault } = about;
    const greatest = (kind && fault && elementKinds[kind].faults[fault]?.greatest) || 1;
    return { template, symptom, suspect, severity: greatest * 10 ** rng.between(...SEVERITIES[level]) };
  }
}

/**
 * The practice case that hides this.
 * @param hidden template, symptom, suspect and severity
 * @param level 1 to 3
 * @param seed 1 to 9999: what the tests show follows from it
 * @returns null: its cause, symptom or template is no longer in the knowledge
 * @example
 * const hidden = drawPractice(1, 7);
 * const c = practiceCase(hidden, 1, 7);
 * c.own.suspects[c.truth].id === hidden.suspect // true
 * practiceCase({ ...hidden, suspect: "nothing" }, 1, 7) // null
 */
export function practiceCase(hidden: PracticeHidden, level: PracticeLevel, seed: number): PracticeCase | null {
  const { template, symptom, suspect, severity } = hidden;
  if (!templateIds.includes(template) || !symptomIds.includes(symptom)) return null;
  const { netlist, own } = caseOn(template, symptom);
  const truth = own.suspects.findIndex((s) => s.id === suspect);
  if (truth < 0) return null;
  const rng = random(seed * 10 + level).fork("practice tests");
  // solved when the first test asks for it: a list of cases does not
  let gauge: ReturnType<typeof gaugesOf> | undefined;
  return {
    template,
    symptom,
    netlist,
    own,
    truth,
    show: (test) => {
      gauge ??= gaugesOf(netlist, own, truth, severity);
      return resultOf(own, test, truth, level, gauge, rng.fork(test.id));
    },
  };
}

function resultOf(
  own: IsolationCase,
  at: TestAt,
  truth: number,
  level: PracticeLevel,
  gauge: (test: TestAt, rng: Random) => number | null,
  rng: Random,
): Shown {
  const results = Object.keys(at.about.results) as [string, ...string[]];
  if (level === 3 && rng.uniform() < 1 / MISLEADS) return { result: rng.pick(results), times: null };
  const prediction = predictionOf(at.test);
  const times = prediction ? gauge(at, rng) : null;
  if (prediction && times !== null) {
    const less = times - 1 < -prediction.called ? prediction.less : undefined;
    const more = times - 1 > prediction.called ? prediction.more : undefined;
    return { result: less ?? more ?? results[0], times };
  }
  const chances = chancesOf(own, at, { suspects: [truth], weight: 1 });
  if (level === 1) return { result: results.reduce((a, b) => (chances[b]! > chances[a]! ? b : a)), times: null };
  let left = rng.uniform();
  return { result: results.find((r) => (left -= chances[r]!) <= 0) ?? results[0], times: null };
}

const isPump = (netlist: Netlist, element: string | null) =>
  /pump/i.test(netlist.elements.find((e) => e.id === element)?.kind ?? "");

/** What was done that should not have been. */
export type UnsafeAct =
  "opened early" | "deadheaded early" | "outside the book" | "blamed the pump" | "renewed in vain" | "not cured";

export const unsafeActs: Record<UnsafeAct, string> = {
  "opened early": "The circuit was opened while a safer test still told enough",
  "deadheaded early": "An outlet was closed against the pump while a safer test still told enough",
  "outside the book": "A method outside the manufacturer's book was used",
  "blamed the pump": "The pump was blamed without a look outside",
  "renewed in vain": "A part was renewed that was not the cause",
  "not cured": "What was named is not the cause: it would have stayed",
};

export interface Debrief {
  right: boolean;
  /** Right part and right act, under another name. */
  rightAct: boolean;
  minutes: number;
  unsafe: UnsafeAct[];
  /** Tests, parts renewed on a guess, what was named, and where that cures nothing what it is in truth; usual figures. */
  cost: number;
  /** 0 to 100. */
  score: number;
  /** What the house would have done. */
  best: { tests: { text: string; result: string; minutes: number }[]; minutes: number; cost: number };
}

/** Points that a wrong cause, minutes and money beyond the best path's, and each unsafe act cost. */
const COSTS = { wrong: 40, slow: 20, dear: 10, unsafe: 15 };
/** Beyond so many times the minutes, or the money, of the best path nothing more is lost. */
const FARTHEST = 3;

/** Nothing where it is no more than the best path's, 1 where it is three times as much. */
const beyondBest = (own: number, best: number) =>
  best === 0 ? 0 : Math.min(1, Math.max(0, (own / best - 1) / (FARTHEST - 1)));

/**
 * Minutes of tests and renewals in the order in which they were made; what is made ready serves the next.
 * @param c the case
 * @param made ids of tests and renewals
 * @returns minutes
 * @example minutesOf(practiceCase(drawPractice(1, 7), 1, 7), []) // 0
 */
export function minutesOf({ own, netlist }: Pick<PracticeCase, "own" | "netlist">, made: readonly string[]): number {
  const ready = new Set<Preparation>(["none"]);
  return made.reduce((sum, id) => {
    const renewed = renewedIn(id);
    if (renewed) return sum + renewalCost(netlist, renewed).minutes;
    const at = own.tests.find((t) => t.id === id);
    if (!at) return sum;
    const { minutes, prepare } = at.about;
    const all = minutes + (ready.has(prepare) ? 0 : preparations[prepare].minutes);
    if (prepare !== "isolated") ready.add(prepare);
    return sum + all;
  }, 0);
}

/**
 * Does renewing an element cure the case? What sits there and is no wrong setting goes with it.
 * @param c the case
 * @param element that was renewed
 * @returns true where it does
 * @example curedBy(practiceCase(drawPractice(1, 7), 1, 7), "nothing") // false
 */
export function curedBy({ own, truth }: PracticeCase, element: string): boolean {
  const hidden = own.suspects[truth]!;
  return hidden.element === element && ["replace", "repair", "clean", "free"].includes(hidden.about.act.do);
}

/** What a way through a case costs: its tests, its renewals, and what was done in the end. */
function costOf(c: PracticeCase, minutes: number, renewed: readonly string[], acts: readonly Suspect[]): number {
  const parts = renewed.reduce((sum, element) => {
    const { cost, minutes: taken } = renewalCost(c.netlist, element);
    return sum + cost - moneyOf(taken);
  }, 0);
  return moneyOf(minutes) + parts + acts.reduce((sum, s) => sum + actCost(c.netlist, s), 0);
}

/**
 * How a case was worked, beside the best path.
 * @param c the case
 * @param made ids of tests in order
 * @param named id of the suspect that was named
 * @returns points, minutes, money and unsafe acts, with those of the best path
 * @example
 * const c = practiceCase(drawPractice(1, 7), 1, 7);
 * debriefOf(c, [], c.own.suspects[c.truth].id).right // true
 */
export function debriefOf(c: PracticeCase, made: readonly string[], named: string): Debrief {
  const { own, truth } = c;
  const results: TestResult[] = [];
  const unsafe = new Set<UnsafeAct>();
  const renewed = made.flatMap((id) => renewedIn(id) ?? []);
  for (const id of made) {
    const at = own.tests.find((t) => t.id === id);
    if (!at) continue;
    const { risk, outsideBook } = at.about;
    const { saferTells } = adviceOf(own, oddsOf(own, results), new Set(results.map((r) => r.at)));
    if (outsideBook) unsafe.add("outside the book");
    else if (risk === "opens" && saferTells) unsafe.add("opened early");
    else if (risk === "deadhead" && saferTells) unsafe.add("deadheaded early");
    results.push({ at: id, result: c.show(at).result });
  }
  const suspect = own.suspects.find((s) => s.id === named);
  const hidden = own.suspects[truth]!;
  const right = suspect?.id === hidden.id;
  const rightAct =
    suspect !== undefined && actOf(suspect.about, suspect.element) === actOf(hidden.about, hidden.element);
  if (!rightAct) unsafe.add("not cured");
  const isOutside = (id: string) => /^(look|ask|listen)/.test(id);
  const looked = made.findIndex(isOutside);
  const pumpRenewed = made.findIndex((id) => isPump(c.netlist, renewedIn(id)));
  if (suspect && ["pump", "variable"].includes(suspect.about.part) && looked < 0) unsafe.add("blamed the pump");
  if (pumpRenewed >= 0 && (looked < 0 || looked > pumpRenewed)) unsafe.add("blamed the pump");
  if (renewed.some((element) => !curedBy(c, element))) unsafe.add("renewed in vain");
  const minutes = minutesOf(c, made);
  const walked = walk(own, (at) => c.show(at).result);
  // what is cured by a new part asks for nothing more
  const cured = renewed.some((element) => curedBy(c, element));
  const acts = cured ? [] : [...(suspect && !rightAct ? [suspect] : []), hidden];
  const cost = costOf(c, minutes, renewed, acts);
  const bestCost = costOf(c, walked.minutes, [], [hidden]);
  const score =
    100 -
    (rightAct ? 0 : COSTS.wrong) -
    COSTS.slow * beyondBest(minutes, walked.minutes) -
    COSTS.dear * beyondBest(cost, bestCost) -
    COSTS.unsafe * unsafe.size;
  return {
    right,
    rightAct,
    minutes,
    cost: Math.round(cost),
    unsafe: [...unsafe],
    score: Math.round(Math.max(0, score)),
    best: {
      minutes: walked.minutes,
      cost: Math.round(bestCost),
      tests: walked.steps.map((s) => ({
        text: s.test.text,
        result: s.test.about.results[s.result]!,
        minutes: s.minutes,
      })),
    },
  };
}
