/**
 * Which fault explains what the gauges of a circuit show? Every fault of every element is tried in the model; each is
 * weighed by Bayes over all gauges, those that moved and those that did not. "Nothing is wrong" and "something that the
 * model does not know" are possibilities like any other.
 */
import type { Circumstances } from "../circuit/circumstances";
import type { Readout } from "../circuit/gauges";
import { agrees, type PresentGauge } from "../circuit/match";
import type { Netlist } from "../circuit/netlist";
import { candidatesOf, faultKey, faultsKey, type Candidate } from "./candidates";
import {
  benchOf,
  likelihood,
  tryFault,
  unknownLikelihood,
  weighed,
  type Bench,
  type Distance,
  type Tried,
} from "./tried";

/** A fault of an element, as bad as explains most, in the fault's own measure. */
export interface FaultAt {
  element: string;
  fault: string;
  severity: number;
}

export interface Explanation {
  /** None: nothing is wrong; or, with `unknown`, something that the model does not have. Two: both at once. */
  faults: FaultAt[];
  unknown: boolean;
  /** Share of probability among all possibilities. */
  share: number;
  /** Points that a healthy circuit does not explain and this does; and points that it does not explain. */
  explains: string[];
  leaves: string[];
}

/** Odds of something that the model does not have, beside those of nothing at all (common practice, not counted). */
const UNKNOWN = 0.005;
/** So many single faults are tried with a second one beside them. */
const PAIRED = 3;
/** And so many pairs are kept with an isolation. */
const PAIRS_KEPT = 24;

type Weighed = Omit<Explanation, "share"> & { weight: number };

export interface Single extends Candidate {
  tried: Tried[];
  best: Tried;
  /** ln of prior and mean likelihood. */
  weight: number;
}

/** Points that a state of the model accounts for though the healthy one does not, and points that it does not. */
function explained(bench: Bench, distances: readonly Distance[], unknown: boolean) {
  const { known, off } = bench;
  return {
    explains: known.filter((g, i) => off.has(g.pointId) && agrees(distances[i]!.z)).map((g) => g.pointId),
    leaves: unknown ? [] : known.filter((_, i) => !agrees(distances[i]!.z)).map((g) => g.pointId),
  };
}

/** Every single fault tried over its whole range; those for which the model has no state are left out. */
export function singlesOf(bench: Bench, candidates: readonly Candidate[]): Single[] {
  return candidates.flatMap((candidate): Single[] => {
    const tried = tryFault(bench, candidate);
    if (tried.length === 0) return [];
    const best = tried.reduce((a, b) => (b.log > a.log ? b : a));
    return [{ ...candidate, tried, best, weight: Math.log(candidate.odds) + weighed(tried).mean }];
  });
}

const faultOf = ({ element, fault }: Candidate, { severity }: Tried): FaultAt => ({ element, fault, severity });

/** Faults that stand together already, as bad as explains most. */
interface Standing {
  faults: FaultAt[];
  /** ln of prior and mean likelihood, and of the likelihood at its best. */
  weight: number;
  log: number;
}

/** Every other fault beside those that stand already. */
function besideOf(bench: Bench, standing: Standing, candidates: readonly Candidate[]): (Weighed & Standing)[] {
  const beside: Record<string, Record<string, number>> = {};
  for (const { element, fault, severity } of standing.faults) (beside[element] ??= {})[fault] = severity;
  return candidates.flatMap((c): (Weighed & Standing)[] => {
    if (beside[c.element]?.[c.fault] !== undefined) return [];
    const tried = tryFault(bench, c, beside);
    if (tried.length === 0) return [];
    const best = tried.reduce((x, y) => (y.log > x.log ? y : x));
    return [
      {
        faults: [...standing.faults, faultOf(c, best)],
        unknown: false,
        // the severities of those that stand were not known either: they cost the next one what they cost themselves
        weight: standing.weight - standing.log + Math.log(c.odds) + weighed(tried).mean,
        log: best.log,
        ...explained(bench, best.distances, false),
      },
    ];
  });
}

/** The likeliest single faults, each with every other one beside it; then a third one beside the best two. */
function severalOf(bench: Bench, singles: readonly Single[], candidates: readonly Candidate[]): Weighed[] {
  const found = new Map<string, Weighed & Standing>();
  const keep = (all: readonly (Weighed & Standing)[]) => {
    for (const e of all) {
      const key = faultsKey(e.faults);
      if (e.weight > (found.get(key)?.weight ?? -Infinity)) found.set(key, e);
    }
  };
  const first = [...singles].sort((a, b) => b.weight - a.weight).slice(0, PAIRED);
  for (const { best, weight, ...single } of first)
    keep(besideOf(bench, { faults: [faultOf(single, best)], weight, log: best.log }, candidates));
  const two = [...found.values()].sort((a, b) => b.weight - a.weight)[0];
  if (two && two.leaves.length > 0) keep(besideOf(bench, two, candidates));
  return [...found.values()];
}

/** Two faults at once, and ln of the mean likelihood of all gauges with both. */
export interface PairLog {
  faults: [FaultAt, FaultAt];
  log: number;
}

/**
 * Pairs of faults that explain the gauges better than either of the two, where no single fault explains all of them.
 * @param bench gauges beside the model
 * @param singles every fault of the circuit, each tried by itself
 * @param candidates the same faults, with how often each comes
 * @returns best first; empty where one fault is enough, or nothing is off
 */
export function pairsOf(bench: Bench, singles: readonly Single[], candidates: readonly Candidate[]): PairLog[] {
  const alone = new Map(singles.map((s) => [faultKey(s), weighed(s.tried).mean]));
  const ranked = [...singles].sort((a, b) => b.weight - a.weight);
  const enough = ranked[0] && explained(bench, ranked[0].best.distances, false).leaves.length === 0;
  if (bench.off.size === 0 || enough) return [];
  const found = new Map<string, PairLog>();
  for (const { best, weight, ...single } of ranked.slice(0, PAIRED))
    for (const both of besideOf(bench, { faults: [faultOf(single, best)], weight, log: best.log }, candidates)) {
      const [a, b] = both.faults as [FaultAt, FaultAt];
      const key = faultsKey([a, b]);
      const second = candidates.find((c) => faultKey(c) === faultKey(b))!;
      const log = both.weight - Math.log(single.odds) - Math.log(second.odds);
      const better = Math.max(alone.get(faultKey(a)) ?? -Infinity, alone.get(faultKey(b)) ?? -Infinity);
      if (log > better && log > (found.get(key)?.log ?? -Infinity)) found.set(key, { faults: [a, b], log });
    }
  return [...found.values()].sort((a, b) => b.log - a.log).slice(0, PAIRS_KEPT);
}

/**
 * Rank the faults of a circuit by how well they explain its gauges: every fault of every element is tried in the model over its
 * range, and weighed by Bayes over all gauges.
 * @param netlist its diagram
 * @param read the circuit's gauges under given circumstances
 * @param usual circumstances of the healthy circuit at work, fitted to its own baselines
 * @param gauges as they stand now, core units, at the conditions of the baselines
 * @param options how much is tried
 * @param options.most how many possibilities are given back (5)
 * @param options.several whether two and three faults at once are tried where no single one explains everything (several times the work)
 * @returns the likeliest first; shares of all possibilities add up to 1. Empty: no gauge that the model has an answer for
 * @example
 * const drawn = circuitOf({ tank: ["tank"], pump: ["fixedPump", { caseLeak: 0 }], relief: ["relief", { crack: 180 }] },
 *   ["tank.T - pump.in - relief.T", "pump.out - relief.P"]);
 * const circuit = { ...drawn, gauges: [{ pointId: "p", element: "pump", port: "out", reads: "pressure" }] };
 * const read = gaugeReader(circuit, new Map());
 * explainGauges(circuit, read, { commands: {} }, [{ pointId: "p", value: 120, uncertainty: 2 }])[0].explains // ["p"]
 */
export function explainGauges(
  netlist: Netlist,
  read: (c: Circumstances) => Readout,
  usual: Circumstances,
  gauges: readonly PresentGauge[],
  options: { most?: number; several?: boolean } = {},
): Explanation[] {
  const { most = 5, several = false } = options;
  const bench = benchOf(netlist, read, usual, gauges);
  if (bench.known.length === 0) return [];
  const asNew = bench.distancesOf(bench.healthy)!;
  const candidates = candidatesOf(netlist);
  const singles = singlesOf(bench, candidates);
  const none = { faults: [], ...explained(bench, asNew, false) };
  const found: Weighed[] = [
    { ...none, unknown: false, weight: likelihood(asNew) },
    { ...none, unknown: true, leaves: [], weight: Math.log(UNKNOWN) + unknownLikelihood(asNew) },
    ...singles.map((s) => ({
      faults: [faultOf(s, s.best)],
      unknown: false,
      weight: s.weight,
      ...explained(bench, s.best.distances, false),
    })),
  ];
  const likeliest = found.reduce((a, b) => (b.weight > a.weight ? b : a));
  if (several && (likeliest.unknown || likeliest.leaves.length > 0))
    found.push(...severalOf(bench, singles, candidates));
  const greatest = Math.max(...found.map((f) => f.weight));
  const sum = found.reduce((s, f) => s + Math.exp(f.weight - greatest), 0);
  return found
    .map(({ weight, faults, unknown, explains, leaves }) => ({
      faults,
      unknown,
      explains,
      leaves,
      share: Math.exp(weight - greatest) / sum,
    }))
    .sort((a, b) => b.share - a.share)
    .slice(0, most);
}
