import fc from "fast-check";
import { gradeOf, viscosityGrades } from "./grade";
import { gapPressureFactor, viscosityUnderPressure } from "./pressureViscosity";
import { fluidSuitability, usualPumpNeed } from "./suitability";
import { solubilityFrom, waterSaturation, waterShare } from "./water";

describe("ISO 3448", () => {
  test.each([
    [46, 46, true],
    [41.4, 46, true],
    [50.6, 46, true],
    [51, 46, false],
    [54, 46, false],
    [61.2, 68, true],
    [39, 46, false],
  ])("%d mm²/s: nearest grade %d, within: %s", (kv40, grade, within) =>
    expect(gradeOf(kv40)).toMatchObject({ grade, within }),
  );
  test("every grade lies in its own band only", () => {
    for (const grade of viscosityGrades)
      expect(viscosityGrades.filter((g) => grade >= 0.9 * g && grade <= 1.1 * g)).toEqual([grade]);
    expect(() => gradeOf(0)).toThrow(RangeError);
  });
});

describe("viscosity under pressure, Barus", () => {
  test("18 % less leakage at 200 bar than linear", () => expect(gapPressureFactor(200)).toBeCloseTo(0.824, 3));
  test("half as thick again at 200 bar", () =>
    expect(viscosityUnderPressure(30, 200)).toBeCloseTo(30 * Math.exp(0.4), 9));
  test("the factor is the mean of 1/μ over the gap", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 500, noNaN: true }),
        fc.double({ min: 1e-4, max: 5e-3, noNaN: true }),
        (p, alpha) => {
          const steps = 2000;
          let sum = 0;
          for (let i = 0; i < steps; i++) sum += 1 / viscosityUnderPressure(1, ((i + 0.5) / steps) * p, alpha);
          expect(gapPressureFactor(p, alpha)).toBeCloseTo(sum / steps, 5);
        },
      ),
      { numRuns: 25 },
    );
  });
  test("edges", () => {
    expect(gapPressureFactor(0)).toBe(1);
    expect(() => gapPressureFactor(-1)).toThrow(RangeError);
    expect(() => viscosityUnderPressure(1, 1, 1)).toThrow(RangeError);
  });
});

describe("water", () => {
  const oil = solubilityFrom({ temperature: 20, ppm: 120 }, { temperature: 80, ppm: 600 });
  test("passes through both values, in either order", () => {
    expect(waterSaturation(20, oil)).toBeCloseTo(120, 6);
    expect(waterSaturation(80, oil)).toBeCloseTo(600, 6);
    expect(solubilityFrom({ temperature: 80, ppm: 600 }, { temperature: 20, ppm: 120 })).toEqual(oil);
  });
  test("water that is dissolved warm is free when cold", () => {
    expect(waterShare(300, 80, oil)).toBeCloseTo(50, 6);
    expect(waterShare(300, 20, oil)).toBeGreaterThan(100);
  });
  test("refuses what cannot be", () => {
    expect(() => solubilityFrom({ temperature: 20, ppm: 120 }, { temperature: 80, ppm: 100 })).toThrow(RangeError);
    expect(() => waterSaturation(500, oil)).toThrow(RangeError);
    expect(() => waterShare(-1, 20, oil)).toThrow(RangeError);
  });
});

describe("suitability", () => {
  const vg46 = { kv40: 46, kv100: 6.8, type: "mineral" as const };
  test("VG 46 suits a piston pump from 0 to 70 °C", () =>
    expect(fluidSuitability(vg46, usualPumpNeed, { start: 0, working: 50, hottest: 70 }).map((f) => f.verdict)).toEqual(
      ["good", "good", "good", "good"],
    ));
  test("too cold, too hot, thick at work, wrong type", () => {
    const found = fluidSuitability({ ...vg46, type: "hfa" }, usualPumpNeed, { start: -25, working: 35, hottest: 95 });
    expect(found.map((f) => f.verdict)).toEqual(["bad", "outsideBest", "bad", "bad"]);
    expect(fluidSuitability(vg46, usualPumpNeed, { start: 20, working: 74, hottest: 80 })[1]!.message).toContain(
      "thinner",
    );
    expect(fluidSuitability(vg46, usualPumpNeed, { start: 20, working: 95, hottest: 95 })[1]!.verdict).toBe("bad");
    expect(() =>
      fluidSuitability(vg46, { ...usualPumpNeed, bestLow: 99 }, { start: 0, working: 50, hottest: 70 }),
    ).toThrow(RangeError);
  });
});
