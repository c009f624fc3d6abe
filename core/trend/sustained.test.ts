import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { random } from "../random/random";
import { mannKendall } from "./mannKendall";
import { sustained, type TrendLevels } from "./sustained";

const levels: TrendLevels = { proves: 0.01, releases: 0.5, rises: 0.9, falls: 0.2 };
const all = (n: number, chance = 1) => Array.from({ length: n }, () => chance);
const line = (n: number, slope: number, noise: number, seed: number) => {
  const rng = random(seed);
  return Array.from({ length: n }, (_, i) => slope * i + noise * rng.normal());
};

describe("a trend that stands", () => {
  test("is proved where Mann and Kendall prove it and the rate matters", () => {
    const values = line(20, 0.2, 0.3, 1);
    expect(mannKendall(values).p).toBeLessThan(0.01);
    expect(sustained(values, all(20), levels)).toBe(true);
    expect(sustained(values, all(20, 0.5), levels)).toBe(false);
    expect(sustained(values.slice(0, 3), all(3), levels)).toBe(false);
  });
  test("does not fall with one reading that is low, nor with a chance that wavers", () => {
    const values = line(20, 0.2, 0.3, 1);
    expect(sustained([...values, values[3]!], [...all(20), 0.6], levels)).toBe(true);
  });
  test("is given up when the rate no longer matters", () => {
    const values = line(20, 0.2, 0.3, 1);
    expect(sustained([...values, values[19]!], [...all(20), 0.1], levels)).toBe(false);
  });
  test("is given up when the course has levelled off, once the readings say so", () => {
    const up = line(12, 0.3, 0.05, 2);
    const down = line(40, -0.1, 0.05, 3).map((v) => v + up[11]!);
    expect(sustained(up, all(12), levels)).toBe(true);
    expect(sustained([...up, ...down], [...all(12), ...all(40, 0.05)], levels)).toBe(false);
  });
  test("is hardly ever seen in readings that go nowhere, even where the rate were believed", () => {
    const seen = Array.from({ length: 200 }, (_, seed) => sustained(line(40, 0, 1, seed + 10), all(40), levels));
    expect(seen.filter(Boolean).length / 200).toBeLessThan(0.2);
  });
  test("says something of whatever comes", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { maxLength: 60 }), (values) => {
        expect(typeof sustained(values, all(values.length), levels)).toBe("boolean");
      }),
    );
  });
});
