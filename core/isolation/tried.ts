/**
 * Faults tried in the model of a circuit: each at severities from barely visible to gross, closer together where they
 * explain the gauges, with what every gauge would show.
 */
import type { Circumstances } from "../circuit/circumstances";
import { gaugeReader, type Readout } from "../circuit/gauges";
import { agrees, distanceOf, uncertaintyOf, type PresentGauge } from "../circuit/match";
import type { Netlist } from "../circuit/netlist";
import type { ReadingState } from "../units/readingStates";
import type { Candidate } from "./candidates";

/** Severities tried first. */
const COARSE = 13;
/**
 * Then, again and again, the two halfway to the neighbours of the best one. With gauges good to 2 % the right severity is
 * a needle of a few percent between two that are tried: seen as sharp as it is, neither is better than none.
 */
const BLURS = [16, 12, 8, 4, 2, 1, 1, 1];
/**
 * A gauge is read wrongly, or moved by something else, so often, and lies this far off then, standard uncertainties. A
 * level rests on several readings, so it is seldom, and seldom by much: a leak that has doubled over months is no gauge
 * that reads double (common practice, not counted).
 */
const STRAY = 0.003;
const STRAY_WIDTH = 4;
const GROSS_SHARE = 0.005;
const GROSS_WIDTH = 40;

const density = (z: number, width: number) => Math.exp(-0.5 * (z / width) ** 2) / width;

/** How far a gauge lies from the model, and how much less sure the model is of it than when healthy (at most 1). */
export interface Distance {
  z: number;
  sureness: number;
}

/** Where the cause is not known, so many gauges move with it, and so many of these far (common practice, not counted). */
const MOVED = { astray: 0.15, gross: 0.3 };

const strayDensity = (z: number, blur: number, gross: number) =>
  (1 - gross) * density(z, blur * STRAY_WIDTH) + gross * density(z, blur * GROSS_WIDTH);

/** Log-likelihood of the gauges, each with a small chance of being astray. Blurred, it is seen from further off. */
export const likelihood = (
  distances: readonly Distance[],
  blur = 1,
  { astray, gross }: typeof MOVED = { astray: STRAY, gross: GROSS_SHARE },
): number =>
  distances.reduce(
    (sum, { z, sureness }) =>
      sum + Math.log((1 - astray) * sureness * density(z, blur) + astray * strayDensity(z, blur, gross)),
    0,
  );

/** Log-likelihood of the gauges where something moves them that the model does not have. */
export const unknownLikelihood = (distances: readonly Distance[]): number => likelihood(distances, 1, MOVED);

export interface Tried {
  /** Share of the way from the least to the greatest severity, on a log scale. */
  at: number;
  severity: number;
  distances: Distance[];
  log: number;
  /** What every gauge of the netlist shows, those that nobody has read too. */
  values: Readout["values"];
}

/** Gauges that the model has an answer for, and how far a state of the model lies from them. */
export interface Bench {
  known: PresentGauge[];
  healthy: Readout["values"];
  /** Points that lie off the healthy model. */
  off: ReadonlySet<string>;
  /** null: the model has no state with these faults, or loses a gauge in it. */
  distancesOf: (values: Readout["values"]) => Distance[] | null;
  valuesWith: (faults: Circumstances["faults"]) => Readout["values"];
}

/** The gauges of a circuit beside its model. */
export function benchOf(
  netlist: Netlist,
  read: (c: Circumstances) => Readout,
  usual: Circumstances,
  gauges: readonly PresentGauge[],
): Bench {
  const healthy = new Map(read(usual).values);
  const readsOf = new Map(netlist.gauges.map((g) => [g.pointId, g.reads]));
  const modelled = (pointId: string, values: Readout["values"]) => ({
    reads: readsOf.get(pointId) ?? ("other" as const),
    healthy: healthy.get(pointId),
    value: values.get(pointId),
  });
  const known = gauges.filter((g) => distanceOf(g, modelled(g.pointId, healthy)) !== null);
  return {
    known,
    healthy,
    off: new Set(known.filter((g) => !agrees(distanceOf(g, modelled(g.pointId, healthy)))).map((g) => g.pointId)),
    distancesOf: (values) => {
      const distances = known.flatMap((g): Distance[] => {
        const so = modelled(g.pointId, values);
        const z = distanceOf(g, so);
        const sureness = uncertaintyOf(g, modelled(g.pointId, healthy)) / uncertaintyOf(g, so);
        return z === null ? [] : [{ z, sureness }];
      });
      return distances.length < known.length ? null : distances;
    },
    valuesWith: (faults) => read({ ...usual, faults }).values,
  };
}

/**
 * Points of a circuit that lie off its healthy model: two solves, to know whether a fault is worth looking for.
 * @param netlist its diagram, with its gauges
 * @param states in which its points are read
 * @param usual circumstances of the healthy circuit at work, fitted to its own baselines
 * @param gauges as they stand now, core units
 * @returns ids of points; undefined: the model has no answer for any gauge
 * @example
 * const drawn = circuitOf({ tank: ["tank"], pump: ["fixedPump", { caseLeak: 0 }], relief: ["relief", { crack: 180 }] },
 *   ["tank.T - pump.in - relief.T", "pump.out - relief.P"]);
 * const circuit = { ...drawn, gauges: [{ pointId: "p", element: "pump", port: "out", reads: "pressure" }] };
 * pointsOff(circuit, [], { commands: {} }, [{ pointId: "p", value: 120, uncertainty: 2 }]) // ["p"]
 */
export function pointsOff(
  netlist: Netlist,
  states: readonly (readonly [string, ReadingState])[],
  usual: Circumstances,
  gauges: readonly PresentGauge[],
): string[] | undefined {
  const { known, off } = benchOf(netlist, gaugeReader(netlist, new Map(states)), usual, gauges);
  return known.length === 0 ? undefined : [...off];
}

/**
 * One fault over its whole range, beside others that stand already.
 * @param beside faults that are there anyway
 * @returns by severity; empty: the model has no state with it
 */
export function tryFault(
  bench: Bench,
  { element, fault, least, greatest }: Omit<Candidate, "odds">,
  beside: Circumstances["faults"] = {},
): Tried[] {
  const tryAt = (at: number): Tried[] => {
    const severity = greatest * (least / greatest) ** (1 - at);
    const values = bench.valuesWith({ ...beside, [element]: { ...beside[element], [fault]: severity } });
    const distances = bench.distancesOf(values);
    return distances ? [{ at, severity, distances, log: likelihood(distances), values: new Map(values) }] : [];
  };
  let tried = Array.from({ length: COARSE }, (_, i) => tryAt(i / (COARSE - 1))).flat();
  for (const blur of BLURS) {
    if (tried.length < 2) break;
    const seen = tried.map((t) => likelihood(t.distances, blur));
    const best = seen.indexOf(Math.max(...seen));
    const halfway = [tried[best - 1], tried[best + 1]].flatMap((t) => (t ? tryAt((t.at + tried[best]!.at) / 2) : []));
    tried = [...tried, ...halfway].sort((a, b) => a.at - b.at);
  }
  return tried.length < 2 ? [] : tried;
}

/** Shares of the severities of one fault, by trapezes between those tried; and ln of their mean likelihood. */
export function weighed(tried: readonly Tried[]): { mean: number; shares: number[] } {
  const most = Math.max(...tried.map((t) => t.log));
  const parts = tried.map((t, i) => {
    const width = ((tried[i + 1]?.at ?? t.at) - (tried[i - 1]?.at ?? t.at)) / 2;
    return width * Math.exp(t.log - most);
  });
  const sum = Math.max(
    parts.reduce((s, p) => s + p, 0),
    1e-300,
  );
  return { mean: most + Math.log(sum), shares: parts.map((p) => p / sum) };
}
