/** How long parts last, by what is read of them, until the plant's own lives tell. */
import { defaultPrior, type WearPrior } from "../forecast/prior";
import type { PointQuantityId } from "../units/quantities";

/** Running hours to the limit, of the order of (grade): a filter element lasts weeks or months, not the years of a pump. */
const USUAL_HOURS: Partial<Record<PointQuantityId, number>> = { pressureDrop: 2_000 };

/**
 * What is expected of a life before any peer is known: the start of `learnPrior`.
 * @param quantity that is read of it
 * @returns the weak default, with the usual lifetime of such a part
 * @throws {never}
 * @example usualPrior("pressureDrop").timeScale // 2000
 * @example usualPrior("caseDrainFlow").timeScale // 16000
 */
export function usualPrior(quantity: PointQuantityId): WearPrior {
  const hours = USUAL_HOURS[quantity];
  return hours === undefined ? defaultPrior : { ...defaultPrior, timeScale: hours };
}
