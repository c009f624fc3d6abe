/**
 * A circuit fitted to its own gauges: the few figures that no plate states are moved until the healthy model shows what
 * the gauges showed when it was healthy. Gauss-Newton with damping (Levenberg and Marquardt), figures on a log scale.
 */
import { Matrix, solve as leastSquares } from "ml-matrix";
import type { ReadingState } from "../units/readingStates";
import type { Circumstances } from "./circumstances";
import { gaugeReader, modelStateOf } from "./gauges";
import { elementKinds } from "./kinds";
import { nodesOf, type Gauge, type Netlist } from "./netlist";

export interface BaselineReading {
  pointId: string;
  state: ReadingState;
  /** When healthy, in the core's unit, with its standard uncertainty. */
  value: number;
  uncertainty: number;
}

export interface FittedFigure {
  element: string;
  figure: string;
  from: number;
  to: number;
  /** Elements side by side whose figure moves by the same factor. */
  together?: string[];
}

export interface FitResult {
  /** Figures to be used from now on, by element. */
  data: Record<string, Record<string, number>>;
  free: FittedFigure[];
  met: { pointId: string; read: number; model: number | null; deviations: number | null }[];
  /** Does the healthy model show what the gauges showed? Else it is not used to judge. */
  fits: boolean;
}

const MOST_STEPS = 25;
/** A reading is met when the model lies within so many standard uncertainties. */
const MET = 2;
/** A circuit fits when at most this share of its readings is not met. */
const MAY_MISS = 0.1;
/** On a log scale figures stay within this factor of where they began. */
const FARTHEST = Math.log(60);
/** Prior standard deviation of a figure on the log scale: a figure that nothing speaks of stays where it is. */
const PRIOR = Math.log(8);

type Target = Pick<FittedFigure, "element" | "figure" | "together">;

/** The figure that a reading of this kind is most likely to settle, and on what element. */
function settledBy(netlist: Netlist, gauge: Gauge): Target | null {
  const element = netlist.elements.find((e) => e.id === gauge.element);
  if (!element) return null;
  const own = (figure: string) => ({ element: element.id, figure });
  const beside = (port: string, kind: string, figure: string) => {
    const line = netlist.lines.find((l) => [l.from, l.to].some((r) => r.element === element.id && r.port === port));
    const other = line && [line.from, line.to].find((r) => r.element !== element.id);
    const found = netlist.elements.find((e) => e.id === other?.element && e.kind === kind);
    return found ? { element: found.id, figure } : null;
  };
  switch (gauge.reads) {
    case "flow":
      return own(gauge.port === "case" ? "caseLeak" : "slip");
    case "vacuum":
      return beside("in", "strainer", "laminar");
    case "pressure":
      if (gauge.port === "case") return beside("case", "line", "laminar");
      if (element.kind === "compensatedPump" || element.kind === "reducing") return own("set");
      if (element.kind === "throttle") return own("diameter");
      if (element.kind === "fixedPump") return chargeOf(netlist) ?? loadOf(netlist);
      return loadOf(netlist);
    case "pressureDrop":
      return own("laminar");
    case "temperature":
      return own("cooling");
    case "setting":
      return own(element.kind === "unloader" ? "cutOut" : "crack");
    case "nullLeakage":
      return own("leak");
    case "strokeTime":
      return own("stroke");
    case "margin":
      return own("margin");
    case "creep":
      return own("pistonLeak");
    case "temperatureRise":
      return own("body");
    case "other":
      return null;
  }
}

/** In a closed loop the ordinary pump's pressure is that of the charge: its relief valve is the one that leads to the tank. */
function chargeOf(netlist: Netlist): Target | null {
  if (!netlist.elements.some((e) => e.kind === "closedLoopPump")) return null;
  const { nodeOf, ports } = nodesOf(netlist);
  const toTank = (id: string) => ports[nodeOf.get(`${id}/T`) ?? -1]?.some((p) => isTank(netlist, p)) ?? false;
  const relief = netlist.elements.find((e) => e.kind === "relief" && toTank(e.id));
  return relief ? { element: relief.id, figure: "crack" } : null;
}

const isTank = (netlist: Netlist, port: string) =>
  netlist.elements.some((e) => e.kind === "tank" && port === `${e.id}/T`);

/** A working pressure is the load's; cylinders side by side carry it together. */
function loadOf(netlist: Netlist): Target | null {
  for (const [kind, figure] of [
    ["cylinder", "load"],
    ["motor", "torque"],
    ["throttle", "diameter"],
  ] as const) {
    const [first, ...others] = netlist.elements.filter((e) => e.kind === kind);
    if (first) return { element: first.id, figure, together: kind === "throttle" ? [] : others.map((o) => o.id) };
  }
  return null;
}

/**
 * Fit a circuit to its readings when healthy: each reading frees the figure that it settles.
 * @param netlist the circuit, with its gauges
 * @param readings when healthy, core units, each with its standard uncertainty above 0
 * @param commands of its valves while it works, −1 to 1 by element
 * @param oil at which the readings were taken or corrected to
 * @returns what was free, what it became, and how well each reading is met
 * @throws {CircuitError} where the netlist cannot be computed
 * @example
 * const drawn = circuitOf({ tank: ["tank"], pump: ["fixedPump", { caseLeak: 0 }], relief: ["relief", { crack: 180 }] },
 *   ["tank.T - pump.in - relief.T", "pump.out - relief.P"]);
 * const circuit = { ...drawn, gauges: [{ pointId: "set", element: "relief", port: "P", reads: "setting" }] };
 * fitCircuit(circuit, [{ pointId: "set", state: "any", value: 200, uncertainty: 1 }], {}).data // { relief: { crack: 200 } }
 */
export function fitCircuit(
  netlist: Netlist,
  readings: readonly BaselineReading[],
  commands: Record<string, number>,
  oil: Pick<Circumstances, "viscosity" | "density"> = {},
): FitResult {
  const states = new Map(readings.map((r) => [r.pointId, r.state]));
  const read = gaugeReader(netlist, states);
  const byPoint = new Map(netlist.gauges.map((g) => [g.pointId, g]));
  const used = readings.filter(
    (r) => byPoint.has(r.pointId) && byPoint.get(r.pointId)!.reads !== "other" && r.uncertainty > 0,
  );

  const start = (element: string, figure: string) => {
    const e = netlist.elements.find((x) => x.id === element)!;
    return e.data[figure] ?? elementKinds[e.kind].data[figure]?.usual ?? 0;
  };
  const free: FittedFigure[] = [];
  const data: FitResult["data"] = {};
  const set = (element: string, figure: string, value: number) => ((data[element] ??= {})[figure] = value);
  const circumstances = (): Circumstances => ({ commands, data, ...oil });
  const first = read(circumstances());

  for (const r of used) {
    const gauge = byPoint.get(r.pointId)!;
    const target = settledBy(netlist, gauge);
    if (!target) continue;
    if (gauge.reads === "temperatureRise") {
      const state = first.states[modelStateOf(r.state)];
      const shown = first.values.get(r.pointId);
      // colder than read: its warmth comes from elsewhere, which no figure of the circuit explains
      if (state.ok && shown !== undefined && shown !== null && shown < r.value) {
        set(target.element, "warmer", r.value - shown);
        free.push({ element: target.element, figure: "warmer", from: 0, to: r.value - shown });
        continue;
      }
    }
    if (free.some((f) => f.element === target.element && f.figure === target.figure)) continue;
    const from = start(target.element, target.figure);
    if (from > 0) free.push({ ...target, from, to: from });
  }

  const moving = free.filter((f) => f.figure !== "warmer");
  const residuals = (at: readonly number[]): number[] => {
    moving.forEach((f, i) => {
      const { least, greatest } = elementKinds[netlist.elements.find((e) => e.id === f.element)!.kind].data[f.figure]!;
      for (const element of [f.element, ...(f.together ?? [])]) {
        const value = start(element, f.figure) * Math.exp(at[i]!);
        set(element, f.figure, Math.min(greatest, Math.max(least, 1e-12, value)));
      }
    });
    const { values } = read(circumstances());
    return [
      ...used.map((r) => {
        const model = values.get(r.pointId);
        return model === null || model === undefined ? 0 : (model - r.value) / r.uncertainty;
      }),
      ...at.map((ln) => ln / PRIOR),
    ];
  };
  const sum = (r: readonly number[]) => r.reduce((s, v) => s + v * v, 0);

  let at = moving.map(() => 0);
  let now = residuals(at);
  let damping = 1e-2;
  for (let step = 0; step < MOST_STEPS && moving.length > 0; step++) {
    const slopes = Matrix.zeros(now.length, moving.length);
    moving.forEach((_, k) => {
      const moved = residuals(at.map((v, i) => (i === k ? v + 1e-3 : v)));
      moved.forEach((m, row) => slopes.set(row, k, (m - now[row]!) / 1e-3));
    });
    const normal = slopes.transpose().mmul(slopes);
    const right = slopes.transpose().mmul(Matrix.columnVector(now)).mul(-1);
    let better = false;
    for (let tries = 0; tries < 8 && !better; tries++) {
      const damped = normal.clone();
      for (let i = 0; i < moving.length; i++) damped.set(i, i, damped.get(i, i) * (1 + damping) + 1e-9);
      const change = leastSquares(damped, right).to1DArray();
      const next = at.map((v, i) =>
        Math.min(FARTHEST, Math.max(-FARTHEST, v + Math.min(1.5, Math.max(-1.5, change[i]!)))),
      );
      const then = residuals(next);
      if (sum(then) < sum(now)) {
        const gain = sum(now) - sum(then);
        at = next;
        now = then;
        damping = Math.max(1e-6, damping / 5);
        better = gain > 1e-6;
        if (!better) break;
      } else damping *= 5;
    }
    if (!better) break;
  }
  residuals(at);
  const last = read(circumstances());
  for (const f of moving) f.to = data[f.element]![f.figure]!;
  const met = used.map((r) => {
    const model = last.values.get(r.pointId) ?? null;
    return {
      pointId: r.pointId,
      read: r.value,
      model,
      deviations: model === null ? null : (model - r.value) / r.uncertainty,
    };
  });
  const missed = met.filter((m) => m.deviations === null || Math.abs(m.deviations) > MET).length;
  return { data, free, met, fits: met.length > 0 && missed <= MAY_MISS * met.length };
}
