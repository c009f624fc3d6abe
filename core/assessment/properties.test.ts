/** What must hold for any readings at all: assessments are made from whatever people write down. */
import { DAY } from "../units/time";
import fc from "fast-check";
import { defaultPrior } from "../forecast/prior";
import { pointQuantityIds, quantityOf } from "../units/quantities";
import { assess } from "./assess";
import { expectedReading } from "./expected";
import { questionReading } from "./question";
import { type AssessContext, type AssessPoint, type AssessReading } from "./types";
import { conditionStates } from "../state/state";

const NOW = Date.UTC(2026, 10, 24);
const fluid = { kv40: 46, kv100: 6.8, density15: 875 };
const context: AssessContext = {
  now: NOW,
  fluid,
  measured: [],
  contamination: null,
  prior: defaultPrior,
  duty: { hoursPerDay: 9, deviation: 0.1 },
  stops: [
    { id: "a", at: NOW + 40 * DAY },
    { id: "b", at: NOW + 200 * DAY },
  ],
  leadTimeDays: 30,
  runInHours: 50,
  lifeStartHours: 0,
  lifeStartedAt: null,
  meterChanges: [],
  readingsInAll: null,
  partReadyAt: null,
  nextChanceDays: 28,
  accepted: 0.3,
  repairedAt: null,
  seed: 0,
};

/**
 * What a gauge shows, to a thousandth, and now and then any number at all: fast-check draws a double by its exponent,
 * so that most of `fc.double` lies below 1e-9 and would leave no margin to forecast.
 */
const figure = (min: number, max: number) =>
  fc.oneof(
    {
      weight: 3,
      arbitrary: fc.integer({ min: Math.ceil(min * 1000), max: Math.floor(max * 1000) }).map((n) => n / 1000),
    },
    { weight: 1, arbitrary: fc.double({ min, max, noNaN: true }) },
  );

const reading = fc.record({
  value: figure(0, 400),
  pressure: fc.option(figure(0, 400)),
  temperature: fc.option(figure(-20, 120)),
  hours: fc.option(figure(0, 1e5)),
  doubtful: fc.boolean(),
  recalled: fc.boolean(),
});

const seriesOf = (fewest: number) =>
  fc
    .array(reading, { minLength: fewest, maxLength: 18 })
    .map((list): AssessReading[] =>
      list.map((r, i) => ({ ...r, id: `r${i}`, at: NOW - (list.length - i) * 30 * DAY, uncertainty: null })),
    );
const series = seriesOf(0);

/** A point that reads any quantity, with limits on any side. */
const anyPoint = fc
  .record({
    quantity: fc.constantFrom(...pointQuantityIds),
    upper: fc.option(figure(1, 500)),
    lower: fc.option(figure(-10, 0.9)),
    known: fc.boolean(),
    flow: fc.option(fc.constant(65.25)),
  })
  .map(({ quantity, upper, lower, known, flow }): AssessPoint => ({
    quantity,
    limit: { basis: "absolute", upper, lower },
    reference: quantityOf(quantity).correction === "leakage" ? { pressure: 210, temperature: 50 } : null,
    fullFlow: flow,
    knownWhenNew: known,
    makersNew: null,
  }));

const finite = (value: number | null | undefined) => value === null || value === undefined || Number.isFinite(value);

test("an assessment is made of anything, and every number in it is a number", () => {
  fc.assert(
    fc.property(series, anyPoint, (readings, point) => {
      const a = assess(readings, point, context);
      expect(conditionStates).toContain(a.state);
      expect(a.readings).toBe(readings.length);
      expect(a.series.map((s) => s.id)).toEqual(readings.map((r) => r.id));
      for (const s of a.series) expect([s.corrected, s.uncertainty].every(finite)).toBe(true);
      if (a.margin) expect([a.margin.value, a.margin.low, a.margin.high, a.margin.before].every(finite)).toBe(true);
      expect(finite(a.urgency)).toBe(true);
      expect(a.verdict.length).toBeGreaterThan(0);
      expect(JSON.parse(JSON.stringify(a))).toEqual(JSON.parse(JSON.stringify(assess(readings, point, context))));
    }),
    { numRuns: 250 },
  );
});

test("a forecast is in order: P5 before P10 before P50 before P90, and chances grow with time", () => {
  let made = 0;
  fc.assert(
    fc.property(seriesOf(8), anyPoint, (readings, point) => {
      const { forecast } = assess(readings, point, context);
      if (!forecast) return;
      made++;
      const { p5, p10, p50, p90 } = forecast.dates;
      const inOrder = [p5, p10, p50, p90].map((d) => d ?? Infinity);
      expect(inOrder).toEqual([...inOrder].sort((a, b) => a - b));
      const chances = forecast.beforeStops.map((s) => s.probability);
      expect(chances).toEqual([...chances].sort((a, b) => a - b));
      for (const p of [...chances, forecast.crossed, forecast.rising, forecast.like ?? 0]) {
        expect(p).toBeGreaterThanOrEqual(0);
        expect(p).toBeLessThanOrEqual(1 + 1e-9);
      }
      for (const f of forecast.fan) expect(f.p10).toBeLessThanOrEqual(f.p90);
    }),
    { numRuns: 250 },
  );
  expect(made).toBeGreaterThan(5);
});

test("fewer than five readings prove nothing, unless the level may lie beyond its limit", () => {
  fc.assert(
    fc.property(
      series.filter((s) => s.length < 5),
      anyPoint,
      (readings, point) => {
        const { state, beyond } = assess(readings, point, context);
        expect(["unread", "unproven"].includes(state)).toBe(beyond < 0.1);
      },
    ),
    { numRuns: 250 },
  );
});

test("an expected range holds its own centre and is never upside down", () => {
  const expectation = fc.record({
    scale: fc.constantFrom("log" as const, "plain" as const),
    centre: fc.double({ min: -3, max: 5, noNaN: true }),
    deviation: fc.double({ min: 0.001, max: 1, noNaN: true }),
    a: fc.double({ min: 0.2, max: 1.5, noNaN: true }),
    b: fc.double({ min: 0.2, max: 1.5, noNaN: true }),
    ua: fc.double({ min: 0, max: 0.3, noNaN: true }),
    ub: fc.double({ min: 0, max: 0.3, noNaN: true }),
  });
  fc.assert(
    fc.property(
      expectation,
      fc.option(fc.double({ min: 1, max: 400, noNaN: true })),
      fc.option(fc.double({ min: 0, max: 100, noNaN: true })),
      (e, pressure, temperature) => {
        const range = expectedReading(
          {
            ...e,
            ahead: [],
            behind: [],
            reference: { pressure: 210, temperature: 50 },
            fluidNow: null,
            referenceViscosity: null,
            seen: null,
          },
          fluid,
          { pressure, temperature, at: NOW },
        );
        expect(range.low).toBeLessThan(range.centre);
        expect(range.centre).toBeLessThan(range.high);
      },
    ),
  );
});

test("nothing inside the expected range is ever questioned, and no question is empty", () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.5, max: 50, noNaN: true }),
      fc.double({ min: 1.05, max: 3, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 400, noNaN: true }),
      (low, factor, share, other) => {
        const range = { low, centre: low * Math.sqrt(factor), high: low * factor, beyondSeen: false };
        const inside = low + share * (range.high - low);
        expect(
          questionReading({ value: inside, entered: inside, unit: "L/min" }, "caseDrainFlow", range, null),
        ).toBeUndefined();
        const asked = questionReading({ value: other, entered: other, unit: "L/min" }, "caseDrainFlow", range, inside);
        if (asked) expect(asked.message.length).toBeGreaterThan(20);
      },
    ),
  );
});
