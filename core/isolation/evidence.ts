/** What the gauges of a circuit say of each of its faults, and what tests would show with each: made once, kept with a case. */
import type { Circumstances } from "../circuit/circumstances";
import { gaugeReader } from "../circuit/gauges";
import type { PresentGauge } from "../circuit/match";
import type { Netlist } from "../circuit/netlist";
import type { ReadingState } from "../units/readingStates";
import { candidatesOf } from "./candidates";
import { pairsOf, singlesOf, type PairLog } from "./explain";
import { predictedBy, readAlready, withTestGauges, type Predicted } from "./predicted";
import { benchOf, likelihood, unknownLikelihood, weighed } from "./tried";

export interface FaultEvidence {
  element: string;
  fault: string;
  /** ln of the mean likelihood of all gauges over its severities. */
  log: number;
  /** By test at its place: chance of less and of more than the healthy model shows. */
  predicted: Record<string, Predicted>;
}

export interface GaugeEvidence {
  /** Points off the healthy model. */
  off: string[];
  /** Points that were read and that the model has an answer for; the others are not known. Left out by isolations of before. */
  read?: string[];
  /** Tests at their places that read what a point reads that was read already, with that point. Left out by isolations of before. */
  asTest?: Record<string, string>;
  /** ln of the likelihood of all gauges: nothing is wrong; something that the model does not have. */
  healthy: number;
  unknown: number;
  faults: FaultEvidence[];
  /** Two faults at once that explain more than either; left out by isolations that began before they were tried. */
  pairs?: PairLog[];
}

/**
 * What the gauges of a circuit say of each of its single faults, and what its tests would show: made once, kept with a case.
 * @param netlist its diagram, with its gauges
 * @param states in which its points are read
 * @param usual circumstances of the healthy circuit at work, fitted to its own baselines
 * @param gauges as they stand now, core units; empty: every fault is as likely as before, and tests are predicted all the same
 * @returns likelihoods as logarithms, and predictions by test
 * @example
 * const drawn = circuitOf({ tank: ["tank"], pump: ["fixedPump", { caseLeak: 0 }], relief: ["relief", { crack: 180 }] },
 *   ["tank.T - pump.in - relief.T", "pump.out - relief.P"]);
 * const circuit = { ...drawn, gauges: [{ pointId: "p", element: "pump", port: "out", reads: "pressure" }] };
 * const { healthy, unknown } = gaugeEvidence(circuit, [], { commands: {} }, [{ pointId: "p", value: 120, uncertainty: 2 }]);
 * unknown > healthy // true
 */
export function gaugeEvidence(
  netlist: Netlist,
  states: readonly (readonly [string, ReadingState])[],
  usual: Circumstances,
  gauges: readonly PresentGauge[],
): GaugeEvidence {
  const added = withTestGauges(netlist);
  const read = gaugeReader(added.netlist, new Map([...states, ...added.states]));
  const bench = benchOf(added.netlist, read, usual, gauges);
  const asNew = bench.distancesOf(bench.healthy) ?? [];
  const candidates = candidatesOf(netlist);
  const singles = singlesOf(bench, candidates);
  const seen = new Set(bench.known.map((g) => g.pointId));
  return {
    off: [...bench.off],
    read: [...seen],
    asTest: readAlready(netlist, seen),
    healthy: likelihood(asNew),
    unknown: unknownLikelihood(asNew),
    pairs: pairsOf(bench, singles, candidates),
    faults: singles.map(({ element, fault, tried }) => {
      const { mean, shares } = weighed(tried);
      const severities = tried.map(({ values }, i) => ({ share: shares[i]!, values }));
      return {
        element,
        fault,
        log: mean,
        predicted: predictedBy(netlist, bench.healthy, severities),
      };
    }),
  };
}
