/** Flow, power, efficiency and heat of a pump; plain hydrostatics. */

/** Theoretical flow in L/min from displacement in cm³/rev and speed in r/min. */
export function theoreticalFlow(displacement: number, speed: number): number {
  if (!(displacement > 0) || !(speed > 0)) throw new RangeError("Displacement and speed must be above zero.");
  return (displacement * speed) / 1000;
}

/** Hydraulic power in kW of a flow in L/min at a pressure in bar. Also the heat of a leak. */
export function hydraulicPower(pressure: number, flow: number): number {
  return (pressure * flow) / 600;
}

/** Volumetric efficiency, 0 to 1 and a little over by measuring doubt: flow over theoretical flow, both L/min at one speed. */
export function volumetricEfficiency(flow: number, theoretical: number): number {
  if (!(theoretical > 0) || !(flow >= 0))
    throw new RangeError("Flow must not be negative and theoretical flow must be above zero.");
  return flow / theoretical;
}

/** Case drain flow as percent of theoretical flow. */
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
 * Warming in K of oil throttled through a pressure difference in bar without doing work:
 * Δp·(1 − α_v·T)/(ρ·c_p), T in K. 4.7 K per 100 bar for a common mineral oil.
 */
export function throttlingRise(pressure: number, oil: ThrottledOil = commonOil): number {
  if (!(oil.density > 0) || !(oil.specificHeat > 0))
    throw new RangeError("Density and specific heat must be above zero.");
  return (pressure * 1e5 * (1 - oil.expansion * (oil.temperature + 273.15))) / (oil.density * oil.specificHeat);
}
