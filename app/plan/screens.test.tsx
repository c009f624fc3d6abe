/** Screens of the plan in states that a walk seldom meets: no stop, no part, late, over its crew, too few lives, one plan kept. */
import { DAY, noWishes, type PieceFacts, type PlanHelp, type PlanLine, type Scorecard } from "@core";
import type { KeptPlan } from "~/domain/plan/kept.server";
import type { KindLives } from "~/domain/plan/lives.server";
import type { OrderLine } from "~/domain/plan/orders.server";
import type { SitePlan } from "~/domain/plan/pieces.server";
import type { LifeEnd, ScoreGroup } from "~/domain/plan/scorecard.server";
import type { DueItem } from "~/domain/bookings/due.server";
import { rendered, renderedPage as page, TEST_NOW, wordsOf } from "~/ui/testing";
import { DUE_SHOWN, DueBeside, Helps, LeftOut } from "./beside";
import { Board, type BoardRow } from "./board";
import { Compare } from "./compare";
import CalendarPage from "./calendar";
import CostsPage from "./costs";
import LivesPage from "./lives";
import PartsPage from "./parts";
import ScorecardPage from "./scorecard";
import { Stops } from "./stops";

const at = (days: number) => TEST_NOW + days * DAY;

const piece = (change: Partial<PieceFacts> = {}): PieceFacts => ({
  id: "a",
  componentId: "c1",
  pointId: "p1",
  workId: null,
  machineId: "m1",
  machine: "Outer gate",
  component: "Pump A",
  act: "Replace the pump",
  faultOf: null,
  state: "alarm",
  p10: at(40),
  p50: at(90),
  p90: at(150),
  leadTimeDays: 70,
  orderedOn: null,
  spares: 0,
  partDays: 70,
  needsPart: true,
  hours: 6,
  assumed: false,
  value: 0,
  ...change,
});
const stop = {
  id: "s1",
  name: "Winter stop",
  at: at(55),
  days: 3,
  startsOn: "2027-01-18",
  crewHours: 24,
  electricianHours: 0,
};
const plan = (change: Partial<SitePlan> = {}): SitePlan => ({
  problem: {
    now: TEST_NOW,
    until: at(365),
    stops: [{ id: "s1", name: "Winter stop", at: at(55), days: 3, crew: { mechanical: 24 } }],
  } as unknown as SitePlan["problem"],
  pieces: { a: piece(), b: piece({ id: "b", component: "Valve 2", hours: 20 }) },
  atOnce: [],
  stops: [stop],
  strangeTags: [],
  ...change,
});
const line = (option: string, kind: "stop" | "own" | "wait" = "stop", days = 55): PlanLine =>
  ({ piece: "a", option: { id: option, kind, at: at(days), crossed: 0.1 } }) as unknown as PlanLine;

describe("what would help most", () => {
  const show = (helps: PlanHelp[] | null, solving = false) =>
    wordsOf(rendered(<Helps plan={plan()} helps={helps} solving={solving} currency="GBP" />));
  test("while it is solved it waits for the plan; solved, it says that nothing would", () => {
    expect(show(null, true)).toContain("Comes with the finished plan.");
    expect(show([])).toContain("Neither a part on the shelf nor a further reading would change much.");
  });
  test("a part, and a reading with its day and what knowing the day would save", () => {
    const words = show([
      { piece: "a", kind: "part", saves: 1234 },
      { piece: "b", kind: "reading", at: at(30), most: 900, saves: 310 },
    ]);
    expect(words).toMatch(/Its part on the shelf: Outer gate, pump A 1.?230\sGBP/);
    expect(words).toMatch(/Read it again on 24\sDec, then decide: Outer gate, valve 2/);
    expect(words).toMatch(/knowing the day would save 900\sGBP 310\sGBP/);
  });
  test("six at most", () => {
    const many = Array.from({ length: 9 }, (_, i): PlanHelp => ({ piece: "a", kind: "part", saves: 100 - i }));
    expect(show(many).match(/on the shelf:/g)).toHaveLength(6);
  });
});

describe("due beside the plan", () => {
  const due = (i: number): DueItem => ({
    kind: "hose" as DueItem["kind"],
    id: String(i),
    machineId: "m1",
    what: `Hose ${i}`,
    why: "six years old",
    dueAt: at(i),
    to: `/work/due#${i}`,
  });
  test("nothing due is nothing said", () => expect(rendered(<DueBeside plan={plan()} due={[]} />)).toBe(""));
  test("what needs no stop, and the first of what is due by date, with where the rest is", () => {
    const atOnce = [{ key: "k", text: "Sluice 3: relief valve set low", act: "Set it back", to: "/isolate/faults/k" }];
    const words = wordsOf(
      rendered(<DueBeside plan={plan({ atOnce })} due={Array.from({ length: DUE_SHOWN + 3 }, (_, i) => due(i + 1))} />),
    );
    expect(words).toContain("Due without a stop Sluice 3: relief valve set low : Set it back");
    expect(words).toMatch(/Due by date, to 24\sNov\s2027/);
    expect(words).toContain(`The first ${DUE_SHOWN} by date.`);
    expect(words).not.toContain(`Hose ${DUE_SHOWN + 1} `);
  });
});

describe("planned stops", () => {
  const show = (given: SitePlan, lines: PlanLine[] = [], wishes = noWishes, mayEdit = true) =>
    rendered(<Stops plan={given} lines={lines} wishes={wishes} set={() => undefined} mayEdit={mayEdit} />);
  test("none planned: an engineer may plan one", () => {
    expect(show(plan({ stops: [] }))).toContain('href="/fleet/new/stop"');
    expect(show(plan({ stops: [] }), [], noWishes, false)).not.toContain("/fleet/new/stop");
  });
  test("pieces and hours beside what its crew has", () => {
    const both = [line("s1"), { ...line("s1"), piece: "b" } as PlanLine];
    const html = show(plan(), both);
    expect(wordsOf(html)).toContain("2 pieces, 26 of 24 crew hours");
    expect(html).toContain("text-ochre");
    expect(wordsOf(show(plan(), [line("s1")]))).toContain("1 piece, 6 of 24 crew hours");
  });
  test("a crew that is partly wanted elsewhere, and more crew by a wish, are what it has", () => {
    expect(wordsOf(show(plan(), [], { ...noWishes, crewAt: { s1: { mechanical: 8 } } }))).toContain("of 8 crew hours");
    expect(wordsOf(show(plan(), [], { ...noWishes, moreCrew: { mechanical: 10, electrical: 0 } }))).toContain(
      "of 34 crew hours",
    );
  });
  test("left out it is struck through and ticked", () => {
    const html = show(plan(), [], { ...noWishes, without: ["s1"] });
    expect(html).toContain("line-through");
    expect(html).toMatch(/type="checkbox"[^>]*checked=""/);
  });
});

describe("the board", () => {
  const row = (change: Partial<BoardRow> = {}): BoardRow => ({
    facts: piece(),
    line: line("s1"),
    pinned: false,
    reason: "At the stop its part is there.",
    forbidden: [],
    goesWith: [],
    companions: [],
    ways: [
      { id: "s1", label: "Winter stop", at: at(55) },
      { id: "own", label: "Stop of its own", at: at(80) },
      { id: "wait", label: "Not in this plan", at: at(365) },
    ],
    ...change,
  });
  const show = (rows: BoardRow[], months = 12) =>
    rendered(<Board rows={rows} months={months} stops={plan().problem.stops} onMove={() => undefined} />);
  test("says without the picture where the plan puts it; pinned, the choice shows it", () => {
    expect(show([row()])).toContain("Winter stop");
    expect(show([row()])).toMatch(/<label class="sr-only" for="way-a">When: Outer gate, Pump A/);
    expect(show([row({ pinned: true })])).toMatch(/<option value="s1" selected="">Pin: Winter stop/);
    expect(show([row({ line: null })])).toContain(">…</option>");
  });
  test("a piece leads to its fault, else to its point, else to its work", () => {
    expect(show([row({ facts: piece({ faultOf: "k1/1" }) })])).toContain('href="/isolate/faults/k1"');
    expect(show([row()])).toContain('href="/points/p1"');
    expect(show([row({ facts: piece({ pointId: null, workId: "w1" }) })])).toContain('href="/work/w1"');
  });
  test("a place that it is kept away from is not offered again, and can be let go to", () => {
    const html = show([row({ forbidden: ["s1"] })]);
    expect(html).not.toContain("Not at: Winter stop");
    expect(wordsOf(html)).toContain("Let it go to: Winter stop");
    expect(html).not.toContain("Not at: Not in this plan");
  });
  test("pieces that go together say so and can be parted", () => {
    const html = show([row({ goesWith: ["Valve 2"], companions: [{ id: "b", label: "Valve 2" }] })]);
    expect(wordsOf(html)).toContain("Goes together with Valve 2. Plan it for itself");
    expect(html).toContain('<option value="with:b">With: Valve 2');
  });
  test("waiting has no mark; a stop of its own has another shape than a planned one", () => {
    expect(show([row({ line: line("wait", "wait", 365) })])).not.toContain("data-mark");
    expect(show([row({ line: line("own", "own", 80) })])).toContain("M0 -8 L8 0");
    expect(show([row()])).toContain('<circle r="7"');
  });
  test("a forecast whose late end is open runs to the edge; one beyond the board has no span", () => {
    const open = show([row({ facts: piece({ p50: null, p90: null }) })]);
    const [, x, width] = /<rect x="([\d.]+)%" y="[\d.]+" width="([\d.]+)%" height="7"/.exec(open)!;
    expect(Number(x) + Number(width)).toBeCloseTo(100, 1);
    expect(show([row({ facts: piece({ p10: at(900) }) })])).not.toContain('height="7"');
  });
  test("usual figures are called so", () =>
    expect(wordsOf(show([row({ facts: piece({ assumed: true }) })]))).toContain("6 h (usual figures)"));
});

describe("kept plans", () => {
  const kept = (id: string, option: string, change: Partial<KeptPlan> = {}): KeptPlan =>
    ({
      id,
      name: `Plan ${id}`,
      madeBy: "R. Oduya",
      madeAt: at(-3),
      bookedAt: null,
      bookedBy: null,
      gap: 0.004,
      totals: { expected: 10_000, high: 15_000, worst: 21_000, failures: 0.24, parts: { life: 800 } },
      lines: [{ piece: "a", label: "Outer gate, pump A", kind: "stop", option, name: `At ${option}`, at: at(55) }],
      ...change,
    }) as unknown as KeptPlan;
  const show = (plans: KeptPlan[], mayEdit = true) =>
    rendered(<Compare kept={plans} currency="GBP" mayEdit={mayEdit} />);
  test("none kept is nothing shown", () => expect(show([])).toBe(""));
  test("one alone shows where it puts everything, and counts no difference", () => {
    const words = wordsOf(show([kept("1", "s1")]));
    expect(words).toContain("Outer gate, pump A");
    expect(words).not.toContain("pieces differ");
  });
  test("two: only what differs, and how many do", () => {
    expect(wordsOf(show([kept("1", "s1"), kept("2", "s2")]))).toContain("1 of 1 pieces differ");
    const same = wordsOf(show([kept("1", "s1"), kept("2", "s1")]));
    expect(same).toContain("0 of 1 pieces differ");
    expect(same).not.toContain("At s1");
  });
  test("a piece that one of them does not have says so, one that waits too", () => {
    const words = wordsOf(show([kept("1", "s1"), kept("2", "x", { lines: [] })]));
    expect(words).toContain("not in it");
    const waits = kept("3", "wait");
    waits.lines[0]!.kind = "wait";
    expect(wordsOf(show([kept("1", "s1"), waits]))).toContain("wait");
  });
  test("the newest two are ticked, the others can be", () => {
    const html = show([kept("1", "s1"), kept("2", "s2"), kept("3", "s3")]);
    expect(html.match(/checked=""/g)).toHaveLength(2);
  });
  test("booked once; who may not edit has no buttons", () => {
    const booked = show([kept("1", "s1", { bookedAt: at(-1), bookedBy: "L. Aske" })]);
    expect(wordsOf(booked)).toMatch(/Booked by L\. Aske, 23\sNov/);
    expect(booked).not.toContain("Book this plan");
    expect(show([kept("1", "s1")])).toContain("Book this plan");
    expect(show([kept("1", "s1")], false)).not.toContain("Book this plan");
  });
  test("a small gap to the best has two digits", () => {
    expect(wordsOf(show([kept("1", "s1")]))).toMatch(/From the best, at most 0\.40\s%/);
    expect(wordsOf(show([kept("1", "s1", { gap: 0.034 })]))).toMatch(/at most 3\.4\s%/);
  });
});

describe("parts to order", () => {
  const order = (change: Partial<OrderLine> = {}): OrderLine => ({
    id: "a",
    machine: "Outer gate",
    component: "Pump A",
    model: "V45",
    tag: "P-1",
    workId: null,
    pointId: "p1",
    neededBy: "2027-01-18",
    from: "booked",
    fromName: "Winter stop",
    leadTimeDays: 70,
    orderBy: "2026-11-09",
    spares: 0,
    orderedOn: null,
    text: "order now: 15 days late",
    late: true,
    ...change,
  });
  const show = (orders: OrderLine[]) =>
    page(PartsPage, { site: { id: "s", name: "Harbour", timeZone: "Europe/London" }, orders } as Parameters<
      typeof PartsPage
    >[0]["loaderData"]);
  test("none needed", () => {
    const html = show([]);
    expect(wordsOf(html)).toContain("No part is needed");
    expect(html).not.toContain("parts.csv");
  });
  test("what is late stands as now, with the day it should have been", () => {
    const words = wordsOf(show([order(), order({ id: "b", orderBy: "2027-03-01", late: false, text: "in time" })]));
    expect(words).toContain("1 part to order now");
    expect(words).toMatch(/now \( ?9\sNov ?\)/);
  });
  test("ordered already, no lead time, nothing tells when: each says so", () => {
    const words = wordsOf(
      show([
        order({ orderBy: null, orderedOn: "2026-11-01", leadTimeDays: null, neededBy: null, from: null, fromName: "" }),
      ]),
    );
    expect(words).toContain("No part has to be ordered today");
    expect(words).toMatch(/not stated 0 1\sNov/);
  });
  test("where the day comes from", () => {
    expect(wordsOf(show([order()]))).toContain("Booked: Winter stop");
    expect(wordsOf(show([order({ from: "forecast", fromName: "" })]))).toContain("earliest likely day of the limit");
    expect(wordsOf(show([order({ from: "plan", fromName: "Plan 2: Winter stop" })]))).toContain("Plan 2: Winter stop");
  });
});

describe("the scorecard", () => {
  const card = (change: Partial<Scorecard> = {}): Scorecard => ({
    lives: 30,
    forecasts: 90,
    crossed: 12,
    covered: { share: 0.75, low: 0.6, high: 0.9 },
    before: 0.1,
    after: 0.15,
    late: 0.12,
    ...change,
  });
  const none = card({ lives: 0, forecasts: 0, crossed: 0, covered: null, before: null, after: null, late: null });
  type Score = Parameters<typeof ScorecardPage>[0]["loaderData"];
  const group = (name: string, own: Scorecard): ScoreGroup => ({ name, card: own, widened: 1 });
  const show = (all: Scorecard, change: Partial<Score> = {}) =>
    page(ScorecardPage, {
      all,
      byPeers: [group("With peers", all)],
      byReadings: [],
      byAhead: [],
      byKind: [group("Axial piston pump", all)],
      kinds: 1,
      narrow: [],
      unforeseen: 0,
      notBefore: { lives: 0, before: 0 },
      ends: [],
      ...change,
    } as Score);
  test("nothing has come due yet", () => expect(wordsOf(show(none))).toContain("No forecast has come due yet"));
  test("too few came to judge: only what came is listed, no share is claimed", () => {
    const words = wordsOf(show(card({ crossed: 2, covered: null, before: null, after: null, late: null })));
    expect(words).toContain("Too few lives have crossed their limit to judge the forecasts");
    expect(words).toContain("too few came");
    expect(words).not.toContain("With peers");
  });
  test("how often it held, beside how often it should, with its interval", () => {
    const words = wordsOf(show(card()));
    expect(words).toContain("Of 100 lives, 75 crossed their limit between P10 and P90; 80 should");
    expect(words).toMatch(/75\s% 60\s% to 90\s% 10\s% 15\s% 12\s% late/);
    expect(words).toContain(" None crossed before a forecast was issued.");
  });
  test.each([
    [0.04, "on time"],
    [-0.2, "20\u00a0% early"],
    [0.2, "20\u00a0% late"],
  ])("a middle that was off by %d is %s", (late, words) =>
    expect(wordsOf(show(card({ late })))).toContain(words.replace("\u00a0", " ")),
  );
  test("too narrow is said with how much wider the plan draws it; unforeseen lives and dates too early too", () => {
    const words = wordsOf(
      show(card(), {
        narrow: [
          { name: "Gear pump", widened: 1.4 },
          { name: "Cylinder", widened: 1 },
        ],
        unforeseen: 1,
        notBefore: { lives: 20, before: 3 },
      }),
    );
    expect(words).toContain("Gear pump (the plan draws them 1.4 times as wide); Cylinder");
    expect(words).toContain("1 life crossed before any forecast");
    expect(words).toMatch(/3 crossed before it \(15\s%/);
  });
  const end = (change: Partial<LifeEnd> = {}): LifeEnd => ({
    pointId: "p1",
    machine: "Outer gate",
    component: "Pump A",
    point: "Case drain",
    crossedAt: at(-20),
    endedAt: null,
    last: { issuedAt: at(-200), p10: at(-40), p50: at(-10), p90: at(60) },
    findings: "",
    ...change,
  });
  test.each<[string, Partial<LifeEnd>]>([
    ["as forecast", {}],
    ["came before P10", { crossedAt: at(-60) }],
    ["came after P90", { crossedAt: at(-1), last: { issuedAt: at(-200), p10: at(-90), p50: at(-60), p90: at(-30) } }],
    ["not foreseen three months before", { last: null }],
    ["replaced, no forecast three months before", { crossedAt: null, endedAt: at(-20), last: null }],
    ["replaced with about 10 days left", { crossedAt: null, endedAt: at(-20) }],
    ["replaced before it crossed", { crossedAt: null, endedAt: at(-5) }],
  ])("what came: %s", (words, change) => {
    const html = show(card(), { ends: [end({ ...change, findings: "Scored" })] });
    expect(wordsOf(html)).toContain(words);
    expect(wordsOf(html)).toContain("Found: Scored");
  });
});

describe("lives by kind", () => {
  const kind = (change: Partial<KindLives> = {}): KindLives => ({
    kind: "Axial piston pump",
    lives: 9,
    crossed: 5,
    fit: {
      shape: 2.5,
      scale: 12_345,
      shapeInterval: { low: 1.2, high: 4 },
      scaleInterval: { low: 9000, high: 16_000 },
    } as unknown as KindLives["fit"],
    none: "",
    advice: { age: 8000, note: "" } as unknown as KindLives["advice"],
    oldAndSteady: [],
    youngAndWorn: [],
    ...change,
  });
  const show = (kinds: KindLives[]) =>
    wordsOf(
      page(LivesPage, { site: { id: "s", name: "Harbour" }, kinds } as Parameters<typeof LivesPage>[0]["loaderData"]),
    );
  test("none read, and none with lives enough, each say so", () => {
    expect(show([])).toContain("No life has been read against a limit yet.");
    expect(show([kind({ fit: null, none: "one life came to its limit" })])).toContain(
      "Not fitted: one life came to its limit.",
    );
  });
  test("a fit with its intervals, and an age that is called too early", () => {
    const words = show([kind()]);
    expect(words).toMatch(/shape 2\.50 \(95 % 1\.20 to 4\.00\), scale 12.?300\sh/);
    expect(words).toContain(
      "Crossing the limit is taken as failing here, which makes the age too early; the condition of each part decides.",
    );
    expect(words).toContain("Age and condition ask for the same today.");
  });
  test("where age and condition differ, parts are named, five at most", () => {
    const old = Array.from({ length: 7 }, (_, i) => ({ machine: `Crane ${i}`, component: "Pump", age: 9000 + i }));
    const words = show([kind({ oldAndSteady: old as KindLives["oldAndSteady"] })]);
    expect(words).toContain("Crane 4, pump");
    expect(words).toContain("and 2 more");
    expect(words).not.toContain("Age and condition ask for the same today.");
  });
});

describe("costs and the calendar", () => {
  type Costs = Parameters<typeof CostsPage>[0]["loaderData"];
  const costs = (mayEdit: boolean, setBy = "") =>
    ({
      site: { id: "s", name: "Harbour" },
      costs: {
        currency: "GBP",
        crewHour: 70,
        overHour: 210,
        opening: 300,
        extraStop: 2000,
        standing: 150,
        failsAMonth: 0.07,
      },
      setBy,
      version: 0,
      mayEdit,
    }) as unknown as Costs;
  test("usual figures are called so until somebody sets them; a chance is shown in percent without a tail", () => {
    const html = page(CostsPage, costs(true));
    expect(wordsOf(html)).toContain("Usual figures until the plant sets its own: orders of magnitude, not quotes.");
    expect(html).toMatch(/name="failsAMonth"[^>]*value="7"/);
    expect(wordsOf(page(CostsPage, costs(true, "L. Aske")))).toContain("Set by L. Aske.");
  });
  test("who may not set them reads them", () => {
    const html = page(CostsPage, costs(false));
    expect(html).not.toContain(">Save<");
    expect(wordsOf(html)).toContain("An engineer sets these.");
  });
  test("a refusal stands beside its field and keeps what was typed out of the address", () => {
    const html = page(CostsPage, costs(true), {
      problems: { crewHour: "Write a number.", form: "Changed meanwhile." },
    });
    expect(wordsOf(html)).toContain("Write a number.");
    expect(wordsOf(html)).toContain("Changed meanwhile.");
  });
  type Feeds = Parameters<typeof CalendarPage>[0]["loaderData"];
  test("a private address is shown once; those that are there can be revoked", () => {
    const feeds = [
      { id: "f1", madeAt: at(-10), lastReadAt: null },
      { id: "f2", madeAt: at(-9), lastReadAt: at(-1) },
    ] as unknown as Feeds["feeds"];
    const html = page(CalendarPage, { feeds } as Feeds, { address: "https://x/calendar/abc.ics" });
    expect(html).toContain("https://x/calendar/abc.ics");
    expect(wordsOf(html)).toContain("never read");
    expect(wordsOf(html)).toMatch(/last read 23\sNov, 09:00/);
    expect(html.match(/name="feed"/g)).toHaveLength(2);
    expect(page(CalendarPage, { feeds: [] } as unknown as Feeds)).not.toContain("Revoke");
  });
});

test("who books a plan is told what was left out of it", () => {
  expect(rendered(<LeftOut left={[]} />)).toBe("");
  expect(wordsOf(rendered(<LeftOut left={["Winter stop (Outer gate, pump A)"]} />))).toContain(
    "done or called off since the plan was kept: Winter stop (Outer gate, pump A).",
  );
});
