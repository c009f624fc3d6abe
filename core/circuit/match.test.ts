import { expect, test } from "@jest/globals";
import { agrees, distanceOf, matchOf } from "./match";

const gauge = (pointId: string, value: number, uncertainty: number) => ({ pointId, value, uncertainty });

test("a gauge agrees within two standard uncertainties of its own and two percent of the model together", () => {
  // hypot(3, 0.02 x 200) = 5
  expect(distanceOf(gauge("a", 210, 3), 200)).toBeCloseTo(2);
  expect(agrees(distanceOf(gauge("a", 209.9, 3), 200))).toBe(true);
  expect(agrees(distanceOf(gauge("a", 210.1, 3), 200))).toBe(false);
  expect(agrees(distanceOf(gauge("a", 189.9, 3), 200))).toBe(false);
});

test("what the model does not know neither agrees nor disagrees", () => {
  const gauges = [gauge("a", 10, 1), gauge("b", 20, 1), gauge("c", 5, 1)];
  expect(
    matchOf(
      gauges,
      new Map<string, number | null>([
        ["a", 10.5],
        ["b", 40],
        ["c", null],
      ]),
    ),
  ).toEqual({ agree: 1, of: 2 });
  expect(agrees(distanceOf(gauges[0]!, undefined))).toBe(false);
});
