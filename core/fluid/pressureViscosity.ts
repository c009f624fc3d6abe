/** Viscosity under pressure, Barus: μ(p) = μ0·exp(α·p). Usual α of mineral oil 2e-3 per bar (common handbook value, memory). */
export const MINERAL_ALPHA = 2e-3;

/** Dynamic viscosity at a pressure in bar from that at atmosphere; same unit as given. α in 1/bar, 0 to 0.01. */
export function viscosityUnderPressure(viscosity: number, pressure: number, alpha = MINERAL_ALPHA): number {
  checkAlpha(alpha);
  return viscosity * Math.exp(alpha * pressure);
}

/**
 * Mean factor by which a gap leaks less than at atmospheric viscosity when the pressure falls from p bar to
 * zero along it: (1 − e^(−αp))/(αp). 0.82 at 200 bar and α 2e-3: 18 % less.
 * @param pressure at the inlet of the gap, bar, 0 or more
 * @param alpha pressure coefficient of viscosity, 0 to 0.01 per bar
 * @returns 0 to 1
 * @throws {RangeError} for a value out of its range
 * @example gapPressureFactor(200, 2e-3) // 0.82
 */
export function gapPressureFactor(pressure: number, alpha = MINERAL_ALPHA): number {
  checkAlpha(alpha);
  if (!(pressure >= 0)) throw new RangeError("The pressure must not be negative.");
  const x = alpha * pressure;
  return x < 1e-9 ? 1 : (1 - Math.exp(-x)) / x;
}

function checkAlpha(alpha: number): void {
  if (!(alpha >= 0 && alpha <= 0.01)) throw new RangeError("α lies between 0 and 0.01 per bar.");
}
