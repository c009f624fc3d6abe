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

/** The unit in which a quantity is shown and taken when none is written; without a preference `otherwise`, or its usual unit. */
export function preferredUnit(quantityId: QuantityId, preference: UnitPreference = {}, otherwise?: string): string {
  const { dimension, unit } = quantityOf(quantityId);
  const wanted = preference[dimension];
  return wanted !== undefined && findUnit(wanted, dimension) ? wanted : (otherwise ?? unit);
}

/** A preference with all that is no unit of its dimension left out. */
export function validPreference(given: Readonly<Record<string, unknown>>): UnitPreference {
  return Object.fromEntries(
    preferableDimensions.flatMap((d) =>
      typeof given[d] === "string" && unitsOf(d).some((u) => u.symbol === given[d]) ? [[d, given[d]]] : [],
    ),
  );
}
