import fc from "fast-check";
import { courseClock, powerClock, runInClock, saturatingClock } from "./clock";

const clocks = {
  fading: powerClock(0.5),
  even: powerClock(1),
  late: powerClock(3.5),
  bedded: runInClock(0.22, 0.05),
  saturating: saturatingClock(2),
  course: courseClock(Array.from({ length: 21 }, (_, i) => 0.2 * (i / 20) + 0.8 * (i / 20) ** 3)),
};
const T = 20_000;

describe.each(Object.entries(clocks))("%s clock", (_name, clock) => {
  test("there and back", () =>
    fc.assert(
      fc.property(fc.double({ min: 50, max: 60_000, noNaN: true }), (h) =>
        expect(clock.hours(clock.at(h, T), T) / h).toBeCloseTo(1, 5),
      ),
    ));
  test("starts at zero and shows about the time scale at the time scale", () => {
    expect(clock.at(0, T)).toBeCloseTo(0, 9);
    expect(clock.at(T, T) / T).toBeCloseTo(1, 6);
  });
  test("the pace is the derivative", () =>
    fc.assert(
      fc.property(fc.double({ min: 0.05 * T, max: 2 * T, noNaN: true }), (h) => {
        // a course bends at its knots
        fc.pre(Math.abs((h * 20) / T - Math.round((h * 20) / T)) > 0.001);
        expect((clock.at(h + 0.5, T) - clock.at(h - 0.5, T)) / clock.pace(h, T)).toBeCloseTo(1, 3);
      }),
    ));
  test("never runs backwards", () =>
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 50_000, noNaN: true }),
        fc.double({ min: 1, max: 5000, noNaN: true }),
        (h, dt) => expect(clock.at(h + dt, T)).toBeGreaterThan(clock.at(h, T)),
      ),
    ));
});

test("the clock of a course may start below zero, and goes on after its life as in its last tenth", () => {
  const clock = courseClock(Array.from({ length: 21 }, (_, i) => -0.1 + 1.1 * (i / 20)));
  expect(clock.at(0, T)).toBeCloseTo(-0.1 * T, 6);
  expect(clock.hours(clock.at(0, T), T)).toBeCloseTo(0, 6);
  expect(clock.at(1.5 * T, T)).toBeCloseTo(1.55 * T, 3);
  expect(clock.pace(1.5 * T, T)).toBeCloseTo(1.1, 6);
});
