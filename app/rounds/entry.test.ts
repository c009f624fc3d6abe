/** What is typed at a point of a round: read against its unit, its last reading and what is expected. */
import fc from "fast-check";
import {
  DAY,
  fromCore,
  findUnit,
  random,
  assess,
  defaultPrior,
  simulateLife,
  type AssessContext,
  type AssessPoint,
} from "@core";
import { agreement, emptyEntry, judgeEntry, repeatsOf, type Entry } from "./entry";
import type { WalkPoint } from "~/domain/rounds/queries.server";
import { drain, NOW } from "./testPoint";
import { withUnit } from "~/ui/typed";

const point = drain;
const fluid = drain.fluid!;
const typed = (change: Partial<Entry>): Entry => ({ ...emptyEntry, ...change });
const judge = (change: Partial<Entry>, of: Partial<WalkPoint> = {}, units = {}) =>
  judgeEntry(typed(change), { ...point, ...of }, NOW, units);

/** What an assessment of a steady life expects of the next reading. */
function expectation(): WalkPoint["expectation"] {
  const times = Array.from({ length: 24 }, (_, i) => ({
    at: NOW - (24 - i) * 14 * DAY,
    hours: 12_000 - (24 - i) * 100,
  }));
  const series = simulateLife(
    {
      asNew: 1.5,
      end: 4,
      timeScale: 200_000,
      law: "linear",
      a: 1,
      b: 0.7,
      reference: { pressure: 210, temperature: 50 },
      fluid,
      pressure: { mean: 210, scatter: 2 },
      noise: 0.02,
    },
    times,
    random(4),
  );
  const assessed: AssessPoint = {
    quantity: "caseDrainFlow",
    limit: { basis: "absolute", upper: 6, lower: null },
    reference: { pressure: 210, temperature: 50 },
    fullFlow: 65,
    knownWhenNew: true,
    makersNew: null,
  };
  const context: AssessContext = {
    now: NOW,
    fluid,
    measured: [],
    contamination: null,
    prior: defaultPrior,
    duty: { hoursPerDay: 7, deviation: 0.1 },
    stops: [],
    leadTimeDays: null,
    runInHours: 0,
    lifeStartHours: 9000,
    lifeStartedAt: null,
    meterChanges: [],
    readingsInAll: null,
    partReadyAt: null,
    nextChanceDays: 28,
    accepted: 0.3,
    repairedAt: null,
    seed: 0,
  };
  return assess(
    series.map((r, i) => ({
      id: String(i),
      at: r.at,
      hours: r.hours,
      value: r.value,
      pressure: r.pressure,
      temperature: r.temperature,
      uncertainty: null,
      doubtful: false,
      recalled: false,
    })),
    assessed,
    context,
  ).expectation;
}

describe("reading what is typed", () => {
  test("a bare value is in the point's unit, a unit may be typed, and a comma is a decimal mark", () => {
    expect(judge({ value: "1.6" })).toMatchObject({ value: 1.6, problems: {} });
    expect(judge({ value: "1,6" }).value).toBe(1.6);
    expect(judge({ value: "0.4 gal/min" }).value).toBeCloseTo(0.4 * 3.785411784, 9);
    expect(judge({ value: "0.4" }, { unit: "gal/min" }).value).toBeCloseTo(0.4 * 3.785411784, 9);
  });
  test("conditions are in the reader's units", () => {
    const asTyped = judge(
      { value: "1.6", pressure: "3000", temperature: "120" },
      { expectation: expectation() },
      { pressure: "psi", temperature: "°F" },
    );
    const inCore = judge(
      {
        value: "1.6",
        pressure: String(fromCore(3000 * 0.0689475729, findUnit("bar", "pressure")!)),
        temperature: "48.8889",
      },
      { expectation: expectation() },
    );
    expect(asTyped.expected!.high).toBeCloseTo(inCore.expected!.high, 3);
  });
  test("what is missing or is no value is said beside its field, and the rest is still read", () => {
    expect(judge({}).problems).toEqual({ value: expect.any(String) });
    expect(judge({ value: "high", temperature: "48 bar" }).problems).toEqual({
      value: expect.any(String),
      temperature: expect.stringContaining("pressure"),
    });
    expect(judge({ value: "1.6", temperature: "hot" })).toMatchObject({
      value: 1.6,
      problems: { temperature: expect.any(String) },
    });
  });
  test("hours that do not fit are questioned", () => {
    expect(judge({ value: "1.6", hours: "11900" }).question).toMatchObject({
      kind: "hours",
      message: expect.stringContaining("runs backwards"),
    });
    expect(judge({ value: "1.6", hours: "120000" }).question).toMatchObject({
      message: expect.stringContaining("ten times"),
    });
    expect(judge({ value: "1.6", hours: "12000" }).question).toBeUndefined();
    expect(judge({ value: "1.6", hours: "5" }, { last: null }).problems).toEqual({});
  });
  test("over a cycle both ends are needed, the least below the greatest", () => {
    const cycle = { readState: "cycle" as const };
    expect(judge({ value: "1.6" }, cycle).problems).toEqual({ least: expect.any(String) });
    expect(judge({ value: "1.6", least: "1.9" }, cycle).problems).toEqual({
      least: "The least is above the greatest.",
    });
    expect(judge({ value: "1.6", least: "1.1" }, cycle).problems).toEqual({});
    expect(judge({ value: "1.6", least: "9" }).problems).toEqual({}); // not asked for elsewhere
  });
});

test("an entry carries its unit, whoever sends it later", () => {
  expect(withUnit("3000", "psi")).toBe("3000 psi");
  expect(withUnit(" 210 bar ", "psi")).toBe("210 bar");
  expect(withUnit("-12", "°C")).toBe("-12 °C");
  expect(withUnit("", "psi")).toBe("");
});

describe("what is expected", () => {
  const expected = expectation();
  test("thinner oil leaks more: the range moves with the temperature that is typed", () => {
    const at = (temperature: string) =>
      judge({ value: "1.6", pressure: "210", temperature }, { expectation: expected }).expected!;
    expect(at("60").low).toBeGreaterThan(at("40").low);
    expect(at("60").high).toBeGreaterThan(at("40").high);
  });
  test("a usual value is kept without a question, a slipped digit and a wrong unit are asked about", () => {
    const ask = (value: string) =>
      judge({ value, pressure: "210", temperature: "50" }, { expectation: expected }).question?.kind;
    const usual = judge({ value: "1.5", pressure: "210", temperature: "50" }, { expectation: expected }).expected!;
    const middle = (usual.low + usual.high) / 2;
    expect(ask(middle.toFixed(3))).toBeUndefined();
    expect(ask((middle * 10).toFixed(3))).toBe("digit");
    expect(ask((usual.high + 2 * (usual.high - usual.low)).toFixed(3))).toBe("high");
  });
  test("without a range a jump from last time is asked about", () => {
    expect(judge({ value: "4" }).question?.kind).toBe("jump");
    expect(judge({ value: "0.6" }).question?.kind).toBe("jump");
    expect(judge({ value: "1.9" }).question).toBeUndefined();
    expect(judge({ value: "4" }, { last: null }).question).toBeUndefined();
  });
});

describe("reading again", () => {
  test("values that agree are kept, two that do not ask for a third", () => {
    expect(repeatsOf([1.5, 1.52], point, null).value).toBeCloseTo(1.51, 2);
    expect(repeatsOf([1.5, 2.5], point, null)).toEqual({ value: null, message: "The two disagree: a third decides." });
    expect(repeatsOf([1.5, 2.5, 2.49], point, null).value).toBeCloseTo(2.495, 3);
    expect(repeatsOf([1, 2, 3], point, null).value).toBe(2);
  });
  test("what agrees: never less than what can be read off, a share of the value, or a quarter of the range", () => {
    expect(agreement(point, null, 100)).toBeCloseTo(4, 9);
    expect(agreement(point, null, 0)).toBeGreaterThan(0);
    expect(agreement(point, { low: 1, high: 3 } as never, 1.5)).toBe(0.5);
  });
  test("whatever is read, what is kept lies among what was read", () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.1, max: 90, noNaN: true }), { minLength: 2, maxLength: 5 }), (values) => {
        const { value } = repeatsOf(values, point, null);
        // two that disagree, and only they, leave the value open
        if (value === null) {
          expect(values).toHaveLength(2);
          return;
        }
        expect(value).toBeGreaterThanOrEqual(Math.min(...values));
        expect(value).toBeLessThanOrEqual(Math.max(...values));
      }),
    ));
});

test("what physics forbids is asked on the tablet too, on the first reading of all", () => {
  const first = { ...point, expectation: null, last: null };
  const asked = (value: string, of = first) => judgeEntry(typed({ value }), of, NOW, {}).question;
  expect(asked("174")).toMatchObject({ kind: "physics", message: expect.stringContaining("more than the pumps") });
  expect(asked("2.1")).toBeUndefined();
  // without a plate nothing is known
  expect(asked("174", { ...first, known: { pumpedFlow: null, workingPressure: null } })).toBeUndefined();
});
