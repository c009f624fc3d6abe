import fc from "fast-check";
import { random } from "../random/random";
import { cusum, falseAlarmRate } from "./cusum";
import { ewma } from "./ewma";
import { outliers } from "./outliers";
import { stepOrDrift } from "./stepOrDrift";

describe("CUSUM", () => {
  test("counts in sigma from the target, and starts anew on both arms after a signal", () => {
    const c = cusum([10, 12, 12, 12, 12, 10], { target: 10, sigma: 1 });
    expect(c.upper).toEqual([0, 1.5, 3, 4.5, 6, 0]);
    expect(c.signals).toEqual([{ index: 4, arm: "upper", since: 1 }]);
    expect(c.lower.every((v) => v === 0)).toBe(true);
  });
  test("a value exactly at the interval is no signal", () =>
    expect(cusum([15.5], { target: 10, sigma: 1, k: 0.5, h: 5 }).signals).toEqual([]));
  test("mirrored values signal on the other arm", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -4, max: 4, noNaN: true }), { maxLength: 40 }), (values) => {
        const a = cusum(values, { target: 0, sigma: 1 });
        const b = cusum(
          values.map((v) => -v),
          { target: 0, sigma: 1 },
        );
        expect(b.lower).toEqual(a.upper);
        expect(b.signals.map((s) => s.index)).toEqual(a.signals.map((s) => s.index));
      }),
    );
  });
  test("limits from few readings cry wolf", () => {
    const rate = (baseline: number) => falseAlarmRate({ readings: 24, baseline, runs: 1500 });
    expect(rate(5)).toBeGreaterThan(rate(10));
    expect(rate(10)).toBeGreaterThan(rate(20));
    expect(rate(Infinity)).toBeCloseTo(0.04, 1);
    // 0.59 when the MAD goes in without its small-sample factor
    expect(Math.abs(rate(5) - 0.52)).toBeLessThan(0.04);
  });
  test("sigma of zero is refused", () => expect(() => cusum([1], { target: 0, sigma: 0 })).toThrow(RangeError));
});

describe("EWMA", () => {
  test("limits and averages", () => {
    const e = ewma([1, 0], { target: 0, sigma: 1, lambda: 0.5, L: 3 });
    expect(e.values).toEqual([0.5, 0.25]);
    expect(e.upper).toBeCloseTo(3 * Math.sqrt(0.5 / 1.5), 12);
    expect(e.signals).toEqual([]);
    expect(ewma([9, 9], { target: 0, sigma: 1 }).signals).toEqual(
      [0, 1].filter(
        (i) => i >= 0 && ewma([9, 9], { target: 0, sigma: 1 }).values[i]! > ewma([9, 9], { target: 0, sigma: 1 }).upper,
      ),
    );
  });
  test("with lambda 1 it is the values themselves", () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: -9, max: 9, noNaN: true }), { minLength: 1, maxLength: 20 }), (v) =>
        expect(ewma(v, { target: 0, sigma: 1, lambda: 1 }).values.every((x, i) => Math.abs(x - v[i]!) < 1e-12)).toBe(
          true,
        ),
      ),
    ));
  test("refuses what cannot be", () => {
    expect(() => ewma([1], { target: 0, sigma: 0 })).toThrow(RangeError);
    expect(() => ewma([1], { target: 0, sigma: 1, lambda: 1.1 })).toThrow(RangeError);
  });
});

describe("step or drift", () => {
  const rng = random(8);
  const times = Array.from({ length: 30 }, (_, i) => i);
  const noisy = (f: (t: number) => number) => times.map((t) => f(t) + 0.1 * rng.normal());
  test("each is told from the others", () => {
    expect(
      stepOrDrift(
        times,
        noisy(() => 5),
      ).kind,
    ).toBe("none");
    const step = stepOrDrift(
      times,
      noisy((t) => (t >= 18 ? 6 : 5)),
    );
    expect(step).toMatchObject({ kind: "step", at: 18 });
    expect(step.size).toBeCloseTo(1, 0);
    const drift = stepOrDrift(
      times,
      noisy((t) => 5 + 0.05 * t),
    );
    expect(drift.kind).toBe("drift");
    expect(drift.size).toBeCloseTo(1.45, 0);
  });
  test("a series that never moves is no step", () =>
    expect(
      stepOrDrift(
        times,
        times.map(() => 3),
      ).kind,
    ).toBe("none"));
  test("too few values are refused", () => expect(() => stepOrDrift([1, 2], [1, 2])).toThrow(RangeError));
});

describe("outliers", () => {
  test("an odd one is marked, its neighbours are not", () => {
    const rng = random(3);
    const values = Array.from({ length: 25 }, (_, i) => 5 + 0.1 * i + 0.05 * rng.normal());
    values[12]! += 1.5;
    expect(outliers(values).map((o) => o.index)).toEqual([12]);
    expect(outliers(values)[0]!.distance).toBeGreaterThan(4);
  });
  test("few or unmoving values have none", () => {
    expect(outliers([1, 9, 1])).toEqual([]);
    expect(outliers([1, 1, 1, 1, 1, 1])).toEqual([]);
  });
});
