import { componentKindIds } from "../equipment/kinds";
import { exampleOf, runCalculator } from "../calculators/run";
import { checkOf, checks, checksFor } from "./index";
import { plantCheck, plantTestProblem } from "./plant";
import type { PlantTest } from "./types";

const answer = (id: string, typed: Record<string, string> = {}) => {
  const { calculation } = checkOf(id)!;
  const result = runCalculator(calculation, { ...exampleOf(calculation), ...typed });
  return result.ok
    ? {
        tone: result.outcome.tone,
        text: result.outcome.answer.map((p) => ("text" in p ? p.text : "·")).join(""),
        rows: result.outcome.working.rows,
      }
    : { tone: "", text: Object.values(result.problems).join(" "), rows: [] };
};

test.each(checks.map((p) => [p.id, p] as const))(
  "%s: states what must be true, a caution, the manufacturer's way, steps, and compares a line that exists",
  (id, p) => {
    expect(p.before.length).toBeGreaterThan(0);
    expect(p.caution.length).toBeGreaterThan(20);
    expect(p.makersWay.length).toBeGreaterThan(8);
    expect(p.steps.length).toBeGreaterThan(0);
    for (const kind of p.kinds) expect(componentKindIds).toContain(kind);
    if (p.breakOff)
      expect(answer(id).rows.map((r) => r.label)).toEqual(expect.arrayContaining([p.breakOff.row, p.breakOff.above]));
    if (p.compares) expect(answer(id).rows.map((r) => r.label)).toContain(p.compares);
  },
);

test("every kind of component has tests, and ids differ", () => {
  for (const kind of componentKindIds) expect(checksFor(kind).length).toBeGreaterThan(0);
  expect(new Set(checks.map((p) => p.id)).size).toBe(checks.length);
});

describe("verdicts", () => {
  test.each([
    ["shut-in", { pressure: "150" }, "bad", "Below the band"],
    ["shut-in", { pressure: "230" }, "bad", "Above the band"],
    ["shut-in", {}, "good", "pressure is not flow"],
    ["fall-after-stop", {}, "good", "74 s"],
    ["fall-after-stop", { series: "0 200\n10 100\n20 50" }, "bad", "faster"],
    ["standby-leakage", {}, "bad", "consumer 2"],
    ["standby-leakage", { all: "1.8", blocked: "1 1.7\n2 1.0" }, "good", "as a good system does"],
    ["test-port", { loaded: "12" }, "bad", "stuck part-way"],
    ["test-port", { unloaded: "10", loaded: "10" }, "bad", "Low already"],
    ["test-port", {}, "good", "As stated"],
    ["inlet-case", { inlet: "400" }, "bad", "Starved"],
    ["inlet-case", { casePressure: "6" }, "bad", "Case pressure too high"],
    ["inlet-case", {}, "good", "within"],
    ["end-peak", { rate: "10" }, "doubt", "does not see"],
    ["end-peak", { peak: "300" }, "bad", "above the lowest rating"],
    ["weep", { port: "weepHole", what: "water" }, "doubt", "water side"],
    ["weep", { drops: "30" }, "bad", "renew"],
    ["command-response", { most: "3" }, "bad", "sticks"],
    ["command-response", {}, "good", "follows"],
    ["spool-spring", { falls: "sticks" }, "bad", "burr or varnish"],
    ["spool-spring", { scored: "yes" }, "bad", "as a set"],
    ["spool-spring", { force: "90" }, "bad", "adjust once"],
    ["spool-spring", { suction: "no" }, "doubt", "vacuum bench"],
    ["heat-survey", {}, "bad", "Part 2"],
    ["heat-survey", { parts: "1 53\n2 54" }, "good", "None"],
    ["solenoid", { voltage: "12" }, "bad", "electrical side"],
    ["solenoid", { magnet: "no" }, "bad", "the coil"],
    ["solenoid", { shifts: "no" }, "bad", "seized"],
    ["slip-torque", { torque: "100", adjusted: "yes" }, "bad", "renew"],
    ["slip-torque", { torque: "300" }, "bad", "no longer protects"],
    ["hot-level", { temperature: "15" }, "doubt", "Not a level"],
    ["hot-level", { level: "low" }, "bad", "find where"],
    ["hot-level", { foam: "milky" }, "bad", "Water"],
    ["load-test", {}, "good", "Good"],
    ["vacuum-bench", { read: "8 inHg" }, "bad", "leaks"],
  ])("%s %j: %s", (id, typed, tone, words) =>
    expect(answer(id, typed as Record<string, string>)).toMatchObject({ tone, text: expect.stringContaining(words) }),
  );
  test("what cannot be is said", () => {
    expect(answer("fall-after-stop", { series: "0 0\n1 5\n2 4" }).text).toContain("above zero");
    expect(answer("command-response", { series: "0 1\n50 1\n100 1\n0 1" }).text).toContain("does not move");
  });
});

describe("a plant's own test", () => {
  const own: PlantTest = {
    title: "Gate latch",
    asks: "Does the latch let go in time?",
    kinds: ["cylinder"],
    before: ["Gate shut"],
    caution: "Stand clear.",
    steps: ["Press open."],
    alters: [],
    readings: [
      { label: "Latch pressure", quantity: "pressure", least: 40, greatest: 60 },
      { label: "Time", quantity: "strokeTime", least: null, greatest: 3 },
    ],
  };
  const run = (typed: Record<string, string>) => runCalculator(plantCheck("own", own).calculation, typed);
  const said = (typed: Record<string, string>) => {
    const r = run(typed);
    return r.ok ? r.outcome.answer.map((p) => ("text" in p ? p.text : "")).join("") : Object.values(r.problems).join();
  };
  test("judges each reading by its bounds", () => {
    expect(said({ r0: "50", r1: "2" })).toBe("Within its bounds.");
    expect(said({ r0: "30", r1: "2" })).toContain("Outside: latch pressure");
    expect(said({ r0: "50" })).toContain("Not read: time");
    expect(said({})).toContain("at least one reading");
  });
  test("bad definitions are told", () => {
    expect(plantTestProblem(own)).toBeUndefined();
    expect(plantTestProblem({ ...own, readings: [] })).toContain("at least one");
    expect(
      plantTestProblem({ ...own, readings: [{ label: "X", quantity: "pressure", least: 60, greatest: 40 }] }),
    ).toContain("above the lower");
    expect(
      plantTestProblem({ ...own, readings: [{ label: "X", quantity: "pressure", least: null, greatest: 1e6 }] }),
    ).toContain("outside what");
    expect(plantTestProblem({ ...own, readings: Array.from({ length: 21 }, () => own.readings[0]!) })).toContain(
      "At most 20",
    );
  });
});
