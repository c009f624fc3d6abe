/** Solves a circuit beside the page: as healthy, and as asked. */
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

export interface Setup {
  kind: "setup";
  netlist: Netlist;
  states: [string, ReadingState][];
  healthy: Circumstances;
}

export interface Question {
  kind: "ask";
  id: number;
  asked: Circumstances;
}

export interface Play {
  kind: "play";
  scenario: ScenarioId;
  asked: Circumstances;
}

export interface Explain {
  kind: "explain";
  gauges: PresentGauge[];
}

/** Single faults by how well they explain the gauges as they stand. */
export interface ExplainAnswer {
  explanations: Explanation[];
}

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
  id: number;
  /** By point, core units: as healthy, as asked. */
  healthy: [string, number | null][];
  asked: [string, number | null][];
  ports: PortState[];
  problem: string | null;
  /** ms for both states. */
  took: number;
}

let setup:
  | { usual: Circumstances; netlist: Netlist; read: ReturnType<typeof gaugeReader>; healthy: Answer["healthy"] }
  | undefined;

addEventListener("message", ({ data }: MessageEvent<Setup | Question | Play | Explain>) => {
  try {
    if (data.kind === "setup") {
      const states = new Map(data.states);
      const healthy = gaugeReader(data.netlist, states)({ ...data.healthy, commands: workCommands(data.netlist) });
      setup = {
        usual: data.healthy,
        netlist: data.netlist,
        read: gaugeReader(data.netlist, states),
        healthy: [...healthy.values],
      };
      return;
    }
    if (!setup) return;
    const began = performance.now();
    if (data.kind === "explain") {
      const explanations = explainGauges(setup.netlist, setup.read, setup.usual, data.gauges);
      postMessage({ explanations } satisfies ExplainAnswer);
      return;
    }
    if (data.kind === "play") {
      const { lines, words } = play(setup.netlist, data.scenario, data.asked);
      const took = performance.now() - began;
      postMessage({ course: data.scenario, lines, words, took } satisfies CourseAnswer);
      return;
    }
    const readout = setup.read(data.asked);
    const work = readout.states.work;
    const warmer = work.ok ? warmthOf(setup.netlist, work) : null;
    const ports = work.ok
      ? setup.netlist.elements.flatMap((e) =>
          Object.entries(elementKinds[e.kind].ports).flatMap(([port, { label }]): PortState[] => {
            const pressure = e.kind === "tank" ? null : work.pressure({ element: e.id, port });
            return pressure === null
              ? []
              : [
                  {
                    element: e.id,
                    port,
                    label,
                    pressure,
                    flow: work.flowOut({ element: e.id, port }),
                    warmer: warmer!({ element: e.id, port }),
                  },
                ];
          }),
        )
      : [];
    const failed = Object.values(readout.states).find((s) => !s.ok);
    postMessage({
      id: data.id,
      healthy: setup.healthy,
      asked: [...readout.values],
      ports,
      problem: failed && !failed.ok ? failed.problem : null,
      took: performance.now() - began,
    } satisfies Answer);
  } catch (error) {
    if (data.kind === "explain") {
      postMessage({ explanations: [] } satisfies ExplainAnswer);
      return;
    }
    postMessage({
      id: data.kind === "ask" ? data.id : 0,
      healthy: [],
      asked: [],
      ports: [],
      problem: error instanceof Error ? error.message : "The circuit cannot be computed.",
      took: 0,
    } satisfies Answer);
  }
});
