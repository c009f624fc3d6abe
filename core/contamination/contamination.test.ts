import fc from "fast-check";
import { as4059, as4059Table, nas1638, nas1638Table } from "./classes";
import {
  cleanUpTime,
  correctedPressureDrop,
  countAfter,
  filterEfficiency,
  filtrationRatio,
  ingressFrom,
  steadyCount,
} from "./filter";
import { countsOfCode, iso4406, iso4406Bounds, parseIso4406, scaleNumber } from "./iso4406";
import { overTarget, targetCode } from "./target";
import { wearMetalAmounts } from "./wearMetal";

describe("ISO 4406", () => {
  test("worked example: 1500, 450, 60 per mL is 18/16/13", () =>
    expect(iso4406({ over4: 1500, over6: 450, over14: 60 })).toEqual({ codes: [18, 16, 13], text: "18/16/13" }));
  test.each(iso4406Bounds.map((bound, code) => [code, bound] as const))(
    "number %d goes up to and including %d per mL",
    (code, bound) => {
      expect(scaleNumber(bound)).toBe(code);
      expect(scaleNumber(bound * 1.0001)).toBe(code + 1);
      expect(countsOfCode(code).upTo).toBe(bound);
    },
  );
  test("the bounds are those of the standard: each about twice the one before", () => {
    expect(iso4406Bounds).toHaveLength(29);
    iso4406Bounds.slice(1).forEach((bound, i) => expect(bound / iso4406Bounds[i]!).toBeGreaterThan(1.9));
    iso4406Bounds.slice(1).forEach((bound, i) => expect(bound / iso4406Bounds[i]!).toBeLessThan(2.1));
    expect([iso4406Bounds[10], iso4406Bounds[15], iso4406Bounds[20], iso4406Bounds[24], iso4406Bounds[28]]).toEqual([
      10, 320, 10_000, 160_000, 2_500_000,
    ]);
  });
  test("zero, too many, not counted, few raw particles, beyond the scale", () => {
    expect(iso4406({ over4: 0, over6: 0, over14: 0 }).text).toBe("0/0/0");
    expect(iso4406({ over4: "many", over6: 450, over14: null }).text).toBe("*/16/–");
    expect(iso4406({ over4: 1500, over6: 450, over14: 0.3 }, { raw: { over14: 3 } }).text).toBe("18/16/≥5");
    expect(iso4406({ over4: 3e6, over6: 450, over14: 60 }).text).toBe(">28/16/13");
  });
  test("refuses negative counts and counts that rise with size", () => {
    expect(() => iso4406({ over4: -1, over6: 0, over14: 0 })).toThrow(RangeError);
    expect(() => iso4406({ over4: 100, over6: 200, over14: 10 })).toThrow(/larger size/);
  });
  test("a code read and written again is the same, and counts within its range give it back", () => {
    const code = fc.integer({ min: 0, max: 28 });
    fc.assert(
      fc.property(code, code, code, fc.double({ min: 0.01, max: 1, noNaN: true }), (a, b, c, place) => {
        const [high, middle, low] = [a, b, c].sort((p, q) => q - p) as [number, number, number];
        const text = `${high}/${middle}/${low}`;
        expect(parseIso4406(text).text).toBe(text);
        const count = (n: number) => {
          const { over, upTo } = countsOfCode(n);
          return over + place * (upTo - over);
        };
        expect(iso4406({ over4: count(high), over6: count(middle), over14: count(low) }).text).toBe(text);
      }),
    );
  });
  test.each(["18/16", "a/b/c", "16/18/13", "40/16/13"])("%s is no code", (text) =>
    expect(() => parseIso4406(text)).toThrow(RangeError),
  );
  test("stars, dashes and over 28 are read", () => expect(parseIso4406("*/–/>28").codes).toEqual(["*", null, 29]));
});

describe.each([
  ["NAS 1638", nas1638Table, nas1638, 14],
  ["SAE AS4059", as4059Table, as4059, 15],
] as const)("%s", (_name, table, classify, rows) => {
  test("the table halves from row to row but for rounding, and has every row", () => {
    expect(table.rows).toHaveLength(rows);
    table.sizes.forEach((_, size) =>
      table.rows.slice(1).forEach((row, i) => {
        const [before, here] = [table.rows[i]![size + 1] as number, row[size + 1] as number];
        expect(Math.abs(here / 2 - before)).toBeLessThanOrEqual(Math.max(1, 0.005 * before));
      }),
    );
  });
  test.each(table.rows.map((row) => [row[0], row] as const))(
    "a sample at the limits of row %s has that class, one more particle has the next",
    (name, row) => {
      const limits = row.slice(1) as number[];
      expect(classify(limits).class).toBe(name);
      const index = table.rows.indexOf(row);
      expect(classify([limits[0]! + 1, ...limits.slice(1)]).class).toBe(table.rows[index + 1]?.[0] ?? "> 12");
    },
  );
  test("worse than the last and better than the first are said", () => {
    expect(classify([1e9]).text).toContain("worse than class 12");
    expect(classify([0, 0]).text).toContain("or better");
    expect(() => classify([])).toThrow(RangeError);
    expect(() => classify([-1])).toThrow(RangeError);
    expect(() => classify([1, 1, 1, 1, 1, 1, 1])).toThrow(RangeError);
  });
});

test("the class of a sample is that of its worst size, also by name", () => {
  expect(nas1638([1000, 89, 16, 3, 60])).toMatchObject({
    class: "8",
    decides: "> 100",
    classes: ["2", "1", "1", "1", "8"],
  });
  expect(nas1638({ from5: 1000, over100: 60 })).toMatchObject({ class: "8", classes: ["2", null, null, null, "8"] });
  expect(as4059({ over4: 50_000, over6: 19_462 }).class).toBe("6");
  expect(() => as4059([10, 20])).toThrow(/larger size/);
});

describe("target", () => {
  test("size by size the strictest, stricter above 210 bar", () => {
    expect(targetCode(["gearPump", "servoValve", "cylinder"], 180)).toEqual({
      codes: [16, 14, 11],
      text: "16/14/11",
      decidedBy: ["servoValve"],
    });
    expect(targetCode(["variablePistonPump"], 211).text).toBe("17/15/12");
    expect(targetCode(["variablePistonPump"], 210).text).toBe("18/16/13");
    expect(() => targetCode([], 100)).toThrow(RangeError);
  });
  test("numbers over the target", () =>
    expect(overTarget(iso4406({ over4: "many", over6: 450, over14: null }), targetCode(["servoValve"], 100))).toEqual([
      Infinity,
      2,
      null,
    ]));
});

describe("filter and tank", () => {
  test("β 200 takes 99.5 %", () => expect(filterEfficiency(200)).toBeCloseTo(0.995, 12));
  test("the ratio of counts gives β back", () =>
    fc.assert(
      fc.property(fc.double({ min: 1, max: 5000, noNaN: true }), (beta) =>
        expect(1 / (1 - filterEfficiency(filtrationRatio(beta * 7, 7)))).toBeCloseTo(beta, 4),
      ),
    ));
  test("the steady count is a fixed point, and gives its ingress back", () => {
    const tank = { volume: 400, flow: 60, beta: 200, ingress: 3000 };
    const steady = steadyCount(tank);
    expect(countAfter(tank, steady, 500)).toBeCloseTo(steady, 9);
    expect(ingressFrom(steady, 60, 200)).toBeCloseTo(3000, 9);
  });
  test("the time to a count is when the count is there", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1000, max: 1e5, noNaN: true }),
        fc.double({ min: 100, max: 900, noNaN: true }),
        (from, to) => {
          const tank = { volume: 400, flow: 60, beta: 200, ingress: 3000 };
          const minutes = cleanUpTime(tank, from, to)!;
          expect(countAfter(tank, from, minutes) / to).toBeCloseTo(1, 9);
        },
      ),
    );
  });
  test("a target at or below the steady count is never reached", () => {
    const tank = { volume: 400, flow: 60, beta: 2, ingress: 6000 };
    expect(cleanUpTime(tank, 5000, steadyCount(tank))).toBeNull();
    expect(cleanUpTime(tank, 100, 500)).toBe(0);
  });
  test("differential pressure: twice the viscosity, twice the element's drop; the housing's part goes with the square of the flow", () => {
    expect(correctedPressureDrop({ drop: 2, flow: 60, viscosity: 60 }, { flow: 60, viscosity: 30 })).toBeCloseTo(1, 12);
    expect(
      correctedPressureDrop({ drop: 0.2 * 4 + 1.6, flow: 120, viscosity: 30 }, { flow: 60, viscosity: 30 }, 0.2),
    ).toBeCloseTo(1, 12);
  });
  test("refuses what cannot be", () => {
    expect(() => filterEfficiency(0.9)).toThrow(RangeError);
    expect(() => steadyCount({ flow: 10, beta: 1, ingress: 1 })).toThrow(RangeError);
    expect(() => steadyCount({ flow: 10, beta: 2, ingress: -1 })).toThrow(RangeError);
    expect(() => cleanUpTime({ volume: 0, flow: 1, beta: 2, ingress: 0 }, 2, 1)).toThrow(RangeError);
    expect(() => cleanUpTime({ volume: 1, flow: 1, beta: 2, ingress: 0 }, -2, 1)).toThrow(RangeError);
    expect(() => countAfter({ volume: 0, flow: 1, beta: 2, ingress: 0 }, 2, 1)).toThrow(RangeError);
    expect(() => filtrationRatio(0, 1)).toThrow(RangeError);
    expect(() => correctedPressureDrop({ drop: 1, flow: 0, viscosity: 1 }, { flow: 1, viscosity: 1 })).toThrow(
      RangeError,
    );
  });
});

describe("wear metal corrected for top-ups", () => {
  test("a known rate is recovered within 5 % from a circuit that loses and is topped up", () => {
    // 200 L, 0.02 ppm·L/L an hour made, 10 L lost and filled with new oil (1 ppm) every 250 h
    const volume = 200;
    const rate = 0.02;
    let iron = 1 * volume;
    const samples = [{ hours: 0, concentration: 1 }];
    const events = [];
    for (let h = 1; h <= 3000; h++) {
      iron += rate * volume;
      if (h % 250 === 125) {
        iron -= 10 * (iron / volume);
        iron += 10 * 1;
        events.push({ hours: h, lost: 10, added: 10, newOil: 1 });
      }
      if (h % 250 === 0) samples.push({ hours: h, concentration: iron / volume });
    }
    const amounts = wearMetalAmounts(samples, events, volume);
    const last = amounts.at(-1)!;
    expect(Math.abs((last.corrected - 1) / 3000 - rate) / rate).toBeLessThan(0.05);
    expect((last.raw - 1) / 3000).toBeLessThan(0.8 * rate);
  });
  test("no event: the raw value; out of order or no volume: refused", () => {
    expect(wearMetalAmounts([{ hours: 1, concentration: 3 }], [], 10)).toEqual([{ hours: 1, raw: 3, corrected: 3 }]);
    expect(() =>
      wearMetalAmounts(
        [
          { hours: 2, concentration: 3 },
          { hours: 1, concentration: 3 },
        ],
        [],
        10,
      ),
    ).toThrow(RangeError);
    expect(() => wearMetalAmounts([], [], 0)).toThrow(RangeError);
  });
});
