/** A bare number means what its writer's units say: it is given its unit where it is written, once. */
import { parseNumber } from "../units/parse";
import { preferredUnit, type UnitPreference } from "../units/preference";
import type { QuantityId } from "../units/quantities";

/**
 * Values as typed, bare numbers with the unit that their writer means.
 * @param fields which of them are quantities
 * @param values as typed
 * @param units of the writer
 * @returns values that mean the same to everybody
 * @example
 * withUnits([{ name: "value", quantity: "pressure" }], { value: "20" }, {}).value // "20 bar"
 */
export function withUnits(
  fields: readonly { name: string; quantity?: QuantityId | null }[],
  values: Readonly<Record<string, string>>,
  units: UnitPreference,
): Record<string, string> {
  const quantityOfField = new Map(fields.map((f) => [f.name, f.quantity ?? null]));
  return Object.fromEntries(
    Object.entries(values).map(([name, text]) => {
      const quantity = quantityOfField.get(name);
      const typed = text.trim();
      const bare = quantity && typed !== "" && Number.isFinite(parseNumber(typed));
      return [name, bare ? `${typed} ${preferredUnit(quantity, units)}` : typed];
    }),
  );
}
