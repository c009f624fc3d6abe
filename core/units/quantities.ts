/**
 * The kinds of quantity that a point can read, each described once: unit, direction of harm, the
 * correction that applies and the range in which a value is believable at all.
 */
import { conditions, type ConditionId } from "./conditions";
import { measures, type MeasureId } from "./measures";
import { define, type Quantity } from "./quantity";

export const quantities = define({
  caseDrainFlow: {
    label: "Case drain flow",
    short: "case drain",
    symbol: "q_V",
    dimension: "flow",
    unit: "L/min",
    harm: "rising",
    correction: "leakage",
    least: 0,
    greatest: 400,
    decimals: 2,
    floor: 0.01,
  },
  leakageFlow: {
    label: "Internal leakage",
    short: "leakage",
    symbol: "q_V",
    dimension: "flow",
    unit: "L/min",
    harm: "rising",
    correction: "leakage",
    least: 0,
    greatest: 400,
    decimals: 2,
    floor: 0.005,
  },
  flow: {
    label: "Flow",
    short: "flow",
    symbol: "q_V",
    dimension: "flow",
    unit: "L/min",
    harm: "falling",
    correction: "none",
    least: 0,
    greatest: 5000,
    decimals: 1,
    floor: 0.1,
  },
  pressure: {
    label: "Pressure",
    short: "pressure",
    symbol: "p",
    dimension: "pressure",
    unit: "bar",
    harm: "both",
    correction: "none",
    least: -1,
    greatest: 1000,
    decimals: 0,
    floor: 0.1,
  },
  pressureDrop: {
    label: "Differential pressure",
    short: "differential pressure",
    symbol: "Δp",
    dimension: "pressure",
    unit: "bar",
    harm: "rising",
    correction: "element",
    least: 0,
    greatest: 400,
    decimals: 2,
    floor: 0.02,
  },
  vacuum: {
    label: "Vacuum",
    short: "vacuum",
    symbol: "p_v",
    dimension: "vacuum",
    unit: "hPa",
    harm: "rising",
    correction: "none",
    least: 0,
    greatest: 1013,
    decimals: 0,
    floor: 3,
  },
  temperature: {
    label: "Temperature",
    short: "temperature",
    symbol: "θ",
    dimension: "temperature",
    unit: "°C",
    harm: "rising",
    correction: "none",
    least: -40,
    greatest: 200,
    decimals: 0,
    floor: 0.3,
    weather: true,
  },
  temperatureRise: {
    label: "Temperature rise",
    short: "temperature rise",
    symbol: "ΔT",
    dimension: "temperatureDifference",
    unit: "K",
    harm: "rising",
    correction: "none",
    least: -20,
    greatest: 120,
    decimals: 1,
    floor: 0.3,
    weather: true,
  },
  clearance: {
    label: "Clearance",
    short: "clearance",
    symbol: "c",
    dimension: "length",
    unit: "µm",
    harm: "rising",
    correction: "none",
    least: 0,
    greatest: 20_000,
    decimals: 0,
    floor: 1,
  },
  strokeTime: {
    label: "Stroke time",
    short: "stroke time",
    symbol: "t",
    dimension: "duration",
    unit: "s",
    harm: "rising",
    correction: "none",
    least: 0,
    greatest: 7200,
    decimals: 1,
    floor: 0.1,
  },
  responseTime: {
    label: "Response time",
    short: "response",
    symbol: "t_r",
    dimension: "duration",
    unit: "s",
    harm: "rising",
    correction: "none",
    least: 0,
    greatest: 60,
    decimals: 3,
    floor: 0.001,
  },
  creep: {
    label: "Creep over the stated hold",
    short: "creep",
    symbol: "s",
    dimension: "length",
    unit: "µm",
    harm: "rising",
    correction: "none",
    least: 0,
    greatest: 5_000_000,
    decimals: 0,
    floor: 50,
  },
  pilotMargin: {
    label: "Pilot check margin",
    short: "check valve margin",
    symbol: "Δp",
    dimension: "pressure",
    unit: "bar",
    harm: "falling",
    correction: "none",
    least: -400,
    greatest: 400,
    decimals: 0,
    floor: 0.5,
  },
  torque: {
    label: "Slip torque",
    short: "slip torque",
    symbol: "M",
    dimension: "torque",
    unit: "N·m",
    harm: "falling",
    correction: "none",
    least: 0,
    greatest: 100_000,
    decimals: 0,
    floor: 0.5,
  },
  force: {
    label: "Force",
    short: "force",
    symbol: "F",
    dimension: "force",
    unit: "N",
    harm: "both",
    correction: "none",
    least: 0,
    greatest: 5_000_000,
    decimals: 0,
    floor: 0.5,
  },
  weep: {
    label: "Weep",
    short: "weep",
    symbol: "n_d",
    dimension: "drops",
    unit: "drops/min",
    harm: "rising",
    correction: "none",
    least: 0,
    greatest: 600,
    decimals: 0,
    floor: 0.5,
  },
});

export type QuantityId = keyof typeof quantities | ConditionId | MeasureId;

export type PointQuantityId = keyof typeof quantities;

export const pointQuantityIds = Object.keys(quantities) as PointQuantityId[];

/**
 * What is known of a quantity: its label, unit, direction of harm and believable range.
 * @param id of the quantity, of a condition or of a measure
 * @returns its description; `least` and `greatest` in core units
 * @example quantityOf("caseDrainFlow") // { unit: "L/min", harm: "rising", correction: "leakage" }
 */
export function quantityOf(id: QuantityId): Quantity {
  return id in quantities
    ? quantities[id as PointQuantityId]
    : id in conditions
      ? conditions[id as ConditionId]
      : measures[id as MeasureId];
}

/**
 * Is a text the id of a quantity that a point can read? For what comes from a form or a file.
 * @param text of unknown origin
 * @returns true for an id of the table; false for a condition such as the oil temperature of a reading
 * @example isPointQuantity("caseDrainFlow") // true
 * @example isPointQuantity("toString") // false
 */
export function isPointQuantity(text: string): text is PointQuantityId {
  return Object.hasOwn(quantities, text);
}
