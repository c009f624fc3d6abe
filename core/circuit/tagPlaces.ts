/** Where the tags of hoses and pipes stand in a drawing: beside their line, clear of symbols, texts and one another. */
import { isNamed, type Drawing } from "./drawing";
import { portKey, type CircuitLine, type Netlist, type PortRef } from "./netlist";

/** A tag's text: its middle, left or right end stands at x, its foot at y. */
export interface TagPlace {
  x: number;
  y: number;
  anchor: "start" | "middle" | "end";
}

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Letters of the drawing's small text: width and height. */
const LETTER = 6.3;
const HEIGHT = 11;
const BESIDE = 5;
/** Most letters of a tag that are drawn. */
export const LONGEST_DRAWN = 10;
/** Texts beside a symbol: their width, the name's height, and the height of one gauge. */
const TEXT = { width: 144, name: 18, gauge: 38 };

const apart = (a: Box, b: Box) =>
  a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;

const boxOf = ({ x, y, anchor }: TagPlace, letters: number): Box => {
  const width = Math.min(letters, LONGEST_DRAWN) * LETTER;
  return {
    x: anchor === "start" ? x : anchor === "end" ? x - width : x - width / 2,
    y: y - HEIGHT,
    width,
    height: HEIGHT,
  };
};

/** What stands in a drawing: symbols with their texts, reservoirs, and lines as thin boxes. */
function taken(netlist: Netlist, { parts, tanks, wires }: Drawing): { solid: Box[]; lines: Box[] } {
  const solid = parts.flatMap((p): Box[] => {
    const element = netlist.elements.find((e) => e.id === p.element);
    const gauges = netlist.gauges.filter((g) => g.element === p.element).length;
    const named = element && isNamed(element, netlist.gauges);
    const symbol = { x: p.x - 2, y: p.y - 2, width: p.width + 4, height: p.height + 4 };
    const text = { x: p.textX, y: p.textY, width: TEXT.width, height: TEXT.name + gauges * TEXT.gauge };
    return named ? [symbol, text] : [symbol];
  });
  const reservoirs = tanks.map((t) => ({ x: t.x, y: t.y, width: 32, height: 14 }));
  const lines = wires.flatMap((w) =>
    w.points.slice(1).map(([x, y], i): Box => {
      const [px, py] = w.points[i]!;
      return {
        x: Math.min(x, px) - 1,
        y: Math.min(y, py) - 1,
        width: Math.abs(x - px) + 2,
        height: Math.abs(y - py) + 2,
      };
    }),
  );
  return { solid: [...solid, ...reservoirs], lines };
}

/** Places beside the pieces of a line's own way, the longest piece first. */
function beside(ways: readonly (readonly [number, number][])[]): TagPlace[] {
  const pieces = ways.flatMap((way) => way.slice(1).map((to, i) => ({ from: way[i]!, to })));
  const lengthOf = ({ from, to }: (typeof pieces)[number]) => Math.abs(to[0] - from[0]) + Math.abs(to[1] - from[1]);
  return pieces
    .sort((a, b) => lengthOf(b) - lengthOf(a))
    .flatMap(({ from: [x0, y0], to: [x1, y1] }): TagPlace[] =>
      [0.5, 0.3, 0.7].flatMap((share): TagPlace[] => {
        const [x, y] = [x0 + (x1 - x0) * share, y0 + (y1 - y0) * share];
        return Math.abs(x1 - x0) < 1
          ? [
              { x: x - BESIDE, y: y + HEIGHT / 2, anchor: "end" },
              { x: x + BESIDE, y: y + HEIGHT / 2, anchor: "start" },
            ]
          : [
              { x, y: y - BESIDE, anchor: "middle" },
              { x, y: y + BESIDE + HEIGHT, anchor: "middle" },
            ];
      }),
    );
}

/**
 * The ends by which a line is known in the drawing: not the reservoir, which stands at many places, and the port that the
 * fewest lines share first.
 */
function ownEnds(netlist: Netlist, { from, to }: CircuitLine): PortRef[] {
  const sharing = (end: PortRef) =>
    netlist.lines.filter((l) => [l.from, l.to].some((e) => portKey(e) === portKey(end))).length;
  const ends = [from, to].filter((end) => netlist.elements.find((e) => e.id === end.element)?.kind !== "tank");
  return ends.sort((a, b) => sharing(a) - sharing(b)).slice(0, 1);
}

/**
 * Places of the tags of lines that have room; one that has none is left to the list below the drawing.
 * @param netlist the circuit
 * @param drawing of it, px
 * @returns by id of the line
 * @example tagPlaces(circuitOf({}, []), { width: 10, height: 10, parts: [], tanks: [], wires: [], dots: [], ports: {} }).size // 0
 */
export function tagPlaces(netlist: Netlist, drawing: Drawing): Map<string, TagPlace> {
  const { solid, lines } = taken(netlist, drawing);
  const placed = new Map<string, TagPlace>();
  const boxes: Box[] = [];
  for (const line of netlist.lines) {
    const letters = line.data?.tag.length ?? 0;
    if (letters === 0) continue;
    const ends = ownEnds(netlist, line)
      .map((end) => drawing.ports[portKey(end)])
      .filter((port) => port !== undefined);
    const near = ([x, y]: readonly [number, number]) => ends.some(([a, b]) => Math.hypot(x - a, y - b) < 1);
    const own = drawing.wires.map((w) => w.points).filter((way) => near(way[0]!) || near(way.at(-1)!));
    const place = beside(own).find((p) => {
      const box = boxOf(p, letters);
      return (
        box.x >= 0 &&
        box.y >= 0 &&
        box.x + box.width <= drawing.width &&
        box.y + box.height <= drawing.height &&
        [...solid, ...lines, ...boxes].every((other) => apart(box, other))
      );
    });
    if (!place) continue;
    placed.set(line.id, place);
    boxes.push(boxOf(place, letters));
  }
  return placed;
}
