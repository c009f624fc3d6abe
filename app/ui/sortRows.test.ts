import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { inOrder } from "./sortRows";

test("numbers in texts count as numbers, case does not, and what is missing comes last either way", () => {
  const rows = ["P-10", null, "p-2", "P-1"];
  expect(inOrder(rows, (r) => r, false)).toEqual(["P-1", "p-2", "P-10", null]);
  expect(inOrder(rows, (r) => r, true)).toEqual(["P-10", "p-2", "P-1", null]);
});

test("numbers sort by size, not by their digits", () =>
  expect(inOrder([9, 10, -1], (n) => n, false)).toEqual([-1, 9, 10]));

test("no row is lost, and equal ones keep their order", () =>
  fc.assert(
    fc.property(fc.array(fc.option(fc.integer({ min: 0, max: 3 }))), fc.boolean(), (keys, descending) => {
      const rows = keys.map((key, at) => ({ key, at }));
      const sorted = inOrder(rows, (r) => r.key, descending);
      expect([...sorted].sort((a, b) => a.at - b.at)).toEqual(rows);
      for (const [i, row] of sorted.entries()) {
        const next = sorted[i + 1];
        if (next && next.key === row.key) expect(next.at).toBeGreaterThan(row.at);
      }
    }),
  ));
