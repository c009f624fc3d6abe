/** Procedures are whole, hold points bar the way, findings say what follows, a proof is more than scatter. */
import fc from "fast-check";
import {
  answerText,
  entryProblem,
  fieldsOfAsk,
  findingFields,
  findingKindIds,
  findingProblems,
  findingSays,
  proceduresForWork,
  expectedAfter,
  isProven,
  proofOf,
  proofSides,
  standOfRun,
  stepProblems,
  stepsOf,
  workProcedures,
  type StepEntry,
  type WorkProcedure,
} from "./index";
import { componentKinds } from "../equipment/kinds";
import { random } from "../random/random";

const free = { holdsReleased: false };
let count = 0;
const entry = (step: string, change: Partial<StepEntry> = {}): StepEntry => ({
  submission: `e${count++}`,
  step,
  kind: "done",
  values: {},
  reason: "",
  at: 0,
  by: "I. Marsh",
  ...change,
});

describe("the procedures that ship", () => {
  const each = workProcedures.map((p) => [p.id, p] as const);
  test.each(each)("%s: ids are its own, pairs lie before, what is altered is put back", (_id, procedure) => {
    const steps = stepsOf(procedure);
    const ids = steps.map((s) => s.id);
    expect(new Set(ids).size).toBe(ids.length);
    steps.forEach((s, i) => {
      const before = ids.slice(0, i);
      if (s.putsBack) expect(before).toContain(s.putsBack);
      if (s.ask?.kind === "count" && s.ask.equals) expect(before).toContain(s.ask.equals);
      if (s.ask?.kind === "value" && s.ask.above) {
        expect(before).toContain(s.ask.above);
        const other = steps.find((o) => s.ask?.kind === "value" && o.id === s.ask.above)?.ask;
        expect(other).toMatchObject({ kind: "value", below: s.id });
      }
      if (s.alters) expect(steps.slice(i + 1).filter((later) => later.putsBack === s.id)).not.toHaveLength(0);
      if (s.ask?.kind === "choice") expect(s.ask.options.some((o) => !o.stops)).toBe(true);
    });
    expect(procedure.cautions.length).toBeGreaterThan(0);
  });
  test.each(each)("%s: whoever opens the circuit has proved zero before", (_id, procedure) => {
    const steps = stepsOf(procedure);
    const opens = steps.findIndex((s) => ["off", "look", "bolts-off", "oil-out"].includes(s.id));
    const zero = steps.findIndex((s) => s.id === "zero");
    if (opens < 0) return;
    expect(zero).toBeGreaterThanOrEqual(0);
    expect(zero).toBeLessThan(opens);
    expect(steps[zero]!.hold).toBeDefined();
  });
  test.each(each)("%s: what needs the drive comes after the locks are off", (_id, procedure) => {
    const ids = stepsOf(procedure).map((s) => s.id);
    if (!ids.includes("isolated")) return;
    for (const runs of ["rotation", "flow", "strokes", "turbulent", "leaks", "again", "shut-in-again"])
      if (ids.includes(runs)) expect(ids.indexOf(runs)).toBeGreaterThan(ids.indexOf("unlocked"));
  });
  test.each(each)("%s: what a stop-gap hangs on names its day", (_id, procedure) => {
    for (const s of stepsOf(procedure)) if (s.interim) expect(s.ask?.kind).toBe("day");
  });
  test.each([
    ["cylinder", "repair", "renew-seals-cylinder"],
    ["loadHoldingValve", "repair", "repair-load-holding"],
    ["axialPistonPump", "replacement", "replace-compensated-pump"],
    ["proportionalValve", "replacement", "replace-proportional-valve"],
    ["filter", "replacement", "change-element"],
    ["accumulator", "repair", "recharge-accumulator"],
  ] as const)("for a %s, %s: %s is offered first", (kind, work, first) => {
    expect(proceduresForWork(kind, work, workProcedures)[0]!.id).toBe(first);
  });
  test("what goes beyond most manufacturers' books is never offered first", () => {
    for (const kind of Object.keys(componentKinds))
      for (const work of ["replacement", "repair", "inspection"] as const) {
        const offered = proceduresForWork(kind, work, workProcedures);
        const warned = offered.findIndex((p) => p.notRecommended);
        if (warned >= 0) expect([kind, warned]).toEqual([kind, offered.length - 1]);
        if (offered.length > 1) expect(offered[0]!.notRecommended).toBeUndefined();
      }
  });
  test("every kind of component that wears has a procedure to replace or repair it", () => {
    for (const kind of Object.keys(componentKinds))
      expect([kind, proceduresForWork(kind, "replacement", workProcedures).length]).toEqual([kind, expect.any(Number)]);
    for (const kind of ["axialPistonPump", "gearPump", "proportionalValve", "cylinder", "filter", "loadHoldingValve"])
      expect(proceduresForWork(kind, "replacement", workProcedures)[0]!.fits).toContain("replacement");
  });
});

const small: WorkProcedure = {
  id: "small",
  title: "Small",
  purpose: "",
  kinds: ["gearPump"],
  fits: ["repair"],
  cautions: [],
  renew: [],
  phases: [
    {
      title: "One",
      steps: [
        { id: "a", text: "A" },
        { id: "h", text: "Hold", hold: "why" },
      ],
    },
    {
      title: "Two",
      steps: [
        { id: "b", text: "B" },
        { id: "c", text: "C" },
      ],
    },
  ],
};

describe("hold points", () => {
  const may = { passHolds: true };
  const mayNot = { passHolds: false };
  const done = { step: "b", kind: "done" as const, reason: "" };
  test("bar what comes after them, not what comes before", () => {
    const stand = standOfRun(small, [], free);
    expect(stand).toMatchObject({ next: "a", held: "h", closed: 0 });
    expect(entryProblem(stand, done, may)).toContain("Hold");
    expect(entryProblem(stand, { ...done, step: "a" }, mayNot)).toBeNull();
    expect(entryProblem(standOfRun(small, [entry("h")], free), done, mayNot)).toBeNull();
  });
  test("are skipped by an engineer with a reason, and that stays", () => {
    const skip = { step: "h", kind: "skipped" as const, reason: "the gauge broke, zero by the bleed" };
    const stand = standOfRun(small, [], free);
    expect(entryProblem(stand, skip, mayNot)).toContain("not skipped");
    expect(entryProblem(stand, { ...skip, reason: "so" }, may)).toContain("Say why");
    expect(entryProblem(stand, skip, may)).toBeNull();
    const after = standOfRun(small, [entry("h", skip)], free);
    expect(after).toMatchObject({ held: null, skippedHolds: ["h"] });
  });
  test("wait for their release where the plant says so; done again, for another one", () => {
    const rules = { holdsReleased: true };
    const stand = standOfRun(small, [entry("a"), entry("h")], rules);
    expect(stand).toMatchObject({ held: "h", next: "h" });
    const release = { step: "h", kind: "released" as const, reason: "seen at the gauge" };
    expect(entryProblem(stand, release, mayNot)).toContain("engineer");
    expect(entryProblem(stand, release, may)).toBeNull();
    const released = [entry("a"), entry("h"), entry("h", release)];
    expect(standOfRun(small, released, rules)).toMatchObject({ held: null, next: "b" });
    const again = [...released, entry("h", { kind: "reopened", reason: "read on the wrong port" }), entry("h")];
    expect(standOfRun(small, again, rules).held).toBe("h");
  });
  test("nothing is released that was not done, nothing reopened that is open, no step invented", () => {
    const stand = standOfRun(small, [], { holdsReleased: true });
    const reason = "a reason that is long enough";
    expect(entryProblem(stand, { step: "h", kind: "released", reason }, may)).toContain("nothing to release");
    expect(entryProblem(stand, { step: "a", kind: "reopened", reason }, may)).toContain("open");
    expect(entryProblem(stand, { step: "z", kind: "done", reason }, may)).toContain("no such step");
  });
  test("whatever is entered in whatever order, no step after an open hold point is ever closed", () => {
    const step = fc.constantFrom("a", "h", "b", "c", "z");
    const kind = fc.constantFrom("done", "skipped", "reopened", "released") as fc.Arbitrary<StepEntry["kind"]>;
    fc.assert(
      fc.property(fc.array(fc.tuple(step, kind, fc.boolean()), { maxLength: 30 }), fc.boolean(), (tried, holds) => {
        const rules = { holdsReleased: holds };
        const taken: StepEntry[] = [];
        for (const [s, k, passHolds] of tried) {
          const e = entry(s, { kind: k, reason: "a reason that is long enough" });
          if (entryProblem(standOfRun(small, taken, rules), e, { passHolds }) === null) taken.push(e);
          const stand = standOfRun(small, taken, rules);
          const reopened = taken.some((t) => t.kind === "reopened");
          // a hold point taken back later leaves what was done after it on the record
          if (stand.held && !reopened) expect(stand.steps.slice(2).every((x) => x.state === "open")).toBe(true);
        }
      }),
    );
  });
});

describe("what is entered at a step", () => {
  const step = (ask: NonNullable<WorkProcedure["phases"][number]["steps"][number]["ask"]>) => ({
    id: "s",
    text: "",
    ask,
  });
  const torque = step({ kind: "torque" });
  test.each([
    [torque, { stated: "42", reached: "42", passes: "3" }, []],
    [torque, { stated: "42", reached: "60", passes: "3" }, ["reached"]],
    [torque, { stated: "42", reached: "", passes: "3" }, ["reached"]],
    [torque, { stated: "much", reached: "42", passes: "3" }, ["stated"]],
    [torque, { stated: "42", reached: "42", passes: "a few" }, ["passes"]],
    [step({ kind: "value", label: "Zero", quantity: "pressure", greatest: 0.5 }), { value: "0" }, []],
    [step({ kind: "value", label: "Zero", quantity: "pressure", greatest: 0.5 }), { value: "12" }, ["value"]],
    [step({ kind: "value", label: "Least", quantity: "pressure", least: 10 }), { value: "9 bar" }, ["value"]],
    [step({ kind: "text", label: "T", optional: true }), {}, []],
    [step({ kind: "text", label: "T" }), { text: "x".repeat(301) }, ["text"]],
    [step({ kind: "day", label: "Look again on" }), { day: "2027-02-28" }, []],
    [step({ kind: "day", label: "Look again on" }), { day: "2027-02-31" }, ["day"]],
    [step({ kind: "day", label: "Look again on" }), {}, ["day"]],
    [step({ kind: "day", label: "Look again on", optional: true }), {}, []],
    [step({ kind: "lines" }), { tags: "H-1, H-2" }, []],
    [step({ kind: "count", label: "Plugs" }), { count: "-1" }, ["count"]],
    [step({ kind: "choice", label: "C", options: [{ id: "y", label: "yes" }] }), { choice: "n" }, ["choice"]],
    [
      step({ kind: "choice", label: "C", options: [{ id: "n", label: "no", stops: "Stop." }] }),
      { choice: "n" },
      ["choice"],
    ],
  ])("%#", (s, values, wrong) => {
    expect(Object.keys(stepProblems(s, values, {}))).toEqual(wrong);
  });
  test("as many come back as went out", () => {
    const back = step({ kind: "count", label: "Back", equals: "off" });
    expect(stepProblems(back, { count: "5" }, { off: { count: "6" } }).count).toContain("6 went out, 5 came back");
    expect(stepProblems(back, { count: "6" }, { off: { count: "6" } })).toEqual({});
    expect(stepProblems(back, { count: "6" }, {})).toEqual({});
  });
  test("a relief is set above the compensator; without one noted before, nothing is held against it", () => {
    const relief = step({ kind: "value", label: "Relief set", quantity: "pressure", above: "compensator" });
    const at = (value: string) => stepProblems(relief, { value: "208 bar" }, { compensator: { value } });
    expect(at("208 bar").value).toMatch(/above the 208\sbar set before/);
    expect(at("195 bar")).toEqual({});
    expect(at("3100 psi").value).toContain("It must lie above");
    expect(stepProblems(relief, { value: "208 bar" }, {})).toEqual({});
  });
  test("a compensator that is set anew after the relief must stay below it", () => {
    const compensator = step({ kind: "value", label: "Pressure set", quantity: "pressure", below: "relief" });
    const at = (value: string, relief: string) => stepProblems(compensator, { value }, { relief: { value: relief } });
    expect(at("215 bar", "208 bar").value).toMatch(/208\sbar set after it/);
    expect(at("190 bar", "208 bar")).toEqual({});
    expect(stepProblems(compensator, { value: "215 bar" }, {})).toEqual({});
  });
  test("a pressure in the reader's own unit is held against the same limit", () => {
    const zero = step({ kind: "value", label: "Zero", quantity: "pressure", greatest: 0.5 });
    expect(stepProblems(zero, { value: "4" }, {}, { pressure: "psi" })).toEqual({});
    expect(stepProblems(zero, { value: "400" }, {}, { pressure: "psi" }).value).toContain("At most");
  });
  test("is told in one line", () => {
    expect(answerText(torque.ask, { stated: "42 Nm", reached: "41 Nm", passes: "3" })).toBe(
      "41 Nm, stated 42 Nm, in 3 passes",
    );
    expect(answerText(undefined, {})).toBe("");
    for (const p of workProcedures)
      for (const s of stepsOf(p)) expect(fieldsOfAsk(s.ask).length > 0).toBe(s.ask !== undefined);
  });
});

describe("findings", () => {
  test("every kind asks for something and refuses nothing at all", () => {
    for (const kind of findingKindIds) {
      expect(findingFields(kind).length).toBeGreaterThan(0);
      expect(Object.keys(findingProblems(kind, {})).length).toBeGreaterThan(0);
    }
  });
  test("an oversize repair carries its size, a spool that sticks its place", () => {
    expect(findingProblems("decision", { where: "bore", decision: "oversize" }).size).toBeDefined();
    expect(findingProblems("decision", { where: "bore", decision: "oversize", size: "12.1" })).toEqual({});
    expect(findingProblems("spool", { falls: "sticks at a place" }).where).toBeDefined();
  });
  test("a clearance one and a half times the band lets 3.4 times as much through", () => {
    const says = findingSays("clearance", { where: "slipper", value: "30 µm", least: "10", greatest: "20" });
    expect(says).toMatchObject({ bad: true });
    expect(says.advice).toContain("3.4 times");
    expect(findingSays("clearance", { where: "slipper", value: "15", greatest: "20" }).bad).toBe(false);
    expect(findingSays("clearance", { where: "slipper", value: "5", least: "10" }).advice).toContain("bind");
    expect(findingSays("force", { where: "spring", value: "80", least: "90", greatest: "110" }).advice).toContain(
      "renew",
    );
  });
  test.each([
    ["debris", { where: "case", what: "flakes", magnetic: "yes" }, true],
    ["wear", { where: "plate", pattern: "even, as expected" }, false],
    ["wear", { where: "plate", pattern: "scored" }, true],
    ["seal", { where: "rod", condition: "good", orientation: "wrong way round" }, true],
    ["seal", { where: "rod", condition: "good", orientation: "right" }, false],
    ["suction", { where: "bore", felt: "weak" }, true],
    ["spool", { falls: "falls at every turn" }, false],
    ["decision", { where: "bore", decision: "oversize", size: "12.1 mm" }, false],
  ] as const)("%s %j", (kind, values, bad) => {
    const says = findingSays(kind, values);
    expect(says.bad).toBe(bad);
    expect(says.text).not.toContain("undefined");
  });
});

describe("the proof", () => {
  test("better beyond the scatter, as new or not, no change, worse", () => {
    const asNew = { value: 2, uncertainty: 0.2 };
    expect(proofOf([8, 8.2, 8.1], [2.1], 0.2, "rising", asNew).verdict).toBe("proven");
    expect(proofOf([8, 8.2, 8.1], [5], 0.2, "rising", asNew).verdict).toBe("better, not as new");
    expect(proofOf([8, 8.2, 8.1], [8.05], 0.2, "rising", null).verdict).toBe("no change seen");
    expect(proofOf([8, 8.2, 8.1], [9.5], 0.2, "rising", null).verdict).toBe("worse");
    expect(proofOf([20, 21], [40], 1, "falling", { value: 41, uncertainty: 1 }).verdict).toBe("proven");
    expect(proofOf([250, 251], [180], 2, "both", { value: 180, uncertainty: 2 }).verdict).toBe("proven");
    expect(proofOf([250, 251], [180], 2, "both", null).verdict).toBe("no change seen");
  });
  test("beyond a limit the distance to it tells, whatever is expected: a port first read broken is not worse when it is repaired", () => {
    const band = { upper: 16, lower: 12 };
    const broken = { value: 1.75, uncertainty: 0.2 };
    expect(proofOf([1.75], [13.8], 0.3, "both", broken, band).verdict).toBe("proven");
    expect(proofOf([1.75], [8], 0.3, "both", broken, band).verdict).toBe("better, not as new");
    expect(proofOf([13.8], [1.75], 0.3, "both", null, band).verdict).toBe("worse");
  });
  test("before is the reading that condemned the part, after what was read since the work began and the part was touched", () => {
    const limits = { upper: null, lower: 1.5 };
    expect(proofSides([2, 2.05, 2.1, 0.3], [0.3, 2.2], limits)).toMatchObject({ before: [0.3], after: [2.2] });
    expect(proofSides([2, 2.02, 2.01], [], limits)).toMatchObject({ before: [2, 2.02, 2.01], after: [] });
    // a repair that did not help is not trimmed away
    expect(proofSides([0.3], [0.3, 0.35], limits)).toMatchObject({ after: [0.3, 0.35] });
  });
  test("a part that did not change is called better or worse in at most about one case in twenty", () => {
    const rng = random(7);
    let called = 0;
    const runs = 4000;
    for (let i = 0; i < runs; i++) {
      const draw = () => 5 + 0.3 * rng.normal();
      if (proofOf([draw(), draw(), draw()], [draw(), draw()], 0.3, "rising", null).verdict !== "no change seen")
        called++;
    }
    expect(called / runs).toBeGreaterThan(0.035);
    expect(called / runs).toBeLessThan(0.065);
  });
  test("its uncertainty is that of medians: drawn, the difference scatters as much as it says", () => {
    const rng = random(11);
    const draw = (n: number) => Array.from({ length: n }, () => rng.normal());
    for (const [n, m] of [
      [1, 1],
      [2, 3],
      [3, 3],
      [9, 9],
    ] as const) {
      const proofs = Array.from({ length: 6000 }, () => proofOf(draw(n), draw(m), 1, "rising", null));
      const spread = Math.sqrt(proofs.reduce((sum, p) => sum + p.difference ** 2, 0) / proofs.length);
      expect(proofs[0]!.uncertainty / spread).toBeGreaterThan(0.96);
      expect(proofs[0]!.uncertainty / spread).toBeLessThan(1.08);
    }
  });
  test("refuses an empty side and a scatter of nothing", () => {
    expect(() => proofOf([], [1], 1, "rising", null)).toThrow(RangeError);
    expect(() => proofOf([1], [1], 0, "rising", null)).toThrow(RangeError);
  });
});

describe("what the part should read now, and whether that is proven", () => {
  const none = { makersNew: null, model: null, before: [], renewed: true };
  test.each([
    [{ ...none, makersNew: 1.8, model: 2 }, 1.8],
    [{ ...none, model: 2, before: Array<number>(10).fill(3) }, 2],
    [{ ...none, before: [1, 2, 3, 4, 5, 9, 9, 9, 9, 9] }, 3],
  ])("the nearest witness counts: %#", (known, value) => expect(expectedAfter(known)?.value).toBe(value));
  test("of a part that stayed, or was read too seldom, nobody knows", () => {
    expect(expectedAfter({ ...none, before: Array<number>(10).fill(3), renewed: false })).toBeNull();
    expect(expectedAfter({ ...none, before: Array<number>(9).fill(3) })).toBeNull();
  });
  const rows = [
    { pointId: "a", proof: { verdict: "no change seen" as const } },
    { pointId: "b", proof: { verdict: "proven" as const } },
    { pointId: "c", proof: null },
  ];
  test.each([
    ["a", false],
    ["b", true],
    ["c", null],
    [null, true],
  ])("condemned by %p", (pointId, proven) => expect(isProven(rows, pointId)).toBe(proven));
});
