import { decimalsFor, formatNumber, formatQuantity } from "./format";

test("numbers", () => {
  expect(formatNumber(18412, 0)).toBe("18\u202f412");
  expect(formatNumber(1234.5, 1)).toBe("1234.5");
  expect(formatNumber(-0.001, 2)).toBe("0.00");
  expect(formatNumber(-2.5, 1)).toBe("−2.5");
});

test("significant digits", () => {
  expect(decimalsFor(29.97)).toBe(1);
  expect(decimalsFor(0.00865)).toBe(5);
  expect(decimalsFor(0)).toBe(0);
  expect(decimalsFor(12345)).toBe(0);
});

test("quantities in the reader's unit", () => {
  expect(formatQuantity(5.6, "caseDrainFlow")).toBe("5.60\u00a0L/min");
  expect(formatQuantity(3.785411784, "caseDrainFlow", { unit: "gal/min" })).toBe("1.00\u00a0gal/min");
  expect(formatQuantity(209.4, "loadPressure")).toBe("209\u00a0bar");
  expect(formatQuantity(0.83, "pressure")).toBe("0.83\u00a0bar");
  expect(formatQuantity(0, "runningHours")).toBe("0\u00a0h");
  expect(() => formatQuantity(1, "caseDrainFlow", { unit: "bar" })).toThrow(RangeError);
});
