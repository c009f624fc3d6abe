/** Outside checks of circuits in time: SciPy's Radau on the same equations, written down by itself (reference/courses.py). */
import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { circuitOf } from "../core/circuit/build";
import type { Netlist } from "../core/circuit/netlist";
import { inTime, type InTimeOptions } from "../core/circuit/transient";

type Row = { circuit: string; at: number[] } & Record<string, number[]>;
const { courses } = JSON.parse(readFileSync("reference/courses.py.json", "utf8")) as { courses: Row[] };

const always = (conditions = {}) => [{ from: 0, conditions }];
const plain = { caseLeak: 0 };
const runs: Record<string, { netlist: Netlist; options: Omit<InTimeOptions, "until"> }> = {
  startUp: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        pump: ["fixedPump", { displacement: 45, speed: 1450, slip: 0.01, ...plain }],
        relief: ["relief", { crack: 180, perBar: 4 }],
        hole: ["throttle", { diameter: 3 }],
      },
      ["tank.T - pump.in - relief.T - hole.out", "pump.out - relief.P - hole.in"],
    ),
    options: { phases: always() },
  },
  opens: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        pump: ["compensatedPump", { displacement: 100, speed: 1480, set: 210, droop: 8, slip: 0, caseLeak: 0.01 }],
        use: ["consumer", { leak: 0.02 }],
      },
      ["tank.T - pump.in - pump.case", "pump.out - use.P"],
    ),
    options: { phases: [...always(), { from: 1, conditions: { faults: { use: { worn: 29 } } } }] },
  },
  decay: {
    netlist: circuitOf({ tank: ["tank"], leak: ["consumer", { leak: 0.002 }], cap: ["check"] }, [
      "leak.P - cap.out",
      "cap.in - tank.T",
    ]),
    options: { phases: always({ viscosity: 2 }), volumes: { "leak/P": 5 }, pressures: { "leak/P": 150 } },
  },
  fills: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        pump: ["fixedPump", { displacement: 30, speed: 1000, slip: 0.002, ...plain }],
        relief: ["relief", { crack: 200, perBar: 4 }],
        hole: ["throttle", { diameter: 2 }],
        store: ["accumulator", { volume: 10, precharge: 90 }],
        leak: ["consumer", { leak: 0.02 }],
      },
      ["tank.T - pump.in - relief.T", "pump.out - relief.P - hole.in", "hole.out - store.P - leak.P"],
    ),
    options: {
      phases: always(),
      stored: { store: 0.2 },
      pressures: { "pump/out": 95 },
      volumes: { "store/P": 1e-4, "pump/out": 0.3 },
    },
  },
  lift: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        pump: ["fixedPump", { displacement: 40, speed: 1000, slip: 0.001, ...plain }],
        relief: ["relief", { crack: 180, perBar: 4 }],
        cylinder: ["cylinder", { bore: 80, rod: 45, stroke: 500, load: 60, friction: 2, pistonLeak: 0 }],
        hole: ["throttle", { diameter: 6 }],
      },
      ["tank.T - pump.in - relief.T - hole.out", "pump.out - relief.P - cylinder.A", "cylinder.B - hole.in"],
    ),
    options: {
      phases: always(),
      places: { cylinder: 0.1 },
      pressures: { "cylinder/A": 130, "cylinder/B": 3 },
    },
  },
  shutIn: {
    netlist: circuitOf(
      {
        tank: ["tank"],
        cylinder: ["cylinder", { bore: 80, rod: 45, stroke: 500, load: 40, friction: 0.5, pistonLeak: 0.0005 }],
        a: ["check"],
        b: ["check"],
      },
      ["tank.T - a.in - b.in", "cylinder.A - a.out", "cylinder.B - b.out"],
    ),
    options: {
      phases: always(),
      places: { cylinder: 0.5 },
      pressures: { "cylinder/A": 81, "cylinder/B": 2 },
      volumes: { "cylinder/A": 2.0, "cylinder/B": 1.4 },
    },
  },
};

test.each(courses.map((c) => [c.circuit, c] as const))("SciPy Radau: %s, within 1 % all along", (name, row) => {
  const { netlist, options } = runs[name]!;
  const course = inTime(netlist, { ...options, until: row.at.at(-1)! });
  if (!course.ok) throw new Error(course.problem);
  const between = (values: number[], t: number) => {
    const i = Math.max(
      1,
      course.times.findIndex((s) => s >= t - 1e-9),
    );
    const [t0, t1] = [course.times[i - 1]!, course.times[i]!];
    return values[i - 1]! + ((t - t0) / (t1 - t0)) * (values[i]! - values[i - 1]!);
  };
  const { at, circuit: _c, ...columns } = row;
  for (const [key, expected] of Object.entries(columns)) {
    const [element, port] = key.split(/[.:]/) as [string, string];
    const values = key.includes(":") ? course.inner(element, Number(port)) : course.pressure({ element, port });
    at.forEach((t, i) =>
      expect(Math.abs(between(values, t) - expected[i]!)).toBeLessThan(0.01 * Math.abs(expected[i]!) + 0.02),
    );
  }
});
