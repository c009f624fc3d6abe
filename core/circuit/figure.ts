/** Figures of elements as they stand: stated, fitted, or the usual one of the kind. */
import type { Circumstances } from "./gauges";
import { elementKinds } from "./kinds";
import type { CircuitElement } from "./netlist";

/** A figure of an element as it stands under these circumstances. */
export function figureOf(element: CircuitElement, name: string, { data }: Circumstances): number {
  return data?.[element.id]?.[name] ?? element.data[name] ?? elementKinds[element.kind].data[name]?.usual ?? 0;
}
