import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { anyOf, clamped, entropy, posterior } from "./bayes";

const ln = (...p: number[]) => p.map((x) => Math.log(x));

describe("posterior", () => {
  test("a rare thing and a good test: the worked example of every textbook (1 % ill, 90 % found, 9 % false)", () => {
    const [ill] = posterior([0.01, 0.99], [ln(0.9, 0.09)]);
    expect(ill).toBeCloseTo(0.009 / (0.009 + 0.0891), 9);
  });
  test("adds up to 1, whatever the evidence, and its order does not matter", () =>
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.001, max: 1, noNaN: true }), { minLength: 2, maxLength: 6 }),
        fc.array(fc.double({ min: 0.005, max: 0.995, noNaN: true }), { minLength: 12, maxLength: 12 }),
        (priors, chances) => {
          const a = ln(...chances.slice(0, priors.length));
          const b = ln(...chances.slice(6, 6 + priors.length));
          const one = posterior(priors, [a, b]);
          expect(one.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 9);
          posterior(priors, [b, a]).forEach((p, i) => expect(p).toBeCloseTo(one[i]!, 9));
        },
      ),
    ));
  test("a thousand pieces of evidence do not run out of digits", () => {
    const one = ln(0.4, 0.6);
    const [, second] = posterior([1, 1], Array<number[]>(1000).fill(one));
    expect(second).toBeCloseTo(1, 9);
  });
  test("nothing to choose from, and evidence that does not fit", () => {
    expect(posterior([], [])).toEqual([]);
    expect(() => posterior([1, 1], [[0]])).toThrow(RangeError);
    expect(() => posterior([0, 0], [])).toThrow(RangeError);
  });
});

test("entropy: one sure thing is no bit, two alike are one, eight are three", () => {
  expect(entropy([1, 0])).toBe(0);
  expect(entropy([0.5, 0.5])).toBe(1);
  expect(entropy(Array<number>(8).fill(1 / 8))).toBeCloseTo(3, 12);
});

test("noisy-OR: two signs at one half are three quarters, none is none", () => {
  expect(anyOf(0.5, 0.5)).toBe(0.75);
  expect(anyOf()).toBe(0);
});

test("no single likelihood decides", () => {
  expect(clamped(0)).toBeGreaterThan(0);
  expect(clamped(1)).toBeLessThan(1);
  expect(clamped(0.4)).toBe(0.4);
});
