/**
 * (k) The circuit solver: a steady state of the largest circuit of the harbour, warm as in a what-if; ten seconds of a
 * stroke; and a smaller circuit beside SciPy on the same equations, in one run.
 */
import { spawnSync } from "node:child_process";
import { draftCircuit, gaugeReader, play, steadyState, workCommands, type Netlist } from "@core";
import { circuitOf } from "../../core/circuit/build";
import type { SteadyState } from "../../core/circuit/steady";
import { compile } from "../../core/circuit/assembly";
import { inTime } from "../../core/circuit/transient";
import { plannedNetlist, plannedStates } from "../../demo/draft";
import { fleetPlan } from "../../demo/fleet";

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
function timed(times: number, work: (i: number) => void): number {
  const took: number[] = [];
  for (let i = 0; i < times; i++) {
    const began = performance.now();
    work(i);
    took.push(performance.now() - began);
  }
  return median(took);
}

const netlists = fleetPlan().map((machine) => ({ machine, netlist: plannedNetlist(machine) }));
const sizeOf = (n: Netlist) => compile(n).unknowns;
const { machine, netlist } = netlists.reduce((a, b) => (sizeOf(b.netlist) > sizeOf(a.netlist) ? b : a));
const states = plannedStates(machine);
const commands = workCommands(netlist);
const [valve] = Object.keys(commands);

const read = gaugeReader(netlist, states);
const compiled = compile(netlist);
let guess: SteadyState | undefined;
const warm = timed(300, (i) => {
  const s = steadyState(compiled, { commands: { [valve!]: 0.3 + 0.002 * (i % 300) } }, guess);
  if (s.ok) guess = s;
});
const cold = timed(60, () => void steadyState(compiled, { commands }));
const both = timed(200, (i) => void read({ commands: { [valve!]: 0.3 + 0.003 * (i % 200) } }));
const stroke = timed(5, () => void play(netlist, "stroke", { commands }));

/** Larger than any circuit of the harbour: pumps side by side, and valves with a cylinder each. */
const station = draftCircuit({
  workingPressure: 200,
  components: [
    ["other", "Reservoir", 1],
    ["axialPistonPump", "Pump", 3],
    ["reliefValve", "Relief valve", 1],
    ["directionalValve", "Valve", 11],
    ["cylinder", "Cylinder", 11],
    ["filter", "Return filter", 1],
  ].flatMap(([kind, name, count]) =>
    Array.from({ length: Number(count) }, (_, i) => ({
      id: `${kind}${i}`,
      kind: String(kind),
      name: String(name),
      displacement: kind === "axialPistonPump" ? 100 : null,
      speed: kind === "axialPistonPump" ? 1480 : null,
      points: [],
    })),
  ),
}).netlist;
const stationReady = compile(station);
const stationCommands = workCommands(station);
const [first] = Object.keys(stationCommands);
let stationGuess: SteadyState | undefined;
let stationFailed = 0;
const stationWarm = timed(200, (i) => {
  const moved = { ...stationCommands, [first!]: 0.3 + 0.003 * (i % 200) };
  const s = steadyState(stationReady, { commands: moved }, stationGuess);
  if (s.ok) stationGuess = s;
  else stationFailed++;
});

const lift = circuitOf(
  {
    tank: ["tank"],
    strainer: ["strainer"],
    pump: ["fixedPump", { displacement: 40, speed: 1450, slip: 0.004, caseLeak: 0 }],
    relief: ["relief", { crack: 200, perBar: 4 }],
    valve: ["proportional", { k: 30, leak: 0.004, overlap: 0.05 }],
    cylinder: ["cylinder", { bore: 125, rod: 80, load: 100, friction: 2 }],
    filter: ["filter"],
  },
  [
    "tank.T - strainer.in - relief.T - filter.out",
    "strainer.out - pump.in",
    "pump.out - relief.P - valve.P",
    "valve.A - cylinder.A",
    "valve.B - cylinder.B",
    "valve.T - filter.in",
  ],
);
const ready = compile(lift);
const ownSteady = timed(200, () => void steadyState(ready, { commands: { valve: 0.6 } }));
const ownTime = timed(
  5,
  () =>
    void inTime(lift, {
      until: 8,
      phases: [{ from: 0, conditions: { commands: { valve: 0.6 } } }],
      places: { cylinder: 0.05 },
    }),
);
const python = spawnSync("python3", ["scripts/bench/circuits.py"], { encoding: "utf8" });
const scipy = python.status === 0 ? (JSON.parse(python.stdout) as { steady: number; inTime: number }) : null;

const ms = (v: number) => `${v < 10 ? v.toFixed(2) : v.toFixed(0)} ms`;
process.stdout.write(
  [
    `(k) Circuits, ${machine.name}: ${netlist.elements.length} elements, ${compiled.unknowns} unknowns.`,
    `    Steady state ${ms(warm)} from the last one (aim 2 ms), ${ms(cold)} from nothing; what all gauges show, two states: ${ms(both)}.`,
    `    A stroke of 20 s: ${ms(stroke)} (aim: 10 s in 500 ms).`,
    `    ${station.elements.length} elements, ${stationReady.nodes.length} nodes, ${stationReady.unknowns} unknowns: ` +
      `steady state ${ms(stationWarm)} from the last one (aim 2 ms)${stationFailed > 0 ? `, ${stationFailed} of 200 not solved` : ""}.`,
    scipy
      ? `    One lift beside SciPy: steady from nothing ${ms(ownSteady)} against ${ms(scipy.steady)} (hybr and lm), ` +
        `8 s ${ms(ownTime)} against ${ms(scipy.inTime)} (Radau; its circuit has no strainer and no filter).`
      : "    SciPy is not installed here: no comparison.",
    "",
  ].join("\n"),
);
