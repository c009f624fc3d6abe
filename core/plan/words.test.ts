import { DAY } from "../units/time";
import { describe, expect, test } from "@jest/globals";
import type { PlanLine } from "./lines";
import type { PlanOption, PlanPiece } from "./types";
import { moneyText, optionName, readAgainBy, reasonOf, type PlanWriter } from "./words";

const NOW = Date.UTC(2026, 10, 24);
const writer: PlanWriter = {
  day: (ms) => `day ${Math.round((ms - NOW) / DAY)}`,
  currency: "€",
  now: NOW,
  stops: new Map([
    ["w", { name: "Winter stop" }],
    ["s", { name: "Spring stop" }],
  ]),
};
const option = (change: Partial<PlanOption>): PlanOption => ({
  id: "w",
  kind: "stop",
  at: NOW + 55 * DAY,
  crossed: 0.12,
  fails: 0.03,
  cost: 0,
  parts: { failing: 0, life: 0, work: 0, standing: 0 },
  ...change,
});
const piece: PlanPiece = {
  id: "p",
  label: "p",
  machine: "m",
  circuit: "k",
  hours: {},
  partAt: NOW + 40 * DAY,
  partSure: false,
  crossings: [NOW + 200 * DAY, NOW + 300 * DAY],
  since: 0,
  costs: { part: 0, failure: 0 },
  reads: null,
  booked: null,
};
const line = (change: Partial<PlanLine>): PlanLine => ({
  piece: "p",
  option: option({}),
  shares: 0,
  next: null,
  more: {},
  ...change,
});

describe("a plan in words", () => {
  test("amounts to three figures, no better than they are known", () => {
    const plain = (v: number) => moneyText(v, "€").replace(/[\u00a0\u202f ]/g, " ");
    expect([0, 7.4, 154.6, 3127, 47_312].map(plain)).toEqual(["0 €", "7 €", "155 €", "3130 €", "47 300 €"]);
  });
  test("what an option is called", () => {
    const names = [
      option({}),
      option({ kind: "own", id: "own:1", at: NOW }),
      option({ kind: "own", id: "own:2", at: NOW + 9 * DAY }),
      option({ kind: "wait", id: "wait" }),
      option({ id: "gone" }),
    ].map((o) => optionName(o, writer));
    expect(names).toEqual(["Winter stop", "Now", "Own stop", "Wait", "A stop"]);
  });
  test("risk, part, company and the next best", () => {
    const next = { option: option({ id: "s", at: NOW + 170 * DAY }), more: 1234 };
    expect(reasonOf(line({ shares: 2, next }), piece, writer).replace(/[\u00a0\u202f]/g, " ")).toBe(
      "A 12 % chance of the limit before it, a 3 % chance of failing first; part there day 40 if ordered today; " +
        "opened once with 2 other pieces. Next best: the spring stop on day 170, 1230 € more.",
    );
  });
  test("waiting says the risk within the plan, and no part; where there is no other way that is said", () => {
    const text = reasonOf(line({ option: option({ kind: "wait", fails: 0 }) }), piece, writer);
    expect(text).toBe("A 12 % chance of the limit within the plan. There is no other way.");
  });
  test("read again in time to order the part; at once when it is late; no day where nothing is forecast", () => {
    expect(readAgainBy(piece, NOW)).toBe(NOW + (200 - 40 - 30) * DAY);
    expect(readAgainBy({ ...piece, crossings: [NOW + 10 * DAY] }, NOW)).toBe(NOW);
    expect(readAgainBy({ ...piece, crossings: [null, null] }, NOW)).toBeNull();
  });
});
