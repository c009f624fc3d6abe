/** A circuit while it is drawn from a list of components: what stands on it, and where the points of each component sit. */
import type { ComponentKind } from "../equipment/kinds";
import type { PointQuantityId } from "../units/quantities";
import type { ElementKindId } from "./kinds";
import type { CircuitElement, Gauge, Netlist, PortRef } from "./netlist";
import { sizedFigures } from "./sized";

export interface DraftComponent {
  id: string;
  kind: ComponentKind | string;
  name: string;
  displacement: number | null;
  speed: number | null;
  points: readonly { id: string; name: string; quantity: PointQuantityId }[];
}

export interface DraftCircuit {
  workingPressure: number | null;
  components: readonly DraftComponent[];
}

export interface Draft {
  netlist: Netlist;
  /** What was assumed, in words. */
  assumed: string[];
}

/** Share of the working pressure that the load takes at full stroke; the rest is lost in valves and lines. */
export const LOAD_SHARE = 0.9;
/** A relief valve is set so far above the working pressure, bar. */
export const RELIEF_ABOVE = 35;

/** What a circuit is drawn on. Ports are written "element.port". */
export interface DraftBoard extends Draft {
  elements: CircuitElement[];
  /** Times the usual flow that its parts are sized for. */
  size: number;
  /** Components of these kinds, in their order. */
  of(...kinds: string[]): DraftComponent[];
  /** Put an element on it, with the points of its component; its id. */
  add(kind: ElementKindId, name: string, data?: Record<string, number>, from?: DraftComponent): string;
  join(a: string, ...others: string[]): void;
}

/** An empty board for these components, parts to be sized for so many times the usual flow. */
export function draftBoard(components: readonly DraftComponent[], size: number): DraftBoard {
  const netlist: Netlist = { elements: [], lines: [], gauges: [] };
  const { elements, lines, gauges } = netlist;
  return {
    netlist,
    elements,
    size,
    assumed: [],
    of: (...kinds) => components.filter((c) => kinds.includes(c.kind)),
    add: (kind, name, data = {}, from) => {
      const id = from?.id ?? `${kind}-${elements.length}`;
      elements.push({ id, kind, name, componentId: from?.id ?? null, data: { ...sizedFigures(kind, size), ...data } });
      if (from) gauges.push(...gaugesOf(from, kind));
      return id;
    },
    join: (a, ...others) => {
      for (const b of others) lines.push({ id: `l${lines.length}`, from: refOf(a), to: refOf(b), data: null });
    },
  };
}

const refOf = (text: string): PortRef => {
  const at = text.lastIndexOf(".");
  return { element: text.slice(0, at), port: text.slice(at + 1) };
};

/**
 * Where each point of a component sits on its element, and what it reads there.
 * @param component of the register with its points
 * @param kind of the element that stands for it
 * @returns a gauge a point; "other" where the model has no answer
 * @example
 * const point = { id: "p1", name: "Case drain", quantity: "caseDrainFlow" };
 * gaugesOf({ id: "pump", points: [point] }, "compensatedPump") // [{ pointId: "p1", element: "pump", port: "case", reads: "flow" }]
 */
export function gaugesOf(component: DraftComponent, kind: ElementKindId): Gauge[] {
  return component.points.map((p) => ({ pointId: p.id, element: component.id, ...placeOf(kind, p) }));
}

function placeOf(
  kind: ElementKindId,
  point: { name: string; quantity: PointQuantityId },
): Pick<Gauge, "port" | "reads"> {
  const inCase = /case/i.test(point.name);
  switch (kind) {
    case "fixedPump":
    case "compensatedPump":
    case "closedLoopPump":
    case "motor": {
      const pumps = kind === "fixedPump" || kind === "compensatedPump";
      const main = pumps ? "out" : /\bB\b/.test(point.name) ? "B" : "A";
      if (point.quantity === "caseDrainFlow") return { port: "case", reads: "flow" };
      if (point.quantity === "vacuum") return { port: "in", reads: "vacuum" };
      if (point.quantity === "temperatureRise") return { port: "case", reads: "temperatureRise" };
      if (point.quantity === "pressure") return { port: inCase ? "case" : main, reads: "pressure" };
      return { port: main, reads: point.quantity === "flow" ? "flow" : "other" };
    }
    case "relief":
    case "unloader":
      if (point.quantity === "pressure") return { port: kind === "unloader" ? "X" : "P", reads: "setting" };
      return { port: "T", reads: point.quantity === "temperatureRise" ? "temperatureRise" : "other" };
    case "directional":
    case "proportional":
      if (point.quantity === "leakageFlow") return { port: "T", reads: "nullLeakage" };
      return { port: "P", reads: point.quantity === "temperatureRise" ? "temperatureRise" : "other" };
    case "reducing":
      return { port: "out", reads: point.quantity === "pressure" ? "pressure" : "other" };
    case "flushing":
      return { port: "T", reads: point.quantity === "flow" ? "flow" : "other" };
    case "throttle":
      return { port: "in", reads: point.quantity === "pressure" ? "pressure" : "other" };
    case "cylinder":
      if (point.quantity === "strokeTime") return { port: "A", reads: "strokeTime" };
      return { port: "B", reads: point.quantity === "creep" ? "creep" : "other" };
    case "filter":
      return { port: "in", reads: point.quantity === "pressureDrop" ? "pressureDrop" : "other" };
    case "tank":
      return { port: "T", reads: point.quantity === "temperature" ? "temperature" : "other" };
    case "accumulator":
      return { port: "P", reads: "other" };
    default:
      if (kind === "pilotCheck" || kind === "counterbalance")
        return { port: "C", reads: point.quantity === "pilotMargin" ? "margin" : "other" };
      return { port: "in", reads: "other" };
  }
}
