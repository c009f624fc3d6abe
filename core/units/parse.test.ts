import fc from "fast-check";
import { formatNumber } from "./format";
import { parseNumber, parseQuantity } from "./parse";
import { pointQuantityIds, quantityOf } from "./quantities";

const value = (text: string, id: Parameters<typeof parseQuantity>[1], options = {}) => {
  const result = parseQuantity(text, id, options);
  if (!result.ok) throw new Error(result.message);
  return result.parsed;
};

describe("parseNumber", () => {
  test.each([
    ["3.4", 3.4],
    ["3,4", 3.4],
    ["18 412", 18412],
    ["18\u202f412", 18412],
    ["1,234.5", 1234.5],
    ["1.234,5", 1234.5],
    ["1,234,567", 1234567],
    ["−2.5", -2.5],
    ["-7", -7],
    ["+3", 3],
    [".5", 0.5],
    ["1e3", 1000],
    ["2'500", 2500],
    ["+1,234,567", 1234567],
    ["1,234,567e2", 123456700],
    ["0,004", 0.004],
    ["1,23", 1.23],
    ["1 234,5", 1234.5],
    ["12,3456", 12.3456],
  ])("%s", (text, expected) => expect(parseNumber(text)).toBe(expected));

  test.each(["", "abc", "3,000", "18,412", "5 6", "1 2 3", "1\nx", ".", "1.2.3,4", "12,34,56", "--3", "3 bar"])(
    "%p is no number",
    (text) => expect(parseNumber(text)).toBeNaN(),
  );

  test("a stated decimal mark rules", () => {
    expect(parseNumber("1.234", { decimalMark: "," })).toBe(1234);
    expect(parseNumber("1,234", { decimalMark: "." })).toBe(1234);
    expect(parseNumber("1,23", { decimalMark: "." })).toBeNaN();
  });

  test("what is written is read again", () => {
    fc.assert(
      fc.property(fc.double({ min: -1e9, max: 1e9, noNaN: true }), fc.integer({ min: 0, max: 4 }), (v, decimals) => {
        expect(parseNumber(formatNumber(v, decimals))).toBeCloseTo(Number(v.toFixed(decimals)), 4);
      }),
    );
  });
});

describe("parseQuantity", () => {
  test("takes units as typed", () => {
    expect(value("3000 psi", "loadPressure").value).toBeCloseTo(206.843, 3);
    expect(value("18 l/min", "caseDrainFlow")).toEqual({ value: 18, entered: 18, unit: "L/min", stated: true });
    expect(value("0.004 in", "clearance").value).toBeCloseTo(101.6, 6);
    expect(value("122 °F", "oilTemperature").value).toBeCloseTo(50, 9);
    expect(value("122F", "oilTemperature").value).toBeCloseTo(50, 9);
    expect(value("0.9 gal/min", "caseDrainFlow").value).toBeCloseTo(3.4069, 4);
  });

  test("assumes the point's unit when none is written", () => {
    expect(value("3.4", "caseDrainFlow")).toMatchObject({ value: 3.4, unit: "L/min", stated: false });
    expect(value("1", "caseDrainFlow", { assume: "gal/min" })).toMatchObject({ unit: "gal/min", stated: false });
  });

  test.each([
    ["", "caseDrainFlow", /Enter a value/],
    ["abc", "caseDrainFlow", /not a number/],
    ["3.4 °C", "caseDrainFlow", /is a temperature/],
    ["3.4 furlong", "caseDrainFlow", /not a unit known here/],
    ["-3", "caseDrainFlow", /outside the possible range/],
    ["900 °C", "oilTemperature", /outside the possible range/],
    ["3,000 psi", "loadPressure", /two ways.*3000 or 3\.000/],
    ["1e400", "pressure", /not a number/],
    ["3 bar\nx", "pressure", /not a number/],
  ] as const)("%p for %s is refused in plain words", (text, id, message) => {
    const result = parseQuantity(text, id);
    expect(result).toMatchObject({ ok: false, message: expect.stringMatching(message) });
  });

  test("a message never repeats a long entry whole", () => {
    const result = parseQuantity("x".repeat(500), "pressure");
    expect(result.ok === false && result.message.length).toBeLessThan(120);
  });

  test("a long or nasty text is refused (it took minutes before, by backtracking)", () => {
    for (const text of [
      `1${" ".repeat(50_000)}\nx`,
      `1${" ".repeat(59)}x`,
      "1 ".repeat(40_000),
      `${"1,".repeat(30_000)}x`,
      `1${"\u00a0".repeat(50_000)}\nx`,
    ]) {
      expect(parseQuantity(text, "pressure").ok).toBe(false);
      expect(parseNumber(text)).toBeNaN();
    }
  });

  test("every point quantity reads its own unit", () => {
    for (const id of pointQuantityIds) expect(value(`1 ${quantityOf(id).unit}`, id).value).toBeCloseTo(1, 9);
  });
});
