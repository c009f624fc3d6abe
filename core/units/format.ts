/** Numbers as text, in a unit, with the digits that are worth showing. */
import { findUnit, fromCore } from "./units";
import { quantityOf, type QuantityId } from "./quantities";

/** A number with `decimals`, thin-space thousands and a true minus sign. */
export function formatNumber(value: number, decimals: number): string {
  const text = Math.abs(value).toFixed(decimals);
  const [whole = "0", fraction] = text.split(".");
  const grouped = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, "\u202f") : whole;
  const sign = value < 0 && Number(text) !== 0 ? "−" : "";
  return `${sign}${grouped}${fraction ? `.${fraction}` : ""}`;
}

/** Decimals that keep about `digits` significant digits. */
export function decimalsFor(value: number, digits = 3): number {
  if (value === 0 || !Number.isFinite(value)) return 0;
  return Math.min(6, Math.max(0, digits - 1 - Math.floor(Math.log10(Math.abs(value)))));
}

/**
 * A core value with its unit: "5.6 L/min". `unit` is a symbol of the quantity's dimension.
 * @param value in the quantity's core unit
 * @throws {RangeError} for a unit that is none of the quantity's
 */
export function formatQuantity(
  value: number,
  quantityId: QuantityId,
  { unit, digits }: { unit?: string; digits?: number } = {},
): string {
  const quantity = quantityOf(quantityId);
  const shown = findUnit(unit ?? quantity.unit, quantity.dimension);
  if (!shown) throw new RangeError(`${unit} is not a unit of ${quantityId}.`);
  const number = fromCore(value, shown);
  // small values keep two digits: a case pressure of 0.8 bar is not 1 bar
  const usual = Math.max(quantity.decimals, Math.abs(number) < 10 ? Math.min(2, decimalsFor(number, 2)) : 0);
  const decimals = digits !== undefined || shown.symbol !== quantity.unit ? decimalsFor(number, digits ?? 3) : usual;
  return `${formatNumber(number, decimals)}\u00a0${shown.symbol}`;
}

/**
 * A name within a sentence: its first letter small, the rest as it was written.
 */
export const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
