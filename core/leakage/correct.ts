/**
 * Leakage brought to reference conditions: Q_ref = Q·(p_ref/p)^a·(μ/μ_ref)^b, μ dynamic.
 * a = b = 1 is laminar flow through a gap (Merritt 1967); other exponents are learned from the
 * component's own readings.
 */
export interface LeakageExponents {
  a: number;
  b: number;
}

export const laminar: LeakageExponents = { a: 1, b: 1 };

export interface LeakageConditions {
  /** Pressure across the gap, bar, above zero. */
  pressure: number;
  /** Viscosity, any unit as long as both conditions use the same; above zero. */
  viscosity: number;
}

/**
 * Correct a leakage flow to the reference pressure and viscosity. Result in the unit of `flow`.
 * @throws {RangeError} when a pressure or viscosity is not above zero.
 */
export function correctLeakage(
  { flow, pressure, viscosity }: LeakageConditions & { flow: number },
  reference: LeakageConditions,
  { a, b }: LeakageExponents = laminar,
): number {
  for (const value of [pressure, viscosity, reference.pressure, reference.viscosity]) {
    if (!(value > 0)) throw new RangeError("Pressures and viscosities must be above zero.");
  }
  return flow * (reference.pressure / pressure) ** a * (viscosity / reference.viscosity) ** b;
}

export interface CorrectionUncertainty {
  /** Relative standard uncertainty of the flow as read. */
  flow: number;
  /** Relative standard uncertainty of the pressure. */
  pressure: number;
  /** Standard uncertainty of the oil temperature, K. */
  temperature: number;
  /** Standard uncertainties of the exponents. */
  a: number;
  b: number;
}

/**
 * Relative standard uncertainty of a corrected leakage, first-order propagation:
 * (u/Q)² = u_Q² + (a·u_p/p)² + (b·λ·u_T)² + (ln(p_ref/p)·u_a)² + (ln(μ/μ_ref)·u_b)².
 * `lambda` is |d ln μ/dT| in 1/K at the reading's temperature.
 */
export function correctedUncertainty(
  { pressure, viscosity }: LeakageConditions,
  reference: LeakageConditions,
  { a, b }: LeakageExponents,
  lambda: number,
  u: CorrectionUncertainty,
): number {
  return Math.hypot(
    u.flow,
    a * u.pressure,
    b * lambda * u.temperature,
    Math.log(reference.pressure / pressure) * u.a,
    Math.log(viscosity / reference.viscosity) * u.b,
  );
}
