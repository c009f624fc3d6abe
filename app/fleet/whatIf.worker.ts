/** Solves a circuit beside the page: as healthy, and as asked. */
import { expose } from "comlink";
import {
  elementKinds,
  explainGauges,
  gaugeReader,
  play,
  warmthOf,
  workCommands,
  type Circumstances,
  type CourseLine,
  type Explanation,
  type PresentGauge,
  type Netlist,
  type ReadingState,
  type ScenarioId,
} from "@core";

/** A course in time, as a chart and in words. */
export interface CourseAnswer {
  course: ScenarioId;
  lines: CourseLine[];
  words: string[];
  took: number;
}

export interface PortState {
  element: string;
  port: string;
  label: string;
  /** bar, and L/min out of the element, at work. */
  pressure: number;
  flow: number;
  /** K over the reservoir; null: the oil stands there. */
  warmer: number | null;
}

export interface Answer {
  /** By point, core units: as healthy, as asked. */
  healthy: [string, number | null][];
  asked: [string, number | null][];
  ports: PortState[];
  problem: string | null;
  /** ms for both states. */
  took: number;
}

interface Setup {
  netlist: Netlist;
  usual: Circumstances;
  read: ReturnType<typeof gaugeReader>;
  healthy: Answer["healthy"];
}
let setup: Setup | undefined;

/** @throws {Error} before a circuit was given */
function given(): Setup {
  if (!setup) throw new Error("No circuit was given.");
  return setup;
}

/** Ports of the circuit at work; none where it has no state. */
function portsOf(netlist: Netlist, work: ReturnType<Setup["read"]>["states"]["work"]): PortState[] {
  if (!work.ok) return [];
  const warmer = warmthOf(netlist, work);
  return netlist.elements
    .filter((e) => e.kind !== "tank")
    .flatMap((e) =>
      Object.entries(elementKinds[e.kind].ports).flatMap(([port, { label }]): PortState[] => {
        const ref = { element: e.id, port };
        const pressure = work.pressure(ref);
        return pressure === null ? [] : [{ ...ref, label, pressure, flow: work.flowOut(ref), warmer: warmer(ref) }];
      }),
    );
}

const circuit = {
  /** The circuit that is asked about from here on, and how it is when healthy. */
  setUp(netlist: Netlist, states: readonly [string, ReadingState][], usual: Circumstances): void {
    const read = gaugeReader(netlist, new Map(states));
    const { values } = read({ ...usual, commands: workCommands(netlist) });
    setup = { netlist, usual, read, healthy: [...values] };
  },
  ask(asked: Circumstances): Answer {
    const { netlist, read, healthy } = given();
    const began = performance.now();
    const { states, values } = read(asked);
    const failed = Object.values(states).find((s) => !s.ok);
    return {
      healthy,
      asked: [...values],
      ports: portsOf(netlist, states.work),
      problem: failed && !failed.ok ? failed.problem : null,
      took: performance.now() - began,
    };
  },
  play(scenario: ScenarioId, asked: Circumstances): CourseAnswer {
    const began = performance.now();
    const { lines, words } = play(given().netlist, scenario, asked);
    return { course: scenario, lines, words, took: performance.now() - began };
  },
  /** Single faults by how well they explain the gauges as they stand. */
  explain(gauges: PresentGauge[]): Explanation[] {
    const { netlist, read, usual } = given();
    return explainGauges(netlist, read, usual, gauges);
  },
};
export type CircuitSolver = typeof circuit;
expose(circuit);
