/** Hoses and pipes of the invented fleet: sized as a fitter would, fitted over the last five years. */
import {
  DAY,
  YEAR,
  draftCircuit,
  elementKinds,
  lineStyle,
  type CircuitLine,
  type DraftComponent,
  type LineData,
  type LineStyle,
  type Netlist,
} from "@core";
import type { MachinePlan } from "./world";

type Rng = { uniform(): number; between(low: number, high: number): number };

/** Speed of the oil that a line is sized for, m/s (common practice). */
const SPEED: Record<LineStyle, number> = { pressure: 5, return: 2.5, suction: 0.9, case: 1, pilot: 3 };
/** Bores that are made, mm. */
const BORES = [6, 8, 10, 12.5, 16, 19, 25, 31.5, 38, 51, 63];
/** Rated pressures that are made, bar. */
const RATINGS = [16, 35, 70, 105, 140, 175, 215, 250, 280, 350, 420];
/** Share of the pump's flow that a line carries. */
const SHARE: Record<LineStyle, number> = { pressure: 1, return: 1, suction: 1, case: 0.08, pilot: 0.03 };
/** Lines at these move or shake: they are hoses. */
const MOVING: readonly string[] = ["cylinder", "motor", "fixedPump", "compensatedPump", "closedLoopPump"];
/** Circuits whose lines nobody has gone over yet: their drawing is still the proposal. */
const NOT_SURVEYED = /^SL-/;

/** A hose that is nearly six years old, and one of too low a rating that was fitted in a hurry. */
const stories: Record<string, { daysAgo: number; rating?: number }> = {
  "SW-1": { daysAgo: 6 * (YEAR / DAY) - 19 },
  "SC-2": { daysAgo: 41, rating: 140 },
};

const least = (sizes: readonly number[], wanted: number) => sizes.find((s) => s >= wanted) ?? sizes.at(-1)!;

/** Greatest pump flow of a circuit, L/min. */
const flowOf = ({ elements }: Netlist) =>
  elements.reduce((most, e) => {
    const usual = (name: string) => e.data[name] ?? elementKinds[e.kind].data[name]?.usual;
    const [displacement, speed] = [usual("displacement"), usual("speed")];
    return displacement && speed && /pump/i.test(e.kind) ? Math.max(most, (displacement * speed) / 1000) : most;
  }, 0);

/** What the pressure lines of a circuit have to bear: its relief valves' settings, bar. */
const borne = ({ elements }: Netlist, working: number) =>
  elements.reduce(
    (most, e) => (e.kind === "relief" ? Math.max(most, e.data.crack ?? elementKinds.relief.data.crack!.usual) : most),
    working,
  );

function lineData(netlist: Netlist, line: CircuitLine, number: number, plan: MachinePlan, present: number, rng: Rng) {
  const style = lineStyle(netlist, line);
  const kindOf = (id: string) => netlist.elements.find((e) => e.id === id)!.kind;
  const hose = style !== "pilot" && [line.from, line.to].some((end) => MOVING.includes(kindOf(end.element)));
  const flow = flowOf(netlist) * SHARE[style];
  const made = hose ? "hose" : "pipe";
  const data: LineData = {
    made,
    rating: style === "pressure" ? least(RATINGS, borne(netlist, plan.pressure) * 1.1) : least(RATINGS, 10),
    // v = Q / A: 21.22 Q / v, with Q in L/min, v in m/s, d in mm
    bore: least(BORES, Math.sqrt((21.22 * flow) / SPEED[style])),
    length: Number(rng.between(hose ? 0.4 : 0.8, hose ? 2.2 : 9).toFixed(1)),
    fittedOn: new Date(present - (hose ? rng.between(0.4, 5.2) : 5.3) * YEAR).toISOString().slice(0, 10),
    tag: `${hose ? "H" : "P"}-${number}`,
  };
  return { style, data };
}

/**
 * The circuit of a planned machine as it was gone over at the machine, line by line.
 * @returns undefined: nobody has been there yet
 */
export function surveyed(
  plan: MachinePlan,
  components: readonly DraftComponent[],
  present: number,
  rng: Rng,
): Netlist | undefined {
  if (NOT_SURVEYED.test(plan.tag)) return undefined;
  const { netlist } = draftCircuit({ workingPressure: plan.pressure, components });
  let story: (typeof stories)[string] | undefined = stories[plan.tag];
  const lines = netlist.lines.map((line, i) => {
    const { style, data } = lineData(netlist, line, i + 1, plan, present, rng);
    if (story && data.made === "hose" && style === "pressure") {
      data.fittedOn = new Date(present - story.daysAgo * DAY).toISOString().slice(0, 10);
      data.rating = story.rating ?? data.rating;
      story = undefined;
    }
    return { ...line, data };
  });
  return { ...netlist, lines };
}
