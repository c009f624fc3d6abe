/** Pages of work in states that a walk seldom meets: past its stop, late part, full crew, nothing due, two signatures, by role. */
import { DAY } from "@core";
import { renderedPage as page, rendered, TEST_NOW, wordsOf } from "~/ui/testing";
import type { InterventionPage } from "~/domain/bookings/page.server";
import BookScreen from "./book";
import CampaignScreen from "./campaign";
import { CarryOut } from "./carryOut";
import DueScreen from "./due";
import WorkScreen from "./work";
import { Signing, WriteUp } from "./writeUp";

const ZONE = "Europe/London";
const at = (days: number) => TEST_NOW + days * DAY;
type Of<P extends (props: never) => unknown> = Parameters<P>[0] extends { loaderData: infer D } ? D : never;

describe("all work", () => {
  type Work = Of<typeof WorkScreen>;
  const stop = { id: "s1", name: "Winter stop", startsOn: "2027-01-18", days: 1, crewHours: 10, timeZone: ZONE };
  const work = (change: object = {}) => ({
    id: "w1",
    kind: "replacement",
    note: "",
    crewHours: 6,
    stopId: "s1",
    doneAt: null,
    interim: false,
    signedAt: null,
    orderedOn: null,
    component: "Pump A",
    componentId: "c1",
    leadTimeDays: 20,
    machine: "Outer gate",
    machineId: "m1",
    timeZone: ZONE,
    stop: "Winter stop",
    startsOn: "2027-01-18",
    missed: false,
    ...change,
  });
  const show = (open: object[], change: object = {}) =>
    page(WorkScreen, { ahead: [stop], open, done: [], due: 0, mayEdit: true, ...change } as unknown as Work);
  test("nothing booked, nothing planned, nothing done", () => {
    const words = wordsOf(show([], { ahead: [], mayEdit: false }));
    expect(words).toContain("No work is booked");
    expect(words).toContain("An engineer plans stops.");
    expect(words).toContain("No work has been recorded yet.");
    expect(wordsOf(show([]))).toContain("Nothing booked.");
  });
  test.each([
    [[work()], "1 piece of work booked, parts in time"],
    [[work(), work({ id: "b" })], "2 pieces of work booked, parts in time"],
    [[work({ leadTimeDays: 90 })], "1 part comes after the stop"],
    [[work({ leadTimeDays: 90 }), work({ id: "b", leadTimeDays: 90 })], "2 parts come after the stop"],
    [[work({ missed: true, leadTimeDays: 90 })], "1 piece of work fell past a stop"],
  ])("%#: the heading finds what presses most", (open, words) => expect(wordsOf(show(open))).toContain(words));
  test("what fell past its stop, what has none, and what stands at a stop beyond the list have places of their own", () => {
    const words = wordsOf(
      show([work({ missed: true, stopId: "old" }), work({ id: "b", stopId: null }), work({ id: "c", stopId: "far" })]),
    );
    expect(words).toContain("Stop has passed, work still open");
    expect(words).toContain("Without a stop");
    expect(words).toContain("At later stops");
  });
  test("more hours than the crew has are marked; one day in the singular", () => {
    const html = show([work(), work({ id: "b" })]);
    expect(wordsOf(html)).toContain("Winter stop, 18");
    expect(wordsOf(html)).toMatch(/, 1 day 12 of 10 crew hours/);
    expect(html).toContain("font-medium text-ochre");
  });
  test("an inspection needs no part; done work says how it stands on record", () => {
    expect(wordsOf(show([work({ kind: "inspection" })]))).toContain("no part needed");
    const done = (change: object) => wordsOf(show([], { done: [work({ doneAt: new Date(at(-3)), ...change })] }));
    expect(done({})).toContain("not signed");
    expect(done({ signedAt: new Date(at(-1)) })).toMatch(/done 21\sNov signed/);
    expect(done({ signedAt: new Date(at(-1)), interim: true })).toContain("stop-gap");
  });
});

describe("due by date", () => {
  type Due = Of<typeof DueScreen>;
  const item = (days: number) => ({
    kind: "hose",
    id: `h${days}`,
    machineId: "m",
    what: "Crane hose",
    why: "six years old",
    dueAt: at(days),
    to: "/x",
  });
  const show = (change: object = {}) =>
    page(DueScreen, {
      due: [],
      ahead: 30,
      campaigns: [],
      plan: [],
      mayMove: true,
      mayEdit: true,
      ...change,
    } as unknown as Due);
  test.each([
    [[], "Nothing falls due within 30 days"],
    [[item(3)], "1 falls due within 30 days"],
    [[item(3), item(4)], "2 fall due within 30 days"],
    [[item(-3), item(4)], "1 of 2 is late"],
    [[item(-3), item(-4)], "2 of 2 are late"],
  ])("%#", (due, words) => expect(wordsOf(show({ due }))).toContain(words));
  test("no campaign, no valve that seldom moves: what each is for is said", () => {
    expect(wordsOf(show())).toContain("No bulletin runs as a campaign.");
    expect(wordsOf(show())).toContain(
      "No part has a longest time without a move. It is stated at the part; what stands still for months seizes.",
    );
  });
  test("a valve that nobody moved yet, and one with its next day; moving asks for the load to be safe", () => {
    const valve = {
      id: "v",
      machineId: "m",
      machine: "Sluice 1",
      component: "Sluice valve",
      days: 30,
      last: null,
      by: null,
      dueAt: null,
      submission: "s",
    };
    const words = wordsOf(show({ plan: [valve, { ...valve, id: "w", last: at(-10), by: "T. Wren", dueAt: at(20) }] }));
    expect(words).toContain("no move is on record");
    expect(words).toMatch(/by T\. Wren, next by 14\sDec/);
    expect(words).toContain(
      "Moving a valve moves what it drives: everybody clear, the load held or down, both ways and back.",
    );
    expect(show({ plan: [valve], mayMove: false })).not.toContain("It was moved today");
  });
  test("a campaign with how far it is", () => {
    const words = wordsOf(
      show({
        campaigns: [{ id: "c", title: "Relief springs", bulletin: "B-12 rev 2", settled: 2, parts: 5, closedAt: null }],
      }),
    );
    expect(words).toContain("2 of 5 settled");
  });
});

describe("a campaign", () => {
  type Campaign = Of<typeof CampaignScreen>;
  const part = (id: string, result: string, change: object = {}) => ({
    id,
    result,
    marking: "",
    by: null,
    at: null,
    machineId: "m",
    machine: `Crane ${id}`,
    component: "Relief valve",
    componentId: `c${id}`,
    version: 1,
    ...change,
  });
  const show = (parts: object[], campaign: object = {}, roles: object = {}) =>
    page(CampaignScreen, {
      page: {
        timeZone: ZONE,
        campaign: {
          id: "b",
          title: "Relief springs",
          bulletin: "B-12",
          why: "Springs break.",
          marking: "A dot.",
          dueOn: "2027-02-01",
          closedAt: null,
          closedBy: null,
          ...campaign,
        },
        parts,
      },
      mayLook: true,
      mayEdit: true,
      ...roles,
    } as unknown as Campaign);
  test("how many are settled, how many are to be changed, and how the old one is told", () => {
    const words = wordsOf(show([part("1", "open"), part("2", "old"), part("3", "new"), part("4", "done")]));
    expect(words).toContain("Relief springs: 2 of 4 settled, 1 to be changed");
    expect(words).toContain("Marking: A dot.");
    expect(words).toMatch(/Done by 1\sFeb/);
  });
  test("only what is open or old is asked for; the change is booked by an engineer", () => {
    const html = show([part("1", "open"), part("2", "old"), part("3", "new")]);
    expect(html.match(/name="part"/g)).toHaveLength(2);
    expect(html).toContain("/work/book?component=c2&amp;kind=replacement&amp;from=campaign");
    expect(show([part("2", "old")], {}, { mayEdit: false })).not.toContain("/work/book");
    expect(show([part("1", "open")], {}, { mayLook: false })).not.toContain("<form");
  });
  test("it closes when all is settled, and then takes nothing", () => {
    expect(show([part("1", "new"), part("2", "done")])).toContain("Close the campaign");
    expect(show([part("1", "new"), part("2", "open")])).not.toContain("Close the campaign");
    const closed = show([part("2", "old")], { closedAt: at(-1), closedBy: "R. Oduya" });
    expect(wordsOf(closed)).toContain("Closed by R. Oduya.");
    expect(closed).not.toContain("<form");
  });
});

describe("booking", () => {
  type Book = Of<typeof BookScreen>;
  const stop = (id: string, late: boolean, change: object = {}) => ({
    id,
    name: `Stop ${id}`,
    at: at(60),
    bookedHours: 4,
    crewHours: 24,
    probability: 0.12,
    part: { late, text: late ? "3 days late" : "in time" },
    ...change,
  });
  const about = (change: object = {}) => ({
    component: "Pump A",
    componentId: "c1",
    pointId: "p1",
    machine: "Outer gate",
    machineId: "m1",
    state: "alarm",
    verdict: [{ text: "Worn." }],
    margin: null,
    stops: [stop("1", false)],
    proposed: "1",
    leastBad: null,
    beyond: false,
    beforePart: null,
    part: { leadTimeDays: 70, orderedOn: null },
    partAt: at(70),
    open: [],
    ...change,
  });
  const show = (change: object = {}, rest: object = {}, action?: unknown) =>
    page(
      BookScreen,
      {
        about: about(change),
        kind: "replacement",
        atOnce: false,
        interim: false,
        origin: { kind: "", id: "" },
        submission: "s",
        ...rest,
      } as unknown as Book,
      action,
    );
  test.each<[string, object, object]>([
    ["the Stop 1 on", {}, {}],
    ["no stop is planned yet", { stops: [], proposed: null }, {}],
    ["the part comes after every planned stop", { stops: [stop("1", true)], proposed: null }, {}],
    ["likely past its limit before the Stop 1", { proposed: null }, {}],
    ["to be done now", {}, { atOnce: true }],
  ])("the heading: %s", (words, change, rest) => expect(wordsOf(show(change, rest))).toContain(`Pump A: ${words}`));
  test("the proposed stop is chosen; none in time, none is", () => {
    expect(show()).toMatch(/value="1"[^>]*checked=""|checked=""[^>]*value="1"/);
    expect(show({ proposed: null })).not.toMatch(/checked=""/);
    expect(show({ stops: [], proposed: null })).toMatch(/name="stopId"[^>]*checked=""/);
  });
  test("no stop in time: when the part is there, at what chance, and which is the least bad", () => {
    const words = wordsOf(show({ proposed: null, leastBad: "1", beforePart: 0.08 }));
    expect(words).toMatch(/A part ordered today is there on 2\sFeb/);
    expect(words).toContain("an 8 % chance of the limit being reached before");
    expect(words).toMatch(/The Stop 1 on 23\sJan is the least bad option/);
    expect(
      wordsOf(
        show({ proposed: null, leastBad: "own", beforePart: 0.5, part: { leadTimeDays: 70, orderedOn: "2026-11-01" } }),
      ),
    ).toContain("The part is there on");
  });
  test("beyond its limit: no chance is told of what has happened, and no day of a part whose lead time nobody knows", () => {
    const part = { leadTimeDays: null, orderedOn: null };
    const words = wordsOf(show({ stops: [], proposed: null, leastBad: "own", beyond: true, beforePart: 1, part }));
    expect(words).toContain("It is beyond its limit now");
    expect(words).toContain("Pump A: beyond its limit now");
    const late = wordsOf(show({ beyond: true, leastBad: "1", proposed: null, stops: [stop("1", false)] }));
    expect(late).not.toContain("of the limit before");
    expect(words).toContain("How long its part takes is not on record");
    expect(words).not.toMatch(/chance of the limit|A part ordered today/);
  });
  test("a full crew is marked; what is booked already is said, and another piece asks for a tick", () => {
    expect(show({ stops: [stop("1", false, { bookedHours: 24 })] })).toContain('<span class="text-ochre">24');
    const html = show({ open: [{ id: "w", kind: "repair", by: "L. Aske", stop: null }] });
    expect(wordsOf(html)).toContain("Booked already: repair (L. Aske)");
    expect(html).toContain('name="again"');
    expect(show()).not.toContain('name="again"');
  });
  test("a refusal of the stop stands at the stops", () =>
    expect(wordsOf(show({}, {}, { problems: { stopId: "Choose a stop, or a stop of its own." } }))).toContain(
      "Choose a stop, or a stop of its own.",
    ));
});

describe("carrying it out and signing it", () => {
  const work = (change: object = {}) => ({
    id: "w1",
    componentId: "c1",
    version: 1,
    doneAt: new Date(at(-1)),
    signedAt: null,
    signedBy: null,
    signedById: null,
    checkedAt: null,
    checkedBy: null,
    cancelledAt: null,
    interim: false,
    lookAgainOn: null,
    lookedAgainAt: null,
    unprovenBecause: "",
    parts: "",
    settingsLeft: "",
    openPoints: "",
    people: "",
    ...change,
  });
  const whole = (change: object = {}, own: object = {}) =>
    ({
      work: work(own),
      runs: [],
      procedures: [],
      findings: [],
      debris: null,
      altered: [],
      against: [],
      twoSignatures: false,
      proven: true,
      circuitId: "k1",
      fromSteps: { serial: "", settingsLeft: "", doneAt: null, hours: null },
      ...change,
    }) as unknown as InterventionPage;
  const carry = (given: InterventionPage, mayWork = true) =>
    rendered(<CarryOut page={given} mayWork={mayWork} submission="s" />);
  const sign = (given: InterventionPage, maySign = true, me = "me") =>
    rendered(<Signing page={given} problems={undefined} maySign={maySign} submission="s" me={me} />);
  test("no procedure is begun, and none is written for this kind", () => {
    const words = wordsOf(carry(whole()));
    expect(words).toContain("None is begun. A procedure leads step by step, and the record is made while it is done.");
    expect(words).toContain("No procedure is written for this kind of part.");
    expect(carry(whole({ procedures: [{ id: "p", title: "Replace it", copyId: null }] }), false)).not.toContain(
      "Begin it",
    );
  });
  test("a copy of the plant's own says whose it is; what was begun is not offered again", () => {
    const copy = { id: "p", title: "Replace it", copyId: "c9", machine: null, version: 3 };
    expect(wordsOf(carry(whole({ procedures: [copy] })))).toContain("Replace it (the plant’s own, version 3)");
    const step = { step: { id: "a", text: "Prove zero" } };
    const run = {
      id: "r",
      procedure: { id: "p", title: "Replace it" },
      startedAt: at(-1),
      startedBy: "T. Wren",
      version: 0,
      stand: { closed: 1, steps: [step, step], next: "a", held: "a", skippedHolds: ["x"] },
    };
    const html = carry(whole({ procedures: [copy], runs: [run] }));
    expect(html).not.toContain("Begin it");
    expect(wordsOf(html)).toContain("1 of 2 steps");
    expect(wordsOf(html)).toContain("1 hold point skipped");
    expect(wordsOf(html)).toContain("stands at the hold point “Prove zero”");
  });
  test("debris found leads to its event, filled in, or to the one that is open", () => {
    const found = { findings: [{ id: "f" }], debris: { what: "Bronze", eventId: null } };
    expect(carry(whole(found))).toContain("/oil/k1/debris?what=Bronze&amp;part=c1");
    expect(wordsOf(carry(whole(found)))).toContain("1 finding written down");
    expect(carry(whole({ ...found, debris: { what: "Bronze", eventId: "e1" } }))).toContain('href="/oil/debris/e1"');
  });
  test("what speaks against signing is listed and bars it; without a proof why is asked", () => {
    const html = sign(whole({ against: ["A step is open"], proven: null }));
    expect(wordsOf(html)).toContain("A step is open.");
    expect(html).toMatch(/value="sign"[^>]*disabled=""|disabled=""[^>]*value="sign"/);
    expect(wordsOf(html)).toContain("No reading since proves it. Why it is signed all the same");
    expect(wordsOf(sign(whole({ proven: false })))).toContain(
      "The readings since do not prove it. Why it is signed all the same",
    );
    expect(sign(whole())).not.toContain("unprovenBecause");
    expect(wordsOf(sign(whole(), false))).toContain("An engineer signs it.");
  });
  test("what stays altered is accepted one by one, by an engineer", () => {
    const altered = [
      { id: "a", what: "Relief backed out", acceptedAt: null, acceptedBy: null },
      { id: "b", what: "Case line open", acceptedAt: at(-1), acceptedBy: "L. Aske" },
    ];
    const html = sign(whole({ altered }));
    expect(html.match(/Accept that it stays: /g)).toHaveLength(1);
    expect(wordsOf(html)).toContain("accepted by L. Aske");
    expect(sign(whole({ altered }), false)).not.toContain("Accept that it stays");
  });
  test("signed: a second person checks, never the one who signed; a stop-gap is looked at again", () => {
    const signed = { signedAt: new Date(at(-1)), signedBy: "R. Oduya", signedById: "me" };
    expect(wordsOf(sign(whole({ twoSignatures: true }, signed)))).toContain("A second person is still to check it.");
    expect(sign(whole({ twoSignatures: true }, signed))).not.toContain("Checked: sign as the second person");
    expect(sign(whole({ twoSignatures: true }, signed), true, "other")).toContain("Checked: sign as the second person");
    expect(sign(whole({}, { ...signed, interim: true }))).toContain("Looked at: it holds, look again on");
    expect(wordsOf(sign(whole({}, { ...signed, unprovenBecause: "no gauge" })))).toContain("not proven: no gauge");
  });
  test("what was kept of the write-up is said; what steps hold already stands in it", () => {
    expect(wordsOf(rendered(<WriteUp page={whole()} problems={undefined} kept />))).toContain("Kept.");
    const held = { serial: "N 4", settingsLeft: "Relief 205 bar", doneAt: null };
    expect(rendered(<WriteUp page={whole({ fromSteps: held })} problems={undefined} kept={false} />)).toContain(
      "Relief 205 bar",
    );
    expect(
      wordsOf(rendered(<WriteUp page={whole()} problems={{ lookAgainOn: "A stop-gap has a day." }} kept={false} />)),
    ).toContain("A stop-gap has a day.");
  });
});
