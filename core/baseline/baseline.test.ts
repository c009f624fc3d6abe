import fc from "fast-check";
import { baselineOf, makersBaseline } from "./baseline";
import { limitProblem, resolveLimits } from "./limit";
import { leavesMargin, nearestSide, usedTowards } from "./margin";
import { sameMonthOf } from "./sameMonth";

const readings = (values: number[], step = 100) =>
  values.map((value, i) => ({ hours: i * step, value, uncertainty: 0.02 }));

describe("baseline", () => {
  test("robust against an odd reading, and leaves out the run-in", () => {
    const b = baselineOf(readings([9, 2, 2.1, 1.9, 2, 8, 2.05, 1.95]), { runInHours: 50 })!;
    expect(b.centre).toBeCloseTo(2, 1);
    expect(b.spread).toBeLessThan(0.2);
    expect(b).toMatchObject({ readings: 7, provisional: true });
  });
  test("never narrower than the readings' own uncertainty", () =>
    expect(baselineOf(readings([2, 2, 2, 2]))!.spread).toBe(0.02));
  test("takes the first twelve at most, and none from nothing", () => {
    expect(baselineOf(readings(Array.from({ length: 40 }, () => 2)))!.readings).toBe(12);
    expect(baselineOf([])).toBeUndefined();
  });
  test("run-in readings serve when there is nothing else", () =>
    expect(baselineOf(readings([2, 2.1]), { runInHours: 5000 })!.readings).toBe(2));
  test("a manufacturer's figure is no provisional one", () =>
    expect(makersBaseline(1.5, 0.1)).toMatchObject({ centre: 1.5, provisional: false }));
});

describe("limits", () => {
  test("by their basis", () => {
    expect(resolveLimits({ basis: "shareOfFullFlow", upper: 10, lower: null }, { fullFlow: 65.25 })).toMatchObject({
      ok: true,
      limits: { upper: expect.closeTo(6.525, 9), lower: null },
    });
    expect(resolveLimits({ basis: "multipleOfNew", upper: 3, lower: null }, { baseline: 1.4 })).toMatchObject({
      limits: { upper: expect.closeTo(4.2, 9) },
    });
    expect(resolveLimits({ basis: "maker", upper: 4, lower: 2 }, {})).toEqual({
      ok: true,
      limits: { upper: 4, lower: 2 },
    });
  });
  test("say what they need", () => {
    expect(resolveLimits({ basis: "shareOfFullFlow", upper: 10, lower: null }, {})).toMatchObject({
      ok: false,
      message: expect.stringContaining("displacement"),
    });
    expect(resolveLimits({ basis: "multipleOfNew", upper: 3, lower: null }, {})).toMatchObject({ ok: false });
    expect(resolveLimits({ basis: "absolute", upper: null, lower: null }, {})).toMatchObject({ ok: false });
  });
  test.each([
    [{ basis: "absolute", upper: null, lower: 3 }, "rising", {}, /upper limit/],
    [{ basis: "absolute", upper: 3, lower: null }, "falling", {}, /lower limit/],
    [{ basis: "absolute", upper: null, lower: null }, "both", {}, /upper or a lower/],
    [{ basis: "absolute", upper: 3, lower: 5 }, "both", {}, /above the lower/],
    [{ basis: "multipleOfNew", upper: 0.9, lower: null }, "rising", {}, /above 1/],
    [{ basis: "absolute", upper: 5, lower: null }, "rising", { baseline: 5 }, /no margin/],
    [{ basis: "shareOfFullFlow", upper: 10, lower: null }, "rising", {}, /displacement/],
  ] as const)("%p for a %s quantity is refused", (rule, harm, scale, message) =>
    expect(limitProblem(rule, harm, scale)).toMatch(message),
  );
  test("a sound one is not", () =>
    expect(limitProblem({ basis: "absolute", upper: 5, lower: null }, "rising", { baseline: 2 })).toBeUndefined());
});

describe("margin used", () => {
  const upper = (limit: number) => ({ side: "upper" as const, limit });
  const lower = (limit: number) => ({ side: "lower" as const, limit });
  test("0 as new, 1 at the limit, for rising and falling alike", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -100, max: 100, noNaN: true }),
        fc.double({ min: 0.1, max: 100, noNaN: true }),
        fc.boolean(),
        (b, span, falls) => {
          const side = falls ? lower(b - span) : upper(b + span);
          expect(usedTowards(b, b, side)).toBeCloseTo(0, 9);
          expect(usedTowards(side.limit, b, side)).toBeCloseTo(1, 9);
        },
      ),
    );
  });
  test("two-sided: the larger side", () => {
    expect(nearestSide(19, 20, { upper: 30, lower: 18 })).toEqual(lower(18));
    expect(nearestSide(25, 20, { upper: 30, lower: 10 })).toEqual(upper(30));
    expect(nearestSide(25, 20, { upper: null, lower: 10 })).toEqual(lower(10));
    expect(() => nearestSide(1, 2, { upper: null, lower: null })).toThrow(RangeError);
  });
  test("a baseline beyond its limit: 1 at the limit, more beyond it, less within", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.double({ min: 1, max: 100, noNaN: true }),
        fc.boolean(),
        (past, limit, falls) => {
          const [side, baseline] = falls ? [lower(limit), limit - past] : [upper(limit), limit + past];
          expect(leavesMargin(baseline, side)).toBe(false);
          expect(usedTowards(limit, baseline, side)).toBeCloseTo(1, 9);
          expect(usedTowards(baseline, baseline, side)).toBeGreaterThanOrEqual(1);
          expect(usedTowards(falls ? limit + 1 : limit - 1, baseline, side)).toBeLessThan(1);
        },
      ),
    );
    expect(usedTowards(9, 9, upper(6))).toBeCloseTo(1.5, 9);
    expect(nearestSide(250, 250, { upper: 200, lower: 150 })).toEqual(upper(200));
    expect(Number.isFinite(usedTowards(0, 0, lower(0)))).toBe(true);
  });
});

describe("same month of earlier years", () => {
  const at = (y: number, m: number, d = 15) => Date.UTC(y, m - 1, d, 12);
  test("December and January are neighbours; this year does not count", () => {
    const list = [
      { at: at(2024, 12), value: 1 },
      { at: at(2025, 1), value: 2 },
      { at: at(2025, 2), value: 3 },
      { at: at(2025, 6), value: 50 },
      { at: at(2025, 12, 20), value: 99 },
    ];
    expect(sameMonthOf(list, at(2026, 1), "Europe/London")).toEqual({
      month: 1,
      median: 2,
      least: 1,
      greatest: 3,
      readings: 3,
    });
  });
  test("not shown with fewer than three", () =>
    expect(sameMonthOf([{ at: at(2024, 12), value: 1 }], at(2026, 1), "Europe/London")).toBeUndefined());
  test("the month is the site's, not Greenwich's", () => {
    const night = Date.UTC(2026, 0, 31, 20); // 1 February in Auckland
    expect(
      sameMonthOf(
        [1, 2, 3].map((d) => ({ at: at(2024, 3, d), value: d })),
        night,
        "Pacific/Auckland",
      )?.month,
    ).toBe(2);
  });
});

test("a part that wears while its baseline is taken gets its level at the first reading; the doubt is that of a median", () => {
  const worn = Array.from({ length: 12 }, (_, i) => ({
    hours: i * 500,
    value: 2 + 0.2 * i + 0.01 * ((i * 7) % 3),
    uncertainty: 0.04,
  }));
  const b = baselineOf(worn)!;
  expect(b.centre).toBeCloseTo(2, 1);
  expect(b.spread).toBeCloseTo(0.04, 9);
  expect(b.uncertainty).toBeCloseTo((1.253 * 0.04) / Math.sqrt(12), 9);
  // scatter without a proved slope: the plain median
  expect(
    baselineOf([2, 2.2, 1.9, 2.1, 2].map((value, i) => ({ hours: i * 100, value, uncertainty: 0.01 })))!.centre,
  ).toBe(2);
});
