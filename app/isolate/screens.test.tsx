/** Screens of Isolate in states that a walk seldom meets: nothing drawn, nothing fits, closed, withdrawn, by role, unproven. */
import { DAY, causes, symptoms } from "@core";
import type { CasePage, ShownTest } from "~/domain/isolation/casePage.server";
import { renderedPage as page, rendered, TEST_NOW, wordsOf } from "~/ui/testing";
import CaseScreen from "./case";
import FaultScreen from "./fault";
import IsolateScreen from "./isolate";
import KnowledgeScreen from "./knowledge";
import NewCaseScreen from "./newCase";
import PointsScreen from "./points";
import PracticeScreen from "./practice";
import PracticeCaseScreen from "./practiceCase";
import { TestCard, TestCost } from "./testCard";

const ZONE = "Europe/London";
type Of<P extends (props: never) => unknown> = Parameters<P>[0] extends { loaderData: infer D } ? D : never;

const test_ = (change: Partial<ShownTest> = {}): ShownTest => ({
  id: "look.level",
  text: "Oil level and foam",
  tells: 0.4,
  minutes: 3,
  prepare: "none",
  heldBack: false,
  how: "Oil hot, machine level.",
  caution: null,
  risk: "none",
  procedure: null,
  component: null,
  outsideBook: false,
  results: [
    { value: "right", label: "At the mark" },
    { value: "low", label: "Too low" },
  ],
  basis: "common practice, graded and not counted",
  ...change,
});

const isolation = (change: Partial<CasePage> = {}): CasePage => ({
  id: "i1",
  bookable: null,
  job: { id: "j1", number: 7 },
  machine: "Sluice unit 3",
  machineId: "m1",
  circuit: "Sluice circuit",
  circuitId: "k1",
  timeZone: ZONE,
  symptom: "lowPressure",
  note: "",
  openedAt: TEST_NOW - DAY,
  openedBy: "T. Wren",
  version: 1,
  gauges: { out: false, off: [], read: 3, of: 8 },
  missed: null,
  leanings: [],
  taught: 0,
  hasDiagram: true,
  closed: null,
  suspects: [
    {
      id: "s1",
      cause: "relief.setLow",
      text: "Relief valve: set too low",
      now: 0.6,
      before: 0.3,
      speaksFor: ["warmth: hot"],
      speaksAgainst: [],
    },
    {
      id: "s2",
      cause: "pump.worn",
      text: "Pump: worn",
      now: 0.2,
      before: 0.2,
      speaksFor: [],
      speaksAgainst: ["case drain: as usual"],
    },
  ],
  every: [
    { id: "s1", text: "Relief valve: set too low" },
    { id: "s9", text: "Oil: too thin" },
  ],
  other: { now: 0.05, before: null },
  evidence: [],
  guided: [],
  decided: false,
  noneFits: false,
  act: null,
  best: test_(),
  others: [],
  any: [{ id: "look.level", text: "Oil level and foam", results: [{ value: "low", label: "Too low" }] }],
  waiting: [],
  ...change,
});
const show = (
  change: Partial<CasePage> = {},
  { mayEnter = true, mayBook = true, action }: { mayEnter?: boolean; mayBook?: boolean; action?: unknown } = {},
) =>
  page(
    CaseScreen,
    { page: isolation(change), mayEnter, mayBook, submission: "sub" } as unknown as Of<typeof CaseScreen>,
    action,
  );
const act = (cause: keyof typeof causes, share: number): CasePage["act"] => ({
  id: "act",
  share,
  causes: [{ cause, about: causes[cause], element: null, share }],
});

describe("an isolation", () => {
  test("shows the odds with where they stood, for and against, and that they may add up to more than all", () => {
    const words = wordsOf(show());
    expect(words).toMatch(/set too low 60 % , was 30 %/);
    expect(words).toMatch(/Pump: worn 20 %(?! , was)/);
    expect(words).toContain("For it: warmth: hot.");
    expect(words).toContain("Against it: case drain: as usual.");
    expect(words).toContain("they may add up to more than 100 %");
  });
  test.each([
    [
      { gauges: { out: false, off: ["Relief setting", "Tank temperature"], read: 3, of: 12 } },
      "One that was read is as it should be. 9 points were not read",
    ],
    [{ gauges: { out: false, off: [], read: 0, of: 12 } }, "nothing is known from its gauges"],
    [{ gauges: { out: false, off: [], read: null, of: 8 } }, "No reading is off the healthy circuit."],
    [{ gauges: null, hasDiagram: true, missed: ["Pump pressure"] }, "it does not show what was read at pump pressure"],
    [{ gauges: null, hasDiagram: true, missed: null }, "No point of this circuit has a baseline yet"],
    [{ gauges: null, hasDiagram: false }, "No circuit is drawn, so readings are not used."],
  ])("what the readings say: %j", (change, words) => expect(wordsOf(show(change))).toContain(words));
  test("evidence that was taken out is struck through and can count again", () => {
    const html = show({ gauges: { out: true, off: ["Relief setting"], read: 1, of: 1 } });
    expect(html).toContain("line-through");
    expect(wordsOf(html)).toContain("Count it again");
    expect(wordsOf(show({ gauges: { out: false, off: ["Relief setting"], read: 1, of: 1 } }))).toContain("Take out");
  });
  test("a bulletin leans the odds and says where it comes from", () => {
    const words = wordsOf(show({ leanings: [{ text: "Open bulletin 12: four times likelier", out: false }] }));
    expect(words).toContain("Open bulletin 12: four times likelier From the register when this began");
  });
  test("the newest result is undone, an older one taken out, a withdrawn one neither", () => {
    const result = (id: string, withdrawn = false) => ({
      id,
      test: "Oil level:",
      result: "Too low",
      at: TEST_NOW,
      by: "T. Wren",
      withdrawn,
      again: false,
    });
    const words = wordsOf(show({ gauges: null, evidence: [result("a"), result("b"), result("c", true)] }));
    expect(words.match(/Undo/g)).toHaveLength(1);
    expect(words.match(/Take out/g)).toHaveLength(1);
  });
  test("who may not enter reads the results of a test and has no form", () => {
    const html = show({}, { mayEnter: false });
    expect(html).not.toContain("<form");
    expect(wordsOf(html)).toContain("Results: at the mark; too low.");
  });
  test("nothing left to test says what to do instead", () =>
    expect(wordsOf(show({ best: null }))).toContain(
      "No test is left that could change what to do. Act on the likeliest, or close it with “none of these”.",
    ));
  test("what waits says why, what is outside the manufacturer's book is marked", () => {
    const words = wordsOf(
      show({
        others: [test_({ id: "a", text: "Warmth of the relief valve" })],
        waiting: [
          test_({ id: "b", text: "Relief valve out", heldBack: true, risk: "opens", minutes: 50, prepare: "isolated" }),
          test_({ id: "c", text: "Section by section", heldBack: true, outsideBook: true }),
        ],
      }),
    );
    expect(words).toContain("Nearly as good Warmth of the relief valve");
    expect(words).toContain("Waits while a safer test still tells enough.");
    expect(words).toContain("not in most manufacturers' books");
    expect(words).toMatch(/50 min with isolated and locked.*opens the circuit/);
  });
  test("sure enough, it says what to do and how to prove it; with a point of its part it can be booked", () => {
    const sure = { decided: true, act: act("pump.worn", 0.97), bookable: { point: "p1", component: "k1" } };
    const html = show(sure);
    expect(wordsOf(html)).toMatch(/Sure enough to act \(97 %\)/);
    expect(wordsOf(html)).toContain("If you want to be surer");
    expect(wordsOf(html)).toContain("repeat the reading that showed it");
    expect(html).toContain("/work/book?point=p1");
    expect(show(sure, { mayBook: false })).not.toContain("/work/book");
    expect(show({ ...sure, bookable: null })).not.toContain("/work/book");
  });
  test("none of the known causes fits: what to do is said, and no act is proposed", () => {
    const words = wordsOf(show({ noneFits: true, decided: false, act: act("pump.worn", 0.2) }));
    expect(words).toContain("None of the known causes fits.");
    expect(words).not.toContain("Sure enough");
  });
  test("closed, it shows what was found, what was thought of it then, and takes nothing more", () => {
    const closed = {
      at: TEST_NOW,
      by: "L. Aske",
      found: ["Relief valve: set too low"],
      odds: 0.93,
      findings: "Lock nut loose.",
    };
    const html = show({ closed });
    expect(wordsOf(html)).toMatch(/Closed 24\sNov, L\. Aske\./);
    expect(wordsOf(html)).toContain("given 93 % when it was closed. Lock nut loose.");
    expect(html).not.toContain("<form");
    expect(wordsOf(show({ closed: { ...closed, found: [], odds: null } }))).toContain("None of what was suspected");
  });
  test("what closed cases taught is said with how many", () => {
    expect(wordsOf(show({ taught: 1 }))).toContain("what 1 closed case of this symptom found counts");
    expect(wordsOf(show({ taught: 4 }))).toContain("what 4 closed cases of this symptom found counts");
    expect(wordsOf(show({ taught: 0 }))).not.toContain("closed case");
  });
  test("the likely causes come first in the choice of what it was, none of these last", () => {
    const options = [...show().matchAll(/<option value="(s1|s2|s9|none)"/g)].map((m) => m[1]);
    expect(options).toEqual(["s1", "s2", "s9", "none"]);
  });
  test("a guided test that was made meanwhile is one press away", () => {
    const guided = [
      { test: "pump.loadTest@p", result: "low", recordId: "r1", at: TEST_NOW, by: "T. Wren", text: "Load test: low" },
    ];
    const html = show({ guided: guided as CasePage["guided"] });
    expect(html).toContain('aria-label="Take in: Load test: low"');
    expect(html).toContain('href="/tests/records/r1"');
  });
  test("a refusal of a result stands where it is seen", () =>
    expect(wordsOf(show({}, { action: { problems: { result: "Choose what it showed." } } }))).toContain(
      "Choose what it showed.",
    ));
});

describe("a test", () => {
  test("its caution, its guided way with the component, its results as buttons", () => {
    const html = rendered(
      <TestCard
        test={test_({ caution: "Hot surface.", procedure: "heat-survey", component: "c1", risk: "care" })}
        submission="s"
        mayEnter
      />,
    );
    expect(html).toContain("Hot surface.");
    expect(html).toContain('href="/tests/heat-survey?component=c1"');
    expect(html.match(/name="result"/g)).toHaveLength(2);
  });
  test("what closes an outlet says so beside its minutes", () =>
    expect(wordsOf(rendered(<TestCost test={test_({ risk: "deadhead", prepare: "gauge", minutes: 15 })} />))).toMatch(
      /15 min with a gauge.*; closes an outlet against the pump/,
    ));
});

describe("the place", () => {
  const place = (change: Partial<Of<typeof IsolateScreen>> = {}) =>
    page(IsolateScreen, { faults: [], cases: [], mayBegin: true, ...change } as Of<typeof IsolateScreen>);
  test("nothing wrong, nothing open, nothing closed: each says so", () => {
    const words = wordsOf(place());
    for (const said of ["No circuit's readings are off its model.", "Nobody is looking for a fault.", "None yet."])
      expect(words).toContain(said);
    expect(words).not.toContain("0 circuits");
  });
  test("who only looks cannot begin", () => {
    expect(place()).toContain('href="/isolate/new"');
    expect(place({ mayBegin: false })).not.toContain('href="/isolate/new"');
  });
  test("one circuit in the singular; points that no fault accounts for are counted", () => {
    const fault = { circuitId: "k1", machine: "Cradle jacks", text: null, off: 1, share: null };
    const words = wordsOf(place({ faults: [fault] as unknown as Of<typeof IsolateScreen>["faults"] }));
    expect(words).toMatch(/1 circuit(?!s)/);
    expect(words).toContain("1 point is off; no fault is likelier than all others");
  });
  test("open and closed isolations stand apart, with what was found and thought", () => {
    const open = {
      id: "a",
      machine: "Ramp",
      symptom: "slow",
      openedAt: TEST_NOW,
      openedBy: "T. Wren",
      closedAt: null,
      results: 1,
      found: null,
      foundOdds: null,
    };
    const closed = { ...open, id: "b", closedAt: TEST_NOW, found: "Oil low", foundOdds: 0.4 };
    const words = wordsOf(place({ cases: [open, closed] as unknown as Of<typeof IsolateScreen>["cases"] }));
    expect(words).toContain("T. Wren; 1 result");
    expect(words).toContain("Oil low, odds 40 % when closed");
  });
});

describe("what the readings say of a circuit", () => {
  type Fault = Of<typeof FaultScreen>;
  const named = (change: object = {}) => ({
    fault: { element: "e2", fault: "setLow", severity: 23.4 },
    text: "Relief valve: set low, 23 bar too low",
    places: ["Relief valve"],
    cause: "relief.setLow",
    share: 0.99,
    explains: ["p1"],
    alike: [],
    ...change,
  });
  const shown = (detail: object | null, change: object = {}, roles = { mayBegin: true, mayBook: true }) =>
    page(FaultScreen, {
      id: "k1",
      page: {
        machine: "Sluice unit 3",
        machineId: "m1",
        circuit: "Sluice circuit",
        timeZone: ZONE,
        none: null,
        failure: null,
        elements: ["e1", "e2"],
        points: [{ id: "p1", name: "Relief setting", component: "Relief valve", state: "alarm" }],
        detail,
        ...change,
      },
      ...roles,
    } as unknown as Fault);
  const detail = (change: object = {}) => ({
    named: [],
    possible: [],
    unknown: 0.2,
    healthy: 0,
    off: ["p1"],
    leaves: ["p1"],
    since: { p1: Date.UTC(2026, 5, 17) },
    ...change,
  });
  test.each([
    [{ none: "nothing drawn" }, "has no diagram with baselines"],
    [{ none: "does not fit" }, "Put the diagram right first."],
    [{ none: "few points" }, "It takes three points with a baseline"],
    [{ none: "nothing off" }, "Every reading is where the healthy circuit has it."],
    [{ failure: "solver" }, "could not be held against the model"],
    [{}, "have not been held against the model yet"],
  ])("without a diagnosis: %j", (change, words) => {
    const text = wordsOf(shown(null, change));
    expect(text).toContain("no fault is named");
    expect(text).toContain(words);
  });
  test("no fault is likelier than all others: the points that are off stand there, with since when", () => {
    const words = wordsOf(shown(detail()));
    expect(words).toContain(
      "Some readings are off, and no single fault, nor two or three at once, is likelier than all others together.",
    );
    expect(words).toContain(
      "Off the healthy circuit 1 Relief valve: relief setting away from its baseline since about June 2026",
    );
  });
  test("a named fault proves nothing by itself: it is confirmed with a test first", () => {
    const html = shown(detail({ named: [named()], leaves: [] }));
    expect(wordsOf(html)).toContain("confirm with a test before anything is opened or altered");
    expect(wordsOf(html)).toContain("Confirm it with a test");
    expect(wordsOf(html)).toContain("Nothing is left over: the other 0 points");
    // the what-if of exactly this state: element by its place, severity to five digits
    expect(html).toContain("/fleet/circuits/k1?fault=1%7EsetLow%7E23.4");
  });
  test("two places that the readings cannot part are named", () =>
    expect(wordsOf(shown(detail({ named: [named({ places: ["Left", "Right"] })] })))).toContain(
      "It may as well be Right",
    ));
  test("what shows alike is listed with what the model does not have", () => {
    const alike = [{ text: "Relief valve: spring weak", cause: "relief.spring", share: 0.11 }];
    const words = wordsOf(shown(detail({ named: [named({ alike })], unknown: 0.004 })));
    expect(words).toContain("What else it may be Relief valve: spring weak 11 %");
    expect(words).toContain("more faults at once under 1 %");
  });
  test("who only looks begins nothing and books nothing", () => {
    const html = shown(detail({ named: [named()] }), {}, { mayBegin: false, mayBook: false });
    expect(html).not.toContain("/isolate/new");
    expect(html).not.toContain("/work/book");
  });
});

describe("a new isolation", () => {
  type New = Of<typeof NewCaseScreen>;
  const shown = (change: object, action?: unknown) =>
    page(
      NewCaseScreen,
      { letters: "", circuits: [], circuit: null, symptom: null, submission: "s", ...change } as unknown as New,
      action,
    );
  test("no machine is called so", () =>
    expect(wordsOf(shown({ letters: "zzz" }))).toContain("No machine is called so."));
  test("the symptom goes along while the machine is chosen", () => {
    const circuits = [{ id: "k1", machine: "Ramp", circuit: "Lift" }];
    expect(shown({ circuits, symptom: "slow" })).toContain("/isolate/new?circuit=k1&amp;symptom=slow");
    expect(shown({ circuits })).toContain('"/isolate/new?circuit=k1"');
  });
  test("every symptom is offered once, the one that was asked for is chosen", () => {
    const html = shown({ circuit: { id: "k1", machine: "Ramp" }, symptom: "slow" });
    expect(html.match(/type="radio"/g)).toHaveLength(Object.keys(symptoms).length);
    expect(html).toMatch(/type="radio"[^>]*(value="slow"[^>]*checked=""|checked=""[^>]*value="slow")/);
  });
  test("no symptom chosen is said above them", () =>
    expect(
      wordsOf(shown({ circuit: { id: "k1", machine: "Ramp" } }, { problems: { symptom: "Choose what was noticed." } })),
    ).toContain("Choose what was noticed."));
});

describe("where a test point would help", () => {
  type Points = Of<typeof PointsScreen>;
  const point = (change: object = {}) => ({
    at: "pump.loadTest@p",
    element: "p",
    text: "Pump: load test",
    inRounds: false,
    meter: true,
    saved: 12.6,
    error: 4.2,
    opened: 0.28,
    sure: true,
    ...change,
  });
  const shown = (change: object = {}, mayAsk = true) =>
    page(PointsScreen, {
      page: {
        machine: "Ramp",
        machineId: "m",
        timeZone: ZONE,
        drawn: true,
        running: false,
        failure: null,
        advice: null,
        madeAt: null,
        rate: 1.5,
        own: 2,
        ...change,
      },
      mayAsk,
    } as unknown as Points);
  test("nothing drawn sends to the drawing, and asks for nothing", () => {
    const html = shown({ drawn: false });
    expect(wordsOf(html)).toContain("This circuit has no diagram yet.");
    expect(html).not.toContain("Work it out");
  });
  test("who only looks cannot ask", () => {
    expect(shown()).toContain("Work it out");
    expect(shown({}, false)).not.toContain("Work it out");
  });
  test("a coupling for a meter, one for a gauge, and a reading in rounds; what is not proven says so", () => {
    const advice = {
      cases: 80,
      minutes: 176,
      points: [
        point(),
        point({ at: "b", meter: false, opened: 0 }),
        point({ at: "c", inRounds: true, meter: false, opened: 0, saved: 2.7, sure: false }),
      ],
    };
    const words = wordsOf(shown({ advice, madeAt: TEST_NOW }));
    expect(words).toContain("A coupling for a meter in the line");
    expect(words).toContain("A coupling for a gauge");
    expect(words).toContain("A point read in rounds");
    expect(words).toContain(
      "Saves 13 min an isolation (standard error 4.2), and the circuit is opened 0.28 times less often",
    );
    expect(words).toContain("Saves 2.7 min");
    expect(words.match(/Not proven/g)).toHaveLength(1);
    expect(words).toContain("about 19 min a year here");
  });
  test("none worth it is an answer; a failure is told and can be tried again", () => {
    expect(wordsOf(shown({ advice: { cases: 80, minutes: 60, points: [] }, madeAt: TEST_NOW }))).toContain(
      "None saves two minutes an isolation: the points that are there will do.",
    );
    expect(wordsOf(shown({ failure: "It took too long." }))).toContain("It took too long.");
  });
});

describe("the practice bench", () => {
  type Runs = Of<typeof PracticeScreen>;
  const runs = (list: object[], action?: unknown) =>
    page(PracticeScreen, { runs: list, submission: "s" } as unknown as Runs, action);
  test("none yet; one test in the singular; open or with its score", () => {
    expect(wordsOf(runs([]))).toContain("None yet.");
    const run = { id: "a", symptom: "Slow", level: "Plain", seed: 12, tests: 1, startedAt: TEST_NOW, score: null };
    const words = wordsOf(runs([run, { ...run, id: "b", tests: 5, score: 80 }]));
    expect(words).toMatch(/number 12; 1 test; .* open/);
    expect(words).toMatch(/5 tests; .* 80 of 100/);
  });
  test("a number that is none is told beside its field", () =>
    expect(wordsOf(runs([], { problems: { seed: "A whole number, or nothing." } }))).toContain(
      "A whole number, or nothing.",
    ));

  type Run = Of<typeof PracticeCaseScreen>;
  const drawing = { width: 100, height: 100, parts: [], tanks: [], wires: [], dots: [], ports: {} };
  const run = (change: object = {}) =>
    page(PracticeCaseScreen, {
      symptom: symptoms.slow,
      level: { label: "Plain", says: "" },
      seed: 12,
      minutes: 8,
      currency: "GBP",
      netlist: { elements: [{ id: "e1", kind: "fixedPump", name: "Pump", data: {} }], lines: [], gauges: [] },
      drawing,
      made: [],
      tests: [
        {
          id: "t1",
          text: "Oil level",
          minutes: 3,
          prepare: "nothing",
          risk: "none",
          element: null,
          outsideBook: false,
        },
      ],
      renewals: [],
      suspects: [{ id: "s1", text: "Pump: worn" }],
      over: null,
      ...change,
    } as unknown as Run);
  test("nothing made yet; a measured test says how far from usual, a question needs no colon", () => {
    expect(wordsOf(run())).toContain("The symptom, and no test yet.");
    const made = [
      { id: "a", text: "Did it stand for months?", result: "It moves", times: null },
      { id: "b", text: "Case drain", result: "High", times: 2.5 },
    ];
    const words = wordsOf(run({ made }));
    expect(words).toContain("Did it stand for months? it moves");
    expect(words).toMatch(/Case drain: high \(the instrument: 2\.5\d* times as usual\)/);
  });
  const over = {
    truth: "Pump: worn",
    named: "Oil: too low",
    right: false,
    rightAct: false,
    act: "Replace the pump",
    score: 20,
    cost: 900,
    unsafe: ["Opened under pressure"],
    best: { minutes: 30, cost: 400, tests: [{ text: "Case drain:", result: "High", minutes: 6 }] },
  };
  test("over: what it was, what was named, what was unsafe, and the best path; nothing can be made any more", () => {
    const html = run({ over });
    const words = wordsOf(html);
    expect(words).toContain("It was Pump: worn . You named Oil: too low.");
    expect(words).toContain("Opened under pressure.");
    expect(words).toContain("the best path 30 min");
    expect(html).not.toContain("Make it");
  });
  test("right, right by the act, and a symptom that was enough alone", () => {
    expect(wordsOf(run({ over: { ...over, right: true, unsafe: [] } }))).toContain("You named it.");
    expect(wordsOf(run({ over: { ...over, right: true, unsafe: [] } }))).toContain("Nothing unsafe was done.");
    expect(wordsOf(run({ over: { ...over, rightAct: true } }))).toContain("another cause, the same thing to do");
    expect(wordsOf(run({ over: { ...over, best: { ...over.best, tests: [] } } }))).toContain(
      "The symptom alone was enough.",
    );
  });
});

describe("the plant's own knowledge", () => {
  type Knowledge = Of<typeof KnowledgeScreen>;
  const shown = (entries: object[], mayAdd = true, action?: unknown) =>
    page(
      KnowledgeScreen,
      { entries, mayAdd, submissions: { cause: "a", test: "b", rank: "c" } } as unknown as Knowledge,
      action,
    );
  const entry = { id: "k1", at: TEST_NOW, by: "R. Oduya", cause: null, test: null, rank: null };
  const cause = {
    ...entry,
    cause: {
      label: "Salt in the coil plug",
      part: "command",
      symptoms: { noShift: "often" },
      act: { do: "clean", text: "Dry and grease the plug", minutes: 20, part: false, stop: false },
      basis: "Counted since 2021",
    },
  };
  test("none yet in each group; who may not add sees no form", () => {
    expect(wordsOf(shown([])).match(/None yet\./g)).toHaveLength(3);
    expect(shown([])).toContain("Add the cause");
    expect(shown([], false)).not.toContain("<form");
  });
  test("a cause says where it sits, behind which symptom, what to do and what it rests on", () => {
    const words = wordsOf(shown([cause]));
    expect(words).toContain("Salt in the coil plug");
    expect(words).toMatch(/behind “/);
    expect(words).toContain("Dry and grease the plug.");
    expect(words).toMatch(/Counted since 2021; 24\sNov, R\. Oduya/);
  });
  test("a test of the plant's own cause names it, and the cause is offered to other tests", () => {
    const own = {
      ...entry,
      id: "k2",
      test: {
        label: "Look into the plug",
        how: "Plug off, lamp.",
        results: { usual: "Dry", sign: "Green or wet" },
        shows: { sign: { "plant:k1": "always" } },
        basis: "Told by the electricians",
      },
    };
    const html = shown([cause, own]);
    expect(wordsOf(html)).toContain("tells of salt in the coil plug,");
    expect(html).toContain("Salt in the coil plug (this plant)");
  });
  test("a refused form is open with its message, the others stay shut", () => {
    const html = shown([], true, { kind: "rank", problems: { symptom: "Choose a symptom." } });
    expect(html.match(/<details[^>]*open=""/g)).toHaveLength(1);
    expect(wordsOf(html)).toContain("Choose a symptom.");
  });
});
