import { random } from "../random/random";
import { growingNoise, noiseOf } from "./noise";

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

describe("noise that grows with the level", () => {
  const risen = (n: number, noise: (share: number) => number, seed = 9) => {
    const rng = random(seed);
    return Array.from({ length: n }, (_, i) => ({
      hours: 300 * i,
      y: (1.2 * i) / n + noise(i / n) * rng.normal(),
      lnPressure: 0,
      lnViscosity: 0,
      u: 0.01,
    }));
  };
  test("late readings are trusted less, early ones more, where it grows threefold", () => {
    const given = risen(60, (share) => 0.02 * (1 + 2 * share));
    const { noise, readings } = growingNoise(given, 0.04);
    expect(noise).toBeLessThan(0.035);
    expect(readings.at(-1)!.u).toBeGreaterThan(noise);
    expect(readings[0]!.u).toBeCloseTo(0.01, 3);
  });
  test("of 200 lives whose noise stays as it is, it is said of at most one in ten that a late reading scatters half as much again", () => {
    const told = Array.from({ length: 200 }, (_, seed) => {
      const { noise, readings } = growingNoise(
        risen(40, () => 0.04, seed),
        0.04,
      );
      return Math.hypot(noise, readings.at(-1)!.u) > 1.5 * Math.hypot(noise, readings[0]!.u);
    });
    expect(told.filter(Boolean).length).toBeLessThanOrEqual(20);
  });
  test("few readings, or a level that stays, say nothing of it", () => {
    const few = risen(8, () => 0.04);
    expect(growingNoise(few, 0.04)).toEqual({ noise: 0.04, readings: few });
    const level = risen(40, () => 0.04).map((r, i) => ({ ...r, y: r.y - (1.2 * i) / 40 }));
    expect(growingNoise(level, 0.04).noise).toBe(0.04);
  });
});
