import fc from "fast-check";
import { leakFromCreep, leakFromDecay } from "./decay";
import { holdingMargin } from "./margin";

describe("pressure decay", () => {
  test("5 L, 1 bar/min: 0.357 mL/min", () =>
    expect(leakFromDecay({ volume: 5, pressureFall: 1, temperatureRise: 0 }).leak * 1000).toBeCloseTo(0.357, 3));
  test("0.1 K/min of cooling looks like 0.9 bar/min and is subtracted", () => {
    const cooled = leakFromDecay({ volume: 5, pressureFall: 1.9, temperatureRise: -0.1 });
    expect(cooled.byTemperature).toBeCloseTo(0.9, 9);
    expect(cooled.leak * 1000).toBeCloseTo(0.357, 3);
  });
  test("creep", () => {
    expect(leakFromCreep(10_000, 2)).toBeCloseTo(0.02, 12);
    expect(() => leakFromCreep(0, 1)).toThrow(RangeError);
    expect(() => leakFromDecay({ volume: 0, pressureFall: 1, temperatureRise: 0 })).toThrow(RangeError);
  });
});

describe("holding margin", () => {
  const areas = { loadArea: 100, oppositeArea: 140 };
  test("F/A 100 bar, φ 1.4, R 4: opens at 38.5 bar with 153.8 bar at the load side", () => {
    const m = holdingMargin({ loadPressure: 100, oppositePressure: 0, ...areas }, { kind: "pilotCheck", ratio: 4 });
    expect(m.opensAt).toBeCloseTo(38.46, 2);
    expect(m.loadPressureThere).toBeCloseTo(153.85, 2);
  });
  test("where both pressures stand on the balance's line, the opening pressure is the same", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 30, noNaN: true }), (po) => {
        const m = holdingMargin(
          { loadPressure: 100 + 1.4 * po, oppositePressure: po, ...areas },
          { kind: "pilotCheck", ratio: 4 },
        );
        expect(m.loadTerm).toBeCloseTo(100, 9);
        expect(m.opensAt).toBeCloseTo(100 / 2.6, 9);
        expect(m.margin).toBeCloseTo(100 / 2.6 - po, 9);
      }),
    );
  });
  test("never by this path when R is at most φ", () =>
    expect(
      holdingMargin({ loadPressure: 100, oppositePressure: 0, ...areas }, { kind: "pilotCheck", ratio: 1.4 }),
    ).toMatchObject({ opensAt: null, margin: null, timeToOpening: null }));
  test("outside pilot: check valve 33.3 bar, counterbalance set 130 bar: 10 bar", () => {
    const readings = { loadPressure: 100, oppositePressure: 0, ...areas };
    expect(holdingMargin(readings, { kind: "pilotCheck", ratio: 3, pilot: "outside" }).opensAt).toBeCloseTo(33.33, 2);
    expect(
      holdingMargin(readings, { kind: "counterbalance", ratio: 3, setting: 130, pilot: "outside" }).opensAt,
    ).toBeCloseTo(10, 9);
  });
  test("undrained pilot with back pressure: 56.7 bar for 150, 10, R 3", () =>
    expect(
      holdingMargin(
        { loadPressure: 150, oppositePressure: 0, ...areas },
        { kind: "pilotCheck", ratio: 3, pilot: "outside", backPressure: 10 },
      ).opensAt,
    ).toBeCloseTo(56.67, 2));
  test("back pressure raises an unvented counterbalance setting by p·(1 + R)", () => {
    const readings = { loadPressure: 100, oppositePressure: 0, ...areas };
    expect(
      holdingMargin(readings, { kind: "counterbalance", ratio: 3, setting: 130, pilot: "outside", backPressure: 5 })
        .opensAt,
    ).toBeCloseTo((130 + 20 - 100) / 3, 9);
  });
  test("time to opening with its doubt; none when nothing rises", () => {
    const m = holdingMargin(
      { loadPressure: 114, oppositePressure: 10, ...areas, rise: { perMinute: 0.7, uncertainty: 0.1 } },
      { kind: "pilotCheck", ratio: 4 },
    );
    expect(m.timeToOpening!.p50).toBeCloseTo(28.46 / 0.7, 1);
    expect(m.timeToOpening!.p10).toBeLessThan(m.timeToOpening!.p50);
    expect(m.timeToOpening!.p90!).toBeGreaterThan(m.timeToOpening!.p50);
    expect(
      holdingMargin(
        { loadPressure: 114, oppositePressure: 10, ...areas, rise: { perMinute: 0.1, uncertainty: 0.1 } },
        { kind: "pilotCheck", ratio: 4 },
      ).timeToOpening!.p90,
    ).toBeNull();
    expect(
      holdingMargin(
        { loadPressure: 114, oppositePressure: 10, ...areas, rise: { perMinute: 0, uncertainty: 0.1 } },
        { kind: "pilotCheck", ratio: 4 },
      ).timeToOpening,
    ).toBeNull();
    expect(
      holdingMargin(
        { loadPressure: 170, oppositePressure: 50, ...areas, rise: { perMinute: 1, uncertainty: 0.1 } },
        { kind: "pilotCheck", ratio: 4 },
      ).timeToOpening,
    ).toEqual({ p10: 0, p50: 0, p90: 0 });
  });
  test("the intensified load side is held against its rating", () => {
    const readings = { loadPressure: 100, oppositePressure: 0, ...areas };
    expect(holdingMargin({ ...readings, rating: 150 }, { kind: "pilotCheck", ratio: 4 }).overRating).toBe(true);
    expect(holdingMargin({ ...readings, rating: 160 }, { kind: "pilotCheck", ratio: 4 }).overRating).toBe(false);
  });
  test("refuses what cannot be", () => {
    expect(() =>
      holdingMargin(
        { loadPressure: 1, oppositePressure: 0, loadArea: 0, oppositeArea: 1 },
        { kind: "pilotCheck", ratio: 4 },
      ),
    ).toThrow(RangeError);
    expect(() =>
      holdingMargin({ loadPressure: 1, oppositePressure: 0, ...areas }, { kind: "pilotCheck", ratio: 0 }),
    ).toThrow(RangeError);
    expect(() =>
      holdingMargin({ loadPressure: 1, oppositePressure: 0, ...areas }, { kind: "counterbalance", ratio: 3 }),
    ).toThrow(/setting/);
  });
});
