/** Leakage that is part laminar, part turbulent, and what a grown clearance makes of it. Merritt (1967). */

/**
 * Split two leakage flows at two pressures (bar) and one oil into a laminar part k·p and a turbulent part t·√p.
 * Coefficients in L/(min·bar) and L/(min·√bar); a negative one says that the readings do not fit such a leak.
 * @throws RangeError when the pressures are not above zero and different.
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

/** Leakage of a mixed leak at a pressure in bar. */
export function mixedLeakage({ laminar, turbulent }: { laminar: number; turbulent: number }, pressure: number): number {
  if (!(pressure >= 0)) throw new RangeError("The pressure must not be negative.");
  return laminar * pressure + turbulent * Math.sqrt(pressure);
}

/** Factor by which leakage grows when a clearance grows: the cube of their ratio. */
export function clearanceFactor(before: number, after: number): number {
  if (!(before > 0) || !(after >= 0)) throw new RangeError("Clearances must be above zero.");
  return (after / before) ** 3;
}

/** The clearance at which leakage is `factor` times that of `clearance`, same unit. */
export function clearanceAt(clearance: number, factor: number): number {
  if (!(clearance > 0) || !(factor > 0)) throw new RangeError("Clearance and factor must be above zero.");
  return clearance * Math.cbrt(factor);
}
