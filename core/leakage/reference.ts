/** Is the reference that readings are corrected to like the conditions that they are read under? */
import { median } from "../trend/robust";

export interface ReadCondition {
  /** bar; null: not noted. */
  pressure: number | null;
  /** °C; null: not noted. */
  temperature: number | null;
}

export interface UsualCondition {
  /** bar */
  pressure: number;
  /** °C */
  temperature: number;
}

/** So many of the newest readings tell how a point is usually read, and fewer tell nothing. */
const NEWEST = 24;
const LEAST = 4;
/**
 * A reference so far off carries the correction outside what it was learned on (common practice: read within a
 * fifth of the stated load and 10 K of the stated oil).
 */
const FAR_PRESSURE = 0.25;
const FAR_TEMPERATURE = 15;

/**
 * How a point is usually read: the medians of its newest readings (24 at most) that noted both load and oil temperature.
 * @param readings oldest first: bar and °C; null: not noted
 * @returns whole bar and °C; null where fewer than four noted both
 * @example usualCondition([200, 205, 210, 215].map((pressure) => ({ pressure, temperature: 50 }))) // { pressure: 208, temperature: 50 }
 */
export function usualCondition(readings: readonly ReadCondition[]): UsualCondition | null {
  const noted = readings
    .filter((r): r is UsualCondition => r.pressure !== null && r.temperature !== null)
    .slice(-NEWEST);
  if (noted.length < LEAST) return null;
  return {
    pressure: Math.round(median(noted.map((r) => r.pressure))),
    temperature: Math.round(median(noted.map((r) => r.temperature))),
  };
}

/**
 * Is a reference far from how the point is read: more than a quarter of the usual load, or more than 15 K? A correction over
 * such a distance goes beyond what it was learned on (limits: common practice).
 * @param reference bar and °C; either may be null.
 * @param usual how it is read, bar and °C
 * @returns true where it is far
 * @example isFarReference({ pressure: 250, temperature: 50 }, { pressure: 200, temperature: 50 }) // false
 * @example isFarReference({ pressure: 251, temperature: 50 }, { pressure: 200, temperature: 50 }) // true
 */
export function isFarReference(reference: ReadCondition, usual: UsualCondition): boolean {
  const byPressure =
    reference.pressure !== null &&
    Math.abs(reference.pressure - usual.pressure) > FAR_PRESSURE * Math.max(usual.pressure, 1);
  const byTemperature =
    reference.temperature !== null && Math.abs(reference.temperature - usual.temperature) > FAR_TEMPERATURE;
  return byPressure || byTemperature;
}
