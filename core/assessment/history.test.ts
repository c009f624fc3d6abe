import { DAY } from "../units/time";
import { expect, test } from "@jest/globals";
import { assess } from "./assess";
import { marginHistory } from "./history";

const START = Date.UTC(2026, 0, 1);
const rising = (count: number) =>
  Array.from({ length: count }, (_, i) => ({
    id: `r${i}`,
    at: START + i * 7 * DAY,
    value: 40 + 0.5 * i,
    hours: i * 100,
  }));
const assessed = (count: number, limit: number | null) =>
  assess(
    rising(count),
    { quantity: "temperature", limit: limit === null ? null : { basis: "absolute", upper: limit, lower: null } },
    { now: START + count * 7 * DAY },
  );

test("from as new towards the limit, oldest first, the present last", () => {
  const history = marginHistory(assessed(60, 80));
  expect(history.length).toBeGreaterThan(10);
  expect(history.length).toBeLessThanOrEqual(24);
  expect(history.map((m) => m.at)).toEqual(history.map((m) => m.at).toSorted((a, b) => a - b));
  expect(history[0]!.used).toBeLessThan(0.15);
  // 69.5 of 80, from about 42 when new
  expect(history.at(-1)!.used).toBeGreaterThan(0.6);
  expect(history.at(-1)!.used).toBeLessThan(0.85);
});

test("nothing without a limit, or with few readings", () => {
  expect(marginHistory(assessed(60, null))).toEqual([]);
  expect(marginHistory(assessed(3, 80))).toEqual([]);
  expect(marginHistory(assessed(0, 80))).toEqual([]);
});
