/** The caution that belongs to taking a reading of a quantity. The maker's manual comes first. */
import type { PointQuantityId } from "../units/quantities";

const oil = "Oil under pressure pierces skin: never feel for a leak with the hand, use card.";

const own: Partial<Record<PointQuantityId, string>> = {
  caseDrainFlow: `${oil} Never plug a case drain; the case line stays open to tank.`,
  leakageFlow: `${oil} Hot oil.`,
  flow: `${oil} Never close a pump's outlet without a relief path and a time limit.`,
  pressure: `${oil} The gauge must stand the greatest pressure that can come.`,
  pilotMargin: "Prop the load before a line is opened. Release stored pressure and prove zero at a gauge.",
  creep: "Nobody under the load. Prop it before a line is opened.",
};

/**
 * What to mind at the machine while a quantity is read; the manufacturer's manual comes first.
 * @param quantity that is read there
 * @returns a sentence or two
 * @example cautionFor("temperature") // "Hot surfaces and moving parts: keep clear of both while reading."
 */
export function cautionFor(quantity: PointQuantityId): string {
  return own[quantity] ?? "Hot surfaces and moving parts: keep clear of both while reading.";
}
