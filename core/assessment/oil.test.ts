/** What the oil does to an assessment: the viscosity as measured, dirt that came in, an element's drop. */
import { DAY } from "../units/time";
import { defaultPrior } from "../forecast/prior";
import { random } from "../random/random";
import { simulateLife } from "../simulation/life";
import { dynamicViscosity } from "../fluid/viscosity";
import { assess } from "./assess";
import { expectedReading } from "./expected";
import type { AssessContext, AssessReading, Assessment } from "./types";

const NOW = Date.UTC(2026, 10, 24);
const fluid = { kv40: 46, kv100: 6.8, density15: 875 };
const thin = { kv40: 38, kv100: 6, density15: 875 };
const reference = { pressure: 210, temperature: 50 };
const context: AssessContext = {
  now: NOW,
  fluid,
  measured: [],
  contamination: null,
  prior: defaultPrior,
  duty: { hoursPerDay: 9, deviation: 0.1 },
  stops: [],
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
const point = {
  quantity: "caseDrainFlow" as const,
  limit: { basis: "absolute" as const, upper: 6.5, lower: null },
  reference,
  fullFlow: 65,
  knownWhenNew: true,
  makersNew: null,
};

function life(n: number, change: { end?: number; thinSince?: number } = {}, seed = 5): AssessReading[] {
  const rng = random(seed);
  return Array.from({ length: n }, (_, i) => {
    const at = NOW - (n - i) * 30 * DAY;
    const real = change.thinSince !== undefined && i >= change.thinSince ? thin : fluid;
    const [r] = simulateLife(
      {
        asNew: 1.4,
        end: change.end ?? 1,
        timeScale: 30_000,
        law: change.end ? "linear" : "none",
        a: 1,
        b: 1,
        reference,
        fluid: real,
        referenceFluid: fluid,
        pressure: { mean: 208, scatter: 4 },
        noise: 0.02,
      },
      [{ at, hours: 100 + i * 270 }],
      rng,
    );
    return {
      id: String(i),
      at,
      hours: r!.hours,
      value: r!.value,
      pressure: r!.pressure,
      temperature: r!.temperature,
      uncertainty: null,
      doubtful: false,
      recalled: false,
    };
  });
}

const said = (a: Assessment) => a.verdict.map((v) => ("text" in v ? v.text : "")).join("");

describe("measured viscosity", () => {
  test("a thinner oil looks like wear until the laboratory's figure is used", () => {
    const readings = life(40, { thinSince: 25 });
    const level = (a: Assessment) => a.margin!.value;
    const stated = assess(readings, point, context);
    const real = assess(readings, point, {
      ...context,
      measured: [
        { at: readings[24]!.at, kv40: 46, kv100: 6.8 },
        { at: readings[25]!.at - 1, kv40: thin.kv40, kv100: thin.kv100 },
      ],
    });
    expect(level(stated)).toBeGreaterThan(0.04);
    expect(Math.abs(level(real))).toBeLessThan(0.02);
    expect(real.workings.last!.note).toMatch(/With the viscosity that the laboratory found/);
    // and the expected range for the next reading reckons with the thin oil
    const next = expectedReading(real.expectation!, fluid, { pressure: 210, temperature: 50, at: NOW });
    expect(next.centre / 1.4).toBeCloseTo(dynamicViscosity(fluid, 50) / dynamicViscosity(thin, 50), 1);
  });
});

describe("dirt in the oil", () => {
  test("before any reading since, the forecast is wider and earlier, and says so", () => {
    const readings = life(30, { end: 4 });
    const clean = assess(readings, point, context);
    const dirty = assess(readings, point, { ...context, contamination: { at: NOW - 5 * DAY, factor: 8 } });
    expect(dirty.forecast!.hours.p10!).toBeLessThan(clean.forecast!.hours.p10! * 0.95);
    expect(dirty.forecast!.hours.p50!).toBeLessThan(clean.forecast!.hours.p50!);
    const width = (a: Assessment) => Math.log(a.forecast!.hours.p90! / a.forecast!.hours.p10!);
    expect(width(dirty)).toBeGreaterThan(width(clean));
    expect(said(dirty)).toMatch(/until its readings show otherwise the dates allow for faster wear/);
  });
  test("readings since that keep their course bring the forecast back, and that is said", () => {
    const readings = life(40, { end: 4 });
    const clean = assess(readings, point, context);
    const dirty = assess(readings, point, { ...context, contamination: { at: readings[25]!.at + DAY, factor: 8 } });
    expect(dirty.forecast!.hours.p50! / clean.forecast!.hours.p50!).toBeGreaterThan(0.85);
    expect(said(dirty)).toMatch(/its readings since show no faster wear/);
  });
  test("dirt before this life, or at a quantity that dirt does not wear, is no matter", () => {
    const readings = life(20, { end: 4 });
    expect(
      said(assess(readings, point, { ...context, contamination: { at: readings[0]!.at - 300 * DAY, factor: 8 } })),
    ).not.toMatch(/Dirt/);
    expect(
      said(
        assess(
          readings,
          { ...point, quantity: "temperatureRise", reference: null },
          { ...context, contamination: { at: NOW - 50 * DAY, factor: 8 } },
        ),
      ),
    ).not.toMatch(/Dirt/);
  });
});

describe("a filter element", () => {
  const element = {
    quantity: "pressureDrop" as const,
    limit: { basis: "maker" as const, upper: 2.8, lower: null },
    reference: { pressure: 1, temperature: 50 },
    fullFlow: null,
    knownWhenNew: true,
    makersNew: null,
    referenceSpeed: 1450,
  };
  const drops = (n: number, speed: number | null = null): AssessReading[] =>
    Array.from({ length: n }, (_, i) => {
      const temperature = 45 + 8 * Math.sin(i);
      const flow = speed === null ? 1 : speed / 1450;
      return {
        id: String(i),
        at: NOW - (n - i) * 30 * DAY,
        hours: i * 270,
        value: 0.8 * Math.exp(0.05 * i) * flow * (dynamicViscosity(fluid, temperature) / dynamicViscosity(fluid, 50)),
        pressure: null,
        temperature,
        speed,
        uncertainty: null,
        doubtful: false,
        recalled: false,
      };
    });
  test("cold and slow readings stand on one line once they are brought to one viscosity and flow", () => {
    for (const speed of [null, 1100]) {
      const a = assess(drops(14, speed), element, context);
      a.series.forEach((p, i) => expect(p.corrected).toBeCloseTo(0.8 * Math.exp(0.05 * i), 6));
      expect(a.workings.last!.rows.some((r) => r.label.startsWith("flow ratio"))).toBe(speed !== null);
      expect(said(a)).not.toMatch(/ 1 bar/);
      expect(["drifting", "alert"]).toContain(a.state);
    }
  });
  test("without the oil's temperature the reading is marked and weighs less", () => {
    const [first, ...rest] = drops(6);
    const a = assess([{ ...first!, temperature: null }, ...rest], element, context);
    expect(a.series[0]).toMatchObject({ mark: "noConditions", corrected: first!.value });
    expect(a.series[0]!.uncertainty).toBeGreaterThan(a.series[1]!.uncertainty * 3);
  });
});
