/** The drawing of a circuit that is nobody's machine: a template's, drawn once a server and kept. */
import type { Drawing, Netlist } from "@core";
import { drawInThread } from "./diagram.server";

const drawn = new Map<string, Promise<Drawing>>();

/** @param name of the template; the same name is the same circuit */
export function drawingOf(name: string, netlist: Netlist): Promise<Drawing> {
  const there = drawn.get(name);
  if (there) return there;
  const made = drawInThread({ workingPressure: null, components: [], netlist, readings: [], oil: {} }).then(
    (result) => result.drawing,
  );
  // one that failed is tried again
  made.catch(() => drawn.delete(name));
  drawn.set(name, made);
  return made;
}
