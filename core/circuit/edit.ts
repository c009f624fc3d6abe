/** Changes to a circuit that is being drawn, each giving a new netlist. What may not be is answered in words. */
import { elementKindOf } from "./draft";
import { elementKinds, type ElementKindId } from "./kinds";
import { whyNotLine } from "./lineData";
import { portKey, whyNotJoined, type LineData, type Netlist, type PortRef } from "./netlist";

export type Change = { ok: true; netlist: Netlist } | { ok: false; problem: string };

const done = (netlist: Netlist): Change => ({ ok: true, netlist });

/** Longest name of an element. */
export const LONGEST_NAME = 60;

/** Put a component in, with an id that is not taken. */
export function addElement(netlist: Netlist, kind: ElementKindId, name: string, id: string): Change {
  if (netlist.elements.some((e) => e.id === id)) return { ok: false, problem: "It is there already." };
  const called = name.trim().slice(0, LONGEST_NAME) || elementKinds[kind].label;
  return done({ ...netlist, elements: [...netlist.elements, { id, kind, name: called, componentId: null, data: {} }] });
}

/** Draw a component of the register; it keeps its own id. */
export function placeComponent(netlist: Netlist, component: { id: string; kind: string; name: string }): Change {
  const kind = elementKindOf(component);
  if (!kind) return { ok: false, problem: `There is no symbol for ${component.name}.` };
  const added = addElement(netlist, kind, component.name, component.id);
  if (!added.ok) return added;
  const elements = added.netlist.elements.map((e) => (e.id === component.id ? { ...e, componentId: component.id } : e));
  return done({ ...added.netlist, elements });
}

/** Take a component out with its lines; points that were read there are no longer in the drawing. */
export function removeElement(netlist: Netlist, id: string): Netlist {
  return {
    elements: netlist.elements.filter((e) => e.id !== id),
    lines: netlist.lines.filter((l) => l.from.element !== id && l.to.element !== id),
    gauges: netlist.gauges.filter((g) => g.element !== id),
  };
}

/** Join two ports by a line. */
export function joinPorts(netlist: Netlist, from: PortRef, to: PortRef): Change {
  const problem = whyNotJoined(netlist, from, to);
  if (problem) return { ok: false, problem };
  const taken = new Set(netlist.lines.map((l) => l.id));
  let n = netlist.lines.length;
  while (taken.has(`l${n}`)) n++;
  return done({ ...netlist, lines: [...netlist.lines, { id: `l${n}`, from, to, data: null }] });
}

/** Take a line out. */
export function removeLine(netlist: Netlist, id: string): Netlist {
  return { ...netlist, lines: netlist.lines.filter((l) => l.id !== id) };
}

/**
 * State what is known of a hose or a pipe; null: nothing.
 * @param now epoch ms
 */
export function stateLine(netlist: Netlist, id: string, data: LineData | null, now: number): Change {
  if (!netlist.lines.some((l) => l.id === id)) return { ok: false, problem: "That line is gone." };
  const problem = data && whyNotLine(data, now);
  if (problem) return { ok: false, problem };
  return done({ ...netlist, lines: netlist.lines.map((l) => (l.id === id ? { ...l, data } : l)) });
}

/** Name a component, or state one of its figures; null: the usual one again. */
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

/** Ports of a circuit, for choosing: element by element, with how many lines end at each. */
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
