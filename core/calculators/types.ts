/** What a calculation of the Calculators place is made of: typed fields, an answer in words, its working, a chart. */
import type { VerdictPart } from "../state/verdictPart";
import type { QuantityId } from "../units/quantities";
import type { Working } from "../working";

export const calculatorGroups = {
  pump: "Pump",
  valve: "Valve and clearance",
  cylinder: "Cylinder and holding",
  fluid: "Fluid",
  cleanliness: "Cleanliness",
  heat: "Heat and power",
  instrument: "Instrument",
  statistics: "Statistics",
} as const;
export type CalculatorGroup = keyof typeof calculatorGroups;

/** Facts of the fleet that a field can take its value from, so that they need not be typed. */
export const factIds = [
  "displacement",
  "speed",
  "workingPressure",
  "ratedPressure",
  "kv40",
  "kv100",
  "density15",
  "volume",
  "reliefSetting",
  "referencePressure",
  "referenceTemperature",
] as const;
export type FactId = (typeof factIds)[number];

interface FieldBase {
  label: string;
  hint?: string;
  /** What stands in the field at first, as typed: a worked example. */
  example: string;
  optional?: boolean;
  take?: FactId;
  /** The example is a usual value of the trade, good to begin with where nothing was measured. */
  usual?: boolean;
}

export interface QuantityField extends FieldBase {
  kind: "quantity";
  quantity: QuantityId;
  /** Unit in which the calculation wants it; the quantity's usual one when left out. */
  unit?: string;
}

export interface NumberField extends FieldBase {
  kind: "number";
  least: number;
  greatest: number;
  /** Shown behind the field. */
  suffix?: string;
}

export interface ChoiceField extends FieldBase {
  kind: "choice";
  options: readonly { value: string; label: string }[];
}

export interface RowColumn {
  id: string;
  label: string;
  quantity?: QuantityId;
  optional?: boolean;
}

/** One line a row, its values separated by spaces, tabs or semicolons. */
export interface RowsField extends FieldBase {
  kind: "rows";
  columns: readonly RowColumn[];
  fewest: number;
}

export type FieldSpec = QuantityField | NumberField | ChoiceField | RowsField;
export type Row = Record<string, number | null>;

/** A field that gives a T; the type is only for the compiler. */
export type Field<T> = FieldSpec & { readonly gives?: T };

export type ValuesOf<F> = { [K in keyof F]: F[K] extends Field<infer T> ? T : never };

export type Cell = string | { value: number; quantity?: QuantityId; digits?: number };

export interface ChartAxis {
  label: string;
  /** Values are core units of this quantity and are shown in the reader's; absent: plain numbers. */
  quantity?: QuantityId;
  log?: boolean;
  least?: number;
  /** Its places are no numbers: no ticks. */
  places?: boolean;
}

export interface CalculatorChart {
  x: ChartAxis;
  y: ChartAxis;
  series: { label: string; points: [x: number, y: number][]; style: "line" | "dashed" | "points" | "steps" }[];
  bands?: { axis: "x" | "y"; from: number; to: number; label: string }[];
  marks?: { axis: "x" | "y"; at: number; label: string; tone?: "limit" | "plain" }[];
}

export interface Outcome {
  /** The answer as a sentence. */
  answer: VerdictPart[];
  tone: "plain" | "good" | "doubt" | "bad";
  working: Working;
  table?: { head: string[]; rows: Cell[][] };
  chart?: CalculatorChart;
  notes?: string[];
}

export interface Calculator {
  id: string;
  group: CalculatorGroup;
  title: string;
  /** The question that it answers. */
  asks: string;
  fields: Record<string, FieldSpec>;
  caution?: string;
  /** @throws {RangeError} with a message for the reader. */
  compute(values: Record<string, unknown>): Outcome;
}

/** A calculation whose values are typed by its fields. */
export function calculator<F extends Record<string, FieldSpec>>(
  definition: Omit<Calculator, "fields" | "compute"> & { fields: F; compute(values: ValuesOf<F>): Outcome },
): Calculator {
  return definition;
}

type Options<E> = { label?: string; hint?: string; take?: FactId; usual?: boolean } & E;

/** A quantity as typed, in the unit that the calculation wants. */
export function quantity(
  id: QuantityId,
  example: string,
  options: Options<{ unit?: string }> & { label: string },
): Field<number> {
  return { kind: "quantity", quantity: id, example, ...options };
}

/** A quantity that may be left out. */
export function maybe(
  id: QuantityId,
  options: Options<{ unit?: string; example?: string }> & { label: string },
): Field<number | null> {
  return { kind: "quantity", quantity: id, example: "", ...options, optional: true };
}

/** A plain number within bounds. */
export function plain(
  label: string,
  example: string,
  least: number,
  greatest: number,
  options: Options<{ suffix?: string }> = {},
): Field<number> {
  return { kind: "number", label, example, least, greatest, ...options };
}

/** A plain number that may be left out. */
export function maybePlain(
  label: string,
  least: number,
  greatest: number,
  options: Options<{ suffix?: string; example?: string }> = {},
): Field<number | null> {
  return { kind: "number", label, example: "", least, greatest, ...options, optional: true };
}

/** One of several. */
export function choice<const O extends readonly { value: string; label: string }[]>(
  label: string,
  options: O,
): Field<O[number]["value"]> {
  return { kind: "choice", label, options, example: options[0]!.value };
}

/** Lines of values. */
export function rows<const C extends readonly RowColumn[]>(
  label: string,
  columns: C,
  example: string,
  fewest: number,
  hint?: string,
): Field<{ [K in C[number]["id"]]: number | null }[]> {
  return { kind: "rows", label, columns, example, fewest, ...(hint && { hint }) };
}

/** Parts of a sentence: texts, and numbers in the reader's unit. */
export function say(...parts: (string | VerdictPart)[]): VerdictPart[] {
  return parts.map((part) => (typeof part === "string" ? { text: part } : part));
}

/** A number of a sentence, in core units, shown strong. */
export function figure(value: number, quantityId: QuantityId, digits = 3): VerdictPart {
  return { value, quantity: quantityId, digits, strong: true };
}

/** Evenly spaced values, both ends in. */
export function spaced(from: number, to: number, steps = 60): number[] {
  return Array.from({ length: steps + 1 }, (_, i) => from + ((to - from) * i) / steps);
}
