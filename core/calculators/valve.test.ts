/** What calculations of gaps, holes and settings say, case by case. */
import fc from "fast-check";
import { outcomeOf, problemsOf, rowOf, textOf } from "./testing";

describe("leakage through a clearance", () => {
  const leak = (typed: Record<string, string>) => rowOf(outcomeOf("clearance-leakage", typed), "Q");
  test("the cube: twice the clearance leaks eight times, half as large again 3.375 times", () => {
    expect(leak({ clearance: "20" }) / leak({})).toBeCloseTo(8, 9);
    expect(leak({ clearance: "15" }) / leak({})).toBeCloseTo(3.375, 9);
  });
  test("touching the bore it leaks 2.5 times as much as centred", () =>
    expect(leak({ eccentricity: "1" }) / leak({})).toBeCloseTo(2.5, 12));
  test("thicker under pressure, it leaks less; no coefficient is no correction", () => {
    const outcome = outcomeOf("clearance-leakage", { alpha: "0.002" });
    // (1 − e^(−0.4))/0.4
    expect(rowOf(outcome, "mean factor of pressure (Barus)")).toBeCloseTo(0.8242, 4);
    expect(rowOf(outcome, "Q") / leak({})).toBeCloseTo(0.8242, 4);
    expect(outcomeOf("clearance-leakage").working.rows.some((r) => r.label.includes("Barus"))).toBe(false);
  });
  test("a property: leakage grows with pressure, and with thinner oil", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400 }),
        fc.integer({ min: 5, max: 200 }),
        fc.integer({ min: 1, max: 100 }),
        (pressure, viscosity, more) => {
          const here = leak({ pressure: String(pressure), viscosity: String(viscosity) });
          expect(leak({ pressure: String(pressure + more), viscosity: String(viscosity) })).toBeGreaterThan(here);
          expect(leak({ pressure: String(pressure), viscosity: String(viscosity + more) })).toBeLessThan(here);
        },
      ),
      { numRuns: 50 },
    ));
});

describe("clearance or hole", () => {
  const kind = (typed: Record<string, string>) => outcomeOf("leak-kind", { p1: "50", q1: "1", p2: "200", ...typed });
  test("a leak that doubles over four times the pressure goes through a hole", () => {
    const outcome = kind({ q2: "2" });
    expect(rowOf(outcome, "k, L/(min·bar)")).toBeCloseTo(0, 9);
    expect(textOf(outcome)).toContain("a burr, a cut seal, a seat held open");
  });
  test("one that grows with the pressure goes through a clearance", () => {
    const outcome = kind({ q2: "4" });
    expect(rowOf(outcome, "t, L/(min·√bar)")).toBeCloseTo(0, 9);
    expect(textOf(outcome)).toContain("100 % goes through a clearance: wear");
  });
  test("between them it says both shares", () =>
    // 1 = 50k + 7.071t and 3 = 200k + 14.142t: k = 0.01, t = 0.0707; at 200 bar 2 of 3
    expect(textOf(kind({ q2: "3" }))).toContain("67 % goes through a clearance: wear"));
  test("half and half is called so", () => {
    // k·200 = t·√200: 50k + 7.071t at 50 bar is 0.75 of the whole at 200 bar less …: q1/q2 = 0.375
    expect(textOf(kind({ q1: "0.375", q2: "1" }))).toContain("and the rest through a hole.");
  });
  test.each([
    ["1.5", /the oil warmed, or a valve closed further/],
    ["6", /something opens as the pressure rises/],
  ])("%s at the second pressure is neither: %s", (q2, words) => {
    const outcome = kind({ q2 });
    expect(outcome.tone).toBe("doubt");
    expect(textOf(outcome)).toMatch(/^Neither\./);
    expect(textOf(outcome)).toMatch(words);
    expect(outcome.chart).toBeUndefined();
  });
  test("two readings at one pressure say nothing of the kind", () =>
    expect(problemsOf("leak-kind", { p1: "200", p2: "200" }).form).toBeTruthy());
});

describe("what a grown clearance costs", () => {
  test("past the last good clearance it is bad, before it is not", () => {
    // 12 µm times the cube root of 4
    expect(rowOf(outcomeOf("clearance-growth"), "last good c")).toBeCloseTo(12 * Math.cbrt(4), 9);
    expect(outcomeOf("clearance-growth", { after: "19" }).tone).toBe("plain");
    expect(outcomeOf("clearance-growth", { after: "19.1" })).toMatchObject({ tone: "bad" });
    expect(textOf(outcomeOf("clearance-growth", { after: "19.1" }))).toMatch(/it is past it\.$/);
  });
  test("with the leakage as new it says the leakage now", () => {
    expect(textOf(outcomeOf("clearance-growth", { before: "10", after: "20", leak: "0.5" }))).toContain("about 4.000");
    expect(textOf(outcomeOf("clearance-growth", { leak: "" }))).not.toContain("about");
  });
});

describe("a leakage at other conditions", () => {
  test("at the reference nothing is corrected; what is left is the flow's and the temperature's uncertainty", () => {
    const same = { pressure: "210", referencePressure: "210", mu: "26", muRef: "26" };
    const outcome = outcomeOf("correct-leakage", same);
    expect(rowOf(outcome, "Q_ref")).toBeCloseTo(3.9, 12);
    // √(0.02² + 0.01² + 0.04²): the exponents have nothing to correct
    expect(rowOf(outcome, "u/Q")).toBeCloseTo(Math.hypot(0.02, 0.01, 0.04), 9);
  });
  test("the exponents' uncertainty grows with what is corrected", () => {
    const far = rowOf(outcomeOf("correct-leakage", { pressure: "60" }), "u/Q");
    expect(far).toBeGreaterThan(rowOf(outcomeOf("correct-leakage", { pressure: "200" }), "u/Q"));
    // ln(210/60)·0.1 alone is 12.5 %
    expect(far).toBeGreaterThan(0.125);
  });
  test("through a hole: a half and no viscosity", () => {
    const outcome = outcomeOf("correct-leakage", { a: "0.5", b: "0", pressure: "52.5", flow: "1" });
    expect(rowOf(outcome, "Q_ref")).toBeCloseTo(2, 9);
    expect(rowOf(outcome, "(μ/μ_ref)^b")).toBe(1);
  });
});

describe("flow through an orifice", () => {
  test("four times the pressure passes twice the flow, twice the bore four times", () => {
    const flow = (typed: Record<string, string>) => rowOf(outcomeOf("orifice", typed), "Q");
    expect(flow({ pressure: "400" }) / flow({})).toBeCloseTo(2, 9);
    expect(flow({ diameter: "4" }) / flow({})).toBeCloseTo(4, 9);
  });
});

describe("ladder of settings", () => {
  const ladder = (typed: Record<string, string>) => outcomeOf("settings-ladder", typed);
  test("in order with room is good, and draws a step a rung", () => {
    const outcome = ladder({});
    expect(outcome.tone).toBe("good");
    expect(textOf(outcome)).toMatch(/^In order\./);
    expect(outcome.chart!.series[0]!.points).toHaveLength(outcome.working.rows.length);
  });
  test("a gap that is too small is a doubt, a wrong order is bad", () => {
    expect(ladder({ compensator: "220" }).tone).toBe("doubt");
    expect(ladder({ compensator: "240" }).tone).toBe("bad");
  });
  test("a relief valve above a rating is bad whatever else is in order", () =>
    expect(ladder({ relief: "290", compensator: "210" }).tone).toBe("bad"));
  test("a peak above the lowest rating is bad and named; a slow logger is told that it sees none", () => {
    const outcome = ladder({ peak: "300", rate: "1000" });
    expect(outcome.tone).toBe("bad");
    expect(outcome.notes!.join()).toContain("The peak passes the lowest rating");
    expect(ladder({ peak: "240", rate: "1" }).notes!.join()).toContain("A logger this slow");
    expect(ladder({ peak: "240", rate: "1000" }).notes!.join()).not.toContain("A logger this slow");
  });
  test("an unloader that cuts out above the relief valve never unloads", () => {
    const outcome = ladder({ cutIn: "180", cutOut: "240", compensator: "", relief: "230" });
    expect(outcome.tone).toBe("bad");
  });
});

describe("valve bore on a vacuum bench", () => {
  test("under the pass mark it leaks, without one only the index is said", () => {
    expect(outcomeOf("vacuum-bench", { read: "14 inHg" })).toMatchObject({ tone: "bad" });
    expect(textOf(outcomeOf("vacuum-bench", { read: "14 inHg" }))).toMatch(/it leaks\.$/);
    expect(outcomeOf("vacuum-bench", { pass: "" })).toMatchObject({ tone: "plain" });
  });
  test("a reading outside what the bench shows open and blocked sends to the bench first", () => {
    expect(outcomeOf("vacuum-bench", { read: "4 inHg" }).notes![0]).toMatch(/check the bench first/);
    expect(outcomeOf("vacuum-bench", { read: "26 inHg" }).notes![0]).toMatch(/check the bench first/);
    expect(outcomeOf("vacuum-bench").notes![0]).toMatch(/Read again/);
  });
});
