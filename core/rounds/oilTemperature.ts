/** Which points read the temperature of the oil itself. */
import type { PointQuantityId } from "../units/quantities";

/**
 * Does a point read the oil's own temperature? Then it is asked for once, and stands for the condition too.
 * A temperature whose name says oil, tank or reservoir is the oil's: reservoirs have no kind of their own yet.
 * @param quantity what the point reads
 * @param name of the point, as people wrote it
 * @returns true where the reading is the condition
 * @example readsTheOil("temperature", "Oil in the reservoir") // true
 * @example readsTheOil("temperature", "Motor housing") // false
 */
export function readsTheOil(quantity: PointQuantityId, name: string): boolean {
  return quantity === "temperature" && /\boil\b|\btank\b|\breservoir\b/i.test(name) && !/over/i.test(name);
}
