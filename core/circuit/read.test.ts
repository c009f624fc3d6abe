import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { circuitOf } from "./build";
import { readNetlist } from "./read";

const small = circuitOf({ t: ["tank"], p: ["fixedPump", { speed: 900 }, "Pump A"] }, ["t.T - p.in"]);

test("what was written comes back, but for its gauges", () =>
  expect(readNetlist(JSON.stringify({ ...small, gauges: [{ pointId: "x" }] }))).toEqual(small));

test("what is known of a hose comes back too, and what is wrong with it is refused", () => {
  const hose = { made: "hose", rating: 315, bore: 12, length: 1.4, fittedOn: "2020-03-01", tag: "H-7" };
  const withLine = (data: unknown) => JSON.stringify({ ...small, lines: [{ ...small.lines[0], data }] });
  expect(readNetlist(withLine(hose))).toMatchObject({ lines: [{ data: hose }] });
  const wrong = [{ made: "string" }, { rating: -1 }, { bore: "12" }, { fittedOn: "soon" }, { tag: 7 }];
  // no page lets these through; a request that no page made is refused too
  const impossible = [{ rating: 28_000 }, { bore: 0.5 }, { length: 5000 }, { fittedOn: "2026-19-40" }];
  for (const change of [...wrong, ...impossible])
    expect(readNetlist(withLine({ ...hose, ...change }))).toEqual(expect.any(String));
});

test.each([
  ["not JSON", "{"],
  ["a list", "[]"],
  ["no lines", JSON.stringify({ elements: [] })],
  ["a kind that there is not", JSON.stringify({ elements: [{ ...small.elements[0], kind: "warp" }], lines: [] })],
  ["a kind from the prototype", JSON.stringify({ elements: [{ ...small.elements[0], kind: "toString" }], lines: [] })],
  [
    "a figure that there is not",
    JSON.stringify({ elements: [{ ...small.elements[0], data: { colour: 1 } }], lines: [] }),
  ],
  [
    "a figure that is a text",
    JSON.stringify({ elements: [{ ...small.elements[1], data: { speed: "9" } }], lines: [] }),
  ],
  ["a line without an end", JSON.stringify({ elements: [], lines: [{ id: "l", from: null, to: null }] })],
  [
    "too many",
    JSON.stringify({
      elements: Array.from({ length: 301 }, (_, i) => ({ ...small.elements[0], id: `e${i}` })),
      lines: [],
    }),
  ],
])("%s is refused in words", (_n, text) => expect(readNetlist(text)).toEqual(expect.stringMatching(/\w{4,}/)));

test("anything at all is read or refused, never a fault", () =>
  fc.assert(
    fc.property(fc.json(), (text) => {
      const read = readNetlist(text);
      expect(typeof read === "string" || Array.isArray(read.elements)).toBe(true);
    }),
  ));
