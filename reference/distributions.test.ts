/** Outside checks of the normal and Student distributions: SciPy (reference/distributions.py). */
import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { normalCdf, normalPdf, normalQuantile } from "../core/numeric/normal";
import { studentCdf, studentPdf, studentQuantile } from "../core/numeric/student";

const scipy = JSON.parse(readFileSync("reference/distributions.py.json", "utf8")) as Record<string, number[][]>;

/** Greatest difference from the outside figures, relative to them; a figure of 0 is compared as it is. */
function worst(rows: number[][], ours: (...inputs: number[]) => number): number {
  return Math.max(
    ...rows.map((row) => {
      const theirs = row.at(-1)!;
      return Math.abs(ours(...row.slice(0, -1)) - theirs) / (Math.abs(theirs) || 1);
    }),
  );
}

test("SciPy: norm.cdf to 1e-11 from 37.5 deviations below to 8 above", () => {
  expect(scipy.normalCdf).toHaveLength(17);
  expect(worst(scipy.normalCdf!, normalCdf)).toBeLessThan(1e-11);
});

test("SciPy: norm.ppf to 1e-10 from 1e-300 upward", () =>
  expect(worst(scipy.normalQuantile!, normalQuantile)).toBeLessThan(1e-10));

test("SciPy: t.cdf and t.pdf to 1e-10, half a degree of freedom to 2000", () => {
  expect(worst(scipy.studentCdf!, (df, x) => studentCdf(x!, df!))).toBeLessThan(1e-10);
  expect(worst(scipy.studentPdf!, (df, x) => studentPdf(x!, df!))).toBeLessThan(1e-10);
});

test("SciPy: t.ppf to 1e-9", () =>
  expect(worst(scipy.studentQuantile!, (df, p) => studentQuantile(p!, df!))).toBeLessThan(1e-9));

test("the density is the slope of the distribution", () => {
  for (const z of [-4, -1, 0, 0.3, 2])
    expect((normalCdf(z + 1e-5) - normalCdf(z - 1e-5)) / 2e-5).toBeCloseTo(normalPdf(z), 8);
});

test("outside (0, 1) a quantile is infinite at the ends and not a number beyond", () => {
  for (const quantile of [normalQuantile, (p: number) => studentQuantile(p, 5)]) {
    expect([quantile(0), quantile(1), quantile(1.5)]).toEqual([-Infinity, Infinity, NaN]);
  }
});
