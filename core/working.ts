/**
 * The working of a computed number: what a screen shows under "Show the working".
 * Values are in core units; the screen converts and formats them.
 */
import type { QuantityId } from "./units/quantities";

export interface WorkingRow {
  /** What the line says, for example "ν at {}"; each gap is one of `given`, in the reader's unit. */
  label: string;
  given?: readonly { value: number; quantity: QuantityId; digits?: number }[];
  value: number;
  /** Quantity of the value, so that a screen can show it in the reader's units; absent: a plain number. */
  quantity?: QuantityId;
  /** Significant digits worth showing. */
  digits?: number;
}

export interface Working {
  /** Name of the formula, for example "Leakage corrected to reference conditions". */
  formula: string;
  rows: WorkingRow[];
  /** Where the formula and its constants come from. */
  source: string;
  /** What the reader has to know to judge the number. */
  note?: string;
}
