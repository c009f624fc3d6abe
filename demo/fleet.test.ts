import { DAY, limitProblem, quantityOf, random } from "@core";
import { fleetPlan } from "./fleet";
import { readPoint, roundTimes } from "./readings";
import { fluidPlans, instrumentPlans } from "./world";

const plan = fleetPlan();
const NOW = Date.UTC(2026, 10, 24, 9);

test("the harbour is as large as it should be, and the same every time", () => {
  expect(plan).toHaveLength(24);
  const components = plan.flatMap((m) => m.components);
  expect(components.length).toBeGreaterThanOrEqual(60);
  expect(components.flatMap((c) => c.points).length).toBeGreaterThanOrEqual(300);
  expect(fleetPlan()).toEqual(plan);
});

test("names, fluids, instruments and limits are sound", () => {
  expect(new Set(plan.map((m) => m.tag)).size).toBe(plan.length);
  for (const machine of plan) {
    expect(fluidPlans.map((f) => f.name)).toContain(machine.fluid);
    for (const c of machine.components)
      for (const p of c.points) {
        if (p.instrument) expect(instrumentPlans.map((i) => i.tag)).toContain(p.instrument);
        const fullFlow = c.displacement && c.speed ? (c.displacement * c.speed) / 1000 : undefined;
        expect(
          limitProblem(p.limit!, quantityOf(p.quantity).harm, {
            ...(fullFlow !== undefined && { fullFlow }),
            baseline: p.asNew,
          }),
        ).toBeUndefined();
      }
  }
});

test("pump A of the outer gate north truly crosses its limit ninety days after the load", () => {
  const machine = plan.find((m) => m.name === "Outer gate north")!;
  const point = machine.components.find((c) => c.name === "Pump A")!.points[0]!;
  const start = NOW - 1900 * DAY;
  const hours = (at: number) => ((at - start) / DAY) * machine.hoursPerDay;
  const truth = (days: number) =>
    readPoint(point, machine, () => fluidPlans[0]!, [NOW + days * DAY], NOW, start, hours, undefined, random(1))[0]!
      .truth;
  expect(truth(89)).toBeLessThan(6.525);
  expect(truth(91)).toBeGreaterThan(6.52);
});

test("rounds end when they should, oldest first, in working hours", () => {
  const times = roundTimes(NOW, 32, random(3));
  expect(times).toEqual([...times].sort((a, b) => a - b));
  expect(Math.floor(NOW / DAY) - Math.floor(times.at(-1)! / DAY)).toBe(32);
});
