import { describe, expect, test } from "@jest/globals";
import { workCommands } from "../circuit/gauges";
import { beginCase, type TestAt } from "./case";
import { effortOf } from "./effort";
import { gaugeEvidence } from "./evidence";
import { templateNetlist } from "../circuit/ofTemplate";
import { testPointAdvice } from "./testPoints";

const netlist = templateNetlist("hoist");

describe("what a test takes where a test point is fitted", () => {
  const c = beginCase("lowPressure", null, undefined, netlist);
  const at = (id: string): TestAt => c.tests.find((t) => t.test === id)!;
  test("nothing has to be opened for a meter that has its coupling", () => {
    const load = at("pump.loadTest");
    expect(effortOf(c, load)).toMatchObject({ prepare: "meter", risk: "opens" });
    const fitted = { ...c, fitted: new Set([load.id]) };
    expect(effortOf(fitted, load)).toMatchObject({ prepare: "none", risk: "care" });
    expect(effortOf(fitted, at("inlet.vacuum"))).toEqual(effortOf(c, at("inlet.vacuum")));
  });
  test("what no test point serves stays as it is", () => {
    const look = at("look.level");
    expect(effortOf({ ...c, fitted: new Set([look.id]) }, look)).toEqual(effortOf(c, look));
  });
});

describe("where to put one", () => {
  const evidence = gaugeEvidence(netlist, [], { commands: workCommands(netlist) }, []);
  const advice = testPointAdvice(netlist, evidence, { cases: 48 });

  test("a few places, the best worth more than chance", () => {
    expect(advice.cases).toBe(48);
    expect(advice.minutes).toBeGreaterThan(20);
    expect(advice.points.length).toBeGreaterThan(0);
    expect(advice.points.length).toBeLessThanOrEqual(3);
    for (const p of advice.points) {
      expect(p.saved).toBeGreaterThan(0);
      expect(netlist.elements.some((e) => e.id === p.element)).toBe(true);
      expect(p.inRounds && p.meter).toBe(false);
    }
    // what goes into the line has its coupling first: it costs half an hour and opens the circuit
    expect(advice.points[0]).toMatchObject({ meter: true, inRounds: false, sure: true });
    expect(advice.points[0]!.opened).toBeGreaterThan(0.1);
  });
  test("the same seed says the same", () => {
    const few = { cases: 6, seed: 4 };
    expect(testPointAdvice(netlist, evidence, few)).toEqual(testPointAdvice(netlist, evidence, few));
  });
  test("what is read there already is not proposed again", () => {
    const drain = advice.points.find((p) => p.inRounds)!;
    expect(drain.at).toContain("pump.caseDrain");
    const gauge = { pointId: "v", element: drain.element!, port: "case", reads: "flow" as const };
    const read = { ...netlist, gauges: [...netlist.gauges, gauge] };
    expect(testPointAdvice(read, evidence, { cases: 16 }).points.map((p) => p.at)).not.toContain(drain.at);
  });
  test("a circuit with nothing in it asks for nothing", () => {
    expect(testPointAdvice({ elements: [], lines: [], gauges: [] }, null, { cases: 5 }).points).toEqual([]);
  });
});
