/** Flow, power, efficiency and heat of a pump; plain hydrostatics. */

/**
 * Flow of a pump without leakage.
 * @param displacement cm³/rev, above 0
 * @param speed r/min, above 0
 * @returns L/min
 * @throws {RangeError} for a value that is not above zero
 * @example theoreticalFlow(45, 1450) // 65.25
 */
export function theoreticalFlow(displacement: number, speed: number): number {
  if (!(displacement > 0) || !(speed > 0)) throw new RangeError("Displacement and speed must be above zero.");
  return (displacement * speed) / 1000;
}

/**
 * Hydraulic power of a flow at a pressure. The heat of a leak is the same product.
 * @param pressure bar
 * @param flow L/min
 * @returns kW
 * @example hydraulicPower(200, 60) // 20
 */
export function hydraulicPower(pressure: number, flow: number): number {
  return (pressure * flow) / 600;
}

/**
 * Volumetric efficiency of a pump.
 * @param flow delivered, L/min, 0 or more
 * @param theoretical flow at the same speed, L/min, above 0
 * @returns 0 to 1, a little over where the meter reads high
 * @throws {RangeError} for a value out of its range
 * @example volumetricEfficiency(60, 65.25) // 0.92
 */
export function volumetricEfficiency(flow: number, theoretical: number): number {
  if (!(theoretical > 0) || !(flow >= 0))
    throw new RangeError("Flow must not be negative and theoretical flow must be above zero.");
  return flow / theoretical;
}

/**
 * Case drain flow against theoretical flow.
 * @param caseFlow L/min, 0 or more
 * @param theoretical flow at the same speed, L/min, above 0
 * @returns percent; 1 to 3 as new, about 10 asks for a change (common practice, the manufacturer's figure first)
 * @throws {RangeError} for a value out of its range
 * @example caseFlowShare(6.525, 65.25) // 10
 */
export function caseFlowShare(caseFlow: number, theoretical: number): number {
  return 100 * volumetricEfficiency(caseFlow, theoretical);
}

export interface ThrottledOil {
  /** kg/m³ */
  density: number;
  /** J/(kg·K) */
  specificHeat: number;
  /** Thermal expansion, 1/K */
  expansion: number;
  /** °C */
  temperature: number;
}

/** A common mineral oil at 40 °C (common handbook values). */
export const commonOil: ThrottledOil = { density: 870, specificHeat: 1900, expansion: 7e-4, temperature: 40 };

/**
 * Warming of oil that is throttled without doing work: Δp·(1 − α·T)/(ρ·c), T in K.
 * @param pressure difference, bar
 * @param oil density kg/m³ and specific heat J/(kg·K) above 0, thermal expansion 1/K, temperature °C
 * @returns K
 * @throws {RangeError} for a density or specific heat that is not above zero
 * @example throttlingRise(100) // 4.7
 */
export function throttlingRise(pressure: number, oil: ThrottledOil = commonOil): number {
  if (!(oil.density > 0) || !(oil.specificHeat > 0))
    throw new RangeError("Density and specific heat must be above zero.");
  return (pressure * 1e5 * (1 - oil.expansion * (oil.temperature + 273.15))) / (oil.density * oil.specificHeat);
}
