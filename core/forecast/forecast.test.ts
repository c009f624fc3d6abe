import fc from "fast-check";
import { random } from "../random/random";
import { drawFirstPassage, firstPassageQuantile } from "./firstPassage";
import { crossingProbability, forecast } from "./forecast";
import { systematic, turnedRate } from "./draws";
import { startBank } from "./bank";
import { runFilter } from "./filter";
import type { FilterReading } from "./hypothesis";
import { lifetimeOdds } from "./lifetime";
import { defaultPrior, learnPrior } from "./prior";
import { regimes } from "./regime";
import { lnIndicator, lnIndicatorSlope, toPath, wearPaths } from "./wearPath";

const prior = { ...defaultPrior, timeScale: 20_000 };
const lnLimit = Math.log(5);

/** Readings of an indicator that grows as `law` over running hours, with seasons and noise. */
function life(
  n: number,
  law: (hours: number) => number,
  { noise = 0.03, seed = 1, step = 250, b = 0.7 } = {},
): FilterReading[] {
  const rng = random(seed);
  return Array.from({ length: n }, (_, i) => {
    const hours = i * step;
    const lnViscosity = 0.25 * Math.sin(i / 2) + 0.04 * rng.normal();
    const lnPressure = 0.03 * rng.normal();
    return {
      hours,
      y: Math.log(law(hours)) + 0.95 * lnPressure - b * lnViscosity + noise * rng.normal(),
      lnPressure,
      lnViscosity,
      u: 0.01,
    };
  });
}

const linear = (T: number) => (h: number) => 1 + 4 * (h / T);

describe("wear paths", () => {
  test("there and back", () => {
    fc.assert(
      fc.property(fc.constantFrom(...wearPaths), fc.double({ min: 0.5, max: 8, noNaN: true }), ({ lambda }, s) =>
        expect(Math.exp(lnIndicator(toPath(s, lambda), lambda))).toBeCloseTo(s, 8),
      ),
    );
  });
  test("the slope is the derivative", () => {
    fc.assert(
      fc.property(fc.constantFrom(...wearPaths), fc.double({ min: 0.8, max: 6, noNaN: true }), ({ lambda }, s) => {
        const z = toPath(s, lambda);
        expect((lnIndicator(z + 1e-6, lambda) - lnIndicator(z - 1e-6, lambda)) / 2e-6).toBeCloseTo(
          lnIndicatorSlope(z, lambda),
          3,
        );
      }),
    );
  });
});

describe("first passage", () => {
  test("draws follow the inverse Gaussian", () => {
    const rng = random(2);
    const draws = Array.from({ length: 20_000 }, () => drawFirstPassage(5, 0.2, 0.3, rng)).sort((p, q) => p - q);
    for (const p of [0.1, 0.5, 0.9])
      expect(draws[Math.floor(p * draws.length)]! / firstPassageQuantile(p, 5, 0.2, 0.3)).toBeCloseTo(1, 1);
  });
  test("edges: already there, no noise, against the drift", () => {
    const rng = random(3);
    expect(drawFirstPassage(0, 1, 1, rng)).toBe(0);
    expect(drawFirstPassage(10, 2, 0, rng)).toBe(5);
    expect(drawFirstPassage(10, -2, 0, rng)).toBe(Infinity);
    // chance of ever arriving against the drift: exp(2·d·a/σ²)
    const arrived = Array.from({ length: 5000 }, () => drawFirstPassage(1, -0.5, 1, rng)).filter(
      Number.isFinite,
    ).length;
    expect(arrived / 5000).toBeCloseTo(Math.exp(-1), 1);
  });
});

describe("forecast", () => {
  test("steady wear is foretold, and the cone holds the truth", () => {
    const T = 20_000;
    const made = forecast({ readings: life(50, linear(T)), lnLimit, prior, corrected: true });
    const left = T - 49 * 250;
    expect(made.p10!).toBeLessThan(left);
    expect(made.p90!).toBeGreaterThan(left);
    expect(Math.abs(made.p50! - left) / left).toBeLessThan(0.25);
    expect(made.rising.at(-1)!).toBeGreaterThan(0.95);
    expect(made.paths.reduce((s, p) => s + p.share, 0)).toBeCloseTo(1, 9);
  });

  test("the same readings give the same forecast", () => {
    const readings = life(30, linear(20_000));
    expect(forecast({ readings, lnLimit, prior, corrected: true })).toEqual(
      forecast({ readings, lnLimit, prior, corrected: true }),
    );
  });

  test("three readings give a wide range, not a date", () => {
    const made = forecast({ readings: life(3, linear(20_000)), lnLimit, prior, corrected: true });
    expect((made.p90 ?? made.horizon) / made.p10!).toBeGreaterThan(3);
  });

  test("learns the exponent of viscosity beside the trend", () => {
    const made = forecast({ readings: life(48, linear(30_000), { b: 0.55 }), lnLimit, prior, corrected: true });
    expect(Math.abs(made.exponents.b - 0.55)).toBeLessThan(3 * made.exponents.ub + 0.02);
  });

  test.each([0.03, 0.11, 0.18])(
    "six readings far beyond the limit after a steady life are a step and not outliers alone, when noise %p is expected",
    (noise) => {
      // a relief valve turned down: margin nought, then two and a half; ln of 1 + margin
      const steady = life(54, () => 1, { noise: 0.15, b: 0 });
      const readings = [
        ...steady,
        ...Array.from({ length: 6 }, (_, i) => ({
          ...steady[0]!,
          hours: 54 * 250 + i * 250,
          y: Math.log(3.5) + 0.02 * (i % 3),
        })),
      ].map((r) => ({ ...r, lnPressure: 0, lnViscosity: 0 }));
      const made = forecast({ readings, lnLimit: Math.LN2, prior: { ...prior, noise }, corrected: false });
      expect(made.step.probability).toBeGreaterThan(0.95);
      expect(made.crossed).toBeGreaterThan(0.95);
      // the level is what the six say, not half way to it
      expect(made.level.centre).toBeGreaterThan(3.2);
      expect(made.level.centre).toBeLessThan(3.8);
    },
  );

  test("a step of the level is taken for a step after a few readings, not for wear", () => {
    const readings = life(40, (h) => (h > 32 * 250 ? 2 : 1));
    const made = forecast({ readings, lnLimit, prior, corrected: true });
    expect(made.step.probability).toBeGreaterThan(0.9);
    expect(made.step.hours! / 250).toBeCloseTo(33, -1);
    expect(made.level.centre).toBeCloseTo(2, 0);
  });

  test("faster wear after an event is noticed, and the truth lies in P10 to P90 in half of the cases at least", () => {
    const law = (h: number) => 1 + (h < 8000 ? h / 40_000 : 0.2 + (h - 8000) / 4000);
    const left = 8000 + 4000 * 3.8 - 47 * 250;
    const made = Array.from({ length: 12 }, (_, seed) =>
      forecast({ readings: life(48, law, { seed: seed + 1 }), lnLimit, prior, corrected: true }),
    );
    expect(made.filter((f) => f.change.probability > 0.5).length).toBeGreaterThanOrEqual(9);
    expect(made.filter((f) => f.p10! < left && f.p90! > left).length).toBeGreaterThanOrEqual(made.length / 2);
  });

  test("a rate that turns without a break is followed: wear that slows down again is not foretold far too early", () => {
    const T = 15_000;
    const logistic = (x: number) => 1 / (1 + Math.exp(-8 * (x - 0.6)));
    const law = (h: number) => 1 + (4 * (logistic(h / T) - logistic(0))) / (logistic(1) - logistic(0));
    const left = T - 48 * 250;
    const made = Array.from({ length: 24 }, (_, seed) =>
      forecast({ readings: life(49, law, { seed: seed + 1 }), lnLimit, prior, corrected: true }),
    );
    const turning = (f: (typeof made)[number]) =>
      Object.entries(f.regimes).reduce((sum, [id, share]) => sum + (id.includes("turning") ? share : 0), 0);
    const even = forecast({ readings: life(49, linear(T)), lnLimit, prior, corrected: true });
    expect(made.filter((f) => turning(f) > turning(even)).length).toBeGreaterThanOrEqual(20);
    // before there were such regimes four of the first twelve
    expect(made.filter((f) => (f.p90 ?? Infinity) >= 0.8 * left).length).toBeGreaterThanOrEqual(13);
  });

  test("one odd reading is marked and does not start a panic", () => {
    const readings = life(30, () => 1);
    readings[28]!.y += Math.log(2);
    const made = forecast({ readings, lnLimit, prior, corrected: true });
    expect(made.outlier[28]!).toBeGreaterThan(0.9);
    expect(made.outlier.filter((o) => o > 0.5)).toHaveLength(1);
    expect(made.level.centre).toBeLessThan(1.15);
  });

  test("beyond the limit: since when", () => {
    const made = forecast({ readings: life(60, linear(10_000)), lnLimit, prior, corrected: true });
    expect(made.crossed).toBeGreaterThan(0.95);
    expect(Math.abs(made.crossedSince! - 10_000)).toBeLessThan(1000);
    expect(made.p50).toBe(0);
  });

  test("the fan starts at the last reading and widens", () => {
    const { fan } = forecast({ readings: life(30, linear(20_000)), lnLimit, prior, corrected: true });
    expect(fan[0]!.hours).toBe(0);
    const width = (i: number) => fan.at(i)!.p90 - fan.at(i)!.p10;
    expect(width(-1)).toBeGreaterThan(width(0));
  });

  test("refuses too few readings and a limit inside the baseline", () => {
    expect(() => forecast({ readings: life(2, linear(1e4)), lnLimit, prior, corrected: true })).toThrow(RangeError);
    expect(() => forecast({ readings: life(9, linear(1e4)), lnLimit: 0, prior, corrected: true })).toThrow(RangeError);
  });

  test("probability by an hour counts the draws", () => {
    expect(crossingProbability([1, 2, 3, Infinity], 2)).toBe(0.5);
    expect(crossingProbability([1, 2, 3, Infinity], 0.5)).toBe(0);
    expect(crossingProbability([1, 2, 3, Infinity], 1e9)).toBe(0.75);
  });

  test("weights of the bank sum to one whatever the readings are", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: 3, maxLength: 25 }), (ys) => {
        const { weights, outlier } = runFilter(
          ys.map((y, i) => ({ hours: i * 300, y, lnPressure: 0, lnViscosity: 0, u: 0.01 })),
          lnLimit,
          prior,
          true,
        );
        expect(weights.reduce((s, w) => s + w, 0)).toBeCloseTo(1, 9);
        expect(outlier.every((o) => o >= 0 && o <= 1)).toBe(true);
      }),
      { numRuns: 30 },
    );
  });
});

describe("prior from peers", () => {
  const peer = (hours: number, censored = false, noise = 0.03) => ({ hours, censored, noise });
  test("none: the default", () =>
    expect(learnPrior([])).toMatchObject({ timeScale: expect.closeTo(defaultPrior.timeScale, 3), lives: 0 }));
  test("many short lives shorten it", () =>
    expect(learnPrior(Array.from({ length: 30 }, () => peer(8000))).timeScale).toBeLessThan(10_000));
  test("a censored life counts only as “at least”", () => {
    expect(learnPrior([peer(1000, true)]).timeScale).toBeCloseTo(defaultPrior.timeScale, 3);
    expect(learnPrior([peer(200_000, true)]).timeScale).toBeGreaterThan(defaultPrior.timeScale);
  });
  test("damage that set in late on parts of this plant is expected sooner; a plant that saw none rules nothing out", () => {
    const ended = (margins: number[]) => ({
      ...peer(10_000),
      reached: true,
      course: margins.map((margin, i) => ({ hours: 2000 * (i + 1), margin, variance: 0.001 })),
    });
    const even = Array.from({ length: 4 }, () => ended([0.2, 0.4, 0.6, 0.8]));
    const sudden = Array.from({ length: 4 }, () => ended([0.02, 0.05, 0.04, 0.9]));
    expect(learnPrior(even).damageHours).toBe(defaultPrior.damageHours);
    expect(learnPrior(sudden).damageHours).toBeCloseTo((defaultPrior.damageHours + 40_000) / 5, 6);
  });
  test("noise of peers is learned", () =>
    expect(learnPrior(Array.from({ length: 20 }, () => peer(20_000, false, 0.1))).noise).toBeGreaterThan(0.07));
});

describe("a rate that turns", () => {
  const h = startBank(lnLimit, prior, true).find((one) => one.regime.turn > 0)!;
  test("keeps its median and spreads with the square root of the time", () => {
    const rng = random(5);
    const lnRates = (share: number) => Array.from({ length: 4000 }, () => Math.log(turnedRate(h, 1, share, rng)));
    const middle = (v: number[]) => [...v].sort((p, q) => p - q)[v.length >> 1]!;
    const [short, long] = [lnRates(0.01), lnRates(0.04)];
    expect(middle(short)).toBeCloseTo(0, 1);
    const reach = (v: number[]) => middle(v.map(Math.abs));
    expect(reach(long) / reach(short)).toBeGreaterThan(1.7);
    expect(reach(long) / reach(short)).toBeLessThan(2.3);
    expect(reach(short)).toBeCloseTo(0.6745 * h.regime.turn * 0.1, 1);
  });
  test("going on in two strides or in one is the same", () =>
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 5000, noNaN: true }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        (dt, share) => {
          const [once, twice] = [h.child(), h.child()];
          once.advance(dt);
          twice.advance(share * dt);
          twice.advance((1 - share) * dt);
          for (const part of ["z", "pzz", "pzd", "pdd"] as const) expect(twice[part] / once[part]).toBeCloseTo(1, 9);
        },
      ),
    ));
  test("is doubted more the longer nothing is read, a steady one is not", () => {
    const steady = startBank(lnLimit, prior, true).find((one) => one.regime.turn === 0 && one.regime.path === h.path)!;
    const doubt = (one: typeof h, dt: number) => {
      const child = one.child();
      child.advance(dt);
      return child.pdd;
    };
    expect(doubt(h, 4000)).toBeGreaterThan(doubt(h, 1000));
    expect(doubt(steady, 4000)).toBe(steady.pdd);
  });
});

describe("regimes of wear", () => {
  const told = (law: (hours: number) => number, seed: number) =>
    forecast({ readings: life(48, law, { seed }), lnLimit, prior, corrected: true });
  const share = (of: Readonly<Record<string, number>> | undefined, word: string) =>
    Object.entries(of ?? {}).reduce((sum, [id, s]) => sum + (id.includes(word) ? s : 0), 0);
  const peersOf = (law: (hours: number) => number) =>
    Array.from({ length: 8 }, (_, seed) => ({
      hours: 12_000,
      censored: false,
      noise: 0.03,
      regimes: told(law, seed + 20).regimes,
    }));

  test("ids are unique, priors and the bank sum to one", () => {
    expect(new Set(regimes.map((r) => r.id)).size).toBe(regimes.length);
    expect(regimes.reduce((sum, r) => sum + r.prior, 0)).toBeCloseTo(1, 9);
    expect(startBank(lnLimit, prior, true).reduce((sum, h) => sum + Math.exp(h.logWeight), 0)).toBeCloseTo(1, 9);
  });

  test("peers that wore evenly make a calm life likelier, peers that bent a restless one", () => {
    const bent = (h: number) => 1 + (h < 5000 ? h / 40_000 : 0.125 + (h - 5000) / 2000);
    const [calm, restless] = [learnPrior(peersOf(linear(12_000))), learnPrior(peersOf(bent))];
    expect(share(calm.regimes, "restless")).toBeLessThan(share(restless.regimes, "restless") - 0.2);
    expect(Object.values(calm.regimes!).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 6);
  });

  test("what a life tells does not depend on what her peers told her", () => {
    const readings = life(48, linear(12_000));
    const alone = forecast({ readings, lnLimit, prior, corrected: true }).regimes;
    const led = forecast({
      readings,
      lnLimit,
      prior: { ...prior, regimes: learnPrior(peersOf(linear(12_000))).regimes! },
      corrected: true,
    }).regimes;
    // but for the hypotheses that either of them has dropped
    expect(Math.abs(share(led, "restless") - share(alone, "restless"))).toBeLessThan(0.15);
  });

  test("peers that have shown no wear yet leave the usual shares", () => {
    const still = peersOf(() => 1).map((s) => ({ ...s, censored: true }));
    expect(learnPrior(still).regimes).toBeUndefined();
    expect(learnPrior([...still, ...peersOf(linear(12_000))]).regimes).toEqual(
      learnPrior(peersOf(linear(12_000))).regimes,
    );
  });

  test("a peer whose regimes the program does not know leaves the usual shares", () => {
    const { regimes: learned } = learnPrior([{ hours: 9000, censored: false, noise: 0.03, regimes: { gone: 1 } }]);
    for (const r of regimes) expect(learned![r.id]).toBeCloseTo(r.prior, 9);
  });
});

describe("lifetimes of peers", () => {
  const odds = (lives: number) => lifetimeOdds(lnLimit, { ...prior, lives, lifeSpread: 0.35 }, true, 80_000, random(5));
  test("none known: every lifetime is as good", () => expect([100, 20_000, Infinity].map(odds(0))).toEqual([1, 1, 1]));
  test("a lifetime like the peers' gains, one far from them loses", () => {
    const of = odds(8);
    expect(of(20_000)).toBeGreaterThan(1.3);
    expect(of(3000)).toBeLessThan(0.5);
    expect(of(Infinity)).toBeLessThan(0.5);
  });
  test("draws follow their weights", () => {
    const picks = systematic([0.5, 0, 0.3, 0.2], 100, 0.5);
    expect([0, 1, 2, 3].map((i) => picks.filter((p) => p === i).length)).toEqual([50, 0, 30, 20]);
  });
  test("like lives give a narrow spread, unlike ones a wide one, none the default", () => {
    const lives = (hours: number[]) =>
      learnPrior(hours.map((h) => ({ hours: h, censored: false, noise: 0.03 }))).lifeSpread;
    expect(lives([10_000, 11_000, 10_500, 9500, 10_000, 10_200, 9900, 10_000])).toBeLessThan(0.35);
    expect(lives([2000, 30_000, 6000, 50_000, 12_000, 3000])).toBeGreaterThan(0.8);
    expect(learnPrior([]).lifeSpread).toBe(defaultPrior.lifeSpread);
  });
});
