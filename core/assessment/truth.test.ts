/** What must be true of a judgement where no story was written: worn when fitted, odd readings, long lives, nonsense. */
import { DAY, HOUR } from "../units/time";
import fc from "fast-check";
import { random } from "../random/random";
import { simulateLife, type SimulatedLife } from "../simulation/life";
import { pointQuantityIds, quantityOf, type PointQuantityId } from "../units/quantities";
import { assess } from "./assess";
import { expectedReading } from "./expected";
import { MOST_READINGS } from "./summary";
import type { ContextInput, PointInput, ReadingInput } from "./types";

const NOW = Date.UTC(2026, 10, 24);
const fluid = { kv40: 46, kv100: 6.8, density15: 875 };
const context: ContextInput = {
  now: NOW,
  fluid,
  duty: { hoursPerDay: 9, deviation: 0.1 },
  stops: [{ id: "a", at: NOW + 40 * DAY }],
  leadTimeDays: 30,
};
const caseDrain: PointInput = {
  quantity: "caseDrainFlow",
  limit: { basis: "shareOfFullFlow", upper: 10 },
  reference: { pressure: 210, temperature: 50 },
  fullFlow: 65.25,
};

const plain = (quantity: PointQuantityId, limit: PointInput["limit"]): PointInput => ({
  quantity,
  limit: limit!,
  knownWhenNew: false,
});
/** Monthly readings about a level, scatter as a share of it. */
const about = (level: number, months: number, scatter = 0.01, seed = 5): ReadingInput[] => {
  const rng = random(seed);
  return Array.from({ length: months }, (_, i) => ({
    at: NOW - (months - i) * 30 * DAY,
    hours: 1000 + i * 270,
    value: level * (1 + scatter * rng.normal()),
    pressure: 210,
    temperature: 50,
  }));
};
const said = (a: ReturnType<typeof assess>) => a.verdict.map((p) => ("text" in p ? p.text : "")).join("");

describe("a level beyond its limit is an alarm, whatever the baseline says", () => {
  test.each([
    ["a pump that was worn when its meter was fitted", { ...caseDrain, knownWhenNew: false }, 9],
    ["oil that always ran too hot", plain("temperature", { upper: 50 }), 72],
    ["a flow that was too small from the start", plain("flow", { lower: 70 }), 60],
    ["a pressure above a limit on both sides", plain("pressure", { upper: 200, lower: 150 }), 250],
    ["a pressure below a limit on both sides", plain("pressure", { upper: 200, lower: 150 }), 120],
    ["a margin that is below nought", plain("pilotMargin", { lower: 10 }), -12],
  ] as const)("%s", (_what, point, level) => {
    for (const months of [1, 3, 6, 12, 30]) {
      const a = assess(about(level, months), point, context);
      expect([months, a.state]).toEqual([months, "alarm"]);
      expect(a.beyond).toBeGreaterThan(0.9);
      expect(a.alreadyBeyond).toBe(true);
      expect(a.margin!.value).toBeGreaterThan(1);
      expect(said(a)).toMatch(
        /Already (beyond its limit|below its least) of .* when first read; condition when fitted not known\./,
      );
    }
  });
  test("few readings with a wide uncertainty ask for another one", () => {
    const a = assess(
      [{ at: NOW, hours: 1000, value: 6.7, pressure: 208, temperature: 49 }],
      { ...caseDrain, knownWhenNew: false },
      context,
    );
    expect(a.state).toBe("alert");
    expect(said(a)).toMatch(/One reading only: take another before you act\./);
  });
  test("the manufacturer's figure serves as new where the part was read too late", () => {
    const a = assess(about(9, 12), { ...caseDrain, knownWhenNew: false, makersNew: 1.4 }, context);
    expect(a.state).toBe("alarm");
    expect(a.baseline).toMatchObject({ kind: "maker", centre: 1.4 });
    expect(a.margin!.value).toBeGreaterThan(1.2);
    // nobody knows after how many hours it got there: it must not tell its peers
    expect(a.life).toBeNull();
  });
  test("a baseline that equals its limit is judged all the same", () => {
    expect(assess(about(200, 12, 0), plain("pressure", { upper: 200 }), context).state).toBe("alarm");
    expect(
      assess(
        [...about(200, 12, 0), { at: NOW, value: 260 }, { at: NOW + DAY, value: 261 }],
        plain("pressure", { upper: 200 }),
        context,
      ).state,
    ).toBe("alarm");
  });
  test("set right again it is an alarm no longer", () => {
    const before = about(250, 8).map((r) => ({ ...r, at: r.at - 300 * DAY }));
    const a = assess([...before, ...about(170, 8)], plain("pressure", { upper: 200 }), context);
    expect(a.state).not.toBe("alarm");
    expect(a.margin!.value).toBeLessThan(1);
  });
  test("within a hair of the limit with even readings is not steady", () => {
    const near = assess(about(0.999 * 6.525, 30, 0.002), { ...caseDrain, knownWhenNew: false }, context);
    expect(near.state).toBe("alert");
    expect(near.beyond).toBeGreaterThan(0.2);
    expect(assess(about(199.8, 30, 0.001), plain("pressure", { upper: 200 }), context).state).toBe("alert");
    expect(assess(about(150, 30, 0.001), plain("pressure", { upper: 200 }), context).state).toBe("steady");
  });
});

describe("one reading that nobody can believe changes no state by itself", () => {
  const base: SimulatedLife = {
    asNew: 1.37,
    end: 1,
    timeScale: 20_000,
    law: "none",
    a: 0.95,
    b: 0.75,
    reference: { pressure: 210, temperature: 50 },
    fluid,
    pressure: { mean: 208, scatter: 4 },
    noise: 0.025,
  };
  const rank = { steady: 0, unproven: 1, unread: 1, drifting: 2, alert: 3, alarm: 4 };
  const lives = Array.from({ length: 100 }, (_, i) => {
    const months = 8 + (i % 20);
    const times = Array.from({ length: months }, (_, k) => ({
      at: NOW - (months - k) * 30 * DAY,
      hours: 300 + k * 270,
    }));
    const law = i % 3 === 0 ? ({ law: "linear", end: 2.2, timeScale: 40_000 } as const) : {};
    return simulateLife({ ...base, ...law }, times, random(900 + i)).map((r) => ({
      at: r.at,
      hours: r.hours,
      value: r.value,
      pressure: r.pressure,
      temperature: r.temperature,
    }));
  });
  const before = lives.map((life) => assess(life.slice(0, -1), caseDrain, context).state);
  test.each([
    ["times ten", 10],
    ["gallons for litres", 3.785],
    ["a tenth", 0.1],
    ["nought", 0],
  ])("%s, on 100 healthy lives: no alarm, no better state", (_what, factor) => {
    const changed = lives.flatMap((life, i) => {
      const after = assess(
        [...life.slice(0, -1), { ...life.at(-1)!, value: life.at(-1)!.value * factor }],
        caseDrain,
        context,
      );
      expect(after.unconfirmed).not.toBeNull();
      expect(said(after)).toMatch(/read it again|fits nothing before it/);
      return before[i] === after.state ? [] : [[before[i], after.state]];
    });
    expect(changed).toEqual([]);
  });
  test("hours ten times too large change nothing either", () => {
    for (const life of lives.slice(0, 10)) {
      const wrong = assess(
        [...life.slice(0, -1), { ...life.at(-1)!, hours: life.at(-1)!.hours * 10 }],
        caseDrain,
        context,
      );
      const right = assess(life, caseDrain, context);
      expect(rank[wrong.state]).toBeGreaterThanOrEqual(rank[right.state]);
      expect(wrong.series.at(-1)!.hours).toBeCloseTo(right.series.at(-1)!.hours, -2);
    }
  });
  test("a second reading that agrees is believed", () => {
    const jumped = (count: number) =>
      lives[1]!.map((r, i, all) => (i >= all.length - count ? { ...r, value: r.value * 6 } : r));
    expect(assess(jumped(1), caseDrain, context)).toMatchObject({ unconfirmed: expect.anything() });
    const twice = assess(jumped(2), caseDrain, context);
    expect(twice.unconfirmed).toBeNull();
    expect(["alert", "alarm"]).toContain(twice.state);
  });
  test("real wear is never put off: a doubling within a month is judged at once", () => {
    expect(
      assess(
        [...lives[1]!.slice(0, -1), { ...lives[1]!.at(-1)!, value: lives[1]!.at(-1)!.value * 1.9 }],
        caseDrain,
        context,
      ).unconfirmed,
    ).toBeNull();
  });
});

describe("a long life", () => {
  const logged = (n: number): ReadingInput[] => {
    const rng = random(3);
    return Array.from({ length: n }, (_, i) => ({
      at: NOW - (n - i) * HOUR,
      hours: 100 + (n - i < 0 ? 0 : i * 0.4),
      value: 2 * (1 + i / n) * (1 + 0.03 * rng.normal()),
      pressure: 208,
      temperature: 45 + 5 * rng.normal(),
    }));
  };
  test("is judged by a few hundred readings and counted by all", () => {
    const a = assess(logged(16_000), caseDrain, context);
    expect(a.readings).toBe(16_000);
    expect(a.series.length).toBeLessThanOrEqual(MOST_READINGS);
    expect(a.trend.proved).toBe(true);
    expect(a.lastAt).toBe(NOW - HOUR);
    const level = a.forecast!.fan[0]!.p50;
    expect(level).toBeGreaterThan(3.6);
    expect(level).toBeLessThan(4.4);
  });
  test("one odd reading in a stretch does not stand for it", () => {
    const odd = logged(4000).map((r, i) => (i % 97 === 5 ? { ...r, value: r.value * 10 } : r));
    expect(assess(odd, caseDrain, context).margin!.value).toBeLessThan(1);
  });
});

describe("a reading that is entered late", () => {
  test("is held against the level of its own time", () => {
    const worn = Array.from({ length: 40 }, (_, i) => ({
      at: NOW - (40 - i) * 30 * DAY,
      hours: 1000 + i * 270,
      value: 1.5 + 0.1 * i,
      pressure: 210,
      temperature: 50,
    }));
    const e = assess(worn, caseDrain, context).expectation!;
    const then = expectedReading(e, fluid, { pressure: 210, temperature: 50, at: worn[8]!.at + 10 * DAY });
    expect(then.low).toBeLessThan(2.33);
    expect(then.high).toBeGreaterThan(2.33);
    expect(then.high).toBeLessThan(3);
    expect(expectedReading(e, fluid, { pressure: 210, temperature: 50, at: NOW - 4000 * DAY }).high).toBeLessThan(2.2);
  });
});

describe("whatever the forms let in", () => {
  const finite = (value: unknown): boolean =>
    typeof value === "number"
      ? Number.isFinite(value)
      : Array.isArray(value)
        ? value.every(finite)
        : value && typeof value === "object"
          ? Object.values(value).every(finite)
          : true;
  const number = (least: number, greatest: number) =>
    fc.oneof(
      fc.constantFrom(least, greatest, 0).filter((v) => v >= least && v <= greatest),
      fc.double({ min: least, max: greatest, noNaN: true }),
    );
  const anyPoint = fc.constantFrom(...pointQuantityIds).chain((quantity) =>
    fc.record({
      point: fc
        .record({
          upper: fc.option(fc.constantFrom(0, 1, 100)),
          lower: fc.option(fc.constantFrom(0, 0.5, 50)),
          known: fc.boolean(),
          makersNew: fc.option(fc.constantFrom(0, 2, 80)),
          pressure: fc.constantFrom(1, 210, 1000),
          temperature: fc.constantFrom(-40, 50, 130),
        })
        .map(({ upper, lower, known, makersNew, pressure, temperature }): PointInput => ({
          quantity,
          limit: { upper, lower },
          reference: { pressure, temperature },
          fullFlow: null,
          knownWhenNew: known,
          makersNew,
        })),
      readings: fc.array(
        fc.record({
          value: number(quantityOf(quantity).least, quantityOf(quantity).greatest),
          pressure: fc.option(number(0, 1000)),
          temperature: fc.option(number(-40, 130)),
          hours: fc.option(number(0, 1e6)),
          gap: fc.constantFrom(0, 1, 30),
          doubtful: fc.boolean(),
          recalled: fc.boolean(),
        }),
        { maxLength: 16 },
      ),
      kv: fc.constantFrom([46, 6.8], [1000, 900], [2.2, 2.1], [32, 5.4]),
    }),
  );
  test("every number in an assessment is a number", () => {
    fc.assert(
      fc.property(anyPoint, ({ point, readings, kv }) => {
        let at = NOW - 900 * DAY;
        const a = assess(
          readings.map(({ gap, ...r }) => ({ ...r, at: (at += gap * DAY) })),
          point,
          { ...context, fluid: { kv40: kv[0], kv100: kv[1], density15: 875 } },
        );
        expect(finite(a)).toBe(true);
      }),
      { numRuns: 120 },
    );
  });
  test.each([
    ["all nought", Array.from({ length: 12 }, () => ({ value: 0 }))],
    [
      "no pressure at the last reading",
      Array.from({ length: 12 }, (_, i) => ({ value: 2, pressure: i === 11 ? 0 : 210 })),
    ],
    ["many at one moment", Array.from({ length: 12 }, (_, i) => ({ value: 2 + 0.01 * i, at: NOW }))],
    [
      "the coldest and the hottest oil",
      Array.from({ length: 12 }, (_, i) => ({ value: 2, temperature: i % 2 ? -40 : 130 })),
    ],
    [
      "a machine that hardly runs",
      Array.from({ length: 12 }, (_, i) => ({ value: 2 + 0.1 * i, hours: i > 8 ? 5e-324 : 0 })),
    ],
    [
      "oil beyond any range, as an old import may hold it",
      Array.from({ length: 12 }, (_, i) => ({ value: 2, temperature: i % 2 ? -70 : 200 })),
    ],
  ])("%s", (_what, given) => {
    const a = assess(
      given.map((r, i) => ({
        at: NOW - (12 - i) * 30 * DAY,
        hours: 1000 + i * 270,
        pressure: 210,
        temperature: 50,
        ...r,
      })),
      caseDrain,
      context,
    );
    expect(finite(a)).toBe(true);
    expect(said(a)).not.toMatch(/NaN|undefined|Infinity/);
  });
});
