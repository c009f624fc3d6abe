/** What the gauges of a circuit say of each fault, as a thread computes it: plain data in, plain data out. */
import {
  gaugeEvidence,
  type Circumstances,
  type GaugeEvidence,
  type Netlist,
  type PresentGauge,
  type ReadingState,
} from "@core";

export interface EvidenceTask {
  netlist: Netlist;
  states: [string, ReadingState][];
  usual: Circumstances;
  gauges: PresentGauge[];
}

/** Every single fault tried in the model, with what each test would show. */
export default function evidenceTask({ netlist, states, usual, gauges }: EvidenceTask): GaugeEvidence {
  return gaugeEvidence(netlist, states, usual, gauges);
}
