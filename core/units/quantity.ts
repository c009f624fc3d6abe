/** What is said of a quantity, whatever it is. */
import type { DimensionId } from "./units";

export type Harm = "rising" | "falling" | "both";

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
  /** Follows the weather and no correction takes that out: less than a year of it shows no wear. */
  weather?: true;
}

/** A table of quantities, each key kept as a literal. */
export const define = <T extends Record<string, Quantity>>(table: T) => table;
