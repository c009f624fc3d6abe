/** Flow through clearances and orifices: Merritt, Hydraulic Control Systems (1967). */

export interface AnnularGap {
  /** Bore diameter, mm. */
  diameter: number;
  /** Radial clearance, µm. */
  clearance: number;
  /** Length of the gap along the flow, mm. */
  length: number;
  /** Eccentricity over clearance, 0 (centred) to 1 (touching). */
  eccentricity: number;
}

/**
 * Laminar leakage through an annular gap, as of a spool or piston in its bore. Merritt (1967), chapter 3.
 * @param gap bore mm, radial clearance µm, length mm above 0, eccentricity 0 (centred) to 1 (touching)
 * @param pressure difference, bar
 * @param viscosity dynamic, mPa·s, above 0
 * @returns L/min; a spool that touches its bore leaks 2.5 times as much as a centred one
 * @throws {RangeError} for a value out of its range
 * @example annularLeakage({ diameter: 20, clearance: 10, length: 10, eccentricity: 0 }, 100, 30) // 0.0105
 */
export function annularLeakage(
  { diameter, clearance, length, eccentricity }: AnnularGap,
  pressure: number,
  viscosity: number,
): number {
  if (!(length > 0) || !(viscosity > 0)) throw new RangeError("Length and viscosity must be above zero.");
  if (!(eccentricity >= 0 && eccentricity <= 1)) throw new RangeError("Eccentricity lies between 0 and 1.");
  const cubicMetresPerSecond =
    ((Math.PI * (diameter / 1e3) * (clearance / 1e6) ** 3 * (pressure * 1e5)) /
      (12 * (viscosity / 1e3) * (length / 1e3))) *
    (1 + 1.5 * eccentricity ** 2);
  return cubicMetresPerSecond * 60_000;
}

/**
 * Turbulent flow through a sharp-edged orifice, Q = C_d·A·√(2·Δp/ρ).
 * @param diameter mm
 * @param dischargeCoefficient 0.6 to 0.65 for a sharp edge
 * @param pressure difference, bar, 0 or more
 * @param density kg/m³, above 0
 * @returns L/min
 * @throws {RangeError} for a negative pressure difference or a density that is not above zero
 * @example orificeFlow(1, 0.62, 100, 870) // 4.43
 */
export function orificeFlow(diameter: number, dischargeCoefficient: number, pressure: number, density: number): number {
  if (!(pressure >= 0) || !(density > 0))
    throw new RangeError("Pressure difference must not be negative and density must be above zero.");
  const area = (Math.PI / 4) * (diameter / 1e3) ** 2;
  return dischargeCoefficient * area * Math.sqrt((2 * pressure * 1e5) / density) * 60_000;
}
