import { describe, expect, test } from "@jest/globals";
import { normalQuantile } from "../numeric/normal";
import { random } from "../random/random";
import { scorecard, type IssuedForecast } from "./scorecard";
import { FEWEST_TO_LEARN, widenCrossings, widenedAt, wideningOf } from "./widen";

/** Forecasts whose stated spread is a share of the true one (1: honest). */
function fleet(lives: number, stated: number, seed: number): IssuedForecast[] {
  const rng = random(seed);
  const spread = 0.5;
  const q = (p: number) => 1000 * Math.exp(spread * stated * normalQuantile(p));
  return Array.from({ length: lives }, (_, i) => ({
    life: String(i),
    issuedAt: 0,
    p10: q(0.1),
    p50: 1000,
    p90: q(0.9),
    outcome: { at: 1000 * Math.exp(spread * rng.normal()), crossed: true },
  }));
}

describe("what the scorecard teaches", () => {
  test("forecasts that are too narrow are widened, and then hold on lives that nothing was learned from", () => {
    const factor = wideningOf(fleet(60, 0.5, 1));
    expect(factor).toBeGreaterThan(1.4);
    const others = fleet(400, 0.5, 2);
    expect(scorecard(others).covered!.share).toBeLessThan(0.6);
    const after = others.map((f) => ({
      ...f,
      p10: widenedAt(f.p10!, f.p50!, 0, factor),
      p90: widenedAt(f.p90!, f.p50!, 0, factor),
    }));
    expect(scorecard(after).covered!.share).toBeGreaterThan(0.7);
    expect(scorecard(after).covered!.share).toBeLessThan(0.92);
  });
  test("honest ones stay nearly as they are, and few lives teach nothing", () => {
    expect(wideningOf(fleet(400, 1, 3))).toBeLessThanOrEqual(1.15);
    expect(wideningOf(fleet(FEWEST_TO_LEARN - 1, 0.2, 4))).toBe(1);
    expect(wideningOf([])).toBe(1);
  });
  test("the middle stays, the order stays, what lies beyond stays beyond, what is past stays past", () => {
    const rounded = (all: (number | null)[]) => all.map((v) => (v === null ? null : Math.round(v)));
    expect(rounded(widenCrossings([-5, 10, 100, 1000, null], 0, 2))).toEqual([-5, 1, 100, 10_000, null]);
    expect(widenCrossings([10, null, null], 0, 2)).toEqual([10, null, null]);
    expect(widenCrossings([10, 20], 0, 1)).toEqual([10, 20]);
  });
});
