/** A template as a circuit: for practice, for trials, for tests. */
import { machineTemplates, type TemplateId } from "../equipment/templates";
import { draftCircuit } from "./draft";
import type { Netlist } from "./netlist";

const FIGURES = { displacement: 45, speed: 1450, pressure: 180 };

/** The circuit of a template by usual figures, without points. */
export function templateNetlist(template: TemplateId): Netlist {
  const components = machineTemplates[template].components(FIGURES).map((c, i) => ({ ...c, id: `c${i}`, points: [] }));
  return draftCircuit({ workingPressure: FIGURES.pressure, components }).netlist;
}
