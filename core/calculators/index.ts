/** All calculations of the Calculators place, in the order in which they are listed. */
import { cleanlinessCalculators } from "./cleanliness";
import { cylinderCalculators } from "./cylinder";
import { filtrationCalculators } from "./filtration";
import { fluidCalculators } from "./fluid";
import { heatCalculators } from "./heat";
import { instrumentCalculators } from "./instrument";
import { livesCalculators } from "./lives";
import { pumpCalculators } from "./pump";
import { settingsCalculators } from "./settings";
import { statisticsCalculators } from "./statistics";
import type { Calculator } from "./types";
import { valveCalculators } from "./valve";

export const calculators: readonly Calculator[] = [
  ...pumpCalculators,
  ...settingsCalculators,
  ...valveCalculators,
  ...cylinderCalculators,
  ...fluidCalculators,
  ...cleanlinessCalculators,
  ...filtrationCalculators,
  ...heatCalculators,
  ...instrumentCalculators,
  ...statisticsCalculators,
  ...livesCalculators,
];

/**
 * A calculation of the Calculators place.
 * @param id as in its address
 * @returns the calculation; undefined: there is none
 * @example calculatorOf("nothing") // undefined
 * @example calculatorOf(calculators[0].id) === calculators[0] // true
 */
export function calculatorOf(id: string): Calculator | undefined {
  return calculators.find((c) => c.id === id);
}
