/** What the gauges of a circuit show: each point is read in a state of its own, so each state is solved once. */
import { dynamicViscosity, type Fluid } from "../fluid/viscosity";
import type { ReadingState } from "../units/readingStates";
import { compile, type Compiled } from "./assembly";
import { elementKinds } from "./kinds";
import { figureOf, type Circumstances } from "./circumstances";
import { creepOf, marginOf } from "./held";
import type { CircuitElement, Gauge, Netlist } from "./netlist";
import { steadyState, type NotSolved, type SteadyState } from "./steady";

/** Heat capacity of a flow of oil, W per K and L/min: ρ 870 kg/m³, c 1900 J/(kg·K). */
export const CARRIED = (870 * 1900) / 60_000;
/** Share of the whole pressure at which null leakage is stated, bar. */
const NULL_PRESSURE = 100;

/** The states in which points are read, and which of them are one to the model. */
export type ModelState = "work" | "rest";
/**
 * In which of the two states of the model a point is read.
 * @param state of the reading
 * @returns at work, or at rest
 * @example modelStateOf("holding") // "rest"
 */
export const modelStateOf = (state: ReadingState): ModelState =>
  state === "idle" || state === "holding" || state === "standing" ? "rest" : "work";

export interface Readout {
  /** By state; a state that was not solved says why. */
  states: Record<ModelState, SteadyState | NotSolved>;
  /** Value of each gauge by the id of its point, in the core's unit of its quantity; null: the model has no answer. */
  values: Map<string, number | null>;
  /** Oil in the tank after hours of this work, °C. */
  tank: number | null;
}

/** Dynamic viscosity at which the laminar figures of a circuit are stated: VG 46 at 50 °C, mPa·s. */
export const STATED_VISCOSITY = 26;

/**
 * An oil as the laws of a circuit take it.
 * @param fluid null: none is stated, and a VG 46 at 50 °C is taken
 * @param temperature −60 to 200 °C
 * @returns viscosity over that of VG 46 at 50 °C, and density in kg/m³
 * @throws {RangeError} outside the range of ASTM D341
 * @example oilAt({ kv40: 46, kv100: 6.8, density15: 870 }, 50) // { viscosity: 0.9767, density: 870 }
 * @example oilAt(null, 50) // { viscosity: 1, density: 870 }
 */
export function oilAt(
  fluid: (Fluid & { density15: number }) | null,
  temperature: number,
): Required<Pick<Circumstances, "viscosity" | "density">> {
  return fluid
    ? { viscosity: dynamicViscosity(fluid, temperature) / STATED_VISCOSITY, density: fluid.density15 }
    : { viscosity: 1, density: 870 };
}

/**
 * A solver of one circuit that remembers where it was: the next answer is near the last one.
 * @param netlist the circuit, with its gauges
 * @param states in which its points are read
 * @returns a function from circumstances to what the gauges show, core units; null: the model has no answer
 * @throws {CircuitError} where the netlist cannot be computed
 * @example
 * const drawn = circuitOf({ tank: ["tank"], pump: ["fixedPump", { caseLeak: 0 }], relief: ["relief", { crack: 180 }] },
 *   ["tank.T - pump.in - relief.T", "pump.out - relief.P"]);
 * const circuit = { ...drawn, gauges: [{ pointId: "p", element: "pump", port: "out", reads: "pressure" }] };
 * gaugeReader(circuit, new Map())({ commands: {} }).values.get("p") > 180 // true
 */
export function gaugeReader(netlist: Netlist, states: ReadonlyMap<string, ReadingState>) {
  const compiled: Compiled = compile(netlist);
  const byId = new Map(netlist.elements.map((e) => [e.id, e]));
  const last: Partial<Record<ModelState, SteadyState>> = {};

  const solve = (state: ModelState, c: Circumstances) => {
    const solved = steadyState(compiled, { ...c, commands: state === "work" ? c.commands : {} }, last[state]);
    if (solved.ok) last[state] = solved;
    return solved;
  };

  return function read(c: Circumstances): Readout {
    const solved = { work: solve("work", c), rest: solve("rest", c) };
    const tank = tankTemperature(netlist, solved, c);
    const values = new Map<string, number | null>();
    for (const gauge of netlist.gauges) {
      const element = byId.get(gauge.element);
      const at = gauge.reads === "setting" ? "rest" : modelStateOf(states.get(gauge.pointId) ?? "any");
      const state = solved[at];
      if (!element || !state.ok) values.set(gauge.pointId, null);
      else if (gauge.reads === "temperatureRise")
        values.set(gauge.pointId, riseOf(element, solved, c, tankOf(netlist)));
      else if (gauge.reads === "margin") values.set(gauge.pointId, marginOf(netlist, element, c));
      else if (gauge.reads === "creep") values.set(gauge.pointId, creepOf(netlist, element, c));
      else values.set(gauge.pointId, valueOf(gauge, element, state, c, tank));
    }
    return { states: solved, values, tank };
  };
}

type Solved = Record<ModelState, SteadyState | NotSolved>;
const tankOf = (netlist: Netlist) => netlist.elements.find((e) => e.kind === "tank");

/** Mean over the running time, which is spent at work and at rest: what an hour of it warms up to. */
function overTime(solved: Solved, tank: CircuitElement | undefined, c: Circumstances, of: (s: SteadyState) => number) {
  const duty = tank ? figureOf(tank, "duty", c) : 1;
  const { work, rest } = solved;
  if (!work.ok || !rest.ok) return null;
  return duty * of(work) + (1 - duty) * of(rest);
}

/** Tank temperature at which all heat is given off again, °C. */
function tankTemperature(netlist: Netlist, solved: Solved, c: Circumstances): number | null {
  const tank = tankOf(netlist);
  const kilowatts = overTime(solved, tank, c, (state) => {
    let sum = 0;
    for (const effect of state.effects.values()) sum += effect.shaft - effect.load;
    return sum;
  });
  if (kilowatts === null || !tank) return null;
  let perKelvin = figureOf(tank, "cooling", c);
  for (const e of netlist.elements) {
    if (e.kind !== "cooler") continue;
    const faults = c.faults?.[e.id] ?? {};
    perKelvin += figureOf(e, "cooling", c) * (1 - (faults.bypassed ?? 0)) * (1 - (faults.fouled ?? 0));
  }
  return figureOf(tank, "surroundings", c) + (1000 * kilowatts) / perKelvin;
}

/** How much warmer an element is than its line, K: its own heat over what the oil through it and its body carry off. */
function riseOf(element: CircuitElement, solved: Solved, c: Circumstances, tank: CircuitElement | undefined) {
  const drained = Object.hasOwn(elementKinds[element.kind].ports, "case");
  const heat = overTime(solved, tank, c, (s) => s.effects.get(element.id)?.heat ?? 0);
  const flow = overTime(solved, tank, c, (s) =>
    drained
      ? Math.abs(s.flowOut({ element: element.id, port: "case" }))
      : Math.max(0, ...(s.effects.get(element.id)?.flows ?? []).map((f) => Math.abs(f.q))),
  );
  if (heat === null || flow === null) return null;
  return figureOf(element, "warmer", c) + (1000 * heat) / (CARRIED * flow + figureOf(element, "body", c));
}

function valueOf(
  gauge: Gauge,
  element: CircuitElement,
  state: SteadyState,
  c: Circumstances,
  tank: number | null,
): number | null {
  const faults = c.faults?.[element.id] ?? {};
  switch (gauge.reads) {
    case "pressure":
      return state.pressure(gauge);
    case "vacuum": {
      const p = state.pressure(gauge);
      return p === null ? null : -1000 * p;
    }
    case "flow":
      return Math.abs(state.flowOut(gauge));
    case "pressureDrop": {
      const [a, b] = [
        state.pressure({ element: element.id, port: "in" }),
        state.pressure({ element: element.id, port: "out" }),
      ];
      return a === null || b === null ? null : a - b;
    }
    case "temperature":
      return tank;
    case "setting": {
      const low = (faults.setLow ?? 0) + figureOf(element, "crack", c) * 0.95 * (faults.springBroken ?? 0);
      const set = element.kind === "unloader" ? figureOf(element, "cutOut", c) : figureOf(element, "crack", c);
      // what an unloader never reaches is not its setting but what holds the pressure below it
      if (element.kind !== "unloader" || state.switched.has(element.id)) return set - low;
      return Math.min(set, state.pressure({ element: element.id, port: "X" }) ?? set);
    }
    case "nullLeakage":
      return (figureOf(element, "leak", c) * (1 + (faults.worn ?? 0)) * NULL_PRESSURE) / (c.viscosity ?? 1);
    case "strokeTime": {
      const v = Math.abs(state.inner(element.id)[0] ?? 0);
      return v > 1e-4 ? figureOf(element, "stroke", c) / 10 / v : null;
    }
    case "temperatureRise":
    case "margin":
    case "creep":
    case "other":
      return null;
  }
}

/**
 * Commands of a circuit at work: its first valve driven fully, the others at rest.
 * @param netlist the circuit
 * @returns by element, −1 to 1; empty where it has no commanded valve
 * @example workCommands(circuitOf({ pump: ["fixedPump"], valve: ["proportional"] }, [])) // { valve: 1 }
 */
export function workCommands(netlist: Netlist): Record<string, number> {
  const valve = netlist.elements.find((e) => elementKinds[e.kind].commanded);
  return valve ? { [valve.id]: 1 } : {};
}
