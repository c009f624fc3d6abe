/** What a kind of circuit element is: its ports, its figures, its faults, and the equations that it adds. */

/** What a port is for; it decides the style of the line (ISO 1219-1) and what it may be joined to. */
export type PortRole = "pressure" | "outlet" | "return" | "tank" | "suction" | "case" | "pilot" | "work";

export interface Port {
  role: PortRole;
  /** Where it sits on the symbol, the reservoir being below. */
  side: "N" | "S" | "E" | "W";
  label: string;
  /** May stay open: plugged, or led inside. */
  optional?: true;
}

export interface Figure {
  label: string;
  unit: string;
  least: number;
  greatest: number;
  /** Taken where nothing is stated. */
  usual: number;
  /** Where the usual figure comes from. */
  source: string;
  /** Settings and loads may be turned in a what-if. */
  turns?: true;
}

export interface Fault {
  label: string;
  /** How a severity is written: "× {}" of the healthy figure, or with a unit. Severity 0 is healthy. */
  says: (severity: number) => string;
  /** The greatest severity that makes sense. */
  greatest: number;
  /** The least that a gauge could show; left out: a thousandth of the greatest. */
  least?: number;
}

/** Through this an element states its equations, at the present guess. Ports and inner unknowns are named by the kind. */
export interface Stamp {
  /** Pressure at a port, bar gauge. */
  p(port: string): number;
  connected(port: string): boolean;
  /** Inner unknown i of the element. */
  x(i: number): number;
  /** A figure; a severity of a fault (0: healthy); the command of a valve, -1 to 1. */
  d(name: string): number;
  fault(name: string): number;
  command: number;
  /** Dynamic viscosity over the one at which laminar figures are stated (VG 46 at 50 °C, 26 mPa·s). */
  viscosity: number;
  /** kg/m³. */
  density: number;
  /** Are the equations those in time (s), with what stores oil and knows its place? */
  inTime: boolean;
  /** Pressure that the accumulators of a steady state hold, bar; null: they take no oil. */
  held: number | null;
  /** Is the state that the element keeps (an unloader's) switched over? */
  switched: boolean;
  /** Flow from one port to another, with its slopes; heat is taken from it unless it is driven by a shaft. */
  flow(from: string, to: string, q: number, byFrom: number, byTo: number, shaft?: true): void;
  /** What the last flow depends on beside its own two ports. */
  also(port: string, slope: number): void;
  /** Flow into the circuit at a port that comes from no other port (a piston's). */
  into(port: string, q: number, byPort?: number): void;
  intoByInner(port: string, i: number, slope: number): void;
  /** Equation i of the element is this residual, in bar or L/min, to be zero. */
  equation(i: number, residual: number): void;
  equationBy(i: number, port: string, slope: number): void;
  equationByInner(i: number, inner: number, slope: number): void;
  /** Power in kW: from a shaft into the oil, and from the oil to a load. */
  shaft(kilowatts: number): void;
  load(kilowatts: number): void;
}

export interface ElementKind {
  label: string;
  /** Name of its symbol in the drawing. */
  symbol: string;
  ports: Record<string, Port>;
  data: Record<string, Figure>;
  faults: Record<string, Fault>;
  /** Number of inner unknowns in a steady state, one equation each. */
  inner?: number;
  /** The inner unknowns in time, by the factor of their rate in their equation: 0 where it holds at every moment. */
  innerInTime?: readonly number[];
  /** Does a command (-1 to 1) move it? */
  commanded?: true;
  stamp(s: Stamp): void;
}

/** Severities in words: a factor of the healthy figure, bar below the setting, a share. */
export const times = (severity: number) => `× ${(1 + severity).toPrecision(3).replace(/\.?0+$/, "")}`;
/** So many bar too low. */
export const bars = (severity: number) => `${Math.round(severity)} bar too low`;
/** A share as percent. */
export const percent = (severity: number) => `${Math.round(severity * 100)} %`;

/** A figure with its range and where the usual one comes from. */
export const figure = (
  label: string,
  unit: string,
  [least, usual, greatest]: readonly [number, number, number],
  source: string,
  turns?: true,
): Figure => ({ label, unit, least, greatest, usual, source, ...(turns && { turns }) });

export const COMMON = "common practice";

/** Of what is felt by hand or camera: heat that the body gives off by itself, and how much warmer than its line it is anyway. */
export const warmth: Record<string, Figure> = {
  body: figure("Heat given off by the body", "W per K", [0.5, 4, 5000], COMMON),
  warmer: figure("Warmer than its line when healthy", "K", [-20, 0, 40], "measured when healthy"),
};
