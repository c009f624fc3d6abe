/** Changes to a circuit that is being drawn, each giving a new netlist. What may not be is answered in words. */
import { elementKindOf } from "./draft";
import { elementKinds, type ElementKindId } from "./kinds";
import { whyNotLine } from "./lineData";
import { portKey, whyNotJoined, type LineData, type Netlist, type PortRef } from "./netlist";

export type Change = { ok: true; netlist: Netlist } | { ok: false; problem: string };

const done = (netlist: Netlist): Change => ({ ok: true, netlist });

/** Longest name of an element. */
export const LONGEST_NAME = 60;

/**
 * Put a component in.
 * @param netlist the circuit
 * @param kind of the element
 * @param name cut at 60 letters; empty: that of the kind
 * @param id its own
 * @returns the new netlist, or why not: the id is taken
 * @example addElement(circuitOf({}, []), "tank", "", "t").netlist.elements[0].name // "Reservoir"
 */
export function addElement(netlist: Netlist, kind: ElementKindId, name: string, id: string): Change {
  if (netlist.elements.some((e) => e.id === id)) return { ok: false, problem: "It is there already." };
  const called = name.trim().slice(0, LONGEST_NAME) || elementKinds[kind].label;
  return done({ ...netlist, elements: [...netlist.elements, { id, kind, name: called, componentId: null, data: {} }] });
}

/**
 * Draw a component of the register; it keeps its own id.
 * @param netlist the circuit
 * @param component of the register
 * @returns the new netlist, or why not: there is no symbol, or it is there already
 * @example placeComponent(circuitOf({}, []), { id: "c1", kind: "gearPump", name: "Pump A" }).netlist.elements[0].componentId // "c1"
 */
export function placeComponent(netlist: Netlist, component: { id: string; kind: string; name: string }): Change {
  const kind = elementKindOf(component);
  if (!kind) return { ok: false, problem: `There is no symbol for ${component.name}.` };
  const added = addElement(netlist, kind, component.name, component.id);
  if (!added.ok) return added;
  const elements = added.netlist.elements.map((e) => (e.id === component.id ? { ...e, componentId: component.id } : e));
  return done({ ...added.netlist, elements });
}

/**
 * Say that a drawn symbol is a component of the register: it takes its id and name, and keeps its lines and figures.
 * @param netlist the circuit
 * @param id of the element
 * @param component of the register
 * @returns the new netlist, or why not: another kind of part, or it is drawn already
 * @example
 * const circuit = circuitOf({ t: ["tank"], p: ["fixedPump"] }, ["p.in - t.T"]);
 * tieElement(circuit, "p", { id: "c1", kind: "gearPump", name: "Pump A" }).netlist.lines[0].from // { element: "c1", port: "in" }
 */
export function tieElement(
  netlist: Netlist,
  id: string,
  component: { id: string; kind: string; name: string },
): Change {
  const element = netlist.elements.find((e) => e.id === id);
  if (!element) return { ok: false, problem: "That component is gone." };
  if (netlist.elements.some((e) => e.id === component.id))
    return { ok: false, problem: `${component.name} is drawn already.` };
  if (elementKindOf(component) !== element.kind)
    return { ok: false, problem: `${component.name} is another kind of part than ${element.name}.` };
  const moved = (port: PortRef) => (port.element === id ? { ...port, element: component.id } : port);
  return done({
    elements: netlist.elements.map((e) =>
      e.id === id ? { ...e, id: component.id, componentId: component.id, name: component.name } : e,
    ),
    lines: netlist.lines.map((l) => ({ ...l, from: moved(l.from), to: moved(l.to) })),
    gauges: netlist.gauges.map((g) => (g.element === id ? { ...g, element: component.id } : g)),
  });
}

/**
 * Take a component out with its lines; points that were read there are no longer in the drawing.
 * @param netlist the circuit
 * @param id of the element
 * @returns the new netlist
 * @example removeElement(circuitOf({ t: ["tank"], p: ["fixedPump"] }, ["p.in - t.T"]), "p").lines // []
 */
export function removeElement(netlist: Netlist, id: string): Netlist {
  return {
    elements: netlist.elements.filter((e) => e.id !== id),
    lines: netlist.lines.filter((l) => l.from.element !== id && l.to.element !== id),
    gauges: netlist.gauges.filter((g) => g.element !== id),
  };
}

/**
 * Join two ports by a line.
 * @param netlist the circuit
 * @param from a port
 * @param to another one
 * @returns the new netlist, or why they may not be joined
 * @example joinPorts(circuitOf({ t: ["tank"] }, []), { element: "t", port: "T" }, { element: "t", port: "T" }) // { ok: false }
 */
export function joinPorts(netlist: Netlist, from: PortRef, to: PortRef): Change {
  const problem = whyNotJoined(netlist, from, to);
  if (problem) return { ok: false, problem };
  const taken = new Set(netlist.lines.map((l) => l.id));
  let n = netlist.lines.length;
  while (taken.has(`l${n}`)) n++;
  return done({ ...netlist, lines: [...netlist.lines, { id: `l${n}`, from, to, data: null }] });
}

/**
 * Take a line out.
 * @param netlist the circuit
 * @param id of the line
 * @returns the new netlist
 * @example removeLine(circuitOf({ t: ["tank"], p: ["fixedPump"] }, ["p.in - t.T"]), "l0-0").lines // []
 */
export function removeLine(netlist: Netlist, id: string): Netlist {
  return { ...netlist, lines: netlist.lines.filter((l) => l.id !== id) };
}

/**
 * State what is known of a hose or a pipe.
 * @param netlist the circuit
 * @param id of the line
 * @param data bar, mm, m; null: nothing is known any more
 * @param now epoch ms
 * @returns the new netlist, or what cannot be
 * @example
 * const circuit = circuitOf({ t: ["tank"], p: ["fixedPump"] }, ["p.in - t.T"]);
 * stateLine(circuit, "l0-0", { made: "hose", rating: 1, bore: null, length: null, fittedOn: "", tag: "" }, 0).ok // false
 */
export function stateLine(netlist: Netlist, id: string, data: LineData | null, now: number): Change {
  if (!netlist.lines.some((l) => l.id === id)) return { ok: false, problem: "That line is gone." };
  const problem = data && whyNotLine(data, now);
  if (problem) return { ok: false, problem };
  return done({ ...netlist, lines: netlist.lines.map((l) => (l.id === id ? { ...l, data } : l)) });
}

/**
 * Name a component, or state one of its figures.
 * @param netlist the circuit
 * @param id of the element
 * @param change name, or a figure in the unit of its kind; null: the usual one again
 * @param change.name new name, cut at 60 letters
 * @param change.figure which figure, and its value
 * @returns the new netlist, or what cannot be
 * @example
 * const circuit = circuitOf({ p: ["fixedPump"] }, []);
 * changeElement(circuit, "p", { figure: { name: "displacement", value: 63 } }).netlist.elements[0].data // { displacement: 63 }
 */
export function changeElement(
  netlist: Netlist,
  id: string,
  change: { name?: string; figure?: { name: string; value: number | null } },
): Change {
  const element = netlist.elements.find((e) => e.id === id);
  if (!element) return { ok: false, problem: "That component is gone." };
  const name = change.name === undefined ? element.name : change.name.slice(0, LONGEST_NAME);
  const data = { ...element.data };
  if (change.figure) {
    const known = elementKinds[element.kind].data[change.figure.name];
    const { value } = change.figure;
    if (!known) return { ok: false, problem: `${element.name} has no such figure.` };
    if (value === null) delete data[change.figure.name];
    else if (!(value >= known.least && value <= known.greatest))
      return {
        ok: false,
        problem: `${known.label}: ${value} lies outside ${known.least} to ${known.greatest} ${known.unit}. Is the unit right?`,
      };
    else data[change.figure.name] = value;
  }
  return done({ ...netlist, elements: netlist.elements.map((e) => (e.id === id ? { ...e, name, data } : e)) });
}

/**
 * Ports of a circuit, for choosing.
 * @param netlist the circuit
 * @returns element by element, with how many lines end at each
 * @example portsOf(circuitOf({ t: ["tank"] }, [])) // [{ element: "t", port: "T", label: "t, connection", lines: 0 }]
 */
export function portsOf(netlist: Netlist): (PortRef & { label: string; lines: number })[] {
  const count = new Map<string, number>();
  for (const l of netlist.lines)
    for (const end of [l.from, l.to]) count.set(portKey(end), (count.get(portKey(end)) ?? 0) + 1);
  return netlist.elements.flatMap((e) =>
    Object.entries(elementKinds[e.kind].ports).map(([port, { label }]) => {
      const ref = { element: e.id, port };
      return { ...ref, label: `${e.name}, ${label}`, lines: count.get(portKey(ref)) ?? 0 };
    }),
  );
}
