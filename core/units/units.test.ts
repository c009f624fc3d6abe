import fc from "fast-check";
import { convert, findUnit, fromCore, toCore, units, unitsOf } from "./units";

describe("units", () => {
  test.each([
    [1, "psi", "bar", 0.0689475729316836], // 4.4482216152605/0.0254² Pa
    [3000, "psi", "bar", 206.8427],
    [1, "lbf·ft", "N·m", 1.3558179483314],
    [1, "gal/min", "L/min", 3.785411784],
    [0.004, "in", "µm", 101.6],
    [1, "in³/rev", "cm³/rev", 16.387064],
    [122, "°F", "°C", 50],
    [-40, "°F", "°C", -40],
    [0, "°C", "K", 273.15],
    [1, "inHg", "hPa", 33.86389],
    [10, "MPa", "bar", 100],
    [6, "m³/h", "L/min", 100],
    [1, "hp", "kW", 0.7456998715822702],
  ])("%d %s is %d %s", (value, from, to, expected) => {
    expect(convert(value, from, to)).toBeCloseTo(expected, 4);
  });

  test("there and back is exact within rounding, for every pair of units of a dimension", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...units),
        fc.nat(),
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        (from, pick, value) => {
          const siblings = unitsOf(from.dimension);
          const to = siblings[pick % siblings.length]!;
          const back = fromCore(toCore(fromCore(toCore(value, from), to), to), from);
          expect(Math.abs(back - value)).toBeLessThanOrEqual(
            1e-9 * Math.max(1, Math.abs(value), Math.abs(from.offset ?? 0) + Math.abs(to.offset ?? 0)),
          );
        },
      ),
    );
  });

  test("every spelling finds its own unit", () => {
    for (const unit of units)
      for (const name of [unit.symbol, ...(unit.aliases ?? [])])
        expect(findUnit(` ${name.toUpperCase()} `, unit.dimension)).toBeDefined();
  });

  test("refuses units of different dimensions, unknown ones and what is no number", () => {
    expect(() => convert(1, "bar", "L/min")).toThrow(RangeError);
    expect(() => convert(1, "furlong", "mm")).toThrow(RangeError);
    expect(() => convert(Number.NaN, "bar", "psi")).toThrow(RangeError);
  });
});
