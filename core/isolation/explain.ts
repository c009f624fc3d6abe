/**
 * Which single fault explains what the gauges of a circuit show? Every fault of every element is tried in the model at
 * severities from barely visible to gross; each is weighed by Bayes over all gauges, those that moved and those that
 * did not. "Nothing is wrong" and "something that the model does not know" are possibilities like any other.
 */
import { elementKinds } from "../circuit/kinds";
import type { Circumstances, Readout } from "../circuit/gauges";
import { agrees, distanceOf, uncertaintyOf, type PresentGauge } from "../circuit/match";
import type { Netlist } from "../circuit/netlist";

export interface Explanation {
  /** null, null: nothing is wrong; or, with `unknown`, something that the model does not have. */
  element: string | null;
  fault: string | null;
  unknown: boolean;
  /** The severity that explains most, in the fault's own measure. */
  severity: number;
  /** Share of probability among all possibilities. */
  share: number;
  /** Points that a healthy circuit does not explain and this does; and points that it does not explain. */
  explains: string[];
  leaves: string[];
}

/** Severities tried first. */
const COARSE = 13;
/**
 * Then, again and again, the two halfway to the neighbours of the best one. With gauges good to 2 % the right severity is
 * a needle of a few percent between two that are tried: seen as sharp as it is, neither is better than none.
 */
const BLURS = [16, 12, 8, 4, 2, 1, 1, 1];
/** Barely visible, as a share of the greatest severity. */
const LEAST_SEVERITY = 1e-3;
/** Before any gauge is looked at: nothing is wrong, or something that the model does not have (common practice, not counted). */
const HEALTHY = 0.5;
const UNKNOWN = 0.05;
/**
 * A gauge is read wrongly, or moved by something else, so often, and lies this far off then, standard uncertainties. A
 * level rests on several readings, so it is seldom (common practice, not counted).
 */
const STRAY = 0.003;
const STRAY_WIDTH = 12;
/** Where the cause is not known, so many gauges move with it. */
const MOVED = 0.3;

const density = (z: number, width: number) => Math.exp(-0.5 * (z / width) ** 2) / width;

/** How far a gauge lies from the model, and how much less sure the model is of it than when healthy (at most 1). */
interface Distance {
  z: number;
  sureness: number;
}

/** Log-likelihood of the gauges, each with a small chance of being astray. Blurred, it is seen from further off. */
const likelihood = (distances: readonly Distance[], astray = STRAY, blur = 1) =>
  distances.reduce(
    (sum, { z, sureness }) =>
      sum + Math.log((1 - astray) * sureness * density(z, blur) + astray * density(z, blur * STRAY_WIDTH)),
    0,
  );

interface Tried {
  /** Share of the way from the least to the greatest severity, on a log scale. */
  at: number;
  severity: number;
  distances: Distance[];
  log: number;
}

/** ln of the mean likelihood over all severities, by trapezes between those tried. */
function meanOf(tried: readonly Tried[]): number {
  const most = Math.max(...tried.map((t) => t.log));
  let sum = 0;
  tried.slice(1).forEach((b, i) => {
    const a = tried[i]!;
    sum += ((b.at - a.at) * (Math.exp(a.log - most) + Math.exp(b.log - most))) / 2;
  });
  return most + Math.log(Math.max(sum, 1e-300));
}

/** A fault at severities over its whole range, closer together where it explains most. Empty: the model has no state with it. */
function severitiesOf(greatest: number, at: (severity: number) => Distance[] | null): Tried[] {
  const tryAt = (share: number): Tried[] => {
    const severity = greatest * LEAST_SEVERITY ** (1 - share);
    const distances = at(severity);
    return distances ? [{ at: share, severity, distances, log: likelihood(distances) }] : [];
  };
  let tried = Array.from({ length: COARSE }, (_, i) => tryAt(i / (COARSE - 1))).flat();
  for (const blur of BLURS) {
    if (tried.length < 2) break;
    const seen = tried.map((t) => likelihood(t.distances, STRAY, blur));
    const best = seen.indexOf(Math.max(...seen));
    const beside = [tried[best - 1], tried[best + 1]].flatMap((t) => (t ? tryAt((t.at + tried[best]!.at) / 2) : []));
    tried = [...tried, ...beside].sort((a, b) => a.at - b.at);
  }
  return tried;
}

/**
 * Rank the single faults of a circuit by how well they explain its gauges.
 * @param read the circuit's gauges under given circumstances
 * @param usual circumstances of the healthy circuit at work, fitted to its own baselines
 * @param gauges as they stand now, at the conditions of the baselines
 * @param most how many possibilities are given back
 * @returns the likeliest first; shares of all possibilities add up to 1. Empty: no gauge that the model has an answer for
 */
export function explainGauges(
  netlist: Netlist,
  read: (c: Circumstances) => Readout,
  usual: Circumstances,
  gauges: readonly PresentGauge[],
  most = 5,
): Explanation[] {
  const healthy = read(usual).values;
  const readsOf = new Map(netlist.gauges.map((g) => [g.pointId, g.reads]));
  const modelled = (pointId: string, values: Readout["values"]) => ({
    reads: readsOf.get(pointId) ?? ("other" as const),
    healthy: healthy.get(pointId),
    value: values.get(pointId),
  });
  const known = gauges.filter((g) => distanceOf(g, modelled(g.pointId, healthy)) !== null);
  if (known.length === 0) return [];
  const off = new Set(known.filter((g) => !agrees(distanceOf(g, modelled(g.pointId, healthy)))).map((g) => g.pointId));
  /** null: the model has no state with this fault, or loses a gauge in it. */
  const distancesUnder = (values: Readout["values"]) => {
    const distances = known.flatMap((g): Distance[] => {
      const so = modelled(g.pointId, values);
      const z = distanceOf(g, so);
      const sureness = uncertaintyOf(g, modelled(g.pointId, healthy)) / uncertaintyOf(g, so);
      return z === null ? [] : [{ z, sureness }];
    });
    return distances.length < known.length ? null : distances;
  };
  const found: (Omit<Explanation, "share"> & { weight: number })[] = [];
  const add = (
    of: Pick<Explanation, "element" | "fault" | "unknown" | "severity">,
    distances: Distance[],
    weight: number,
  ) =>
    found.push({
      ...of,
      weight,
      explains: known.filter((g, i) => off.has(g.pointId) && agrees(distances[i]!.z)).map((g) => g.pointId),
      leaves: of.unknown ? [] : known.filter((_, i) => !agrees(distances[i]!.z)).map((g) => g.pointId),
    });

  const asNew = distancesUnder(healthy)!;
  const none = { element: null, fault: null, severity: 0 };
  add({ ...none, unknown: false }, asNew, Math.log(HEALTHY) + likelihood(asNew));
  add({ ...none, unknown: true }, asNew, Math.log(UNKNOWN) + likelihood(asNew, MOVED));

  const candidates = netlist.elements.flatMap((e) =>
    Object.entries(elementKinds[e.kind].faults).map(([fault, { greatest }]) => ({ element: e.id, fault, greatest })),
  );
  const prior = Math.log((1 - HEALTHY - UNKNOWN) / Math.max(1, candidates.length));
  for (const { element, fault, greatest } of candidates) {
    const tried = severitiesOf(greatest, (severity) => {
      const faults = { ...usual.faults, [element]: { ...usual.faults?.[element], [fault]: severity } };
      return distancesUnder(read({ ...usual, faults }).values);
    });
    if (tried.length < 2) continue;
    const best = tried.reduce((a, b) => (b.log > a.log ? b : a));
    add({ element, fault, unknown: false, severity: best.severity }, best.distances, prior + meanOf(tried));
  }
  const greatest = Math.max(...found.map((f) => f.weight));
  const sum = found.reduce((s, f) => s + Math.exp(f.weight - greatest), 0);
  return found
    .map(({ weight, ...f }) => ({ ...f, share: Math.exp(weight - greatest) / sum }))
    .sort((a, b) => b.share - a.share)
    .slice(0, most);
}
