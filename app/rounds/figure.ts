/** Figures on a tablet's keypad: what a key, the sign and the unit key make of what stands in a field. */
import {
  findUnit,
  formatQuantity,
  preferredUnit,
  quantityOf,
  unitsOf,
  type QuantityId,
  type UnitPreference,
} from "@core";
import type { WalkPoint } from "~/domain/rounds/index.server";
import type { EntryField } from "./entry";

/** A figure, then its unit where one is written. */
const shape = /^([^a-zµ°"%³]*?)(\s*[a-zµ°"%³].*)?$/i;

/** A key of the keypad: digits go before the unit, and the last one is taken from there. */
export function pressed(text: string, key: string): string {
  const [, figure = "", unit = ""] = shape.exec(text) ?? [];
  return (key === "⌫" ? figure.slice(0, -1) : figure + key) + unit;
}

export const signTurned = (text: string): string => (/^[-−]/.test(text) ? text.slice(1) : `-${text}`);

/** What a field of a point reads. */
export function quantityAt(field: EntryField, point: Pick<WalkPoint, "quantity">): QuantityId {
  switch (field) {
    case "temperature":
      return "oilTemperature";
    case "pressure":
      return "loadPressure";
    case "hours":
      return "runningHours";
    default:
      return point.quantity;
  }
}

/** The unit of a figure without one: the point's for its value, the reader's for what is noted beside it. */
export const bareUnit = (
  field: EntryField,
  point: Pick<WalkPoint, "quantity" | "unit">,
  units: UnitPreference,
): string => (field === "value" || field === "least" ? point.unit : preferredUnit(quantityAt(field, point), units));

/** The unit that a field is in now: as typed, however far off the figure is, else the one of a bare figure. */
export function unitOf(
  text: string,
  field: EntryField,
  point: Pick<WalkPoint, "quantity" | "unit">,
  units: UnitPreference,
): string {
  const written = shape.exec(text)?.[2]?.trim() ?? "";
  const { dimension } = quantityOf(quantityAt(field, point));
  return findUnit(written, dimension)?.symbol ?? bareUnit(field, point, units);
}

/** The same figure in the next unit of its dimension; one in the unit of bare figures stands bare again. */
export function inNextUnit(
  text: string,
  field: EntryField,
  point: Pick<WalkPoint, "quantity" | "unit">,
  units: UnitPreference,
): string {
  const symbols = unitsOf(quantityOf(quantityAt(field, point)).dimension).map((u) => u.symbol);
  const next = symbols[(symbols.indexOf(unitOf(text, field, point, units)) + 1) % symbols.length]!;
  const figure = (shape.exec(text)?.[1] ?? "").trim();
  return next === bareUnit(field, point, units) ? figure : `${figure} ${next}`;
}

/** A core value as it is typed in the point's unit. */
export const typedFigure = (core: number, { quantity, unit }: Pick<WalkPoint, "quantity" | "unit">): string =>
  formatQuantity(core, quantity, { unit, digits: 5 }).split("\u00a0")[0]!.replaceAll("\u202f", "").replace("−", "-");
