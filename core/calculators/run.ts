/** From what was typed to an answer: fields are read one by one, each with its own message. */
import { parseNumber, parseQuantity } from "../units/parse";
import { quantityOf, type QuantityId } from "../units/quantities";
import { preferredUnit, type UnitPreference } from "../units/preference";
import { findUnit, fromCore } from "../units/units";
import { decimalsFor, formatNumber } from "../units/format";
import type { Calculator, FieldSpec, Outcome, Row, RowsField } from "./types";

export type CalculatorResult = { ok: true; outcome: Outcome } | { ok: false; problems: Record<string, string> };

type Read = { ok: true; value: unknown } | { ok: false; message: string };

/**
 * Run a calculation on typed texts: fields are read one by one, each with its own message.
 * @param calculator which
 * @param typed text by field, with or without a unit; a field that is missing is empty
 * @param preference the reader's units, for figures without one
 * @returns the outcome, or problems by field; "form" for what concerns several
 * @throws {Error} what the calculation itself throws that is no matter of the input
 * @example
 * const [first] = calculators;
 * runCalculator(first, exampleOf(first)).ok // true
 * runCalculator(first, {}).ok // false
 */
export function runCalculator(
  calculator: Calculator,
  typed: Readonly<Record<string, string>>,
  preference: UnitPreference = {},
): CalculatorResult {
  const values: Record<string, unknown> = {};
  const problems: Record<string, string> = {};
  for (const [id, field] of Object.entries(calculator.fields)) {
    const read = readField(field, (typed[id] ?? "").slice(0, LONGEST), preference);
    if (read.ok) values[id] = read.value;
    else problems[id] = read.message;
  }
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  try {
    const outcome = calculator.compute(values);
    // figures of which one is next to nothing or next to endless: 0/0 is no answer
    if (outcome.answer.some((part) => "value" in part && Number.isNaN(part.value)))
      return {
        ok: false,
        problems: { form: "These figures give no number. Is one of them far too small or too large?" },
      };
    return { ok: true, outcome };
  } catch (error) {
    if (error instanceof RangeError) return { ok: false, problems: { form: error.message } };
    throw error;
  }
}

const LONGEST = 20_000;
const MOST_ROWS = 1000;

function readField(field: FieldSpec, text: string, preference: UnitPreference): Read {
  const trimmed = text.trim();
  if (trimmed === "" && field.optional) return { ok: true, value: null };
  switch (field.kind) {
    case "choice":
      return field.options.some((o) => o.value === trimmed)
        ? { ok: true, value: trimmed }
        : { ok: false, message: "Choose one." };
    case "number":
      return readNumber(field.label, trimmed, field.least, field.greatest);
    case "quantity": {
      if (trimmed === "") return { ok: false, message: `Enter a value, for example ${field.example}.` };
      const parsed = parseQuantity(trimmed, field.quantity, { assume: preferredUnit(field.quantity, preference) });
      if (!parsed.ok) return parsed;
      const { dimension, unit } = quantityOf(field.quantity);
      return { ok: true, value: fromCore(parsed.parsed.value, findUnit(field.unit ?? unit, dimension)!) };
    }
    case "rows":
      return readRows(field, text, preference);
  }
}

function readNumber(label: string, text: string, least: number, greatest: number): Read {
  const value = parseNumber(text.replace(/%$/, ""));
  const bound = (v: number) => formatNumber(v, decimalsFor(v));
  if (!Number.isFinite(value))
    return {
      ok: false,
      message:
        text === ""
          ? `Enter a number from ${bound(least)} to ${bound(greatest)}.`
          : `“${text.slice(0, 20)}” is not a number.`,
    };
  if (value < least || value > greatest)
    return { ok: false, message: `${label} lies between ${bound(least)} and ${bound(greatest)}.` };
  return { ok: true, value };
}

/** Cells of a line; a unit that stands behind a space belongs to its number. */
export function cellsOf(line: string): string[] {
  const cells: string[] = [];
  for (const token of line.split(/[\t;]|\s+/).filter(Boolean)) {
    if (/^[a-zµμ°%"″]/i.test(token) && /\d$/.test(cells.at(-1) ?? "")) cells[cells.length - 1] += ` ${token}`;
    else cells.push(token);
  }
  return cells;
}

function readRows(field: RowsField, text: string, preference: UnitPreference): Read {
  const lines = text
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter(Boolean);
  const wanted = field.columns.map((c) => c.label).join(", ");
  if (lines.length > MOST_ROWS) return { ok: false, message: `At most ${MOST_ROWS} lines.` };
  const found: Row[] = [];
  for (const [i, line] of lines.entries()) {
    const cells = cellsOf(line);
    const row: Row = {};
    for (const [k, column] of field.columns.entries()) {
      const cell = cells[k];
      if (cell === undefined || cell === "-" || cell === "–") {
        if (!column.optional)
          return {
            ok: false,
            message: `Line ${i + 1}: ${column.label.toLowerCase()} is missing. Each line holds ${wanted}.`,
          };
        row[column.id] = null;
        continue;
      }
      if (column.quantity) {
        const parsed = parseQuantity(cell, column.quantity, { assume: preferredUnit(column.quantity, preference) });
        if (!parsed.ok) return { ok: false, message: `Line ${i + 1}: ${parsed.message}` };
        row[column.id] = parsed.parsed.value;
      } else {
        const value = parseNumber(cell);
        if (!Number.isFinite(value))
          return { ok: false, message: `Line ${i + 1}: “${cell.slice(0, 20)}” is not a number.` };
        row[column.id] = value;
      }
    }
    if (cells.length > field.columns.length) return { ok: false, message: `Line ${i + 1} has more than ${wanted}.` };
    found.push(row);
  }
  if (found.length < field.fewest)
    return { ok: false, message: `At least ${field.fewest} lines are needed: ${wanted}.` };
  return { ok: true, value: found };
}

/**
 * The worked example of a calculation. In the units of the reader.
 * @param calculator which
 * @param units the reader's
 * @returns typed texts by field; each gives the same outcome whoever reads it
 * @example Object.keys(exampleOf(calculators[0])).length === Object.keys(calculators[0].fields).length // true
 */
export function exampleOf(calculator: Calculator, units: UnitPreference = {}): Record<string, string> {
  return Object.fromEntries(Object.entries(calculator.fields).map(([id, field]) => [id, exampleFor(field, units)]));
}

function exampleFor(field: FieldSpec, units: UnitPreference): string {
  if (field.kind === "quantity") return inReadersUnit(field.example, field.quantity, units);
  if (field.kind !== "rows" || !field.columns.some((c) => c.quantity && otherUnit(c.quantity, units)))
    return field.example;
  return field.example
    .split("\n")
    .map((line) =>
      cellsOf(line)
        .map((cell, k) => inReadersUnit(cell, field.columns[k]?.quantity, units))
        .join("; "),
    )
    .join("\n");
}

const otherUnit = (quantity: QuantityId, units: UnitPreference) =>
  preferredUnit(quantity, units) !== quantityOf(quantity).unit;

/** Digits that an example keeps in another unit: it stays the same case, and can be read. */
const EXAMPLE_DIGITS = 4;

/** A bare number is one of the quantity's usual unit: a reader who prefers another sees it in that. */
function inReadersUnit(text: string, quantity: QuantityId | undefined, units: UnitPreference): string {
  if (!quantity || !/\d$/.test(text.trim()) || !otherUnit(quantity, units)) return text;
  const parsed = parseQuantity(text.trim(), quantity);
  if (!parsed.ok) return text;
  const unit = findUnit(preferredUnit(quantity, units), quantityOf(quantity).dimension)!;
  return `${Number(fromCore(parsed.parsed.value, unit).toPrecision(EXAMPLE_DIGITS))} ${unit.symbol}`;
}
