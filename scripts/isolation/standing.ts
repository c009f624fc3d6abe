/**
 * The standing diagnosis on simulated fleets of readings alone: wrong names on healthy circuits, and which share of faults
 * is named right, by severity. Every gauge is read with an error of its own; the circuits' figures differ from the model's.
 */
import { elementKinds, explainGauges, gaugeReader, pointsOff, random, standingDiagnosis, type Netlist } from "@core";
import { causesOf } from "../../core/isolation/candidates";
import { harbourCircuit, otherFigures, type TrialCircuit } from "./world";

const seed = Number(process.argv[2] ?? 31);
const TAGS = ["LG-ON", "LG-IN", "SL-1", "SL-3", "RR-1", "QC-2", "BR-D", "SC-1", "WC-1", "DT-1"];
const circuits = TAGS.map((tag) => harbourCircuit(tag)!);
/** Relative uncertainty of a level, and of what it was fitted to. */
const ERROR = 0.02;
const HEALTHY = Number(process.argv[3] ?? 12);
const FAULTY = Number(process.argv[4] ?? 4);

type Faults = Record<string, Record<string, number>>;

/** Levels of a circuit that is not quite the model's, as factors of its own healthy ones. */
function gaugesOf({ netlist, states, usual }: TrialCircuit, faults: Faults, s: number) {
  const rng = random(s);
  const real: Netlist = otherFigures(netlist, rng);
  const read = gaugeReader(real, new Map(states));
  const healthy = new Map(read(usual).values);
  const now = read({ ...usual, faults }).values;
  const model = gaugeReader(netlist, new Map(states))(usual).values;
  return [...model].flatMap(([pointId, value]) => {
    const [before, after] = [healthy.get(pointId), now.get(pointId)];
    if (value === null || typeof before !== "number" || typeof after !== "number" || Math.abs(before) < 1e-9) return [];
    const level = value * (after / before) * (1 + ERROR * rng.normal());
    return [{ pointId, value: level, uncertainty: Math.max(0.005, ERROR * Math.hypot(value, level)) }];
  });
}

function named(circuit: TrialCircuit, faults: Faults, s: number) {
  const gauges = gaugesOf(circuit, faults, s);
  const read = gaugeReader(circuit.netlist, new Map(circuit.states));
  const off = pointsOff(circuit.netlist, circuit.states, circuit.usual, gauges);
  if (!off || off.length === 0) return { names: [], moved: false };
  const all = explainGauges(circuit.netlist, read, circuit.usual, gauges, { most: Infinity, several: true });
  return { names: standingDiagnosis(circuit.netlist, all, off).named, moved: true };
}

const say = (text: string) => process.stdout.write(`${text}\n`);
let [circuitsRead, wrong] = [0, 0];
for (const [k, circuit] of circuits.entries())
  for (let i = 0; i < HEALTHY; i++) {
    circuitsRead++;
    wrong += named(circuit, {}, seed * 1000 + 100 * k + i).names.length;
  }
say(`healthy: ${circuitsRead} circuits looked at once each, ${wrong} wrong names`);

const found: { severity: string; moved: boolean; shown: boolean; right: boolean }[] = [];
for (const [k, circuit] of circuits.entries())
  for (const e of circuit.netlist.elements)
    for (const [fault, { greatest, least }] of Object.entries(elementKinds[e.kind].faults))
      for (const [j, severity] of ["small", "middle", "gross"].entries()) {
        if ((k + j + e.id.length) % FAULTY !== 0) continue;
        const lowest = Math.log(least ?? greatest * 1e-3);
        const size = Math.exp(lowest + ([0.45, 0.7, 0.9][j] ?? 1) * (Math.log(greatest) - lowest));
        const faults = { [e.id]: { [fault]: size } };
        const { names, moved } = named(circuit, faults, seed * 7000 + 100 * k + j);
        const [cause] = causesOf(e.kind, fault);
        found.push({
          severity,
          moved,
          shown: names.length > 0,
          right: names.some((n) => n.fault.element === e.id || n.cause === cause),
        });
      }
say("\n| severity | faults | named right | another named | nothing named | no gauge off |\n|---|---|---|---|---|---|");
for (const severity of ["small", "middle", "gross"]) {
  const own = found.filter((f) => f.severity === severity);
  const share = (of: (f: (typeof own)[number]) => boolean) =>
    `${((100 * own.filter(of).length) / own.length).toFixed(0)} %`;
  const cells = [
    share((f) => f.right),
    share((f) => f.shown && !f.right),
    share((f) => f.moved && !f.shown),
    share((f) => !f.moved),
  ];
  say(`| ${severity} | ${own.length} | ${cells.join(" | ")} |`);
}
