/** Doubts about a value before it is saved. A doubtful value is questioned, never refused. */
import { formatNumber, decimalsFor } from "../units/format";
import { quantityOf, type PointQuantityId } from "../units/quantities";
import { findUnit, fromCore, toCore, unitsOf } from "../units/units";
import type { ExpectedRange } from "./expected";

export interface Question {
  kind: "unit" | "digit" | "high" | "low" | "jump" | "hours" | "instrument" | "physics";
  message: string;
}

export interface Entry {
  /** Core value. */
  value: number;
  /** As entered. */
  entered: number;
  unit: string;
}

/** How far outside the range (in half-widths beyond its edge) a value may lie before it is questioned. */
const TOLERANCE = 0.15;
const JUMP = 2;

/**
 * What to ask about a value before it is saved; it is questioned, never refused. Looks for a unit slip first, then a slipped digit,
 * then the range, then a jump where there is no range.
 * @param entry core value, with figure and unit as entered
 * @param quantityId what was read
 * @param expected range for its conditions, core units; null: none is known
 * @param last value before it, core unit; null: none
 * @param shownIn symbol of the unit in which the reader reads; left out: the usual one
 * @returns the question; undefined when nothing is odd
 * @example
 * const expected = { low: 3.1, centre: 3.3, high: 3.5, beyondSeen: false };
 * questionReading({ value: 3.4, entered: 3.4, unit: "L/min" }, "caseDrainFlow", expected, 3.2) // undefined
 * questionReading({ value: 34, entered: 34, unit: "L/min" }, "caseDrainFlow", expected, 3.2).kind // "digit"
 * questionReading({ value: 0.87, entered: 0.87, unit: "L/min" }, "caseDrainFlow", expected, 3.2).kind // "unit"
 */
export function questionReading(
  entry: Entry,
  quantityId: PointQuantityId,
  expected: ExpectedRange | null,
  last: number | null,
  shownIn?: string,
): Question | undefined {
  const quantity = quantityOf(quantityId);
  const shownUnit = findUnit(shownIn ?? quantity.unit, quantity.dimension)!;
  const show = (core: number) => {
    const value = fromCore(core, shownUnit);
    return formatNumber(
      value,
      shownUnit.symbol === quantity.unit ? Math.min(quantity.decimals, decimalsFor(value, 3)) : decimalsFor(value, 3),
    );
  };
  const unit = shownUnit.symbol;
  if (expected) {
    const slack = TOLERANCE * (expected.high - expected.low);
    const inside = (value: number) => value >= expected.low - slack && value <= expected.high + slack;
    if (inside(entry.value)) return undefined;
    const range = `${show(Math.max(quantity.least, expected.low))}-${show(expected.high)} ${unit}`;
    const slip = unitsOf(quantity.dimension).find((u) => u.symbol !== entry.unit && inside(toCore(entry.entered, u)));
    if (slip) {
      const became = entry.unit === unit ? "" : ` would be ${show(entry.value)} ${unit}`;
      return {
        kind: "unit",
        message:
          `${formatNumber(entry.entered, decimalsFor(entry.entered, 3))} ` +
          `${entry.unit}${became || " is far off"}; the expected range is ${range}. Did you mean ${slip.symbol}?`,
      };
    }
    const side = entry.value > expected.high ? "high" : "low";
    for (const factor of [10, 0.1]) {
      if (inside(entry.value * factor))
        return {
          kind: "digit",
          message: `${show(entry.value)} ${unit} is ten times ${factor < 1 ? "more" : "less"} than expected (${range}). Is a digit or the decimal mark off?`,
        };
    }
    const lastSaid = last === null ? "" : ` Last time it was ${show(last)}.`;
    return {
      kind: side,
      message:
        `${side === "high" ? "Higher" : "Lower"} than expected: ${range} is expected for these ` +
        `conditions.${lastSaid} Read it once more, or keep it and say why.`,
    };
  }
  if (last !== null && last > 0 && entry.value > 0) {
    const ratio = entry.value / last;
    if (ratio > JUMP || ratio < 1 / JUMP)
      return {
        kind: "jump",
        message: `${show(entry.value)} ${unit} is a jump from ${show(last)} last time. Read it once more, or keep it and say why.`,
      };
  }
  return undefined;
}
