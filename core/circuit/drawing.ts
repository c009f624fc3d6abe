/** A circuit as it is drawn: where each symbol, line and text stands. Plain data, made once and stored. */
import type { PortRole } from "./kinds/types";
import type { CircuitElement, Gauge } from "./netlist";

export type LineStyle = "pressure" | "return" | "suction" | "case" | "pilot";

export interface DrawnPart {
  element: string;
  /** Top left of the symbol, and its size. */
  x: number;
  y: number;
  width: number;
  height: number;
  /** Top left of the text beside it. */
  textX: number;
  textY: number;
  /** Upside down: what leads up on its symbol goes to tank. */
  flipped?: true;
}

export interface DrawnWire {
  style: LineStyle;
  points: [number, number][];
}

export interface Drawing {
  width: number;
  height: number;
  parts: DrawnPart[];
  /** The reservoir is drawn where a line ends in it. */
  tanks: { x: number; y: number }[];
  wires: DrawnWire[];
  /** Where lines are joined; crossings without one are not. */
  dots: [number, number][];
  /** Where each port is, by "element/port". */
  ports: Record<string, [number, number]>;
}

/**
 * How a line is drawn by what it carries: ISO 1219-1 draws working lines solid, drain and pilot lines broken.
 * @param roles of the ports at its ends
 * @returns the style
 * @example styleOf(["outlet", "work"]) // "pressure"
 * @example styleOf(["case", "tank"]) // "case"
 */
export function styleOf(roles: readonly PortRole[]): LineStyle {
  if (roles.includes("pilot")) return "pilot";
  if (roles.includes("case")) return "case";
  if (roles.includes("suction")) return "suction";
  if (roles.includes("return") && !roles.includes("outlet") && !roles.includes("pressure")) return "return";
  return "pressure";
}

/** What nobody keeps a record of and no figure matters of stands without a name. */
const UNNAMED: readonly string[] = ["strainer", "line", "check"];

/**
 * Is there a text beside this element? What nobody keeps a record of and no figure matters of stands without one.
 * @param element of the circuit
 * @param gauges of the circuit: what is read has a name
 * @returns true where there is
 * @example isNamed(circuitOf({ s: ["strainer"] }, []).elements[0], []) // false
 */
export function isNamed(element: CircuitElement, gauges: readonly Gauge[]): boolean {
  return (
    element.componentId !== null || !UNNAMED.includes(element.kind) || gauges.some((g) => g.element === element.id)
  );
}

/** Size of each symbol, and where its ports are on it, by name of the symbol. Ports to the side leave downwards or upwards. */
export interface SymbolSize {
  width: number;
  height: number;
  ports: Record<string, { x: number; up: boolean }>;
}

const upright = (width = 44, height = 44): SymbolSize => ({
  width,
  height,
  ports: { in: { x: width / 2, up: false }, out: { x: width / 2, up: true } },
});
const hanging = (width = 44, height = 44): SymbolSize => ({
  width,
  height,
  ports: {
    in: { x: width / 2, up: true },
    out: { x: width / 2, up: false },
    P: { x: width / 2, up: true },
    T: { x: width / 2, up: false },
  },
});
const valve: SymbolSize = {
  width: 132,
  height: 40,
  ports: {
    A: { x: 55, up: true },
    B: { x: 77, up: true },
    P: { x: 55, up: false },
    T: { x: 77, up: false },
  },
};
const holding: SymbolSize = {
  width: 44,
  height: 40,
  ports: { V: { x: 16, up: false }, C: { x: 16, up: true }, X: { x: 38, up: false } },
};
const pump: SymbolSize = {
  width: 48,
  height: 44,
  ports: { out: { x: 22, up: true }, in: { x: 22, up: false }, case: { x: 46, up: false } },
};

export const symbolSizes: Record<string, SymbolSize> = {
  tank: { width: 32, height: 14, ports: { T: { x: 16, up: true } } },
  strainer: upright(32, 32),
  fixedPump: pump,
  variablePump: pump,
  loopPump: {
    width: 48,
    height: 44,
    ports: { A: { x: 12, up: true }, B: { x: 32, up: true }, case: { x: 46, up: false } },
  },
  flushing: {
    width: 44,
    height: 44,
    ports: { A: { x: 8, up: true }, B: { x: 36, up: true }, T: { x: 22, up: false } },
  },
  relief: hanging(),
  unloader: { ...hanging(), ports: { ...hanging().ports, X: { x: 42, up: true } } },
  check: upright(28, 26),
  sequence: upright(),
  reducing: { ...upright(), ports: { ...upright().ports, drain: { x: 42, up: false } } },
  flowControl: upright(),
  throttle: upright(28, 36),
  lineLoss: { width: 12, height: 26, ports: { in: { x: 6, up: true }, out: { x: 6, up: false } } },
  filter: hanging(),
  cooler: hanging(),
  accumulator: { width: 26, height: 48, ports: { P: { x: 13, up: false } } },
  directional: valve,
  proportional: valve,
  pilotCheck: holding,
  counterbalance: holding,
  shuttle: {
    width: 44,
    height: 28,
    ports: { A: { x: 6, up: false }, B: { x: 38, up: false }, C: { x: 22, up: true } },
  },
  cylinder: { width: 132, height: 36, ports: { A: { x: 12, up: false }, B: { x: 100, up: false } } },
  motor: {
    width: 48,
    height: 44,
    ports: { A: { x: 12, up: false }, B: { x: 32, up: false }, case: { x: 46, up: false } },
  },
  consumer: { width: 44, height: 32, ports: { P: { x: 14, up: false }, T: { x: 34, up: false } } },
};
