/**
 * An isolation: what could be wrong, what is known, and the odds. One of its possibilities is true: a single cause, two at
 * once, or something that nobody has thought of.
 */
import { elementKinds } from "../circuit/kinds";
import type { Netlist } from "../circuit/netlist";
import { anyOf, clamped, posterior } from "../numeric/bayes";
import { causesOf, faultKey, faultsKey } from "./candidates";
import type { GaugeEvidence } from "./evidence";
import { causes } from "./knowledge/causes";
import { parts, type PartId } from "./knowledge/parts";
import { causesFor, leaningTo, testsFor, type KnownCause, type PlantKnowledge } from "./knowledge/plant";
import type { SymptomId } from "./knowledge/symptoms";
import { grades, ranks, type Cause, type Part, type Rank, type Test } from "./knowledge/types";
import { testAtOf, type Predicted } from "./predicted";
import { lower } from "./text";

/** One cause at one place. */
export interface Suspect {
  id: string;
  /** Of the house (CauseId), or of the plant. */
  cause: string;
  about: KnownCause["about"];
  /** Element of the circuit; null: the circuit as a whole, or no circuit is drawn. */
  element: string | null;
  /** "Pump A: worn, leaks into its case". */
  text: string;
  /** Before any evidence, beside the others. */
  weight: number;
}

/** A test at one place. */
export interface TestAt {
  id: string;
  /** Of the house (TestId), or of the plant. */
  test: string;
  about: Test;
  element: string | null;
  text: string;
}

/** One of these is true: no suspects, something else. */
export interface Possibility {
  suspects: number[];
  weight: number;
}

export interface TestResult {
  /** Id of a test at its place. */
  at: string;
  result: string;
}

export interface IsolationCase {
  symptom: SymptomId;
  suspects: Suspect[];
  tests: TestAt[];
  possibilities: Possibility[];
  /** What the gauges say; null: no circuit, or one that does not fit. */
  gauges: { evidence: GaugeEvidence; netlist: Netlist } | null;
  /** Tests at their places for which a test point is fitted. */
  fitted?: ReadonlySet<string>;
}

/** Of cases with one cause so many have a second one (common practice, not counted). */
const SECOND = 0.15;
/** And in so many it is something that nobody has thought of. */
const ELSE = 0.04;
/** Suspects that are paired with one another: the likeliest ones. */
const PAIRED = 14;
/** Counts of closed cases weigh against this many imagined ones (a Dirichlet prior). */
const IMAGINED = 20;
/** A fault that the symptom's table does not name is thought of all the same, where the circuit can have it. */
const UNLISTED: Rank = "rare";

/** Elements of a circuit that a part is; null alone: the circuit as a whole. */
function placesOf(part: PartId, netlist: Netlist | null): (string | null)[] {
  const { kinds, undrawn }: Part = parts[part];
  if (undrawn && netlist) return [];
  if (kinds.length === 0 || !netlist) return [null];
  return netlist.elements.filter((e) => (kinds as readonly string[]).includes(e.kind)).map((e) => e.id);
}

/** Does a line end at this port? */
const isDrawn = (netlist: Netlist | null, element: string, port: string) =>
  netlist?.lines.some((l) => [l.from, l.to].some((end) => end.element === element && end.port === port)) ?? false;

const nameOf = (netlist: Netlist | null, element: string | null) =>
  netlist?.elements.find((e) => e.id === element)?.name ?? null;

/** What a cause is called at an element, whose name says already what it is. */
function labelOf({ fault, label }: Cause, netlist: Netlist | null, element: string | null): string {
  const kind = netlist?.elements.find((e) => e.id === element)?.kind;
  return (kind && fault && elementKinds[kind].faults[fault]?.label) || label;
}

function suspectsOf(symptom: SymptomId, netlist: Netlist | null, plant: PlantKnowledge | undefined): Suspect[] {
  const known = new Map(causesFor(symptom, plant).map((c) => [c.id, c]));
  for (const e of netlist?.elements ?? [])
    for (const fault of Object.keys(elementKinds[e.kind].faults))
      for (const id of causesOf(e.kind, fault))
        if (!known.has(id)) known.set(id, { id, about: causes[id], weight: ranks[UNLISTED] });
  const sum = [...known.values()].reduce((s, c) => s + c.weight, 0);
  const counted = Object.values(plant?.found ?? {}).reduce<number>((s, n) => s + (n ?? 0), 0);
  return [...known.values()].flatMap(({ id: cause, about, weight }): Suspect[] => {
    const places = placesOf(about.part as PartId, netlist);
    const taught = (IMAGINED * (weight / sum) + (plant?.found[cause] ?? 0)) / (IMAGINED + counted);
    return places.map((element) => {
      const name = nameOf(netlist, element);
      const label = labelOf(about, netlist, element);
      return {
        id: element === null ? cause : `${cause}@${element}`,
        cause,
        about,
        element,
        text: name ? `${name}: ${lower(label)}` : label,
        weight: (taught / places.length) * leaningTo(plant?.leanings, cause, element),
      };
    });
  });
}

/** Pairs of suspects that the gauges name together, by their places in the list. */
function pairedByGauges(suspects: readonly Suspect[], evidence: GaugeEvidence | undefined): [number, number][] {
  const at = ({ element, fault }: { element: string; fault: string }) =>
    suspects.flatMap((s, i) => (s.element === element && s.about.fault === fault ? [i] : []));
  return (evidence?.pairs ?? []).flatMap(({ faults: [a, b] }) =>
    at(a).flatMap((i) => at(b).map((j): [number, number] => [Math.min(i, j), Math.max(i, j)])),
  );
}

function possibilitiesOf(suspects: readonly Suspect[], evidence: GaugeEvidence | undefined): Possibility[] {
  const sum = suspects.reduce((s, x) => s + x.weight, 0);
  const singles = suspects.map((s, i): Possibility => ({ suspects: [i], weight: s.weight }));
  const first = suspects
    .map((s, i) => ({ i, weight: s.weight }))
    .sort((a, b) => b.weight - a.weight)
    .slice(0, PAIRED);
  const likely = first.flatMap((a, k) => first.slice(k + 1).map((b): [number, number] => [a.i, b.i]));
  const known = new Set(likely.map(([i, j]) => `${Math.min(i, j)} ${Math.max(i, j)}`));
  const pairs = [...likely, ...pairedByGauges(suspects, evidence).filter(([i, j]) => !known.has(`${i} ${j}`))].map(
    ([i, j]): Possibility => ({ suspects: [i, j], weight: suspects[i]!.weight * suspects[j]!.weight }),
  );
  const pairSum = pairs.reduce((s, p) => s + p.weight, 0);
  return [
    ...singles,
    ...pairs.map((p) => ({ ...p, weight: (p.weight / pairSum) * SECOND * sum })),
    { suspects: [], weight: ELSE * sum },
  ];
}

/**
 * Begin an isolation: suspects, tests and possibilities that follow from a symptom.
 * @param symptom what was noticed
 * @param circuit its diagram and what its gauges say; null: none is drawn, or it does not fit its gauges
 * @param plant what the plant adds, and what its closed cases teach
 * @param outline the diagram alone, where its model is not used to judge: its parts are known all the same
 * @returns the case, with nothing tested yet
 * @example
 * const c = beginCase("lowPressure", null);
 * c.suspects.length > 5 // true
 * c.possibilities.some((one) => one.suspects.length === 0) // true
 */
export function beginCase(
  symptom: SymptomId,
  circuit: { netlist: Netlist; evidence: GaugeEvidence } | null,
  plant?: PlantKnowledge,
  outline: Netlist | null = circuit?.netlist ?? null,
): IsolationCase {
  const suspects = suspectsOf(symptom, outline, plant);
  const known = new Set<string>(suspects.flatMap((s) => [s.cause, ...(s.about.like ? [s.about.like] : [])]));
  const places = testsFor(plant).flatMap(([test, about]): TestAt[] => {
    const { at, port, label, shows } = about;
    // a test that shows none of what is suspected is not worth a line
    if (!Object.values(shows).some((given) => Object.keys(given).some((cause) => known.has(cause)))) return [];
    const places = at === undefined ? [null] : placesOf(at as PartId, outline);
    return places
      .filter((e) => e === null || !port || isDrawn(outline, e, port))
      .map((element) => {
        const name = nameOf(outline, element);
        return {
          id: testAtOf(test, element),
          test,
          about,
          element,
          text: name ? `${name}: ${lower(label)}` : label,
        };
      });
  });
  return {
    symptom,
    suspects,
    tests: places,
    possibilities: possibilitiesOf(suspects, circuit?.evidence),
    gauges: circuit && { evidence: circuit.evidence, netlist: circuit.netlist },
  };
}

/** What the model says of a test with one suspect; undefined: it has no answer, and the typed table holds. */
function predictedOf({ gauges }: IsolationCase, at: TestAt, { about, element }: Suspect): Predicted | undefined {
  const { fault } = about;
  if (!gauges || !fault || element === null) return undefined;
  return gauges.evidence.faults.find((f) => f.element === element && f.fault === fault)?.predicted[at.id];
}

/** Chance of each result of a test with one suspect alone: those that tell of something, and what is left for the first. */
function withSuspect(c: IsolationCase, at: TestAt, suspect: Suspect): Record<string, number> {
  const test = at.about;
  const here = at.element === null || suspect.element === null || suspect.element === at.element;
  const predicted = predictedOf(c, at, suspect);
  if (predicted) return predicted;
  const found: Record<string, number> = {};
  for (const result of Object.keys(test.results).slice(1)) {
    const shown = test.shows[result] ?? {};
    const given = here ? (shown[suspect.cause] ?? shown[suspect.about.like ?? ""]) : undefined;
    found[result] = Math.max(given ? grades[given] : 0, grades[test.falsely?.[result] ?? "hardly"]);
  }
  return found;
}

/** Something else brings each sign so many times as often as nothing does. */
const ELSE_SIGNS = 1.3;

/** Chance of every result of a test under a possibility; they add up to 1. */
export function chancesOf(c: IsolationCase, at: TestAt, possibility: Possibility): Record<string, number> {
  const test = at.about;
  const [usual, ...signs] = Object.keys(test.results) as [string, ...string[]];
  const alone = possibility.suspects.map((i) => withSuspect(c, at, c.suspects[i]!));
  const raw = signs.map((sign) =>
    alone.length === 0
      ? ELSE_SIGNS * grades[test.falsely?.[sign] ?? "hardly"]
      : anyOf(...alone.map((chances) => chances[sign] ?? grades.hardly)),
  );
  const none = raw.reduce((p, x) => p * (1 - x), 1);
  const sum = raw.reduce((s, x) => s + x, 0);
  // signs shut one another out: what no sign takes is the ordinary result
  const scale = sum === 0 ? 0 : (1 - none) / sum;
  const chances: Record<string, number> = { [usual]: clamped(none) };
  signs.forEach((sign, i) => (chances[sign] = clamped(raw[i]! * scale)));
  const all = Object.values(chances).reduce((s, x) => s + x, 0);
  for (const result of Object.keys(chances)) chances[result]! /= all;
  return chances;
}

const tables = new WeakMap<readonly Possibility[], Map<string, Record<string, number>[]>>();

/** Chances of every result of a test under every possibility; worked out once a case, since each advice asks for all. */
export function chancesUnderAll(c: IsolationCase, at: TestAt): Record<string, number>[] {
  const known = tables.get(c.possibilities) ?? new Map<string, Record<string, number>[]>();
  tables.set(c.possibilities, known);
  const found = known.get(at.id) ?? c.possibilities.map((p) => chancesOf(c, at, p));
  known.set(at.id, found);
  return found;
}

/** ln of the likelihood of the gauges under each possibility; null: no gauges that a model has an answer for. */
export function gaugeLogs(c: IsolationCase): number[] | null {
  if (!c.gauges) return null;
  const { evidence, netlist } = c.gauges;
  const byFault = new Map(evidence.faults.map((f) => [faultKey(f), f.log]));
  // what the model does not have leaves the gauges as they are, or moves some of them
  const most = Math.max(evidence.healthy, evidence.unknown);
  const outside = most + Math.log((Math.exp(evidence.healthy - most) + Math.exp(evidence.unknown - most)) / 2);
  const logOf = (s: Suspect) => {
    const { fault, part } = s.about;
    if (!fault) return outside;
    if (s.element !== null) return byFault.get(faultKey({ element: s.element, fault })) ?? outside;
    // a command or a drive belongs to what it moves: any of them may be it
    const logs = netlist.elements.flatMap((e) =>
      causesOf(e.kind, fault).some((id) => causes[id].part === part)
        ? (byFault.get(faultKey({ element: e.id, fault })) ?? [])
        : [],
    );
    return logs.length > 0 ? Math.max(...logs) - Math.log(logs.length) : outside;
  };
  const single = c.suspects.map(logOf);
  const together = new Map((evidence.pairs ?? []).map((p) => [faultsKey(p.faults), p.log]));
  return c.possibilities.map(({ suspects }) => {
    const [a, b] = suspects as [number?, number?];
    if (a === undefined) return evidence.unknown;
    if (b === undefined) return single[a]!;
    const both = [a, b].map((i) => ({ element: c.suspects[i]!.element, fault: c.suspects[i]!.about.fault }));
    // two that were not tried together explain what either does, and mend nothing that one spoils
    return together.get(faultsKey(both)) ?? Math.max(single[a]!, single[b]!);
  });
}

export interface Odds {
  /** By suspect: chance that it is there, alone or with another. */
  suspects: number[];
  /** Chance that it is something else. */
  other: number;
  possibilities: number[];
}

/** What is left out of the evidence by hand. */
export interface Doubts {
  gauges?: boolean;
}

/**
 * Results as evidence, each test once: made again it tells no more of the cause than it did, so that repeats are one result, between
 * those that they showed. A gauge that was read and is then made as a test is one too, where both say the same.
 */
function countedOnce(
  c: IsolationCase,
  results: readonly TestResult[],
  withGauges: boolean,
): { test: TestAt; shown: string[] }[] {
  const byTest = new Map<string, { test: TestAt; shown: string[] }>();
  for (const { at, result } of results) {
    const test = c.tests.find((t) => t.id === at);
    if (!test || !Object.hasOwn(test.about.results, result)) continue;
    const known = byTest.get(at) ?? { test, shown: [] };
    known.shown.push(result);
    byTest.set(at, known);
  }
  const evidence = withGauges ? c.gauges?.evidence : undefined;
  const saidByGauge = ({ test, shown }: { test: TestAt; shown: string[] }) => {
    const point = evidence?.asTest?.[test.id];
    if (point === undefined) return false;
    const [usual] = Object.keys(test.about.results);
    return shown.every((result) => (result !== usual) === evidence!.off.includes(point));
  };
  return [...byTest.values()].filter((one) => !saidByGauge(one));
}

/**
 * The odds of an isolation after what is known.
 * @param c the case
 * @param results in the order in which they came; one of a test that this case does not have counts for nothing, and a test
 * that was made again counts once
 * @param doubts evidence that somebody took out
 * @returns chance of each suspect (two may both be true), of something else, and of each possibility; the latter add up to 1
 * @example
 * const { possibilities } = oddsOf(beginCase("lowPressure", null), []);
 * possibilities.reduce((sum, share) => sum + share, 0) // 1
 */
export function oddsOf(c: IsolationCase, results: readonly TestResult[], doubts: Doubts = {}): Odds {
  const gauges = doubts.gauges ? null : gaugeLogs(c);
  const evidence = countedOnce(c, results, gauges !== null).map(({ test, shown }) =>
    chancesUnderAll(c, test).map((chances) =>
      Math.log(shown.reduce((sum, result) => sum + chances[result]!, 0) / shown.length),
    ),
  );
  const possibilities = posterior(
    c.possibilities.map((p) => p.weight),
    gauges ? [gauges, ...evidence] : evidence,
  );
  const suspects = c.suspects.map(() => 0);
  let other = 0;
  c.possibilities.forEach((p, k) => {
    if (p.suspects.length === 0) other += possibilities[k]!;
    for (const i of p.suspects) suspects[i]! += possibilities[k]!;
  });
  return { suspects, other, possibilities };
}
