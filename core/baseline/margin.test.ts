/** Margin used is a number for every limit and baseline that can be entered. */
import fc from "fast-check";
import { leavesMargin, nearestSide, usedTowards, type LimitSide } from "./margin";

test("a limit that cannot be told from the baseline leaves no margin, and what is used of it is still a number", () => {
  const side: LimitSide = { side: "lower", limit: -5e-324 };
  expect(leavesMargin(0, side)).toBe(false);
  expect(usedTowards(0, 0, side)).toBe(1);
});

test("margin used grows towards the limit: nought at the baseline, one at the limit", () => {
  const figure = fc.double({ min: -500, max: 500, noNaN: true });
  fc.assert(
    fc.property(
      figure,
      figure,
      figure,
      fc.constantFrom("upper" as const, "lower" as const),
      (value, base, limit, of) => {
        const side: LimitSide = { side: of, limit };
        expect(Number.isFinite(usedTowards(value, base, side))).toBe(true);
        expect(usedTowards(limit, base, side)).toBeCloseTo(1, 9);
        const nearer = of === "upper" ? value + 1 : value - 1;
        expect(usedTowards(nearer, base, side)).toBeGreaterThan(usedTowards(value, base, side));
        if (leavesMargin(base, side)) expect(usedTowards(base, base, side)).toBeCloseTo(0, 12);
      },
    ),
    { numRuns: 500 },
  );
});

test("of two limits the one of which more is used is the nearer", () => {
  const limits = { upper: 10, lower: 0 };
  expect(nearestSide(9, 5, limits).side).toBe("upper");
  expect(nearestSide(1, 5, limits).side).toBe("lower");
  expect(() => nearestSide(1, 5, { upper: null, lower: null })).toThrow(RangeError);
});
