/** Screens of the fleet in states that a walk seldom meets: empty, retired, unmeasured, nothing like it, by role. */
import { DAY } from "@core";
import type { Explanation, Netlist } from "@core";
import { rendered, renderedPage as page, TEST_NOW, wordsOf } from "~/ui/testing";
import { Explanations } from "./explanations";
import FleetScreen from "./fleet";
import MachineScreen from "./machine";
import MatrixScreen from "./matrix";
import { HourMeter } from "./meter";

type Of<P extends (props: never) => unknown> = Parameters<P>[0] extends { loaderData: infer D } ? D : never;

describe("the list of machines", () => {
  type Fleet = Of<typeof FleetScreen>;
  const machine = (id: string, change: object = {}) => ({
    id,
    name: `Machine ${id}`,
    tag: `T-${id}`,
    area: "Quay",
    points: 12,
    worst: "steady",
    needing: 0,
    unread: 0,
    retired: false,
    ...change,
  });
  const show = (machines: object[], change: object = {}) =>
    page(FleetScreen, { machines, sites: [], retired: false, mayEdit: true, ...change } as unknown as Fleet);
  test("none yet: an engineer begins from a template, others are told who does", () => {
    expect(show([])).toContain('href="/fleet/begin"');
    const looks = show([], { mayEdit: false });
    expect(wordsOf(looks)).toContain("An engineer adds the first machine.");
    expect(looks).not.toContain("/fleet/new/");
  });
  test("how many need somebody, one in the singular", () => {
    expect(wordsOf(show([machine("a"), machine("b")]))).toContain("All machines are normal");
    expect(wordsOf(show([machine("a", { needing: 2 }), machine("b")]))).toContain("1 of 2 machines needs you");
    expect(wordsOf(show([machine("a", { needing: 2 }), machine("b", { needing: 1 })]))).toContain(
      "2 of 2 machines need you",
    );
  });
  test("the settings of each site are a press away", () =>
    expect(show([machine("a")], { sites: [{ id: "s7", name: "North yard" }] })).toContain(
      'href="/fleet/edit/site/s7"',
    ));
  test("what nobody read is not normal", () => {
    expect(wordsOf(show([machine("a"), machine("b", { unread: 12 })]))).toContain("12 of 24 points are not read yet");
    expect(wordsOf(show([machine("a", { unread: 12 })]))).toContain("Nothing is read yet");
  });
  test("by area; one without an area stands under its own heading; the worst state is said, not only drawn", () => {
    const words = wordsOf(
      show([machine("a", { area: "" }), machine("b", { worst: "alarm", needing: 3 }), machine("c", { worst: null })]),
    );
    expect(words).toContain("No area");
    expect(words).toContain("Machine b , worst alarm 3 of 12");
    expect(words).toContain("Machine c , worst not read yet");
  });
  test("retired ones are asked for, and marked", () => {
    expect(show([machine("a")])).toContain('href="/?retired"');
    expect(wordsOf(show([machine("a", { retired: true })], { retired: true }))).toContain("Machine a (retired)");
  });
});

describe("the matrix", () => {
  type Matrix = Of<typeof MatrixScreen>;
  const show = (rows: object[], change: object = {}) =>
    page(MatrixScreen, {
      rows,
      found: rows.length,
      from: 0,
      more: false,
      areas: ["", "Quay"],
      wish: { area: "", state: "", sort: "", page: 0 },
      ...change,
    } as unknown as Matrix);
  const row = (cells: object) => ({ id: "m1", name: "Ramp", cells });
  test("nothing like it leads back to all", () =>
    expect(wordsOf(show([]))).toContain("No machine is like that. Show all"));
  test.each([
    [{ id: "p", state: "alarm", margin: 1.23 }, "alarm, 123 % of margin used"],
    [{ id: "p", state: "alarm", margin: 25 }, "far over of margin used"],
    [{ id: "p", state: "steady", margin: -0.2 }, "steady, 0 % of margin used"],
    [{ id: "p", state: "unproven", margin: 0.4 }, "not known yet"],
    [{ id: "p", state: "steady", margin: null }, "not known yet"],
  ])("a cell %j says %s", (cell, label) => {
    expect(show([row({ oil: cell })])).toContain(label);
  });
  test("a reading that a machine does not have is a dot with words for who does not see it", () =>
    expect(show([row({})])).toContain('aria-label="no such reading"'));
  test("oil leads to the oil, all else to the point", () => {
    expect(show([row({ oil: { id: "k9", state: "alert", margin: 0.8 } })])).toContain('href="/oil/k9"');
  });
  test("pages: where one is, what comes before and after", () => {
    const middle = show([row({})], {
      found: 90,
      from: 30,
      more: true,
      wish: { area: "", state: "", sort: "", page: 1 },
    });
    expect(wordsOf(middle)).toContain("31 to 31 of 90 The ones before The next ones");
    expect(middle).toContain("page=0");
    expect(middle).toContain("page=2");
    expect(wordsOf(show([row({})]))).not.toContain("The next ones");
  });
  test("sorted by a family: said in its heading, pressed again it is as before", () => {
    const html = show([row({})], { wish: { area: "", state: "", sort: "oil", page: 0 } });
    expect(html).toContain('aria-sort="descending"');
    expect(html.match(/aria-sort=/g)).toHaveLength(1);
  });
});

describe("a machine", () => {
  type Machine = Of<typeof MachineScreen>;
  const point = (change: object = {}) => ({
    id: "p1",
    name: "Case drain",
    quantity: "caseDrainFlow",
    unit: "L/min",
    state: "alarm",
    margin: null,
    lastRaw: 4.2,
    lastAt: TEST_NOW - DAY,
    verdict: [],
    trend: null,
    ...change,
  });
  const part = (points: object[], change: object = {}) => ({
    id: "c1",
    kind: "axialPistonPump",
    name: "Pump A",
    model: "V45",
    serial: "A1",
    startedAt: TEST_NOW - 900 * DAY,
    knownWhenNew: true,
    points,
    ...change,
  });
  const circuit = (components: object[], change: object = {}) => ({
    id: "k1",
    name: "Gate circuit",
    fluid: "Oil 46",
    oil: "steady",
    workingPressure: 210,
    components,
    missing: [],
    ...change,
  });
  const show = (circuits: object[], change: object = {}, mayEdit = true, machine: object = {}) =>
    page(MachineScreen, {
      page: {
        machine: {
          id: "m1",
          name: "Outer gate",
          tag: "OG-1",
          area: "Lock",
          hoursPerDay: 9,
          note: "",
          retired: false,
          ...machine,
        },
        site: "Harbour",
        timeZone: "Europe/London",
        now: TEST_NOW,
        altered: [],
        meterChanges: [],
        circuits,
        ...change,
      },
      diagrams: [],
      submission: "s",
      mayEdit,
    } as unknown as Machine);
  test("no circuit, no component, nothing measured: each says what is missing", () => {
    expect(wordsOf(show([]))).toContain("Outer gate: nothing is measured yet");
    expect(wordsOf(show([]))).toContain("No circuit yet. Add a circuit");
    expect(wordsOf(show([], {}, false))).not.toContain("Add a circuit");
    expect(wordsOf(show([circuit([])]))).toContain("No component yet.");
  });
  test("the heading counts states; all normal says so", () => {
    expect(
      wordsOf(
        show([circuit([part([point(), point({ id: "b", state: "drifting" }), point({ id: "c", state: "steady" })])])]),
      ),
    ).toContain("Outer gate: 1 alarm, 1 drifting of 3 points");
    expect(wordsOf(show([circuit([part([point({ state: "steady" })])])]))).toContain("its one point is normal");
  });
  test("what was altered for a test stands above everything, with how it stood and by whom", () =>
    expect(wordsOf(show([], { altered: [{ what: "Compensator up", before: "210 bar", by: "T. Wren" }] }))).toContain(
      "Compensator up, was 210 bar (T. Wren)",
    ));
  test("a part whose condition nobody knew, a point that nobody read, a circuit without a fluid", () => {
    const words = wordsOf(
      show([
        circuit([part([point({ lastRaw: null })], { knownWhenNew: false })], { fluid: null, workingPressure: null }),
      ]),
    );
    expect(words).toContain(", condition unknown when measuring began");
    expect(words).toContain("no reading");
    expect(words).toContain("Gate circuit, no fluid stated");
  });
  test("its oil only says its state where it needs somebody", () => {
    expect(wordsOf(show([circuit([], { oil: "alarm" })]))).toContain("Its oil: alarm");
    expect(wordsOf(show([circuit([], { oil: "steady" })]))).not.toContain("Its oil: steady");
  });
  test("what cannot be known without a point, and who may add it", () => {
    const missing = [
      { componentId: "c1", component: "Pump A", quantity: "caseDrainFlow", unknown: "its inner leakage is not seen" },
    ];
    const html = show([circuit([part([])], { missing })]);
    expect(wordsOf(html)).toContain("its inner leakage is not seen.");
    expect(html).toContain("/fleet/new/point?componentId=c1&amp;quantity=caseDrainFlow");
    expect(show([circuit([part([])], { missing })], {}, false)).not.toContain("/fleet/new/point");
  });
  test("tests of its kind are one press away", () =>
    expect(show([circuit([part([])])])).toContain("/tests/load-test?component=c1"));
  test("retired it says so", () => expect(wordsOf(show([], {}, true, { retired: true }))).toContain("Retired."));
});

describe("the hour meter", () => {
  const change = {
    id: "h",
    at: TEST_NOW - DAY,
    kind: "replaced" as const,
    before: 13_900,
    after: 0,
    note: "new clock",
    by: "R. Oduya",
  };
  const show = (changes: (typeof change)[], mayEdit: boolean, problems?: Record<string, string>) =>
    rendered(
      <HourMeter
        changes={changes}
        mayEdit={mayEdit}
        submission="s"
        now={TEST_NOW}
        timeZone="Europe/London"
        problems={problems}
      />,
    );
  test("who may not change it sees it only where it was changed", () => {
    expect(show([], false)).toBe("");
    expect(wordsOf(show([change], false))).toMatch(
      /changed once Replaced 23\sNov, 09:00: 13.?900\sh before, 0\sh after\. new clock/,
    );
    expect(show([change], false)).not.toContain("Withdraw this record");
  });
  test("an engineer records one, never changed or twice", () => {
    expect(wordsOf(show([], true))).toContain("never changed");
    expect(wordsOf(show([change, { ...change, id: "i" }], true))).toContain("changed 2 times");
    expect(show([change], true)).toContain("Withdraw this record");
  });
  test("a refusal stands beside its field", () =>
    expect(wordsOf(show([], true, { before: "Enter a value." }))).toContain("Enter a value."));
});

describe("what would explain the gauges", () => {
  const netlist: Netlist = {
    elements: [{ id: "e1", kind: "relief", name: "Relief valve", componentId: null, data: {} }],
    lines: [],
    gauges: [],
  } as unknown as Netlist;
  const gauges = ["a", "b", "c"].map((pointId) => ({ pointId, value: 1, uncertainty: 0.1 }));
  const show = (explanations: Explanation[] | null, change: object = {}) =>
    wordsOf(
      rendered(
        <Explanations
          netlist={netlist}
          gauges={gauges}
          fits
          names={new Map([["a", "Relief setting"]])}
          explanations={explanations}
          onExplain={() => undefined}
          onTry={() => undefined}
          {...change}
        />,
      ),
    );
  const one = (change: object) =>
    ({ faults: [], unknown: false, share: 0.6, explains: [], leaves: [], ...change }) as Explanation;
  test("too few points, a model that does not fit, no answer: each says why", () => {
    expect(show(null, { gauges: gauges.slice(0, 2) })).toContain("this circuit has 2");
    expect(show(null, { fits: false })).toContain(
      "The model does not fit this circuit, so it is not asked for causes.",
    );
    expect(show([])).toContain("The model has no answer for these gauges.");
  });
  test("it is asked for, and proves nothing", () => {
    expect(show(null)).toContain("Find the single fault that explains them");
    expect(show([one({})])).toContain(
      "Every single fault of the model was tried against all gauges as they stand. It says what to test first, and proves " +
        "nothing: confirm with a test before anything is opened or altered.",
    );
  });
  test.each([
    [{ unknown: true }, "Something that the model does not have"],
    [{}, "Nothing is wrong"],
    [{ leaves: ["a"] }, "No fault of the model: a gauge is misread"],
  ])("without a fault: %j", (change, words) => expect(show([one(change)])).toContain(words));
  test("a fault with what it explains and what it leaves; the unlikely are left out, the likeliest never", () => {
    const fault = { faults: [{ element: "e1", fault: "setLow", severity: 23 }], explains: ["a"] };
    const words = show([one(fault), one({ share: 0.01, unknown: true })]);
    expect(words).toContain("Relief valve:");
    expect(words).toContain("Explains Relief setting.");
    expect(words).toContain("Try it");
    expect(words).not.toContain("Something that the model does not have, or several faults");
    expect(show([one({ ...fault, share: 0.01 })])).toContain("Relief valve:");
  });
});
