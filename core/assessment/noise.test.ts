import { random } from "../random/random";
import { noiseOf } from "./noise";

/** Leakage readings of a part that wears evenly, through a season, with an exponent of viscosity of its own. */
function readings(n: number, noise: number, b: number, seed = 5) {
  const rng = random(seed);
  return Array.from({ length: n }, (_, i) => {
    const lnViscosity = 0.3 * Math.sin(i / 2) + 0.05 * rng.normal();
    const lnPressure = 0.03 * rng.normal();
    return {
      hours: 300 * i,
      y: 0.01 * i + lnPressure - b * lnViscosity + noise * rng.normal(),
      lnPressure,
      lnViscosity,
      u: 0.01,
    };
  });
}

describe("noise of the readings", () => {
  test("another exponent of viscosity is not taken for noise", () => {
    // taken for noise it would be 0.05
    expect(noiseOf(readings(120, 0.02, 0.4), true, 0.03)).toBeLessThan(0.028);
    expect(noiseOf(readings(120, 0.02, 0.4), true, 0.03)).toBeGreaterThan(0.014);
  });
  test("true noise is", () => {
    expect(noiseOf(readings(60, 0.1, 0.6), true, 0.03)).toBeGreaterThan(0.07);
    expect(noiseOf(readings(60, 0.1, 0.6), true, 0.03)).toBeLessThan(0.12);
  });
  test("few readings tell none: what is expected, and 5 % at least without a correction", () => {
    expect(noiseOf(readings(4, 0.1, 1), true, 0.03)).toBe(0.03);
    expect(noiseOf(readings(4, 0.1, 1), false, 0.03)).toBe(0.05);
  });
});
