/** Short hand to write a circuit down: elements by id, lines as "a.P - b.T". */
import type { ElementKindId } from "./kinds";
import type { CircuitElement, Netlist, PortRef } from "./netlist";

const refOf = (text: string): PortRef => {
  const [element, port] = text.trim().split(".");
  return { element: element!, port: port! };
};

/**
 * A netlist from a table of elements and a list of joints.
 * @param elements by id: kind, figures that differ from the usual, name where it is not the id
 * @param joints "pump.out - relief.P - valve.P": a chain joins all its ports
 * @example circuitOf({ t: ["tank"], p: ["fixedPump"] }, ["p.in - t.T"]).lines.length // 1
 */
export function circuitOf(
  elements: Record<string, readonly [kind: ElementKindId, data?: Record<string, number>, name?: string]>,
  joints: readonly string[],
): Netlist {
  const lines = joints.flatMap((chain, c) => {
    const ends = chain.split(/\s-\s/).map(refOf);
    return ends.slice(1).map((to, i) => ({ id: `l${c}-${i}`, from: ends[0]!, to, data: null }));
  });
  return {
    elements: Object.entries(elements).map(([id, [kind, data = {}, name = id]]): CircuitElement => ({
      id,
      kind,
      name,
      componentId: null,
      data,
    })),
    lines,
    gauges: [],
  };
}
