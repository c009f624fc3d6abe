/** A drawn circuit in a file: components of the register stand under their names, since ids are a database's own. */
import type { ElementKindId } from "./kinds";
import type { LineData, Netlist, PortRef } from "./netlist";

export interface FiledElement {
  id: string;
  kind: ElementKindId;
  name: string;
  /** Name of the component of the same circuit that it stands for; left out: none. */
  component?: string;
  data?: Record<string, number>;
}

export interface FiledCircuit {
  drawnBy: string;
  elements: FiledElement[];
  lines: { from: PortRef; to: PortRef; data?: LineData | null }[];
}

/**
 * A netlist as a file holds it: ids are a database's own, so components of the register stand under their names.
 * @param netlist the circuit
 * @param drawnBy the person
 * @param nameOf a component of the register; undefined: gone, its element then stands for none
 * @returns elements and lines under short ids of the file's own
 * @example
 * filedCircuit(circuitOf({ t: ["tank", {}, "Reservoir"] }, []), "M. Ellery", () => undefined)
 * // { drawnBy: "M. Ellery", elements: [{ id: "e0", kind: "tank", name: "Reservoir" }], lines: [] }
 */
export function filedCircuit(
  netlist: Netlist,
  drawnBy: string,
  nameOf: (componentId: string) => string | undefined,
): FiledCircuit {
  // short ids of the file's own: those of components are long, and mean nothing elsewhere
  const ids = new Map(netlist.elements.map((e, i) => [e.id, `e${i}`]));
  const refOf = (r: PortRef): PortRef => ({ element: ids.get(r.element) ?? r.element, port: r.port });
  return {
    drawnBy,
    elements: netlist.elements.map((e) => {
      const component = e.componentId === null ? undefined : nameOf(e.componentId);
      return {
        id: ids.get(e.id)!,
        kind: e.kind,
        name: e.name,
        ...(component !== undefined && { component }),
        ...(Object.keys(e.data).length > 0 && { data: e.data }),
      };
    }),
    lines: netlist.lines.map((l) => ({ from: refOf(l.from), to: refOf(l.to), ...(l.data && { data: l.data }) })),
  };
}

/**
 * The netlist of a filed circuit.
 * @param file as read
 * @param idOf the component of a name in this database
 * @returns without gauges: where a point sits follows from its component
 * @example
 * const file = { drawnBy: "", elements: [{ id: "e0", kind: "tank", name: "Reservoir", component: "Reservoir" }], lines: [] };
 * netlistOfFile(file, () => "c1").elements // [{ id: "c1", kind: "tank", name: "Reservoir", componentId: "c1" }]
 * netlistOfFile(file, () => undefined).elements // [{ id: "e0", kind: "tank", name: "Reservoir", componentId: null }]
 */
export function netlistOfFile(file: FiledCircuit, idOf: (component: string) => string | undefined): Netlist {
  const ids = new Map(
    file.elements.map((e) => [e.id, (e.component !== undefined && idOf(e.component)) || e.id] as const),
  );
  const refOf = (r: PortRef): PortRef => ({ element: ids.get(r.element) ?? r.element, port: r.port });
  return {
    elements: file.elements.map((e) => {
      const componentId = (e.component !== undefined && idOf(e.component)) || null;
      return { id: ids.get(e.id)!, kind: e.kind, name: e.name, componentId, data: e.data ?? {} };
    }),
    lines: file.lines.map((l, i) => ({ id: `l${i}`, from: refOf(l.from), to: refOf(l.to), data: l.data ?? null })),
    gauges: [],
  };
}
