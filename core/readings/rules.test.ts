import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { CLOCK_SLACK, fittedAt, readingProblems, type ReadingFacts } from "./rules";

const good: ReadingFacts = { takenAt: 1000, value: 5, least: null, state: "idle" };
const fieldsOf = (change: Partial<ReadingFacts>, series: "idle" | "cycle" = "idle") =>
  Object.keys(readingProblems({ ...good, ...change }, series, 1000));

test("a plain reading has nothing against it", () => expect(fieldsOf({})).toEqual([]));

test("a moment ahead by the slack passes, one millisecond more does not; an unreadable one names its field", () => {
  expect(fieldsOf({ takenAt: 1000 + CLOCK_SLACK })).toEqual([]);
  expect(fieldsOf({ takenAt: 1001 + CLOCK_SLACK })).toEqual(["takenAt"]);
  expect(fieldsOf({ takenAt: NaN })).toEqual(["takenAt"]);
});

test("a cycle needs its least, at or below the greatest", () => {
  expect(fieldsOf({ state: "cycle" }, "cycle")).toEqual(["least"]);
  expect(fieldsOf({ state: "cycle", least: 5 }, "cycle")).toEqual([]);
  expect(fieldsOf({ state: "cycle", least: 5.01 }, "cycle")).toEqual(["least"]);
  expect(fieldsOf({ value: null, least: 9, state: "cycle" }, "cycle")).toEqual([]);
});

test("a series never mixes states, and where nobody was asked nothing is held against it", () => {
  expect(fieldsOf({ state: "holding" })).toEqual(["state"]);
  expect(fieldsOf({ state: null })).toEqual([]);
});

test("a moment falls into at most one of the periods that follow on one another, its start included", () => {
  const starts = fc.uniqueArray(fc.integer({ min: 0, max: 1000 }), { minLength: 1, maxLength: 6 });
  fc.assert(
    fc.property(starts, fc.integer({ min: -10, max: 1010 }), (times, at) => {
      const sorted = times.sort((a, b) => a - b);
      const periods = sorted.map((startedAt, i) => ({ startedAt, endedAt: sorted[i + 1] ?? null }));
      const expected = periods.filter((p) => p.startedAt <= at).at(-1);
      expect(fittedAt(periods, at)).toEqual(expected);
    }),
  );
});
