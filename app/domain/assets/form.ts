/** The records of the fleet that are edited by hand: their fields and what is allowed in them. */
import { boolean, object, string } from "yup";
import { quantityField } from "~/platform/validate";
import { circuitSpec, fluidSpec, machineSpec, siteSpec, stopSpec } from "./placeSpecs";
import { componentSpec, pointSpec } from "./partSpecs";
import type { RecordSpec } from "./recordSpec";

export const recordKinds = ["site", "machine", "circuit", "component", "point", "fluid", "stop"] as const;
export type RecordKind = (typeof recordKinds)[number];

export function isRecordKind(text: string | undefined): text is RecordKind {
  return recordKinds.includes(text as RecordKind);
}

export const recordSpecs: Record<RecordKind, RecordSpec> = {
  site: siteSpec,
  machine: machineSpec,
  circuit: circuitSpec,
  component: componentSpec,
  point: pointSpec,
  fluid: fluidSpec,
  stop: stopSpec,
};

export const newLifeSchema = object({
  startedAt: string().trim().default(""),
  startHours: quantityField("runningHours"),
  serial: string().trim().max(60, "At most 60 characters.").default(""),
  knownWhenNew: boolean().default(false),
});
