import { expect, test } from "@jest/globals";
import { agrees, distanceOf, matchOf, type Modelled } from "./match";

const gauge = (pointId: string, value: number, uncertainty: number) => ({ pointId, value, uncertainty });
const same = (value: number | null, reads: Modelled["reads"] = "pressure"): Modelled => ({
  reads,
  healthy: value,
  value,
});

test("a gauge agrees within two standard uncertainties of its own and two percent of the model together", () => {
  // hypot(3, 0.02 x 200) = 5
  expect(distanceOf(gauge("a", 210, 3), same(200))).toBeCloseTo(2);
  expect(agrees(distanceOf(gauge("a", 209.9, 3), same(200)))).toBe(true);
  expect(agrees(distanceOf(gauge("a", 210.1, 3), same(200)))).toBe(false);
  expect(agrees(distanceOf(gauge("a", 189.9, 3), same(200)))).toBe(false);
});

test("a change that is foretold is uncertain by a seventh of it, of a temperature by most of it", () => {
  const moved = (reads: Modelled["reads"]): Modelled => ({ reads, healthy: 0, value: 100 });
  expect(distanceOf(gauge("a", 70, 0), moved("pressure"))).toBeCloseTo(-2);
  expect(distanceOf(gauge("a", 0, 0), moved("temperature"))).toBeCloseTo(-1.25);
});

test("what the model does not know neither agrees nor disagrees", () => {
  const gauges = [gauge("a", 10, 1), gauge("b", 20, 1), gauge("c", 5, 1)];
  const values: Record<string, number | null> = { a: 10.5, b: 40, c: null };
  expect(matchOf(gauges, (id) => same(values[id]!))).toEqual({ agree: 1, of: 2 });
  expect(agrees(distanceOf(gauges[0]!, { ...same(10), value: undefined }))).toBe(false);
});
