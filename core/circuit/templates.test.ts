import { describe, expect, test } from "@jest/globals";
import { draftCircuit } from "./draft";
import { netlistProblems } from "./netlist";
import { gaugeReader, workCommands } from "./gauges";
import { steadyState } from "./steady";
import { isPointQuantity, quantityOf } from "../units/quantities";
import { machineTemplates, oilGrades, templateIds } from "../equipment/templates";

describe.each(templateIds)("template %s", (id) => {
  const figures = { displacement: 28, speed: 1450, pressure: 180 };
  const components = machineTemplates[id].components(figures);

  test("every limit is one that may be set, and says where it comes from", () => {
    for (const p of components.flatMap((c) => c.points)) {
      expect(isPointQuantity(p.quantity)).toBe(true);
      expect(p.reason).toMatch(/^Rule of thumb: .{6,}/);
      expect(p.conditions.length).toBeGreaterThan(5);
      const { upper, lower } = p.limit;
      expect(upper ?? lower).not.toBeNull();
      if (upper !== null && lower !== null) expect(upper).toBeGreaterThan(lower);
      for (const v of [upper, lower])
        if (v !== null && p.limit.basis === "absolute") expect(v).toBeLessThanOrEqual(quantityOf(p.quantity).greatest);
    }
  });
  test("its circuit draws itself and is solved at work and at rest", () => {
    const { netlist } = draftCircuit({
      workingPressure: figures.pressure,
      components: components.map((c, i) => ({
        ...c,
        id: `c${i}`,
        points: c.points.map((p, k) => ({ ...p, id: `c${i}p${k}` })),
      })),
    });
    expect(netlistProblems(netlist).filter((p) => p.grave)).toEqual([]);
    for (const commands of [workCommands(netlist), {}]) {
      const solved = steadyState(netlist, { commands });
      if (!solved.ok) throw new Error(solved.problem);
    }
  });
});

/** Plates from a power pack on a trolley to a press. */
const plates = [4, 11, 28, 71, 250, 500].flatMap((displacement) =>
  [60, 180, 320].map((pressure) => ({ displacement, speed: 1480, pressure })),
);

test("whatever the plate, a template's circuit is solved and its sound oil stays below 60 °C", () => {
  const told: string[] = [];
  for (const id of templateIds)
    for (const figures of plates) {
      const components = machineTemplates[id].components(figures).map((c, i) => ({
        ...c,
        id: `c${i}`,
        points: [{ id: `p${i}`, name: c.name, quantity: "temperature" as const }],
      }));
      const { netlist } = draftCircuit({ workingPressure: figures.pressure, components });
      const { tank, states } = gaugeReader(netlist, new Map())({ commands: workCommands(netlist) });
      if (!states.work.ok || tank === null || tank > 61) told.push(`${id} ${JSON.stringify(figures)}: ${tank}`);
      // at work most of the flow goes where it is wanted, not over the relief valve
      for (const relief of netlist.elements.filter((e) => e.kind === "relief" && states.work.ok)) {
        const flow = states.work.ok ? Math.abs(states.work.flowOut({ element: relief.id, port: "T" })) : 0;
        if (flow > (0.5 * figures.displacement * figures.speed) / 1000 && id !== "filterCooler" && id !== "pilotClutch")
          told.push(`${id} ${JSON.stringify(figures)}: ${flow.toFixed(0)} L/min over ${relief.name}`);
      }
    }
  expect(told).toEqual([]);
});

test("a plate near the usual one changes nothing, a large one says what was sized", () => {
  const drawn = (displacement: number) =>
    draftCircuit({
      workingPressure: 180,
      components: machineTemplates.fixedRelief
        .components({ displacement, speed: 1450, pressure: 180 })
        .map((c, i) => ({ ...c, id: `c${i}`, points: [] })),
    });
  const check = (d: number, kind: string) => drawn(d).netlist.elements.find((e) => e.kind === kind)!.data;
  expect(check(45, "directional")).toEqual({ centre: 2 });
  expect(check(45, "cylinder")).toMatchObject({ bore: 125, rod: 80, friction: 2 });
  expect(check(450, "directional")).toMatchObject({ k: 251 });
  expect(check(450, "cylinder").bore).toBe(320);
  expect(drawn(450).assumed.join()).toMatch(/sized for about 653 L\/min/);
  expect(drawn(450).assumed.join()).toMatch(/tank and lines are taken to give off/);
  expect(check(4, "cylinder").bore).toBe(40);
  expect(check(4, "fixedPump").slip).toBeLessThan(0.001);
});

test("grades lie within a tenth of their number at 40 °C (ISO 3448) and thin as oils do", () => {
  for (const [grade, { kv40, kv100 }] of Object.entries(oilGrades)) {
    expect(Math.abs(kv40 / Number(grade.slice(3)) - 1)).toBeLessThanOrEqual(0.1);
    expect(kv100).toBeLessThan(kv40 / 5);
  }
});
