/** Draws of the crossing against what is known of them on paper. */
import { random } from "../random/random";
import { drawCrossing, drawState, newRate, systematic } from "./draws";
import { startBank } from "./bank";
import { NEW_RATE_FLOOR, NEW_RATE_MEAN, type Hypothesis } from "./hypothesis";
import { firstPassageQuantile } from "./firstPassage";
import { defaultPrior } from "./prior";
import type { Regime } from "./regime";

const bank = startBank(Math.log(4), defaultPrior, false);
const even = bank.find(
  (h) => h.path.id === "linear" && !h.regime.dormant && h.regime.changes < 1 && h.regime.turn === 0,
)!;
/** The hypothesis with a regime that is changed. */
function withRegime(h: Hypothesis, change: Partial<Regime>): Hypothesis {
  return Object.assign(Object.create(Object.getPrototypeOf(h) as object) as Hypothesis, h, {
    regime: { ...h.regime, ...change },
  });
}
const quantile = (values: number[], p: number) => [...values].sort((a, b) => a - b)[Math.floor(p * values.length)]!;
const draws = (h: Hypothesis, { z = 0, d = h.driftMean, horizon = 1e7, seed = 3, count = 6000 } = {}) => {
  const rng = random(seed);
  return Array.from({ length: count }, () => drawCrossing(h, z, d, 0, horizon, rng));
};

test("without changes the crossing is the inverse Gaussian's first passage", () => {
  const still = withRegime(even, { changes: 1e-9 });
  const made = draws(still);
  for (const p of [0.1, 0.5, 0.9])
    expect(quantile(made, p) / firstPassageQuantile(p, still.zLimit, still.driftMean, Math.sqrt(still.q))).toBeCloseTo(
      1,
      1,
    );
});

test("changes that hasten bring the crossing nearer, the more of them the nearer", () => {
  const middle = (changes: number) => quantile(draws(withRegime(even, { changes })), 0.5);
  expect(middle(1)).toBeLessThan(middle(1e-9));
  expect(middle(5)).toBeLessThan(middle(1));
});

test("a rate that turns spreads the crossing to both sides", () => {
  const [still, turning] = [
    draws(withRegime(even, { changes: 1e-9 })),
    draws(withRegime(even, { changes: 1e-9, turn: 1 })),
  ];
  expect(quantile(turning, 0.1)).toBeLessThan(quantile(still, 0.1));
  expect(quantile(turning, 0.9)).toBeGreaterThan(quantile(still, 0.9));
});

test("a rate that turns crosses as in a fine simulation of the same walk", () => {
  const turning = withRegime(even, { changes: 1e-9, turn: 1 });
  const rng = random(11);
  const step = even.timeScale / 240;
  const fine = Array.from({ length: 3000 }, () => {
    let [z, d, hours] = [0, even.driftMean, 0];
    while (z < even.zLimit && hours < 8 * even.timeScale) {
      z += d * step;
      d *= Math.exp(Math.sqrt(1 / 240) * rng.normal());
      hours += step;
    }
    return hours;
  });
  for (const p of [0.25, 0.5, 0.75])
    expect(Math.abs(Math.log(quantile(draws(turning, { count: 3000 }), p) / quantile(fine, p)))).toBeLessThan(0.1);
});

test("at the limit it crosses now; what lies beyond the horizon is not said", () => {
  expect(draws(even, { z: even.zLimit, count: 5 })).toEqual([0, 0, 0, 0, 0]);
  expect(draws(even, { horizon: 10, count: 50 }).every((hours) => hours === Infinity)).toBe(true);
  expect(draws(even, { d: 0, z: 0, horizon: 100, count: 50 }).filter(Number.isFinite)).toHaveLength(0);
});

test("the clock of a path is kept: a part that ages is nearer its end at the same place and rate", () => {
  const ageing = bank.find((h) => h.path.id === "ageing" && h.regime.changes < 1 && h.regime.turn === 0)!;
  const still = withRegime(ageing, { changes: 1e-9 });
  const at = (age: number) => {
    const rng = random(8);
    return quantile(
      Array.from({ length: 2000 }, () => drawCrossing(still, 0.5 * still.zLimit, still.driftMean, age, 1e7, rng)),
      0.5,
    );
  };
  expect(at(20_000)).toBeLessThan(at(5000));
});

test("place and rate are drawn with the filter's spread, and wear does not heal", () => {
  const h = even.child();
  Object.assign(h, { z: 1, d: 1e-4, pzz: 0.04, pdd: 4e-10, pzd: 2e-6 });
  const rng = random(2);
  const states = Array.from({ length: 8000 }, () => drawState(h, rng));
  const mean = (v: number[]) => v.reduce((s, x) => s + x, 0) / v.length;
  const [zs, ds] = [states.map(([z]) => z), states.map(([, d]) => d)];
  expect(mean(zs)).toBeCloseTo(1, 1);
  expect(Math.sqrt(mean(zs.map((z) => (z - mean(zs)) ** 2)))).toBeCloseTo(0.2, 1);
  expect(mean(zs.map((z, i) => (z - mean(zs)) * (ds[i]! - mean(ds))))).toBeGreaterThan(0);
  expect(Math.min(...ds)).toBeGreaterThan(0);
});

test("a new rate has the mean that the filter reckons with, from no less than its floor", () => {
  const rng = random(6);
  const mean = (d: number) =>
    Array.from({ length: 40_000 }, () => newRate(even, d, rng)).reduce((s, x) => s + x, 0) / 40_000;
  expect(mean(3 * even.driftMean) / (3 * even.driftMean * NEW_RATE_MEAN)).toBeCloseTo(1, 1);
  expect(mean(0) / (NEW_RATE_FLOOR * even.driftMean * NEW_RATE_MEAN)).toBeCloseTo(1, 1);
});

test("systematic draws: every index within one of its share", () => {
  const weights = [0.5, 0.2, 0.2, 0.1];
  for (const offset of [0, 0.3, 0.99])
    weights.forEach((w, i) =>
      expect(Math.abs(systematic(weights, 100, offset).filter((p) => p === i).length - 100 * w)).toBeLessThanOrEqual(1),
    );
});
