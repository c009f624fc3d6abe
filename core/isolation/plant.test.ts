/** What a plant adds is reckoned with as what the house knows. */
import { describe, expect, test } from "@jest/globals";
import { beginCase, oddsOf, type IsolationCase, type TestResult } from "./case";
import { leaningTo, type PlantCause, type PlantKnowledge } from "./knowledge/plant";
import type { Test } from "./knowledge/types";
import { adviceOf } from "./next";
import { templateNetlist } from "../circuit/ofTemplate";

const drain: PlantCause = {
  part: "relief",
  label: "Drain cock V7 left open",
  rank: "sometimes",
  outside: true,
  act: { do: "restore", text: "Shut V7, seal it", minutes: 5, part: false, stop: false },
  symptoms: { lowPressure: "often" },
  like: "relief.heldOpen",
  basis: "found three times since 2024",
};
const look: Test = {
  label: "Drain cock V7",
  how: "Behind the pump, red handle",
  minutes: 1,
  prepare: "none",
  risk: "none",
  results: { shut: "Shut", open: "Open" },
  shows: { open: { "plant:drain": "always" } },
  basis: "this plant",
};
const plant: PlantKnowledge = { found: {}, causes: { "plant:drain": drain }, tests: { "plant:look": look } };
const share = (c: IsolationCase, cause: string, results: TestResult[] = []) =>
  c.suspects.reduce((sum, s, i) => (s.cause === cause ? sum + oddsOf(c, results).suspects[i]! : sum), 0);

describe("a cause and a test of the plant's own", () => {
  const netlist = templateNetlist("fixedRelief");
  const c = beginCase("lowPressure", null, plant, netlist);
  const valve = netlist.elements.find((e) => e.kind === "relief")!;

  test("the cause stands at the parts that it belongs to, among those of its symptom only", () => {
    expect(c.suspects.filter((s) => s.cause === "plant:drain").map((s) => s.element)).toEqual([valve.id]);
    expect(share(c, "plant:drain")).toBeGreaterThan(0.05);
    expect(beginCase("creeps", null, plant, netlist).suspects.some((s) => s.cause === "plant:drain")).toBe(false);
  });
  test("its own test finds it, and rules it out", () => {
    expect(share(c, "plant:drain", [{ at: "plant:look", result: "open" }])).toBeGreaterThan(0.6);
    expect(share(c, "plant:drain", [{ at: "plant:look", result: "shut" }])).toBeLessThan(0.02);
  });
  test("a minute's look that no instrument is needed for is among the first proposals", () => {
    const { proposals } = adviceOf(c, oddsOf(c, []), new Set());
    expect(proposals.slice(0, 4).map((p) => p.test.id)).toContain("plant:look");
  });
  test("tests of the house show of it what they show of the cause that it is like", () => {
    const hot = [{ at: `heat.relief@${valve.id}`, result: "hot" }];
    expect(share(c, "plant:drain", hot)).toBeGreaterThan(1.5 * share(c, "plant:drain"));
    const alone = beginCase(
      "lowPressure",
      null,
      { ...plant, causes: { "plant:drain": { ...drain, like: undefined } } },
      netlist,
    );
    expect(share(alone, "plant:drain", hot)).toBeLessThan(share(alone, "plant:drain"));
  });
  test("closed cases count for it as for any other", () => {
    const taught = beginCase("lowPressure", null, { ...plant, found: { "plant:drain": 30 } }, netlist);
    expect(share(taught, "plant:drain")).toBeGreaterThan(3 * share(c, "plant:drain"));
  });
});

test("a plant ranks a cause of the house otherwise, or names it where the house does not", () => {
  const usual = beginCase("lowPressure", null);
  const rare = beginCase("lowPressure", null, { found: {}, ranks: { lowPressure: { "relief.setLow": "rare" } } });
  expect(share(rare, "relief.setLow")).toBeLessThan(0.2 * share(usual, "relief.setLow"));
  const added = beginCase("lowPressure", null, { found: {}, ranks: { lowPressure: { "accumulator.gas": "often" } } });
  expect(share(usual, "accumulator.gas")).toBe(0);
  expect(share(added, "accumulator.gas")).toBeGreaterThan(0.05);
});

describe("what the register says of one element", () => {
  const netlist = templateNetlist("fixedRelief");
  const relief = netlist.elements.find((e) => e.kind === "relief")!.id;
  const pump = netlist.elements.find((e) => e.kind === "fixedPump")!.id;
  const at = (element: string, leanings: PlantKnowledge["leanings"]) => {
    const c = beginCase("lowPressure", null, { found: {}, leanings: leanings ?? [] }, netlist);
    const { suspects } = oddsOf(c, []);
    return c.suspects.reduce((sum, s, i) => (s.element === element ? sum + suspects[i]! : sum), 0);
  };
  const bulletin = { element: relief, cause: null, factor: 4, text: "A bulletin is open" };

  test("an open bulletin makes every cause of its part likelier, and the others less so", () => {
    expect(at(relief, [bulletin])).toBeGreaterThan(1.5 * at(relief, []));
    expect(at(pump, [bulletin])).toBeLessThan(at(pump, []));
  });
  test("taken out it says nothing", () =>
    expect(at(relief, [{ ...bulletin, out: true }])).toBeCloseTo(at(relief, []), 12));
  test("a cause that peers had is likelier at this model alone", () => {
    const had = { element: relief, cause: "relief.heldOpen", factor: 3, text: "Two had it" };
    const of = (leanings: PlantKnowledge["leanings"], cause: string) => {
      const c = beginCase("lowPressure", null, { found: {}, leanings: leanings ?? [] }, netlist);
      return oddsOf(c, []).suspects[c.suspects.findIndex((s) => s.cause === cause)]!;
    };
    expect(of([had], "relief.heldOpen")).toBeGreaterThan(1.3 * of([], "relief.heldOpen"));
    expect(of([had], "relief.setLow")).toBeLessThan(of([], "relief.setLow"));
  });
  test("many together lean no more than eight times", () => {
    expect(leaningTo(Array(9).fill(bulletin), "relief.setLow", relief)).toBe(8);
    expect(leaningTo([bulletin], "relief.setLow", pump)).toBe(1);
    expect(leaningTo(undefined, "relief.setLow", null)).toBe(1);
  });
});
