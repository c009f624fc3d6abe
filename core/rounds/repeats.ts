/** A doubtful reading is repeated: two that disagree ask for a third. */
import { median } from "../trend/robust";

export interface Repeats {
  /** The value to keep; null: one more is wanted. */
  value: number | null;
  message: string;
}

/**
 * Judge repeated readings of one point: two that agree are kept, two that disagree ask for a third.
 * @param values in the order in which they were read, core unit
 * @param tolerance greatest difference between two that agree, core unit, above zero
 * @returns the value to keep, or null with what is wanted
 * @throws {RangeError} for a tolerance that is not above zero
 * @example judgeRepeats([5.1, 5.2], 0.2).value // 5.15
 * @example judgeRepeats([5.1, 6.2], 0.2).value // null
 * @example judgeRepeats([5.1, 6.2, 7.3], 0.2).value // 6.2
 */
export function judgeRepeats(values: readonly number[], tolerance: number): Repeats {
  if (!(tolerance > 0)) throw new RangeError("The tolerance must be above zero.");
  if (values.length === 0) return { value: null, message: "Read it." };
  if (values.length === 1) return { value: null, message: "Read it once more." };
  const last = values[values.length - 1]!;
  const near = values.slice(0, -1).filter((v) => Math.abs(v - last) <= tolerance);
  if (near.length > 0) return { value: median([...near, last]), message: "It reads the same again: keep it." };
  if (values.length === 2) return { value: null, message: "The two disagree: a third decides." };
  return { value: median(values), message: "The readings disagree: the middle one is kept, and marked." };
}
