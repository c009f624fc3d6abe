import fc from "fast-check";
import { clearanceAt, clearanceFactor, mixedLeakage, splitLeakage } from "./mixed";

const positive = fc.double({ min: 0.001, max: 5, noNaN: true });

test("a mixed leak is split into its parts again", () => {
  fc.assert(
    fc.property(positive, positive, (laminar, turbulent) => {
      const flow = (pressure: number) => mixedLeakage({ laminar, turbulent }, pressure);
      const found = splitLeakage({ pressure: 50, flow: flow(50) }, { pressure: 200, flow: flow(200) });
      expect(found.laminar / laminar).toBeCloseTo(1, 6);
      expect(found.turbulent / turbulent).toBeCloseTo(1, 6);
    }),
  );
});

test("leakage goes with the cube of the clearance", () => {
  expect(clearanceFactor(10, 20)).toBe(8);
  fc.assert(
    fc.property(positive, fc.double({ min: 1, max: 50, noNaN: true }), (c, factor) =>
      expect(clearanceFactor(c, clearanceAt(c, factor)) / factor).toBeCloseTo(1, 9),
    ),
  );
});

test("refuses what cannot be", () => {
  expect(() => splitLeakage({ pressure: 50, flow: 1 }, { pressure: 50, flow: 1 })).toThrow(RangeError);
  expect(() => mixedLeakage({ laminar: 1, turbulent: 1 }, -1)).toThrow(RangeError);
  expect(() => clearanceFactor(0, 1)).toThrow(RangeError);
  expect(() => clearanceAt(1, 0)).toThrow(RangeError);
});
