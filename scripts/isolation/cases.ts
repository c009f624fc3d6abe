/** Cases from a file, one JSON object a line, walked by the house's own proposals. */
import { readFileSync } from "node:fs";
import {
  beginCase,
  gaugeEvidence,
  gaugeReader,
  symptoms,
  templateIds,
  type IsolationCase,
  type PresentGauge,
  type SymptomId,
  type TestAt,
} from "@core";
import { bestTest, walk } from "../../core/isolation/walk";
import { harbourCircuit, templateCircuit, type TrialCircuit } from "./world";

/** One line of the file. */
interface GivenCase {
  /** Tag of a machine of the harbour, or id of a template; neither: no circuit is drawn. */
  circuit?: string;
  template?: string;
  symptom: string;
  /** Readings of now by id of the point: the value over its healthy one, and its relative uncertainty (0.03). */
  facts?: Record<string, { times: number; uncertainty?: number }>;
  /** By test, or test@element's id or name: what it would show. Left out: it cannot be made. */
  results: Record<string, string>;
}

function circuitOf({ circuit, template }: GivenCase): TrialCircuit | null {
  if (circuit !== undefined) {
    const found = harbourCircuit(circuit);
    if (!found) throw new Error(`There is no circuit ${circuit}.`);
    return found;
  }
  if (template === undefined) return null;
  const id = templateIds.find((t) => t === template);
  if (!id) throw new Error(`There is no template ${template}. There are: ${templateIds.join(", ")}.`);
  return templateCircuit(id);
}

function gaugesOf(circuit: TrialCircuit, facts: GivenCase["facts"] = {}): PresentGauge[] {
  if (Object.keys(facts).length === 0) return [];
  const healthy = gaugeReader(circuit.netlist, new Map(circuit.states))(circuit.usual).values;
  for (const id of Object.keys(facts))
    if (!healthy.has(id)) throw new Error(`There is no point ${id} in this circuit.`);
  return [...healthy].flatMap(([pointId, value]) => {
    if (value === null) return [];
    const { times = 1, uncertainty = 0.03 } = facts[pointId] ?? {};
    return [{ pointId, value: value * times, uncertainty: Math.max(0.005, uncertainty * Math.abs(value * times)) }];
  });
}

function caseOf(given: GivenCase): IsolationCase {
  if (!Object.hasOwn(symptoms, given.symptom))
    throw new Error(`There is no symptom ${given.symptom}. There are: ${Object.keys(symptoms).join(", ")}.`);
  const circuit = circuitOf(given);
  const symptom = given.symptom as SymptomId;
  if (!circuit) return beginCase(symptom, null);
  const evidence = gaugeEvidence(circuit.netlist, circuit.states, circuit.usual, gaugesOf(circuit, given.facts));
  return beginCase(symptom, { netlist: circuit.netlist, evidence });
}

/** What the file says of a test: by its id, at its element by id or by name. */
function answerOf({ results }: GivenCase, nameOf: (element: string) => string | undefined) {
  return (at: TestAt): string | null => {
    const name = at.element === null ? undefined : nameOf(at.element);
    const said = results[at.id] ?? (name === undefined ? undefined : results[`${at.test}@${name}`]) ?? results[at.test];
    if (said === undefined) return null;
    if (!Object.hasOwn(at.about.results, said))
      throw new Error(`${at.test} has no result ${said}. There are: ${Object.keys(at.about.results).join(", ")}.`);
    return said;
  };
}

const say = (text: string) => process.stdout.write(`${text}\n`);
const percent = (share: number) => Number((100 * share).toFixed(1));

function run(line: string, number: number) {
  const given = JSON.parse(line) as GivenCase;
  const own = caseOf(given);
  const elements = own.gauges?.netlist.elements ?? [];
  const walked = walk(
    own,
    answerOf(given, (id) => elements.find((e) => e.id === id)?.name),
    bestTest,
  );
  const oddsList = (odds: typeof walked.odds) =>
    own.suspects
      .map((s, i) => ({ id: s.id, text: s.text, percent: percent(odds.suspects[i]!) }))
      .filter((s) => s.percent >= 1)
      .sort((a, b) => b.percent - a.percent);
  const [act] = walked.advice.acts;
  const [cause] = act?.causes ?? [];
  return {
    case: number,
    tests: walked.steps.map((s) => ({
      test: s.test.id,
      text: s.test.text,
      result: s.result,
      minutes: s.minutes,
      odds: oddsList(s.odds).slice(0, 5),
    })),
    minutes: walked.minutes,
    answer: {
      decided: walked.advice.decided,
      noneFits: walked.advice.noneFits,
      odds: oddsList(walked.odds),
      somethingElse: percent(walked.odds.other),
      act: cause && act ? { text: cause.about.act.text, percent: percent(act.share) } : null,
    },
  };
}

readFileSync(process.argv[2]!, "utf8")
  .split("\n")
  .filter((line) => line.trim() !== "")
  .forEach((line, i) => {
    try {
      say(JSON.stringify(run(line, i + 1)));
    } catch (error) {
      say(JSON.stringify({ case: i + 1, problem: error instanceof Error ? error.message : String(error) }));
    }
  });
