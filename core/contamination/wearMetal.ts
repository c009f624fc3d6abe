/**
 * Amount of a wear metal made since the oil was changed, corrected for oil lost, drained and topped up:
 * M_n = V·C_n + Σ lost·mean concentration then − Σ top-up·concentration of the new oil.
 */
export interface MetalSample {
  /** Running hours since the oil change. */
  hours: number;
  /** ppm (mg/kg, taken as mg/L·1/ρ: any mass-like concentration, one for all). */
  concentration: number;
}

export interface OilEvent {
  hours: number;
  /** L taken out or lost. */
  lost?: number;
  /** L filled in. */
  added?: number;
  /** Concentration of what was filled in. */
  newOil?: number;
}

export interface MetalAmount {
  hours: number;
  /** Concentration as read. */
  raw: number;
  /** Concentration that the metal made so far would give in the whole volume, had none been lost. */
  corrected: number;
}

/**
 * Corrected amounts, as concentration in the circuit's volume (L), at each sample in order of running hours.
 * @throws {RangeError} when the volume is not above zero or the samples are out of order.
 */
export function wearMetalAmounts(
  samples: readonly MetalSample[],
  events: readonly OilEvent[],
  volume: number,
): MetalAmount[] {
  if (!(volume > 0)) throw new RangeError("The volume must be above zero.");
  if (samples.some((s, i) => i > 0 && s.hours < samples[i - 1]!.hours))
    throw new RangeError("Samples must be in order of running hours.");
  let carried = 0;
  let before: MetalSample | null = null;
  return samples.map((sample) => {
    for (const event of events) {
      if (event.hours > sample.hours || (before && event.hours <= before.hours)) continue;
      const mean = before ? (before.concentration + sample.concentration) / 2 : sample.concentration;
      carried += ((event.lost ?? 0) * mean - (event.added ?? 0) * (event.newOil ?? 0)) / volume;
    }
    before = sample;
    return { hours: sample.hours, raw: sample.concentration, corrected: sample.concentration + carried };
  });
}
