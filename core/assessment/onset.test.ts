import { DAY } from "../units/time";
import { expect, test } from "@jest/globals";
import { random } from "../random/random";
import { assess } from "./assess";
import { onsetOf } from "./onset";

const START = Date.UTC(2024, 0, 1);

function assessed(level: (month: number) => number, months = 36) {
  const rng = random(3);
  const readings = Array.from({ length: months }, (_, i) => ({
    id: `r${i}`,
    at: START + i * 30 * DAY,
    value: level(i) * (1 + 0.01 * rng.normal()),
    hours: i * 200,
  }));
  return assess(
    readings,
    { quantity: "pressure", limit: { basis: "absolute", upper: null, lower: 160 } },
    { now: START + months * 30 * DAY },
  );
}

test("a setting that stepped down is away since about then", () => {
  const onset = onsetOf(assessed((i) => (i < 28 ? 192 : 168)))!;
  expect(Math.abs(onset - (START + 28 * 30 * DAY)) / DAY).toBeLessThan(95);
});

test("one that came back, and one that never left, is not away", () => {
  expect(onsetOf(assessed((i) => (i > 12 && i < 20 ? 168 : 192)))).toBeNull();
  expect(onsetOf(assessed(() => 192))).toBeNull();
});

test("too few readings tell nothing", () => {
  expect(onsetOf(assessed(() => 192, 2))).toBeNull();
});
