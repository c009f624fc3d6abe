import fc from "fast-check";
import { random } from "../random/random";
import { correctedUncertainty, correctLeakage } from "./correct";
import { learnExponents } from "./exponents";
import { annularLeakage, orificeFlow } from "./gaps";

const positive = fc.double({ min: 0.1, max: 500, noNaN: true });

describe("correctLeakage", () => {
  test("at the reference condition nothing changes", () => {
    fc.assert(
      fc.property(positive, positive, positive, (flow, pressure, viscosity) =>
        expect(correctLeakage({ flow, pressure, viscosity }, { pressure, viscosity })).toBeCloseTo(flow, 9),
      ),
    );
  });

  test("to another condition and back is the same", () => {
    fc.assert(
      fc.property(
        positive,
        positive,
        positive,
        positive,
        positive,
        fc.double({ min: 0.3, max: 1.5, noNaN: true }),
        (flow, p, v, p2, v2, a) => {
          const there = correctLeakage(
            { flow, pressure: p, viscosity: v },
            { pressure: p2, viscosity: v2 },
            { a, b: 0.7 },
          );
          expect(
            correctLeakage({ flow: there, pressure: p2, viscosity: v2 }, { pressure: p, viscosity: v }, { a, b: 0.7 }) /
              flow,
          ).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  test("laminar: twice the pressure leaks twice as much, thinner oil more", () => {
    expect(correctLeakage({ flow: 4, pressure: 200, viscosity: 30 }, { pressure: 100, viscosity: 30 })).toBeCloseTo(
      2,
      12,
    );
    expect(correctLeakage({ flow: 4, pressure: 200, viscosity: 15 }, { pressure: 200, viscosity: 30 })).toBeCloseTo(
      2,
      12,
    );
  });

  test("refuses pressures and viscosities that are not above zero", () => {
    expect(() => correctLeakage({ flow: 1, pressure: 0, viscosity: 30 }, { pressure: 100, viscosity: 30 })).toThrow(
      RangeError,
    );
  });
});

test("first-order uncertainty agrees with Monte Carlo", () => {
  const rng = random(5);
  const u = { flow: 0.02, pressure: 0.01, temperature: 1, a: 0.1, b: 0.1 };
  const lambda = 0.04;
  const spread: number[] = [];
  for (let i = 0; i < 20_000; i++) {
    const flow = 5 * (1 + u.flow * rng.normal());
    const pressure = 190 * (1 + u.pressure * rng.normal());
    const viscosity = 35 * Math.exp(lambda * u.temperature * rng.normal());
    spread.push(
      Math.log(
        correctLeakage(
          { flow, pressure, viscosity },
          { pressure: 210, viscosity: 30 },
          { a: 0.95 + u.a * rng.normal(), b: 0.6 + u.b * rng.normal() },
        ),
      ),
    );
  }
  const mean = spread.reduce((s, v) => s + v, 0) / spread.length;
  const sd = Math.sqrt(spread.reduce((s, v) => s + (v - mean) ** 2, 0) / spread.length);
  const first = correctedUncertainty(
    { pressure: 190, viscosity: 35 },
    { pressure: 210, viscosity: 30 },
    { a: 0.95, b: 0.6 },
    lambda,
    u,
  );
  expect(first).toBeCloseTo(sd, 3);
});

describe("learnExponents", () => {
  const make = (n: number, a: number, b: number, outliers = 0) => {
    const rng = random(n + 7);
    return Array.from({ length: n }, (_, i) => {
      const lnPressure = 0.12 * rng.normal();
      const lnViscosity = 0.35 * Math.sin(i / 2) + 0.05 * rng.normal();
      const odd = i % 6 === 5 && outliers > 0 ? 0.6 : 0;
      return {
        time: i,
        lnFlow: 1.2 + 0.004 * i + a * lnPressure - b * lnViscosity + 0.02 * rng.normal() + odd,
        lnPressure,
        lnViscosity,
      };
    });
  };

  test("recovers what made the readings, within its own stated doubt", () => {
    const learned = learnExponents(make(24, 0.9, 0.55));
    expect(Math.abs(learned.a - 0.9)).toBeLessThan(3 * learned.ua);
    expect(Math.abs(learned.b - 0.55)).toBeLessThan(3 * learned.ub);
    expect(learned.b).toBeCloseTo(0.55, 1);
    expect(learned.readings).toBe(24);
  });

  test("outliers do not carry it away", () => expect(learnExponents(make(24, 0.9, 0.55, 1)).b).toBeCloseTo(0.55, 1));

  test("too few readings, or readings without spread, stay laminar", () => {
    expect(learnExponents(make(7, 0.5, 0.5))).toMatchObject({ a: 1, b: 1, readings: 0 });
    const flat = Array.from({ length: 20 }, (_, i) => ({ time: i, lnFlow: 1, lnPressure: 0, lnViscosity: 0 }));
    expect(learnExponents(flat).a).toBeCloseTo(1, 6);
    expect(learnExponents(flat).ua).toBeCloseTo(0.3, 6);
  });
});

test("gaps refuse impossible geometry", () => {
  const gap = { diameter: 20, clearance: 10, length: 30, eccentricity: 0 };
  expect(() => annularLeakage({ ...gap, length: 0 }, 200, 30)).toThrow(RangeError);
  expect(() => annularLeakage({ ...gap, eccentricity: 1.2 }, 200, 30)).toThrow(RangeError);
  expect(() => orificeFlow(2, 0.62, -1, 870)).toThrow(RangeError);
  // the cube of the clearance
  expect(annularLeakage({ ...gap, clearance: 20 }, 200, 30) / annularLeakage(gap, 200, 30)).toBeCloseTo(8, 9);
});
