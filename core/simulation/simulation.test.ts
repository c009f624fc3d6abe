import { DAY } from "../units/time";
import { oilTemperatureAt, simulateLife, wearLaws, type WearLaw } from "./life";
import { random } from "../random/random";

test("the same seed gives the same numbers, another seed others", () => {
  const take = (seed: number) =>
    Array.from(
      { length: 5 },
      (
        (r) => () =>
          r.uniform()
      )(random(seed)),
    );
  expect(take(1)).toEqual(take(1));
  expect(take(1)).not.toEqual(take(2));
});

test("uniform, normal and between are what they say", () => {
  const rng = random(9);
  const n = 20_000;
  const normals = Array.from({ length: n }, () => rng.normal());
  const mean = normals.reduce((s, v) => s + v, 0) / n;
  expect(mean).toBeCloseTo(0, 1);
  expect(normals.reduce((s, v) => s + (v - mean) ** 2, 0) / n).toBeCloseTo(1, 1);
  for (let i = 0; i < 100; i++) {
    expect(rng.between(3, 4)).toBeGreaterThanOrEqual(3);
    expect(["a", "b"]).toContain(rng.pick(["a", "b"]));
  }
});

test("a fork does not move its parent", () => {
  const one = random(4);
  const two = random(4);
  one.fork("x").uniform();
  expect(one.uniform()).toBe(two.uniform());
});

test("every law is 1 as new and reaches its end", () => {
  for (const name of Object.keys(wearLaws) as WearLaw[]) {
    expect(wearLaws[name](0, 5)).toBeCloseTo(1, 12);
    if (name !== "none") expect(wearLaws[name](1, 5)).toBeCloseTo(5, 9);
  }
});

test("oil is warmest in late summer", () => {
  const still = { mean: 48, swing: 7, scatter: 0 };
  const at = (month: number) => oilTemperatureAt(Date.UTC(2025, month - 1, 28), still, random(1));
  expect(at(7)).toBeGreaterThan(at(1) + 12);
});

test("a simulated life keeps the truth beside the reading", () => {
  const life = {
    asNew: 1.4,
    end: 5,
    timeScale: 10_000,
    law: "linear" as const,
    a: 1,
    b: 1,
    reference: { pressure: 200, temperature: 50 },
    fluid: { kv40: 46, kv100: 6.8, density15: 870 },
    pressure: { mean: 200, scatter: 0 },
    temperature: { mean: 50, swing: 0, scatter: 0 },
    noise: 0,
  };
  const times = [0, 5000, 10_000].map((hours) => ({ at: hours * DAY, hours }));
  expect(simulateLife(life, times, random(1)).map((r) => r.value)).toEqual(
    [1.4, 4.2, 7].map((v) => expect.closeTo(v, 9)),
  );
  const faster = simulateLife({ ...life, change: { hours: 5000, factor: 2 } }, times, random(1));
  expect(faster[2]!.truth).toBeCloseTo(1.4 * (1 + 4 * 1.5), 9);
  const faulty = simulateLife({ ...life, fault: () => 1.12 }, times, random(1));
  expect(faulty[0]!.value / faulty[0]!.truth).toBeCloseTo(1.12, 9);
});
