import { expect, test } from "@jest/globals";
import { pressureAt } from "./scenarios";

test("between two moments the pressure is between theirs; before and after, that of the ends", () => {
  const points: [number, number][] = [
    [0, 0],
    [2, 100],
    [2, 40],
    [6, 60],
  ];
  expect([-1, 0, 1, 4, 6, 9].map((t) => pressureAt({ points }, t))).toEqual([0, 0, 50, 50, 60, 60]);
  // at a jump the first of the two values
  expect(pressureAt({ points }, 2)).toBe(100);
});
