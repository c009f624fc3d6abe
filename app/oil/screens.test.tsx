/** Screens of the oil in states that a walk seldom meets: no sample, not comparable, blocked, closed and opened again, by role. */
import { DAY } from "@core";
import type { OilAssessment, OilFinding } from "@core";
import { rendered, renderedPage as page, TEST_NOW, wordsOf } from "~/ui/testing";
import { CauseList, FindingList, SuspectList } from "./chain";
import CircuitScreen from "./circuit";
import CleanScreen from "./clean";
import DebrisScreen from "./debris";
import { FilterSection } from "./filters";
import OverviewScreen from "./overview";
import SampleScreen from "./sample";

const at = (days: number) => TEST_NOW + days * DAY;
type Of<P extends (props: never) => unknown> = Parameters<P>[0] extends { loaderData: infer D } ? D : never;

describe("the place", () => {
  type Overview = Of<typeof OverviewScreen>;
  const show = (change: object = {}, mayLog = true) =>
    page(OverviewScreen, {
      page: { counts: {}, needs: [], events: [], elements: [], due: [], ...change },
      mayLog,
    } as unknown as Overview);
  test.each([
    [{}, "No circuit holds oil yet"],
    [{ steady: 1 }, "The oil is normal"],
    [{ steady: 5 }, "All 5 oils are normal"],
    [{ steady: 4, unproven: 2 }, "No oil needs attention; 2 of 6 have too few samples to judge"],
    [{ unread: 6 }, "No oil is sampled yet"],
    [{ steady: 4, unread: 2 }, "No oil needs attention of those sampled; 2 of 6 are not sampled yet"],
    [{ steady: 4, alert: 1 }, "1 of 5 oils needs attention"],
    [{ steady: 3, alert: 1, alarm: 1, drifting: 1 }, "2 of 6 oils need attention"],
  ])("%j: %s", (counts, words) => expect(wordsOf(show({ counts }))).toContain(words));
  test("nothing to do says so in each column", () => {
    const words = wordsOf(show());
    for (const said of ["Every oil is within its target", "None foreseen.", "None: every circuit was sampled"])
      expect(words).toContain(said);
  });
  test("nothing is said of oils that nobody sampled", () => {
    for (const counts of [{ unread: 6 }, { unproven: 1, unread: 2 }])
      expect(wordsOf(show({ counts }))).toContain("Nothing is known of the oils yet");
    expect(wordsOf(show({ counts: { steady: 1, unread: 2 } }))).toContain("Nothing of 1 oil sampled often enough");
    expect(wordsOf(show({ counts: { steady: 1, unread: 2 } }))).not.toContain("Every oil is within");
  });
  test("who only looks imports nothing, and a sample that is due leads to the oil", () => {
    const due = [{ circuitId: "k1", machine: "Ramp", lastAt: null }];
    expect(show({ due })).toContain("/oil/k1/sample");
    const looks = show({ due }, false);
    expect(looks).not.toContain("/oil/k1/sample");
    expect(looks).not.toContain("/oil/import");
    expect(wordsOf(looks)).toContain("Ramp never");
  });
  test("an element whose late end is far or unknown says later, not a number that nobody believes", () => {
    const element = { circuitId: "k1", name: "Return filter", machine: "Ramp", early: 20.4, late: 60.2 };
    expect(wordsOf(show({ elements: [element] }))).toContain("bypass opens in 20 to 60 days");
    expect(wordsOf(show({ elements: [{ ...element, late: null }] }))).toContain("bypass opens in 20 days or later");
    expect(wordsOf(show({ elements: [{ ...element, late: 1200 }] }))).toContain("days or later");
  });
});

describe("a debris event", () => {
  type Debris = Of<typeof DebrisScreen>;
  const task = (kind: string, change: object = {}) => ({
    id: `${kind}1`,
    kind,
    title: kind === "check" ? "Relief valve" : kind === "flush" ? "Drain the tank" : "Sample after two days",
    detail: "Look at the seat.",
    componentId: kind === "check" ? "c1" : null,
    dueOn: null,
    doneAt: null,
    doneBy: null,
    result: null,
    note: "",
    ...change,
  });
  const event = (change: object = {}) => ({
    id: "e1",
    circuitId: "k1",
    what: "Bronze glitter in the bowl",
    openedAt: at(-5),
    openedBy: "T. Wren",
    foundAtId: "c2",
    closedAt: null,
    closedBy: null,
    sourceComponentId: null,
    sourceWords: "",
    sourceNotFound: false,
    cleanSampleId: null,
    reopenedAt: null,
    reopenedBy: null,
    reopenedWhy: null,
    ...change,
  });
  const show = (
    tasks: object[],
    given: { event?: object; since?: object[]; roles?: object; causes?: object[] } = {},
    action?: unknown,
  ) =>
    page(
      DebrisScreen,
      {
        page: {
          machine: "Crane 2",
          event: event(given.event),
          tasks,
          parts: [
            { id: "c1", name: "Relief valve" },
            { id: "c2", name: "Return filter" },
          ],
          causes: given.causes ?? [],
          target: { text: "17/15/12" },
        },
        circuitId: "k1",
        since: given.since ?? [],
        mayLog: true,
        mayClose: true,
        ...given.roles,
      } as unknown as Debris,
      action,
    );
  test("counts what is left to look at; all looked at, it asks for a clean sample, then it is ready", () => {
    expect(wordsOf(show([task("check")]))).toContain("1 part to look at");
    expect(wordsOf(show([task("check"), task("check", { id: "x" })]))).toContain("2 parts to look at");
    const done = task("check", { doneAt: at(-1), doneBy: "L. Aske", result: "clean" });
    expect(wordsOf(show([done]))).toContain("a clean sample is needed");
    const clean = { id: "s", number: "S-9", at: at(-1), code: "16/14/11", clean: true };
    expect(wordsOf(show([done], { since: [clean] }))).toContain("ready to close");
    expect(wordsOf(show([done], { since: [{ ...clean, clean: false }] }))).toContain("a clean sample is needed");
  });
  test("where it was found is named, and while it is open the caution stands above everything", () => {
    const words = wordsOf(show([task("check")]));
    expect(words).toContain("by T. Wren, at the return filter.");
    expect(words).toContain(
      "Prop loads before a load-holding valve is touched. Release pressure, accumulators too, and prove zero at a gauge. " +
        "Limits and torques come from the manufacturers’ manuals.",
    );
  });
  test("a part that was looked at says what was found, by whom, and takes nothing more", () => {
    const html = show([task("check", { doneAt: at(-1), doneBy: "L. Aske", result: "stuckFreed", note: "burr" })]);
    expect(wordsOf(html)).toContain("stuck, freed : burr L. Aske, 23");
    expect(html).not.toContain('name="result"');
  });
  test("a task past its day is marked; the same day is not late", () => {
    expect(show([task("sample", { dueOn: "2026-11-20" })])).toContain("text-verm");
    expect(show([task("sample", { dueOn: "2026-11-24" })])).not.toContain("text-sm text-verm");
  });
  test("a refusal stands beside its own task and at no other", () => {
    const html = show(
      [task("check"), task("check", { id: "other", title: "Pump" })],
      {},
      { intent: "task", problems: { "result-check1": "Choose what was found." } },
    );
    expect(html.match(/Choose what was found\./g)).toHaveLength(1);
    expect(html.match(/aria-invalid="true"/g)).toHaveLength(1);
  });
  test("samples since: clean, not clean, and those that cannot be compared", () => {
    const since = [
      { id: "a", number: "S-1", at: at(-3), code: "19/17/14", clean: false },
      { id: "b", number: "S-2", at: at(-2), code: null, clean: null },
    ];
    const words = wordsOf(show([task("check")], { since }));
    expect(words).toMatch(/S-1 19\/17\/14 not clean/);
    expect(words).toMatch(/S-2 no code not comparable/);
  });
  test("closed: its source, its proof, and who may open it again", () => {
    const closed = {
      closedAt: at(-1),
      closedBy: "R. Oduya",
      sourceComponentId: "c1",
      sourceWords: "bypass held open",
      cleanSampleId: "s9",
    };
    const html = show([], { event: closed });
    expect(wordsOf(html)).toContain("Source: Relief valve, bypass held open.");
    expect(html).toContain('href="/oil/samples/s9"');
    expect(html).toContain("Open it again");
    expect(show([], { event: closed, roles: { mayClose: false } })).not.toContain("Open it again");
    expect(wordsOf(show([], { event: { ...closed, sourceNotFound: true, sourceWords: "pump, valves" } }))).toContain(
      "not found; looked at: pump, valves",
    );
  });
  test("opened again it says since when, by whom and why", () => {
    const again = { reopenedAt: at(-1), reopenedBy: "L. Aske", reopenedWhy: "brass again" };
    expect(wordsOf(show([task("check")], { event: again }))).toMatch(
      /opened again 23\sNov by L\. Aske : brass again|opened again 23\sNov by L\. Aske: brass again/,
    );
  });
  test("a technician notes and does not close; who only looks does neither", () => {
    const technician = show([task("check")], { roles: { mayClose: false } });
    expect(technician).toContain('name="note"');
    expect(technician).not.toContain("Close the event");
    expect(technician).not.toContain("/work/book");
    expect(show([task("check")], { roles: { mayClose: false, mayLog: false } })).not.toContain("<form");
  });
});

describe("filters", () => {
  const element = (change: object = {}) => ({
    componentId: "f1",
    lifeId: "l1",
    name: "Return filter",
    since: at(-90),
    element: "E-10",
    submission: "s",
    ...change,
  });
  const filter = (change: object = {}) =>
    ({
      componentId: "f1",
      past: null,
      blocked: false,
      now: 1.2,
      asFitted: 0.6,
      usualNew: null,
      daysLeft: null,
      hoursLeft: null,
      ...change,
    }) as unknown as OilAssessment["filters"][number];
  const show = (filters: OilAssessment["filters"], elements = [element()], strainers: object[] = [], mayLog = true) =>
    rendered(
      <FilterSection
        circuitId="k1"
        filters={filters}
        elements={elements}
        points={[{ componentId: "f1", pointId: "p1" }]}
        strainers={strainers as unknown as Parameters<typeof FilterSection>[0]["strainers"]}
        mayLog={mayLog}
        now={TEST_NOW}
      />,
    );
  test("a circuit without a filter has no such section", () => expect(show([], [])).toBe(""));
  test.each([
    [{ past: "its drop fell by itself" }, "Oil bypasses it: its drop fell by itself."],
    [{ blocked: true }, "Blocked: the bypass is open, or nearly."],
    [{}, "No measurable clogging."],
    [{ daysLeft: { early: 20, middle: 40, late: null } }, "a date that cannot be estimated yet"],
  ])("%j: %s", (change, words) => expect(wordsOf(show([filter(change)]))).toContain(words));
  test("when it opens stands as two days and a likeliest one", () =>
    expect(wordsOf(show([filter({ daysLeft: { early: 20, middle: 40, late: 60 } })]))).toMatch(
      /between 14\sDec and 23\sJan, most likely about 3\sJan/,
    ));
  test("a filter that nobody reads says what that means, and can be renewed all the same", () => {
    const html = show([]);
    expect(wordsOf(html)).toContain(
      "Its differential pressure is not read, so clogging and bypass flow cannot be detected.",
    );
    expect(html).toContain("Record a new element");
    expect(show([], [element()], [], false)).not.toContain("Record a new element");
  });
  test("running hours left only while oil goes through it", () => {
    const left = { hoursLeft: { early: 403, middle: 600, late: null } };
    expect(wordsOf(show([filter(left)]))).toContain("400 or more running hours left");
    expect(wordsOf(show([filter({ ...left, past: "torn" })]))).not.toContain("running hours left");
  });
  test("an inlet strainer is told by its vacuum", () => {
    const strainer = {
      pointId: "p2",
      component: "Hoist pump",
      state: "alert",
      verdict: [{ text: "300 mbar." }],
      margin: null,
    };
    expect(wordsOf(show([], [], [strainer]))).toContain(
      "Inlet strainer of the hoist pump , by its inlet vacuum, alert . 300 mbar.",
    );
  });
});

describe("the chain", () => {
  const finding = (change: object) =>
    ({
      at: at(-10),
      until: null,
      tone: "doubt",
      text: "Counts rose.",
      pointId: null,
      ...change,
    }) as unknown as OilFinding;
  test("a moment, a span, and what stands now", () => {
    const words = wordsOf(
      rendered(<FindingList findings={[finding({}), finding({ until: at(-5) }), finding({ at: null })]} />),
    );
    expect(words).toMatch(/14\sNov Counts rose/);
    expect(words).toMatch(/14\sNov – 19\sNov/);
    expect(words).toContain("now Counts rose");
  });
  test("the likeliest cause stands in bold up to its colon; an unknown one never does", () => {
    const cause = (id: string, share: number) => ({
      id,
      share,
      at: null,
      text: "Bypass open: drop fell",
      tells: "The filter.",
    });
    const list = (causes: object[]) => rendered(<CauseList causes={causes as unknown as OilAssessment["causes"]} />);
    expect(list([cause("bypass", 0.8), cause("dirt", 0.004)])).toContain(
      '<strong class="font-semibold">Bypass open</strong>: drop fell',
    );
    expect(wordsOf(list([cause("bypass", 0.8), cause("dirt", 0.004)]))).toContain("less than 1 %");
    expect(list([cause("unknown", 0.8)])).not.toContain("<strong");
  });
  test("suspects with their shares", () => {
    const suspects = [{ componentId: "c", name: "Hoist pump", share: 0.6, parts: ["bearing: copper"], agrees: true }];
    expect(wordsOf(rendered(<SuspectList suspects={suspects as unknown as OilAssessment["suspects"]} />))).toMatch(
      /60\s% Hoist pump/,
    );
  });
});

describe("the oil of a circuit", () => {
  type Circuit = Of<typeof CircuitScreen>;
  const detail = (change: object = {}) => ({
    state: "steady",
    over: [0, 0, 0],
    filters: [],
    metals: [],
    water: null,
    viscosityOff: null,
    verdict: [{ text: "Within its target." }],
    margin: null,
    findings: [],
    causes: [],
    suspects: [],
    suspectsNone: 0,
    agreement: null,
    target: null,
    ...change,
  });
  const show = (given: object | null, change: object = {}, roles: object = {}) =>
    page(CircuitScreen, {
      page: {
        circuitId: "k1",
        machineId: "m1",
        machine: "Crane 2",
        area: "",
        name: "Hoist circuit",
        volume: 200,
        fluid: "Oil 46",
        stale: false,
        detail: given,
        events: [],
        series: [],
        changes: [],
        kv40: 46,
        picture: [{ id: "a" }],
        latest: null,
        metal: null,
        elementPoints: [],
        strainers: [],
        listed: [],
        now: TEST_NOW,
        ...change,
      },
      circuitId: "k1",
      elements: [],
      mayLog: true,
      mayEdit: true,
      said: null,
      ...roles,
    } as unknown as Circuit);
  test.each([
    [{}, "its oil is normal"],
    [{ state: "drifting" }, "still clean, but drifting"],
    [{ over: [1, null, 0] }, "1 number over target"],
    [{ over: [2, 3, 0] }, "3 numbers over target"],
    [{ over: [Infinity, 0, 0] }, "too dirty to count"],
    [{ filters: [{ componentId: "f", past: "torn" }] }, "oil bypasses its filter"],
    [{ metals: [{ id: "iron", passed: ["own"] }] }, "more metal than before"],
    [{ metals: [{ id: "iron", passed: ["peers"] }] }, "its oil is normal"],
    [{ water: { ppm: 700, below: false } }, "water in the oil"],
    [{ water: { ppm: 700, below: true } }, "its oil is normal"],
    [{ state: "alert" }, "its oil needs attention"],
    [{ state: "alarm" }, "its oil needs attention now"],
    [{ state: "unproven" }, "not enough is known of its oil"],
    [{ state: "alert", metals: [{ id: "copper", passed: [], climb: { samples: 6 } }] }, "copper climbing"],
    [{ viscosityOff: -0.23 }, "23 % too thin"],
    [{ viscosityOff: 0.12 }, "12 % too thick"],
  ])("%j: %s", (change, words) => expect(wordsOf(show(detail(change)))).toContain(`Crane 2: ${words}`));
  test("without a sample: what is unknown, and who can enter one", () => {
    const none = show(null, { picture: [] });
    expect(wordsOf(none)).toContain("no sample of its oil yet");
    expect(wordsOf(none)).toContain("Take a bottle from a live line, warm and at work, and");
    expect(wordsOf(show(null, { picture: [] }, { mayLog: false }))).toContain("A technician can enter a sample.");
  });
  test("while it is assessed again it says so; a fluid that nobody stated is said", () => {
    expect(wordsOf(show(detail(), { stale: true }))).toContain(
      "Something changed since this assessment; it is being assessed again.",
    );
    expect(wordsOf(show(detail(), { fluid: null, volume: null }))).toContain("Hoist circuit, fluid not stated.");
  });
  test("debris events with whether they are closed", () => {
    const events = [
      { id: "a", openedAt: at(-9), closedAt: null },
      { id: "b", openedAt: at(-30), closedAt: at(-20) },
    ];
    const words = wordsOf(show(detail(), { events }));
    expect(words).toMatch(/Debris event of 15\sNov , open/);
    expect(words).toMatch(/Debris event of 25\sOct , closed 4\sNov/);
  });
  test("the target is an engineer's to set", () => {
    expect(show(detail())).toContain("/oil/k1/settings");
    expect(show(detail(), {}, { mayEdit: false })).not.toContain("/oil/k1/settings");
  });
});

describe("cleaning up, and one sample", () => {
  type Clean = Of<typeof CleanScreen>;
  const clean = (change: object = {}) =>
    wordsOf(
      page(CleanScreen, {
        page: {
          circuitId: "k1",
          machine: "Crane 2",
          volume: 200,
          filters: [{ id: "f", name: "Return filter", filter: { flow: 60, beta: 200 } }],
          samples: [],
          target: { codes: [17, 15, 12], text: "17/15/12" },
          step: null,
          hoursPerDay: 8,
          ...change,
        },
        circuitId: "k1",
      } as unknown as Clean),
    );
  test("with no count it waits for the fields and names what is missing", () => {
    const words = clean();
    expect(words).toContain("How long until it is clean?");
    expect(words).toContain("The result appears as soon as every field is filled in correctly.");
    expect(words).toContain("Particles per mL.");
    expect(words).toContain(
      "No clean-up was watched: at least four samples of one day, with their machine hours, are needed.",
    );
  });
  type Sample = Of<typeof SampleScreen>;
  const sample = (about: object = {}, change: object = {}, mayLog = true) =>
    page(SampleScreen, {
      page: {
        circuitId: "k1",
        machine: "Crane 2",
        circuit: "Hoist circuit",
        photos: [],
        sample: {
          number: "S-1",
          at: TEST_NOW,
          hours: null,
          place: "port",
          state: "working",
          results: { iron: { value: 12.5, below: true } },
          ...change,
        },
        about: { takenBy: "", laboratory: "", withdrawnAt: null, colour: "", sludge: "", note: "", ...about },
      },
      circuitId: "k1",
      target: null,
      mayLog,
    } as unknown as Sample);
  test("a bound is shown as one, never as the number", () => expect(wordsOf(sample())).toMatch(/less than 12\.5/));
  test("nothing but particles looked for says so", () =>
    expect(wordsOf(sample({}, { results: {} }))).toContain("Nothing but particles was looked for."));
  test("withdrawn it says by whom and why, and cannot be withdrawn again", () => {
    const html = sample({ withdrawnAt: at(-1), withdrawnBy: "L. Aske", withdrawnWhy: "bottles exchanged" });
    expect(wordsOf(html)).toContain("by L. Aske: bottles exchanged");
    expect(html).not.toContain("Withdraw the sample");
    expect(sample()).toContain("Withdraw the sample");
    expect(sample({}, {}, false)).not.toContain("Withdraw the sample");
  });
  test("one from a drain is not compared with the others", () =>
    expect(wordsOf(sample({}, { place: "drain" }))).toContain("Not comparable with the other samples"));
});
