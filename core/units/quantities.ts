/**
 * The kinds of quantity that a point can read, each described once: unit, direction of harm, the
 * correction that applies and the range in which a value is believable at all.
 */
import type { DimensionId } from "./units";

export type Harm = "rising" | "falling" | "both";

/** "leakage": flow through clearances, corrected to a reference pressure and viscosity. */
/** How a reading is brought to its reference: leakage by pressure and viscosity, a filter element by viscosity and flow. */
export type Correction = "leakage" | "element" | "none";

export interface Quantity {
  label: string;
  /** What a sentence calls it: "case drain 3.1 L/min". */
  short: string;
  /** Symbol as in ISO 80000, where it has one, with the field's subscripts. */
  symbol: string;
  dimension: DimensionId;
  /** Unit in which it is usually shown and typed. */
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
  caseDrainFlow: { label: "Case drain flow", short: "case drain", symbol: "q_V", dimension: "flow", unit: "L/min", harm: "rising", correction: "leakage", least: 0, greatest: 400, decimals: 2, floor: 0.01 },
  leakageFlow: { label: "Internal leakage", short: "leakage", symbol: "q_V", dimension: "flow", unit: "L/min", harm: "rising", correction: "leakage", least: 0, greatest: 400, decimals: 2, floor: 0.005 },
  flow: { label: "Flow", short: "flow", symbol: "q_V", dimension: "flow", unit: "L/min", harm: "falling", correction: "none", least: 0, greatest: 5000, decimals: 1, floor: 0.1 },
  pressure: { label: "Pressure", short: "pressure", symbol: "p", dimension: "pressure", unit: "bar", harm: "both", correction: "none", least: -1, greatest: 1000, decimals: 0, floor: 0.1 },
  pressureDrop: { label: "Differential pressure", short: "differential pressure", symbol: "Δp", dimension: "pressure", unit: "bar", harm: "rising", correction: "element", least: 0, greatest: 400, decimals: 2, floor: 0.02 },
  vacuum: { label: "Vacuum", short: "vacuum", symbol: "p_v", dimension: "vacuum", unit: "hPa", harm: "rising", correction: "none", least: 0, greatest: 1013, decimals: 0, floor: 3 },
  temperature: { label: "Temperature", short: "temperature", symbol: "θ", dimension: "temperature", unit: "°C", harm: "rising", correction: "none", least: -40, greatest: 200, decimals: 0, floor: 0.3 },
  temperatureRise: { label: "Temperature rise", short: "temperature rise", symbol: "ΔT", dimension: "temperatureDifference", unit: "K", harm: "rising", correction: "none", least: -20, greatest: 120, decimals: 1, floor: 0.3 },
  clearance: { label: "Clearance", short: "clearance", symbol: "c", dimension: "length", unit: "µm", harm: "rising", correction: "none", least: 0, greatest: 20_000, decimals: 0, floor: 1 },
  strokeTime: { label: "Stroke time", short: "stroke time", symbol: "t", dimension: "duration", unit: "s", harm: "rising", correction: "none", least: 0, greatest: 7200, decimals: 1, floor: 0.1 },
  responseTime: { label: "Response time", short: "response", symbol: "t_r", dimension: "duration", unit: "s", harm: "rising", correction: "none", least: 0, greatest: 60, decimals: 3, floor: 0.001 },
  creep: { label: "Creep over the stated hold", short: "creep", symbol: "s", dimension: "length", unit: "µm", harm: "rising", correction: "none", least: 0, greatest: 5_000_000, decimals: 0, floor: 50 },
  pilotMargin: { label: "Pilot check margin", short: "check valve margin", symbol: "Δp", dimension: "pressure", unit: "bar", harm: "falling", correction: "none", least: -400, greatest: 400, decimals: 0, floor: 0.5 },
  torque: { label: "Slip torque", short: "slip torque", symbol: "M", dimension: "torque", unit: "N·m", harm: "falling", correction: "none", least: 0, greatest: 100_000, decimals: 0, floor: 0.5 },
  force: { label: "Force", short: "force", symbol: "F", dimension: "force", unit: "N", harm: "both", correction: "none", least: 0, greatest: 5_000_000, decimals: 0, floor: 0.5 },
  weep: { label: "Weep", short: "weep", symbol: "n_d", dimension: "drops", unit: "drops/min", harm: "rising", correction: "none", least: 0, greatest: 600, decimals: 0, floor: 0.5 },
});

export type QuantityId = keyof typeof quantities | ConditionId | MeasureId;

/** Conditions that go with a reading, and other values that are entered as typed. */
export const conditions = define({
  oilTemperature: { label: "Oil", short: "oil", symbol: "θ", dimension: "temperature", unit: "°C", harm: "both", correction: "none", least: -40, greatest: 130, decimals: 0, floor: 0.5 },
  loadPressure: { label: "Load", short: "load", symbol: "p", dimension: "pressure", unit: "bar", harm: "both", correction: "none", least: 0, greatest: 1000, decimals: 0, floor: 0.5 },
  speed: { label: "Speed", short: "speed", symbol: "n", dimension: "speed", unit: "r/min", harm: "both", correction: "none", least: 0, greatest: 20_000, decimals: 0, floor: 1 },
  runningHours: { label: "Running hours", short: "hours", symbol: "t", dimension: "time", unit: "h", harm: "both", correction: "none", least: 0, greatest: 1_000_000, decimals: 0, floor: 0.1 },
  displacement: { label: "Displacement", short: "displacement", symbol: "V", dimension: "displacement", unit: "cm³/rev", harm: "both", correction: "none", least: 0.1, greatest: 50_000, decimals: 1, floor: 0.01 },
  viscosity: { label: "Kinematic viscosity", short: "viscosity", symbol: "ν", dimension: "viscosity", unit: "mm²/s", harm: "both", correction: "none", least: 0.2, greatest: 100_000, decimals: 2, floor: 0.01 },
  density: { label: "Density", short: "density", symbol: "ρ", dimension: "density", unit: "kg/m³", harm: "both", correction: "none", least: 600, greatest: 1600, decimals: 0, floor: 1 },
  share: { label: "Share", short: "share", symbol: "w", dimension: "ratio", unit: "%", harm: "both", correction: "none", least: -1e6, greatest: 1e6, decimals: 1, floor: 0 },
});

/** What calculations take and give beside readings and their conditions. */
export const measures = define({
  bore: { label: "Bore diameter", short: "bore", symbol: "d", dimension: "length", unit: "mm", harm: "both", correction: "none", least: 100, greatest: 5_000_000, decimals: 1, floor: 1 },
  gapLength: { label: "Length of the gap", short: "gap length", symbol: "L", dimension: "length", unit: "mm", harm: "both", correction: "none", least: 10, greatest: 5_000_000, decimals: 1, floor: 1 },
  orifice: { label: "Orifice diameter", short: "orifice", symbol: "d", dimension: "length", unit: "mm", harm: "both", correction: "none", least: 10, greatest: 200_000, decimals: 2, floor: 1 },
  area: { label: "Area", short: "area", symbol: "A", dimension: "area", unit: "mm²", harm: "both", correction: "none", least: 1, greatest: 10_000_000, decimals: 0, floor: 1 },
  bulkModulus: { label: "Bulk modulus", short: "bulk modulus", symbol: "K", dimension: "pressure", unit: "bar", harm: "both", correction: "none", least: 500, greatest: 40_000, decimals: 0, floor: 10 },
  volume: { label: "Volume", short: "volume", symbol: "V", dimension: "volume", unit: "L", harm: "both", correction: "none", least: 0.001, greatest: 100_000, decimals: 1, floor: 0.001 },
  power: { label: "Power", short: "power", symbol: "P", dimension: "power", unit: "kW", harm: "both", correction: "none", least: 0, greatest: 20_000, decimals: 2, floor: 0.01 },
  dynamicViscosity: { label: "Dynamic viscosity", short: "dynamic viscosity", symbol: "μ", dimension: "dynamicViscosity", unit: "mPa·s", harm: "both", correction: "none", least: 0.2, greatest: 100_000, decimals: 2, floor: 0.01 },
  pressureFall: { label: "Fall of pressure", short: "fall of pressure", symbol: "dp/dt", dimension: "pressureRate", unit: "bar/min", harm: "both", correction: "none", least: -500, greatest: 500, decimals: 2, floor: 0.01 },
  temperatureDrift: { label: "Rise of oil temperature", short: "rise of temperature", symbol: "dT/dt", dimension: "temperatureRate", unit: "K/min", harm: "both", correction: "none", least: -20, greatest: 20, decimals: 2, floor: 0.01 },
  creepSpeed: { label: "Creep speed", short: "creep speed", symbol: "v", dimension: "creepSpeed", unit: "mm/min", harm: "both", correction: "none", least: 0, greatest: 100_000, decimals: 2, floor: 0.01 },
  leak: { label: "Leakage", short: "leakage", symbol: "q_V", dimension: "flow", unit: "mL/min", harm: "rising", correction: "none", least: -400, greatest: 400, decimals: 1, floor: 0.0001 },
  minutes: { label: "Time", short: "time", symbol: "t", dimension: "time", unit: "min", harm: "both", correction: "none", least: 0, greatest: 100_000, decimals: 0, floor: 0.01 },
  count: { label: "Particles", short: "particles", symbol: "N", dimension: "count", unit: "/mL", harm: "rising", correction: "none", least: 0, greatest: 1e9, decimals: 0, floor: 0.01 },
  ingress: { label: "Particles that enter", short: "ingress", symbol: "R", dimension: "ingress", unit: "L/(mL·min)", harm: "both", correction: "none", least: 0, greatest: 1e9, decimals: 0, floor: 0.01 },
  concentration: { label: "Concentration", short: "concentration", symbol: "w", dimension: "concentration", unit: "ppm", harm: "rising", correction: "none", least: 0, greatest: 1_000_000, decimals: 1, floor: 0.1 },
  acidNumber: { label: "Acid number", short: "acid number", symbol: "AN", dimension: "acidNumber", unit: "mg KOH/g", harm: "rising", correction: "none", least: 0, greatest: 50, decimals: 2, floor: 0.02 },
  litresFilled: { label: "Oil filled or drained", short: "litres", symbol: "V", dimension: "volume", unit: "L", harm: "both", correction: "none", least: 0.01, greatest: 100_000, decimals: 1, floor: 0.01 },
  temperatureDifference: { label: "Temperature difference", short: "temperature difference", symbol: "ΔT", dimension: "temperatureDifference", unit: "K", harm: "both", correction: "none", least: -200, greatest: 200, decimals: 1, floor: 0.1 },
});

export type ConditionId = keyof typeof conditions;
export type MeasureId = keyof typeof measures;
export type PointQuantityId = keyof typeof quantities;

export const pointQuantityIds = Object.keys(quantities) as PointQuantityId[];

/** The description of a quantity. */
export function quantityOf(id: QuantityId): Quantity {
  return id in quantities ? quantities[id as PointQuantityId] : id in conditions ? conditions[id as ConditionId] : measures[id as MeasureId];
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
