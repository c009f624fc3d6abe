/** Samples, codes, targets and what cannot be in a sample. */
import { DAY } from "../units/time";
import fc from "fast-check";
import { censoredQuantile } from "./censored";
import { countFor, sampleCodes } from "./codes";
import { fluidAt } from "../fluid/measured";
import { currentFill, fillAge, measuredViscosities, mixing, mixtureViscosity } from "./fill";
import { incomparable, sampleProblems, type Results } from "./sample";
import { circuitTarget } from "./target";

describe("what cannot be in a sample", () => {
  test.each<[string, Results, string | null, RegExp]>([
    ["over6", { over4: { value: 100 }, over6: { value: 400 } }, null, /cumulative/],
    ["over14", { over4: { value: 100 }, over14: { value: 101 } }, null, /over 14 µm than over 4 µm/],
    ["waterShare", { waterShare: { value: 104 } }, null, /ends at 100 %/],
    ["water", { water: { value: 300_000 } }, null, /check the unit/],
    ["iron", { iron: { value: -1 } }, null, /below zero/],
    ["kv100", { kv40: { value: 6.8 }, kv100: { value: 46 } }, null, /exchanged/],
    ["code", {}, "16/18/13", /larger size/],
    ["code", {}, "44/18/13", /not a scale number/],
  ])("%s", (field, results, code, message) => {
    expect(sampleProblems(results, code)).toMatchObject({ [field]: expect.stringMatching(message) });
  });
  test("a bound over a larger size says nothing against a count over a smaller one", () => {
    expect(sampleProblems({ over21: { value: 3 }, over38: { value: 5, below: true } }, null)).toEqual({});
    expect(sampleProblems({ over4: { value: 20_000, above: true }, over6: { value: 30_000 } }, null)).toEqual({});
  });
  test("cumulative counts that fall with size are never refused", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1e6, noNaN: true }), { minLength: 6, maxLength: 6 }), (values) => {
        const [a, b, c, d, e, f] = values.sort((p, q) => q - p).map((value) => ({ value }));
        expect(sampleProblems({ over4: a!, over6: b!, over14: c!, over21: d!, over38: e!, over70: f! }, null)).toEqual(
          {},
        );
      }),
    );
  });
  test("drain and cold samples cannot be compared", () => {
    expect(incomparable({ place: "port", state: "working" })).toBeNull();
    expect(incomparable({ place: "drain", state: "working" })).toMatch(/drain/);
    expect(incomparable({ place: "port", state: "cold" })).toMatch(/settled/);
    expect(incomparable({ place: "bowl", state: "warm" })).toMatch(/bowl/);
  });
});

describe("codes of a sample", () => {
  const results: Results = {
    over4: { value: 1500 },
    over6: { value: 450 },
    over14: { value: 60 },
    over21: { value: 12 },
    over38: { value: 1 },
    over70: { value: 0 },
  };
  test("by three standards from one set of counts", () => {
    const codes = sampleCodes({ results, code: null })!;
    expect(codes.iso.text).toBe("18/16/13");
    // per 100 mL over 6: 45 000, over 14: 6000: band 5 to 15 µm holds 39 000, class 8 (up to 64 000)
    expect(codes.nas!.classes[0]).toBe("8");
    // over 4 µm: 150 000 per 100 mL, class 8 (up to 200 000)
    expect(codes.as!.classes[0]).toBe("8");
    expect(codes.working.rows.length).toBeGreaterThan(10);
  });
  test("a bound is taken at its end, too many is an asterisk, and the laboratory's own code is held against the counts", () => {
    expect(
      sampleCodes({
        results: { over4: { value: 1500 }, over6: { value: 450 }, over14: { value: 10, below: true } },
        code: "18/16/13",
      }),
    ).toMatchObject({
      iso: { text: "18/16/10" },
      disagrees: expect.stringContaining("18/16/13"),
      working: { note: expect.stringContaining("better") },
    });
    expect(
      sampleCodes({
        results: { over4: { value: 1e6, above: true }, over6: { value: 450 }, over14: { value: 10 } },
        code: null,
      })!.iso.text,
    ).toBe("*/16/10");
  });
  test("a code alone is a code, with a count in the middle of it", () => {
    expect(sampleCodes({ results: {}, code: "18/16/13" })).toMatchObject({ from: "code", nas: null, as: null });
    expect(countFor({ results: {}, code: "18/16/13" }, "over4")).toBeCloseTo(Math.sqrt(1300 * 2500));
    expect(countFor({ results: {}, code: "*/16/13" }, "over4")).toBeNull();
    expect(countFor({ results: {}, code: null }, "over4")).toBeNull();
    expect(sampleCodes({ results: { iron: { value: 3 } }, code: null })).toBeNull();
  });
});

describe("target", () => {
  const components = [
    { name: "Pump", kind: "axialPistonPump", makersCode: null },
    { name: "Cylinder", kind: "cylinder", makersCode: null },
  ];
  test("the strictest at its pressure", () => {
    expect(circuitTarget(components, 200, null)).toMatchObject({
      text: "18/16/13",
      because: "Pump (typical guidance)",
    });
    expect(circuitTarget(components, 250, null)!.text).toBe("17/15/12");
  });
  test("a manufacturer's figure goes before guidance, and a person's before both", () => {
    expect(circuitTarget([{ ...components[0]!, makersCode: "17/15/12" }, components[1]!], 200, null)).toMatchObject({
      text: "17/15/12",
      because: "Pump (its manufacturer's figure)",
    });
    expect(circuitTarget(components, 250, { code: "19/17/14", reason: "old machine" })).toMatchObject({
      text: "19/17/14",
      because: "set by hand: old machine",
    });
    expect(circuitTarget([{ name: "Reservoir", kind: "other", makersCode: null }], 200, null)).toBeNull();
  });
});

describe("fill", () => {
  const oil = { id: "a", name: "Oil 46", type: "mineral" as const, kv40: 46, kv100: 6.8, density15: 875 };
  test("the newest fill or change is what is in", () => {
    const moves = [
      { at: 1, hours: 0, kind: "fill" as const },
      { at: 5, hours: 9, kind: "topUp" as const },
      { at: 3, hours: 5, kind: "change" as const },
    ];
    expect(currentFill(moves, 9)).toBe(moves[2]);
    expect(currentFill(moves, 2)).toBe(moves[0]);
    expect(currentFill([], 2)).toBeNull();
  });
  test("the longest interval ends by hours or by months, whichever is sooner", () => {
    const now = 1000 * DAY;
    const fill = { at: now - 365.25 * DAY, hours: 10_000 };
    const age = (hours: number | null, months: number | null) => fillAge(fill, { hours, months }, now, 12_000, 8);
    expect(age(null, null)).toEqual({ since: fill.at, hours: 2000, share: null, dueAt: null });
    expect(age(4000, null)).toMatchObject({ share: 0.5, dueAt: now + 250 * DAY });
    expect(age(null, 24)).toMatchObject({ share: 0.5 });
    expect(age(null, 24).dueAt).toBeCloseTo(now + 365.25 * DAY, -3);
    expect(age(4000, 13).dueAt).toBeLessThan(now + 31 * DAY);
    expect(age(2100, 60)).toMatchObject({ dueAt: now + 12.5 * DAY });
    expect(age(1600, 60)).toMatchObject({ share: 1.25, dueAt: now - 50 * DAY });
    expect(fillAge({ at: now, hours: 500 }, { hours: 4000, months: null }, now, 490, 8).hours).toBe(0); // a counter read a little lower
  });
  test("mixing warns by type and by thickness", () => {
    expect(mixing(oil, oil)).toBeNull();
    expect(mixing(oil, { ...oil, id: "b", name: "Ester", type: "ester" })).toMatchObject({
      serious: true,
      message: expect.stringContaining("another type"),
    });
    expect(mixing(oil, { ...oil, id: "b", name: "Oil 32", kv40: 32 })).toMatchObject({
      serious: true,
      message: expect.stringContaining("30 % thinner"),
    });
    expect(mixing(oil, { ...oil, id: "b", name: "Other 46" })).toMatchObject({ serious: false });
  });
  test("a mixture lies between its parts and is itself when alone", () => {
    expect(mixtureViscosity([{ share: 1, viscosity: 46 }])).toBeCloseTo(46);
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 1, noNaN: true }), (share) => {
        const v = mixtureViscosity([
          { share, viscosity: 46 },
          { share: 1 - share + 1e-9, viscosity: 32 },
        ]);
        expect(v).toBeGreaterThanOrEqual(32 - 1e-6);
        expect(v).toBeLessThanOrEqual(46 + 1e-6);
      }),
    );
  });
  test("measured viscosity takes over when it is there, straight between two samples", () => {
    const measured = measuredViscosities(
      [
        { at: 10, results: { kv40: { value: 44 } } },
        { at: 20, results: { kv40: { value: 40 }, kv100: { value: 6.1 } } },
        { at: 5, results: { kv40: { value: 20 } } },
        { at: 1, results: { kv40: { value: 45 } } },
      ],
      oil,
      4,
    );
    expect(measured.map((m) => m.kv40)).toEqual([44, 40]); // 20 is half the grade: another bottle; 45 was before the fill
    expect(fluidAt(oil, measured, 9)).toBe(oil);
    expect(fluidAt(oil, measured, 10).kv40).toBeCloseTo(44);
    expect(fluidAt(oil, measured, 15).kv40).toBeCloseTo(Math.sqrt(44 * 40));
    expect(fluidAt(oil, measured, 99)).toMatchObject({ kv40: 40, kv100: 6.1, density15: 875 });
    expect(fluidAt(oil, measured, 10).kv100).toBeCloseTo((6.8 * 44) / 46);
  });
});

describe("less than", () => {
  test("without bounds it is the ordinary quantile", () => {
    expect(
      censoredQuantile(
        [1, 2, 3, 4, 5].map((value) => ({ value })),
        0.5,
      ),
    ).toBe(3);
  });
  test("a quantile among the bounds is below what was read", () => {
    expect(censoredQuantile([{ value: 1, below: true }, { value: 1, below: true }, { value: 2 }], 0.5)).toBeNull();
    expect(censoredQuantile([{ value: 1, below: true }, { value: 3 }, { value: 2 }], 0.5)).toBe(2);
  });
  test("never below the quantile with the bounds taken as zero, never above that with them at their ends", () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ value: fc.double({ min: 0.1, max: 50, noNaN: true }), below: fc.boolean() }), {
          minLength: 1,
          maxLength: 30,
        }),
        (values) => {
          const q = censoredQuantile(values, 0.5) ?? 0;
          const plain = (list: number[]) => [...list].sort((a, b) => a - b)[Math.ceil(list.length / 2) - 1]!;
          expect(q).toBeGreaterThanOrEqual(plain(values.map((v) => (v.below ? 0 : v.value))) - 1e-12);
          expect(q).toBeLessThanOrEqual(Math.max(...values.map((v) => v.value)) + 1e-12);
        },
      ),
    );
  });
  test("nothing, and shares that are none, are refused", () => {
    expect(() => censoredQuantile([], 0.5)).toThrow(RangeError);
    expect(() => censoredQuantile([{ value: 1 }], 1)).toThrow(RangeError);
  });
});
