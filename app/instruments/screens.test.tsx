/** Screens of instruments: what the heading finds, what each role may do, and refusals beside the form that they belong to. */
import { DAY } from "@core";
import { renderedPage as page, TEST_NOW, wordsOf } from "~/ui/testing";
import InstrumentScreen from "./instrument";
import InstrumentsScreen from "./instruments";

type One = Parameters<typeof InstrumentScreen>[0]["loaderData"];
type List = Parameters<typeof InstrumentsScreen>[0]["loaderData"];

const instrument = {
  id: "i1",
  tag: "G-1",
  name: "Gauge",
  quantity: "pressure",
  principle: "gauge",
  fullScale: 400,
  accuracyClass: 0.6,
  note: "",
  retiredAt: null,
};
const one = (change: object = {}, roles: object = {}, action?: unknown) =>
  page(
    InstrumentScreen,
    {
      page: {
        instrument,
        due: "good",
        lastGood: TEST_NOW - 30 * DAY,
        inDoubt: { from: TEST_NOW - 60 * DAY, until: TEST_NOW },
        failedUnrecalled: false,
        now: TEST_NOW,
        readings: 12,
        points: 3,
        checks: [],
        recalls: [],
        ...change,
      },
      submission: "s",
      mayCheck: true,
      mayEdit: true,
      said: null,
      ...roles,
    } as unknown as One,
    action,
  );

describe("an instrument", () => {
  test.each([
    [{ due: "good" }, "is in calibration"],
    [{ due: "soon" }, "is due for calibration within a month"],
    [{ due: "out" }, "is out of calibration"],
    [{ due: "never" }, "was never calibrated"],
    [{ due: "good", failedUnrecalled: true }, "failed a check, and what it read before is not recalled"],
  ])("%j: the heading says %s", (change, words) => expect(wordsOf(one(change))).toContain(`G-1, Gauge, ${words}`));
  test("one reading at one point in the singular", () =>
    expect(wordsOf(one({ readings: 1, points: 1 }))).toContain("1 reading at 1 point."));
  test("never checked, it says how an instrument is checked", () => {
    expect(wordsOf(one({ lastGood: null }))).toContain("none good yet");
    expect(wordsOf(one())).toContain(
      "No check yet. Check two values before use, each against its stated value: a dropped gauge shows at once.",
    );
  });
  test("a check with what it read, its certificate, and that it failed", () => {
    const check = {
      id: "c",
      at: TEST_NOW,
      kind: "calibration",
      by: "T. Wren",
      note: "dropped",
      certificate: "K-17",
      passed: false,
      points: [{ stated: 100, read: 112 }],
    };
    const words = wordsOf(one({ checks: [check] }));
    expect(words).toMatch(/Failed , calibration, 24\sNov, 09:00, T\. Wren, certificate K-17/);
    expect(words).toMatch(/100\.?0*\sbar read 112\.?0*\sbar\. dropped/);
  });
  test("how far off it may be stands beside the field: 0.6 % of 400 bar", () =>
    expect(wordsOf(one())).toMatch(/Passes within ± 2\.4\sbar/));
  test("who looks has no form, a technician checks, an engineer recalls", () => {
    expect(one({}, { mayCheck: false, mayEdit: false })).not.toContain("<form");
    const technician = one({}, { mayEdit: false });
    expect(technician).toContain("Record the check");
    expect(technician).not.toContain("Recall its readings");
    expect(one()).toContain("Recall its readings");
  });
  test("a retired one is not checked any more", () =>
    expect(one({ instrument: { ...instrument, retiredAt: new Date(TEST_NOW) } })).not.toContain("Record the check"));
  test("a recall that was withdrawn is struck through, with who and why, and cannot be withdrawn again", () => {
    const recall = {
      id: "r",
      from: TEST_NOW - 60 * DAY,
      until: TEST_NOW,
      reason: "Reads 12 % high",
      readings: 1,
      by: "R. Oduya",
      withdrawnBy: null,
      withdrawnWhy: null,
    };
    expect(wordsOf(one({ recalls: [recall] }))).toMatch(
      /1 reading from 25\sSep to 24\sNov : Reads 12 % high|1 reading from 25\sSep to 24\sNov: Reads 12 % high/,
    );
    expect(one({ recalls: [recall] })).toContain("Withdraw the recall");
    const html = one({ recalls: [{ ...recall, withdrawnBy: "L. Aske", withdrawnWhy: "bench was wrong" }] });
    expect(html).toContain("line-through");
    expect(html).not.toContain("Withdraw the recall");
    expect(wordsOf(html)).toContain("Withdrawn by L. Aske: bench was wrong");
  });
  test.each([
    ["passed", "Check recorded: passed."],
    ["failed", "recall it below"],
    ["believed", "Its readings count again"],
    ["recalled", "kept and marked, but no longer used"],
  ])("after %s it says so", (said, words) => expect(wordsOf(one({}, { said }))).toContain(words));
  test("a technician who recorded a failed check is told who can recall it", () =>
    expect(wordsOf(one({}, { said: "failed", mayEdit: false }))).toContain("; an engineer can recall it"));
  test("a refusal stands in its own form, not in the other one", () => {
    const html = one({}, {}, { problems: { points: "Line 1: both must be numbers." }, form: "check" });
    expect(html.match(/Line 1: both must be numbers\./g)).toHaveLength(1);
    const recall = one({}, {}, { problems: { reason: "Say what was found." }, form: "recall" });
    expect(recall.indexOf("Say what was found.")).toBeGreaterThan(recall.indexOf("Found out of calibration"));
  });
});

describe("the register", () => {
  const list = (rows: object[], mayEdit = true) => page(InstrumentsScreen, { list: rows, mayEdit } as unknown as List);
  const row = (change: object = {}) => ({
    ...instrument,
    due: "good",
    calibrationDueAt: TEST_NOW + 90 * DAY,
    readings: 4,
    ...change,
  });
  test("none yet: who adds the first one", () => {
    expect(wordsOf(list([]))).toContain("Add the first one.");
    expect(wordsOf(list([], false))).toContain("An engineer adds the first one.");
  });
  test("all valid, or how many are not; a retired one counts for neither", () => {
    expect(wordsOf(list([row()]))).toContain("Every instrument is in calibration");
    expect(wordsOf(list([row(), row({ id: "b", due: "out" })]))).toContain("1 of 2 instruments is out of calibration");
    const retired = list([row(), row({ id: "b", due: "out", retiredAt: new Date(TEST_NOW) })]);
    expect(wordsOf(retired)).toContain("Every instrument is in calibration");
    expect(wordsOf(retired)).toContain("Gauge (retired)");
  });
});
