/**
 * A simulated life of a component: wear by a law, read through the seasons by an imperfect
 * instrument. Makes the demo world and the fleets on which forecasts are judged.
 */
import { YEAR } from "../units/time";
import { dynamicViscosity, type Fluid } from "../fluid/viscosity";
import type { Random } from "../random/random";

/** Growth of the indicator over as new, x = age over the time scale; 1 at x = 0 and `end` at x = 1. */
export const wearLaws = {
  none: () => 1,
  linear: (x: number, end: number) => 1 + (end - 1) * x,
  /** Clearance grows evenly; leakage with its cube. */
  clearance: (x: number, end: number) => (1 + (Math.cbrt(end) - 1) * x) ** 3,
  exponential: (x: number, end: number) => end ** x,
  /** Nearly flat, then ever faster. */
  accelerating: (x: number, end: number) => 1 + (end - 1) * x ** 4,
  /** Slows down: the square root of age. */
  saturating: (x: number, end: number) => 1 + (end - 1) * Math.sqrt(x),
} satisfies Record<string, (x: number, end: number) => number>;

export type WearLaw = keyof typeof wearLaws;

/** Oil temperature of a working machine outdoors: warmest at the end of July (north), noise of a few kelvin. */
export function oilTemperatureAt(
  at: number,
  { mean = 48, swing = 7, scatter = 2 }: { mean?: number; swing?: number; scatter?: number },
  rng: Random,
): number {
  const phase = (at / YEAR) % 1;
  return mean + swing * Math.cos(2 * Math.PI * (phase - 0.57)) + scatter * rng.normal();
}

export interface SimulatedReading {
  at: number;
  hours: number;
  value: number;
  pressure: number;
  temperature: number;
  /** The hidden truth: value at the reference condition without noise. */
  truth: number;
}

export interface SimulatedLife {
  /** Value as new at the reference condition. */
  asNew: number;
  /** Multiple of as new that the law reaches at `timeScale` running hours. */
  end: number;
  timeScale: number;
  law: WearLaw;
  /** Exponents of pressure and viscosity; 0 for a plain quantity. */
  a: number;
  b: number;
  reference: { pressure: number; temperature: number };
  fluid: Fluid;
  /** Fluid that `asNew` is stated for, where the real one is another. */
  referenceFluid?: Fluid;
  pressure: { mean: number; scatter: number };
  temperature?: { mean?: number; swing?: number; scatter?: number };
  /** Relative noise of a reading. */
  noise: number;
  /** A sudden change of rate: at this age in hours the wear goes on `factor` times as fast. */
  change?: { hours: number; factor: number };
  /** A false factor on readings of an instrument between two dates. */
  fault?: (at: number) => number;
}

/**
 * Readings of a simulated life: wear by a law, read through the seasons by an imperfect instrument.
 * @param life its law, reference in bar and °C, conditions and relative noise
 * @param times epoch ms, with running hours counted from the start of the life
 * @param rng the stream that its noise is drawn from
 * @returns a reading at each time, with the hidden truth beside it
 * @throws {RangeError} for an oil temperature outside ASTM D341
 * @example
 * const fluid = { kv40: 46, kv100: 6.8, density15: 870 };
 * const reference = { pressure: 210, temperature: 50 };
 * const pump = { asNew: 2, end: 3, timeScale: 1000, law: "linear", a: 1, b: 1, reference, fluid, pressure: { mean: 210, scatter: 5 } };
 * simulateLife({ ...pump, noise: 0.03 }, [{ at: 0, hours: 500 }], random(1))[0].truth // 4
 */
export function simulateLife(
  life: SimulatedLife,
  times: readonly { at: number; hours: number }[],
  rng: Random,
): SimulatedReading[] {
  const law = wearLaws[life.law];
  const muRef = dynamicViscosity(life.referenceFluid ?? life.fluid, life.reference.temperature);
  return times.map(({ at, hours }) => {
    const age =
      life.change && hours > life.change.hours
        ? life.change.hours + (hours - life.change.hours) * life.change.factor
        : hours;
    const truth = life.asNew * law(age / life.timeScale, life.end);
    const temperature = oilTemperatureAt(at, life.temperature ?? {}, rng);
    const pressure = Math.max(1, life.pressure.mean + life.pressure.scatter * rng.normal());
    const viscosity = dynamicViscosity(life.fluid, temperature) / muRef;
    const value =
      truth *
      (pressure / life.reference.pressure) ** life.a *
      viscosity ** -life.b *
      Math.exp(life.noise * rng.normal()) *
      (life.fault?.(at) ?? 1);
    return { at, hours, value, pressure, temperature, truth };
  });
}
