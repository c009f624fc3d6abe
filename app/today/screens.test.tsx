/** Today in states that a walk seldom meets: empty, all steady, booked, asked again, more than it shows, by role. */
import { DAY } from "@core";
import type { Decision, FaultNeed, OilNeed } from "~/domain/overview/today.server";
import { rendered, renderedPage, TEST_NOW, wordsOf } from "~/ui/testing";
import { DecisionRow, FaultRow, OilRow } from "./needs";
import Today from "./today";

type Page = Parameters<typeof Today>[0];

const decision = (change: Partial<Decision> = {}): Decision => ({
  pointId: "p1",
  point: "Case drain",
  component: "Pump A",
  machine: "Outer gate",
  componentId: "c1",
  circuitId: "k1",
  state: "alarm",
  urgency: 42,
  verdict: [{ text: "Case drain " }, { value: 5.4, quantity: "caseDrainFlow", digits: 1, strong: true }, { text: "." }],
  margin: { value: 0.8, low: 0.7, high: 0.9, before: null },
  trend: null,
  knownWhenNew: true,
  asksAgain: false,
  faultOf: null,
  booking: null,
  ...change,
});
const fault = (change: Partial<FaultNeed> = {}, cause: FaultNeed["fault"]["cause"] = "pump.caseLeak"): FaultNeed => ({
  key: "k1/1",
  circuitId: "k1",
  machine: "Outer gate",
  fault: {
    fault: { element: "c1", fault: "caseLeak", severity: 3 },
    text: "Pump A: leaks to its case",
    places: ["Pump A"],
    cause,
    share: 0.97,
    explains: ["p1", "p2"],
    alike: [],
  },
  since: Date.UTC(2026, 5, 10),
  points: [decision(), decision({ pointId: "p2", point: "Case pressure", state: "drifting" })],
  ...change,
});
const oil = (change: Partial<OilNeed> = {}): OilNeed => ({
  circuitId: "k2",
  machine: "Crane 2",
  circuit: "Hoist circuit",
  state: "alarm",
  urgency: 41,
  verdict: [{ text: "18/17/14, two numbers over its target." }],
  margin: null,
  eventId: null,
  ...change,
});
const counts = { unread: 0, unproven: 0, steady: 0, drifting: 0, alert: 0, alarm: 0 };
const page = (change: Partial<Page["loaderData"]> = {}) => ({
  open: 0,
  toDecide: [],
  oils: [],
  counts: { ...counts, steady: 12 },
  lines: [],
  dueInAll: 0,
  due: [],
  ahead: { next: null, all: [] },
  changed: null,
  byDate: [],
  months: 12,
  mayBook: true,
  ...change,
});
const show = (change: Partial<Page["loaderData"]> = {}) => renderedPage(Today, page(change));

describe("a point that needs a decision", () => {
  const row = (change: Partial<Decision> = {}, mayBook = true) =>
    rendered(<DecisionRow d={decision(change)} mayBook={mayBook} />);
  test.each([
    ["alarm", {}, "Book work into a stop", "/work/book?point=p1"],
    ["drifting", { state: "drifting" as const }, "Plan for a stop", "/work/book?point=p1"],
    ["unproven", { state: "unproven" as const }, "Book a test", "/work/book?point=p1&amp;kind=inspection"],
  ])("%s: an engineer is offered %j", (_state, change, words, to) => {
    const html = row(change);
    expect(html).toContain(`href="${to}"`);
    expect(wordsOf(html)).toContain(words);
  });
  test("who may not book is offered no booking, and may look at the trend", () => {
    const html = row({}, false);
    expect(html).not.toContain("/work/book");
    expect(html).toContain('href="/points/p1"');
  });
  test("booked, it leads to its work with the day of its stop, and to no second booking", () => {
    const html = row({ booking: { id: "w1", kind: "replacement", stop: "Winter stop", startsOn: "2027-01-18" } });
    expect(wordsOf(html)).toMatch(/Booked: replacement, 18\sJan/);
    expect(html).toContain('href="/work/w1"');
    expect(html).not.toContain("/work/book");
  });
  test("booked without a stop, it says what and no day", () => {
    const html = row({ booking: { id: "w1", kind: "repair", stop: null, startsOn: null } });
    expect(wordsOf(html)).toMatch(/Booked: repair\b(?!,)/);
  });
  test("one odd reading asks for a second before anything is booked", () => {
    const html = row({ asksAgain: true, state: "steady" });
    expect(wordsOf(html)).toContain("Take a second reading");
    expect(html).not.toContain("/work/book");
  });
  test("a cause is looked for where it presses, and not while it only drifts", () => {
    expect(row()).toContain("/isolate/new?circuit=k1");
    expect(row({ state: "drifting" })).not.toContain("/isolate/new");
  });
  test("names the point for who does not see the margin", () =>
    expect(wordsOf(row())).toContain("alarm Case drain. Case drain"));
});

describe("a fault", () => {
  const row = (f: FaultNeed, mayBook = true) => rendered(<FaultRow f={f} mayBook={mayBook} />);
  test("one entry, the points that it accounts for folded under it", () => {
    const html = row(fault());
    expect(wordsOf(html)).toContain("It accounts for 2 findings");
    expect(html).toContain("<details");
    expect(html).toContain('href="/points/p2"');
    expect(wordsOf(html)).toMatch(/since about June 2026: odds 97\s%/);
  });
  test("with a single point there is nothing to fold", () =>
    expect(row(fault({ points: [decision()] }))).not.toContain("<details"));
  test("what is set right now needs no stop and no plan", () => {
    const html = row(fault({}, "relief.setLow"));
    expect(wordsOf(html)).toContain("Put it right now");
    expect(html).not.toContain("/work/book");
    expect(html).not.toContain('href="/plan"');
  });
  test("what needs a part is booked by its worst point, and knows where it comes from", () => {
    const html = row(fault());
    expect(html).toContain("/work/book?point=p1&amp;from=fault&amp;of=k1");
    expect(row(fault(), false)).not.toContain("/work/book");
  });
  test("since when is left out where nobody knows", () =>
    expect(wordsOf(row(fault({ since: null })))).not.toContain("since about"));
  test("two places that the gauges cannot part are both named", () => {
    const f = fault();
    const two = { ...f, fault: { ...f.fault, places: ["Lift cylinder, left", "Lift cylinder, right"] } };
    expect(wordsOf(row(two))).toContain("lift cylinder, left or lift cylinder, right");
  });
});

describe("an oil", () => {
  test("leads to what happened, or to the debris event that deals with it", () => {
    expect(rendered(<OilRow o={oil()} />)).toContain('href="/oil/k2"');
    const html = rendered(<OilRow o={oil({ eventId: "e1" })} />);
    expect(html).toContain('href="/oil/debris/e1"');
    expect(wordsOf(html)).toContain("A debris event is open");
  });
});

describe("the page", () => {
  test("without a machine an engineer is told how to begin, others who does", () => {
    const empty = { counts };
    expect(show(empty)).toContain('href="/fleet/begin"');
    expect(wordsOf(show(empty))).toContain("No machines yet");
    const viewer = show({ ...empty, mayBook: false });
    expect(viewer).not.toContain("/fleet/begin");
    expect(wordsOf(viewer)).toContain("An engineer adds the first machine.");
  });
  test("all steady says so, and what is left for today", () => {
    const words = wordsOf(show());
    expect(words).toContain("Nothing needs a decision");
    expect(words).toContain("Every point is steady. Walk the rounds that are due; that is all for today.");
    expect(words).toContain("12 points watched: 12 steady");
    expect(words).toContain("No stop is planned.");
  });
  test.each([
    [1, "One thing needs a decision"],
    [9, "Nine things need a decision"],
    [27, "27 things need a decision"],
  ])("%i open: %s", (open, words) => expect(wordsOf(show({ open }))).toContain(words));
  test("points, faults and oils stand in one list, the most urgent first", () => {
    const html = show({
      open: 3,
      toDecide: [
        { kind: "fault", fault: fault({ points: [decision({ urgency: 40 })] }) },
        { kind: "point", point: decision({ pointId: "p9", machine: "Ramp", urgency: 31 }) },
      ],
      oils: [oil({ urgency: 44 })],
    });
    const order = ["Crane 2", "Outer gate", "Ramp"].map((name) => html.indexOf(name));
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(order[0]).toBeGreaterThan(0);
  });
  test("more than it shows is said, with where the rest is; what is booked is none of them", () => {
    const open = show({ open: 4, toDecide: [{ kind: "point", point: decision() }] });
    expect(wordsOf(open)).toContain("The worst 1 of 4;");
    const booked = decision({ booking: { id: "w", kind: "repair", stop: null, startsOn: null } });
    expect(wordsOf(show({ open: 1, toDecide: [{ kind: "point", point: booked }] }))).toContain("The worst 0 of 1;");
    expect(wordsOf(show({ open: 1, toDecide: [{ kind: "point", point: decision() }] }))).not.toContain("The worst");
  });
  test("rounds that are due: late in words, one point in the singular", () => {
    const words = wordsOf(
      show({
        dueInAll: 5,
        due: [
          { roundId: "r1", name: "North side", points: 1, dueAt: TEST_NOW - 3 * DAY },
          { roundId: "r2", name: "South side", points: 4, dueAt: TEST_NOW },
        ],
      }),
    );
    expect(words).toContain("North side 1 point 3 days late");
    expect(words).toContain("South side 4 points today");
    expect(words).toContain("5 within a week");
  });
  test("work at the next stop: whether its part is there in time, and that nothing is booked yet", () => {
    const stop = { id: "s", name: "Winter stop", startsOn: "2027-01-18", crewHours: 24, timeZone: "Europe/London" };
    const all = [{ ...stop, days: 3 }];
    expect(wordsOf(show({ ahead: { next: { ...stop, work: [] }, all } }))).toContain("Nothing is booked on it yet.");
    const work = (change: object) => ({
      id: "w1",
      what: "Outer gate, pump A: replacement",
      hours: 6,
      needsPart: true,
      leadTimeDays: 70,
      orderedOn: null,
      ...change,
    });
    const late = show({ ahead: { next: { ...stop, work: [work({})] }, all } });
    expect(wordsOf(late)).toMatch(/6 crew hours of 24/);
    expect(late).toContain("text-ochre");
    const none = show({ ahead: { next: { ...stop, work: [work({ needsPart: false })] }, all } });
    expect(wordsOf(none)).toContain("no part needed");
  });
  test("since the last look: what changed from what, what more, and work that was done", () => {
    const words = wordsOf(
      show({
        changed: {
          since: TEST_NOW - 5 * DAY,
          points: [
            {
              pointId: "p1",
              machine: "Ramp",
              component: "Pump",
              point: "Case drain",
              state: "alert",
              before: "drifting",
            },
          ],
          states: 3,
          done: 1,
        },
      }),
    );
    expect(words).toContain("Ramp, pump : alert , was drifting");
    expect(words).toContain("2 more changed their state.");
    expect(words).toMatch(/1 piece of work done/);
  });
});
