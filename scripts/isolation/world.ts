/**
 * A world in which faults happen and tests are made, that the knowledge of the house does not see: circuits whose figures
 * differ from those that the model was given, signs that come more and less often than the tables say, instruments with
 * errors, misleading signs and second faults.
 */
import {
  elementKinds,
  fitCircuit,
  gaugeEvidence,
  gaugeReader,
  templateIds,
  workCommands,
  beginCase,
  symptomIds,
  symptoms,
  type Circumstances,
  type IsolationCase,
  type Netlist,
  type Random,
  type ReadingState,
  type SymptomId,
  type TemplateId,
  type TestAt,
} from "@core";
import { predictionOf, withTestGauges } from "../../core/isolation/predicted";
import { chancesOf } from "../../core/isolation/case";
import { templateNetlist } from "../../core/circuit/ofTemplate";
import { plannedNetlist, plannedStates, readingsAsNew } from "../../demo/draft";
import { fleetPlan } from "../../demo/fleet";

export interface TrialCircuit {
  name: string;
  netlist: Netlist;
  states: [string, ReadingState][];
  usual: Circumstances;
}

/** A template as a circuit, by the usual figures. */
export function templateCircuit(id: TemplateId): TrialCircuit {
  const netlist = templateNetlist(id);
  return { name: id, netlist, states: [], usual: { commands: workCommands(netlist) } };
}

/** A machine of the harbour, by its tag, fitted to its baselines; undefined: there is none. */
export function harbourCircuit(tag: string): TrialCircuit | undefined {
  const machine = fleetPlan().find((m) => m.tag === tag);
  if (!machine) return undefined;
  const netlist = plannedNetlist(machine);
  const commands = workCommands(netlist);
  const { data } = fitCircuit(netlist, readingsAsNew(machine), commands);
  return { name: tag, netlist, states: [...plannedStates(machine)], usual: { commands, data } };
}

/** Every template, and a machine of each kind of circuit of the harbour. */
export const trialCircuits = (): TrialCircuit[] => [
  ...templateIds.map(templateCircuit),
  ...["LG-ON", "SL-3", "RR-1", "QC-2", "BR-D", "SW-1"].map((tag) => harbourCircuit(tag)!),
];

export interface Truth {
  circuit: TrialCircuit;
  symptom: SymptomId;
  /** Suspects that are there, by their place in the case: the first brought the symptom. */
  present: number[];
  answer: (test: TestAt) => string | null;
  misleading: boolean;
}

/** How far a sign's chance is from the table's, on the logit scale; figures of a circuit from the model's, on the log scale. */
const SIGN_SPREAD = 0.8;
const FIGURE_SPREAD = 0.15;
/** Instruments are worse than they are taken for. */
const WORSE = 1.3;

/** A netlist whose figures are not those that the model was given. */
export function otherFigures(netlist: Netlist, rng: Random): Netlist {
  return {
    ...netlist,
    elements: netlist.elements.map((e) => ({
      ...e,
      data: Object.fromEntries(
        Object.entries(e.data).map(([name, value]) => {
          const { least, greatest } = elementKinds[e.kind].data[name] ?? { least: value, greatest: value };
          const other = value * Math.exp(FIGURE_SPREAD * rng.normal());
          return [name, Math.min(greatest, Math.max(least, other))];
        }),
      ),
    })),
  };
}

/** What the circuit as it really is shows at a test that has a gauge; null: it has no answer. */
function measured(circuit: TrialCircuit, faults: Circumstances["faults"], rng: Random) {
  const real = withTestGauges(otherFigures(circuit.netlist, rng));
  const read = gaugeReader(real.netlist, new Map([...circuit.states, ...real.states]));
  const healthy = new Map(read(circuit.usual).values);
  const now = read({ ...circuit.usual, faults }).values;
  return (test: TestAt): number | null => {
    const [before, after] = [healthy.get(test.id), now.get(test.id)];
    if (typeof before !== "number" || typeof after !== "number" || Math.abs(before) < 1e-6) return null;
    return after / before - 1 + WORSE * (predictionOf(test.test)?.good ?? 0) * rng.normal();
  };
}

/** Chances of this world: those of the tables, moved. The same test, cause and result are moved alike in the whole world. */
function worldChance(p: number, key: string, world: Random): number {
  const logit = Math.log(p / (1 - p)) + SIGN_SPREAD * world.fork(key).normal();
  return 1 / (1 + Math.exp(-logit));
}

/** One case of this world. */
export function drawTruth(circuits: readonly TrialCircuit[], world: Random, rng: Random): Truth {
  for (;;) {
    const circuit = rng.pick(circuits);
    const symptom = rng.pick(symptomIds);
    const typed = beginCase(symptom, null, undefined, circuit.netlist);
    const listed = new Set<string>(Object.values(symptoms[symptom].causes).flat());
    const likely = typed.suspects.map((s, i) => ({ s, i })).filter(({ s }) => listed.has(s.cause));
    if (likely.length < 3) continue;
    const sum = likely.reduce((total, { s }) => total + Math.sqrt(s.weight), 0);
    // rare causes come up more often than they do in life, so that each is tried
    let left = rng.uniform() * sum;
    const first = likely.find(({ s }) => (left -= Math.sqrt(s.weight)) <= 0) ?? likely[0]!;
    const odd = rng.uniform() < 0.2;
    const second = odd && rng.uniform() < 0.5 ? rng.pick(likely.filter((l) => l !== first)) : undefined;
    const present = [first.i, ...(second ? [second.i] : [])];
    const faults: Record<string, Record<string, number>> = {};
    for (const i of present) {
      const { about, element } = typed.suspects[i]!;
      const kind = circuit.netlist.elements.find((e) => e.id === element)?.kind;
      const { fault } = about;
      // a cause that the model does not have at this kind of element moves nothing in it
      const range = kind && fault ? elementKinds[kind].faults[fault] : undefined;
      if (!range || !fault || element === null) continue;
      // from visible to gross
      (faults[element] ??= {})[fault] = range.greatest * 10 ** rng.between(-2, -0.2);
    }
    const reads = measured(circuit, faults, rng.fork("gauges"));
    const misled = odd && !second ? rng.fork("misled").uniform() : 1;
    const memory = new Map<string, string>();
    const answer = (test: TestAt): string => {
      const known = memory.get(test.id);
      if (known) return known;
      const result = resultOf(typed, test, present, reads, world, rng.fork(test.id), misled);
      memory.set(test.id, result);
      return result;
    };
    return { circuit, symptom, present, answer, misleading: odd && !second };
  }
}

function resultOf(
  typed: IsolationCase,
  test: TestAt,
  present: readonly number[],
  reads: (test: TestAt) => number | null,
  world: Random,
  rng: Random,
  misled: number,
): string {
  const [usual, ...signs] = Object.keys(test.about.results) as [string, ...string[]];
  // one test in eight of a misleading case shows what it should not
  if (misled < 1 && rng.uniform() < 0.125) return rng.pick([usual, ...signs]);
  const measuredBy = predictionOf(test.test);
  const change = measuredBy ? reads(test) : null;
  if (measuredBy && change !== null) {
    if (change < -measuredBy.called && measuredBy.less) return measuredBy.less;
    return change > measuredBy.called && measuredBy.more ? measuredBy.more : usual;
  }
  const chances = chancesOf(typed, test, { suspects: [...present], weight: 1 });
  const own = present.map((i) => typed.suspects[i]!.cause).join("+");
  const moved = signs.map((sign) => worldChance(chances[sign]!, `${test.test}/${own}/${sign}`, world));
  const most = moved.reduce((s, p) => s + p, 0);
  let left = rng.uniform() * Math.max(1, most);
  for (const [k, sign] of signs.entries()) {
    left -= moved[k]!;
    if (left <= 0) return sign;
  }
  return usual;
}

/** The case as the house knows it: the model with the figures that it was given, and no reading yet. */
export function houseCase({ circuit, symptom }: Pick<Truth, "circuit" | "symptom">): IsolationCase {
  const evidence = evidenceOf(circuit);
  return beginCase(symptom, { netlist: circuit.netlist, evidence }, undefined, circuit.netlist);
}

const evidences = new Map<TrialCircuit, ReturnType<typeof gaugeEvidence>>();
function evidenceOf(circuit: TrialCircuit) {
  const known = evidences.get(circuit) ?? gaugeEvidence(circuit.netlist, circuit.states, circuit.usual, []);
  evidences.set(circuit, known);
  return known;
}
