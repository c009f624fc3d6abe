/** What a practised case costs: hours of tests, parts that were renewed, and what was named put right, or put right in vain. */
import type { ElementKindId } from "../circuit/kinds";
import type { Netlist } from "../circuit/netlist";
import type { ComponentKind } from "../equipment/kinds";
import { hoursOf } from "../plan/options";
import { costsOfKind, usualCosts, usualHours } from "../plan/usual";
import type { Suspect } from "./case";
import { preparations } from "./knowledge/types";

/** The component of the register that an element would be; what is not listed costs as any other. */
const componentOf: Partial<Record<ElementKindId, ComponentKind>> = {
  fixedPump: "gearPump",
  compensatedPump: "axialPistonPump",
  closedLoopPump: "closedLoopPump",
  motor: "pistonMotor",
  cylinder: "cylinder",
  proportional: "proportionalValve",
  directional: "directionalValve",
  filter: "filter",
  accumulator: "accumulator",
};

/** What nobody renews on a guess: it is cleaned, or looked through. */
const NEVER: readonly ElementKindId[] = ["tank", "line", "throttle", "strainer"];

const kindOf = (netlist: Netlist, element: string | null) => {
  const kind = netlist.elements.find((e) => e.id === element)?.kind;
  return (kind && componentOf[kind]) ?? "other";
};

/** An entry among the tests of a run: an element that was renewed. */
const RENEWED = "renew:";
/**
 * The entry of an element that was renewed, among the tests of a run.
 * @param element id
 * @returns the entry
 * @example renewedIn(renewalOf("pump")) // "pump"
 */
export const renewalOf = (element: string): string => `${RENEWED}${element}`;
/**
 * The element that an entry renewed.
 * @param entry of a run
 * @returns its id; null: it is a test
 * @example renewedIn("filter.drop@f1") // null
 */
export const renewedIn = (entry: string): string | null =>
  entry.startsWith(RENEWED) ? entry.slice(RENEWED.length) : null;

/**
 * Elements that can be renewed on a guess, with what that takes.
 * @param netlist the diagram
 * @returns minutes, and money in the usual currency
 * @example renewable(circuitOf({ tank: ["tank"], pump: ["fixedPump"] }, [])) // [{ element: "pump", name: "pump", minutes: 320, cost: 1247 }]
 */
export function renewable(netlist: Netlist): { element: string; name: string; minutes: number; cost: number }[] {
  return netlist.elements
    .filter((e) => !NEVER.includes(e.kind))
    .map((e) => ({ element: e.id, name: e.name, ...renewalCost(netlist, e.id) }));
}

/** Minutes and money of renewing an element, made safe first. */
export function renewalCost(netlist: Netlist, element: string): { minutes: number; cost: number } {
  const kind = kindOf(netlist, element);
  const minutes = hoursOf(usualHours(kind)) * 60 + preparations.isolated.minutes;
  return { minutes, cost: moneyOf(minutes) + costsOfKind(kind, { part: null, failure: null }).part };
}

/** Money of so many minutes of a fitter. */
export const moneyOf = (minutes: number): number => (minutes / 60) * usualCosts.crewHour;

/** What acting on a suspect costs: its minutes, and its part where it asks for one. */
export function actCost(netlist: Netlist, { about, element }: Suspect): number {
  const part = about.act.part ? costsOfKind(kindOf(netlist, element), { part: null, failure: null }).part : 0;
  return moneyOf(about.act.minutes) + part;
}
