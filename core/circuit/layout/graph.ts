/**
 * The circuit as a graph for a layered layout, from the reservoir below to the actuators above: symbols are nodes with fixed ports,
 * joints of three and more ports become a node that is drawn as one straight line.
 */
import { elementKinds } from "../kinds";
import { portKey, type Netlist, type PortRef } from "../netlist";
import { Sheet } from "./sheet";

/** A node as the layout takes it: plain data. */
export interface LayoutNode {
  id: string;
  width: number;
  height: number;
  layoutOptions: Record<string, string>;
  ports: { id: string; x?: number; y?: number; width: number; height: number; layoutOptions: Record<string, string> }[];
}

/** From what lies below to what lies above. */
export interface LayoutEdge {
  id: string;
  sources: [string];
  targets: [string];
}

/** A joint of three ports and more. */
export interface Bus {
  id: string;
  ends: PortRef[];
}

export interface LayoutGraph {
  options: Record<string, string>;
  nodes: LayoutNode[];
  edges: LayoutEdge[];
  /** For who draws it: what stands on the sheet, and which nodes are reservoirs and joints. */
  sheet: Sheet;
  tanks: { id: string; text: boolean }[];
  buses: Bus[];
}

const MARGIN = 12;
/** Least distance of two lines side by side. */
const APART = 14;

const OPTIONS: Record<string, string> = {
  "elk.algorithm": "layered",
  "elk.direction": "UP",
  "elk.edgeRouting": "ORTHOGONAL",
  "elk.layered.spacing.nodeNodeBetweenLayers": "34",
  "elk.layered.spacing.edgeNodeBetweenLayers": "16",
  "elk.layered.spacing.edgeEdgeBetweenLayers": "12",
  "elk.spacing.nodeNode": "18",
  "elk.spacing.edgeNode": "16",
  "elk.spacing.edgeEdge": String(APART),
  "elk.layered.nodePlacement.strategy": "NETWORK_SIMPLEX",
  "elk.layered.nodePlacement.favorStraightEdges": "true",
  "elk.layered.crossingMinimization.greedySwitch.type": "TWO_SIDED",
  "elk.layered.thoroughness": "30",
  "elk.padding": `[top=${MARGIN},left=${MARGIN},bottom=${MARGIN},right=${MARGIN}]`,
};

const sideOf = (up: boolean) => ({ "elk.port.side": up ? "NORTH" : "SOUTH" });

/**
 * What a layered layout (Eclipse Layout Kernel) is asked for so that a circuit is drawn.
 * @param netlist of the circuit; its figures and lengths do not matter
 * @returns the graph; the same netlist makes the same one
 * @throws {never} for a netlist whose lines lead to ports that there are
 * @example layoutGraph(circuitOf({ t: ["tank"], p: ["fixedPump"] }, ["p.in - t.T"])).edges.length // 1
 */
export function layoutGraph(netlist: Netlist): LayoutGraph {
  const sheet = new Sheet(netlist);
  const graph: LayoutGraph = { options: OPTIONS, nodes: symbolsOf(sheet), edges: [], sheet, tanks: [], buses: [] };
  let textLeft = sheet.tank !== undefined && sheet.hasGauges(sheet.tank);
  sheet.joints.forEach((keys, j) => {
    const ends = sheet.endsOf(keys);
    if (sheet.reachesTank(keys)) {
      // the first suction carries the texts of the reservoir
      const order = [...ends].sort((a, b) => Number(sheet.isSuction(b)) - Number(sheet.isSuction(a)));
      for (const end of order) {
        toTank(graph, end, textLeft);
        textLeft = false;
      }
    } else if (ends.length === 2) between(graph, ...(ends as [PortRef, PortRef]));
    else if (ends.length > 2) onBus(graph, { id: `bus${j}`, ends });
  });
  return graph;
}

function symbolsOf(sheet: Sheet): LayoutNode[] {
  return sheet.drawn.map((e) => ({
    id: e.id,
    width: sheet.widthOf(e.id),
    height: sheet.heightOf(e.id),
    layoutOptions: { "elk.portConstraints": "FIXED_POS" },
    ports: Object.keys(elementKinds[e.kind].ports)
      .map((port) => ({ element: e.id, port }))
      .filter((ref) => sheet.ref(portKey(ref)))
      .map((ref) => {
        const { x, up } = sheet.port(ref);
        return {
          id: portKey(ref),
          x,
          y: up ? 0 : sheet.heightOf(e.id),
          width: 0,
          height: 0,
          layoutOptions: sideOf(up),
        };
      }),
  }));
}

function join({ edges }: LayoutGraph, below: string, above: string): void {
  edges.push({ id: `e${edges.length}`, sources: [below], targets: [above] });
}

/** Everything that goes to tank has a reservoir of its own below it. */
function toTank(graph: LayoutGraph, end: PortRef, text: boolean): void {
  const id = `tank@${portKey(end)}`;
  graph.tanks.push({ id, text });
  graph.nodes.push({
    id,
    ...graph.sheet.tankSize(text),
    layoutOptions: { "elk.portConstraints": "FIXED_POS" },
    ports: [{ id: `${id}/T`, x: 16, y: 0, width: 0, height: 0, layoutOptions: sideOf(true) }],
  });
  join(graph, `${id}/T`, portKey(end));
}

/** A port on top of its symbol is the lower end of the line. */
function between(graph: LayoutGraph, a: PortRef, b: PortRef): void {
  if (graph.sheet.port(a).up || !graph.sheet.port(b).up) join(graph, portKey(a), portKey(b));
  else join(graph, portKey(b), portKey(a));
}

function onBus(graph: LayoutGraph, bus: Bus): void {
  graph.buses.push(bus);
  graph.nodes.push({
    id: bus.id,
    width: 8,
    height: 2,
    layoutOptions: {
      "elk.portConstraints": "FIXED_SIDE",
      "elk.nodeSize.constraints": "PORTS MINIMUM_SIZE",
      "elk.spacing.portPort": "40",
    },
    ports: bus.ends.map((end) => ({
      id: `${bus.id}/${portKey(end)}`,
      width: 0,
      height: 0,
      layoutOptions: sideOf(!graph.sheet.port(end).up),
    })),
  });
  for (const end of bus.ends)
    if (graph.sheet.port(end).up) join(graph, portKey(end), `${bus.id}/${portKey(end)}`);
    else join(graph, `${bus.id}/${portKey(end)}`, portKey(end));
}
