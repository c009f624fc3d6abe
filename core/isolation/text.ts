/** Faults, and what they ask for, in words. */
import { elementKinds } from "../circuit/kinds";
import type { Netlist } from "../circuit/netlist";
import type { FaultAt } from "./explain";
import type { Act } from "./knowledge/types";

/** With a small first letter, inside a sentence. */
export const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

/**
 * One fault, or two at once, in words.
 * @param netlist the diagram, for the names
 * @param faults each with its severity in the fault's own measure
 * @returns "Relief valve: set low, 23 bar too low"; a fault that the diagram does not have by its id
 * @example
 * const circuit = circuitOf({ relief: ["relief", {}, "Relief valve"] }, []);
 * faultsText(circuit, [{ element: "relief", fault: "setLow", severity: 23 }]) // "Relief valve: set low, 23 bar too low"
 */
export function faultsText(netlist: Netlist, faults: readonly FaultAt[]): string {
  return faults
    .map(({ element, fault, severity }) => {
      const e = netlist.elements.find((x) => x.id === element);
      const f = e && elementKinds[e.kind].faults[fault];
      return e && f ? `${e.name}: ${lower(f.label)}, ${f.says(severity)}` : fault;
    })
    .join("; and ");
}

/**
 * What an act takes, in words.
 * @param act from the knowledge: minutes, whether it asks for a part and for a stop
 * @returns a sentence
 * @example actText({ text: "Set it back", minutes: 20, part: false, stop: false }) // "Set it back: about 20 min, no part, no stop."
 */
export const actText = ({ text, minutes, part, stop }: Act): string =>
  `${text}: about ${minutes} min${part ? ", with a part" : ", no part"}${stop ? ", the machine stopped" : ", no stop"}.`;
