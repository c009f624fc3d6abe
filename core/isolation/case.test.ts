import { describe, expect, test } from "@jest/globals";
import { draftCircuit, fitCircuit, workCommands, type PresentGauge } from "../index";
import { beginCase, oddsOf, type IsolationCase, type TestResult } from "./case";
import { gaugeEvidence } from "./evidence";
import { adviceOf } from "./next";
import { reasonsOf } from "./why";

const shareOf = (c: IsolationCase, results: TestResult[], cause: string) =>
  c.suspects.reduce((sum, s, i) => (s.cause === cause ? sum + oddsOf(c, results).suspects[i]! : sum), 0);

describe("odds", () => {
  const c = beginCase("noShift", null);
  test("no voltage makes the command likeliest, and undoing it gives back what was", () => {
    const before = shareOf(c, [], "command.none");
    const after = shareOf(c, [{ at: "volt.coil", result: "noVoltage" }], "command.none");
    expect(after).toBeGreaterThan(0.85);
    expect(shareOf(c, [], "command.none")).toBe(before);
  });
  test("results that contradict one another leave odds that add up, and the case goes on", () => {
    const results = [
      { at: "volt.coil", result: "noVoltage" },
      { at: "volt.coil", result: "both" },
      { at: "drive.override", result: "refuses" },
    ];
    const odds = oddsOf(c, results);
    expect(odds.possibilities.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 9);
    expect(adviceOf(c, odds, new Set(["volt.coil"])).proposals.length).toBeGreaterThan(0);
  });
  test("a test that was made again is one result: two people who look at one oil level renew no part", () => {
    const low = beginCase("lowPressure", null);
    const at = low.tests.find((t) => t.test === "look.level")!;
    const [usual, sign] = Object.keys(at.about.results) as [string, string];
    const seen = (result: string): TestResult => ({ at: at.id, result });
    const once = oddsOf(low, [seen(sign)]);
    const apart = (a: typeof once, b: typeof once) =>
      Math.max(...a.suspects.map((s, i) => Math.abs(s - b.suspects[i]!)));
    expect(apart(oddsOf(low, [seen(sign), seen(sign), seen(sign)]), once)).toBeLessThan(1e-12);
    // repeats that differ lie between, whichever came first
    const both = oddsOf(low, [seen(sign), seen(usual)]);
    expect(apart(both, oddsOf(low, [seen(usual), seen(sign)]))).toBeLessThan(1e-12);
    const first = (odds: typeof once) => Math.max(...odds.suspects);
    expect(first(both)).toBeLessThan(first(once));
  });
  test("a test that the case does not have, or a result that a test does not have, counts for nothing", () => {
    const odd = [
      { at: "nonsense", result: "high" },
      { at: "volt.coil", result: "purple" },
    ];
    expect(oddsOf(c, odd)).toEqual(oddsOf(c, []));
  });
  test("where every test shows the ordinary result, it is something else", () => {
    const results = c.tests.map((t) => ({ at: t.id, result: Object.keys(t.about.results)[0]! }));
    const odds = oddsOf(c, results);
    expect(odds.other).toBeGreaterThan(0.5);
    expect(adviceOf(c, odds, new Set(c.tests.map((t) => t.id))).noneFits).toBe(true);
  });
  test("closed cases of the plant move what is likeliest at first", () => {
    const taught = beginCase("noShift", null, { found: { "command.coil": 40 } });
    expect(shareOf(taught, [], "command.coil")).toBeGreaterThan(2 * shareOf(c, [], "command.coil"));
  });
});

describe("the next test", () => {
  test("what opens the circuit waits while a safer test tells enough", () => {
    const c = beginCase("lowPressure", null);
    const { proposals } = adviceOf(c, oddsOf(c, []), new Set());
    const opens = proposals.filter((p) => p.test.about.risk === "opens");
    expect(opens.length).toBeGreaterThan(0);
    expect(opens.every((p) => p.heldBack)).toBe(true);
    expect(proposals[0]!.heldBack).toBe(false);
  });
  test("a method outside the book is held back whatever it tells", () => {
    const c = beginCase("compensatorLow", null);
    const { proposals } = adviceOf(c, oddsOf(c, []), new Set());
    const outside = proposals.find((p) => p.test.about.outsideBook);
    expect(outside?.heldBack).toBe(true);
  });
  test("what is made ready for one test makes the next one cheaper", () => {
    const c = beginCase("runsHot", null);
    const minutes = (ready: "warm" | "none") =>
      adviceOf(c, oddsOf(c, []), new Set(), new Set(["none", ready])).proposals.find(
        (p) => p.test.test === "heat.relief",
      )!.minutes;
    expect(minutes("none") - minutes("warm")).toBe(15);
  });
  test("nothing is proposed that could not change what to do", () => {
    const c = beginCase("creeps", null);
    const found = [
      { at: "hold.both", result: "piston" },
      { at: "hold.blocked", result: "creeps" },
    ];
    const { proposals, decided, acts } = adviceOf(c, oddsOf(c, found), new Set(["hold.both", "hold.blocked"]));
    expect(decided).toBe(true);
    expect(acts[0]!.causes[0]!.cause).toBe("cylinder.piston");
    // the voltage at a coil says nothing of a piston seal
    expect(proposals.map((p) => p.test.test)).not.toContain("volt.coil");
  });
});

describe("with a circuit and its gauges", () => {
  const { netlist } = draftCircuit({
    workingPressure: 180,
    components: [
      { id: "tank", kind: "reservoir", name: "Reservoir", displacement: null, speed: null, points: [] },
      {
        id: "pump",
        kind: "axialPistonPump",
        name: "Pump",
        displacement: 45,
        speed: 1450,
        points: [
          { id: "drain", name: "Case drain", quantity: "caseDrainFlow" },
          { id: "case", name: "Case pressure", quantity: "pressure" },
          { id: "idle", name: "Compensator pressure", quantity: "pressure" },
        ],
      },
      {
        id: "relief",
        kind: "reliefValve",
        name: "Relief valve",
        displacement: null,
        speed: null,
        points: [{ id: "set", name: "Setting", quantity: "pressure" }],
      },
      { id: "valve", kind: "directionalValve", name: "Valve", displacement: null, speed: null, points: [] },
    ],
  });
  const states = [
    ["drain", "fullStroke"],
    ["case", "fullStroke"],
    ["idle", "idle"],
    ["set", "idle"],
  ] as const;
  const baselines = { drain: 1.4, case: 0.7, idle: 192, set: 215 };
  const commands = workCommands(netlist);
  const { data } = fitCircuit(
    netlist,
    states.map(([pointId, state]) => ({
      pointId,
      state,
      value: baselines[pointId],
      uncertainty: 0.02 * baselines[pointId],
    })),
    commands,
  );
  const now = (times: Partial<typeof baselines>): PresentGauge[] =>
    states.map(([pointId]) => {
      const value = baselines[pointId] * (times[pointId] ?? 1);
      return { pointId, value, uncertainty: 0.03 * value };
    });
  const evidenceWith = (times: Partial<typeof baselines>) =>
    gaugeEvidence(netlist, states, { commands, data }, now(times));

  test("a case drain and a case pressure that rose together say that the pump leaks into its case", () => {
    const c = beginCase("gaugeOdd", { netlist, evidence: evidenceWith({ drain: 3, case: 3 }) });
    expect(shareOf(c, [], "pump.caseLeak")).toBeGreaterThan(0.9);
    const pump = c.suspects.findIndex((s) => s.cause === "pump.caseLeak");
    const [gauges] = reasonsOf(c, pump, []);
    expect(gauges).toMatchObject({ at: null });
    expect(gauges!.decibans).toBeGreaterThan(10);
  });
  test("a gauge that was read and is then made as a test counts once; where it says otherwise by now, it counts", () => {
    const evidence = evidenceWith({ set: 0.88 });
    const c = beginCase("gaugeOdd", { netlist, evidence });
    const at = "setting.relief@relief";
    expect(evidence.asTest![at]).toBe("set");
    expect(oddsOf(c, [{ at, result: "low" }])).toEqual(oddsOf(c, []));
    const [usual] = Object.keys(c.tests.find((t) => t.id === at)!.about.results);
    expect(oddsOf(c, [{ at, result: usual! }])).not.toEqual(oddsOf(c, []));
    // without the gauges the test stands for itself
    expect(oddsOf(c, [{ at, result: "low" }], { gauges: true })).not.toEqual(oddsOf(c, [], { gauges: true }));
  });
  test("few readings alone are never sure enough to act: a test comes first", () => {
    const evidence = evidenceWith({ drain: 3, case: 3 });
    const c = beginCase("gaugeOdd", { netlist, evidence });
    expect(adviceOf(c, oddsOf(c, []), new Set()).decided).toBe(true);
    const few = beginCase("gaugeOdd", { netlist, evidence: { ...evidence, read: ["drain"] } });
    expect(adviceOf(few, oddsOf(few, []), new Set()).decided).toBe(false);
    expect(adviceOf(few, oddsOf(few, []), new Set(["pump.noise"])).decided).toBe(true);
  });
  test("gauges that are taken out count no more", () => {
    const c = beginCase("gaugeOdd", { netlist, evidence: evidenceWith({ drain: 3, case: 3 }) });
    const pump = c.suspects.findIndex((s) => s.cause === "pump.caseLeak");
    expect(oddsOf(c, [], { gauges: true }).suspects[pump]).toBeLessThan(0.5);
  });
  test("a relief valve that reads low is the relief valve, and its test is predicted", () => {
    const evidence = evidenceWith({ set: 0.88 });
    const c = beginCase("gaugeOdd", { netlist, evidence });
    const relief = ["relief.setLow", "relief.spring", "relief.heldOpen", "relief.seat"];
    expect(relief.reduce((sum, id) => sum + shareOf(c, [], id), 0)).toBeGreaterThan(0.8);
    const own = evidence.faults.find((f) => f.element === "relief" && f.fault === "setLow")!;
    expect(own.predicted["setting.relief@relief"]!.low).toBeGreaterThan(0.9);
  });
  test("two faults that only together explain the gauges stand together, though neither was likely beforehand", () => {
    const evidence = evidenceWith({ drain: 3, case: 3, set: 0.88 });
    const c = beginCase("gaugeOdd", { netlist, evidence });
    const relief = ["relief.setLow", "relief.spring", "relief.heldOpen", "relief.seat"];
    expect(shareOf(c, [], "pump.caseLeak")).toBeGreaterThan(0.8);
    expect(relief.reduce((sum, id) => sum + shareOf(c, [], id), 0)).toBeGreaterThan(0.7);
    // weighed by the better of the two alone, one of them has to go
    const { pairs: _, ...alone } = evidence;
    const before = beginCase("gaugeOdd", { netlist, evidence: alone });
    const least = Math.min(
      shareOf(before, [], "pump.caseLeak"),
      relief.reduce((sum, id) => sum + shareOf(before, [], id), 0),
    );
    expect(least).toBeLessThan(0.6);
  });
  test("where one fault explains everything, or nothing is off, no pairs are kept", () => {
    expect(evidenceWith({ drain: 3, case: 3 }).pairs).toEqual([]);
    expect(evidenceWith({}).pairs).toEqual([]);
  });
  test("parts that the circuit does not have are not suspected", () => {
    const c = beginCase("gaugeOdd", { netlist, evidence: evidenceWith({}) });
    expect(c.suspects.some((s) => s.cause === "accumulator.gas")).toBe(false);
  });
});
