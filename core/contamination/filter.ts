/** Filters and the cleaning up of a tank: one well-mixed volume, a filter of constant efficiency, constant ingress. */

/**
 * Share of particles that a filter takes out in one pass, 1 − 1/β.
 * @param beta filtration ratio, count before over count after; 1 (takes nothing) or more
 * @returns 0 to 1
 * @throws {RangeError} for a ratio below 1
 * @example filterEfficiency(200) // 0.995
 */
export function filterEfficiency(beta: number): number {
  if (!(beta >= 1)) throw new RangeError("A filtration ratio is at least 1.");
  return 1 - 1 / beta;
}

/**
 * Filtration ratio β of an element, from samples before and after it.
 * @param before particles per mL before the element, above 0
 * @param after particles per mL after it, above 0, over the same size
 * @returns β; below 1 where more came out than went in (samples swapped, or the element sheds)
 * @throws {RangeError} for a count that is not above zero
 * @example filtrationRatio(4000, 20) // 200
 */
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

/**
 * Count that settles when as much comes in as the filter takes out: R/(Q·(1 − 1/β)).
 * @param balance flow in L/min above 0, filtration ratio above 1, ingress R in (1/mL)·(L/min), 0 or more
 * @returns particles per mL
 * @throws {RangeError} for a value out of its range
 * @example steadyCount({ flow: 50, beta: 2, ingress: 1000 }) // 40
 */
export function steadyCount({ flow, beta, ingress }: Omit<TankBalance, "volume">): number {
  const eta = filterEfficiency(beta);
  if (!(flow > 0) || !(eta > 0)) throw new RangeError("Flow must be above zero and the ratio above 1.");
  if (!(ingress >= 0)) throw new RangeError("Ingress must not be negative.");
  return ingress / (flow * eta);
}

/**
 * Count after some minutes of running, V·dN/dt = R − Q·(1 − 1/β)·N: one well-mixed volume.
 * @param balance as in `steadyCount`, with the volume in L, above 0
 * @param now particles per mL at the start
 * @param minutes of running
 * @returns particles per mL
 * @throws {RangeError} for a value of the balance out of its range
 * @example countAfter({ volume: 100, flow: 50, beta: 2, ingress: 0 }, 1000, 4) // 367.9, after one time constant
 */
export function countAfter(balance: TankBalance, now: number, minutes: number): number {
  if (!(balance.volume > 0)) throw new RangeError("The volume must be above zero.");
  const steady = steadyCount(balance);
  return (
    steady + (now - steady) * Math.exp((-balance.flow * filterEfficiency(balance.beta) * minutes) / balance.volume)
  );
}

/**
 * Running time from a count down to a lower one.
 * @param balance as in `countAfter`
 * @param from particles per mL now, 0 or more
 * @param to particles per mL wanted, 0 or more
 * @returns minutes; 0 where it is clean already; null: never, since more comes in than the filter takes out at that count
 * @throws {RangeError} for a negative count, or a value of the balance out of its range
 * @example cleanUpTime({ volume: 100, flow: 50, beta: 2, ingress: 0 }, 1000, 100) // 9.2
 */
export function cleanUpTime(balance: TankBalance, from: number, to: number): number | null {
  if (!(from >= 0) || !(to >= 0)) throw new RangeError("Counts must not be negative.");
  if (!(balance.volume > 0)) throw new RangeError("The volume must be above zero.");
  if (from <= to) return 0;
  const steady = steadyCount(balance);
  if (to <= steady) return null;
  return (balance.volume / (balance.flow * filterEfficiency(balance.beta))) * Math.log((from - steady) / (to - steady));
}

/**
 * Ingress that holds a steady count.
 * @param steady particles per mL
 * @param flow through the filter, L/min
 * @param beta filtration ratio, 1 or more
 * @returns particles that enter, (1/mL)·(L/min)
 * @throws {RangeError} for a ratio below 1
 * @example ingressFrom(40, 50, 2) // 1000
 */
export function ingressFrom(steady: number, flow: number, beta: number): number {
  return steady * flow * filterEfficiency(beta);
}

/**
 * Differential pressure of an element, brought to a reference flow and viscosity: the element's part grows with flow
 * and viscosity, the housing's with the square of the flow.
 * @param reading drop in any unit of pressure, flow in L/min and viscosity in mm²/s, both above 0
 * @param reference flow and viscosity to compare at, above 0
 * @param housing drop of the empty housing at the reference flow, in the unit of the reading; 0 where it is not known
 * @returns the drop at the reference, in the unit of the reading
 * @throws {RangeError} for a flow or viscosity that is not above zero
 * @example correctedPressureDrop({ drop: 1, flow: 100, viscosity: 46 }, { flow: 100, viscosity: 32 }) // 0.70
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
