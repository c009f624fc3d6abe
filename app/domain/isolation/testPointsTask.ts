/** Where test points would help, as a thread computes it: plain data in, plain data out. */
import { gaugeEvidence, testPointAdvice, type Circumstances, type Netlist, type TestPointAdvice } from "@core";

export interface TestPointsTask {
  netlist: Netlist;
  /** The healthy circuit at work; null: its model does not fit, and is not used. */
  usual: Circumstances | null;
}

/** Cases drawn for this circuit, walked with what is there and with one test point more. */
export default function testPointsTask({ netlist, usual }: TestPointsTask): TestPointAdvice {
  return testPointAdvice(netlist, usual && gaugeEvidence(netlist, [], usual, []));
}
