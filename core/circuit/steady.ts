/** The steady state of a circuit: pressures at which the flows into every node add up to nothing. Newton, damped. */
import { LuDecomposition, Matrix } from "ml-matrix";
import { Assembly, compile, type Compiled, type Conditions, type Effects } from "./assembly";
import { ramp, TEARS, TORN, VOID } from "./laws";
import type { Netlist, PortRef } from "./netlist";

export interface SteadyState {
  ok: true;
  /** Pressure at a port, bar gauge; null where nothing is joined. */
  pressure(port: PortRef): number | null;
  /** Flow out of an element's port into the circuit, L/min. */
  flowOut(port: PortRef): number;
  /** Heat, shaft power and load of each element, kW, and its flows. */
  effects: Map<string, Effects>;
  /** Inner unknowns of an element: a piston's speed in cm/s, a motor's in r/min. */
  inner(element: string): number[];
  /** Elements that stand switched over (unloaders). */
  switched: ReadonlySet<string>;
  /** The solution itself, to start the next one from. */
  guess: Float64Array;
  /** The solution before an unloader switched over; the same where none did. */
  loaded: Float64Array;
  iterations: number;
  /** Ports where the oil tears and a void opens: what is computed behind them is a picture, not a measure. */
  voids: string[];
}

export interface NotSolved {
  ok: false;
  /** In words. */
  problem: string;
  /** Ports of the node that it is about. */
  at: string[];
}

const CONVERGED = 1e-8;
/** Conductance of every node to tank, L/min per bar: what makes a shut-in node have a pressure at all. */
const LEAST_LEAK = 1e-9;
const START_LEAKS = [1, 1e-1, 1e-2, 1e-3, 1e-5, 1e-7, LEAST_LEAK];
const MOST_ITERATIONS = 120;
/** A pressure changes by so much a step, bar. */
const MOST_STEP = 80;
/** A pressure beyond this is held by nothing but leakage. */
const UNLIMITED = 1000;

type Outcome = { ok: true; iterations: number } | { ok: false; worst: number };

/** Newton at one leakage, in place. */
function newton(assembly: Assembly, x: Float64Array, leak: number): Outcome {
  const nodes = assembly.compiled.nodes.length;
  const n = assembly.compiled.unknowns;
  const trial = new Float64Array(n);
  const tears = new Float64Array(nodes);
  const evaluate = (at: Float64Array) => {
    assembly.sumUp(at);
    let norm = 0;
    for (let i = 0; i < n; i++) {
      if (i < nodes) {
        const vapour = ramp(VOID - at[i]!, TORN);
        assembly.residual[i]! += TEARS * vapour.value - leak * at[i]!;
        tears[i] = TEARS * vapour.slope + leak;
      }
      norm = Math.max(norm, Math.abs(assembly.residual[i]!));
    }
    return norm;
  };
  let norm = evaluate(x);
  for (let iteration = 1; iteration <= MOST_ITERATIONS; iteration++) {
    for (let i = 0; i < nodes; i++) assembly.slopes.set(i, i, assembly.slopes.get(i, i) - tears[i]!);
    const right = Matrix.columnVector(Array.from(assembly.residual, (r) => -r));
    const lu = new LuDecomposition(assembly.slopes);
    if (lu.isSingular()) return { ok: false, worst: worstOf(assembly.residual) };
    const step = lu.solve(right).to1DArray();
    let largest = 0;
    for (let i = 0; i < nodes; i++) largest = Math.max(largest, Math.abs(step[i]!));
    let damping = Math.min(1, MOST_STEP / Math.max(largest, 1e-12));
    const whole = damping;
    let next = Infinity;
    for (let tries = 0; tries < 12; tries++) {
      for (let i = 0; i < n; i++) trial[i] = x[i]! + damping * step[i]!;
      next = evaluate(trial);
      if (next <= norm * (1 - 0.1 * damping) || next < CONVERGED) break;
      damping /= 2;
    }
    if (!(next < norm) && norm > CONVERGED) {
      // no descent: past the kink of a valve a whole step often lands better than a small one
      for (let i = 0; i < n; i++) trial[i] = x[i]! + whole * step[i]!;
      next = evaluate(trial);
    }
    x.set(trial);
    norm = next;
    if (norm < CONVERGED) return { ok: true, iterations: iteration };
    if (!Number.isFinite(norm)) break;
  }
  return { ok: false, worst: worstOf(assembly.residual) };
}

function worstOf(residual: Float64Array): number {
  let worst = 0;
  residual.forEach((r, i) => {
    if (!(Math.abs(r) <= Math.abs(residual[worst]!))) worst = i;
  });
  return worst;
}

/**
 * Solve a circuit at rest or in even motion: flows that balance at every place, by Newton's method with damping.
 * @param circuit netlist, or one that was compiled already
 * @param conditions commands −1 to 1, figures, oil, faults; left out: everything at rest and usual
 * @param start a solution of nearly the same conditions, to begin from
 * @returns the state in bar and L/min, or why there is none and where
 * @throws {CircuitError} where the netlist cannot be computed at all
 * @example
 * const circuit = circuitOf({ tank: ["tank"], pump: ["fixedPump", { caseLeak: 0 }], relief: ["relief", { crack: 180 }] },
 *   ["tank.T - pump.in - relief.T", "pump.out - relief.P"]);
 * steadyState(circuit).pressure({ element: "pump", port: "out" }) > 180 // true
 */
export function steadyState(
  circuit: Netlist | Compiled,
  conditions: Conditions = {},
  start?: Pick<SteadyState, "guess" | "loaded">,
): SteadyState | NotSolved {
  const compiled = "bound" in circuit ? circuit : compile(circuit);
  const unloaders = compiled.bound.filter((b) => b.element.kind === "unloader");
  const states = new Set<string>();
  let solved = solveWith(compiled, conditions, states, start?.loaded);
  const loaded = solved.ok ? solved.guess : undefined;
  // an unloader that reaches its cut-out switches over; the pressure that the accumulator holds is the cut-out's
  for (const u of unloaders) {
    if (!solved.ok) break;
    const cutOut = conditions.data?.[u.element.id]?.cutOut ?? u.data.cutOut!;
    const pilot = u.ports.X === undefined || u.ports.X < 0 ? 0 : solved.guess[u.ports.X]!;
    if (pilot < cutOut) continue;
    const cutIn = conditions.data?.[u.element.id]?.cutIn ?? u.data.cutIn!;
    states.add(u.element.id);
    solved = solveWith(compiled, conditions, states, start?.guess, (cutIn + cutOut) / 2);
  }
  return solved.ok && loaded ? { ...solved, loaded } : solved;
}

function solveWith(
  compiled: Compiled,
  conditions: Conditions,
  states: ReadonlySet<string>,
  start?: Float64Array,
  held: number | null = null,
): SteadyState | NotSolved {
  const assembly = new Assembly(compiled, conditions, states);
  assembly.held = held;
  const x = new Float64Array(compiled.unknowns);
  let iterations = 0;
  let outcome: Outcome = { ok: false, worst: 0 };
  if (start?.length === x.length) {
    x.set(start);
    outcome = newton(assembly, x, LEAST_LEAK);
    if (outcome.ok) iterations = outcome.iterations;
  }
  if (!outcome.ok) {
    x.fill(0);
    for (const leak of START_LEAKS) {
      outcome = newton(assembly, x, leak);
      if (!outcome.ok) break;
      iterations += outcome.iterations;
    }
  }
  if (!outcome.ok) {
    const at = compiled.nodes[outcome.worst] ?? [];
    return {
      ok: false,
      at,
      problem: `No balance is found at ${named(compiled, at)}: check the figures of what is joined there.`,
    };
  }
  for (const [i, ports] of compiled.nodes.entries())
    if (x[i]! > UNLIMITED)
      return {
        ok: false,
        at: ports,
        problem: `Nothing limits the pressure at ${named(compiled, ports)}: it needs a relief valve, or a way to tank.`,
      };
  const effects = new Map<string, Effects>();
  assembly.sumUp(x, effects);
  const out = (ref: PortRef) =>
    (effects.get(ref.element)?.flows ?? []).reduce(
      (sum, f) => sum + (f.to === ref.port ? f.q : 0) - (f.from === ref.port ? f.q : 0),
      0,
    );
  return {
    ok: true,
    guess: x,
    loaded: x,
    iterations,
    effects,
    switched: states,
    voids: compiled.nodes.filter((_, i) => x[i]! < VOID + 0.01).flat(),
    flowOut: out,
    pressure: (ref) => {
      const node = compiled.nodeOf.get(`${ref.element}/${ref.port}`);
      return node === undefined ? null : node < 0 ? 0 : x[node]!;
    },
    inner: (id) => {
      const b = compiled.bound.find((e) => e.element.id === id);
      return b ? Array.from(x.slice(b.inner, b.inner + (b.kind.inner ?? 0))) : [];
    },
  };
}

function named(compiled: Compiled, ports: readonly string[]): string {
  const names = ports.slice(0, 3).map((key) => {
    const [id, port] = [key.slice(0, key.lastIndexOf("/")), key.slice(key.lastIndexOf("/") + 1)];
    return `${compiled.netlist.elements.find((e) => e.id === id)?.name ?? id} ${port}`;
  });
  return names.join(", ") || "an inner equation";
}
