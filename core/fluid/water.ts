/**
 * Water in oil: dissolved up to a saturation that grows with temperature, log10 S[ppm] = A − B/T[K]. A and B
 * are the fluid's own data, from its maker.
 */
export interface WaterSolubility {
  a: number;
  /** K */
  b: number;
}

/**
 * Solubility line of a fluid through two of its saturation values.
 * @param one a saturation value: ppm by mass above 0, at °C
 * @param two another one, at another temperature; the warmer holds more
 * @returns the constants A and B of log10 S = A − B/T
 * @throws {RangeError} when the values do not grow with temperature
 * @example solubilityFrom({ ppm: 100, temperature: 20 }, { ppm: 600, temperature: 80 }) // { a: 6.58, b: 1343 }
 */
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

/**
 * Water that a fluid can dissolve.
 * @param temperature of the oil, −40 to 150 °C
 * @param solubility the fluid's constants
 * @returns ppm by mass; water beyond it is free
 * @throws {RangeError} for a temperature outside that range
 * @example waterSaturation(20, solubilityFrom({ ppm: 100, temperature: 20 }, { ppm: 600, temperature: 80 })) // 100
 */
export function waterSaturation(temperature: number, { a, b }: WaterSolubility): number {
  if (!(temperature >= -40 && temperature <= 150)) throw new RangeError("The temperature lies between −40 and 150 °C.");
  return 10 ** (a - b / (temperature + 273.15));
}

/**
 * Water content against saturation.
 * @param ppm water by mass, 0 or more
 * @param temperature of the oil, −40 to 150 °C
 * @param solubility the fluid's constants
 * @returns percent of saturation; above 100: free water
 * @throws {RangeError} for a negative content or a temperature outside that range
 * @example waterShare(50, 20, solubilityFrom({ ppm: 100, temperature: 20 }, { ppm: 600, temperature: 80 })) // 50
 */
export function waterShare(ppm: number, temperature: number, solubility: WaterSolubility): number {
  if (!(ppm >= 0)) throw new RangeError("Water cannot be below zero.");
  return (100 * ppm) / waterSaturation(temperature, solubility);
}
