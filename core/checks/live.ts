/** Reading a live tester: lines that cannot be believed are left out, steps are taken when it holds still. */
import type { TesterSample } from "../simulation/tester";

export type ReadLine = { ok: true; sample: TesterSample } | { ok: false; why: "unreadable" | "impossible" };

const bounds = { pressure: [-1, 1000], flow: [-1, 5000], temperature: [-40, 150], speed: [0, 20_000] } as const;

/**
 * Read one line of a live tester's stream.
 * @param line JSON with pressure in bar, flow in L/min, temperature in °C, speed in r/min
 * @returns the sample, or why it cannot be used; never throws
 * @example readTesterLine('{"pressure":100,"flow":60,"temperature":45,"speed":1450}').ok // true
 * @example readTesterLine('{"pressure":-9999,"flow":60,"temperature":45,"speed":1450}') // { ok: false, why: "impossible" }
 * @example readTesterLine("----") // { ok: false, why: "unreadable" }
 */
export function readTesterLine(line: string): ReadLine {
  let data: unknown;
  try {
    data = JSON.parse(line);
  } catch {
    return { ok: false, why: "unreadable" };
  }
  if (typeof data !== "object" || data === null) return { ok: false, why: "unreadable" };
  const sample: Partial<TesterSample> = {};
  for (const [name, [low, high]] of Object.entries(bounds) as [keyof typeof bounds, readonly [number, number]][]) {
    const value = (data as Record<string, unknown>)[name];
    if (typeof value !== "number" || !Number.isFinite(value)) return { ok: false, why: "unreadable" };
    if (value < low || value > high) return { ok: false, why: "impossible" };
    sample[name] = value;
  }
  return { ok: true, sample: sample as TesterSample };
}

export interface Timed extends TesterSample {
  /** ms */
  at: number;
}

/** It holds still when pressure and flow scatter by less than this share about their mean. */
const STILL = 0.012;
const STILL_MS = 1500;
const FEWEST = 5;
/** The next step lies at least this far from those taken, bar. */
const APART = 12;
/** So many samples exactly alike: the meter is stuck. */
const ALIKE = 8;

const mean = (values: readonly number[]) => values.reduce((s, v) => s + v, 0) / values.length;

/**
 * Does a meter stand still? Exactly the same eight times: no meter of the world does that.
 * @param samples in order of time
 * @returns true where it does
 * @example isStuck(Array.from({ length: 8 }, (_, k) => ({ at: k, pressure: 100, flow: 60 }))) // true
 */
export function isStuck(samples: readonly Timed[]): boolean {
  const last = samples.slice(-ALIKE);
  return last.length === ALIKE && last.every((s) => s.pressure === last[0]!.pressure && s.flow === last[0]!.flow);
}

/**
 * The mean of the last 1.5 s when the tester holds still there: a step of the test may be taken.
 * @param samples in order of time, ms
 * @returns bar, L/min, °C and r/min; null: not yet
 * @example
 * const samples = [100, 100.2, 99.9, 100.1, 100, 99.8].map((pressure, k) => (
 *   { at: k * 250, pressure, flow: 60 + (k % 2) / 10, temperature: 45, speed: 1450 }
 * ));
 * stillStep(samples) // { pressure: 100, flow: 60.05, temperature: 45, speed: 1450 }
 * stillStep(samples.slice(0, 3)) // null
 */
export function stillStep(samples: readonly Timed[]): TesterSample | null {
  const end = samples[samples.length - 1]?.at ?? 0;
  const recent = samples.filter((s) => s.at > end - STILL_MS);
  if (recent.length < FEWEST || end - recent[0]!.at < 0.6 * STILL_MS || isStuck(samples)) return null;
  const of = (name: keyof TesterSample) => mean(recent.map((s) => s[name]));
  const step = { pressure: of("pressure"), flow: of("flow"), temperature: of("temperature"), speed: of("speed") };
  const calm = (name: "pressure" | "flow", floor: number) =>
    Math.sqrt(mean(recent.map((s) => (s[name] - step[name]) ** 2))) <= Math.max(floor, STILL * Math.abs(step[name]));
  // a creep of the mean hides in the scatter of a short while: first half against second
  const half = recent.length >> 1;
  const creep = Math.abs(
    mean(recent.slice(0, half).map((s) => s.pressure)) - mean(recent.slice(half).map((s) => s.pressure)),
  );
  return calm("pressure", 0.5) && calm("flow", 0.2) && creep <= Math.max(0.5, 0.008 * step.pressure) ? step : null;
}

/**
 * Is a step far enough from those already taken: 12 bar?
 * @param step the new one
 * @param taken steps before, bar
 * @returns true where it is
 * @example isNewStep({ pressure: 120 }, [{ pressure: 100 }]) // true
 * @example isNewStep({ pressure: 110 }, [{ pressure: 100 }]) // false
 */
export function isNewStep(step: TesterSample, taken: readonly Pick<TesterSample, "pressure">[]): boolean {
  return taken.every((t) => Math.abs(t.pressure - step.pressure) >= APART);
}
