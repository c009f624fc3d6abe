/** @jest-environment node */
import { describe, expect, test } from "@jest/globals";
import { draftCircuit, type DraftComponent, type Drawing } from "@core";
import { layOut } from "~/domain/circuits/layout";
import { fleetPlan } from "./fleet";

const drawn = (machine: ReturnType<typeof fleetPlan>[number]) => {
  const components = machine.components.map((c, i): DraftComponent => ({
    id: `c${i}`,
    kind: c.kind,
    name: c.name,
    displacement: c.displacement ?? null,
    speed: c.speed ?? null,
    points: c.points.map((p, k) => ({ id: `c${i}p${k}`, name: p.name, quantity: p.quantity })),
  }));
  return draftCircuit({ workingPressure: machine.pressure, components }).netlist;
};

/** Does a point lie on one of the straight pieces of a line? */
function liesOn([x, y]: [number, number], points: [number, number][]): boolean {
  return points.slice(1).some((b, i) => {
    const a = points[i]!;
    const [x0, x1] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
    const [y0, y1] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
    return x >= x0 - 1 && x <= x1 + 1 && y >= y0 - 1 && y <= y1 + 1;
  });
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
    const netlist = drawn(machine);
    const drawing = await layOut(netlist);
    for (const w of drawing.wires)
      w.points.slice(1).forEach((b, i) => {
        const a = w.points[i]!;
        expect(Math.min(Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1]))).toBeLessThan(0.5);
      });
    for (const [i, p] of drawing.parts.entries())
      for (const q of drawing.parts.slice(i + 1))
        expect(p.x + p.width <= q.x || q.x + q.width <= p.x || p.y + p.height <= q.y || q.y + q.height <= p.y).toBe(
          true,
        );
    for (const g of netlist.gauges) expect(drawing.ports[`${g.element}/${g.port}`]).toBeDefined();
    // no line ends in the air, and none runs through a symbol
    const ends = [...Object.values(drawing.ports), ...drawing.tanks.map((t) => [t.x + 16, t.y] as const)];
    for (const [i, w] of drawing.wires.entries()) {
      for (const end of [w.points[0]!, w.points.at(-1)!]) {
        const atPort = ends.some(([x, y]) => Math.abs(x - end[0]) < 1 && Math.abs(y - end[1]) < 1);
        expect(atPort || drawing.wires.some((other, k) => k !== i && liesOn(end, other.points))).toBe(true);
      }
      w.points.slice(1).forEach((b, k) => {
        const a = w.points[k]!;
        for (const p of drawing.parts) {
          const inside =
            Math.max(a[0], b[0]) > p.x + 3 &&
            Math.min(a[0], b[0]) < p.x + p.width - 3 &&
            Math.max(a[1], b[1]) > p.y + 3 &&
            Math.min(a[1], b[1]) < p.y + p.height - 3;
          expect(inside).toBe(false);
        }
      });
    }
    expect(crossings(drawing)).toBeLessThanOrEqual(6);
    expect(drawing.width).toBeLessThan(1700);
  });
});

test("the same circuit is always drawn alike", async () => {
  const netlist = drawn(fleetPlan()[0]!);
  expect(await layOut(netlist)).toEqual(await layOut(netlist));
});
