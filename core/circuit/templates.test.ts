import { describe, expect, test } from "@jest/globals";
import { draftCircuit } from "./draft";
import { netlistProblems } from "./netlist";
import { workCommands } from "./gauges";
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

test("grades lie within a tenth of their number at 40 °C (ISO 3448) and thin as oils do", () => {
  for (const [grade, { kv40, kv100 }] of Object.entries(oilGrades)) {
    expect(Math.abs(kv40 / Number(grade.slice(3)) - 1)).toBeLessThanOrEqual(0.1);
    expect(kv100).toBeLessThan(kv40 / 5);
  }
});
