/** The standing diagnosis of one circuit, as a thread makes it: plain data in, plain data out. */
import {
  explainGauges,
  gaugeReader,
  standingDiagnosis,
  type Circumstances,
  type Netlist,
  type PresentGauge,
  type ReadingState,
  type StandingDiagnosis,
} from "@core";

export interface DiagnoseTask {
  netlist: Netlist;
  states: [string, ReadingState][];
  /** The healthy circuit at work, fitted to its own baselines. */
  usual: Circumstances;
  gauges: PresentGauge[];
  /** Points off the healthy model, as was found before. */
  off: string[];
}

/** Try every fault, and two at once where no single one explains everything. */
export default function diagnoseTask({ netlist, states, usual, gauges, off }: DiagnoseTask): StandingDiagnosis {
  const read = gaugeReader(netlist, new Map(states));
  return standingDiagnosis(
    netlist,
    explainGauges(netlist, read, usual, gauges, { most: Infinity, several: true }),
    off,
  );
}
