import { analyteIds, analytes, type AnalyteId } from "@core";
import fc from "fast-check";
import { object } from "yup";
import { analyteField, analyteLines, parseAnalyteLines } from "./analyteLines";
import { check } from "~/platform/validate";

const some: AnalyteId[] = ["iron", "zinc", "acidNumber"];

test("one a line, by name or symbol, with or without unit", () => {
  expect(parseAnalyteLines("iron: 40 ppm\nZn: 420\n\nacid number: 0.45; ", some)).toEqual({
    iron: 40,
    zinc: 420,
    acidNumber: 0.45,
  });
  expect(parseAnalyteLines("", some)).toEqual({});
});

test.each([
  ["gold: 3", "not one of iron, zinc, acid number"],
  ["iron 40", "is not one of"],
  ["iron: much", "Iron: "],
  ["iron: 4\nFe: 5", "stands twice"],
  ["iron: -4", "possible range"],
  ["iron: 4 bar", "Iron: "],
])("“%s” is refused in words", (text, says) =>
  expect(parseAnalyteLines(text, some)).toEqual(expect.stringContaining(says)),
);

test("there and back", () => {
  const ids = analyteIds.filter((id) => analytes[id].quantity === "concentration" || id === "acidNumber");
  fc.assert(
    fc.property(
      fc.dictionary(fc.constantFrom(...ids), fc.double({ min: 0.01, max: 50, noNaN: true }), { maxKeys: 6 }),
      (figures) => {
        const rounded = Object.fromEntries(Object.entries(figures).map(([id, v]) => [id, Number(v.toPrecision(6))]));
        expect(parseAnalyteLines(analyteLines(rounded), analyteIds)).toEqual(rounded);
      },
    ),
  );
});

test("in a form the message stands beside the field", async () => {
  const schema = object({ fresh: analyteField(some) });
  expect(await check(schema, { fresh: "iron: 2" })).toEqual({ ok: true, values: { fresh: { iron: 2 } } });
  expect(await check(schema, {})).toEqual({ ok: true, values: { fresh: {} } });
  expect(await check(schema, { fresh: "x: 2" })).toMatchObject({
    ok: false,
    problems: { fresh: expect.stringContaining("is not one of") },
  });
});
