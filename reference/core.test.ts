/** Outside checks of lives, control charts, tank balance and age replacement. Each names its source. */
import fromBalance from "./balance.py.json";
import cleanliness from "./cleanliness.json";
import fromCharts from "./charts.R.json";
import fromLives from "./lives.R.json";
import {
  as4059Table,
  iso4406Bounds,
  nas1638Table,
  ageReplacement,
  cleanUpTime,
  countAfter,
  cusum,
  ewma,
  random,
  weibullFit,
} from "@core";

const close = (value: number, expected: number, relative: number) =>
  expect(Math.abs(value - expected)).toBeLessThanOrEqual(relative * Math.abs(expected) + 1e-9);

describe("R survival: survreg, and profile intervals by uniroot", () => {
  test.each(fromLives.right.map((d) => [d.name, d] as const))("%s", (_name, d) => {
    const fit = weibullFit(d.time.map((time, i) => ({ time, failed: d.failed[i] === 1 })));
    close(fit.shape, d.shape, 1e-5);
    close(fit.scale, d.scale, 1e-5);
    close(fit.logLikelihood, d.logLikelihood, 1e-8);
    close(fit.shapeInterval.low, d.shapeLow, 1e-4);
    close(fit.shapeInterval.high, d.shapeHigh, 1e-4);
    close(fit.scaleInterval.low, d.scaleLow, 1e-4);
    close(fit.scaleInterval.high, d.scaleHigh, 1e-4);
  });
  test("diesel generator fans, Nelson (1969): shape 1.0584, scale 26 296.85 h", () => {
    const d = fromLives.right[0]!;
    const fit = weibullFit(d.time.map((time, i) => ({ time, failed: d.failed[i] === 1 })));
    expect(fit.shape).toBeCloseTo(1.0584, 4);
    expect(fit.scale).toBeCloseTo(26_296.85, 0);
    expect(fit).toMatchObject({ failures: 12, lives: 70 });
  });
  test("R optim: delayed entry and interval censoring", () => {
    const { time, entry, failed, goodAt, shape, scale } = fromLives.mixed;
    const fit = weibullFit(
      time.map((t, i) => ({
        time: t,
        failed: failed[i] === 1,
        entry: entry[i]!,
        ...(goodAt[i] !== null && { goodAt: goodAt[i]! }),
      })),
    );
    close(fit.shape, shape, 1e-3);
    close(fit.scale, scale, 1e-3);
  });
});

describe("R spc: run lengths (Montgomery, Introduction to Statistical Quality Control)", () => {
  /** Mean run length by simulation, with its standard error. */
  function runLength(signalAt: (next: () => number) => number, runs: number, shift: number, seed: number) {
    const rng = random(seed);
    const lengths = Array.from({ length: runs }, () => signalAt(() => rng.normal() + shift));
    const mean = lengths.reduce((s, v) => s + v, 0) / runs;
    const deviation = Math.sqrt(lengths.reduce((s, v) => s + (v - mean) ** 2, 0) / (runs - 1) / runs);
    return { mean, deviation };
  }
  const first = (chart: (values: number[]) => number | undefined) => (next: () => number) => {
    const values: number[] = [];
    for (;;) {
      const more = Math.max(30, values.length);
      for (let i = 0; i < more; i++) values.push(next());
      const at = chart(values);
      if (at !== undefined) return at + 1;
    }
  };
  const byCusum = first((values) => cusum(values, { target: 0, sigma: 1, k: 0.5, h: 5 }).signals[0]?.index);
  const byEwma = first((values) => ewma(values, { target: 0, sigma: 1, lambda: 0.2, L: 2.962 }).signals[0]);
  test.each([
    ["CUSUM, in control", byCusum, 0, fromCharts.cusum.inControl, 1500],
    ["CUSUM, one sigma", byCusum, 1, fromCharts.cusum.oneSigma, 6000],
    ["CUSUM, two sigma", byCusum, 2, fromCharts.cusum.twoSigma, 6000],
    ["EWMA, in control", byEwma, 0, fromCharts.ewma.inControl, 1500],
    ["EWMA, one sigma", byEwma, 1, fromCharts.ewma.oneSigma, 6000],
    ["EWMA, two sigma", byEwma, 2, fromCharts.ewma.twoSigma, 6000],
  ] as const)("%s", (_name, chart, shift, expected, runs) => {
    const { mean, deviation } = runLength(chart, runs, shift, 77);
    expect(Math.abs(mean - expected)).toBeLessThan(3.3 * deviation);
  });
});

describe("NIST/SEMATECH e-Handbook of Statistical Methods", () => {
  test("6.3.2.4 EWMA: λ 0.3, target 50, sigma 2.0539; averages and limits (memory)", () => {
    const data = [
      52.0, 47.0, 53.0, 49.3, 50.1, 47.0, 51.0, 50.1, 51.2, 50.5, 49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6,
      52.1,
    ];
    const printed = [
      50.6, 49.52, 50.56, 50.18, 50.16, 49.21, 49.75, 49.85, 50.26, 50.33, 50.11, 49.36, 49.52, 50.05, 49.38, 49.92,
      50.73, 51.23, 51.94, 51.99,
    ];
    const chart = ewma(data, { target: 50, sigma: 2.0539, lambda: 0.3, L: 3 });
    chart.values.forEach((v, i) => expect(v).toBeCloseTo(printed[i]!, 1));
    expect(chart.upper).toBeCloseTo(52.5884, 3);
    expect(chart.lower).toBeCloseTo(47.4115, 3);
    expect(chart.signals).toEqual([]);
  });
  test("6.3.2.3 CUSUM: target 325, k 0.3175, h 4.1959 in the data's own unit; the first signal is at group 14 (memory)", () => {
    const data = [
      324.925, 324.675, 324.725, 324.35, 325.35, 325.225, 324.125, 324.525, 325.225, 324.6, 324.625, 325.15, 328.325,
      327.25, 327.825, 328.5, 326.675, 327.775, 326.875, 328.35,
    ];
    const chart = cusum(data, { target: 325, sigma: 1, k: 0.3175, h: 4.1959 });
    expect(chart.upper[12]).toBeCloseTo(3.0075, 4);
    expect(chart.upper[13]).toBeCloseTo(4.94, 4);
    expect(chart.signals[0]).toMatchObject({ index: 13, arm: "upper", since: 12 });
  });
});

describe("SciPy solve_ivp (Radau): tank balance", () => {
  test.each(fromBalance.tanks.map((d) => [d.volume, d.beta, d] as const))("%d L, β %d", (_volume, _beta, d) => {
    d.minutes.forEach((minutes, i) => close(countAfter(d, d.start, minutes), d.counts[i]!, 1e-6));
    const time = cleanUpTime(d, d.start, d.goal);
    if (d.time === null) expect(time).toBeNull();
    else close(time!, d.time, 1e-6);
  });
});

describe("SciPy quad and minimize_scalar: age replacement", () => {
  test.each(fromBalance.ages.map((d) => [d.shape, d] as const))("shape %d", (_shape, d) => {
    const best = ageReplacement(d);
    close(best.costRate, d.rate, 1e-6);
    close(best.age!, d.age, 2e-3);
  });
});

describe("cleanliness tables, row by row (memory)", () => {
  test("ISO 4406 upper bounds", () => expect(iso4406Bounds.map(String)).toEqual(cleanliness.iso4406));
  test.each(Object.entries(cleanliness.nas1638))("NAS 1638, %s µm", (size, limits) =>
    expect(nas1638Table.rows.map((r) => r[nas1638Table.sizes.indexOf(size) + 1])).toEqual(limits),
  );
  test.each(Object.entries(cleanliness.as4059))("SAE AS4059, %s µm(c)", (size, limits) =>
    expect(as4059Table.rows.map((r) => r[as4059Table.sizes.indexOf(size) + 1])).toEqual(limits),
  );
});
