import { random } from "../random/random";
import { laminar, learnExponents, ownExponents } from "./exponents";

describe("exponents from peers", () => {
  const rng = random(11);
  const lives = (count: number, b: number, between: number, doubt: number) =>
    Array.from({ length: count }, () => ({
      a: 1,
      b: b + between * rng.normal() + doubt * rng.normal(),
      ua: doubt,
      ub: doubt,
    }));

  test("none: laminar, as wide as before", () => expect(learnExponents([], laminar)).toEqual(laminar));
  test("many lives tell the centre and how far lives differ", () => {
    const learned = learnExponents(lives(60, 0.7, 0.05, 0.05), laminar);
    expect(learned.b).toBeCloseTo(0.7, 1);
    expect(learned.ub).toBeGreaterThan(0.04);
    expect(learned.ub).toBeLessThan(0.11);
  });
  test("lives that differ widely stay wide", () =>
    expect(learnExponents(lives(60, 0.7, 0.25, 0.05), laminar).ub).toBeGreaterThan(0.2));
  test("lives that know little tell little", () => {
    const learned = learnExponents(lives(3, 0.5, 0, 1), laminar);
    expect(Math.abs(learned.b - 1)).toBeLessThan(0.2);
    expect(learned.ub).toBeLessThanOrEqual(laminar.ub);
  });
  test("what was expected before is taken out again", () => {
    // readings that alone say 0.6 ± 0.2, seen with the expectation 1 ± 0.3
    const precision = 1 / 0.04 + 1 / 0.09;
    const found = (0.6 / 0.04 + 1 / 0.09) / precision;
    const own = ownExponents({ a: found, b: found, ua: precision ** -0.5, ub: precision ** -0.5 }, laminar);
    expect(own.a).toBeCloseTo(0.6, 9);
    expect(own.ub).toBeCloseTo(0.2, 9);
  });
  test("readings that said nothing tell nothing", () => {
    const own = ownExponents(laminar, laminar);
    expect(own.ua).toBe(1);
    expect(own.a).toBe(1);
  });
});
