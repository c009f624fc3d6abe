import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { likeness } from "./likeness";

const same = (n: number, ln: number) => Array.from({ length: n }, () => ln);

describe("whether a life is like its peers", () => {
  test("readings that both banks foretell alike leave it where it was, however many there are", () => {
    for (const share of likeness(same(90, -1), same(90, -1))) expect(share).toBeCloseTo(0.6, 9);
  });
  test("a life that has left its peers leaves them within three readings", () => {
    const left = likeness([...same(40, 1), ...same(3, -2)], same(43, 0));
    expect(left[39]).toBeGreaterThan(0.98);
    expect(left[42]).toBeLessThan(0.35);
  });
  test("one reading alone decides little: an outlier is no farewell", () => {
    const odd = likeness([...same(10, 0.5), -50, ...same(3, 0.5)], same(14, 0));
    expect(odd[10]).toBeGreaterThan(0.5);
    expect(odd[13]).toBeGreaterThan(0.9);
  });
  test("a reading that neither bank thought possible tells nothing of either", () => {
    expect(likeness([-Infinity], [-Infinity])[0]).toBeCloseTo(0.6, 9);
    expect(likeness([Infinity], [Infinity])[0]).toBeCloseTo(0.6, 9);
  });
  test("always a share, for whatever densities", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ noNaN: true }), fc.double({ noNaN: true })), { maxLength: 40 }),
        (pairs) => {
          const shares = likeness(
            pairs.map(([p]) => p),
            pairs.map(([, q]) => q),
          );
          for (const s of shares) expect(s > 0 && s < 1).toBe(true);
        },
      ),
    );
  });
});
