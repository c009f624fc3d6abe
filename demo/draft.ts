/** A planned machine as its circuit is drawn from: for tests and the bench. Ids are the places in the plan. */
import { draftCircuit, type BaselineReading, type DraftComponent, type ReadingState } from "@core";
import type { MachinePlan } from "./world";

const pointIdOf = (i: number, k: number) => `c${i}p${k}`;

export function plannedComponents(machine: MachinePlan): DraftComponent[] {
  return machine.components.map((c, i) => ({
    id: `c${i}`,
    kind: c.kind,
    name: c.name,
    displacement: c.displacement ?? null,
    speed: c.speed ?? null,
    points: c.points.map((p, k) => ({ id: pointIdOf(i, k), name: p.name, quantity: p.quantity })),
  }));
}

export const plannedNetlist = (machine: MachinePlan) =>
  draftCircuit({ workingPressure: machine.pressure, components: plannedComponents(machine) }).netlist;

/** What its gauges show when all is as new. */
export const readingsAsNew = (machine: MachinePlan) =>
  machine.components.flatMap((c, i) =>
    c.points.map((p, k): BaselineReading => ({
      pointId: pointIdOf(i, k),
      state: p.state,
      value: p.asNew,
      uncertainty: p.noise * p.asNew,
    })),
  );

export const plannedStates = (machine: MachinePlan): Map<string, ReadingState> =>
  new Map(readingsAsNew(machine).map((r) => [r.pointId, r.state]));
