import { describe, expect, test } from "@jest/globals";
import { outcomeOf } from "./outcome";
import type { SeriesPoint } from "./types";

const series = (values: number[], marks: Record<number, SeriesPoint["mark"]> = {}): SeriesPoint[] =>
  values.map((corrected, i) => ({
    id: String(i),
    at: i * 10,
    hours: i,
    raw: corrected,
    corrected,
    uncertainty: 0.1,
    mark: marks[i] ?? null,
  }));
const upper = { upper: 10, lower: null };

describe("what came of a life", () => {
  test("the crossing lies between the last reading within and the first beyond", () => {
    expect(outcomeOf(series([7, 8, 9, 9.5, 10.5, 11, 12]), upper)).toEqual({ crossedAt: 35, seenUntil: 60 });
  });
  test("not so far", () => {
    expect(outcomeOf(series([7, 8, 9]), upper)).toEqual({ crossedAt: null, seenUntil: 20 });
  });
  test("one odd reading is no crossing, nor is a level that comes back", () => {
    expect(outcomeOf(series([7, 8, 14, 8, 9]), upper)!.crossedAt).toBeNull();
    expect(outcomeOf(series([7, 11, 12, 11, 8, 8, 7, 8, 8]), upper)!.crossedAt).toBeNull();
  });
  test("a part that was taken out with its last reading beyond had crossed; one that runs on is read again", () => {
    expect(outcomeOf(series([7, 8, 9, 11]), upper, true)).toEqual({ crossedAt: 25, seenUntil: 30 });
    expect(outcomeOf(series([7, 8, 9, 11]), upper)!.crossedAt).toBeNull();
    expect(outcomeOf(series([7, 11, 9, 8]), upper, true)!.crossedAt).toBeNull();
  });
  test("a lower limit, and readings that are not believed", () => {
    expect(outcomeOf(series([7, 6, 5, 3, 2, 2]), { upper: null, lower: 4 })!.crossedAt).toBe(25);
    expect(outcomeOf(series([7, 8, 11, 12, 12, 8], { 2: "recalled", 3: "recalled", 4: "recalled" }), upper)).toEqual({
      crossedAt: null,
      seenUntil: 50,
    });
  });
  test("nothing to hold against", () => {
    expect(outcomeOf(series([7, 8, 9]), null)).toBeNull();
    expect(outcomeOf(series([7, 8]), upper)).toBeNull();
  });
});
