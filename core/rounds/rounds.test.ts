import { DAY } from "../units/time";
import fc from "fast-check";
import { readingInterval } from "./interval";
import { judgeRepeats } from "./repeats";

describe("interval", () => {
  test("as usual without a crossing in sight, closer as it nears, never under a week", () => {
    expect(readingInterval(30, null, 0)).toBe(30);
    expect(readingInterval(30, 400 * DAY, 0)).toBe(30);
    expect(readingInterval(30, 90 * DAY, 0)).toBe(15);
    expect(readingInterval(30, 10 * DAY, 0)).toBe(7);
    expect(readingInterval(30, -10 * DAY, 0)).toBe(7);
    expect(readingInterval(5, 10 * DAY, 0)).toBe(5);
    expect(() => readingInterval(0, null, 0)).toThrow(RangeError);
  });
  test("never longer as the end nears", () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 900 }), fc.integer({ min: 0, max: 300 }), (a, b) =>
        expect(readingInterval(30, a * DAY, 0)).toBeLessThanOrEqual(readingInterval(30, (a + b) * DAY, 0)),
      ),
    ));
});

describe("repeats", () => {
  test("two that agree are kept, two that disagree ask for a third", () => {
    expect(judgeRepeats([], 1).value).toBeNull();
    expect(judgeRepeats([7.9], 0.3).value).toBeNull();
    expect(judgeRepeats([7.9, 8.0], 0.3).value).toBeCloseTo(7.95, 9);
    expect(judgeRepeats([7.9, 5.8], 0.3)).toMatchObject({ value: null, message: expect.stringContaining("third") });
    expect(judgeRepeats([7.9, 5.8, 5.9], 0.3).value).toBeCloseTo(5.85, 9);
    expect(judgeRepeats([7.9, 5.8, 6.9], 0.3)).toMatchObject({
      value: 6.9,
      message: expect.stringContaining("marked"),
    });
    expect(() => judgeRepeats([1], 0)).toThrow(RangeError);
  });
});
