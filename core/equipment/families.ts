/** Readings in families, as a fleet is looked over: what speaks of wear, of control, of heat, of holding. */
import type { PointQuantityId } from "../units/quantities";

export const readingFamilies = {
  case: "Case drain",
  pressure: "Pressures, forces",
  flow: "Flow, times",
  inlet: "Inlet",
  temperature: "Temperatures",
  leakage: "Leakage",
  holding: "Holding",
  filter: "Filters",
  oil: "Oil",
} as const;

export type ReadingFamily = keyof typeof readingFamilies;
export const readingFamilyIds = Object.keys(readingFamilies) as ReadingFamily[];

/** Family of a point's quantity; "oil" belongs to circuits, not to points. */
export const familyOfQuantity: Record<PointQuantityId, Exclude<ReadingFamily, "oil">> = {
  caseDrainFlow: "case",
  pressure: "pressure",
  force: "pressure",
  torque: "pressure",
  flow: "flow",
  strokeTime: "flow",
  responseTime: "flow",
  vacuum: "inlet",
  temperature: "temperature",
  temperatureRise: "temperature",
  leakageFlow: "leakage",
  clearance: "leakage",
  weep: "leakage",
  creep: "holding",
  pilotMargin: "holding",
  pressureDrop: "filter",
};
