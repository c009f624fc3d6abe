import { random } from "../random/random";
import { leftOfPeers } from "./ended";

/** A life that wears evenly to its limit. */
const even = (hours: number) => ({
  hours,
  points: [0.2, 0.4, 0.6, 0.8].map((margin) => ({ hours: margin * hours, margin, variance: 1e-4 })),
});
/** One that does nothing for four fifths of its life. */
const late = (hours: number) => ({
  hours,
  points: [0, 0, 0.01, 0.5].map((margin, i) => ({ hours: [0.2, 0.5, 0.8, 0.9][i]! * hours, margin, variance: 1e-4 })),
});
const middle = (draw: (rng: ReturnType<typeof random>) => number) => {
  const rng = random(3);
  const draws = Array.from({ length: 2001 }, () => draw(rng)).sort((a, b) => a - b);
  return draws[1000]!;
};

test("what was left of peers that wear evenly is what their level and age leave", () => {
  const left = leftOfPeers([even(10_000), even(10_000), even(10_000)], 0.5, 5000)!;
  expect(middle(left)).toBeGreaterThan(4700);
  expect(middle(left)).toBeLessThan(5300);
});

test("a late onset is told by the peers that had one: little is left at a small margin", () => {
  const left = leftOfPeers([late(10_000), late(10_000), late(10_000)], 0.3, 8500)!;
  expect(middle(left)).toBeGreaterThan(1000);
  expect(middle(left)).toBeLessThan(1800);
});

test("older than every peer it is told by its level alone", () => {
  const left = leftOfPeers([even(8000), even(8000), even(8000)], 0.9, 20_000)!;
  expect(middle(left)).toBeGreaterThan(700);
  expect(middle(left)).toBeLessThan(900);
});

test("fewer than three peers, or none with anything left, say nothing", () => {
  expect(leftOfPeers([even(8000), even(8000)], 0.5, 100)).toBeNull();
  expect(leftOfPeers([even(8000), even(8000), even(8000)], 1.2, 20_000)).toBeNull();
});
