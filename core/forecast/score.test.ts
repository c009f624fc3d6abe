import fc from "fast-check";
import { alphaLambda, crps, prognosticHorizon } from "./score";

test("CRPS of one draw is its distance; of a perfect forecast it is zero", () => {
  expect(crps([7], 10)).toBe(3);
  expect(crps([10, 10, 10], 10)).toBe(0);
  expect(() => crps([], 1)).toThrow(RangeError);
});

test("CRPS is the mean distance less half the mean distance between draws", () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 1, maxLength: 12 }),
      fc.double({ min: -50, max: 50, noNaN: true }),
      (draws, truth) => {
        const n = draws.length;
        const near = draws.reduce((s, d) => s + Math.abs(d - truth), 0) / n;
        const apart = draws.reduce((s, d) => s + draws.reduce((t, e) => t + Math.abs(d - e), 0), 0) / (n * n);
        expect(crps(draws, truth)).toBeCloseTo(near - apart / 2, 9);
      },
    ),
  );
});

test("CRPS of a normal forecast: σ·(1/√π)·(√2 − 1) at its centre (Gneiting and Raftery 2007)", () => {
  const draws = Array.from({ length: 4000 }, (_, i) => quantile((i + 0.5) / 4000));
  expect(crps(draws, 0)).toBeCloseTo((Math.SQRT2 - 1) / Math.sqrt(Math.PI), 2);
});

/** Standard normal quantile by bisection of the error function's series, independent of the project's own. */
function quantile(p: number): number {
  const cdf = (z: number) => {
    let term = z;
    let sum = z;
    for (let k = 1; k < 200; k++) sum += term *= (z * z) / (2 * k + 1);
    return 0.5 + (sum * Math.exp((-z * z) / 2)) / Math.sqrt(2 * Math.PI);
  };
  let [low, high] = [-5, 5];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (cdf(middle) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

test("α-λ: half of the draws within a fifth", () => {
  expect(alphaLambda([9, 10, 11, 40], 10)).toBe(true);
  expect(alphaLambda([9, 10, 40, 50, 60], 10)).toBe(false);
});

test("prognostic horizon: from where on every median is within a fifth", () => {
  expect(
    prognosticHorizon([
      { median: 500, truth: 100 },
      { median: 85, truth: 80 },
      { median: 41, truth: 40 },
    ]),
  ).toBe(80);
  expect(
    prognosticHorizon([
      { median: 100, truth: 100 },
      { median: 85, truth: 40 },
    ]),
  ).toBe(0);
});
