/** (l) Isolation: one update of the odds, the next test, evidence of the gauges, and the standing diagnosis of a circuit with a fault. */
import { adviceOf, beginCase, explainGauges, gaugeEvidence, gaugeReader, oddsOf } from "@core";
import { harbourCircuit } from "../isolation/world";

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
function timed(times: number, work: () => void): number {
  const took: number[] = [];
  for (let i = 0; i < times; i++) {
    const began = performance.now();
    work();
    took.push(performance.now() - began);
  }
  return median(took);
}

// the largest circuit of the harbour, with a worn pump
const { netlist, states, usual } = harbourCircuit("BR-D")!;
const read = gaugeReader(netlist, new Map(states));
const healthy = new Map(read(usual).values);
const pump = netlist.elements.find((e) => e.kind === "compensatedPump")!;
const worn = read({ ...usual, faults: { [pump.id]: { caseLeak: 2 } } }).values;
const gauges = [...worn].flatMap(([pointId, value]) => {
  const before = healthy.get(pointId);
  return value === null || typeof before !== "number"
    ? []
    : [{ pointId, value, uncertainty: Math.max(0.005, 0.03 * Math.abs(value)) }];
});
const began = performance.now();
const evidence = gaugeEvidence(netlist, states, usual, gauges);
const evidenceTook = performance.now() - began;
const results = [{ at: "look.level", result: "right" }];
const fresh = () => beginCase("slow", { netlist, evidence });
const own = fresh();
const [first, odds] = [timed(10, () => void oddsOf(fresh(), results)), timed(100, () => void oddsOf(own, results))];
const done = new Set(["look.level"]);
const coldAdvice = timed(10, () => {
  const c = fresh();
  adviceOf(c, oddsOf(c, results), done);
});
const warmAdvice = timed(20, () => void adviceOf(own, oddsOf(own, results), done));
const standing = timed(2, () => void explainGauges(netlist, read, usual, gauges, { most: Infinity, several: true }));
const ms = (value: number) => `${value.toFixed(1)} ms`;
process.stdout.write(
  `(l) isolation, ${netlist.elements.length} elements, ${own.suspects.length} suspects, ${own.tests.length} tests: ` +
    `odds ${ms(first)} at first, then ${ms(odds)} (aim 50); next test ${ms(coldAdvice)} at first, then ${ms(warmAdvice)} (aim 300); ` +
    `gauges ${ms(evidenceTook)} and standing diagnosis with several faults ${ms(standing)}, in a thread\n`,
);
