/** Flow, power and heat of a pump; plain hydrostatics. */

/** Theoretical flow in L/min from displacement in cm³/rev and speed in r/min. */
export function theoreticalFlow(displacement: number, speed: number): number {
  if (!(displacement > 0) || !(speed > 0)) throw new RangeError("Displacement and speed must be above zero.");
  return (displacement * speed) / 1000;
}

/** Hydraulic power in kW of a flow in L/min at a pressure in bar. Also the heat of a leak. */
export function hydraulicPower(pressure: number, flow: number): number {
  return (pressure * flow) / 600;
}
