/** Numbers as text, in a unit, with the digits that are worth showing. */
import { findUnit, fromCore } from "./units";
import { quantityOf, type QuantityId } from "./quantities";

/**
 * Write a number, with thin spaces between thousands from five digits on, and a true minus sign.
 * @param value any finite number
 * @param decimals 0 or more
 * @returns the text; a value that rounds to zero has no sign
 * @example formatNumber(-3.456, 1) // "−3.5"
 * @example formatNumber(12345, 0) // "12\u202f345"
 */
export function formatNumber(value: number, decimals: number): string {
  const text = Math.abs(value).toFixed(decimals);
  const [whole = "0", fraction] = text.split(".");
  const grouped = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, "\u202f") : whole;
  const sign = value < 0 && Number(text) !== 0 ? "−" : "";
  return `${sign}${grouped}${fraction ? `.${fraction}` : ""}`;
}

/**
 * Decimals with which a number keeps some significant digits.
 * @param value any number
 * @param digits significant ones, 1 or more
 * @returns 0 to 6; 0 for zero and for what is not finite
 * @example decimalsFor(5.61) // 2
 * @example decimalsFor(0.0123) // 4
 */
export function decimalsFor(value: number, digits = 3): number {
  if (value === 0 || !Number.isFinite(value)) return 0;
  return Math.min(6, Math.max(0, digits - 1 - Math.floor(Math.log10(Math.abs(value)))));
}

/**
 * Write a value with its unit, with the digits that are worth showing.
 * @param value in the quantity's core unit
 * @param quantityId the quantity
 * @param options how to write it
 * @param options.unit a symbol of the quantity's dimension; left out: the usual one
 * @param options.digits significant digits, where the quantity's usual decimals are not wanted
 * @returns figure and unit, with a space between that does not break
 * @throws {RangeError} for a unit that is none of the quantity's
 * @example formatQuantity(5.63, "caseDrainFlow") // "5.63\u00a0L/min"
 * @example formatQuantity(206.84, "loadPressure", { unit: "psi" }) // "3000\u00a0psi"
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
 * @param text the name
 * @returns the name as it stands after other words
 * @example lowerFirst("Pump A, case drain") // "pump A, case drain"
 */
export const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
