import fc from "fast-check";
import {
  densityAt,
  dynamicViscosity,
  kinematicViscosity,
  viscosityTemperatureSensitivity,
  waltherConstants,
} from "./viscosity";

const vg46 = { kv40: 46, kv100: 6.8 };

test("gives back the two viscosities that it was made from", () => {
  fc.assert(
    fc.property(
      fc.double({ min: 10, max: 700, noNaN: true }),
      fc.double({ min: 2.1, max: 9.9, noNaN: true }),
      (kv40, kv100) => {
        expect(kinematicViscosity({ kv40, kv100 }, 40)).toBeCloseTo(kv40, 6);
        expect(kinematicViscosity({ kv40, kv100 }, 100)).toBeCloseTo(kv100, 6);
      },
    ),
  );
});

test("falls with temperature", () => {
  fc.assert(
    fc.property(fc.double({ min: -30, max: 140, noNaN: true }), (t) =>
      expect(kinematicViscosity(vg46, t)).toBeGreaterThan(kinematicViscosity(vg46, t + 1)),
    ),
  );
});

test("holds for thin liquids too: water between its stated viscosities, and no step where the law changes", () => {
  const water = { kv40: 0.658, kv100: 0.294 };
  expect(kinematicViscosity(water, 40)).toBeCloseTo(0.658, 2);
  expect(kinematicViscosity(water, 100)).toBeCloseTo(0.294, 2);
  // 0.474 mm²/s at 60 °C (tables of water; memory)
  expect(kinematicViscosity(water, 60)).toBeGreaterThan(0.45);
  expect(kinematicViscosity(water, 60)).toBeLessThan(0.5);
  const thin = { kv40: 5, kv100: 1.7 };
  const steps = Array.from({ length: 200 }, (_, i) => kinematicViscosity(thin, 60 + i / 4));
  for (const [i, v] of steps.entries()) if (i > 0) expect(steps[i - 1]! - v).toBeLessThan(0.05);
});

test("refuses what the method does not cover", () => {
  expect(() => waltherConstants({ kv40: 46, kv100: 0.2 })).toThrow(/ASTM D341/);
  expect(() => waltherConstants({ kv40: 5, kv100: 6 })).toThrow(RangeError);
  expect(() => kinematicViscosity(vg46, 400)).toThrow(RangeError);
});

test("density, dynamic viscosity and its sensitivity", () => {
  expect(densityAt(870, 15)).toBe(870);
  expect(densityAt(870, 55)).toBe(844);
  expect(dynamicViscosity({ ...vg46, density15: 870 }, 40)).toBeCloseTo((46 * 853.75) / 1000, 6);
  // common practice: about 0.04 per K for VG 46 at 50 °C
  expect(viscosityTemperatureSensitivity({ ...vg46, density15: 870 }, 50)).toBeCloseTo(0.04, 2);
});
