import { describe, expect, test } from "@jest/globals";
import { random } from "../random/random";
import { placeIn, scorecard, type IssuedForecast } from "./scorecard";

const quantiles = { issuedAt: 0, p10: 100, p50: 200, p90: 400 };
const forecast = (life: string, at: number, crossed = true, change: Partial<IssuedForecast> = {}): IssuedForecast => ({
  life,
  ...quantiles,
  outcome: { at, crossed },
  ...change,
});

describe("the place of what came within a forecast", () => {
  test.each([
    [0, 0],
    [50, 0.05],
    [100, 0.1],
    [200, 0.5],
    [300, 0.7],
    [400, 0.9],
  ])("%d is at %d", (at, place) => expect(placeIn(quantiles, at)).toBeCloseTo(place, 12));
  test("beyond P90 it nears one; a quantile beyond the horizon is never passed", () => {
    expect(placeIn(quantiles, 4000)).toBeGreaterThan(0.999);
    expect(placeIn({ ...quantiles, p50: null, p90: null }, 1e6)).toBe(0.1);
    expect(placeIn({ ...quantiles, p90: null }, 1e6)).toBe(0.5);
  });
});

describe("the scorecard", () => {
  test("shares of what came, each life once", () => {
    const issued = [
      forecast("early", 50),
      forecast("within", 150),
      forecast("within", 150),
      forecast("within", 150),
      forecast("late", 900),
      forecast("also within", 390),
    ];
    const card = scorecard(issued);
    expect([card.lives, card.forecasts, card.crossed]).toEqual([4, 6, 4]);
    expect(card.covered!.share).toBeCloseTo(0.5, 12);
    expect(card.before).toBeCloseTo(0.25, 12);
    expect(card.after).toBeCloseTo(0.25, 12);
    expect(card.covered!.low).toBeLessThanOrEqual(0.5);
    expect(card.covered!.high).toBeGreaterThanOrEqual(0.5);
  });
  test("honest forecasts of lives that were replaced at random are found to be honest", () => {
    const rng = random(5);
    const issued = Array.from({ length: 600 }, (_, i) => {
      const u = rng.uniform();
      const at =
        u < 0.1 ? u * 1000 : u < 0.5 ? 100 + (u - 0.1) * 250 : u < 0.9 ? 200 + (u - 0.5) * 500 : 400 + (u - 0.9) * 4000;
      const replaced = 20 + rng.uniform() * 600;
      return forecast(String(i), Math.min(at, replaced), at < replaced);
    });
    const { covered, before, after } = scorecard(issued);
    expect(covered!.share).toBeCloseTo(0.8, 1);
    expect(before).toBeCloseTo(0.1, 1);
    expect(after).toBeCloseTo(0.1, 1);
    // counted without those that were replaced, it would look as if most came early
    const naive = issued.filter((f) => f.outcome.crossed);
    expect(naive.filter((f) => f.outcome.at > 400).length / naive.length).toBeLessThan(after! - 0.02);
  });
  test("a late forecast is called late, by the time that was left", () => {
    const issued = ["a", "b", "c"].map((life) => forecast(life, 100));
    expect(scorecard(issued).late).toBeCloseTo(1, 12);
  });
  test("too little came, or it had crossed before the forecast: nothing is claimed", () => {
    expect(scorecard([forecast("a", 50), forecast("b", 60)]).covered).toBeNull();
    expect(scorecard([]).lives).toBe(0);
    expect(scorecard([forecast("a", -5)]).forecasts).toBe(0);
  });
});
