/** The units that a reader prefers. */
import { quantityOf, type QuantityId } from "./quantities";
import { findUnit, unitsOf, type DimensionId } from "./units";

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
