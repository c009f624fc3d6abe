/**
 * The circuit laid out by itself: the reservoir below, actuators above, lines at right angles, crossings few. A layered
 * layout places the symbols; joints of three and more ports become a straight line that all of them reach.
 */
import ELK, { type ElkNode } from "elkjs/lib/elk.bundled.js";
import {
  elementKinds,
  isNamed,
  nodesOf,
  portKey,
  roleOf,
  styleOf,
  symbolSizes,
  type Drawing,
  type DrawnWire,
  type LineStyle,
  type Netlist,
  type PortRef,
} from "@core";

/** Room for the texts beside a symbol, and for each point read there. */
const TEXT = 130;
const GAP = 10;
const TITLE = 18;
const ROW = 38;
const MARGIN = 12;
/** Where a joint's line may run instead, beside the place that was found for it. */
const SHIFTS = [0, -8, 8, -16, 16, -24, 24, -32, 32, -40, 40];
/** Least distance of two lines side by side. */
const APART = 14;

/** Kinds of one way, drawn from below upwards, that look as well from above. */
const UPRIGHT: ReadonlySet<string> = new Set(["throttle", "flowControl", "check", "sequence"]);

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

const sizeOf = (netlist: Netlist, id: string) => {
  const e = netlist.elements.find((x) => x.id === id)!;
  return symbolSizes[elementKinds[e.kind].symbol]!;
};

/** Lay a circuit out. Reads nothing but the netlist: the same one is always drawn alike. */
export async function layOut(netlist: Netlist): Promise<Drawing> {
  const gaugesOf = (id: string) => netlist.gauges.filter((g) => g.element === id).length;
  const tanks = new Set(netlist.elements.filter((e) => e.kind === "tank").map((e) => e.id));
  const drawn = netlist.elements.filter((e) => !tanks.has(e.id));
  const { ports: joints } = nodesOf(netlist);
  const refs = new Map<string, PortRef>();
  for (const l of netlist.lines) for (const end of [l.from, l.to]) refs.set(portKey(end), end);

  const byId = new Map(netlist.elements.map((e) => [e.id, e]));
  const named = (id: string) => isNamed(byId.get(id)!, netlist.gauges);
  const toTank = new Set(joints.filter((keys) => keys.some((k) => tanks.has(refs.get(k)!.element))).flat());
  // what is drawn with its outlet upwards and leads to tank stands on its head: the reservoir is below
  const flipped = new Set(
    drawn.filter((e) => UPRIGHT.has(e.kind) && toTank.has(`${e.id}/out`) && !toTank.has(`${e.id}/in`)).map((e) => e.id),
  );

  const heightOf = (id: string) => {
    const text = named(id) ? TITLE + gaugesOf(id) * ROW : 0;
    return Math.max(sizeOf(netlist, id).height, text);
  };
  const widthOf = (id: string) => sizeOf(netlist, id).width + (named(id) ? GAP + TEXT : 0);
  const portOf = (ref: PortRef) => {
    const at = sizeOf(netlist, ref.element).ports[ref.port] ?? { x: 0, up: true };
    return flipped.has(ref.element) ? { ...at, up: !at.up } : at;
  };

  const children: ElkNode[] = drawn.map((e) => ({
    id: e.id,
    width: widthOf(e.id),
    height: heightOf(e.id),
    layoutOptions: { "elk.portConstraints": "FIXED_POS" },
    ports: Object.keys(elementKinds[e.kind].ports)
      .filter((port) => refs.has(`${e.id}/${port}`))
      .map((port) => {
        const { x, up } = portOf({ element: e.id, port });
        return {
          id: `${e.id}/${port}`,
          x,
          y: up ? 0 : heightOf(e.id),
          width: 0,
          height: 0,
          layoutOptions: { "elk.port.side": up ? "NORTH" : "SOUTH" },
        };
      }),
  }));
  const edges: { id: string; sources: string[]; targets: string[] }[] = [];
  const joinUp = (below: string, above: string) =>
    edges.push({ id: `e${edges.length}`, sources: [below], targets: [above] });
  const firstTank = [...tanks][0];
  let tankText = firstTank !== undefined && gaugesOf(firstTank) > 0;
  const tankNodes: { id: string; text: boolean }[] = [];
  const buses: { id: string; ends: PortRef[] }[] = [];

  joints.forEach((keys, j) => {
    const ends = keys.map((k) => refs.get(k)!).filter((r) => !tanks.has(r.element));
    if (keys.some((k) => tanks.has(refs.get(k)!.element))) {
      // everything that goes to tank has a reservoir of its own below it; the first suction carries its texts
      const order = [...ends].sort(
        (a, b) => Number(roleOf(netlist, b) === "suction") - Number(roleOf(netlist, a) === "suction"),
      );
      for (const end of order) {
        const id = `tank@${portKey(end)}`;
        const text = tankText;
        tankText = false;
        tankNodes.push({ id, text });
        children.push({
          id,
          width: symbolSizes.tank!.width + (text ? GAP + TEXT : 0),
          height: symbolSizes.tank!.height + (text ? TITLE + gaugesOf(firstTank!) * ROW - symbolSizes.tank!.height : 0),
          layoutOptions: { "elk.portConstraints": "FIXED_POS" },
          ports: [{ id: `${id}/T`, x: 16, y: 0, width: 0, height: 0, layoutOptions: { "elk.port.side": "NORTH" } }],
        });
        if (portOf(end).up) edges.push({ id: `e${edges.length}`, sources: [`${id}/T`], targets: [portKey(end)] });
        else joinUp(`${id}/T`, portKey(end));
      }
      return;
    }
    if (ends.length < 2) return;
    if (ends.length === 2) {
      const [a, b] = ends as [PortRef, PortRef];
      // a port on top of its symbol is the lower end of the line
      if (portOf(a).up || !portOf(b).up) joinUp(portKey(a), portKey(b));
      else joinUp(portKey(b), portKey(a));
      return;
    }
    const id = `bus${j}`;
    buses.push({ id, ends });
    children.push({
      id,
      width: 8,
      height: 2,
      layoutOptions: {
        "elk.portConstraints": "FIXED_SIDE",
        "elk.nodeSize.constraints": "PORTS MINIMUM_SIZE",
        "elk.spacing.portPort": "40",
      },
      ports: ends.map((end) => ({
        id: `${id}/${portKey(end)}`,
        width: 0,
        height: 0,
        layoutOptions: { "elk.port.side": portOf(end).up ? "SOUTH" : "NORTH" },
      })),
    });
    for (const end of ends)
      if (portOf(end).up) joinUp(portKey(end), `${id}/${portKey(end)}`);
      else joinUp(`${id}/${portKey(end)}`, portKey(end));
  });

  const laid = await new ELK().layout({
    id: "circuit",
    layoutOptions: {
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
    },
    children,
    edges,
  });

  const placed = new Map((laid.children ?? []).map((n) => [n.id, n]));
  const boxes: Box[] = [...placed.values()]
    .filter((n) => !n.id.startsWith("bus"))
    .map((n) => ({ x: n.x!, y: n.y!, width: n.width!, height: n.height! }));

  const ports: Record<string, [number, number]> = {};
  const parts = drawn.map((e) => {
    const node = placed.get(e.id)!;
    const size = sizeOf(netlist, e.id);
    const y = node.y! + (node.height! - size.height) / 2;
    for (const port of Object.keys(size.ports)) {
      const at = portOf({ element: e.id, port });
      ports[`${e.id}/${port}`] = [node.x! + at.x, at.up ? y : y + size.height];
    }
    return {
      element: e.id,
      x: node.x!,
      y,
      width: size.width,
      height: size.height,
      textX: node.x! + size.width + GAP,
      textY: node.y!,
      ...(flipped.has(e.id) && { flipped: true as const }),
    };
  });
  // from the border of the room that a symbol takes to the symbol itself
  const stub = (key: string): [number, number] => {
    const ref = refs.get(key)!;
    const node = placed.get(ref.element)!;
    const at = portOf(ref);
    return [node.x! + at.x, at.up ? node.y! : node.y! + node.height!];
  };
  const styleOfEnds = (keys: readonly string[]): LineStyle =>
    styleOf(keys.map((k) => (refs.has(k) ? roleOf(netlist, refs.get(k)!) : undefined)).filter((r) => r !== undefined));

  const wires: DrawnWire[] = [];
  const routed = new Map<string, [number, number][]>();
  for (const edge of laid.edges ?? []) {
    const section = (edge as { sections?: { startPoint: Point; endPoint: Point; bendPoints?: Point[] }[] })
      .sections?.[0];
    if (!section) continue;
    routed.set(
      edge.id,
      [section.startPoint, ...(section.bendPoints ?? []), section.endPoint].map((p) => [p.x, p.y] as [number, number]),
    );
  }
  const onBus = new Set<string>();
  const taken = new Set<number>();
  const dots: [number, number][] = [];
  for (const bus of buses) {
    const node = placed.get(bus.id)!;
    // where a symbol or a reservoir stands in the way of the line, it runs a little above or below
    const middle = node.y! + node.height! / 2;
    const xs0 = bus.ends.map((end) => stub(portKey(end))[0]);
    const [west, east] = [Math.min(...xs0), Math.max(...xs0)];
    const clear = (at: number) =>
      !taken.has(Math.round(at)) &&
      !boxes.some((b) => b.x < east && b.x + b.width > west && at > b.y - 3 && at < b.y + b.height + 3);
    const y = SHIFTS.map((shift) => middle + shift).find(clear) ?? middle;
    taken.add(Math.round(y));
    const near = (py: number) => py >= node.y! - 1 && py <= node.y! + node.height! + 1;
    // straight to the line where nothing stands between; else the way that was found, led on to the line
    const reach = bus.ends.map((end) => {
      const key = portKey(end);
      const [x, from] = stub(key);
      const edge = edges.find((e) => e.sources[0] === `${bus.id}/${key}` || e.targets[0] === `${bus.id}/${key}`)!;
      const right = portOf(end).up ? from > y : from < y;
      const free = right && !boxes.some((b) => between(b, x, Math.min(from, y), Math.max(from, y)));
      onBus.add(edge.id);
      const straight: [number, number][] = [
        [x, from],
        [x, y],
      ];
      if (free) return { key, at: x, way: straight };
      const found = routed.get(edge.id) ?? straight;
      const ordered = near(found[0]![1]) && !near(found.at(-1)![1]) ? [...found].reverse() : found;
      const at = ordered.at(-1)![0];
      return { key, at, way: [...ordered.filter(([, py]) => !near(py)), [at, y] as [number, number]] };
    });
    const all = styleOfEnds(bus.ends.map(portKey));
    const main =
      all === "pilot"
        ? styleOfEnds(bus.ends.map(portKey).filter((k) => roleOf(netlist, refs.get(k)!) !== "pilot"))
        : all;
    for (const r of reach) {
      const pilot = roleOf(netlist, refs.get(r.key)!) === "pilot";
      wires.push({ style: pilot ? "pilot" : main, points: withStub(r.way, ports[r.key]!) });
    }
    const xs = reach.map((r) => r.at).sort((a, b) => a - b);
    wires.push({
      style: main,
      points: [
        [xs[0]!, y],
        [xs.at(-1)!, y],
      ],
    });
    for (const x of new Set(xs)) {
      const ends = reach.filter((r) => Math.abs(r.at - x) < 0.5);
      const sides = new Set(ends.map((r) => Math.sign((r.way[0]?.[1] ?? y) + (r.way.at(-1)?.[1] ?? y) - 2 * y)));
      const branches = sides.size + (x > xs[0]! + 0.5 ? 1 : 0) + (x < xs.at(-1)! - 0.5 ? 1 : 0);
      if (branches > 2) dots.push([x, y]);
    }
  }
  for (const edge of edges) {
    if (onBus.has(edge.id)) continue;
    const way = routed.get(edge.id);
    if (!way) continue;
    const keys = [edge.sources[0]!, edge.targets[0]!];
    let points = way;
    for (const key of keys) if (ports[key]) points = withStub(points, ports[key]);
    const tank = keys.some((k) => k.startsWith("tank@"));
    const style = styleOfEnds(keys);
    wires.push({ style: tank && style === "pressure" ? "return" : style, points });
  }
  for (const t of tankNodes) {
    const node = placed.get(t.id)!;
    if (t.text && firstTank) {
      parts.push({
        element: firstTank,
        x: node.x!,
        y: node.y!,
        width: symbolSizes.tank!.width,
        height: symbolSizes.tank!.height,
        textX: node.x! + symbolSizes.tank!.width + GAP,
        textY: node.y! - 2,
      });
      ports[`${firstTank}/T`] = [node.x! + 16, node.y!];
    }
  }
  return {
    width: Math.ceil((laid as ElkNode).width ?? 0),
    height: Math.ceil((laid as ElkNode).height ?? 0),
    parts,
    tanks: tankNodes.map((t) => ({ x: placed.get(t.id)!.x!, y: placed.get(t.id)!.y! })),
    wires,
    dots,
    ports,
  };
}

interface Point {
  x: number;
  y: number;
}

/** Does a vertical line at x from y0 to y1 run through the box, its border left out? */
function between(box: Box, x: number, y0: number, y1: number): boolean {
  return x > box.x + 1 && x < box.x + box.width - 1 && y1 > box.y + 1 && y0 < box.y + box.height - 1;
}

/** The way led on from the border of a symbol's room to the port itself. */
function withStub(way: [number, number][], port: [number, number]): [number, number][] {
  const [first, last] = [way[0]!, way.at(-1)!];
  const near = (p: [number, number]) => Math.abs(p[0] - port[0]) < 1;
  const byFirst = Math.abs(first[1] - port[1]) + Math.abs(first[0] - port[0]);
  const byLast = Math.abs(last[1] - port[1]) + Math.abs(last[0] - port[0]);
  if (byFirst <= byLast && near(first)) return [port, ...way];
  return near(last) ? [...way, port] : way;
}
