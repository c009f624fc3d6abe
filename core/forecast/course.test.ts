import fc from "fast-check";
import { random } from "../random/random";
import { courseOf, sharedCourse, type EndedCourse } from "./course";
import { forecast } from "./forecast";
import { learnPrior, withoutCourse, type PeerLife, type WearPrior } from "./prior";
import { fitShape, lastPace, shapeAt } from "./shape";

const cracks = (x: number) => 0.35 * x + (x > 0.66 ? 0.65 * (Math.expm1(6 * (x - 0.66)) / Math.expm1(6 * 0.34)) : 0);

/** Lives that keep to a law of their share of life, with a noise in the margin and, if asked, a wander of their own. */
function livesOf(
  law: (x: number) => number,
  { count = 8, noise = 0.02, wander = 0, offset = 0, seed = 3 } = {},
): EndedCourse[] {
  const rng = random(seed);
  return Array.from({ length: count }, () => {
    const hours = 18_000 * Math.exp(0.35 * rng.normal());
    const wrong = offset * rng.normal();
    let bridge = 0;
    return {
      hours,
      points: Array.from({ length: 24 }, (_, i) => {
        const [x, before] = [(i + 0.5) / 24, Math.max(0, (i - 0.5) / 24)];
        // a Brownian bridge in the law's own time
        const [from, to] = [law(before), law(x)];
        bridge =
          (bridge * (1 - to)) / (1 - from) + wander * Math.sqrt(((to - from) * (1 - to)) / (1 - from)) * rng.normal();
        return {
          hours: x * hours,
          margin: law(x) + wrong * (1 - law(x)) + bridge + noise * rng.normal(),
          variance: noise ** 2,
        };
      }),
    };
  });
}

describe("the course that peers share", () => {
  test.each([
    ["even wear", (x: number) => x],
    ["cracks at the end", cracks],
    ["slowing down", (x: number) => Math.log1p(9 * x) / Math.log(10)],
    ["late and fast", (x: number) => x ** 3],
  ])("%s is found again", (_name, law) => {
    const { shape, wander } = sharedCourse(livesOf(law))!;
    for (const x of [0.1, 0.25, 0.5, 0.75, 0.9]) expect(Math.abs(shapeAt(shape, x) - law(x))).toBeLessThan(0.03);
    expect(wander).toBeLessThan(0.04);
  });

  test("how far lives stray from it is found again", () => {
    const wander = (of: number) => sharedCourse(livesOf((x) => x, { count: 30, wander: of }))!.wander;
    // up to a third less, since slow straying looks like a wrong level as new
    expect(wander(0.1)).toBeGreaterThan(0.055);
    expect(wander(0.1)).toBeLessThan(0.13);
    expect(wander(0.3)).toBeGreaterThan(0.17);
    expect(wander(0.3)).toBeLessThan(0.38);
  });

  test("an as-new level that was taken a little wrong is not taken for straying", () => {
    expect(sharedCourse(livesOf((x) => x ** 2, { offset: 0.08 }))!.wander).toBeLessThan(0.04);
  });

  test("a wild point does little", () => {
    const lives = livesOf((x) => x);
    const wild = (by: number) =>
      sharedCourse(
        lives.map((l, k) =>
          k ? l : { ...l, points: l.points.map((p, i) => (i === 12 ? { ...p, margin: p.margin + by } : p)) },
        ),
      )!;
    expect(Math.abs(shapeAt(wild(0.6).shape, 0.5) - 0.5)).toBeLessThan(0.05);
    // 0.076; taken at its word 0.296
    expect(wild(2).wander).toBeLessThan(0.12);
  });

  test("two lives tell none, nor lives of two readings", () => {
    expect(sharedCourse(livesOf((x) => x, { count: 2 }))).toBeNull();
    expect(sharedCourse(livesOf((x) => x).map((l) => ({ ...l, points: l.points.slice(0, 2) })))).toBeNull();
  });

  test("one life's course: margins by the hour, outliers left out, neighbours taken together", () => {
    const readings = Array.from({ length: 48 }, (_, i) => ({
      hours: 1000 + 100 * i,
      lnS: Math.log(1 + (2 * i) / 48),
      outlier: i === 7 ? 0.9 : 0,
    }));
    const course = courseOf(readings, Math.log(3), 1000, 0.05);
    expect(course).toHaveLength(24);
    for (const p of course) expect(p.margin).toBeCloseTo(p.hours / 4800, 2);
    // (noise·s/span)²/n: s 1 to 3, span 2, two readings a point
    expect(course.at(-1)!.variance).toBeCloseTo((0.05 * (1 + (2 * 46.5) / 48)) ** 2 / 4 / 2, 5);
  });
});

describe("a forecast with the course of its peers", () => {
  const peers = (change: Partial<PeerLife>) =>
    livesOf(cracks).map((l): PeerLife => ({
      hours: l.hours,
      censored: false,
      noise: 0.03,
      reached: true,
      course: l.points,
      ...change,
    }));
  const T = 18_000;
  const lnLimit = Math.log(4);
  /** Readings up to 70 % of a life that cracks: hardly anything shows yet. */
  const readings = (seed: number) => {
    const rng = random(seed);
    return Array.from({ length: 30 }, (_, i) => {
      const hours = (i / 29) * 0.7 * T;
      return {
        hours,
        y: Math.log(1 + 3 * cracks(hours / T)) + 0.02 * rng.normal(),
        lnPressure: 0,
        lnViscosity: 0,
        u: 0.01,
      };
    });
  };

  test("cracks that no law foretells are foretold as the peers showed them", () => {
    const prior = learnPrior(peers({}));
    expect(prior.course).toBeDefined();
    const off = (p: WearPrior) =>
      [1, 2, 3, 4, 5]
        .map(
          (seed) =>
            Math.abs(
              (forecast({ readings: readings(seed), lnLimit, prior: p, corrected: false }).p50 ?? 1e6) - 0.3 * T,
            ) /
            (0.3 * T),
        )
        .sort((a, b) => a - b)[2]!;
    expect(off(prior)).toBeLessThan(0.25);
    expect(off(withoutCourse(prior))).toBeGreaterThan(0.35);
    const made = forecast({ readings: readings(1), lnLimit, prior, corrected: false });
    expect(made.paths[0]!.id).toBe("course");
  });

  test("only lives that came to their limit, or nearly, lend their course", () => {
    const upTo = (margin: number) => livesOf(cracks).map((l) => l.points.filter((p) => p.margin < margin));
    const lent = (margin: number, change: Partial<PeerLife>) =>
      learnPrior(peers(change).map((s, i) => ({ ...s, course: upTo(margin)[i]! }))).course;
    expect(lent(0.6, { reached: false })).toBeUndefined();
    expect(lent(0.6, { reached: true })).toBeDefined();
    expect(lent(2, { reached: true, censored: true })).toBeUndefined();
  });
});

describe("a shape", () => {
  const point = fc.record({
    x: fc.double({ min: 0, max: 1, noNaN: true }),
    margin: fc.double({ min: -0.5, max: 1.5, noNaN: true }),
    variance: fc.double({ min: 1e-5, max: 0.05, noNaN: true }),
  });
  test("always rises, ends at 1 and goes on rising, whatever the points", () =>
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 1, maxLength: 60 }),
        fc.double({ min: 0.014, max: 0.5, noNaN: true }),
        (points, wander) => {
          const shape = fitShape(points, wander);
          expect(shape.at(-1)).toBeCloseTo(1, 9);
          shape.forEach((v, i) => i > 0 && expect(v).toBeGreaterThan(shape[i - 1]!));
          expect(lastPace(shape)).toBeGreaterThan(0);
          expect(shapeAt(shape, 1.2)).toBeCloseTo(1 + 0.2 * lastPace(shape), 9);
        },
      ),
    ));
});
