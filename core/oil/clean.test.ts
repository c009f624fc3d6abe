/** Elements, cleaning up, and debris events. */
import { DAY } from "../units/time";
import { countAfter } from "../contamination/filter";
import { random } from "../random/random";
import { cleanUpPlan, fitCleanUp, together } from "./cleanUp";
import { closingProblems, debrisChecks, debrisTasks, flushFlow, flushPlan, twoCleaner } from "./debris";
import { elementFinding, type ElementLife } from "./element";

const reference = { flow: 60, viscosity: 30 };
const life = (drops: number[], start = 0, change: Partial<ElementLife> = {}): ElementLife => ({
  id: String(start),
  startedAt: start * DAY,
  endedAt: null,
  readings: drops.map((drop, i) => ({
    at: (start + i * 30) * DAY,
    hours: (start + i * 30) * 8,
    drop,
    viscosity: null,
    flow: null,
  })),
  ...change,
});
const rising = (start: number, first: number) =>
  life(
    Array.from({ length: 12 }, (_, i) => first * Math.exp(0.08 * i)),
    start,
  );

describe("an element", () => {
  test("oil at another viscosity and flow is brought to one before it is judged", () => {
    const cold = life([1.6, 1.6, 1.6]);
    const found = elementFinding(
      [{ ...cold, readings: cold.readings.map((r) => ({ ...r, viscosity: 60 })) }],
      reference,
      3,
    )!;
    expect(found.now).toBeCloseTo(0.8);
    expect(
      elementFinding([{ ...cold, readings: cold.readings.map((r) => ({ ...r, flow: 120 })) }], reference, 3)!.now,
    ).toBeCloseTo(0.8);
  });
  test("one that fills is foretold within the hours that it truly has", () => {
    const found = elementFinding([rising(0, 0.8)], reference, 3)!;
    const truth = ((Math.log(3 / 0.8) / 0.08) * 30 - 330) * 8;
    expect(found.past).toBeNull();
    expect(found.hoursLeft!.middle).toBeGreaterThan(truth * 0.8);
    expect(found.hoursLeft!.middle).toBeLessThan(truth * 1.25);
    expect(found.hoursLeft!.early).toBeLessThanOrEqual(found.hoursLeft!.middle);
    expect(found.blocked).toBe(false);
  });
  test("one fitted with a third of the usual drop lets oil past from the day it was fitted; one that falls, from then", () => {
    expect(elementFinding([rising(0, 0.8), life([0.27, 0.28, 0.27, 0.28], 400)], reference, 3)).toMatchObject({
      past: expect.stringContaining("not seated"),
      pastSince: 400 * DAY,
    });
    expect(elementFinding([rising(0, 0.8), life([0.8, 0.85, 0.9, 0.3, 0.3, 0.31], 400)], reference, 3)).toMatchObject({
      past: expect.stringContaining("burst"),
      pastSince: 490 * DAY,
    });
    expect(elementFinding([life([0.8, 0.85, 0.9, 0.3, 0.3, 0.31])], reference, 3)).toMatchObject({
      past: expect.stringContaining("as fitted"),
      pastSince: 90 * DAY,
    });
  });
  test("at the bypass it is blocked; no reading says nothing", () => {
    expect(elementFinding([life([0.8, 2.9, 3, 3.1])], reference, 3)).toMatchObject({ blocked: true, hoursLeft: null });
    expect(elementFinding([life([])], reference, 3)).toBeNull();
  });
});

describe("cleaning up", () => {
  const balance = { volume: 200, flow: 20, beta: 200, ingress: 2000 };
  test("what it costs is the dirt carried, counted in time at the target", () => {
    const plan = cleanUpPlan(balance, 5000, 640);
    expect(plan.steady).toBeCloseTo(2000 / (20 * 0.995));
    expect(plan.minutes).toBeGreaterThan(0);
    // by numbers: the integral of the count over the clean-up
    let sum = 0;
    for (let t = 0; t < plan.minutes!; t += 0.01) sum += countAfter(balance, 5000, t + 0.005) * 0.01;
    expect(plan.exposure! / (sum / 640)).toBeCloseTo(1, 2);
    expect(cleanUpPlan(balance, 5000, 50)).toMatchObject({ minutes: null, exposure: null });
  });
  test("a loop beside the filter adds what it takes", () => {
    expect(together({ flow: 20, beta: 200 }, { flow: 20, beta: 200 })).toEqual({
      flow: 40,
      beta: expect.closeTo(200, 6),
    });
    expect(together({ flow: 10, beta: 2 }, { flow: 30, beta: 1000 }).beta).toBeGreaterThan(2);
  });
  test("a filter that clears at half its rate is found out", () => {
    const slow = { ...balance, flow: 10 };
    const samples = [0, 5, 10, 20, 40].map((minutes) => ({ minutes, count: countAfter(slow, 8000, minutes) }));
    const fit = fitCleanUp(balance, samples)!;
    expect(fit.share).toBeCloseTo(0.5, 1);
    expect(fit.low).toBeLessThan(0.5);
    expect(fit.high).toBeGreaterThan(0.5);
    expect(fit.fitted(20) / samples[3]!.count).toBeCloseTo(1, 0);
    expect(
      fitCleanUp(
        balance,
        samples.map((s) => ({ ...s, count: 100 })),
      ),
    ).toBeNull();
    expect(() => fitCleanUp(balance, samples.slice(0, 3))).toThrow(RangeError);
  });
  test("scatter of counts is in the interval: it holds the truth nine times in ten or so", () => {
    const rng = random(5);
    let held = 0;
    for (let k = 0; k < 60; k++) {
      const samples = [0, 4, 9, 16, 30, 60].map((minutes) => ({
        minutes,
        count: countAfter({ ...balance, flow: 12, ingress: 300 }, 9000, minutes) * Math.exp(0.3 * rng.normal()),
      }));
      const fit = fitCleanUp(balance, samples);
      if (fit && fit.low <= 0.6 && fit.high >= 0.6) held++;
    }
    expect(held).toBeGreaterThan(45);
  });
});

describe("a debris event", () => {
  const components = [
    { id: "t", name: "Reservoir", kind: "other", position: 0, symptomIfStuck: "" },
    { id: "p", name: "Pump", kind: "axialPistonPump", position: 1, symptomIfStuck: "" },
    { id: "r", name: "Relief valve", kind: "reliefValve", position: 2, symptomIfStuck: "" },
    { id: "v", name: "Hoist valve", kind: "proportionalValve", position: 3, symptomIfStuck: "hook drifts down" },
    { id: "c", name: "Cylinder", kind: "cylinder", position: 4, symptomIfStuck: "" },
  ];
  test("valves downstream first, each with its symptom, and what is reached through the tank after them", () => {
    const checks = debrisChecks(components, "r");
    expect(checks.map((c) => c.componentId)).toEqual(["r", "v", "c", "t", "p"]);
    expect(checks[0]).toMatchObject({ reached: "downstream", symptom: expect.stringContaining("held open") });
    expect(checks[1]!.symptom).toBe("hook drifts down");
    expect(checks[4]!.reached).toBe("throughTank");
    expect(debrisChecks(components, null).every((c) => c.reached === "downstream")).toBe(true);
  });
  test("the plan names flushing plates where there are fine valves, and an off-line unit where the filter cannot", () => {
    const plan = (change: object) =>
      flushPlan({
        targetText: "18/16/13",
        cleanerText: twoCleaner([18, 16, 13]),
        minutes: 300,
        proportional: true,
        ...change,
      })
        .map((s) => `${s.title} ${s.detail}`)
        .join("\n");
    expect(plan({})).toMatch(/flushing plates[\s\S]*5 h of running[\s\S]*16\/14\/11/);
    expect(plan({ proportional: false })).not.toMatch(/flushing plates/);
    expect(plan({ minutes: null })).toMatch(/off-line unit/);
  });
  test("opening it puts everything on one list: parts, flush, samples with their days", () => {
    const tasks = debrisTasks(components, "r", { targetCodes: [18, 16, 13], minutes: 90 });
    expect(tasks.filter((t) => t.kind === "check").map((t) => t.title)).toEqual([
      "Relief valve",
      "Hoist valve",
      "Cylinder",
      "Reservoir",
      "Pump",
    ]);
    expect(tasks.find((t) => t.title === "Pump")!.detail).toMatch(
      /^Reached through the tank\. When dirt sticks in it: case drain rises/,
    );
    expect(tasks.find((t) => t.title === "Flush")!.detail).toContain("16/14/11, two numbers below the target 18/16/13");
    expect(tasks.filter((t) => t.kind === "sample").map((t) => t.dueDays)).toEqual([0, 2, 9, 30]);
    expect(debrisTasks([], null, { targetCodes: null, minutes: null }).filter((t) => t.kind === "check")).toEqual([]);
  });
  test("a flush is turbulent: 25 mm and 20 mm²/s ask for 94 L/min", () => {
    expect(flushFlow(25, 20)).toBeCloseTo(94.25, 1);
    expect(() => flushFlow(0, 20)).toThrow(RangeError);
  });
  test("it closes with a clean sample, every part checked, and a named source or an honest not found", () => {
    const good = { checksOpen: 0, clean: true, sourceComponent: true, words: "", notFound: false };
    expect(closingProblems(good)).toEqual({});
    expect(closingProblems({ ...good, checksOpen: 1 }).form).toMatch(/1 part is still unchecked/);
    expect(closingProblems({ ...good, clean: null }).form).toMatch(/no sample/);
    expect(closingProblems({ ...good, clean: false }).form).toMatch(/not clean/);
    expect(closingProblems({ ...good, sourceComponent: false }).source).toMatch(/Name the source/);
    expect(closingProblems({ ...good, sourceComponent: false, words: "hose lining" })).toEqual({});
    expect(closingProblems({ ...good, notFound: true, words: "pump" }).source).toMatch(/in vain/);
    expect(closingProblems({ ...good, notFound: true, words: "pump, both hoses and the tank" })).toEqual({});
  });
});
