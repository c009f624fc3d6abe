/**
 * Water in oil: dissolved up to a saturation that grows with temperature, log10 S[ppm] = A − B/T[K]. A and B
 * are the fluid's own data, from its maker.
 */
export interface WaterSolubility {
  a: number;
  /** K */
  b: number;
}

/** Solubility through two saturation values (ppm at °C). @throws RangeError when they do not grow with temperature. */
export function solubilityFrom(
  one: { ppm: number; temperature: number },
  two: { ppm: number; temperature: number },
): WaterSolubility {
  const [low, high] = one.temperature < two.temperature ? [one, two] : [two, one];
  if (!(low.ppm > 0) || !(high.ppm > low.ppm) || !(high.temperature > low.temperature))
    throw new RangeError("Two saturation values are needed, the warmer one larger.");
  const b = Math.log10(high.ppm / low.ppm) / (1 / (low.temperature + 273.15) - 1 / (high.temperature + 273.15));
  return { a: Math.log10(low.ppm) + b / (low.temperature + 273.15), b };
}

/** Water that the fluid can dissolve at a temperature in °C, ppm by mass. */
export function waterSaturation(temperature: number, { a, b }: WaterSolubility): number {
  if (!(temperature >= -40 && temperature <= 150)) throw new RangeError("The temperature lies between −40 and 150 °C.");
  return 10 ** (a - b / (temperature + 273.15));
}

/** Share of saturation in percent; above 100: free water. */
export function waterShare(ppm: number, temperature: number, solubility: WaterSolubility): number {
  if (!(ppm >= 0)) throw new RangeError("Water cannot be below zero.");
  return (100 * ppm) / waterSaturation(temperature, solubility);
}
