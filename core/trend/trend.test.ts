import fc from "fast-check";
import { random } from "../random/random";
import { solvePositive, solveSymmetric } from "./linear";
import { mannKendall } from "./mannKendall";
import { normalCdf, normalQuantile } from "../numeric/normal";
import { studentQuantile } from "../numeric/student";
import { inverseEcdf, median, robustSpread } from "./robust";
import { theilSen } from "./theilSen";
import { weightedLine } from "./weightedLine";

const line = (n: number, slope: number, noise: number, seed = 1) => {
  const rng = random(seed);
  const x = Array.from({ length: n }, (_, i) => i);
  return { x, y: x.map((v) => 3 + slope * v + noise * rng.normal()) };
};

describe("Theil-Sen", () => {
  test("an exact line is found exactly", () => {
    fc.assert(
      fc.property(fc.double({ min: -10, max: 10, noNaN: true }), (slope) => {
        const { x, y } = line(9, slope, 0);
        const fit = theilSen(x, y);
        expect(fit.slope).toBeCloseTo(slope, 9);
        expect(fit.intercept).toBeCloseTo(3, 8);
      }),
    );
  });
  test("a wild reading hardly moves it", () => {
    const { x, y } = line(20, 0.5, 0.05);
    y[7] = 400;
    expect(theilSen(x, y).slope).toBeCloseTo(0.5, 1);
  });
  test("interval holds the slope and widens with confidence", () => {
    const { x, y } = line(30, 0.2, 0.5);
    const wide = theilSen(x, y, { confidence: 0.99 });
    const narrow = theilSen(x, y, { confidence: 0.8 });
    expect(wide.low).toBeLessThanOrEqual(narrow.low);
    expect(wide.high).toBeGreaterThanOrEqual(narrow.high);
  });
  test("refuses what has no slope", () => {
    expect(() => theilSen([1, 1], [2, 3])).toThrow(RangeError);
    expect(() => theilSen([1, 2], [2])).toThrow(RangeError);
  });
});

describe("Mann-Kendall", () => {
  test("rises, falls, stands", () => {
    expect(mannKendall([1, 2, 3, 4, 5, 6])).toMatchObject({ s: 15, tau: 1 });
    expect(mannKendall([6, 5, 4, 3, 2, 1]).s).toBe(-15);
    expect(mannKendall([2, 2, 2, 2])).toMatchObject({ s: 0, p: 1, tau: 0 });
    expect(() => mannKendall([1, 2])).toThrow(RangeError);
  });
  test("scatter alone is called a trend about as often as it should be", () => {
    const rng = random(3);
    let called = 0;
    for (let i = 0; i < 2000; i++) if (mannKendall(Array.from({ length: 15 }, () => rng.normal())).p < 0.05) called++;
    expect(called / 2000).toBeGreaterThan(0.03);
    expect(called / 2000).toBeLessThan(0.065);
  });
});

describe("weighted line", () => {
  test("a heavy reading pulls the line to it", () => {
    const even = weightedLine([0, 1, 2, 3], [0, 0, 0, 3]);
    const heavy = weightedLine([0, 1, 2, 3], [0, 0, 0, 3], [1, 1, 1, 100]);
    expect(heavy.predict(3).fit).toBeGreaterThan(even.predict(3).fit);
    expect(heavy.predict(3).fit).toBeCloseTo(3, 1);
  });
  test("a new reading of more weight is foretold more closely", () => {
    const { x, y } = line(12, 1, 0.4);
    const fit = weightedLine(x, y);
    const width = (weight: number) => fit.predict(14, { weight }).high - fit.predict(14, { weight }).low;
    expect(width(4)).toBeLessThan(width(1));
    expect(fit.slopeInterval(0.95).low).toBeLessThan(1);
  });
  test("refuses too few, weightless and timeless readings", () => {
    expect(() => weightedLine([0, 1], [0, 1])).toThrow(RangeError);
    expect(() => weightedLine([0, 1, 2], [0, 1, 2], [1, 0, 1])).toThrow(RangeError);
    expect(() => weightedLine([1, 1, 1], [0, 1, 2])).toThrow(RangeError);
  });
});

test("medians, quantiles and robust spread", () => {
  expect(median([3, 1, 2])).toBe(2);
  expect(median([4, 1, 2, 3])).toBe(2.5);
  expect(() => median([])).toThrow(RangeError);
  expect(inverseEcdf([1, 2, 3, 4], 0.5)).toBe(2);
  expect(inverseEcdf([1, 2, 3, 4], 0)).toBe(1);
  expect(inverseEcdf([1, 2, 3, 4], 1)).toBe(4);
  expect(() => inverseEcdf([], 0.5)).toThrow(RangeError);
  expect(robustSpread([5])).toBe(0);
  const rng = random(11);
  for (const n of [5, 7, 12, 25, 60, 200]) {
    let sum = 0;
    for (let i = 0; i < 4000; i++) sum += robustSpread(Array.from({ length: n }, () => rng.normal()));
    expect(sum / 4000).toBeGreaterThan(0.97);
    expect(sum / 4000).toBeLessThan(1.03);
  }
});

test("distributions and their inverses", () => {
  for (const p of [0.001, 0.025, 0.5, 0.9, 0.999]) expect(normalCdf(normalQuantile(p))).toBeCloseTo(p, 6);
  expect(studentQuantile(0.975, 10)).toBeCloseTo(2.228139, 5); // table value, R qt(0.975, 10)
});

test("a positive definite system by its factors: the same as by elimination, and its determinant", () => {
  const a = [
    [4, 2, 0.5],
    [2, 5, 1],
    [0.5, 1, 3],
  ];
  const { x, lnDeterminant } = solvePositive(a, [1, 2, 3]);
  solveSymmetric(a, [1, 2, 3]).x.forEach((v, i) => expect(x[i]).toBeCloseTo(v, 12));
  // 4·(5·3 − 1) − 2·(2·3 − 0.5) + 0.5·(2 − 2.5)
  expect(Math.exp(lnDeterminant)).toBeCloseTo(56 - 11 - 0.25, 9);
  expect(() =>
    solvePositive(
      [
        [1, 2],
        [2, 1],
      ],
      [1, 1],
    ),
  ).toThrow(RangeError);
});

test("a singular system is refused", () =>
  expect(() =>
    solveSymmetric(
      [
        [1, 1],
        [1, 1],
      ],
      [1, 2],
    ),
  ).toThrow(RangeError));
