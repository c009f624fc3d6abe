/**
 * A circuit in time: oil is compressed, pistons travel, accumulators fill, unloaders switch. The equations are stiff, so
 * they are stepped implicitly: a trapezoidal stage and a backward difference (TR-BDF2; Bank et al. 1985, Hosea and
 * Shampine 1996), with the step that the error allows.
 */
import { LuDecomposition, Matrix } from "ml-matrix";
import { Assembly, compile, type Compiled, type Conditions } from "./assembly";
import { ramp, TEARS, TORN, VOID } from "./laws";
import type { Netlist, PortRef } from "./netlist";

/** From a moment on (s) these conditions hold. */
export interface Phase {
  from: number;
  conditions: Conditions;
}

export interface InTimeOptions {
  /** s. */
  until: number;
  phases: readonly Phase[];
  /** Bulk modulus of oil and hoses together, bar. */
  modulus?: number;
  /** Oil between two fittings where nothing is stated, L; and by "element/port". */
  volume?: number;
  volumes?: Record<string, number>;
  /** Where pistons stand at the start, share of their stroke; oil in accumulators, L; pressures by "element/port". */
  places?: Record<string, number>;
  stored?: Record<string, number>;
  pressures?: Record<string, number>;
  /** Relative error of a step. */
  tolerance?: number;
}

export interface Course {
  ok: true;
  /** s, rising. */
  times: number[];
  pressure(port: PortRef): number[];
  /** Inner unknown i of an element: a piston's speed (cm/s) and place (cm), an accumulator's flow and oil. */
  inner(element: string, i: number): number[];
  /** When an unloader switched, and to what. */
  switches: { at: number; element: string; unloads: boolean }[];
  steps: number;
}

export interface CourseFailed {
  ok: false;
  /** s. */
  at: number;
  problem: string;
}

/** Mineral oil without air and hoses of usual stretch. Common practice, from 7000 to 14 000. */
const MODULUS = 12_000;
const VOLUME = 0.3;
const GAMMA = 2 - Math.SQRT2;
/** Weight of the new derivative in both stages. */
const ALPHA = GAMMA / 2;
const ERROR = (-3 * GAMMA * GAMMA + 4 * GAMMA - 2) / (12 * (2 - GAMMA));
/** A course has at least so many moments, so that it can be drawn. */
const LEAST_POINTS = 120;
const LEAST_STEP = 1e-9;
const FIRST_STEP = 1e-5;
const MOST_STEPS = 40_000;
/** An unloader switches within this of its pressure's moment, s. */
const SWITCHED_WITHIN = 1e-4;
/** Leakage of every node to tank, L/min per bar. */
const LEAST_LEAK = 1e-9;

interface System {
  compiled: Compiled;
  /** Factor of each rate: L/bar for nodes (taken with L/s), the kind's own for inner unknowns. */
  mass: Float64Array;
}

/** The rates' factors at a state: chambers of cylinders hold more oil as they open. */
function massOf({ compiled }: Pick<System, "compiled">, y: Float64Array, o: InTimeOptions): Float64Array {
  const nodes = compiled.nodes.length;
  const mass = new Float64Array(compiled.unknowns);
  const modulus = o.modulus ?? MODULUS;
  compiled.nodes.forEach((ports, i) => {
    const stated = ports.map((p) => o.volumes?.[p]).filter((v) => v !== undefined);
    mass[i] = (stated.length > 0 ? stated.reduce((s, v) => s + v, 0) : (o.volume ?? VOLUME)) / modulus;
  });
  compiled.rates.forEach((rate, k) => (mass[nodes + k] = rate));
  for (const b of compiled.bound) {
    if (b.element.kind !== "cylinder" || o.volumes?.[`${b.element.id}/A`] !== undefined) continue;
    const area = (Math.PI / 400) * b.data.bore! ** 2;
    const ring = area - (Math.PI / 400) * b.data.rod! ** 2;
    const stroke = b.data.stroke! / 10;
    const place = Math.min(stroke, Math.max(0, y[b.inner + 1]!));
    const [a, back] = [b.ports.A!, b.ports.B!];
    if (a >= 0) mass[a]! += (area * place) / 1000 / modulus;
    if (back >= 0) mass[back]! += (ring * (stroke - place)) / 1000 / modulus;
  }
  return mass;
}

/** The derivative side F(y), nodes in L/s, with its slopes left in the assembly. */
function sideOf(assembly: Assembly, y: Float64Array, into: Float64Array): Float64Array {
  assembly.sumUp(y);
  const nodes = assembly.compiled.nodes.length;
  for (let i = 0; i < into.length; i++) {
    if (i >= nodes) {
      into[i] = assembly.residual[i]!;
      continue;
    }
    // oil tears: the void is not filled again before pressure rises, which shortens a real recovery
    const vapour = ramp(VOID - y[i]!, TORN);
    into[i] = (assembly.residual[i]! + TEARS * vapour.value - LEAST_LEAK * y[i]!) / 60;
    assembly.slopes.set(i, i, assembly.slopes.get(i, i) - TEARS * vapour.slope - LEAST_LEAK);
  }
  return into;
}

/**
 * Follow a circuit through a time.
 * @returns the course, or where and why it could not be followed further
 * @throws {CircuitError} where the netlist cannot be computed at all
 * @throws {RangeError} where no phase covers the start
 */
export function inTime(netlist: Netlist, options: InTimeOptions): Course | CourseFailed {
  const compiled = compile(netlist, true);
  const phases = [...options.phases].sort((a, b) => a.from - b.from);
  if (!phases[0] || phases[0].from > 0) throw new RangeError("A phase has to begin at 0 s.");
  const n = compiled.unknowns;
  const nodes = compiled.nodes.length;
  const switched = new Set<string>();
  const unloaders = compiled.bound.filter((b) => b.element.kind === "unloader");
  const tolerance = options.tolerance ?? 1e-3;
  const longest = options.until / LEAST_POINTS;

  let y = startOf(compiled, options);
  const times = [0];
  const states = [y.slice()];
  const switches: Course["switches"] = [];
  let t = 0;
  let h = FIRST_STEP;
  let phase = 0;
  let assembly = new Assembly(compiled, phases[0].conditions, switched);
  // what holds at every moment is made to hold at the start
  const settled = settle(assembly, compiled, options, y);
  if (!settled) return { ok: false, at: 0, problem: "The start contradicts itself: check loads and places." };
  states[0] = y.slice();

  const [now, middle, next, work] = [0, 1, 2, 3].map(() => new Float64Array(n)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const scale = (i: number, v: number) => tolerance * ((i < nodes ? 1 : 0.1) + Math.abs(v));
  let steps = 0;
  while (t < options.until - 1e-12) {
    if (++steps > MOST_STEPS)
      return { ok: false, at: t, problem: `It does not come to an end: still at ${t.toFixed(3)} s.` };
    const changes = phases[phase + 1]?.from ?? Infinity;
    const end = Math.min(options.until, changes);
    h = Math.min(h, end - t, longest);
    const mass = massOf({ compiled }, y, options);
    sideOf(assembly, y, now);

    // stage one to t + γh by the trapezoidal rule; what holds at every moment holds at its end
    const yMiddle = y.slice();
    const first = stage(assembly, mass, yMiddle, ALPHA * h, work, (i) => mass[i]! * y[i]! + ALPHA * h * now[i]!);
    let ok = first;
    const yNext = yMiddle.slice();
    if (ok) {
      sideOf(assembly, yMiddle, middle);
      const a = 1 / (GAMMA * (2 - GAMMA));
      const b = ((1 - GAMMA) * (1 - GAMMA)) / (GAMMA * (2 - GAMMA));
      for (let i = 0; i < n; i++) yNext[i] = y[i]! + (yMiddle[i]! - y[i]!) / GAMMA;
      ok = stage(assembly, mass, yNext, ALPHA * h, work, (i) => mass[i]! * (a * yMiddle[i]! - b * y[i]!));
    }
    if (!ok) {
      h /= 4;
      if (h < LEAST_STEP)
        return {
          ok: false,
          at: t,
          problem: `It cannot be followed beyond ${t.toFixed(3)} s: the step became too small.`,
        };
      continue;
    }
    sideOf(assembly, yNext, next);
    const error = errorOf(assembly, mass, h, [now, middle, next], yNext, scale);
    if (error > 1 && h > LEAST_STEP * 10) {
      h *= Math.max(0.2, 0.9 * error ** (-1 / 3));
      continue;
    }
    const crossing = crossed(unloaders, y, yNext, switched, phases[phase]!.conditions);
    if (crossing && h > SWITCHED_WITHIN) {
      h = Math.max(SWITCHED_WITHIN / 2, Math.min(0.9, crossing.share) * h);
      continue;
    }
    t += h;
    y = yNext;
    times.push(t);
    states.push(y.slice());
    h *= Math.min(4, Math.max(0.3, 0.9 * Math.max(error, 1e-6) ** (-1 / 3)));
    if (crossing) {
      if (switched.has(crossing.element)) switched.delete(crossing.element);
      else switched.add(crossing.element);
      switches.push({ at: t, element: crossing.element, unloads: switched.has(crossing.element) });
      h = FIRST_STEP;
    }
    if (t >= changes - 1e-12) {
      phase++;
      assembly = new Assembly(compiled, phases[phase]!.conditions, switched);
      h = FIRST_STEP;
    }
  }
  const column = (i: number | undefined) => states.map((s) => (i === undefined || i < 0 ? 0 : s[i]!));
  return {
    ok: true,
    times,
    switches,
    steps,
    pressure: (port) => column(compiled.nodeOf.get(`${port.element}/${port.port}`)),
    inner: (id, i) => column(compiled.bound.find((b) => b.element.id === id)!.inner + i),
  };
}

/** Pressures as stated; a load that nothing is said of is held by the chamber under it. */
function startOf(compiled: Compiled, o: InTimeOptions): Float64Array {
  const y = new Float64Array(compiled.unknowns);
  for (const b of compiled.bound) {
    if (b.element.kind === "motor") {
      const { torque = 0, displacement = 1 } = { ...b.data, ...o.phases[0]?.conditions.data?.[b.element.id] };
      const under = torque > 0 ? b.ports.A! : b.ports.B!;
      if (under >= 0) y[under] = (Math.abs(torque) * 20 * Math.PI) / displacement;
    }
    if (b.element.kind !== "cylinder") continue;
    const { load = 0, bore = 1, rod = 0 } = { ...b.data, ...o.phases[0]?.conditions.data?.[b.element.id] };
    const under = load > 0 ? b.ports.A! : b.ports.B!;
    const area = (Math.PI / 400) * (load > 0 ? bore ** 2 : bore ** 2 - rod ** 2);
    if (under >= 0) y[under] = (100 * Math.abs(load)) / area;
  }
  for (const [key, value] of Object.entries(o.pressures ?? {})) {
    const node = compiled.nodeOf.get(key);
    if (node !== undefined && node >= 0) y[node] = value;
  }
  for (const b of compiled.bound) {
    if (b.element.kind === "cylinder") y[b.inner + 1] = ((o.places?.[b.element.id] ?? 0) * b.data.stroke!) / 10;
    if (b.element.kind === "accumulator") y[b.inner + 1] = o.stored?.[b.element.id] ?? 0;
  }
  return y;
}

/** One short implicit step in place: pistons and gas agree with the pressures afterwards. */
function settle(assembly: Assembly, compiled: Compiled, o: InTimeOptions, y: Float64Array): boolean {
  const mass = massOf({ compiled }, y, o);
  const before = y.slice();
  const work = new Float64Array(y.length);
  for (const h of [1e-7, 1e-6, 1e-5])
    if (stage(assembly, mass, y, h, work, (i) => mass[i]! * before[i]!)) return true;
    else y.set(before);
  return false;
}

/** Newton on M·y − αh·F(y) = right, where M is 0 on F(y) = 0; in place. */
function stage(
  assembly: Assembly,
  mass: Float64Array,
  y: Float64Array,
  step: number,
  work: Float64Array,
  right: (i: number) => number,
): boolean {
  const n = y.length;
  const nodes = assembly.compiled.nodes.length;
  let before = Infinity;
  for (let iteration = 0; iteration < 14; iteration++) {
    sideOf(assembly, y, work);
    const rest = Matrix.zeros(n, 1);
    let largest = 0;
    for (let i = 0; i < n; i++)
      rest.set(i, 0, mass[i] === 0 ? -work[i]! : right(i) + step * work[i]! - mass[i]! * y[i]!);
    const lu = new LuDecomposition(system(assembly, mass, step, nodes));
    if (lu.isSingular()) return false;
    const change = lu.solve(rest);
    for (let i = 0; i < n; i++) {
      const d = change.get(i, 0);
      y[i]! += d;
      largest = Math.max(largest, Math.abs(d) / (1e-2 + Math.abs(y[i]!)));
    }
    if (!Number.isFinite(largest)) return false;
    if (largest < 1e-7) return true;
    if (iteration > 6 && largest > before) return false;
    before = largest;
  }
  return before < 1e-5;
}

/** M − αh·F′, and −F′ on the rows that hold at every moment... with the sign that makes both one system. */
function system(assembly: Assembly, mass: Float64Array, step: number, nodes: number): Matrix {
  const matrix = assembly.slopes.clone();
  const n = mass.length;
  for (let i = 0; i < n; i++) {
    const factor = mass[i] === 0 ? 1 : i < nodes ? -step / 60 : -step;
    for (let j = 0; j < n; j++) {
      const v = matrix.get(i, j) * factor;
      matrix.set(i, j, i === j && mass[i] !== 0 ? v + mass[i]! : v);
    }
  }
  return matrix;
}

/** The largest error of a step over what is allowed; filtered through the system, since it is stiff. */
function errorOf(
  assembly: Assembly,
  mass: Float64Array,
  h: number,
  [f0, f1, f2]: readonly [Float64Array, Float64Array, Float64Array],
  y: Float64Array,
  scale: (i: number, v: number) => number,
): number {
  const n = y.length;
  const raw = Matrix.zeros(n, 1);
  for (let i = 0; i < n; i++)
    if (mass[i] !== 0)
      raw.set(i, 0, 2 * ERROR * h * (f0[i]! / GAMMA - f1[i]! / (GAMMA * (1 - GAMMA)) + f2[i]! / (1 - GAMMA)));
  const lu = new LuDecomposition(system(assembly, mass, ALPHA * h, assembly.compiled.nodes.length));
  if (lu.isSingular()) return Infinity;
  const error = lu.solve(raw);
  let worst = 0;
  for (let i = 0; i < n; i++) if (mass[i] !== 0) worst = Math.max(worst, Math.abs(error.get(i, 0)) / scale(i, y[i]!));
  return worst;
}

/** The first unloader whose pilot pressure passed its threshold in this step, and after what share of it. */
function crossed(
  unloaders: Compiled["bound"],
  y: Float64Array,
  next: Float64Array,
  switched: ReadonlySet<string>,
  conditions: Conditions,
): { element: string; share: number } | null {
  for (const u of unloaders) {
    const pilot = u.ports.X ?? -1;
    if (pilot < 0) continue;
    const of = (name: "cutIn" | "cutOut") => conditions.data?.[u.element.id]?.[name] ?? u.data[name]!;
    const [before, after] = [y[pilot]!, next[pilot]!];
    const threshold = switched.has(u.element.id) ? of("cutIn") : of("cutOut");
    const passes = switched.has(u.element.id) ? after <= threshold : after >= threshold;
    if (passes)
      return {
        element: u.element.id,
        share: Math.abs(after - before) < 1e-12 ? 0 : (threshold - before) / (after - before),
      };
  }
  return null;
}
