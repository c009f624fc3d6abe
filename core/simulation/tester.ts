/**
 * A simulated portable hydraulic tester on a pump of hidden condition: all flow through its meter and over its
 * relief valve. Screwing the relief in raises the pressure; the pump leaks, the oil warms. Faults can be put in.
 */
import { dynamicViscosity, type Fluid } from "../fluid/viscosity";
import { compile } from "../circuit/assembly";
import { circuitOf } from "../circuit/build";
import { STATED_VISCOSITY } from "../circuit/gauges";
import { steadyState, type SteadyState } from "../circuit/steady";
import { theoreticalFlow } from "../pump/flow";
import type { Random } from "../random/random";

export interface TesterKnobs {
  /** Relief setting, bar. */
  relief: number;
  /** r/min */
  speed: number;
  /** Oil held at this temperature, °C; null: it warms and cools by itself. */
  oil: number | null;
  /** Relative noise of pressure and flow. */
  noise: number;
  /** Chance that a sample is lost. */
  dropout: number;
  /** Chance that a sample is nonsense. */
  nonsense: number;
  /** The meter repeats its last sample. */
  stuck: boolean;
}

export interface HiddenPump {
  displacement: number;
  /** r/min at which it is rated. */
  speed: number;
  /** Share of theoretical flow that it gives without load. */
  noLoadShare: number;
  /** Leak conductance, L·mPa·s/(min·bar). */
  conductance: number;
  fluid: Fluid;
}

export interface TesterSample {
  pressure: number;
  flow: number;
  temperature: number;
  speed: number;
}

export const restingKnobs: TesterKnobs = {
  relief: 10,
  speed: 1450,
  oil: null,
  noise: 0.004,
  dropout: 0,
  nonsense: 0,
  stuck: false,
};

/** Oil that the pump compresses does not come out: a loss that no viscosity lessens. */
const BULK_MODULUS = 14_000;
/** The tester's relief valve opens this wide, L/min per bar: the gauge shows little more than it is set to. */
const RELIEF_SLOPE = 60;
/** Lag of the pressure behind the relief, s. */
const LAG = 0.5;
/** Heat that warms the oil by a kelvin, kJ: about 100 L of oil and its steel. */
const HEAT_PER_KELVIN = 190;
/** Cooling, share of the excess over ambient a second. */
const COOLING = 0.0015;
const AMBIENT = 22;
/** Time in which a heater or cooler brings the oil to its temperature, s. */
const HEATER = 4;

/** The pump under test on the tester: all of its flow through the meter, and over the relief valve. */
function benchOf(pump: HiddenPump) {
  const compiled = compile(
    circuitOf(
      {
        tank: ["tank"],
        pump: ["fixedPump", { displacement: pump.displacement * pump.noLoadShare, caseLeak: 0 }],
        relief: ["relief", { perBar: RELIEF_SLOPE }],
      },
      ["tank.T - pump.in - relief.T", "pump.out - relief.P"],
    ),
  );
  let last: SteadyState | undefined;
  return (setting: number, speed: number, temperature: number): { pressure: number; flow: number } => {
    const viscosity = dynamicViscosity(pump.fluid, temperature) / STATED_VISCOSITY;
    const compressed = (theoreticalFlow(pump.displacement, Math.max(1, speed)) * pump.noLoadShare) / BULK_MODULUS;
    // a circuit divides the slip by the viscosity
    const slip = pump.conductance / STATED_VISCOSITY + compressed * viscosity;
    const solved = steadyState(
      compiled,
      {
        data: { pump: { speed, slip }, relief: { crack: setting } },
        viscosity,
      },
      last,
    );
    if (!solved.ok) return { pressure: 0, flow: 0 };
    last = solved;
    return {
      pressure: solved.pressure({ element: "relief", port: "P" })!,
      flow: Math.max(0, solved.flowOut({ element: "relief", port: "T" })),
    };
  };
}

/** What a line of the tester's stream holds: a sample, nothing (lost), or nonsense as a broken meter sends it. */
export type TesterLine = TesterSample | null | Record<string, unknown>;

/**
 * A simulated tester on a pump of hidden condition. The same seed and calls give the same lines.
 * @param pump its hidden condition: cm³, r/min, leak conductance
 * @param rng the stream that noise and faults are drawn from
 * @returns a function that moves on by some seconds with the knobs as they stand, and gives the next line of the stream
 * @throws {RangeError} for an oil temperature outside ASTM D341
 * @example
 * const fluid = { kv40: 46, kv100: 6.8, density15: 870 };
 * const pump = { displacement: 45, speed: 1450, noLoadShare: 0.98, conductance: 0.3, fluid };
 * const next = simulateTester(pump, random(1));
 * const knobs = { relief: 100, speed: 1450, oil: null, noise: 0, dropout: 0, nonsense: 0, stuck: false };
 * Math.round(Array.from({ length: 20 }, () => next(0.5, knobs)).at(-1).pressure) // 101
 */
export function simulateTester(pump: HiddenPump, rng: Random): (seconds: number, knobs: TesterKnobs) => TesterLine {
  const bench = benchOf(pump);
  let setting = 0;
  let temperature = 44;
  let last: TesterSample | null = null;
  return (seconds, knobs) => {
    const speed = Math.max(0, knobs.speed);
    const target = speed > 50 ? Math.max(3, knobs.relief) : 0;
    setting += (target - setting) * (1 - Math.exp(-seconds / LAG));
    const { pressure, flow } = bench(setting, speed, temperature);
    const heat = (pressure * theoreticalFlow(pump.displacement, Math.max(1, speed))) / 600;
    temperature +=
      knobs.oil === null
        ? seconds * (heat / HEAT_PER_KELVIN - COOLING * (temperature - AMBIENT))
        : (knobs.oil - temperature) * (1 - Math.exp(-seconds / HEATER));
    if (rng.uniform() < knobs.dropout) return null;
    if (rng.uniform() < knobs.nonsense)
      return rng.pick<Record<string, unknown>>([
        { pressure: "----", flow },
        { pressure: -9999, flow: 9999, temperature, speed },
        { error: "sensor" },
      ]);
    if (knobs.stuck && last) return last;
    last = {
      pressure: pressure * (1 + knobs.noise * rng.normal()),
      flow: flow * (1 + knobs.noise * rng.normal()),
      temperature: temperature + 0.1 * rng.normal(),
      speed: speed * (1 + 0.001 * rng.normal()),
    };
    return last;
  };
}
