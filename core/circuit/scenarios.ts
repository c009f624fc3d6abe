/** What a circuit is played through in time: a few courses that every engineer has watched at a gauge. */
import type { Circumstances } from "./circumstances";
import { elementKinds } from "./kinds";
import type { Netlist, PortRef } from "./netlist";
import { inTime, type Course, type CourseFailed, type Phase } from "./transient";

interface Scenario {
  label: string;
  says: string;
  /** s. */
  until: number;
  /** Commands by time as shares of those at work; -1 turns them round. */
  drive: readonly { from: number; share: number }[];
  /** Where pistons stand at the start, share of the stroke. */
  place: number;
  /** Only with a kind of element. */
  needs?: (netlist: Netlist) => boolean;
}

const has =
  (...kinds: string[]) =>
  (netlist: Netlist) =>
    netlist.elements.some((e) => kinds.includes(e.kind));

export const scenarios = {
  startUp: {
    label: "Start-up",
    says: "From a standstill, all valves in the middle.",
    until: 3,
    drive: [{ from: 0, share: 0 }],
    place: 0.05,
  },
  stroke: {
    label: "A stroke",
    says: "Pressure builds for a second, then the valve is driven.",
    until: 20,
    drive: [
      { from: 0, share: 0 },
      { from: 1, share: 1 },
    ],
    place: 0.05,
    needs: has("cylinder", "motor"),
  },
  shutIn: {
    label: "Shutting in",
    says: "Driven for three seconds, then shut: how the load is held.",
    until: 60,
    drive: [
      { from: 0, share: 1 },
      { from: 3, share: 0 },
    ],
    place: 0.05,
    needs: has("cylinder"),
  },
  lowering: {
    label: "The load comes down",
    says: "The valve is driven the other way from near the end of the stroke.",
    until: 20,
    drive: [
      { from: 0, share: 0 },
      { from: 1, share: -1 },
    ],
    place: 0.9,
    needs: has("cylinder"),
  },
  cycles: {
    label: "Unloading cycles",
    says: "Nothing is driven: the pump loads the accumulator and idles.",
    until: 120,
    drive: [{ from: 0, share: 0 }],
    place: 0.05,
    needs: has("unloader"),
  },
} as const satisfies Record<string, Scenario>;

export type ScenarioId = keyof typeof scenarios;

/**
 * What a circuit can be played through.
 * @param netlist the circuit
 * @returns ids of the scenarios that make sense for it
 * @example scenariosOf(circuitOf({ pump: ["fixedPump"] }, [])) // ["startUp"]
 */
export function scenariosOf(netlist: Netlist): ScenarioId[] {
  return (Object.keys(scenarios) as ScenarioId[]).filter((id) => {
    const { needs } = scenarios[id] as Scenario;
    return !needs || needs(netlist);
  });
}

/** The pressure at a port over time, s and bar. */
export interface CourseLine extends PortRef {
  label: string;
  points: [number, number][];
}

/**
 * The pressure of a line at a moment, between the two computed moments around it; its ends' beyond them.
 * @param course its points, s and bar, at least one
 * @param t s
 * @returns bar
 * @example pressureAt({ points: [[0, 0], [2, 100]] }, 0.5) // 25
 */
export function pressureAt({ points }: Pick<CourseLine, "points">, t: number): number {
  const after = points.findIndex(([at]) => at >= t);
  if (after <= 0) return (after === 0 ? points[0]! : points.at(-1)!)[1];
  const [[t0, p0], [t1, p1]] = [points[after - 1]!, points[after]!];
  return p0 + ((p1 - p0) * (t - t0)) / (t1 - t0);
}

export interface Played {
  course: Course | CourseFailed;
  /** Pressures worth a line in a chart. */
  lines: CourseLine[];
  /** What happened, in words. */
  words: string[];
}

const MOST_LINES = 5;

/**
 * Play a circuit through a scenario.
 * @param netlist the circuit
 * @param id of the scenario
 * @param c circumstances: commands at work, figures, oil, faults
 * @returns pressures over time, s and bar, and what happened in words; where it cannot be followed, why
 * @example
 * const circuit = circuitOf({ tank: ["tank"], pump: ["fixedPump", { caseLeak: 0 }], relief: ["relief", { crack: 180 }] },
 *   ["tank.T - pump.in - relief.T", "pump.out - relief.P"]);
 * const [outlet] = play(circuit, "startUp", { commands: {} }).lines;
 * pressureAt(outlet, 3) > 180 // true
 */
export function play(netlist: Netlist, id: ScenarioId, c: Circumstances): Played {
  const scenario: Scenario = scenarios[id];
  const phases = scenario.drive.map(({ from, share }): Phase => {
    const commands = Object.fromEntries(Object.entries(c.commands).map(([e, v]) => [e, v * share]));
    return { from, conditions: { ...c, commands } };
  });
  const places = Object.fromEntries(
    netlist.elements.filter((e) => e.kind === "cylinder").map((e) => [e.id, scenario.place]),
  );
  const course = inTime(netlist, { until: scenario.until, phases, places });
  if (!course.ok) return { course, lines: [], words: [`It cannot be followed: ${course.problem}`] };
  const ports = netlist.elements.flatMap((e) => {
    if (e.kind === "fixedPump" || e.kind === "compensatedPump") return [{ e, port: "out" }];
    if (e.kind === "accumulator") return [{ e, port: "P" }];
    return e.kind === "cylinder" || e.kind === "motor" || e.kind === "closedLoopPump"
      ? ["A", "B"].map((port) => ({ e, port }))
      : [];
  });
  const lines = ports.slice(0, MOST_LINES).map(({ e, port }) => ({
    element: e.id,
    port,
    label: `${e.name}, ${elementKinds[e.kind].ports[port]!.label}`,
    points: course.pressure({ element: e.id, port }).map((p, i): [number, number] => [course.times[i]!, p]),
  }));
  const words: string[] = [];
  for (const e of netlist.elements) {
    if (e.kind !== "cylinder") continue;
    const place = course.inner(e.id, 1);
    const [from, to] = [place[0]!, place.at(-1)!];
    const arrived = course.times[place.findIndex((x) => Math.abs(x - to) < 0.05)]!;
    const moved = Math.abs(to - from);
    words.push(
      moved < 0.05
        ? `${e.name}: stands still.`
        : `${e.name}: ${moved.toFixed(1)} cm ${to > from ? "out" : "in"}, there after ${arrived.toFixed(1)} s.`,
    );
  }
  for (const s of course.switches.slice(0, 6)) {
    const name = netlist.elements.find((e) => e.id === s.element)!.name;
    words.push(`${name}: ${s.unloads ? "unloads" : "loads again"} at ${s.at.toFixed(1)} s.`);
  }
  if (netlist.elements.some((e) => e.kind === "unloader") && course.switches.length === 0)
    words.push("The unloader never reached its cut-out: the pump works against whatever holds the pressure below it.");
  return { course, lines, words };
}
