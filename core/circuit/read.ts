/** A netlist from outside: what a form or a file sends is checked before anything is done with it. */
import { elementKinds, type ElementKindId } from "./kinds";
import {
  MOST_ELEMENTS,
  type CircuitElement,
  type CircuitLine,
  type LineData,
  type Netlist,
  type PortRef,
} from "./netlist";
import { LONGEST_NAME } from "./edit";
import { whyNotLine } from "./lineData";

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);
const isId = (value: unknown): value is string => typeof value === "string" && /^[\w-]{1,60}$/.test(value);

function elementOf(value: unknown): CircuitElement | null {
  if (!isRecord(value) || !isId(value.id) || typeof value.kind !== "string" || !Object.hasOwn(elementKinds, value.kind))
    return null;
  if (typeof value.name !== "string" || (value.componentId !== null && !isId(value.componentId))) return null;
  if (!isRecord(value.data)) return null;
  const kind = elementKinds[value.kind as ElementKindId];
  const data: Record<string, number> = {};
  for (const [name, figure] of Object.entries(value.data)) {
    if (!Object.hasOwn(kind.data, name) || typeof figure !== "number" || !Number.isFinite(figure)) return null;
    data[name] = figure;
  }
  return {
    id: value.id,
    kind: value.kind as ElementKindId,
    name: value.name.trim().slice(0, LONGEST_NAME) || kind.label,
    componentId: value.componentId,
    data,
  };
}

const refOf = (value: unknown): PortRef | null =>
  isRecord(value) && isId(value.element) && isId(value.port) ? { element: value.element, port: value.port } : null;

/** What is known of a hose or a pipe: its ranges are those of the drawing board. */
function lineDataOf(value: unknown): LineData | "wrong" {
  if (!isRecord(value) || (value.made !== "hose" && value.made !== "pipe")) return "wrong";
  const figure = (v: unknown) => (v === null || (typeof v === "number" && v > 0 && Number.isFinite(v)) ? v : undefined);
  const [rating, bore, length] = [figure(value.rating), figure(value.bore), figure(value.length)];
  if (rating === undefined || bore === undefined || length === undefined) return "wrong";
  const { fittedOn, tag } = value;
  if (typeof fittedOn !== "string" || !/^(\d{4}-\d{2}-\d{2})?$/.test(fittedOn)) return "wrong";
  if (typeof tag !== "string") return "wrong";
  const data: LineData = { made: value.made, rating, bore, length, fittedOn, tag: tag.slice(0, 40) };
  // when it was fitted is held against the present where the line is stated; here only whether it is a date
  return whyNotLine(data, Infinity) === undefined ? data : "wrong";
}

function lineOf(value: unknown): CircuitLine | null {
  if (!isRecord(value) || !isId(value.id)) return null;
  const [from, to] = [refOf(value.from), refOf(value.to)];
  const data = value.data === null || value.data === undefined ? null : lineDataOf(value.data);
  return from && to && data !== "wrong" ? { id: value.id, from, to, data } : null;
}

/**
 * Read a netlist that a browser or a device sent. Gauges are left out: where a point sits follows from its component.
 * @param text JSON
 * @returns the netlist, or what is wrong with it in words
 * @example readNetlist(JSON.stringify(circuitOf({ t: ["tank"] }, []))) // { elements: [{ id: "t", kind: "tank" }], lines: [], gauges: [] }
 * @example readNetlist("no drawing") // "The drawing cannot be read: load the page again."
 */
export function readNetlist(text: string): Netlist | string {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return "The drawing cannot be read: load the page again.";
  }
  if (!isRecord(value) || !Array.isArray(value.elements) || !Array.isArray(value.lines))
    return "The drawing cannot be read: load the page again.";
  if (value.elements.length > MOST_ELEMENTS || value.lines.length > 4 * MOST_ELEMENTS)
    return `One circuit holds at most ${MOST_ELEMENTS} components. Split it.`;
  const elements = value.elements.map(elementOf);
  const lines = value.lines.map(lineOf);
  if (elements.includes(null) || lines.includes(null))
    return "A component or a line of the drawing is not as it should be: load the page again.";
  return { elements: elements as CircuitElement[], lines: lines as CircuitLine[], gauges: [] };
}
