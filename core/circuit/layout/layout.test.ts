/** What a layout is asked for, and what is drawn of it: placed by hand, so that each pass is seen by itself. */
import { describe, expect, test } from "@jest/globals";
import { circuitOf } from "../build";
import type { Netlist } from "../netlist";
import { drawnAsLaid, type LaidOut } from "./draw";
import { layoutGraph } from "./graph";

const kinds = {
  tank: ["tank"],
  pump: ["fixedPump"],
  relief: ["relief"],
  strainer: ["strainer"],
  check: ["check"],
} as const;

const circuit = (parts: (keyof typeof kinds)[], joins: string[]) =>
  circuitOf(Object.fromEntries(parts.map((id) => [id, kinds[id]])), joins);

const suction = circuit(["tank", "pump"], ["tank.T - pump.in"]);
const three = circuit(
  ["tank", "pump", "relief", "strainer"],
  ["tank.T - pump.in", "pump.out - relief.P", "pump.out - strainer.in", "relief.T - tank.T"],
);
const edgesOf = (netlist: Netlist) => layoutGraph(netlist).edges.map((e) => `${e.sources[0]} ${e.targets[0]}`);

describe("the graph", () => {
  test("a reservoir lies below what it feeds, and is no symbol of its own", () => {
    const { nodes } = layoutGraph(suction);
    expect(nodes.map((n) => n.id)).toEqual(["pump", "tank@pump/in"]);
    expect(edgesOf(suction)).toEqual(["tank@pump/in/T pump/in"]);
  });
  test("of two ports the one on top of its symbol is below", () => {
    expect(edgesOf(circuit(["pump", "check"], ["pump.out - check.in"]))).toEqual(
      edgesOf(circuit(["pump", "check"], ["check.in - pump.out"])),
    );
    expect(edgesOf(circuit(["pump", "check"], ["pump.out - check.in"]))[0]).toMatch(/^pump\/out /);
  });
  test("three ports meet on a line of their own", () => {
    const { buses } = layoutGraph(three);
    expect(buses.map((b) => b.ends.map((e) => e.element))).toEqual([["pump", "relief", "strainer"]]);
    expect(edgesOf(three).filter((e) => e.includes("bus"))).toHaveLength(3);
  });
  test("a check valve that leads to tank stands on its head", () => {
    const { sheet } = layoutGraph(circuit(["tank", "pump", "check"], ["pump.out - check.in", "check.out - tank.T"]));
    expect(sheet.isFlipped("check")).toBe(true);
    expect(sheet.isFlipped("pump")).toBe(false);
  });
  test("only the first reservoir carries the texts, and only where something is read there", () => {
    expect(layoutGraph(three).tanks.map((t) => t.text)).toEqual([false, false]);
    expect(
      layoutGraph({ ...three, gauges: [{ element: "tank", port: "T", pointId: "p", reads: "temperature" }] }).tanks,
    ).toEqual([
      { id: "tank@pump/in", text: true },
      { id: "tank@relief/T", text: false },
    ]);
  });
});

describe("the drawing", () => {
  /** Three symbols in a row above the pump; a joint's line at y 200, a box in its way where `inWay` says so. */
  function placed(inWay = false): LaidOut {
    const graph = layoutGraph(three);
    const at: Record<string, [number, number]> = {
      pump: [100, 300],
      relief: [20, inWay ? 160 : 100],
      strainer: [200, 60],
      "tank@pump/in": [106, 380],
      "tank@relief/T": [26, inWay ? 230 : 170],
      [graph.buses[0]!.id]: [60, 205],
    };
    return {
      width: 300.4,
      height: 400,
      children: graph.nodes.map(({ id, width, height }) => ({ id, x: at[id]![0], y: at[id]![1], width, height })),
      edges: [],
    };
  }
  const drawn = (laid: LaidOut) => drawnAsLaid(layoutGraph(three), laid);

  test("symbols stand in the middle of their room, ports on them, the sheet is rounded up", () => {
    const drawing = drawn(placed());
    expect(drawing.width).toBe(301);
    const pump = drawing.parts.find((p) => p.element === "pump")!;
    expect(drawing.ports["pump/out"]).toEqual([pump.x + 22, pump.y]);
    expect(drawing.ports["pump/in"]).toEqual([pump.x + 22, pump.y + pump.height]);
  });
  test("all lines at right angles, and each of the joint's ports is reached", () => {
    const { wires, ports } = drawn(placed());
    for (const { points } of wires)
      points.slice(1).forEach(([x, y], i) => {
        expect(Math.min(Math.abs(x - points[i]![0]), Math.abs(y - points[i]![1]))).toBe(0);
      });
    for (const key of ["pump/out", "relief/P", "strainer/in"])
      expect(wires.some((w) => w.points.some(([x, y]) => x === ports[key]![0] && y === ports[key]![1]))).toBe(true);
  });
  test("a line that a symbol stands in the way of runs beside it", () => {
    const level = (laid: LaidOut) =>
      drawn(laid).wires.filter((w) => w.points.length === 2 && w.points[0]![1] === w.points[1]![1]);
    expect(level(placed())[0]!.points[0]![1]).toBe(206);
    const beside = level(placed(true))[0]!.points[0]![1];
    const relief = drawn(placed(true)).parts.find((p) => p.element === "relief")!;
    expect(beside < relief.y || beside > relief.y + relief.height).toBe(true);
  });
  test("another graph's layout is refused", () => {
    expect(() => drawn({ children: [], edges: [] })).toThrow(TypeError);
  });
});
