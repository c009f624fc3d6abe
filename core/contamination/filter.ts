/** Filters and the cleaning up of a tank: one well-mixed volume, a filter of constant efficiency, constant ingress. */

/** Share of particles that a filter of ratio β takes out in one pass: 1 − 1/β. @throws RangeError for β below 1. */
export function filterEfficiency(beta: number): number {
  if (!(beta >= 1)) throw new RangeError("A filtration ratio is at least 1.");
  return 1 - 1 / beta;
}

/** Filtration ratio from counts before and after the element. */
export function filtrationRatio(before: number, after: number): number {
  if (!(before > 0) || !(after > 0)) throw new RangeError("Counts must be above zero.");
  return before / after;
}

export interface TankBalance {
  /** L */
  volume: number;
  /** Flow through the filter, L/min. */
  flow: number;
  beta: number;
  /** Particles that enter, (1/mL)·(L/min). */
  ingress: number;
}

/** Count per mL that settles in the end: R/(Q·(1 − 1/β)). */
export function steadyCount({ flow, beta, ingress }: Omit<TankBalance, "volume">): number {
  const eta = filterEfficiency(beta);
  if (!(flow > 0) || !(eta > 0)) throw new RangeError("Flow must be above zero and the ratio above 1.");
  if (!(ingress >= 0)) throw new RangeError("Ingress must not be negative.");
  return ingress / (flow * eta);
}

/** Count per mL after some minutes, from a count now: V·dN/dt = R − Q·(1 − 1/β)·N. */
export function countAfter(balance: TankBalance, now: number, minutes: number): number {
  if (!(balance.volume > 0)) throw new RangeError("The volume must be above zero.");
  const steady = steadyCount(balance);
  return (
    steady + (now - steady) * Math.exp((-balance.flow * filterEfficiency(balance.beta) * minutes) / balance.volume)
  );
}

/** Minutes from a count to a lower one; null: it is never reached, since more comes in than the filter takes. */
export function cleanUpTime(balance: TankBalance, from: number, to: number): number | null {
  if (!(from >= 0) || !(to >= 0)) throw new RangeError("Counts must not be negative.");
  if (!(balance.volume > 0)) throw new RangeError("The volume must be above zero.");
  if (from <= to) return 0;
  const steady = steadyCount(balance);
  if (to <= steady) return null;
  return (balance.volume / (balance.flow * filterEfficiency(balance.beta))) * Math.log((from - steady) / (to - steady));
}

/** Ingress that holds a steady count, (1/mL)·(L/min). */
export function ingressFrom(steady: number, flow: number, beta: number): number {
  return steady * flow * filterEfficiency(beta);
}

/**
 * Differential pressure of an element brought to a reference flow and viscosity: the element's part grows with
 * flow and viscosity, the housing's part (where known, same unit, at the reference flow) with the square of the flow.
 */
export function correctedPressureDrop(
  reading: { drop: number; flow: number; viscosity: number },
  reference: { flow: number; viscosity: number },
  housing = 0,
): number {
  for (const v of [reading.flow, reading.viscosity, reference.flow, reference.viscosity])
    if (!(v > 0)) throw new RangeError("Flows and viscosities must be above zero.");
  const element = reading.drop - housing * (reading.flow / reference.flow) ** 2;
  return element * (reference.flow / reading.flow) * (reference.viscosity / reading.viscosity) + housing;
}
