/** A point's table, forecast and limit in states that a walk seldom meets. */
import { DAY } from "@core";
import type { PointPage } from "~/domain/readings/pointPage.server";
import { rendered, renderedPage as page, TEST_NOW, wordsOf } from "~/ui/testing";
import { ForecastSection } from "./forecastSection";
import LimitScreen from "./limit";
import { ReadingTable } from "./table";

type Row = PointPage["table"][number];

const row = (change: Partial<Row> = {}): Row =>
  ({
    id: "r1",
    at: TEST_NOW - DAY,
    raw: 4.2,
    least: null,
    temperature: 52,
    pressure: 205,
    noted: 900,
    corrected: 4,
    by: "T. Wren",
    instrument: "G-1",
    mark: null,
    keptBecause: "",
    note: "",
    ...change,
  }) as unknown as Row;
const table = (rows: Row[], change: object = {}, mayCorrect = true) =>
  rendered(
    <ReadingTable
      data={
        {
          place: { id: "p1" },
          detail: { correction: {} },
          unit: "L/min",
          quantity: "caseDrainFlow",
          fullFlow: 65.25,
          table: rows,
          total: { count: rows.length, over: false },
          rowsAtOnce: 30,
          page: 0,
          ...change,
        } as unknown as PointPage
      }
      mayCorrect={mayCorrect}
    />,
  );

describe("the table of readings", () => {
  test("as read, corrected, and as a share of full flow", () => {
    const words = wordsOf(table([row()]));
    expect(words).toMatch(/4\.2\d*\sL\/min/);
    // 4 of 65.25 L/min
    expect(words).toContain("6.1 %");
  });
  test("without a correction there is no such column, nor a share", () => {
    const words = wordsOf(table([row()], { detail: null }));
    expect(words).not.toContain("corrected");
    expect(words).not.toContain("share");
  });
  test("conditions that were not noted are dashes, and say so by their mark", () => {
    const words = wordsOf(table([row({ temperature: null, pressure: null, noted: null, mark: "noConditions" })]));
    expect(words).toMatch(/– – –/);
    expect(words).toContain("oil or load not noted");
  });
  test.each([
    ["outlier", "outlier, counts less"],
    ["unconfirmed", "until a second reading confirms it"],
    ["recalled", "instrument recalled, not used"],
    ["doubtful", "marked doubtful"],
    ["offCondition", "outside the learned range"],
  ] as const)("a reading marked %s says what that means", (mark, words) =>
    expect(wordsOf(table([row({ mark })]))).toContain(words),
  );
  test("over a cycle both ends are shown, at one value only one", () => {
    expect(wordsOf(table([row({ least: 2 })]))).toMatch(/2\.0\d*\sL\/min to 4\.2/);
    expect(wordsOf(table([row({ least: 4.2 })]))).not.toContain(" to 4.2");
  });
  test("why it was kept, and its note", () => {
    const words = wordsOf(table([row({ keptBecause: "read twice", note: "relief was warm" })]));
    expect(words).toContain("kept: read twice");
    expect(words).toContain("relief was warm");
  });
  test("who may not correct has no link to it", () => {
    expect(table([row()])).toContain("/points/p1/readings/r1");
    expect(table([row()], {}, false)).not.toContain("/readings/");
  });
  test("pages: the first has no newer, the last no older, more than counted says so", () => {
    const at = (n: number, over = false) => table([row()], { page: n, total: { count: 90, over } });
    expect(wordsOf(at(0))).toMatch(/page 1 of 3 older$/);
    expect(wordsOf(at(1))).toMatch(/newer page 2 of 3 older$/);
    expect(wordsOf(at(2))).toMatch(/newer page 3 of 3$/);
    expect(wordsOf(at(0, true))).toContain("of more than 3");
  });
});

describe("the forecast beside the trend", () => {
  const forecast = (change: object = {}) => ({
    hours: { p10: 800, p50: 1900, p90: null },
    dates: { p10: TEST_NOW + 60 * DAY, p50: TEST_NOW + 150 * DAY, p90: null },
    beforeStops: [
      { stopId: "a", at: TEST_NOW + 55 * DAY, probability: 0.004 },
      { stopId: "b", at: TEST_NOW + 170 * DAY, probability: 0.52 },
      { stopId: "c", at: TEST_NOW + 900 * DAY, probability: 0.999 },
    ],
    paths: [
      { id: "linear", share: 0.7 },
      { id: "power", share: 0.1 },
    ],
    like: null,
    change: { probability: 0.1, at: null },
    ...change,
  });
  const show = (given: object | null, noTrend: object | null = null, moved: object | null = null) =>
    rendered(
      <ForecastSection
        detail={{ forecast: given, noTrend, memory: { moved } } as unknown as NonNullable<PointPage["detail"]>}
      />,
    );
  test("none is nothing shown", () => expect(show(null)).toBe(""));
  test("a late end beyond the horizon says so, chances are never nothing and never all", () => {
    const words = wordsOf(show(forecast()));
    expect(words).toContain("beyond the horizon");
    expect(words).toMatch(/18\sJan < 1|&lt; 1/);
    expect(words).toContain("52");
    expect(words).toMatch(/(>|&gt;) 99/);
  });
  test("only models that have a say are named", () => {
    const words = wordsOf(show(forecast()));
    expect(words).toContain("70 %");
    expect(words).not.toContain("10 %");
  });
  test("without a proved trend no date is given, at most the earliest plausible", () => {
    expect(wordsOf(show(forecast(), { earliest: Date.UTC(2027, 5, 1) }))).toContain(
      "the earliest plausible is June 2027",
    );
    const words = wordsOf(show(forecast(), { earliest: null }));
    expect(words).toContain("No trend is proved, so no date is given");
    expect(words).not.toContain("P10");
  });
  test("a date that moved without a reading says from where, and every reason", () => {
    const moved = { toldAt: TEST_NOW - 3 * DAY, from: TEST_NOW + 90 * DAY, to: null, because: ["peers", "oil"] };
    const words = wordsOf(show(forecast(), null, moved));
    expect(words).toContain("to beyond the horizon without a new reading");
    expect(words).toContain("its peers tell something else since; its oil was sampled or changed");
    expect(wordsOf(show(forecast()))).not.toContain("P50 moved");
  });
  test("whether its peers still say something, and when the rate changed", () => {
    expect(wordsOf(show(forecast({ like: 0.8 })))).toContain("Like its peers: 80 %.");
    expect(wordsOf(show(forecast({ like: 0.2 })))).toContain("they hardly count (20 %)");
    expect(wordsOf(show(forecast({ change: { probability: 0.9, at: Date.UTC(2026, 2, 3) } })))).toContain(
      "changed about March 2026",
    );
  });
});

describe("changing a limit", () => {
  type Limit = Parameters<typeof LimitScreen>[0]["loaderData"];
  const show = (change: object = {}, action?: unknown) =>
    page(
      LimitScreen,
      {
        place: { id: "p1", machine: "Ramp", machineId: "m", component: "Pump", name: "Case drain" },
        quantity: "caseDrainFlow",
        unit: "gal/min",
        basis: "absolute",
        upper: 7.570823568,
        lower: null,
        reason: "",
        version: 3,
        ...change,
      } as unknown as Limit,
      action,
    );
  test("is shown in the reader's unit, a share as it is", () => {
    expect(show()).toMatch(/name="upper"[^>]*value="2 gal\/min"/);
    expect(show({ basis: "shareOfFullFlow", upper: 10 })).toMatch(/name="upper"[^>]*value="10"/);
  });
  test("a share of full flow is offered for a flow alone", () => {
    expect(show()).toContain('value="shareOfFullFlow"');
    expect(show({ quantity: "pressure", unit: "bar" })).not.toContain('value="shareOfFullFlow"');
  });
  test("somebody else's limit is shown, and saving again stands on it", () => {
    const theirs = { by: "L. Aske", at: TEST_NOW, basis: "absolute", upper: 3.785411784, lower: null, version: 9 };
    const html = show({}, { problems: { form: "Changed." }, theirs });
    expect(wordsOf(html)).toMatch(/L\. Aske set absolute: upper 1 gal\/min, 24\sNov, 09:00/);
    expect(html).toMatch(/name="version" value="9"/);
  });
  test("a limit beyond today's level is asked about, with a box to say yes", () => {
    const html = show({}, { problems: {}, question: "It reads about 4 today." });
    expect(wordsOf(html)).toContain("It reads about 4 today.");
    expect(html).toContain('name="beyond"');
    expect(show()).not.toContain('name="beyond"');
  });
});
