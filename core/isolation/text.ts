/** Faults in words. */
import { elementKinds } from "../circuit/kinds";
import type { Netlist } from "../circuit/netlist";
import type { FaultAt } from "./explain";

const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

/** One fault, or two at once: "Relief valve: set low, 23 bar too low". */
export function faultsText(netlist: Netlist, faults: readonly FaultAt[]): string {
  return faults
    .map(({ element, fault, severity }) => {
      const e = netlist.elements.find((x) => x.id === element);
      const f = e && elementKinds[e.kind].faults[fault];
      return e && f ? `${e.name}: ${lower(f.label)}, ${f.says(severity)}` : fault;
    })
    .join("; and ");
}
