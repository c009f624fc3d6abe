/** Outside checks of the circuit solver: SciPy on the same circuits, written down by themselves (reference/circuits.py). */
import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { circuitOf } from "../core/circuit/build";
import type { Netlist } from "../core/circuit/netlist";
import { steadyState } from "../core/circuit/steady";

interface Case {
  circuit: string;
  faults: Record<string, Record<string, number>>;
  values: Record<string, number>;
}
const { cases } = JSON.parse(readFileSync("reference/circuits.py.json", "utf8")) as { cases: Case[] };

const noCase = { caseLeak: 0 };
const circuits: Record<string, { netlist: Netlist; commands?: Record<string, number> }> = {
  fixed: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        pump: ["fixedPump", { displacement: 45, speed: 1450, slip: 0.0097875, ...noCase }],
        relief: ["relief", { crack: 180, perBar: 4.35 }],
        hole: ["throttle", { diameter: 3 }],
      },
      ["tank.T - pump.in - relief.T - hole.out", "pump.out - relief.P - hole.in"],
    ),
  },
  compensated: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        pump: ["compensatedPump", { displacement: 100, speed: 1480, set: 210, droop: 8, slip: 0, caseLeak: 0.0105 }],
        drain: ["line", { laminar: 0.4, turbulent: 0.01 }],
        one: ["consumer", { leak: 0.004 }],
        two: ["consumer", { leak: 0.006 }],
        three: ["consumer", { leak: 0.003 }],
      },
      ["tank.T - pump.in - drain.out", "pump.case - drain.in", "pump.out - one.P - two.P - three.P"],
    ),
  },
  lift: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        strainer: ["strainer", { laminar: 0.0006, turbulent: 2e-6 }],
        pump: ["fixedPump", { displacement: 40, speed: 1450, slip: 0.004, ...noCase }],
        relief: ["relief", { crack: 200, perBar: 4 }],
        valve: ["proportional", { k: 30, leak: 0.004, overlap: 0.05 }],
        cylinder: ["cylinder", { bore: 125, rod: 80, load: 100, friction: 2 }],
        filter: ["filter", { laminar: 0.012, housing: 3e-5, bypass: 3, perBar: 60 }],
      },
      [
        "tank.T - strainer.in - relief.T - filter.out",
        "strainer.out - pump.in",
        "pump.out - relief.P - valve.P",
        "valve.A - cylinder.A",
        "valve.B - cylinder.B",
        "valve.T - filter.in",
      ],
    ),
    commands: { valve: 0.6 },
  },
  loop: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        charge: ["fixedPump", { displacement: 12, speed: 1450, slip: 0.001, ...noCase }],
        relief: ["relief", { crack: 22, perBar: 4 }],
        intoA: ["check", { crack: 0.5, k: 40 }],
        intoB: ["check", { crack: 0.5, k: 40 }],
        pump: ["closedLoopPump", { displacement: 45, speed: 1450, slip: 0.004, caseLeak: 0.005 }],
        motor: ["motor", { displacement: 500, torque: 1000 }],
        flushing: ["flushing", { set: 18, perBar: 1.5 }],
      },
      [
        "tank.T - charge.in - relief.T - pump.case - motor.case - flushing.T",
        "charge.out - relief.P - intoA.in - intoB.in",
        "intoA.out - pump.A - motor.A - flushing.A",
        "intoB.out - pump.B - motor.B - flushing.B",
      ],
    ),
    commands: { pump: 1 },
  },
  motor: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        pump: ["compensatedPump", { displacement: 71, speed: 1450, set: 230, droop: 8, slip: 0.006, ...noCase }],
        line: ["line", { laminar: 0.005, turbulent: 1e-4 }],
        motor: ["motor", { displacement: 500, torque: 900 }],
        hole: ["throttle", { diameter: 8 }],
      },
      ["tank.T - pump.in - motor.case - hole.out", "pump.out - line.in", "line.out - motor.A", "motor.B - hole.in"],
    ),
  },
  branches: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        pump: ["fixedPump", { displacement: 28, speed: 1450, slip: 0.002, ...noCase }],
        relief: ["relief", { crack: 140, perBar: 4 }],
        reducing: ["reducing", { set: 30, range: 2, k: 8 }],
        clutch: ["consumer", { leak: 0.05 }],
        control: ["flowControl", { set: 12, least: 8 }],
        first: ["throttle", { diameter: 3 }],
        sequence: ["sequence", { set: 100, range: 5, k: 25 }],
        second: ["throttle", { diameter: 2.5 }],
      },
      [
        "tank.T - pump.in - relief.T - first.out - second.out",
        "pump.out - relief.P - reducing.in - control.in - sequence.in",
        "reducing.out - clutch.P",
        "control.out - first.in",
        "sequence.out - second.in",
      ],
    ),
  },
  lowering: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        pump: ["fixedPump", { displacement: 28, speed: 1450, slip: 0.002, ...noCase }],
        relief: ["relief", { crack: 160, perBar: 4 }],
        feed: ["throttle", { diameter: 4 }],
        cylinder: ["cylinder", { bore: 125, rod: 80, load: 150, friction: 2 }],
        holding: ["counterbalance", { set: 190, ratio: 4, range: 40, k: 20 }],
        back: ["throttle", { diameter: 5 }],
      },
      [
        "tank.T - pump.in - relief.T - back.out",
        "pump.out - relief.P - feed.in",
        "feed.out - cylinder.B - holding.X",
        "cylinder.A - holding.C",
        "holding.V - back.in",
      ],
    ),
  },
};

test.each(cases.map((c) => [`${c.circuit} ${JSON.stringify(c.faults)}`, c] as const))("SciPy: %s to 1e-4", (_n, c) => {
  const { netlist, commands = {} } = circuits[c.circuit]!;
  const solved = steadyState(netlist, { commands, faults: c.faults });
  if (!solved.ok) throw new Error(solved.problem);
  for (const [name, expected] of Object.entries(c.values)) {
    const [element, port] = name.split(/[.:]/) as [string, string];
    const own = name.includes(":") ? solved.inner(element)[Number(port)]! : solved.pressure({ element, port })!;
    // relative, and for what lies near nothing to a thousandth of a bar
    expect(Math.abs(own - expected)).toBeLessThan(1e-4 * Math.abs(expected) + 1e-3);
  }
});

test("seven circuits, and each family of faults once", () => {
  expect(new Set(cases.map((c) => c.circuit)).size).toBe(7);
  expect(cases.length).toBeGreaterThanOrEqual(40);
});
