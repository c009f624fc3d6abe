/** How long parts last, by what they are and what is read of them, until the plant's own lives tell. */
import type { ComponentKind } from "../equipment/kinds";
import { defaultPrior, type WearPrior } from "../forecast/prior";
import type { PointQuantityId } from "../units/quantities";

/** Running hours: to the limit, and between damage that sets in unseen. */
interface Lasting {
  hours: number;
  damage: number;
}
const PUMP: Lasting = { hours: defaultPrior.timeScale, damage: defaultPrior.damageHours };
/** Bores and seats wear slowly, and little in them breaks. */
const VALVE: Lasting = { hours: 25_000, damage: 40_000 };

/** Of the order of (grade): no standard states how long a part of any plant lasts. */
const USUAL: Readonly<Record<ComponentKind, Lasting>> = {
  axialPistonPump: PUMP,
  closedLoopPump: PUMP,
  pistonMotor: PUMP,
  gearPump: { hours: 12_000, damage: 16_000 },
  flushingValve: VALVE,
  reliefValve: VALVE,
  unloaderValve: VALVE,
  reducingValve: VALVE,
  proportionalValve: VALVE,
  directionalValve: VALVE,
  loadHoldingValve: VALVE,
  // its seals
  cylinder: { hours: 12_000, damage: 16_000 },
  // an element lasts weeks or months
  filter: { hours: 2_000, damage: 16_000 },
  // its gas
  accumulator: { hours: 8_000, damage: 16_000 },
  other: PUMP,
};

/**
 * What is expected of a life before any peer is known: the start of `learnPrior`.
 * @param quantity that is read of it: a pressure drop is an element's, whatever part it is filed under
 * @param kind of component
 * @returns the weak default, with how long such a part usually lasts and how seldom damage sets in
 * @throws {never}
 * @example usualPrior("pressureDrop").timeScale // 2000
 * @example usualPrior("caseDrainFlow", "axialPistonPump").timeScale // 16000
 * @example usualPrior("leakageFlow", "proportionalValve").timeScale // 25000
 */
export function usualPrior(quantity: PointQuantityId, kind: ComponentKind = "other"): WearPrior {
  const { hours, damage } = USUAL[quantity === "pressureDrop" ? "filter" : kind];
  return { ...defaultPrior, timeScale: hours, damageHours: damage };
}
