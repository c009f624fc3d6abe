import { describe, expect, test } from "@jest/globals";
import { fitCircuit, gaugeReader, netlistProblems, workCommands } from "@core";
import { plannedNetlist, plannedStates, readingsAsNew } from "./draft";
import { fleetPlan } from "./fleet";

type Machine = ReturnType<typeof fleetPlan>[number];
const idOf = (machine: Machine, component: string, point = "") => {
  const i = machine.components.findIndex((c) => c.name === component);
  const k = machine.components[i]!.points.findIndex((p) => p.name === point);
  return k < 0 ? `c${i}` : `c${i}p${k}`;
};

/** A machine of the demo's plan as drawn and fitted to what its gauges show when all is as new. */
function fitted(machine: Machine) {
  const netlist = plannedNetlist(machine);
  const commands = workCommands(netlist);
  const fit = fitCircuit(netlist, readingsAsNew(machine), commands);
  const read = gaugeReader(netlist, plannedStates(machine));
  const show = (faults: Record<string, Record<string, number>> = {}) =>
    read({ commands, data: fit.data, faults }).values;
  return { netlist, fit, show, of: (component: string, point = "") => idOf(machine, component, point) };
}

const machineOf = (tag: string) => fleetPlan().find((m) => m.tag === tag)!;

test.each(fleetPlan().map((m) => [m.name, m] as const))(
  "%s: drawn from its components, sound, and fitted",
  (_n, machine) => {
    const { netlist, fit } = fitted(machine);
    expect(netlistProblems(netlist).filter((p) => p.grave)).toEqual([]);
    expect(fit.met.length).toBeGreaterThanOrEqual(6);
    expect(fit.met.filter((m) => m.deviations === null || Math.abs(m.deviations) > 2)).toEqual([]);
    expect(fit.fits).toBe(true);
  },
);

describe("what happened in the harbour, done to the model", () => {
  test("a worn pump: the case drain says it first, the stroke hardly", () => {
    const m = fitted(machineOf("LG-ON"));
    const healthy = m.show();
    const worn = m.show({ [m.of("Pump A")]: { caseLeak: 3 } });
    const value = (v: typeof healthy, component: string, point: string) => v.get(m.of(component, point))!;
    expect(value(worn, "Pump A", "Case drain flow") / value(healthy, "Pump A", "Case drain flow")).toBeGreaterThan(3.5);
    expect(value(worn, "Pump B", "Case drain flow") / value(healthy, "Pump B", "Case drain flow")).toBeCloseTo(1, 1);
    const slower = value(worn, "Gate cylinder", "Stroke time") / value(healthy, "Gate cylinder", "Stroke time");
    expect(slower).toBeGreaterThan(1.001);
    expect(slower).toBeLessThan(1.1);
  });

  test("a relief valve set under the unloader's cut-out: it heats, the tank warms, the cut-out is never reached", () => {
    const m = fitted(machineOf("SL-3"));
    const healthy = m.show();
    const low = m.show({ [m.of("Relief valve")]: { setLow: 24 } });
    const value = (v: typeof healthy, component: string, point: string) => v.get(m.of(component, point))!;
    expect(value(healthy, "Relief valve", "Relief setting")).toBeCloseTo(192, 0);
    expect(value(low, "Relief valve", "Relief setting")).toBeCloseTo(168, 0);
    expect(value(low, "Unloader", "Cut-out pressure")).toBeLessThan(value(healthy, "Unloader", "Cut-out pressure"));
    expect(value(low, "Relief valve", "Valve temperature over line")).toBeGreaterThan(6);
    expect(value(low, "Reservoir", "Oil temperature") - value(healthy, "Reservoir", "Oil temperature")).toBeGreaterThan(
      10,
    );
  });

  test("a blocked filter shows in its own pressure drop and nowhere else", () => {
    const m = fitted(machineOf("RR-1"));
    const healthy = m.show();
    const blocked = m.show({ [m.of("Return filter")]: { blocked: 2 } });
    for (const [id, value] of healthy) {
      if (value === null) continue;
      const change = blocked.get(id)! / value;
      if (id === m.of("Return filter", "Differential pressure")) expect(change).toBeGreaterThan(2.5);
      else expect(Math.abs(change - 1)).toBeLessThan(0.06);
    }
  });
});

test("a severity of 0 is healthy, and small severities change little", () => {
  const m = fitted(machineOf("LG-ON"));
  const healthy = m.show();
  for (const e of m.netlist.elements) {
    const none = m.show({ [e.id]: { slip: 0, caseLeak: 0, setLow: 0, blocked: 0, worn: 0, pistonLeak: 0 } });
    for (const [id, value] of healthy) if (value !== null) expect(none.get(id)).toBeCloseTo(value, 5);
  }
});
