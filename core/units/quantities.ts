/**
 * The kinds of quantity that a point can read, each described once: unit, direction of harm, the
 * correction that applies and the range in which a value is believable at all.
 */
import type { DimensionId } from "./units";

export type Harm = "rising" | "falling" | "both";

/** "leakage": flow through clearances, corrected to a reference pressure and viscosity. */
export type Correction = "leakage" | "none";

export interface Quantity {
  label: string;
  /** What a sentence calls it: "case drain 3.1 L/min". */
  short: string;
  dimension: DimensionId;
  unit: string;
  harm: Harm;
  correction: Correction;
  /** Believable range in core units; outside it an entry is a mistake. */
  least: number;
  greatest: number;
  /** Decimals worth showing in the core unit. */
  decimals: number;
  /** Smallest standard uncertainty of a plain reading, core units: no instrument of the trade does better (common practice). */
  floor: number;
}

const define = <T extends Record<string, Quantity>>(table: T) => table;

export const quantities = define({
  caseDrainFlow: { label: "Case drain flow", short: "case drain", dimension: "flow", unit: "L/min", harm: "rising", correction: "leakage", least: 0, greatest: 400, decimals: 2, floor: 0.01 },
  leakageFlow: { label: "Internal leakage", short: "leakage", dimension: "flow", unit: "L/min", harm: "rising", correction: "leakage", least: 0, greatest: 400, decimals: 2, floor: 0.005 },
  flow: { label: "Flow", short: "flow", dimension: "flow", unit: "L/min", harm: "falling", correction: "none", least: 0, greatest: 5000, decimals: 1, floor: 0.1 },
  pressure: { label: "Pressure", short: "pressure", dimension: "pressure", unit: "bar", harm: "both", correction: "none", least: -1, greatest: 1000, decimals: 0, floor: 0.1 },
  pressureDrop: { label: "Differential pressure", short: "differential pressure", dimension: "pressure", unit: "bar", harm: "rising", correction: "none", least: 0, greatest: 400, decimals: 2, floor: 0.02 },
  vacuum: { label: "Vacuum", short: "vacuum", dimension: "vacuum", unit: "hPa", harm: "rising", correction: "none", least: 0, greatest: 1013, decimals: 0, floor: 3 },
  temperature: { label: "Temperature", short: "temperature", dimension: "temperature", unit: "°C", harm: "rising", correction: "none", least: -40, greatest: 200, decimals: 0, floor: 0.3 },
  temperatureRise: { label: "Temperature rise", short: "temperature rise", dimension: "temperatureDifference", unit: "K", harm: "rising", correction: "none", least: -20, greatest: 120, decimals: 1, floor: 0.3 },
  clearance: { label: "Clearance", short: "clearance", dimension: "length", unit: "µm", harm: "rising", correction: "none", least: 0, greatest: 20_000, decimals: 0, floor: 1 },
  strokeTime: { label: "Stroke time", short: "stroke time", dimension: "duration", unit: "s", harm: "rising", correction: "none", least: 0, greatest: 7200, decimals: 1, floor: 0.1 },
  responseTime: { label: "Response time", short: "response", dimension: "duration", unit: "s", harm: "rising", correction: "none", least: 0, greatest: 60, decimals: 3, floor: 0.001 },
  creep: { label: "Creep over the stated hold", short: "creep", dimension: "length", unit: "µm", harm: "rising", correction: "none", least: 0, greatest: 5_000_000, decimals: 0, floor: 50 },
  pilotMargin: { label: "Pilot check margin", short: "check valve margin", dimension: "pressure", unit: "bar", harm: "falling", correction: "none", least: -400, greatest: 400, decimals: 0, floor: 0.5 },
  torque: { label: "Slip torque", short: "slip torque", dimension: "torque", unit: "N·m", harm: "falling", correction: "none", least: 0, greatest: 100_000, decimals: 0, floor: 0.5 },
  force: { label: "Force", short: "force", dimension: "force", unit: "N", harm: "both", correction: "none", least: 0, greatest: 5_000_000, decimals: 0, floor: 0.5 },
  weep: { label: "Weep", short: "weep", dimension: "drops", unit: "drops/min", harm: "rising", correction: "none", least: 0, greatest: 600, decimals: 0, floor: 0.5 },
});

export type QuantityId = keyof typeof quantities | ConditionId;

/** Conditions that go with a reading, and other values that are entered as typed. */
export const conditions = define({
  oilTemperature: { label: "Oil", short: "oil", dimension: "temperature", unit: "°C", harm: "both", correction: "none", least: -40, greatest: 150, decimals: 0, floor: 0.5 },
  loadPressure: { label: "Load", short: "load", dimension: "pressure", unit: "bar", harm: "both", correction: "none", least: 0, greatest: 1000, decimals: 0, floor: 0.5 },
  speed: { label: "Speed", short: "speed", dimension: "speed", unit: "r/min", harm: "both", correction: "none", least: 0, greatest: 20_000, decimals: 0, floor: 1 },
  runningHours: { label: "Running hours", short: "hours", dimension: "time", unit: "h", harm: "both", correction: "none", least: 0, greatest: 1_000_000, decimals: 0, floor: 0.1 },
  displacement: { label: "Displacement", short: "displacement", dimension: "displacement", unit: "cm³/rev", harm: "both", correction: "none", least: 0.1, greatest: 50_000, decimals: 1, floor: 0.01 },
  viscosity: { label: "Kinematic viscosity", short: "viscosity", dimension: "viscosity", unit: "mm²/s", harm: "both", correction: "none", least: 0.2, greatest: 100_000, decimals: 2, floor: 0.01 },
  density: { label: "Density", short: "density", dimension: "density", unit: "kg/m³", harm: "both", correction: "none", least: 600, greatest: 1600, decimals: 0, floor: 1 },
  share: { label: "Share", short: "share", dimension: "ratio", unit: "%", harm: "both", correction: "none", least: -1e6, greatest: 1e6, decimals: 1, floor: 0 },
});

export type ConditionId = keyof typeof conditions;
export type PointQuantityId = keyof typeof quantities;

export const pointQuantityIds = Object.keys(quantities) as PointQuantityId[];

/** The description of a quantity. */
export function quantityOf(id: QuantityId): Quantity {
  return id in quantities ? quantities[id as PointQuantityId] : conditions[id as ConditionId];
}

/** Is the text the id of a quantity that a point can read? */
export function isPointQuantity(text: string): text is PointQuantityId {
  return Object.hasOwn(quantities, text);
}

/** The operating state in which a value is read. A series never mixes states. */
export const readingStates = {
  idle: "idle",
  fullStroke: "full stroke",
  holding: "holding",
  cycle: "over a cycle, least and greatest",
  standing: "standing, cold",
  any: "as it runs",
} as const;

export type ReadingState = keyof typeof readingStates;
export const readingStateIds = Object.keys(readingStates) as ReadingState[];
