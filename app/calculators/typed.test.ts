/** Inputs of a calculation in its address, from a component, and as text. */
import fc from "fast-check";
import { calculatorOf, calculators, exampleOf, runCalculator, type FactId } from "@core";
import { addressOf, cellNumber, typedFrom } from "~/ui/typed";
import { asText } from "./asText";

const site = { timeZone: "Europe/London", now: Date.UTC(2026, 10, 24, 9), units: {} };
const searchOf = (address: string) => new URL(address, "http://here").searchParams;

describe.each(calculators.map((c) => [c.id, c] as const))("%s", (_id, calculator) => {
  test("an address gives back what was typed, whatever it was", () => {
    const anything = fc.record(
      Object.fromEntries(
        Object.keys(calculator.fields).map((id) => [
          id,
          fc.oneof(fc.string({ maxLength: 30 }), fc.constantFrom("", "5 bar & 3", "µm(c) ≥ 4", "1\n2\n3", "#?=%")),
        ]),
      ),
    );
    fc.assert(
      fc.property(anything, (typed) => {
        expect(typedFrom(calculator, searchOf(addressOf(calculator, typed, null)), {}, {})).toEqual(typed);
      }),
      { numRuns: 25 },
    );
  });
  test("the worked example has the short address, and reads as text with its source", () => {
    const typed = typedFrom(calculator, new URLSearchParams(), {}, {});
    expect(typed).toEqual(exampleOf(calculator));
    expect(addressOf(calculator, typed, null)).toBe(`/calculators/${calculator.id}`);
    const run = runCalculator(calculator, typed);
    if (!run.ok) throw new Error("the example fails");
    const text = asText(calculator, typed, run.outcome, site, "http://here/calculators/x");
    expect(text.split("\n")[0]).toBe(calculator.title);
    expect(text).toContain(run.outcome.working.source);
    expect(text.endsWith("http://here/calculators/x")).toBe(true);
    if (calculator.caution) expect(text).toContain(calculator.caution);
    expect(text).not.toMatch(/undefined|NaN|\[object/);
  });
});

describe("what stands in the fields", () => {
  const flow = calculatorOf("pump-flow")!;
  const displacement = Object.entries(flow.fields).find(([, f]) => f.take === "displacement")![0];
  const facts: Partial<Record<FactId, number>> = { displacement: 71, speed: 1480 };
  test("the address goes before the component, the component before the example", () => {
    expect(typedFrom(flow, new URLSearchParams({ [displacement]: "28" }), facts, {})[displacement]).toBe("28");
    expect(typedFrom(flow, new URLSearchParams(), facts, {})[displacement]).toBe("71");
    expect(typedFrom(flow, new URLSearchParams(), {}, {})[displacement]).toBe(exampleOf(flow)[displacement]);
  });
  test("a component's figure comes in the reader's unit and means the same", () => {
    const typed = typedFrom(flow, new URLSearchParams(), facts, { displacement: "in³/rev" });
    const [a, b] = [
      runCalculator(flow, typed, { displacement: "in³/rev" }),
      runCalculator(flow, typedFrom(flow, new URLSearchParams(), facts, {})),
    ];
    if (!a.ok || !b.ok) throw new Error("refused");
    expect(a.outcome.working.rows[0]!.value).toBeCloseTo(b.outcome.working.rows[0]!.value, 3);
  });
  test("an example stands in the reader's unit", () => {
    const orifice = calculatorOf("orifice")!;
    expect(typedFrom(orifice, new URLSearchParams(), {}, { pressure: "psi" }).pressure).toMatch(/ psi$/);
    expect(typedFrom(orifice, new URLSearchParams(), {}, {}).pressure).not.toMatch(/bar|psi/);
  });
  test("a bare figure that looks like the example is kept for a reader who means another unit", () => {
    const orifice = calculatorOf("orifice")!;
    const units = { pressure: "psi" };
    const pressure = exampleOf(orifice).pressure!;
    const typed = { ...exampleOf(orifice, units), pressure };
    const again = typedFrom(orifice, searchOf(addressOf(orifice, typed, null, units)), {}, units);
    expect(again.pressure).toBe(pressure);
    expect(addressOf(orifice, exampleOf(orifice, units), null, units)).toBe("/calculators/orifice");
  });
  test("with a component in the address nothing is left to the example", () => {
    const search = searchOf(addressOf(flow, exampleOf(flow), "component-1"));
    expect(search.get("from")).toBe("component-1");
    for (const id of Object.keys(flow.fields)) expect(search.has(id)).toBe(true);
  });
  test("a test starts empty but for what is usual", () => {
    const empty = typedFrom(flow, new URLSearchParams(), {}, {}, { example: false });
    for (const [id, field] of Object.entries(flow.fields)) expect(empty[id]).toBe(field.usual ? field.example : "");
  });
  test("cells of a table: whole numbers whole", () => {
    expect(cellNumber(12)).toBe("12");
    expect(cellNumber(0.12345)).toBe("0.123");
  });
});
