/** What a circuit's gauges show now, held against what a model of it says they should. */
import type { GaugeQuantity } from "./netlist";

export interface PresentGauge {
  pointId: string;
  /** Level now, core unit of its quantity. */
  value: number;
  /** Standard uncertainty of that level and of what the model was fitted to, together, core unit. */
  uncertainty: number;
}

/** What a model says of a gauge: as asked, and when healthy. Core unit; null: it has no answer. */
export interface Modelled {
  reads: GaugeQuantity;
  healthy: number | null | undefined;
  value: number | null | undefined;
}

/** A gauge agrees with the model when it lies within so many standard uncertainties. */
const AGREES = 2;
/** A fitted model is no truer than this share of a healthy value. */
const OF_VALUE = 0.02;
/**
 * Nor is a change that it foretells: of pressures and flows, and of temperatures, whose cooling was fitted to what little
 * heat a healthy circuit makes (a relief valve that takes the pump's flow came out at 310 °C in the tank).
 */
const OF_CHANGE = 0.15;
const OF_WARMING = 0.8;

/** Standard uncertainty of the difference between gauge and model, core unit. */
export function uncertaintyOf(gauge: PresentGauge, { reads, healthy, value }: Modelled): number {
  const warms = reads === "temperature" || reads === "temperatureRise";
  const change = Math.abs((value ?? 0) - (healthy ?? 0));
  return Math.hypot(gauge.uncertainty, OF_VALUE * (healthy ?? 0), (warms ? OF_WARMING : OF_CHANGE) * change);
}

/**
 * Signed distance of a gauge from its model.
 * @param gauge level now with its standard uncertainty above 0, core unit
 * @param modelled what the model says, healthy and as asked, core unit
 * @returns in standard uncertainties of both; null: the model has no answer
 * @example distanceOf({ pointId: "p", value: 190, uncertainty: 3 }, { reads: "pressure", healthy: 200, value: 200 }) // -2
 */
export function distanceOf(gauge: PresentGauge, modelled: Modelled): number | null {
  const { healthy, value } = modelled;
  if (healthy === null || healthy === undefined || value === null || value === undefined) return null;
  return (gauge.value - value) / uncertaintyOf(gauge, modelled);
}

/**
 * Does a gauge at this distance agree with the model: within 2 standard uncertainties?
 * @param distance from `distanceOf`; null: the model has no answer, and nothing agrees
 * @returns true where it does
 * @example agrees(-1.5) // true
 * @example agrees(null) // false
 */
export const agrees = (distance: number | null): boolean => distance !== null && Math.abs(distance) <= AGREES;

/**
 * How many gauges a model accounts for.
 * @param gauges levels now, core units
 * @param modelled what the model says of a point
 * @returns gauges that agree, of those that the model has an answer for
 * @example
 * const modelled = { reads: "pressure", healthy: 200, value: 200 };
 * matchOf([{ pointId: "p", value: 190, uncertainty: 3 }], () => modelled) // { agree: 1, of: 1 }
 */
export function matchOf(
  gauges: readonly PresentGauge[],
  modelled: (pointId: string) => Modelled,
): { agree: number; of: number } {
  const distances = gauges.map((g) => distanceOf(g, modelled(g.pointId))).filter((d) => d !== null);
  return { agree: distances.filter(agrees).length, of: distances.length };
}
