import fc from "fast-check";
import { quantityOf } from "../units/quantities";
import { calculatorGroups, type Outcome } from "./types";
import { calculatorOf, calculators } from "./index";
import { preferredUnit, validPreference } from "../units/preference";
import { exampleOf, runCalculator } from "./run";

const run = (id: string, typed: Record<string, string> = {}, preference = {}): Outcome => {
  const calculator = calculatorOf(id)!;
  const result = runCalculator(calculator, { ...exampleOf(calculator), ...typed }, preference);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.outcome;
};
const problems = (id: string, typed: Record<string, string>) => {
  const calculator = calculatorOf(id)!;
  const result = runCalculator(calculator, { ...exampleOf(calculator), ...typed });
  return result.ok ? {} : result.problems;
};
const rowOf = (outcome: Outcome, label: string) => outcome.working.rows.find((r) => r.label === label)!.value;
const text = (outcome: Outcome) =>
  outcome.answer.map((p) => ("text" in p ? p.text : "value" in p ? p.value.toPrecision(4) : "")).join("");

describe.each(calculators.map((c) => [c.id, c] as const))("%s", (id, calculator) => {
  test("has a group, a question and a worked example that gives numbers with a source", () => {
    expect(Object.keys(calculatorGroups)).toContain(calculator.group);
    expect(calculator.asks).toMatch(/\?$/);
    const outcome = run(id);
    expect(outcome.answer.length).toBeGreaterThan(0);
    expect(outcome.working.source).not.toBe("");
    for (const row of outcome.working.rows) expect(Number.isFinite(row.value)).toBe(true);
    for (const s of outcome.chart?.series ?? [])
      for (const [x, y] of s.points) expect(Number.isFinite(x) && Number.isFinite(y)).toBe(true);
    for (const part of outcome.answer) if ("value" in part) expect(Number.isFinite(part.value)).toBe(true);
  });

  test("anything typed gives an answer or a message, never a fault", () => {
    const texts = fc.oneof(
      fc.constantFrom(
        "",
        "0",
        "-1",
        "abc",
        "1e9",
        "3 psi",
        "5 bar",
        "40 °C",
        "1\n2\n3",
        "0 0\n0 0\n0 0\n0 0\n0 0\n0 0",
      ),
      fc.double({ noNaN: true, min: -1e4, max: 1e6 }).map(String),
      fc.string({ maxLength: 20 }),
    );
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom(...Object.keys(calculator.fields)), texts), (typed) => {
        const result = runCalculator(calculator, { ...exampleOf(calculator), ...typed });
        if (!result.ok) expect(Object.values(result.problems).every((m) => m.length > 3)).toBe(true);
        else for (const part of result.outcome.answer) if ("value" in part) expect(part.value).not.toBeNaN();
      }),
      { numRuns: 40 },
    );
  });

  test("every quantity can be typed in the reader's own unit", () => {
    const preference = {
      pressure: "psi",
      flow: "gal/min",
      temperature: "°F",
      length: "in",
      volume: "gal",
      power: "hp",
    };
    const typed = Object.fromEntries(
      Object.entries(calculator.fields).map(([k, f]) => {
        if (f.kind === "rows") {
          const inUnit = (cell: string, at: number) => {
            const quantity = f.columns[at]?.quantity;
            return quantity && /^[-\d.]+$/.test(cell) && cell !== "-" ? cell + quantityOf(quantity).unit : cell;
          };
          const lines = f.example.split("\n").map((line) => line.trim().split(/\s+/).map(inUnit).join(" "));
          return [k, lines.join("\n")];
        }
        if (f.kind !== "quantity" || f.example === "" || /[a-z°]/i.test(f.example)) return [k, f.example];
        return [k, `${f.example} ${quantityOf(f.quantity).unit}`];
      }),
    );
    expect(run(id, typed, preference)).toEqual(run(id));
  });
});

test("a figure next to nothing is answered in words, not by what is no number", () =>
  expect(problems("filter-drop", { referenceFlow: "5e-324" }).form).toMatch(/give no number/));

test("ids differ and look like addresses", () => {
  expect(new Set(calculators.map((c) => c.id)).size).toBe(calculators.length);
  for (const c of calculators) expect(c.id).toMatch(/^[a-z0-9-]+$/);
  expect(calculatorOf("nothing")).toBeUndefined();
});

test("a preference that is no unit of the dimension is passed over", () => {
  expect(preferredUnit("loadPressure", { pressure: "psi" })).toBe("psi");
  expect(preferredUnit("loadPressure", { pressure: "°C" })).toBe("bar");
  expect(preferredUnit("loadPressure", {}, "MPa")).toBe("MPa");
  expect(validPreference({ pressure: "psi", flow: "bar", temperature: 7, other: "x" })).toEqual({ pressure: "psi" });
});

describe("check values", () => {
  test("pump: 45 cm³ at 1450 r/min", () => expect(rowOf(run("pump-flow"), "Q_t")).toBe(65.25));
  test("power: 200 bar and 60 L/min is 20 kW", () => expect(rowOf(run("pump-power"), "P in the oil")).toBe(20));
  test("clearance: 0.00698 L/min", () => expect(rowOf(run("clearance-leakage"), "Q")).toBeCloseTo(0.00698, 5));
  test("orifice: 17.72 L/min", () => expect(rowOf(run("orifice"), "Q")).toBeCloseTo(17.72, 2));
  test("holding: opens at 38.5 bar", () => expect(rowOf(run("holding-margin"), "opens at")).toBeCloseTo(38.5, 0));
  test("decay: 0.357 mL/min of 1.9 bar/min with 0.1 K/min of cooling", () =>
    expect(rowOf(run("pressure-decay"), "Q") * 1000).toBeCloseTo(0.357, 3));
  test("viscosity: 29.97 mm²/s", () => expect(rowOf(run("viscosity"), "ν")).toBeCloseTo(29.97, 2));
  test("throttling: 4.7 K", () => expect(rowOf(run("throttling"), "ΔT")).toBeCloseTo(4.7, 1));
  test("gauge: U 4.85 bar, not fit", () => {
    const outcome = run("gauge-fitness");
    expect(rowOf(outcome, "U, k = 2")).toBeCloseTo(4.85, 2);
    expect(outcome.tone).toBe("bad");
  });
  test("cleanliness: 18/16/13 meets its target", () =>
    expect(text(run("iso-4406"))).toBe("18/16/13: the target is met."));
  test("Mann-Kendall: p 0.00865", () => expect(rowOf(run("trend"), "p")).toBeCloseTo(0.00865, 5));
  test("first passage: P10 16.414, P90 34.957", () => {
    expect(rowOf(run("first-passage"), "P10")).toBeCloseTo(16.414, 3);
    expect(rowOf(run("first-passage"), "P90")).toBeCloseTo(34.957, 3);
  });
  test("age replacement: 4930.5 h", () => expect(rowOf(run("age-replacement"), "T")).toBeCloseTo(4930.5, 0));
  test("units: 3000 psi is 206.84 bar", () => expect(rowOf(run("units"), "bar")).toBeCloseTo(206.8427, 3));
  test("vacuum bench: 17 of 5 to 25 inHg is 0.6 and passes", () => {
    const outcome = run("vacuum-bench");
    expect(rowOf(outcome, "index")).toBeCloseTo(0.6, 9);
    expect(outcome.tone).toBe("good");
  });
});

describe("answers in words", () => {
  test("relief under the working control", () =>
    expect(text(run("settings-ladder", { relief: "200" }))).toMatch(/relief valve opens before.*heat/));
  test("a filter that never gets there", () =>
    expect(text(run("clean-up", { goal: "10" }))).toContain("Never with this filter"));
  test("cold oil, not a blocked element", () =>
    expect(text(run("filter-drop", { drop: "3" }))).toContain("the oil is cold"));
  test("a hole, a clearance, and neither", () => {
    expect(text(run("leak-kind", { p1: "50", q1: "1", p2: "200", q2: "2" }))).toContain("through a hole");
    expect(text(run("leak-kind", { p1: "50", q1: "1", p2: "200", q2: "4" }))).toContain("wear");
    expect(text(run("leak-kind", { p1: "50", q1: "1", p2: "200", q2: "6" }))).toContain("Neither");
  });
  test("a check valve that cannot open by this path", () =>
    expect(text(run("holding-margin", { ratio: "1.2" }))).toContain("Never by this path"));
  test("two numbers over target is four times the particles", () =>
    expect(text(run("iso-4406", { over4: "10000" }))).toContain("2 numbers over target, about 4 times"));
  test("worn, and not conclusive", () => {
    expect(text(run("load-test", { steps: "10 63 50\n60 60 50\n110 57 50\n160 54 50\n210 50 50" }))).toContain("Worn");
    expect(text(run("load-test", { steps: "10 63 50\n60 60 50\n110 57 50" }))).toContain("Not conclusive");
  });
});

describe("messages", () => {
  test("each beside its field", () => {
    expect(problems("orifice", { diameter: "", discharge: "2", pressure: "40 °C" })).toEqual({
      diameter: expect.stringContaining("for example 2"),
      discharge: expect.stringContaining("between 0.3"),
      pressure: expect.stringContaining("is a temperature"),
    });
    expect(problems("trend", { series: "1 2\n3" })).toEqual({
      series: expect.stringContaining("Line 2: value is missing"),
    });
    expect(problems("trend", { series: "1 2\n3 x" })).toEqual({ series: expect.stringContaining("Line 2") });
    expect(problems("trend", { series: "1 2 3\n3 4" })).toEqual({ series: expect.stringContaining("Line 1 has more") });
    expect(problems("trend", { series: "1 2" })).toEqual({ series: expect.stringContaining("At least 4") });
    expect(problems("trend", { series: "1\n".repeat(1200) })).toEqual({
      series: expect.stringContaining("At most 1000"),
    });
    expect(problems("fluid-suitability", { type: "milk" })).toEqual({ type: "Choose one." });
  });
  test("what concerns several fields stands for the form", () => {
    expect(problems("weibull", { lives: "100 0\n200 0" })).toEqual({
      form: expect.stringContaining("No life has failed"),
    });
    expect(problems("vacuum-bench", { open: "25 inHg", blocked: "5 inHg" })).toEqual({
      form: expect.stringContaining("blocked"),
    });
    expect(problems("units", { dimension: "pressure", unit: "gal" })).toEqual({
      form: expect.stringContaining("no unit of pressure"),
    });
    expect(problems("creep", { rod: "200" })).toEqual({ form: expect.stringContaining("thinner") });
  });
});
