/** Checks against things outside the project. Each names its source; the JSON says which program made it. */
import fromPython from "./statistics.py.json";
import fromR from "./statistics.R.json";
import {
  annularLeakage,
  convert,
  firstPassageCdf,
  firstPassageQuantile,
  hydraulicPower,
  kinematicViscosity,
  mannKendall,
  orificeFlow,
  robustSpread,
  theilSen,
  theoreticalFlow,
  viscosityTemperatureSensitivity,
  weightedLine,
  random,
} from "@core";
import { lnNormalCdf, normalQuantile } from "../core/numeric/normal";
import { studentQuantile } from "../core/numeric/student";

const close = (value: number, expected: number, relative = 1e-6) =>
  expect(Math.abs(value - expected)).toBeLessThanOrEqual(relative * Math.max(1e-12, Math.abs(expected)));

describe("R: cor.test(method = kendall, continuity = TRUE)", () => {
  test.each(fromR.mannKendall.map((d) => [d.name, d] as const))("%s", (_name, d) => {
    const own = mannKendall(d.y);
    close(own.z, d.z, 1e-8);
    close(own.tau, d.tau, 1e-8);
    expect(Math.abs(own.p - d.p)).toBeLessThan(1e-6 * Math.max(d.p, 1e-4));
  });
});

describe("R: lm with weights, confint, predict(interval = prediction, weights = 1)", () => {
  test.each(fromR.lines.map((d) => [d.name, d] as const))("%s", (_name, d) => {
    const fit = weightedLine(d.x, d.y, d.w);
    close(fit.slope, d.slope, 1e-9);
    close(fit.intercept, d.intercept, 1e-9);
    close(fit.slopeError, d.slopeError, 1e-9);
    close(fit.sigma, d.sigma, 1e-9);
    const interval = fit.slopeInterval(0.95);
    close(interval.low, d.slopeLow, 1e-8);
    close(interval.high, d.slopeHigh, 1e-8);
    const p = fit.predict(d.at, { confidence: 0.95, weight: 1 });
    close(p.fit, d.fit, 1e-9);
    close(p.low, d.low, 1e-8);
    close(p.high, d.high, 1e-8);
  });
});

describe("SciPy: theilslopes(method = separate)", () => {
  const data = new Map([
    ...fromR.lines.map((d) => [d.name, { x: d.x, y: d.y }] as const),
    ["Nile", { x: fromR.mannKendall[0]!.y.map((_, i) => i), y: fromR.mannKendall[0]!.y }] as const,
  ]);
  test.each(fromPython.theilSen.map((d) => [d.name, d] as const))("%s", (name, d) => {
    const own = theilSen(data.get(name)!.x, data.get(name)!.y, { confidence: 0.95 });
    close(own.slope, d.slope, 1e-9);
    expect(Math.abs(own.intercept - d.intercept)).toBeLessThan(1e-9 * Math.max(1, Math.abs(d.intercept)));
    close(own.low, d.low, 1e-9);
    close(own.high, d.high, 1e-9);
  });
});

describe("SciPy: invgauss", () => {
  test.each(fromPython.firstPassage.map((d) => [d.distance, d.drift, d.sigma, d] as const))(
    "distance %d, drift %d, sigma %d",
    (distance, drift, sigma, d) => {
      for (const [p, t] of d.quantiles) close(firstPassageQuantile(p!, distance, drift, sigma), t!, 1e-5);
      for (const [t, p] of d.cdf) close(firstPassageCdf(t!, distance, drift, sigma), p!, 1e-5);
    },
  );
  test("quantiles at distance 5, drift 0.2, sigma 0.3", () => {
    close(firstPassageQuantile(0.1, 5, 0.2, 0.3), 16.414, 1e-4);
    close(firstPassageQuantile(0.5, 5, 0.2, 0.3), 23.93, 1e-4);
    close(firstPassageQuantile(0.9, 5, 0.2, 0.3), 34.957, 1e-4);
  });
});

test("SciPy: norm.logcdf, far into the lower tail", () => {
  for (const [z, ln] of fromPython.lnNormalCdf) close(lnNormalCdf(z!), ln!, 1e-6);
});

test("R: qt and qnorm", () => {
  fromR.student.p.forEach((p, i) => close(studentQuantile(p, fromR.student.df), fromR.student.q[i]!, 1e-10));
  fromR.normal.p.forEach((p, i) => expect(Math.abs(normalQuantile(p) - fromR.normal.q[i]!)).toBeLessThan(1e-10));
});

test("NumPy: the small-sample factor makes the MAD unbiased", () => {
  const rng = random(17);
  for (const [n] of fromPython.madFactor.filter(([size]) => size! >= 4 && size! <= 20)) {
    let sum = 0;
    for (let i = 0; i < 20_000; i++) sum += robustSpread(Array.from({ length: n! }, () => rng.normal()));
    expect(Math.abs(sum / 20_000 - 1)).toBeLessThan(0.015);
  }
});

describe("Mann-Kendall with ties, worked by hand", () => {
  test("p 0.00865 for ten values", () =>
    expect(mannKendall([2.1, 2.0, 2.3, 2.3, 2.2, 2.5, 2.4, 2.4, 2.7, 2.5]).p).toBeCloseTo(0.00865, 5));
});

describe("exact factors, NIST Special Publication 811", () => {
  test("psi, gallon, inch, foot-pound", () => {
    close(convert(1, "psi", "kPa"), 6.894757293168361, 1e-12);
    close(convert(1, "gal", "L"), 3.785411784, 1e-12);
    close(convert(1, "in", "mm"), 25.4, 1e-12);
    close(convert(1, "lbf·ft", "N·m"), 1.3558179483314, 1e-12);
    close(convert(1, "in³/rev", "cm³/rev"), 16.387064, 1e-12);
  });
});

describe("ASTM D341, worked from the published equation", () => {
  test.each([
    [20, 133.84],
    [50, 29.97],
    [60, 20.62],
    [80, 11.1],
  ])("VG 46 at %d °C: %d mm²/s", (t, nu) => expect(kinematicViscosity({ kv40: 46, kv100: 6.8 }, t)).toBeCloseTo(nu, 2));
  test.each([
    [50, 21.5],
    [80, 8.53],
  ])("VG 32 at %d °C: %d mm²/s", (t, nu) => expect(kinematicViscosity({ kv40: 32, kv100: 5.4 }, t)).toBeCloseTo(nu, 2));
  test("about 4 % a kelvin for VG 46 at 50 °C (common practice)", () =>
    expect(viscosityTemperatureSensitivity({ kv40: 46, kv100: 6.8, density15: 870 }, 50)).toBeCloseTo(0.04, 2));
});

describe("hydrostatics", () => {
  test("45 cm³ at 1450 r/min: 65.25 L/min; 200 bar and 60 L/min: 20 kW", () => {
    expect(theoreticalFlow(45, 1450)).toBe(65.25);
    expect(hydraulicPower(200, 60)).toBe(20);
  });
});

describe("Merritt, Hydraulic Control Systems (1967)", () => {
  const gap = { diameter: 20, clearance: 10, length: 30, eccentricity: 0 };
  test("annular clearance", () => expect(annularLeakage(gap, 200, 30)).toBeCloseTo(0.00698, 5));
  test("full eccentricity: 2.5 times", () =>
    expect(annularLeakage({ ...gap, eccentricity: 1 }, 200, 30) / annularLeakage(gap, 200, 30)).toBeCloseTo(2.5, 9));
  test("sharp orifice", () => expect(orificeFlow(2, 0.62, 100, 870)).toBeCloseTo(17.72, 2));
});
