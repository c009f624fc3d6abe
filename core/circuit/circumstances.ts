/** Under what a circuit is solved, and its figures as they stand then: stated, fitted, or the usual one of the kind. */
import type { Conditions } from "./assembly";
import { elementKinds } from "./kinds";
import type { CircuitElement } from "./netlist";

export interface Circumstances {
  /** Commands while it works; at rest all are 0. */
  commands: Record<string, number>;
  data?: Conditions["data"];
  faults?: Conditions["faults"];
  /** Dynamic viscosity over that of VG 46 at 50 °C. */
  viscosity?: number;
  density?: number;
}

/** A figure of an element as it stands under these circumstances. */
export function figureOf(element: CircuitElement, name: string, { data }: Circumstances): number {
  return data?.[element.id]?.[name] ?? element.data[name] ?? elementKinds[element.kind].data[name]?.usual ?? 0;
}
