/** Leakage from how a shut-in pressure falls, and from how a cylinder creeps. */

/** Mineral oil without air, bar (common handbook value, memory); free air lowers it much. */
export const BULK_MODULUS = 14_000;
/** Shut-in oil gains about this much pressure per kelvin, bar/K (common practice). */
export const THERMAL_PRESSURE = 9;

export interface DecayTest {
  /** Oil shut in, L. */
  volume: number;
  /** Fall of pressure, bar/min, positive when it falls. */
  pressureFall: number;
  /** Rise of the oil's temperature during the test, K/min; negative when it cools. */
  temperatureRise: number;
  /** bar; 14 000 when left out. */
  bulkModulus?: number;
  /** bar/K; 9 when left out. */
  thermalPressure?: number;
}

export interface DecayResult {
  /** Leakage, L/min. */
  leak: number;
  /** Fall that cooling alone explains, bar/min. */
  byTemperature: number;
}

/**
 * Leak = (V/K)·(fall of pressure less what cooling explains). Without a temperature record the test says
 * nothing: 0.1 K/min looks like 1 bar/min. An accumulator left in makes it invalid.
 * @throws {RangeError} when volume or modulus is not above zero.
 */
export function leakFromDecay({
  volume,
  pressureFall,
  temperatureRise,
  bulkModulus = BULK_MODULUS,
  thermalPressure = THERMAL_PRESSURE,
}: DecayTest): DecayResult {
  if (!(volume > 0) || !(bulkModulus > 0)) throw new RangeError("Volume and bulk modulus must be above zero.");
  const byTemperature = -temperatureRise * thermalPressure || 0;
  return { leak: (volume / bulkModulus) * (pressureFall - byTemperature), byTemperature };
}

/**
 * Leakage across a cylinder that creeps with its ports shut.
 * @param area of the side that leaks, mm², above 0
 * @param speed mm/min
 * @returns L/min
 * @throws {RangeError} for an area that is not above zero
 * @example leakFromCreep(7854, 2) // 0.0157
 */
export function leakFromCreep(area: number, speed: number): number {
  if (!(area > 0)) throw new RangeError("The area must be above zero.");
  return (area * speed) / 1e6;
}
