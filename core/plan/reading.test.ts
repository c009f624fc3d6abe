/** What one more reading is worth: by hand, against drawn futures, and within what it can be. */
import { DAY } from "../units/time";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { random } from "../random/random";
import { outcomesOf, readingWorth, type Outcomes } from "./reading";
import type { PlanOption, PlanPiece } from "./types";

const NOW = Date.UTC(2026, 10, 24);
const at = (days: number) => NOW + days * DAY;

const option = (id: string, days: number, kind: PlanOption["kind"] = "stop"): PlanOption => ({
  id,
  kind,
  at: at(days),
  crossed: 0,
  fails: 0,
  cost: 0,
  parts: { failing: 0, life: 0, work: 0, standing: 0 },
});
const piece = (change: Partial<PlanPiece> = {}): PlanPiece => ({
  id: "p",
  label: "p",
  machine: "m",
  circuit: "k",
  hours: { mechanical: 6 },
  partAt: null,
  partSure: true,
  crossings: [at(100), at(400)],
  since: at(-900),
  costs: { part: 2000, failure: 20_000 },
  reads: { level: 0.5, deviation: 0.05 },
  booked: null,
  ...change,
});
/** Early or late are equally likely: done at the first stop it costs 10, at the second 4 when the limit comes late and 40 when early. */
const two: Outcomes = {
  options: [option("first", 60), option("second", 200)],
  crossings: [at(100), at(400)],
  costs: [
    [10, 10],
    [40, 4],
  ],
};

describe("by hand", () => {
  test("a reading that parts early from late takes the better stop for each", () => {
    // after 30 days the level stands at 0.65 or at 0.5375: two and a quarter deviations apart
    expect(readingWorth(two, piece({ reads: { level: 0.5, deviation: 0.005 } }), at(30), NOW)).toBeCloseTo(7, 9);
  });
  test("one that says nothing leaves the first stop, which is best without it", () =>
    expect(readingWorth(two, piece({ reads: { level: 0.5, deviation: 50 } }), at(30), NOW)).toBeCloseTo(10, 9));
  test("after the first stop only the second is left", () =>
    expect(readingWorth(two, piece(), at(90), NOW)).toBeCloseTo(22, 9));
  test("a part that would be ordered after the reading comes later", () => {
    const late = piece({ partAt: at(40), partSure: false, reads: { level: 0.5, deviation: 0.005 } });
    // ordered in 30 days it is there after 70: the first stop is gone
    expect(readingWorth(two, late, at(30), NOW)).toBeCloseTo(22, 9);
    expect(readingWorth(two, { ...late, partSure: true }, at(30), NOW)).toBeCloseTo(7, 9);
  });
  test("nothing can be done after it, or nothing is read: no worth", () => {
    expect(readingWorth(two, piece(), at(300), NOW)).toBe(Infinity);
    expect(readingWorth(two, piece({ reads: null }), at(30), NOW)).toBe(Infinity);
  });
  test("waiting is always open", () => {
    const wait = { ...two, options: [option("first", 60), option("wait", 200, "wait")] };
    expect(readingWorth(wait, piece(), at(300), NOW)).toBeCloseTo(22, 9);
  });
});

const cases = fc.record({
  days: fc.array(fc.integer({ min: 5, max: 900 }), { minLength: 2, maxLength: 12 }).map((d) => d.sort((a, b) => a - b)),
  costs: fc.array(fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 12, maxLength: 12 }), {
    minLength: 1,
    maxLength: 4,
  }),
  level: fc.double({ min: 0, max: 0.95, noNaN: true }),
  deviation: fc.double({ min: 0.01, max: 1, noNaN: true }),
});
const outcomes = (c: { days: number[]; costs: number[][] }): Outcomes => ({
  options: c.costs.map((_, i) => option(`o${i}`, 400 + i)),
  crossings: c.days.map(at),
  costs: c.costs.map((row) => row.slice(0, c.days.length)),
});

test("never better than knowing, never worse than not reading", () => {
  fc.assert(
    fc.property(cases, (c) => {
      const all = outcomes(c);
      const mean = (values: number[]) => values.reduce((s, v) => s + v, 0) / values.length;
      const known = mean(all.crossings.map((_, k) => Math.min(...all.costs.map((row) => row[k]!))));
      const blind = Math.min(...all.costs.map((row) => mean([...row])));
      const read = readingWorth(all, piece({ reads: { level: c.level, deviation: c.deviation } }), at(30), NOW);
      expect(read).toBeGreaterThanOrEqual(known - 1e-6);
      // seven errors stand for all of them, so that a decision may be a little worse than its own odds say
      expect(read).toBeLessThanOrEqual(blind + 0.08 * (Math.max(...all.costs.flat()) - known) + 1e-6);
    }),
    { numRuns: 200 },
  );
});

test("as drawn futures say: a limit, a level, a reading with its error, and the decision of who sees only the reading", () => {
  const rng = random(11);
  const crossings = Array.from({ length: 24 }, (_, i) => at(60 + i * 14));
  const costs = [
    crossings.map(() => 900),
    crossings.map((c) => (c < at(150) ? 4000 : 500)),
    crossings.map((c) => (c < at(260) ? 6000 : 150)),
  ];
  const all: Outcomes = { options: [option("a", 50), option("b", 150), option("c", 260)], crossings, costs };
  const reads = { level: 0.4, deviation: 0.04 };
  const levelOf = (c: number) => reads.level + ((1 - reads.level) * 30 * DAY) / (c - NOW);
  // who reads sorts what was read into narrow classes and takes what was cheapest in each: no formula of Bayes
  const draws = Array.from({ length: 60_000 }, () => {
    const k = Math.floor(rng.uniform() * 24);
    return { k, read: levelOf(crossings[k]!) + reads.deviation * rng.normal() };
  });
  const classes = new Map<number, number[]>();
  for (const { k, read } of draws) {
    const key = Math.round(read / 0.01);
    classes.set(key, [...(classes.get(key) ?? []), k]);
  }
  const total = [...classes.values()].reduce(
    (sum, ks) => sum + Math.min(...costs.map((row) => ks.reduce((s, k) => s + row[k]!, 0))),
    0,
  );
  const drawn = total / draws.length;
  expect(readingWorth(all, piece({ reads }), at(30), NOW) / drawn).toBeGreaterThan(0.97);
  expect(readingWorth(all, piece({ reads }), at(30), NOW) / drawn).toBeLessThan(1.03);
});

test("costs of an option: failing before it, the work, the life thrown away", () => {
  const p = piece({ crossings: [at(100), null] });
  const stop = { ...option("a", 160), parts: { failing: 0, life: 0, work: 0, standing: 40 } };
  const { crossings, costs } = outcomesOf(p, [{ option: stop, beside: 60 }], {
    now: NOW,
    costs: {
      currency: "€",
      crewHour: 60,
      overHour: 400,
      opening: 600,
      extraStop: 2500,
      standing: 120,
      failsAMonth: 0.15,
    },
  });
  // six hours at 60 and the part; 60 days beyond the limit, at 15 % a month
  const fails = 1 - 0.85 ** (60 / 30.4375);
  expect(costs[0]![0]).toBeCloseTo(fails * 20_000 + (1 - fails) * 2360 + 40 + 60, 6);
  const left = (crossings[1]! - at(160)) / (crossings[1]! - at(-900));
  expect(costs[0]![1]).toBeCloseTo(2360 + left * 2000 + 40 + 60, 6);
});
