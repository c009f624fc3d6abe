/** A circuit drawn as a layout placed it: symbols, reservoirs, lines at right angles, dots where they are joined. */
import { symbolSizes, type DrawnPart, type DrawnWire, type Drawing } from "../drawing";
import { portKey } from "../netlist";
import type { Bus, LayoutGraph } from "./graph";
import { GAP } from "./sheet";

/** What the layout found: plain data of its own shape. */
export interface LaidOut {
  width?: number;
  height?: number;
  children?: { id: string; x?: number; y?: number; width?: number; height?: number }[];
  edges?: { id: string; sections?: { startPoint: Point; endPoint: Point; bendPoints?: Point[] }[] }[];
}

interface Point {
  x: number;
  y: number;
}

type Spot = [x: number, y: number];

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Where a joint's line may run instead, beside the place that was found for it. */
const SHIFTS = [0, -8, 8, -16, 16, -24, 24, -32, 32, -40, 40];
/** A line keeps so far from a symbol's border. */
const CLEAR = 3;

/**
 * The drawing of a circuit.
 * @param graph of the circuit, as `layoutGraph` made it
 * @param laid the same graph, laid out
 * @returns where each symbol, line and text stands
 * @throws {TypeError} when it is the layout of another graph
 * @example
 * const graph = layoutGraph(circuitOf({ p: ["fixedPump"] }, []));
 * drawnAsLaid(graph, { children: [{ id: "p", x: 10, y: 20, width: 48, height: 44 }] }).parts[0].x // 10
 */
export function drawnAsLaid(graph: LayoutGraph, laid: LaidOut): Drawing {
  const { sheet } = graph;
  const placed = new Map((laid.children ?? []).map(({ id, x, y, width, height }) => [id, box(x, y, width, height)]));
  const boxes = [...placed].filter(([id]) => !graph.buses.some((bus) => bus.id === id)).map(([, b]) => b);
  const parts = sheet.drawn.map((e) => partAt(graph, e.id, placed.get(e.id)!));
  const ports: Record<string, Spot> = {};
  for (const part of parts)
    for (const port of Object.keys(sheet.sizeOf(part.element).ports)) {
      const { x, up } = sheet.port({ element: part.element, port });
      ports[`${part.element}/${port}`] = [part.x + x, up ? part.y : part.y + part.height];
    }
  const found: Found = { graph, placed, boxes, ports, routes: routesOf(laid) };
  const wires: DrawnWire[] = [];
  const dots: Spot[] = [];
  const taken = new Set<number>();
  for (const bus of graph.buses) {
    const drawn = busLine(found, bus, taken);
    wires.push(...drawn.wires);
    dots.push(...drawn.dots);
  }
  const ofBus = new Set(graph.buses.flatMap((bus) => bus.ends.map((end) => edgeOf(graph, bus, portKey(end)).id)));
  for (const edge of graph.edges) {
    const way = found.routes.get(edge.id);
    if (!way || ofBus.has(edge.id)) continue;
    const keys = [edge.sources[0], edge.targets[0]];
    const style = sheet.styleOf(keys);
    wires.push({
      style: style === "pressure" && keys.some((key) => key.startsWith("tank@")) ? "return" : style,
      points: keys.reduce((points, key) => (ports[key] ? ledOn(points, ports[key]) : points), way),
    });
  }
  for (const tank of graph.tanks)
    if (tank.text && sheet.tank !== undefined) {
      const { x, y } = placed.get(tank.id)!;
      const { width, height } = symbolSizes.tank!;
      parts.push({ element: sheet.tank, x, y, width, height, textX: x + width + GAP, textY: y - 2 });
      ports[`${sheet.tank}/T`] = [x + 16, y];
    }
  return {
    width: Math.ceil(laid.width ?? 0),
    height: Math.ceil(laid.height ?? 0),
    parts,
    tanks: graph.tanks.map((t) => ({ x: placed.get(t.id)!.x, y: placed.get(t.id)!.y })),
    wires,
    dots,
    ports,
  };
}

interface Found {
  graph: LayoutGraph;
  placed: ReadonlyMap<string, Box>;
  /** What a line must not run through. */
  boxes: readonly Box[];
  ports: Readonly<Record<string, Spot>>;
  /** Ways that the layout found, by edge. */
  routes: ReadonlyMap<string, Spot[]>;
}

const box = (x = 0, y = 0, width = 0, height = 0): Box => ({ x, y, width, height });

function routesOf({ edges = [] }: LaidOut): Map<string, Spot[]> {
  return new Map(
    edges.flatMap(({ id, sections }) => {
      const [way] = sections ?? [];
      if (!way) return [];
      return [[id, [way.startPoint, ...(way.bendPoints ?? []), way.endPoint].map(({ x, y }): Spot => [x, y])]];
    }),
  );
}

/** A symbol in the middle of the room that it was given, its texts beside it. */
function partAt({ sheet }: LayoutGraph, element: string, room: Box): DrawnPart {
  const { width, height } = sheet.sizeOf(element);
  return {
    element,
    x: room.x,
    y: room.y + (room.height - height) / 2,
    width,
    height,
    textX: room.x + width + GAP,
    textY: room.y,
    ...(sheet.isFlipped(element) && { flipped: true as const }),
  };
}

const edgeOf = ({ edges }: LayoutGraph, bus: Bus, key: string) =>
  edges.find((e) => e.sources[0] === `${bus.id}/${key}` || e.targets[0] === `${bus.id}/${key}`)!;

/** Where a port comes out of the room of its symbol. */
function leaves({ graph: { sheet }, placed }: Found, key: string): Spot {
  const ref = sheet.ref(key)!;
  const room = placed.get(ref.element)!;
  const { x, up } = sheet.port(ref);
  return [room.x + x, up ? room.y : room.y + room.height];
}

interface Reach {
  key: string;
  /** Where it meets the line of the joint. */
  at: number;
  way: Spot[];
}

/** A joint as one straight line with a way to each of its ports; `taken` are the heights of such lines so far. */
function busLine(found: Found, bus: Bus, taken: Set<number>): { wires: DrawnWire[]; dots: Spot[] } {
  const { sheet } = found.graph;
  const keys = bus.ends.map(portKey);
  const y = heightOf(found, bus, keys, taken);
  taken.add(Math.round(y));
  const reach = keys.map((key) => reachOf(found, bus, key, y));
  const all = sheet.styleOf(keys);
  const main = all === "pilot" ? sheet.styleOf(keys.filter((key) => !sheet.isPilot(key))) : all;
  const xs = reach.map((r) => r.at).sort((a, b) => a - b);
  const [west, east] = [xs[0]!, xs.at(-1)!];
  const ways = reach.map(({ key, way }): DrawnWire => ({
    style: sheet.isPilot(key) ? "pilot" : main,
    points: ledOn(way, found.ports[key]!),
  }));
  const line: DrawnWire = {
    style: main,
    points: [
      [west, y],
      [east, y],
    ],
  };
  const dots = [...new Set(xs)].filter((x) => branchesAt(reach, x, y, west, east) > 2).map((x): Spot => [x, y]);
  return { wires: [...ways, line], dots };
}

/** Where a symbol or a reservoir stands in the way of the line, it runs a little above or below. */
function heightOf(found: Found, bus: Bus, keys: readonly string[], taken: ReadonlySet<number>): number {
  const node = found.placed.get(bus.id)!;
  const xs = keys.map((key) => leaves(found, key)[0]);
  const [west, east] = [Math.min(...xs), Math.max(...xs)];
  const clear = (at: number) =>
    !taken.has(Math.round(at)) &&
    !found.boxes.some((b) => b.x < east && b.x + b.width > west && at > b.y - CLEAR && at < b.y + b.height + CLEAR);
  const middle = node.y + node.height / 2;
  return SHIFTS.map((shift) => middle + shift).find(clear) ?? middle;
}

/** Straight to the line where nothing stands between; else the way that was found, led on to the line. */
function reachOf(found: Found, bus: Bus, key: string, y: number): Reach {
  const { graph, placed, boxes, routes } = found;
  const [x, from] = leaves(found, key);
  const right = graph.sheet.port(graph.sheet.ref(key)!).up ? from > y : from < y;
  const straight: Spot[] = [
    [x, from],
    [x, y],
  ];
  if (right && !boxes.some((b) => crosses(b, x, Math.min(from, y), Math.max(from, y))))
    return { key, at: x, way: straight };
  const node = placed.get(bus.id)!;
  const near = (py: number) => py >= node.y - 1 && py <= node.y + node.height + 1;
  const way = routes.get(edgeOf(graph, bus, key).id) ?? straight;
  const ordered = near(way[0]![1]) && !near(way.at(-1)![1]) ? [...way].reverse() : way;
  const at = ordered.at(-1)![0];
  return { key, at, way: [...ordered.filter(([, py]) => !near(py)), [at, y]] };
}

/** How many ways part at a place of a joint's line: to its left and right, up and down. */
function branchesAt(reach: readonly Reach[], x: number, y: number, west: number, east: number): number {
  const ends = reach.filter((r) => Math.abs(r.at - x) < 0.5);
  const sides = new Set(ends.map((r) => Math.sign((r.way[0]?.[1] ?? y) + (r.way.at(-1)?.[1] ?? y) - 2 * y)));
  return sides.size + (x > west + 0.5 ? 1 : 0) + (x < east - 0.5 ? 1 : 0);
}

/** Does a vertical line at x from y0 to y1 run through the box, its border left out? */
function crosses(b: Box, x: number, y0: number, y1: number): boolean {
  return x > b.x + 1 && x < b.x + b.width - 1 && y1 > b.y + 1 && y0 < b.y + b.height - 1;
}

/** The way led on from the border of a symbol's room to the port itself. */
function ledOn(way: Spot[], port: Spot): Spot[] {
  const [first, last] = [way[0]!, way.at(-1)!];
  const near = (p: Spot) => Math.abs(p[0] - port[0]) < 1;
  const byFirst = Math.abs(first[1] - port[1]) + Math.abs(first[0] - port[0]);
  const byLast = Math.abs(last[1] - port[1]) + Math.abs(last[0] - port[0]);
  if (byFirst <= byLast && near(first)) return [port, ...way];
  return near(last) ? [...way, port] : way;
}
