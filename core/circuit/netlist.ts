/** A circuit as data: elements with ports, joined by lines. One model for the drawing, the solver and the diagnosis. */
import { elementKinds, type ElementKindId } from "./kinds";
import type { PortRole } from "./kinds/types";

export interface CircuitElement {
  id: string;
  kind: ElementKindId;
  name: string;
  /** The component of the register that it stands for; null: something nobody keeps a record of. */
  componentId: string | null;
  /** Figures by name, in the unit that the kind states; what is left out is the kind's usual one. */
  data: Record<string, number>;
}

export interface PortRef {
  element: string;
  port: string;
}

/** A hose or a pipe. */
export interface LineData {
  made: "hose" | "pipe";
  /** bar, mm, m; null: not known. */
  rating: number | null;
  bore: number | null;
  length: number | null;
  /** ISO date on which it was fitted; empty: not known. */
  fittedOn: string;
  tag: string;
}

export interface CircuitLine {
  id: string;
  from: PortRef;
  to: PortRef;
  data: LineData | null;
}

/** What a gauge reads of the model; "other": what the model has no answer for. */
export type GaugeQuantity =
  | "pressure"
  | "flow"
  | "vacuum"
  | "pressureDrop"
  | "temperature"
  | "temperatureRise"
  | "setting"
  | "nullLeakage"
  | "strokeTime"
  | "creep"
  | "margin"
  | "other";

/** What a measuring point reads, and where it sits. */
export interface Gauge extends PortRef {
  pointId: string;
  reads: GaugeQuantity;
}

export interface Netlist {
  elements: CircuitElement[];
  lines: CircuitLine[];
  gauges: Gauge[];
}

/** An open port, a joint that cannot be: where, and in words. */
export interface NetlistProblem {
  element: string;
  port?: string;
  /** Whether the circuit cannot be computed with it; else it is a remark. */
  grave: boolean;
  message: string;
}

/** More than this is taken for a file that went wrong. */
export const MOST_ELEMENTS = 300;

/**
 * A port as one text, for a key.
 * @param p element and port
 * @returns "element/port"
 * @example portKey({ element: "pump", port: "out" }) // "pump/out"
 */
export const portKey = (p: PortRef) => `${p.element}/${p.port}`;

/**
 * What a port is for: what may be joined to it and how its line is drawn follow from that.
 * @param netlist the circuit
 * @param ref the port
 * @returns its role; undefined where the element or the port does not exist
 * @example roleOf(circuitOf({ pump: ["fixedPump"] }, []), { element: "pump", port: "in" }) // "suction"
 */
export function roleOf(netlist: Netlist, ref: PortRef): PortRole | undefined {
  const element = netlist.elements.find((e) => e.id === ref.element);
  return element ? elementKinds[element.kind].ports[ref.port]?.role : undefined;
}

/**
 * Why two ports may not be joined.
 * @param netlist the circuit
 * @param a a port
 * @param b another one
 * @returns the reason; undefined where they may
 * @example
 * const circuit = circuitOf({ tank: ["tank"], pump: ["fixedPump"] }, []);
 * whyNotJoined(circuit, { element: "tank", port: "T" }, { element: "pump", port: "out" })
 * // "A pump's outlet straight to tank delivers nothing. Put a valve between."
 * whyNotJoined(circuit, { element: "tank", port: "T" }, { element: "pump", port: "in" }) // undefined
 */
export function whyNotJoined(netlist: Netlist, a: PortRef, b: PortRef): string | undefined {
  const roles = [roleOf(netlist, a), roleOf(netlist, b)];
  if (roles.some((r) => r === undefined)) return "There is no such port.";
  if (portKey(a) === portKey(b)) return "A port cannot be joined to itself.";
  if (a.element === b.element) return "Both ports belong to one component: that would bypass it.";
  const has = (role: PortRole) => roles.includes(role);
  if (has("tank") && roles.every((r) => r === "tank")) return "Two reservoirs need no line: there is one for all.";
  if (has("outlet") && has("tank")) return "A pump's outlet straight to tank delivers nothing. Put a valve between.";
  if (has("suction") && has("outlet")) return "That would feed a pump's outlet into an inlet without a boost circuit.";
  const joined = (x: PortRef, y: PortRef) => portKey(x) === portKey(a) && portKey(y) === portKey(b);
  if (netlist.lines.some((l) => joined(l.from, l.to) || joined(l.to, l.from)))
    return "These two ports are joined already.";
  return undefined;
}

/**
 * The ports that lines join into one: places of one pressure.
 * @param netlist the circuit
 * @returns the number of each port's place, by "element/port", and the ports of each; ports that no line reaches have none
 * @example nodesOf(circuitOf({ t: ["tank"], p: ["fixedPump"] }, ["p.in - t.T"])).ports // [["p/in", "t/T"]]
 */
export function nodesOf(netlist: Netlist): { nodeOf: Map<string, number>; ports: string[][] } {
  const parent = new Map<string, string>();
  const top = (key: string): string => {
    let at = key;
    for (let up = parent.get(at); up !== undefined && up !== at; up = parent.get(at)) at = up;
    return at;
  };
  for (const { from, to } of netlist.lines) {
    for (const key of [portKey(from), portKey(to)]) if (!parent.has(key)) parent.set(key, key);
    parent.set(top(portKey(from)), top(portKey(to)));
  }
  const nodeOf = new Map<string, number>();
  const numbers = new Map<string, number>();
  const ports: string[][] = [];
  for (const key of parent.keys()) {
    const root = top(key);
    const number = numbers.get(root) ?? ports.length;
    if (number === ports.length) {
      numbers.set(root, number);
      ports.push([]);
    }
    nodeOf.set(key, number);
    ports[number]!.push(key);
  }
  return { nodeOf, ports };
}

/**
 * What is wrong with a circuit, gravest first. An unfinished one may be kept all the same.
 * @param netlist the circuit
 * @returns empty where it can be computed and nothing is left open
 * @example netlistProblems(circuitOf({ t: ["tank"], p: ["fixedPump"] }, ["p.in - t.T"]))[0].message // "p: its outlet is open."
 */
export function netlistProblems(netlist: Netlist): NetlistProblem[] {
  const problems: NetlistProblem[] = [];
  if (netlist.elements.length > MOST_ELEMENTS)
    problems.push({
      element: "",
      grave: true,
      message: `${netlist.elements.length} components are more than one circuit holds (${MOST_ELEMENTS}). Split it.`,
    });
  const ids = new Set<string>();
  for (const e of netlist.elements) {
    if (ids.has(e.id)) problems.push({ element: e.id, grave: true, message: `Two components have the id ${e.id}.` });
    ids.add(e.id);
    if (!Object.hasOwn(elementKinds, e.kind)) {
      problems.push({ element: e.id, grave: true, message: `${e.name}: “${String(e.kind)}” is no kind of component.` });
      continue;
    }
    for (const [name, value] of Object.entries(e.data)) {
      const d = elementKinds[e.kind].data[name];
      if (!d) problems.push({ element: e.id, grave: false, message: `${e.name} has no figure “${name}”.` });
      else if (!(value >= d.least && value <= d.greatest))
        problems.push({
          element: e.id,
          grave: true,
          message: `${e.name}: ${d.label.toLowerCase()} ${value} lies outside ${d.least} to ${d.greatest} ${d.unit}. Is the unit right?`,
        });
    }
  }
  for (const l of netlist.lines)
    for (const end of [l.from, l.to])
      if (ids.has(end.element) ? roleOf(netlist, end) === undefined : true)
        problems.push({
          element: end.element,
          grave: true,
          message: `Line ${l.id} ends at ${portKey(end)}, which is not there.`,
        });
  if (problems.some((p) => p.grave)) return problems;
  const { nodeOf } = nodesOf(netlist);
  for (const e of netlist.elements)
    for (const [port, p] of Object.entries(elementKinds[e.kind].ports))
      if (!nodeOf.has(`${e.id}/${port}`) && !p.optional)
        problems.push({ element: e.id, port, grave: false, message: `${e.name}: its ${p.label} is open.` });
  if (!netlist.elements.some((e) => e.kind === "tank"))
    problems.push({
      element: "",
      grave: true,
      message: "There is no reservoir: nothing to measure a pressure against.",
    });
  return problems.sort((a, b) => Number(b.grave) - Number(a.grave));
}
