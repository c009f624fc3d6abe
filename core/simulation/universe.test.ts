import { describe, expect, test } from "@jest/globals";
import { random } from "../random/random";
import { universeCourse, universeFamilies } from "./universe";

describe.each(universeFamilies)("family %s", (family) => {
  const courses = Array.from({ length: 6 }, (_, i) => universeCourse(family, random(i + 1).fork(family), 10_000, 4));
  test("wears from as new, never heals, and reaches its limit about when it should", () => {
    for (const course of courses) {
      let before = course(0);
      expect(before).toBeCloseTo(1, 2);
      for (let hours = 0; hours <= 15_000; hours += 100) {
        const now = course(hours);
        expect(now).toBeGreaterThanOrEqual(before - 1e-9);
        before = now;
      }
      expect(course(9_500)).toBeLessThanOrEqual(4 + 1e-6);
      expect(course(10_500)).toBeGreaterThan(3.4);
    }
  });
  test("its changes lie within the life, in order", () => {
    for (const { changes } of courses) {
      expect([...changes].sort((a, b) => a - b)).toEqual([...changes]);
      for (const at of changes) expect(at >= 0 && at <= 12_000).toBe(true);
    }
  });
  test("no two lives of it are alike, and the same seed is the same life", () => {
    const middles = courses.map((c) => c(5_000));
    expect(new Set(middles.map((m) => m.toFixed(6))).size).toBe(middles.length);
    const again = universeCourse(family, random(1).fork(family), 10_000, 4);
    expect(again(5_000)).toBe(middles[0]);
  });
});
