/** A circuit made ready to be solved: its unknowns numbered, its elements bound to them, its equations summed up. */
import { Matrix } from "ml-matrix";
import { elementKinds } from "./kinds";
import type { ElementKind, Stamp } from "./kinds/types";
import { netlistProblems, nodesOf, type CircuitElement, type Netlist } from "./netlist";

/** What is asked of the circuit: everything that can be turned without changing the drawing. */
export interface Conditions {
  /** Commands of valves by element, -1 to 1; left out: 0. */
  commands?: Record<string, number>;
  /** Figures that differ from the netlist's, by element and name. */
  data?: Record<string, Record<string, number>>;
  /** Severities of faults by element and fault; 0 is healthy. */
  faults?: Record<string, Record<string, number>>;
  /** Dynamic viscosity over 26 mPa·s (VG 46 at 50 °C), where laminar figures are stated. */
  viscosity?: number;
  /** kg/m³. */
  density?: number;
}

/** The pressure of these is known. */
const FIXED = -1;

interface Bound {
  element: CircuitElement;
  kind: ElementKind;
  /** Unknown of each port by its name; FIXED: the reservoir or the surroundings. */
  ports: Record<string, number>;
  joined: Set<string>;
  /** First inner unknown. */
  inner: number;
  data: Record<string, number>;
}

export interface Compiled {
  netlist: Netlist;
  inTime: boolean;
  bound: Bound[];
  /** Ports of each pressure unknown, for messages. */
  nodes: string[][];
  unknowns: number;
  /** Unknown of a port by "element/port"; FIXED for the reservoir. */
  nodeOf: Map<string, number>;
  /** Factor of the rate in the equation of each inner unknown, by its number less the number of nodes. */
  rates: number[];
}

export class CircuitError extends Error {}

/**
 * Number the unknowns of a circuit.
 * @param inTime with what stores oil and knows its place
 * @throws {CircuitError} with the gravest problem in words, where it cannot be computed
 */
export function compile(netlist: Netlist, inTime = false): Compiled {
  const grave = netlistProblems(netlist).find((p) => p.grave);
  if (grave) throw new CircuitError(grave.message);
  const { nodeOf: joinedAs, ports } = nodesOf(netlist);
  const tanks = new Set<number>();
  for (const e of netlist.elements)
    if (e.kind === "tank")
      for (const port of Object.keys(elementKinds.tank.ports)) tanks.add(joinedAs.get(`${e.id}/${port}`) ?? -2);
  const numberOf = new Map<number, number>();
  const nodes: string[][] = [];
  ports.forEach((names, node) => {
    if (tanks.has(node)) return;
    numberOf.set(node, nodes.length);
    nodes.push(names);
  });
  const nodeOf = new Map<string, number>();
  for (const [key, node] of joinedAs) nodeOf.set(key, numberOf.get(node) ?? FIXED);
  const bound = netlist.elements
    .filter((e) => e.kind !== "tank")
    .map((element): Bound => {
      const kind = elementKinds[element.kind];
      const own: Record<string, number> = { outside: FIXED };
      const joined = new Set<string>();
      for (const [name, port] of Object.entries(kind.ports)) {
        const key = `${element.id}/${name}`;
        if (nodeOf.has(key)) joined.add(name);
        else if (!port.optional) {
          // an open port is a plugged one: a node of its own
          nodeOf.set(key, nodes.length);
          nodes.push([key]);
          joined.add(name);
        }
        own[name] = nodeOf.get(key) ?? FIXED;
      }
      const data = Object.fromEntries(
        Object.entries(kind.data).map(([name, figure]) => [name, element.data[name] ?? figure.usual]),
      );
      return { element, kind, ports: own, joined, inner: 0, data };
    });
  let next = nodes.length;
  const rates: number[] = [];
  for (const b of bound) {
    b.inner = next;
    const own = inTime && b.kind.innerInTime ? b.kind.innerInTime : Array.from({ length: b.kind.inner ?? 0 }, () => 0);
    rates.push(...own);
    next += own.length;
  }
  return { netlist, inTime, bound, nodes, unknowns: next, nodeOf, rates };
}

/** What an element does in a state: heat in kW, and its flows from port to port in L/min with the heat that each takes up. */
export interface Effects {
  heat: number;
  shaft: number;
  load: number;
  flows: { from: string; to: string; q: number; heat: number }[];
}

/** The equations of a compiled circuit at a guess, with their slopes. One object serves many guesses. */
export class Assembly implements Stamp {
  readonly residual: Float64Array;
  readonly slopes: Matrix;
  guess: Float64Array;
  viscosity = 1;
  density = 870;
  command = 0;
  held: number | null = null;
  switched = false;
  readonly inTime: boolean;
  private current!: Bound;
  private from = FIXED;
  private to = FIXED;
  private effects: Effects | null = null;
  private readonly rows: Float64Array[];

  constructor(
    readonly compiled: Compiled,
    readonly conditions: Conditions,
    readonly states: ReadonlySet<string> = new Set(),
  ) {
    const n = compiled.unknowns;
    this.residual = new Float64Array(n);
    this.guess = new Float64Array(n);
    this.slopes = new Matrix(n, n);
    this.rows = Array.from({ length: n }, (_, i) => (this.slopes as unknown as { data: Float64Array[] }).data[i]!);
    this.inTime = compiled.inTime;
    this.viscosity = conditions.viscosity ?? 1;
    this.density = conditions.density ?? 870;
  }

  /** Sum all equations up at a guess. `each` collects what every element does. */
  sumUp(guess: Float64Array, each?: Map<string, Effects>): void {
    this.guess = guess;
    this.residual.fill(0);
    for (const row of this.rows) row.fill(0);
    for (const b of this.compiled.bound) {
      this.current = b;
      this.command = this.conditions.commands?.[b.element.id] ?? 0;
      this.switched = this.states.has(b.element.id);
      this.effects = each ? { heat: 0, shaft: 0, load: 0, flows: [] } : null;
      b.kind.stamp(this);
      if (each && this.effects) each.set(b.element.id, this.effects);
    }
  }

  private pressure(unknown: number): number {
    return unknown === FIXED ? 0 : this.guess[unknown]!;
  }
  private add(row: number, column: number, slope: number): void {
    if (row !== FIXED && column !== FIXED) this.rows[row]![column]! += slope;
  }

  p(port: string): number {
    return this.pressure(this.current.ports[port] ?? FIXED);
  }
  connected(port: string): boolean {
    return this.current.joined.has(port);
  }
  x(i: number): number {
    return this.guess[this.current.inner + i]!;
  }
  d(name: string): number {
    return this.conditions.data?.[this.current.element.id]?.[name] ?? this.current.data[name]!;
  }
  fault(name: string): number {
    return this.conditions.faults?.[this.current.element.id]?.[name] ?? 0;
  }
  flow(from: string, to: string, q: number, byFrom: number, byTo: number, shaft?: true): void {
    const [a, b] = [this.current.ports[from] ?? FIXED, this.current.ports[to] ?? FIXED];
    this.from = a;
    this.to = b;
    if (a !== FIXED) this.residual[a]! -= q;
    if (b !== FIXED) this.residual[b]! += q;
    this.add(a, a, -byFrom);
    this.add(a, b, -byTo);
    this.add(b, a, byFrom);
    this.add(b, b, byTo);
    if (!this.effects) return;
    const heat = shaft ? 0 : (q * (this.pressure(a) - this.pressure(b))) / 600;
    this.effects.flows.push({ from, to, q, heat });
    this.effects.heat += heat;
  }
  also(port: string, slope: number): void {
    const c = this.current.ports[port] ?? FIXED;
    this.add(this.from, c, -slope);
    this.add(this.to, c, slope);
  }
  into(port: string, q: number, byPort = 0): void {
    const at = this.current.ports[port] ?? FIXED;
    this.add(at, at, byPort);
    if (at !== FIXED) this.residual[at]! += q;
    this.effects?.flows.push({ from: "inside", to: port, q, heat: 0 });
  }
  intoByInner(port: string, i: number, slope: number): void {
    this.add(this.current.ports[port] ?? FIXED, this.current.inner + i, slope);
  }
  equation(i: number, residual: number): void {
    this.residual[this.current.inner + i]! += residual;
  }
  equationBy(i: number, port: string, slope: number): void {
    this.add(this.current.inner + i, this.current.ports[port] ?? FIXED, slope);
  }
  equationByInner(i: number, inner: number, slope: number): void {
    this.add(this.current.inner + i, this.current.inner + inner, slope);
  }
  shaft(kilowatts: number): void {
    if (this.effects) this.effects.shaft += kilowatts;
  }
  load(kilowatts: number): void {
    if (this.effects) this.effects.load += kilowatts;
  }
}
