/** The units that a reader prefers. */
import { quantityOf, type QuantityId } from "./quantities";
import { findUnit, fromCore, toCore, unitsOf, type DimensionId } from "./units";

/** Symbols of the preferred units by dimension; what is typed without a unit is taken in them. */
export type UnitPreference = Partial<Record<DimensionId, string>>;

/** Dimensions in which people differ, in the order in which they are asked. */
export const preferableDimensions = [
  "pressure",
  "flow",
  "temperature",
  "temperatureDifference",
  "length",
  "displacement",
  "volume",
  "torque",
  "force",
  "power",
  "vacuum",
  "area",
] as const satisfies readonly DimensionId[];

/**
 * The unit in which a quantity is shown, and taken where none is written.
 * @param quantityId the quantity
 * @param preference of the reader; a unit that is none of the dimension is passed over
 * @param otherwise unit without a preference; left out: the quantity's usual one
 * @returns a symbol
 * @example preferredUnit("caseDrainFlow", { flow: "gal/min" }) // "gal/min"
 * @example preferredUnit("caseDrainFlow") // "L/min"
 */
export function preferredUnit(quantityId: QuantityId, preference: UnitPreference = {}, otherwise?: string): string {
  const { dimension, unit } = quantityOf(quantityId);
  const wanted = preference[dimension];
  return wanted !== undefined && findUnit(wanted, dimension) ? wanted : (otherwise ?? unit);
}

/**
 * A figure that is stated in a unit of its own, as of a circuit's element, in the one that the reader prefers.
 * @param value in `symbol`
 * @param symbol of its own unit
 * @param preference of the reader
 * @returns value and symbol; as they were where there is no preference, or people do not differ in such a unit
 * @example readerFigure(200, "bar", { pressure: "psi" }) // { value: 2900.8, symbol: "psi" }
 * @example readerFigure(0.02, "L/min per bar", { pressure: "psi" }) // { value: 0.02, symbol: "L/min per bar" }
 */
export function readerFigure(
  value: number,
  symbol: string,
  preference: UnitPreference,
): { value: number; symbol: string } {
  for (const dimension of preferableDimensions) {
    const own = findUnit(symbol, dimension);
    const wanted = own && findUnit(preference[dimension] ?? symbol, dimension);
    if (own && wanted) return { value: fromCore(toCore(value, own), wanted), symbol: wanted.symbol };
  }
  return { value, symbol };
}

/**
 * A preference as it came from a form or a database, with all left out that is no unit of its dimension.
 * @param given unit symbols by dimension
 * @returns what of it is a preference
 * @example validPreference({ pressure: "psi", flow: "furlong", colour: "red" }) // { pressure: "psi" }
 */
export function validPreference(given: Readonly<Record<string, unknown>>): UnitPreference {
  return Object.fromEntries(
    preferableDimensions.flatMap((d) =>
      typeof given[d] === "string" && unitsOf(d).some((u) => u.symbol === given[d]) ? [[d, given[d]]] : [],
    ),
  );
}
