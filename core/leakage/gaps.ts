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

/** Laminar flow in L/min through an annular gap at a pressure difference in bar and dynamic viscosity in mPa·s. */
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

/** Turbulent flow in L/min through a sharp orifice: diameter mm, pressure difference bar, density kg/m³. */
export function orificeFlow(diameter: number, dischargeCoefficient: number, pressure: number, density: number): number {
  if (!(pressure >= 0) || !(density > 0))
    throw new RangeError("Pressure difference must not be negative and density must be above zero.");
  const area = (Math.PI / 4) * (diameter / 1e3) ** 2;
  return dischargeCoefficient * area * Math.sqrt((2 * pressure * 1e5) / density) * 60_000;
}
