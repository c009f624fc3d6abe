/** What a circuit's gauges show now, held against what a model of it says they should. */
export interface PresentGauge {
  pointId: string;
  /** Level now, core unit of its quantity. */
  value: number;
  /** Standard uncertainty of that level and of what the model was fitted to, together, core unit. */
  uncertainty: number;
}

/** A gauge agrees with the model when it lies within so many standard uncertainties. */
const AGREES = 2;
/** Nor is a model of a circuit truer than this share of a value. */
const MODEL_SHARE = 0.02;

/** Signed distance of a gauge from a modelled value in standard uncertainties; null: the model has no answer. */
export function distanceOf(gauge: PresentGauge, modelled: number | null | undefined): number | null {
  if (modelled === null || modelled === undefined) return null;
  return (gauge.value - modelled) / Math.hypot(gauge.uncertainty, MODEL_SHARE * modelled);
}

/** Does a gauge at this distance agree with the model? A gauge that the model does not know does not. */
export const agrees = (distance: number | null): boolean => distance !== null && Math.abs(distance) <= AGREES;

/**
 * How many gauges a model accounts for.
 * @param values of the model by point, core units; null where it has no answer
 * @returns gauges that agree, of those that the model has an answer for
 */
export function matchOf(
  gauges: readonly PresentGauge[],
  values: ReadonlyMap<string, number | null>,
): { agree: number; of: number } {
  const distances = gauges.map((g) => distanceOf(g, values.get(g.pointId))).filter((d) => d !== null);
  return { agree: distances.filter(agrees).length, of: distances.length };
}
