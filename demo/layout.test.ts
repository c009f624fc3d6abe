/** @jest-environment node */
import { describe, expect, test } from "@jest/globals";
import {
  addElement,
  draftCircuit,
  joinPorts,
  machineTemplates,
  random,
  tagPlaces,
  templateIds,
  type CircuitChange,
  type Drawing,
  type Netlist,
} from "@core";
import { layOut } from "~/domain/circuits/layout";
import { plannedComponents, plannedNetlist } from "./draft";
import { fleetPlan } from "./fleet";
import { surveyed } from "./lines";

/** Does a point lie on one of the straight pieces of a line? */
function liesOn([x, y]: [number, number], points: [number, number][]): boolean {
  return points.slice(1).some((b, i) => {
    const a = points[i]!;
    const [x0, x1] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
    const [y0, y1] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
    return x >= x0 - 1 && x <= x1 + 1 && y >= y0 - 1 && y <= y1 + 1;
  });
}

/** At right angles, nothing on top of another, no line that ends in the air or runs through a symbol or a reservoir. */
function sound(drawing: Drawing): void {
  for (const w of drawing.wires)
    w.points.slice(1).forEach((b, i) => {
      const a = w.points[i]!;
      expect(Math.min(Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1]))).toBeLessThan(0.5);
    });
  for (const [i, p] of drawing.parts.entries())
    for (const q of drawing.parts.slice(i + 1))
      expect(p.x + p.width <= q.x || q.x + q.width <= p.x || p.y + p.height <= q.y || q.y + q.height <= p.y).toBe(true);
  // no line ends in the air, and none runs through a symbol
  const ends = [...Object.values(drawing.ports), ...drawing.tanks.map((t) => [t.x + 16, t.y] as const)];
  for (const [i, w] of drawing.wires.entries()) {
    for (const end of [w.points[0]!, w.points.at(-1)!]) {
      const atPort = ends.some(([x, y]) => Math.abs(x - end[0]) < 1 && Math.abs(y - end[1]) < 1);
      expect(atPort || drawing.wires.some((other, k) => k !== i && liesOn(end, other.points))).toBe(true);
    }
    w.points.slice(1).forEach((b, k) => {
      const a = w.points[k]!;
      const tanks = drawing.tanks.map((t) => ({ ...t, width: 32, height: 14 }));
      for (const p of [...drawing.parts, ...tanks]) {
        const inside =
          Math.max(a[0], b[0]) > p.x + 3 &&
          Math.min(a[0], b[0]) < p.x + p.width - 3 &&
          Math.max(a[1], b[1]) > p.y + 3 &&
          Math.min(a[1], b[1]) < p.y + p.height - 3;
        expect(inside).toBe(false);
      }
    });
  }
}

/** Pairs of lines that cross where they are not joined. */
function crossings({ wires }: Drawing): number {
  const pieces = wires.flatMap((w, wire) => w.points.slice(1).map((b, i) => ({ wire, a: w.points[i]!, b })));
  const level = pieces.filter((p) => Math.abs(p.a[1] - p.b[1]) < 0.5);
  const upright = pieces.filter((p) => Math.abs(p.a[0] - p.b[0]) < 0.5);
  return level.flatMap((h) =>
    upright.filter((v) => {
      const [x0, x1] = [Math.min(h.a[0], h.b[0]), Math.max(h.a[0], h.b[0])];
      const [y0, y1] = [Math.min(v.a[1], v.b[1]), Math.max(v.a[1], v.b[1])];
      return h.wire !== v.wire && v.a[0] > x0 + 1 && v.a[0] < x1 - 1 && h.a[1] > y0 + 1 && h.a[1] < y1 - 1;
    }),
  ).length;
}

describe.each(fleetPlan().map((m) => [m.name, m] as const))("%s", (_name, machine) => {
  test("lies apart, at right angles, with few crossings", async () => {
    const netlist = plannedNetlist(machine);
    const drawing = await layOut(netlist);
    sound(drawing);
    for (const g of netlist.gauges) expect(drawing.ports[`${g.element}/${g.port}`]).toBeDefined();
    expect(crossings(drawing)).toBeLessThanOrEqual(6);
    expect(drawing.width).toBeLessThan(1700);
    const lines = surveyed(machine, plannedComponents(machine), Date.UTC(2026, 10, 24), random(1));
    if (!lines) return;
    const places = tagPlaces(lines, drawing);
    expect(places.size / lines.lines.length).toBeGreaterThan(0.6);
    for (const { x, y } of places.values())
      expect(drawing.parts.filter((p) => x > p.x && x < p.x + p.width && y > p.y && y < p.y + p.height)).toEqual([]);
  });
});

test("the same circuit is always drawn alike", async () => {
  const netlist = plannedNetlist(fleetPlan()[0]!);
  expect(await layOut(netlist)).toEqual(await layOut(netlist));
});

const kept = (change: CircuitChange): Netlist => {
  if (!change.ok) throw new Error(change.problem);
  return change.netlist;
};

test("a small one drawn by hand: an orifice to tank beside the pump stands on its head, and no line crosses a reservoir", async () => {
  let n: Netlist = { elements: [], lines: [], gauges: [] };
  for (const [kind, id] of [
    ["tank", "t"],
    ["fixedPump", "p"],
    ["relief", "r"],
    ["throttle", "o"],
  ] as const)
    n = kept(addElement(n, kind, "", id));
  for (const [a, ap, b, bp] of [
    ["t", "T", "p", "in"],
    ["p", "out", "r", "P"],
    ["r", "T", "t", "T"],
    ["p", "out", "o", "in"],
    ["o", "out", "t", "T"],
  ] as const)
    n = kept(joinPorts(n, { element: a, port: ap }, { element: b, port: bp }));
  const drawing = await layOut(n);
  sound(drawing);
  expect(drawing.parts.find((p) => p.element === "o")!.flipped).toBe(true);
  expect(drawing.ports["o/out"]![1]).toBeGreaterThan(drawing.ports["o/in"]![1]);
});

test.each([
  ["nothing at all", []],
  ["a reservoir alone", [{ kind: "other", name: "Reservoir" }]],
  ["a thing that no drawing has", [{ kind: "other", name: "Hour counter" }]],
  ["a cylinder alone", [{ kind: "cylinder", name: "Ram" }]],
  [
    "two of everything, of one name",
    [
      "axialPistonPump",
      "gearPump",
      "reliefValve",
      "unloaderValve",
      "accumulator",
      "proportionalValve",
      "directionalValve",
      "loadHoldingValve",
      "cylinder",
      "pistonMotor",
      "filter",
    ].flatMap((kind) => [
      { kind, name: "Part" },
      { kind, name: "Part" },
    ]),
  ],
])("%s is drawn all the same", async (_n, components) => {
  const { netlist } = draftCircuit({
    workingPressure: null,
    components: components.map((c, i) => ({ ...c, id: `c${i}`, displacement: null, speed: null, points: [] })),
  });
  const drawing = await layOut(netlist);
  sound(drawing);
  expect(drawing.parts.length + drawing.tanks.length).toBeGreaterThanOrEqual(netlist.elements.length - 1);
});

test.each(templateIds)("template %s lies apart, every point at a port", async (id) => {
  const components = machineTemplates[id].components({ displacement: 28, speed: 1450, pressure: 160 });
  const { netlist } = draftCircuit({
    workingPressure: 160,
    components: components.map((c, i) => ({
      ...c,
      id: `c${i}`,
      points: c.points.map((p, k) => ({ ...p, id: `c${i}p${k}` })),
    })),
  });
  const drawing = await layOut(netlist);
  sound(drawing);
  // every part of a closed loop reaches both of its sides
  expect(crossings(drawing)).toBeLessThanOrEqual(id === "hydrostatic" ? 8 : 6);
  expect(netlist.gauges.map((g) => g.pointId)).toEqual(
    expect.arrayContaining(components.flatMap((c, i) => c.points.map((_, k) => `c${i}p${k}`))),
  );
  for (const g of netlist.gauges) expect(drawing.ports[`${g.element}/${g.port}`]).toBeDefined();
});
