/** The keypad of a walk: what stands in a field after a key, the sign, the unit. */
import fc from "fast-check";
import { findUnit, parseQuantity, quantityOf, toCore, unitsOf } from "@core";
import { bareUnit, inNextUnit, pressed, quantityAt, signTurned, typedFigure, unitOf } from "./figure";
import { drain } from "./testPoint";

describe("keys", () => {
  test.each([
    ["", "3", "3"],
    ["3", ".", "3."],
    ["3.4", "5", "3.45"],
    ["3.4", "⌫", "3."],
    ["", "⌫", ""],
    ["0.9 gal/min", "5", "0.95 gal/min"],
    ["0.9 gal/min", "⌫", "0. gal/min"],
    ["-12", "⌫", "-1"],
  ])("“%s” and %s is “%s”", (before, key, after) => expect(pressed(before, key)).toBe(after));
  test.each([
    ["12", "-12"],
    ["-12", "12"],
    ["−12", "12"],
    ["", "-"],
    ["3 psi", "-3 psi"],
  ])("the sign of “%s” turned is “%s”", (before, after) => expect(signTurned(before)).toBe(after));
  test("what is pressed comes out as a figure, whatever its digits", () =>
    fc.assert(
      fc.property(fc.stringMatching(/^[1-9]\d{0,2}\.\d{1,3}$/), fc.constantFrom("", " gal/min"), (digits, unit) => {
        const text = [...digits].reduce(pressed, unit);
        expect(text).toBe(digits + unit);
        expect(unitOf(text, "value", drain, {})).toBe(unit.trim() || "L/min");
      }),
    ));
});

describe("units", () => {
  test("a value is in its point's, what is noted beside it in the reader's", () => {
    const units = { pressure: "psi", temperature: "°F", flow: "gal/min" };
    expect(bareUnit("value", drain, units)).toBe("L/min");
    expect(bareUnit("pressure", drain, units)).toBe("psi");
    expect(bareUnit("temperature", drain, units)).toBe("°F");
    expect(bareUnit("hours", drain, units)).toBe("h");
    expect(quantityAt("least", drain)).toBe("caseDrainFlow");
  });
  test("what is no figure yet is in the unit of a bare one", () => {
    expect(unitOf("", "value", drain, {})).toBe("L/min");
    expect(unitOf("-", "pressure", drain, {})).toBe("bar");
    expect(unitOf("3 furlong", "pressure", drain, {})).toBe("bar");
  });
  test.each(["value", "pressure", "temperature"] as const)(
    "the unit key goes through all units of %s and comes back, and the figure stays",
    (field) => {
      const all = unitsOf(quantityOf(quantityAt(field, drain)).dimension).map((u) => u.symbol);
      const seen: string[] = [];
      let text = "3.4";
      for (let i = 0; i < all.length; i++) {
        text = inNextUnit(text, field, drain, {});
        seen.push(unitOf(text, field, drain, {}));
        expect(text).toMatch(/^3\.4( |$)/);
      }
      expect(text).toBe("3.4");
      expect([...seen].sort()).toEqual([...all].sort());
    },
  );
});

test("a core value is typed in the point's unit as a person would, and read again as the same", () => {
  expect(typedFigure(3.40687, { quantity: "caseDrainFlow", unit: "gal/min" })).toBe("0.90000");
  expect(typedFigure(-12.5, { quantity: "temperatureRise", unit: "K" })).toBe("-12.500");
  fc.assert(
    fc.property(fc.double({ min: 0.01, max: 399, noNaN: true }), fc.constantFrom("L/min", "gal/min"), (core, unit) => {
      const text = typedFigure(core, { quantity: "caseDrainFlow", unit });
      const read = parseQuantity(text, "caseDrainFlow", { assume: unit });
      expect(read.ok && Math.abs(read.parsed.value / core - 1)).toBeLessThan(
        // five digits, and no more than six decimals
        1e-4 + toCore(1e-6, findUnit(unit, "flow")!) / core,
      );
    }),
  );
});
