/** Screens of tests: what is still altered, a record beside the one before it, and by role. */
import { DAY } from "@core";
import { renderedPage as page, TEST_NOW, wordsOf } from "~/ui/testing";
import RecordScreen from "./record";
import TestsScreen from "./tests";

type Tests = Parameters<typeof TestsScreen>[0]["loaderData"];
type Record_ = Parameters<typeof RecordScreen>[0]["loaderData"];

describe("tests", () => {
  const change = {
    id: "a",
    machine: "Ramp",
    machineId: "m",
    component: null,
    what: "Relief backed out",
    before: "",
    at: TEST_NOW - DAY,
    by: "T. Wren",
  };
  const show = (given: object = {}) =>
    page(TestsScreen, {
      tests: [{ id: "load-test", title: "Load test", asks: "Is it worn?", own: false, kinds: [] }],
      changes: [],
      records: [],
      mayRecord: true,
      mayEdit: true,
      ...given,
    } as unknown as Tests);
  test("nothing altered, nothing made: both are said", () => {
    expect(wordsOf(show())).toContain("Nothing is altered for a test");
    expect(wordsOf(show())).toContain("No test yet.");
  });
  test("one change in the singular, several not; only who works puts it back", () => {
    expect(wordsOf(show({ changes: [change] }))).toContain("1 temporary change is not put back");
    expect(wordsOf(show({ changes: [change, { ...change, id: "b" }] }))).toContain(
      "2 temporary changes are not put back",
    );
    expect(show({ changes: [change] })).toContain("It is put back");
    expect(show({ changes: [change], mayRecord: false })).not.toContain("It is put back");
  });
  test("how it stood is said where somebody wrote it down", () => {
    expect(wordsOf(show({ changes: [{ ...change, before: "210 bar" }] }))).toContain("Relief backed out , was 210 bar");
    expect(wordsOf(show({ changes: [change] }))).not.toContain(", was");
  });
  test("a record of a test that the plant took out of use is still a test", () => {
    const record = {
      id: "r",
      test: "gone",
      machine: "Ramp",
      component: "Pump",
      at: TEST_NOW,
      answer: [{ text: "Good." }],
      tone: "good",
      by: "T. Wren",
    };
    expect(wordsOf(show({ records: [record] }))).toMatch(/A test , Ramp, Pump, 24\sNov Good\./);
  });
  test("an engineer adds one of the plant's own", () => {
    expect(show()).toContain('href="/tests/new"');
    expect(show({ mayEdit: false })).not.toContain('href="/tests/new"');
  });
});

describe("a record", () => {
  const outcome = (value: number) => ({
    answer: [{ text: "In the band." }],
    tone: "good",
    working: { formula: "p", source: "Practice.", rows: [{ label: "pressure", value, quantity: "loadPressure" }] },
  });
  const show = (before: object | null, change: object = {}) =>
    page(RecordScreen, {
      title: "Shut-in pressure",
      compares: "pressure",
      fields: { pressure: "Pressure reached", low: "Band from" },
      componentId: "c1",
      component: "Pump",
      circuitId: "k1",
      machine: "Ramp",
      machineId: "m1",
      test: "shut-in",
      at: TEST_NOW,
      by: "T. Wren",
      note: "",
      typed: { pressure: "205 bar", low: " " },
      outcome: outcome(205),
      before,
      mayIsolate: true,
      ...change,
    } as unknown as Record_);
  test("the first of its kind has nothing to stand beside", () => {
    expect(wordsOf(show(null))).toContain("The first of its kind on this component.");
    expect(wordsOf(show(null))).not.toContain("times)");
  });
  test("beside the one before it: both figures and how many times", () => {
    const words = wordsOf(show({ at: TEST_NOW - 90 * DAY, by: "L. Aske", outcome: outcome(164) }));
    expect(words).toMatch(/pressure: 205\sbar , was 164\sbar \(1\.25 times\)/);
    expect(words).toMatch(/26\sAug, 10:00, L\. Aske: In the band\./);
  });
  test("from nothing there is no ratio", () =>
    expect(wordsOf(show({ at: TEST_NOW - DAY, by: "L. Aske", outcome: outcome(0) }))).not.toContain("times)"));
  test("what was typed, without empty fields; who may isolates the fault behind it", () => {
    const html = show(null);
    expect(wordsOf(html)).toContain("Pressure reached 205 bar");
    expect(wordsOf(html)).not.toContain("Band from");
    expect(html).toContain("/isolate/new?circuit=k1");
    expect(show(null, { mayIsolate: false })).not.toContain("/isolate/new");
  });
});
