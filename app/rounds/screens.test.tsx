/** Screens of rounds: empty, late, by hours, by role, and what a tablet could not send. */
import { DAY } from "@core";
import { rendered, renderedPage as page, TEST_NOW, wordsOf } from "~/ui/testing";
import RoundScreen from "./round";
import RoundsScreen from "./rounds";
import SheetScreen from "./sheet";
import { WalkEnd } from "./walkEnd";

type List = Parameters<typeof RoundsScreen>[0]["loaderData"];
type One = Parameters<typeof RoundScreen>[0]["loaderData"];
type Sheet = Parameters<typeof SheetScreen>[0]["loaderData"];

const roles = { mayWalk: true, mayEdit: true };
const line = (change: object = {}) => ({
  id: "r1",
  name: "North side",
  walkedBy: "",
  points: 4,
  due: 0,
  late: 0,
  dueAt: TEST_NOW + 3 * DAY,
  intervalDays: 30,
  intervalHours: null,
  closer: 0,
  ...change,
});
const list = (rows: object[], change: object = {}) =>
  page(RoundsScreen, { list: rows, ...roles, ...change } as unknown as List);

describe("all rounds", () => {
  test("none yet: an engineer begins, others are told who does", () => {
    expect(list([])).toContain('href="/rounds/new"');
    expect(wordsOf(list([], { mayEdit: false }))).toContain("An engineer adds the first one.");
  });
  test.each([
    [0, "No round is late"],
    [1, "One round is late"],
    [5, "Five rounds are late"],
    [6, "6 rounds are late"],
  ])("%i late", (late, words) => {
    const rows = Array.from({ length: 6 }, (_, i) =>
      line({ id: `r${i}`, late: i < late ? 2 : 0, due: i < late ? 2 : 0 }),
    );
    expect(wordsOf(list(rows))).toContain(words);
  });
  test("by days or by running hours, closer ones, one point in the singular", () => {
    expect(wordsOf(list([line()]))).toContain("4 points, every 30 days");
    expect(wordsOf(list([line({ intervalHours: 250, points: 1 })]))).toContain("1 point, every 250 running hours");
    expect(wordsOf(list([line({ closer: 2, walkedBy: "T. Wren" })]))).toContain(
      "2 read more often near their limit, T. Wren",
    );
  });
  test("a round without points is not walked, nor by who only looks", () => {
    expect(list([line({ points: 0, dueAt: null })])).not.toContain("/walk");
    expect(wordsOf(list([line({ points: 0, dueAt: null })]))).toContain("no points");
    expect(list([line()], { mayWalk: false })).not.toContain("/walk");
    expect(list([line()])).toContain("/rounds/r1/walk");
  });
});

const point = (change: object = {}) => ({
  id: "p1",
  name: "Case drain",
  machine: "Outer gate",
  machineId: "m1",
  circuit: "Gate",
  circuitId: "k1",
  component: "Pump A",
  componentId: "c1",
  quantity: "caseDrainFlow",
  unit: "L/min",
  readState: "fullStroke",
  conditions: "",
  instrument: null,
  caution: "Never plug a case drain.",
  fluid: { kv40: 46, kv100: 6.8, density15: 875 },
  expectation: null,
  state: "alert",
  last: { raw: 4.2, at: TEST_NOW - 40 * DAY, temperature: 50, hours: 900 },
  timeZone: "Europe/London",
  needsConditions: true,
  isOilTemperature: false,
  dueAt: TEST_NOW - 10 * DAY,
  everyDays: 15,
  closer: true,
  ...change,
});

describe("one round", () => {
  const one = (points: object[], change: object = {}, round: object = {}) =>
    page(RoundScreen, {
      alsoDue: [],
      round: { id: "r1", name: "North side", walkedBy: "T. Wren", retired: false, ...round },
      points,
      ...roles,
      ...change,
    } as unknown as One);
  test("no points: an engineer chooses them", () => {
    expect(wordsOf(one([]))).toContain("North side has no points");
    expect(one([])).toContain("/rounds/r1/edit");
    expect(wordsOf(one([], { mayEdit: false }))).toContain("An engineer chooses its points.");
  });
  test("late ones are counted; each machine is named once on the way", () => {
    const words = wordsOf(
      one([
        point(),
        point({ id: "p2", name: "Case pressure", dueAt: TEST_NOW + DAY }),
        point({ id: "p3", machineId: "m2", machine: "Ramp" }),
      ]),
    );
    expect(words).toContain("2 of 3 points are late");
    expect(words.match(/Outer gate/g)).toHaveLength(1);
    expect(words).toContain("10 days late");
  });
  test("never read says so; which instrument fits is one press away", () => {
    const html = one([point({ last: null })]);
    expect(wordsOf(html)).toContain("none");
    expect(html).toContain('href="/instruments/fit/p1"');
    expect(one([point({ instrument: { id: "i1", tag: "G-1", name: "Gauge" } })])).toContain('href="/instruments/i1"');
  });
  test("a retired round says so and is not walked", () => {
    const html = one([point()], {}, { retired: true });
    expect(wordsOf(html)).toContain("Retired.");
    expect(html).not.toContain("/walk");
  });
  test("what else is due at its machines stands above the points", () => {
    const due = {
      kind: "exercise",
      id: "v",
      machineId: "m1",
      what: "Outer gate, valve",
      why: "seldom moves",
      dueAt: TEST_NOW,
      to: "/work/due",
    };
    const html = one([point()], { alsoDue: [due] });
    expect(html.indexOf("Outer gate, valve")).toBeLessThan(html.indexOf("on the way"));
  });
  test("on paper there is a line for each point, with its state and where the last value stood", () => {
    const words = wordsOf(
      page(SheetScreen, {
        round: { id: "r1", name: "North side" },
        points: [point(), point({ id: "p2", name: "Case pressure", last: null })],
      } as unknown as Sheet),
    );
    expect(words).toContain("North side");
    expect(words).toContain("Case drain");
    expect(words).toContain("Case pressure");
  });
});

describe("the end of a walk", () => {
  const outbox = (change: object = {}) =>
    ({
      items: [],
      waiting: [],
      troubles: [],
      network: "online",
      send: () => Promise.resolve(),
      ...change,
    }) as unknown as Parameters<typeof WalkEnd>[0]["outbox"];
  const end = (done: Record<string, string>, given: object = {}) =>
    rendered(
      <WalkEnd
        round={{ id: "r1" }}
        points={
          [point(), point({ id: "p2", name: "Case pressure" })] as unknown as Parameters<typeof WalkEnd>[0]["points"]
        }
        walk={{ done } as unknown as Parameters<typeof WalkEnd>[0]["walk"]}
        outbox={outbox(given)}
        onGo={() => undefined}
        onAgain={() => undefined}
      />,
    );
  const kept = (change: object) => ({
    kind: "reading",
    submission: "s1",
    roundId: "r1",
    pointId: "p1",
    at: TEST_NOW,
    fields: { value: "4.4", takenAt: "2026-11-24T08:10" },
    ...change,
  });
  test("all read and sent", () => {
    const words = wordsOf(end({ p1: "read", p2: "read" }));
    expect(words).toContain("Walked, and all of it is sent");
    expect(words).toContain("2 read, of 2.");
    expect(words).not.toContain("Not dealt with");
  });
  test("passed over, and left: what was not dealt with can be gone to", () => {
    const words = wordsOf(end({ p1: "skipped" }));
    expect(words).toContain("0 read, 1 passed over, of 2.");
    expect(words).toContain("Not dealt with Outer gate, Pump A: Case pressure");
  });
  test("without a network what is kept stays on the tablet and says when it goes", () => {
    const words = wordsOf(end({ p1: "read" }, { waiting: [kept({})], network: "noNetwork" }));
    expect(words).toContain("Walked; 1 still kept on this tablet");
    expect(words).toContain(
      "They are sent when the network is back, from this page or any other of Juncteral that is open.",
    );
  });
  test("what the server refused is put right in the very field that it named", () => {
    const refused = kept({ problem: { fate: "refused", field: "takenAt", message: "That is in the future." } });
    const html = end({ p1: "read" }, { items: [refused] });
    expect(wordsOf(html)).toContain("1 entry needs you");
    expect(wordsOf(html)).toContain("That is in the future.");
    expect(html).toMatch(/type="datetime-local"[^>]*value="2026-11-24T08:10"/);
    expect(wordsOf(html)).toContain("Discard");
  });
  test("a conflict keeps theirs, and a point that is gone is called so", () => {
    const conflict = kept({
      pointId: "gone",
      problem: { fate: "conflict", field: "takenAt", message: "There is already a reading." },
    });
    const words = wordsOf(
      end(
        {},
        {
          items: [
            conflict,
            kept({ kind: "photo", submission: "s2", problem: { fate: "refused", message: "No picture." } }),
          ],
        },
      ),
    );
    expect(words).toContain("2 entries need you");
    expect(words).toContain("A point that is gone, 4.4");
    expect(words).toContain("Keep theirs");
    expect(words).toContain(", a photograph");
  });
});
