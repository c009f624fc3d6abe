import fc from "fast-check";
import { quantityOf } from "../units/quantities";
import { calculatorGroups } from "./types";
import { calculatorOf, calculators } from "./index";
import { preferredUnit, validPreference } from "../units/preference";
import { exampleOf, runCalculator } from "./run";
import { outcomeOf as run, problemsOf as problems, rowOf, textOf as text } from "./testing";

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

  test("its example is the same case whoever reads it", () => {
    const theirs = validPreference({
      pressure: "psi",
      flow: "gal/min",
      temperature: "°F",
      length: "in",
      volume: "gal",
    });
    const [ours, others] = [
      runCalculator(calculator, exampleOf(calculator)),
      runCalculator(calculator, exampleOf(calculator, theirs), theirs),
    ];
    if (!ours.ok || !others.ok) throw new Error(JSON.stringify(others));
    expect(others.outcome.tone).toBe(ours.outcome.tone);
    for (const [i, row] of ours.outcome.working.rows.entries()) {
      const other = others.outcome.working.rows[i]!;
      expect(Math.abs(other.value - row.value)).toBeLessThanOrEqual(0.01 * Math.abs(row.value) + 0.01);
    }
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

/** Worked out apart from the application, from the formula that stands beside each: fields go where they belong. */
describe("worked out by hand", () => {
  test.each([
    // 28 cm³ at 1800 r/min; 45 of 50.4 L/min
    ["pump-flow", { displacement: "28", speed: "1800", flow: "45" }, "Q_t", 50.4],
    ["pump-flow", { displacement: "28", speed: "1800", flow: "45" }, "Q/Q_t", 45 / 50.4],
    // 2.5³, and 10 µm times the cube root of five
    ["clearance-growth", { before: "10", after: "25", factor: "5" }, "Q/Q_0", 15.625],
    ["clearance-growth", { before: "10", after: "25", factor: "5" }, "last good c", 17.09976],
    // 0.8 = 40 k + 6.3246 t and 2.0 = 160 k + 12.6491 t
    ["leak-kind", { p1: "40", q1: "0.8", p2: "160", q2: "2" }, "k, L/(min·bar)", 0.005],
    ["leak-kind", { p1: "40", q1: "0.8", p2: "160", q2: "2" }, "t, L/(min·√bar)", 0.0948683],
    // 3.9·(210/205)·(21/26), and the squares of 2 %, 1 %, 4 %, 0.24 % and 2.14 %
    ["correct-leakage", {}, "Q_ref", 3.226829],
    ["correct-leakage", {}, "u/Q", 0.0506157],
    // 250 L at 40 L/min through β 75, 2000 a minute coming in
    ["clean-up", { volume: "250", flow: "40", beta: "75", ingress: "2000" }, "time constant V/(Q·η)", 0.1055743],
    ["clean-up", { volume: "250", flow: "40", beta: "75", ingress: "2000" }, "settles at R/(Q·η)", 50.67568],
    // 1.8 bar at 70 L/min and 35 °C, to 80 L/min and 50 °C of VG 46
    ["filter-drop", { drop: "1.8", flow: "70", temperature: "35", referenceFlow: "80" }, "Δp_ref", 1.0564894],
    // through 80 ppm at 10 °C and 420 ppm at 70 °C
    ["water", { t1: "10", s1: "80", t2: "70", s2: "420", temperature: "40" }, "S here", 198.45659],
    ["viscosity-pressure", { mu: "30", pressure: "150", alpha: "0.0025" }, "factor", 0.8338953],
    ["viscosity", { kv40: "32", kv100: "5.4", temperature: "70" }, "ν", 11.1861739],
    // 150 bar and 8 L/min are 2 kW
    ["leak-heat", { pressure: "150", flow: "8" }, "P", 2],
    // π/4·100²·700 mm³ at 30 L/min
    ["stroke-time", { bore: "100", stroke: "700", flow: "30" }, "time at full flow", 10.9955743],
    // 12/13 000·(2.5 − 0.1·8)
    ["pressure-decay", { volume: "12", fall: "2.5", drift: "-0.1", modulus: "13000", thermal: "8" }, "Q", 0.00156923],
    ["vacuum-bench", { read: "14 inHg", open: "4 inHg", blocked: "24 inHg" }, "index", 0.5],
    [
      "throttling",
      { pressure: "150", density: "860", heat: "1950", expansion: "0.00068", temperature: "45" },
      "ΔT",
      7.0094633,
    ],
    // 20 L lost at 11.5 ppm and 20 L of new oil with 1 ppm in 200 L: 14 + 230/200 − 20/200
    ["wear-metal", {}, "at 1000 h, ppm", 15.05],
  ] as const)("%s: %j gives %s = %d", (id, typed, label, value) => {
    expect(rowOf(run(id, { ...typed }), label) / value).toBeCloseTo(1, 5);
  });
  test("limits of an EWMA narrow with its weight: √(λ/(2 − λ))", () => {
    const half = (lambda: string) => {
      const outcome = run("ewma", { lambda });
      return (rowOf(outcome, "upper") - rowOf(outcome, "lower")) / 2;
    };
    expect(half("0.3") / half("0.2")).toBeCloseTo(Math.sqrt(0.3 / 1.7) / Math.sqrt(0.2 / 1.8), 9);
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

test("a list takes a unit behind each number, with a space or without", () => {
  const ladder = calculatorOf("settings-ladder")!;
  const lowest = (ratings: string) => {
    const result = runCalculator(ladder, { ...exampleOf(ladder), ratings }, { pressure: "psi" });
    return result.ok ? result.outcome.working.rows.find((r) => /rating/i.test(r.label))!.value : result.problems;
  };
  expect(lowest("4500 psi\n5000psi")).toBeCloseTo(310.26, 1);
  expect(lowest("4500\n5000")).toBeCloseTo(310.26, 1);
  expect(lowest("300 bar")).toBeCloseTo(300, 3);
  expect(lowest("4500 5000")).toMatchObject({ ratings: expect.stringContaining("more than") });
});
