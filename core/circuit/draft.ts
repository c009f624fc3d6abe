/**
 * A circuit drawn from the list of its components, as such a list is usually meant: pumps side by side on one pressure
 * line, the relief valve beside them, each valve with its actuators above it, the filter in the return. It is a proposal:
 * what it had to assume is said, and an engineer puts it right.
 */
import { REDUCED_SHARE } from "../equipment/templateParts";
import {
  draftBoard,
  LOAD_SHARE,
  RELIEF_ABOVE,
  type Draft,
  type DraftBoard,
  type DraftCircuit,
  type DraftComponent,
} from "./draftBoard";
import { draftLoop } from "./draftLoop";
import type { ComponentKind } from "../equipment/kinds";
import type { ElementKindId } from "./kinds";
import { orificeAtOneBar } from "./laws";
import { netlistProblems, type CircuitElement } from "./netlist";
import { coolEnough, sizedCylinder, sizedLine, sizeOf, USUAL_FLOW } from "./sized";
import { formatNumber } from "../units/format";

/** Taken where the circuit states no working pressure, bar. */
const USUAL_PRESSURE = 180;
/** A compensator is set so far above the working pressure, bar. */
const COMPENSATOR_ABOVE = 12;
/** What the rotary seals of an engaged clutch pass, as the diameter of an orifice in mm (common practice: a litre or two a minute). */
const CLUTCH_LEAK = 0.8;

/**
 * Draw a circuit from its components, as such a list is usually meant. It is a proposal: what it had to assume is said.
 * @param circuit working pressure in bar (null: 180 is taken) and the components of the register
 * @returns the netlist and what was assumed; an empty list gives a reservoir. Never throws
 * @example draftCircuit({ workingPressure: null, components: [] }).netlist.elements.map((element) => element.kind) // ["tank"]
 */
export function draftCircuit(circuit: DraftCircuit): Draft {
  const pressure = circuit.workingPressure ?? USUAL_PRESSURE;
  const board = draftBoard(circuit.components, sizeOf(flowOf(circuit.components)));
  connect(board, pressure);
  const { netlist, assumed, size } = board;
  if (size > 1)
    assumed.push(`Valves, lines and filters are sized for about ${formatNumber(size * USUAL_FLOW, 0)} L/min.`);
  const cooled = netlistProblems(netlist).some((p) => p.grave) ? null : coolEnough(netlist);
  if (cooled) assumed.push(cooled);
  return { netlist, assumed };
}

/** What the pumps deliver together, L/min; of a closed loop the pumps of the loop. */
function flowOf(components: readonly DraftComponent[]): number {
  const loop = components.filter((c) => c.kind === "closedLoopPump");
  const pumps =
    loop.length > 0 ? loop : components.filter((c) => c.kind === "axialPistonPump" || c.kind === "gearPump");
  return pumps.reduce((sum, { displacement, speed }) => sum + ((displacement ?? 0) * (speed ?? 0)) / 1000, 0);
}

/** Draw the components on the board and join them. */
function connect(board: DraftBoard, pressure: number): void {
  const { elements, assumed, of, add, join, size } = board;
  const cylinder = sizedCylinder(size);

  const reservoir = of("other").find((c) => /reservoir|tank/i.test(c.name));
  const tank = add("tank", reservoir?.name ?? "Reservoir", {}, reservoir);
  const pumps = of("axialPistonPump", "gearPump");
  const [unloaderOf] = of("unloaderValve");
  const accumulators = of("accumulator");
  if (of("closedLoopPump").length > 0) {
    draftLoop(board, tank, pressure);
    return;
  }

  // ---- pumps, each with its own suction; side by side they need check valves
  const outlets = pumps.map((pump) => {
    const variable = pump.kind === "axialPistonPump";
    const plate = {
      ...(pump.displacement !== null && { displacement: pump.displacement }),
      ...(pump.speed !== null && { speed: pump.speed }),
    };
    const id = variable
      ? add("compensatedPump", pump.name, { ...plate, set: pressure + COMPENSATOR_ABOVE }, pump)
      : add("fixedPump", pump.name, { ...plate, caseLeak: 0, slip: 0.008 * size }, pump);
    const strainer = add("strainer", "Suction");
    join(`${tank}.T`, `${strainer}.in`);
    join(`${strainer}.out`, `${id}.in`);
    if (variable) {
      const drain = add("line", "Case line", sizedLine(0.4, 0.01, size));
      join(`${id}.case`, `${drain}.in`);
      join(`${drain}.out`, `${tank}.T`);
    }
    return id;
  });
  if (pumps.length === 0) assumed.push("No pump is on record: nothing drives this circuit.");
  const fixed = pumps.some((p) => p.kind === "gearPump");
  // the pressure line begins behind the check valves, where there are any
  let line = outlets[0] ? `${outlets[0]}.out` : null;
  if (unloaderOf && outlets[0]) {
    const unloader = add("unloader", unloaderOf.name, { cutOut: pressure, cutIn: 0.85 * pressure }, unloaderOf);
    const check = add("check", "Check valve");
    join(`${outlets[0]}.out`, `${unloader}.P`, `${check}.in`);
    join(`${check}.out`, `${unloader}.X`);
    join(`${unloader}.T`, `${tank}.T`);
    line = `${check}.out`;
    if (accumulators.length === 0) {
      const stored = add("accumulator", "Accumulator", { volume: 4, precharge: 0.6 * pressure });
      join(line, `${stored}.P`);
      assumed.push("An unloader works with an accumulator: one of 4 L is drawn.");
    }
  } else if (outlets.length > 1) {
    const checks = outlets.map((outlet) => {
      const check = add("check", "Check valve");
      join(`${outlet}.out`, `${check}.in`);
      return check;
    });
    line = `${checks[0]!}.out`;
    join(line, ...checks.slice(1).map((c) => `${c}.out`));
    assumed.push("Pumps side by side: a check valve behind each is drawn.");
  }
  for (const a of accumulators) {
    const id = add("accumulator", a.name, { precharge: 0.6 * pressure }, a);
    if (line) join(line, `${id}.P`);
  }

  // ---- relief valves sit at the pump
  const reliefs = of("reliefValve");
  for (const r of reliefs) {
    const id = add("relief", r.name, { crack: pressure + (fixed ? RELIEF_ABOVE / 2 : RELIEF_ABOVE) }, r);
    const beside = unloaderOf && outlets[0] ? `${outlets[0]}.out` : line;
    if (beside) join(beside, `${id}.P`);
    join(`${id}.T`, `${tank}.T`);
  }
  if (reliefs.length === 0 && pumps.length > 0) {
    const id = add("relief", "Relief valve", { crack: pressure + RELIEF_ABOVE });
    if (line) join(line, `${id}.P`);
    join(`${id}.T`, `${tank}.T`);
    assumed.push("No relief valve is on record: one is drawn, since without it nothing limits the pressure.");
  }

  // ---- a reducing valve feeds what is behind it
  const [reducer] = of("reducingValve");
  const behind = reducer ? REDUCED_SHARE * pressure : pressure;
  if (reducer && line) {
    const id = add("reducing", reducer.name, { set: behind }, reducer);
    join(line, `${id}.in`);
    join(`${id}.drain`, `${tank}.T`);
    line = `${id}.out`;
  }

  // ---- valves with their actuators
  const actuators = of("cylinder", "pistonMotor");
  const clutches = of("other").filter(isClutch);
  const returns: string[] = [];
  const valves = of("proportionalValve", "directionalValve").map((v, i) =>
    add(v.kind === "proportionalValve" ? "proportional" : "directional", v.name, centreOf(i, fixed && !unloaderOf), v),
  );
  if (valves.length === 0 && actuators.length + clutches.length > 0) {
    valves.push(add("directional", "Control valve", centreOf(0, fixed && !unloaderOf)));
    assumed.push("No directional valve is on record: one is drawn for the actuators.");
  }
  for (const valve of valves) {
    if (line) join(line, `${valve}.P`);
    returns.push(`${valve}.T`);
  }
  const holding = of("loadHoldingValve");
  valves.forEach((valve, v) => {
    const mine = actuators.filter((_, i) => Math.min(i, valves.length - 1) === v);
    const held = clutches.filter((_, i) => Math.min(i >> 1, valves.length - 1) === v);
    if (mine.length === 0 && held.length > 0) {
      // one on each side of its valve; an engaged clutch takes what its seals leak
      held.forEach((c, i) => {
        const id = add("throttle", c.name, { diameter: CLUTCH_LEAK }, c);
        join(i % 2 === 0 ? `${valve}.A` : `${valve}.B`, `${id}.in`);
        join(`${id}.out`, `${tank}.T`);
        assumed.push(`${c.name}: the leakage of its seals is drawn, as an orifice of ${CLUTCH_LEAK} mm.`);
      });
      return;
    }
    if (mine.length === 0) {
      const rest = add("throttle", "What it drives", { diameter: orificeFor(pumps[0], LOAD_SHARE * behind) });
      join(`${valve}.A`, `${rest}.in`);
      join(`${rest}.out`, `${valve}.B`);
      assumed.push(`Nothing is on record that ${nameOf(elements, valve)} drives: a throttle stands for it.`);
      return;
    }
    let a = `${valve}.A`;
    const b = `${valve}.B`;
    const holder = holding[v];
    if (holder) {
      const counter = /counterbalance/i.test(holder.name);
      const id = add(
        counter ? "counterbalance" : "pilotCheck",
        holder.name,
        counter ? { set: 1.3 * pressure } : {},
        holder,
      );
      join(a, `${id}.V`);
      join(b, `${id}.X`);
      a = `${id}.C`;
    }
    for (const m of mine) {
      const motor = m.kind === "pistonMotor";
      const data: Record<string, number> = motor
        ? {
            ...(m.displacement !== null && { displacement: m.displacement }),
            torque: (LOAD_SHARE * behind * (m.displacement ?? 500)) / (20 * Math.PI),
          }
        : { ...cylinder, load: (LOAD_SHARE * behind * (Math.PI / 4) * cylinder.bore ** 2) / 10_000 };
      const id = add(motor ? "motor" : "cylinder", m.name, data, m);
      join(a, `${id}.A`);
      join(b, `${id}.B`);
      if (motor) {
        const drain = add("line", "Case line", sizedLine(0.2, 0.005, size));
        join(`${id}.case`, `${drain}.in`);
        join(`${drain}.out`, `${tank}.T`);
      }
    }
  });

  // ---- the return, through filter and cooler
  let back = `${tank}.T`;
  const way = [
    ...of("other")
      .filter((c) => /cooler/i.test(c.name))
      .map((c) => ({ c, kind: "cooler" as const })),
    ...of("filter").map((c) => ({ c, kind: "filter" as const })),
  ];
  for (const { c, kind } of way) {
    const id = add(kind, c.name, {}, c);
    join(`${id}.out`, back);
    back = `${id}.in`;
  }
  for (const r of returns) join(r, back);
  if (returns.length === 0 && back !== `${tank}.T` && line) {
    const circuitOfFilter = add("throttle", "Rest of the circuit", { diameter: 5 * Math.sqrt(Math.max(1, size)) });
    join(line, `${circuitOfFilter}.in`);
    join(`${circuitOfFilter}.out`, back);
    assumed.push("No actuator is on record: a throttle stands for the rest of the circuit.");
  }
}

const isClutch = (c: { name: string }) => /clutch/i.test(c.name);

const nameOf = (elements: readonly CircuitElement[], id: string) => elements.find((e) => e.id === id)?.name ?? id;

/** Diameter (mm) of an orifice that takes a pump's flow at this pressure. */
function orificeFor(pump: DraftComponent | undefined, pressure: number): number {
  const flow = ((pump?.displacement ?? 20) * (pump?.speed ?? 1450)) / 1000;
  return Math.sqrt(flow / (orificeAtOneBar(1, 870) * Math.sqrt(pressure)));
}

/** A fixed pump without an unloader idles through its first valve's middle position. */
const centreOf = (i: number, tandem: boolean): Record<string, number> => (tandem && i === 0 ? { centre: 2 } : {});

const registered: Partial<Record<ElementKindId, ComponentKind>> = {
  compensatedPump: "axialPistonPump",
  fixedPump: "gearPump",
  closedLoopPump: "closedLoopPump",
  flushing: "flushingValve",
  motor: "pistonMotor",
  relief: "reliefValve",
  unloader: "unloaderValve",
  reducing: "reducingValve",
  proportional: "proportionalValve",
  directional: "directionalValve",
  pilotCheck: "loadHoldingValve",
  counterbalance: "loadHoldingValve",
  cylinder: "cylinder",
  filter: "filter",
  accumulator: "accumulator",
};

/**
 * The kind of component that the register keeps for a drawn element: the other way round than `elementKindOf`.
 * @param kind of the element
 * @returns its kind; undefined: nobody keeps a record of one (a line, a joint, a strainer)
 * @example componentKindOf("fixedPump") // "gearPump"
 * @example componentKindOf("line") // undefined
 */
export const componentKindOf = (kind: ElementKindId): ComponentKind | undefined => registered[kind];

/**
 * The element that stands for a component of the register.
 * @param component its kind, and its name where the kind leaves it open
 * @returns the kind of element; undefined where a drawing has none for it
 * @example elementKindOf({ kind: "gearPump", name: "Pump A" }) // "fixedPump"
 * @example elementKindOf({ kind: "other", name: "Cab door" }) // undefined
 */
export function elementKindOf(component: { kind: string; name: string }): ElementKindId | undefined {
  switch (component.kind) {
    case "axialPistonPump":
      return "compensatedPump";
    case "gearPump":
      return "fixedPump";
    case "closedLoopPump":
      return "closedLoopPump";
    case "flushingValve":
      return "flushing";
    case "pistonMotor":
      return "motor";
    case "reliefValve":
      return "relief";
    case "unloaderValve":
      return "unloader";
    case "reducingValve":
      return "reducing";
    case "proportionalValve":
      return "proportional";
    case "directionalValve":
      return "directional";
    case "loadHoldingValve":
      return /counterbalance/i.test(component.name) ? "counterbalance" : "pilotCheck";
    case "cylinder":
    case "filter":
    case "accumulator":
      return component.kind;
    default:
      if (isClutch(component)) return "throttle";
      return /cooler/i.test(component.name) ? "cooler" : /reservoir|tank/i.test(component.name) ? "tank" : undefined;
  }
}
