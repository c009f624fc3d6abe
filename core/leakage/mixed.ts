/** Leakage that is part laminar, part turbulent, and what a grown clearance makes of it. Merritt (1967). */

/**
 * Split two leakage flows at two pressures (bar) and one oil into a laminar part k·p and a turbulent part t·√p.
 * Coefficients in L/(min·bar) and L/(min·√bar); a negative one says that the readings do not fit such a leak.
 * @throws {RangeError} when the pressures are not above zero and different.
 */
export function splitLeakage(
  one: { pressure: number; flow: number },
  two: { pressure: number; flow: number },
): { laminar: number; turbulent: number } {
  if (!(one.pressure > 0) || !(two.pressure > 0) || one.pressure === two.pressure)
    throw new RangeError("Two different pressures above zero are needed.");
  const determinant = one.pressure * Math.sqrt(two.pressure) - two.pressure * Math.sqrt(one.pressure);
  return {
    laminar: (one.flow * Math.sqrt(two.pressure) - two.flow * Math.sqrt(one.pressure)) / determinant,
    turbulent: (one.pressure * two.flow - two.pressure * one.flow) / determinant,
  };
}

/**
 * Leakage that is part laminar, part turbulent: k·p + t·√p.
 * @param leak laminar part in L/(min·bar), turbulent part in L/(min·√bar)
 * @param pressure bar, 0 or more
 * @returns L/min
 * @throws {RangeError} for a negative pressure
 * @example mixedLeakage({ laminar: 0.01, turbulent: 0.1 }, 100) // 2
 */
export function mixedLeakage({ laminar, turbulent }: { laminar: number; turbulent: number }, pressure: number): number {
  if (!(pressure >= 0)) throw new RangeError("The pressure must not be negative.");
  return laminar * pressure + turbulent * Math.sqrt(pressure);
}

/**
 * Factor by which laminar leakage grows with a clearance: the cube of their ratio.
 * @param before clearance before, above 0
 * @param after clearance after, in the same unit, 0 or more
 * @returns leakage after over leakage before
 * @throws {RangeError} for a clearance out of its range
 * @example clearanceFactor(10, 20) // 8: twice the clearance leaks eight times as much
 */
export function clearanceFactor(before: number, after: number): number {
  if (!(before > 0) || !(after >= 0)) throw new RangeError("Clearances must be above zero.");
  return (after / before) ** 3;
}

/**
 * Clearance at which laminar leakage is a multiple of what it is now.
 * @param clearance now, any unit, above 0
 * @param factor of leakage, above 0
 * @returns clearance in the same unit
 * @throws {RangeError} for a value that is not above zero
 * @example clearanceAt(10, 8) // 20
 */
export function clearanceAt(clearance: number, factor: number): number {
  if (!(clearance > 0) || !(factor > 0)) throw new RangeError("Clearance and factor must be above zero.");
  return clearance * Math.cbrt(factor);
}
