/** What calculations of trends, changes and lives say, case by case. */
import { outcomeOf, problemsOf, rowOf, textOf } from "./testing";

const lines = (values: readonly number[]) => values.join("\n");
const timed = (values: readonly number[]) => values.map((v, i) => `${i} ${v}`).join("\n");

describe("trend", () => {
  test("rises, falls, and what is not proved", () => {
    expect(textOf(outcomeOf("trend", { series: timed([1, 2, 3, 4, 5, 6]) }))).toMatch(/^It rises by 1/);
    expect(textOf(outcomeOf("trend", { series: timed([6, 5, 4, 3, 2, 1]) }))).toMatch(/^It falls by 1/);
    expect(textOf(outcomeOf("trend", { series: timed([2, 1, 2, 1, 2, 1]) }))).toMatch(/^No trend is proved/);
  });
  test("one wild value does not bend the line: Theil-Sen", () =>
    expect(rowOf(outcomeOf("trend", { series: timed([1, 2, 3, 40, 5, 6, 7]) }), "slope")).toBeCloseTo(1, 9));
  test("readings at one and the same time have no slope", () =>
    expect(problemsOf("trend", { series: "1 1\n1 2\n1 3\n1 4" }).form).toBeTruthy());
});

describe("change by CUSUM", () => {
  test("up and down are told apart, and since when", () => {
    const base = [10, 10.1, 9.9, 10, 10.1, 9.9, 10, 10.1, 9.9, 10];
    const up = textOf(outcomeOf("cusum", { values: lines([...base, 10.6, 10.6, 10.7, 10.6, 10.7]) }));
    expect(up).toMatch(/^It moved up after value 10, seen at value 1[1-4]\./);
    const down = textOf(outcomeOf("cusum", { values: lines([...base, 9.4, 9.4, 9.3, 9.4, 9.3]) }));
    expect(down).toMatch(/^It moved down after value 10/);
  });
  test("what stays says that nothing changed, and how often it would cry wolf", () => {
    const outcome = outcomeOf("cusum", {
      values: lines([10, 10.1, 9.9, 10, 10.1, 9.9, 10, 10.1, 9.9, 10, 10, 10.1, 9.9, 10.1]),
    });
    expect(outcome.tone).toBe("good");
    expect(textOf(outcome)).toMatch(/^No change\./);
    expect(outcome.notes![0]).toMatch(/since the baseline has only 10 values/);
  });
  test("a target and a sigma of one's own need no baseline", () => {
    const outcome = outcomeOf("cusum", { target: "10", sigma: "0.2" });
    expect(rowOf(outcome, "target")).toBe(10);
    expect(outcome.notes![0]).not.toContain("baseline");
  });
  test.each(["cusum", "ewma"])("%s: a baseline that does not vary is no measure", (id) =>
    expect(problemsOf(id, { values: lines(Array.from({ length: 14 }, () => 5)) }).form).toMatch(/does not vary/),
  );
});

describe("change by EWMA", () => {
  test("within and out of its limits", () => {
    const steady = [10, 10.1, 9.9, 10, 10.1, 9.9, 10, 10.1, 9.9, 10];
    expect(outcomeOf("ewma", { values: lines(steady) })).toMatchObject({ tone: "good" });
    const outcome = outcomeOf("ewma", { values: lines([...steady, 12, 12, 12]) });
    expect(textOf(outcome)).toMatch(/^It left its limits at value 1[1-3]\./);
  });
});

describe("step or drift", () => {
  test("a step names its moment and asks what was done that day", () => {
    const outcome = outcomeOf("step-or-drift");
    expect(textOf(outcome)).toMatch(/^It jumped by 1(\.0\d*)? at time 6/);
    expect(outcome.notes![0]).toMatch(/what was done that day/);
    expect(outcome.chart!.marks).toHaveLength(1);
  });
  test("a drift has no moment", () => {
    const outcome = outcomeOf("step-or-drift", { series: timed([1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5]) });
    expect(textOf(outcome)).toMatch(/^It drifts: 4/);
    expect(outcome.notes).toEqual([]);
    expect(outcome.chart!.marks).toBeUndefined();
  });
  test("one odd value among steady ones is marked, not deleted", () => {
    const outcome = outcomeOf("step-or-drift", {
      series: timed([5, 5.1, 4.9, 5, 5.1, 9, 4.9, 5, 5.1, 4.9, 5, 5.1]),
    });
    expect(textOf(outcome)).toMatch(/Odd: time 5(\.00)?; marked, not deleted/);
  });
});

describe("lives of parts", () => {
  test("a mark that is neither failed nor good names its line", () =>
    expect(problemsOf("weibull", { lives: "100 1\n200 2" }).form).toMatch(/^Line 2: write 1 for failed/));
  test("lives close together wear out; the cheapest age lies before the middle of them", () => {
    const outcome = outcomeOf("weibull", {
      lives: "5000 1\n5200 1\n4900 1\n5100 1\n5050 1\n4950 1\n5150 1\n4850 1",
    });
    expect(textOf(outcome)).toContain("they wear out");
    expect(rowOf(outcome, "shape")).toBeGreaterThan(10);
    expect(outcome.chart!.marks![0]!.at).toBeLessThan(5000);
  });
  test("how many have failed is said: the others are at-least figures", () =>
    expect(outcomeOf("weibull").notes![0]).toMatch(/^6 of 10 failed/));
});

describe("best age to replace", () => {
  test("a part that does not wear out runs to failure: exponential lives know no age", () => {
    const outcome = outcomeOf("age-replacement", { shape: "1" });
    expect(textOf(outcome)).toMatch(/^Run to failure\./);
    expect(outcome.chart!.marks).toBeUndefined();
  });
  test("the dearer the failure, the sooner", () => {
    const age = (unplanned: string) => rowOf(outcomeOf("age-replacement", { unplanned }), "T");
    expect(age("20")).toBeLessThan(age("5"));
    expect(age("5")).toBeLessThan(age("2"));
  });
  test("as dear planned as not: never before it fails", () =>
    expect(textOf(outcomeOf("age-replacement", { unplanned: "1" }))).toMatch(/^Run to failure/));
});

describe("time to a limit", () => {
  test("ordered, and the chance by a day agrees with them", () => {
    const outcome = outcomeOf("first-passage", { by: "16.414" });
    expect(rowOf(outcome, "P10")).toBeLessThan(rowOf(outcome, "P50"));
    expect(rowOf(outcome, "P50")).toBeLessThan(rowOf(outcome, "P90"));
    expect(textOf(outcome)).toContain("10 % by then");
    expect(textOf(outcomeOf("first-passage", { by: "" }))).not.toContain("by then");
  });
  test("twice as far takes longer at every quantile", () => {
    const at = (distance: string, p: string) => rowOf(outcomeOf("first-passage", { distance }), p);
    for (const p of ["P10", "P50", "P90"]) expect(at("10", p)).toBeGreaterThan(at("5", p));
  });
});
