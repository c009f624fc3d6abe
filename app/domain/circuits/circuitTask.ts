/** Drawing a circuit and fitting it to its gauges, as a thread does it: plain data in, plain data out. */
import {
  draftCircuit,
  fitCircuit,
  netlistProblems,
  workCommands,
  type BaselineReading,
  type Circumstances,
  type DraftComponent,
  type Drawing,
  type FitResult,
  type Netlist,
} from "@core";
import { layOut } from "./layout";

export interface CircuitTask {
  workingPressure: number | null;
  components: readonly DraftComponent[];
  /** Drawn by a person; null: to be proposed from the components. */
  netlist: Netlist | null;
  readings: readonly BaselineReading[];
  oil: Pick<Circumstances, "viscosity" | "density">;
}

export interface CircuitResult {
  netlist: Netlist;
  assumed: string[];
  drawing: Drawing;
  fit: FitResult | null;
}

export default async function circuitTask(task: CircuitTask): Promise<CircuitResult> {
  const { netlist, assumed } = task.netlist
    ? { netlist: task.netlist, assumed: [] }
    : draftCircuit({ workingPressure: task.workingPressure, components: task.components });
  const drawing = await layOut(netlist);
  const sound = !netlistProblems(netlist).some((p) => p.grave);
  const fit =
    sound && task.readings.length > 0 ? fitCircuit(netlist, task.readings, workCommands(netlist), task.oil) : null;
  return { netlist, assumed, drawing, fit };
}
