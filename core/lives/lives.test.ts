import { random } from "../random/random";
import { ageReplacement, replacementCostRate } from "./ageReplacement";
import { weibullFit, weibullReliability, type Life } from "./weibull";

test("a known distribution is found again from many lives, censored ones too", () => {
  const rng = random(12);
  const lives: Life[] = Array.from({ length: 1500 }, () => {
    const time = 9000 * (-Math.log(1 - rng.uniform())) ** (1 / 2.2);
    const end = 4000 + 10_000 * rng.uniform();
    return { time: Math.min(time, end), failed: time <= end };
  });
  const fit = weibullFit(lives);
  expect(fit.shape).toBeCloseTo(2.2, 0);
  expect(fit.shapeInterval.low).toBeLessThan(2.2);
  expect(fit.shapeInterval.high).toBeGreaterThan(2.2);
  expect(fit.scaleInterval.low).toBeLessThan(9000);
  expect(fit.scaleInterval.high).toBeGreaterThan(9000);
});

test("an unknown start of watching counts: leaving it out makes parts look longer lived", () => {
  const rng = random(13);
  const lives: Life[] = [];
  while (lives.length < 400) {
    const time = 9000 * (-Math.log(1 - rng.uniform())) ** (1 / 2);
    const entry = 8000 * rng.uniform();
    if (time > entry) lives.push({ time, failed: true, entry });
  }
  const right = weibullFit(lives);
  const wrong = weibullFit(lives.map(({ time, failed }) => ({ time, failed })));
  expect(Math.abs(right.scale - 9000)).toBeLessThan(900);
  expect(wrong.scale).toBeGreaterThan(right.scale * 1.1);
});

test("refuses lives that say nothing or cannot be", () => {
  expect(() => weibullFit([{ time: 5, failed: false }])).toThrow(/No life has failed/);
  expect(() => weibullFit([{ time: 0, failed: true }])).toThrow(RangeError);
  expect(() => weibullFit([{ time: 5, failed: true, entry: 6 }])).toThrow(RangeError);
  expect(() => weibullFit([{ time: 5, failed: true, goodAt: 5 }])).toThrow(RangeError);
  expect(() =>
    weibullFit([
      { time: 5, failed: true },
      { time: 5, failed: true },
    ]),
  ).toThrow(/one age/);
});

describe("age replacement", () => {
  test("shape 2.5, scale 10 000 h, costs 1 and 5: 4930.5 h at 3.4620e-4 an hour", () => {
    const best = ageReplacement({ shape: 2.5, scale: 10_000, planned: 1, unplanned: 5 });
    expect(best.age).toBeCloseTo(4930.5, 0);
    expect(best.costRate).toBeCloseTo(3.462e-4, 8);
  });
  test("it is the cheapest age of all", () => {
    const input = { shape: 3, scale: 8000, planned: 1, unplanned: 4 };
    const best = ageReplacement(input);
    for (const age of [500, 2000, best.age! * 0.9, best.age! * 1.1, 9000])
      expect(replacementCostRate(age, input)).toBeGreaterThan(best.costRate);
  });
  test("none when age does not matter or failing costs no more, and doubt when the interval spans 1", () => {
    expect(ageReplacement({ shape: 1, scale: 100, planned: 1, unplanned: 9 })).toMatchObject({
      age: null,
      note: expect.stringContaining("not above 1"),
    });
    expect(ageReplacement({ shape: 3, scale: 100, planned: 2, unplanned: 2 })).toMatchObject({
      age: null,
      note: expect.stringContaining("run to failure"),
    });
    expect(
      ageReplacement({ shape: 1.3, scale: 100, planned: 1, unplanned: 20, shapeInterval: { low: 0.8, high: 2 } }).note,
    ).toContain("caution");
    expect(() => ageReplacement({ shape: 0, scale: 1, planned: 1, unplanned: 1 })).toThrow(RangeError);
  });
  test("with shape 1 running to failure costs the unplanned cost over the mean life", () =>
    expect(ageReplacement({ shape: 1, scale: 100, planned: 1, unplanned: 9 }).runToFailure).toBeCloseTo(0.09, 5));
  test("reliability", () => {
    expect(weibullReliability(0, { shape: 2, scale: 10 })).toBe(1);
    expect(weibullReliability(10, { shape: 2, scale: 10 })).toBeCloseTo(Math.exp(-1), 12);
  });
});
