import fc from "fast-check";
import { noWishes } from "@core";
import { choiceFrom, wishesFrom } from "./form";

const wishes = {
  pinned: { p: "own" },
  forbidden: { q: ["s1", "s2"] },
  together: [["p", "q"]],
  without: ["s3"],
  moreCrew: { mechanical: 8, electrical: 0 },
  crewAt: { s1: { mechanical: 0, electrical: 6 }, s2: { mechanical: 12 } },
  caution: 0.5,
};

test("wishes and choices come back as they were sent", () => {
  expect(wishesFrom(JSON.stringify(wishes))).toEqual(wishes);
  expect(choiceFrom(JSON.stringify({ p: "s1", q: "wait" }))).toEqual({ p: "s1", q: "wait" });
});

test("what is no wish is left out", () => {
  const odd = {
    pinned: { p: 7, q: "" },
    forbidden: [],
    without: [null, "s"],
    moreCrew: { mechanical: -4 },
    crewAt: { s1: { mechanical: "8" }, s2: 4, s3: { mechanical: -8 } },
    caution: 7,
  };
  expect(wishesFrom(JSON.stringify(odd))).toEqual({
    ...noWishes,
    forbidden: {},
    without: ["s"],
    moreCrew: { mechanical: 0, electrical: 0 },
    crewAt: { s3: { mechanical: 0 } },
    caution: 0.9,
  });
  expect(choiceFrom('{"p":{"toString":1}}')).toEqual({});
});

test("nonsense never throws, and is bounded", () => {
  fc.assert(
    fc.property(fc.oneof(fc.string(), fc.json()), (text) => {
      const { caution, pinned } = wishesFrom(text);
      expect(caution).toBeGreaterThanOrEqual(0);
      expect(caution).toBeLessThanOrEqual(0.9);
      for (const value of [...Object.values(pinned), ...Object.values(choiceFrom(text))])
        expect(typeof value).toBe("string");
    }),
  );
});
