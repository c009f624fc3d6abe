/**
 * Water in oil: dissolved up to a saturation that grows with temperature, log10 S[ppm] = A − B/T[K]. A and B
 * are the fluid's own data, from its maker.
 */
export interface WaterSolubility {
  a: number;
  /** K */
  b: number;
}

/** IEC 60422 for unused mineral transformer oil (memory): 55 mg/kg at 20 °C, 243 at 60 °C. */
const transformerOil: WaterSolubility = { a: 7.0895, b: 1567 };
/** How many times as much other classes hold (common practice): hydraulic mineral oils two to four times, esters ten and more. */
const classFactor: Partial<Record<string, number>> = { mineral: 3, hfd: 3, ester: 12 };

/**
 * Water that a class of fluid dissolves, where its maker's own figures are not at hand; known to a factor of about 1.5.
 * @param type class of the fluid
 * @returns constants of log10 S = A − B/T; null: it is mixed with water by nature
 * @example Math.round(waterSaturation(20, classSolubility("mineral"))) // 166
 * @example classSolubility("hfc") // null
 */
export function classSolubility(type: string): WaterSolubility | null {
  const factor = classFactor[type];
  return factor === undefined ? null : { a: transformerOil.a + Math.log10(factor), b: transformerOil.b };
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
