import { describe, expect, test } from "@jest/globals";
import { circuitOf } from "./build";
import { steadyState } from "./steady";
import { inTime, type Course, type InTimeOptions } from "./transient";
import type { Netlist } from "./netlist";

const follow = (n: Netlist, o: InTimeOptions): Course => {
  const c = inTime(n, o);
  if (!c.ok) throw new Error(`${c.at} s: ${c.problem}`);
  return c;
};
const last = (values: number[]) => values.at(-1)!;
const always = (conditions = {}) => [{ from: 0, conditions }];

test("pressure decay of 5 L at 14 000 bar through 0.357 mL/min: 1 bar a minute", () => {
  const shutIn = circuitOf({ tank: ["tank"], leak: ["consumer", { leak: 0.000357 / 100 }], other: ["check"] }, [
    "leak.P - other.out",
    "other.in - tank.T",
  ]);
  const c = follow(shutIn, {
    until: 60,
    phases: always(),
    modulus: 14_000,
    tolerance: 1e-6,
    volumes: { "leak/P": 5 },
    pressures: { "leak/P": 100 },
  });
  expect(last(c.pressure({ element: "leak", port: "P" }))).toBeCloseTo(100 * Math.exp(-0.01), 2);
});

describe("an accumulator between cut-in and cut-out", () => {
  const cycle = circuitOf(
    {
      tank: ["tank"],
      pump: ["fixedPump", { displacement: 12, speed: 1000, slip: 0, caseLeak: 0 }],
      relief: ["relief", { crack: 120 }],
      unloader: ["unloader", { cutIn: 60, cutOut: 75, k: 60 }],
      check: ["check", { crack: 0.5 }],
      store: ["accumulator", { volume: 4, precharge: 36 }],
      leak: ["flowControl", { set: 0.6, least: 1 }],
    },
    [
      "tank.T - pump.in - relief.T - unloader.T - leak.out",
      "pump.out - relief.P - unloader.P - check.in",
      "check.out - store.P - unloader.X - leak.in",
    ],
  );
  test("4 L, precharge 36, 60 to 75 bar, leak 0.6, pump 12 L/min: 47.9 s off, 2.5 s on", () => {
    const c = follow(cycle, { until: 160, phases: always(), volume: 0.05 });
    const times = c.switches.map((s) => s.at);
    expect(c.switches.length).toBeGreaterThanOrEqual(5);
    expect(times[1]! - times[0]!).toBeCloseTo(47.9, 0);
    expect(times[2]! - times[1]!).toBeCloseTo(2.52, 1);
    expect(times[3]! - times[2]!).toBeCloseTo(47.9, 0);
  });
  test("half its gas lost, it cycles more often", () => {
    const off = (faults: Record<string, Record<string, number>>) => {
      const { switches } = follow(cycle, { until: 110, phases: always({ faults }), volume: 0.05 });
      return switches[1]!.at - switches[0]!.at;
    };
    expect(off({ store: { gasLost: 0.5 } })).toBeLessThan(0.7 * off({}));
  });
});

describe("a load shut in above and below, with a leak across the piston", () => {
  /** Bore side carries the load; chambers of 2.0 and 1.4 L. */
  const held = (bore: number, rod: number, loadSide: "A" | "B") => {
    const area = (Math.PI / 400) * bore ** 2;
    const ring = area - (Math.PI / 400) * rod ** 2;
    const carrying = loadSide === "A" ? area : ring;
    return {
      netlist: circuitOf(
        {
          tank: ["tank"],
          cylinder: [
            "cylinder",
            { bore, rod, load: (loadSide === "A" ? 1 : -1) * carrying, friction: 0, pistonLeak: 0 },
          ],
          a: ["check", { crack: 20 }],
          b: ["check", { crack: 20 }],
        },
        ["tank.T - a.in - b.in", "cylinder.A - a.out", "cylinder.B - b.out"],
      ),
      share: ring / area,
    };
  };
  test("load on the bore side: both pressures rise; the check valve with ratio 4 opens after 0.338 min at 30.4 and 121.3 bar", () => {
    const rod = 100 * Math.sqrt(0.3);
    const { netlist } = held(100, rod, "A");
    const c = follow(netlist, {
      until: 30,
      phases: always({ faults: { cylinder: { pistonLeak: 0.0005 } } }),
      modulus: 14_000,
      volumes: { "cylinder/A": 2.0, "cylinder/B": 1.4 },
      places: { cylinder: 0.5 },
      pressures: { "cylinder/A": 101.4, "cylinder/B": 2 },
    });
    const [a, b] = [c.pressure({ element: "cylinder", port: "A" }), c.pressure({ element: "cylinder", port: "B" })];
    const opens = c.times.findIndex((_, i) => 4 * b[i]! >= a[i]!);
    expect(Math.abs(c.times[opens]! / 60 - 0.338)).toBeLessThan(0.005);
    expect(b[opens]!).toBeCloseTo(30.4, 0);
    expect(a[opens]!).toBeCloseTo(121.3, 0);
  });
  test("load on the rod side: the other chamber falls to the void, and the load sinks", () => {
    const { netlist } = held(100, 55, "B");
    const c = follow(netlist, {
      until: 20,
      phases: always({ faults: { cylinder: { pistonLeak: 0.0005 } } }),
      modulus: 14_000,
      volumes: { "cylinder/A": 2.0, "cylinder/B": 1.4 },
      places: { cylinder: 0.5 },
      pressures: { "cylinder/B": 100, "cylinder/A": 2 },
    });
    expect(last(c.pressure({ element: "cylinder", port: "A" }))).toBeLessThan(2);
  });
});

describe("a stroke", () => {
  const lift = circuitOf(
    {
      tank: ["tank"],
      pump: ["fixedPump", { displacement: 40, speed: 1000, slip: 0.001, caseLeak: 0 }],
      relief: ["relief", { crack: 180 }],
      valve: ["directional", { k: 25 }],
      cylinder: ["cylinder", { bore: 80, rod: 45, stroke: 500, load: 60, friction: 2 }],
    },
    [
      "tank.T - pump.in - relief.T - valve.T",
      "pump.out - relief.P - valve.P",
      "valve.A - cylinder.A",
      "valve.B - cylinder.B",
    ],
  );
  test("runs at the steady speed, ends at its stop, and then the relief valve carries the flow", () => {
    const c = follow(lift, { until: 6, phases: always({ commands: { valve: 1 } }), places: { cylinder: 0 } });
    const steady = steadyState(lift, { commands: { valve: 1 } });
    if (!steady.ok) throw new Error(steady.problem);
    const v = c.inner("cylinder", 0);
    const at = c.times.findIndex((t) => t > 2);
    expect(v[at]!).toBeCloseTo(steady.inner("cylinder")[0]!, 1);
    expect(last(c.inner("cylinder", 1))).toBeCloseTo(50, 0);
    expect(last(v)).toBeCloseTo(0, 2);
    expect(last(c.pressure({ element: "pump", port: "out" }))).toBeGreaterThan(180);
  });
  test("the oil that went in is in the cylinder, but for what was compressed", () => {
    const c = follow(lift, { until: 2, phases: always({ commands: { valve: 1 } }), places: { cylinder: 0 } });
    const area = (Math.PI / 400) * 80 ** 2;
    const travelled = last(c.inner("cylinder", 1));
    // 40 L/min less slip over two seconds, less what lines hold under pressure
    expect((travelled * area) / 1000).toBeGreaterThan(0.9 * (40 / 60) * 2);
    expect((travelled * area) / 1000).toBeLessThan((40 / 60) * 2);
  });
  test("shut after a second, the piston stands within a tenth of one", () => {
    const c = follow(lift, {
      until: 2,
      phases: [
        { from: 0, conditions: { commands: { valve: 1 } } },
        { from: 1, conditions: {} },
      ],
      places: { cylinder: 0 },
    });
    const place = c.inner("cylinder", 1);
    const at = (t: number) => place[c.times.findIndex((s) => s >= t)]!;
    expect(Math.abs(last(place) - at(1.1))).toBeLessThan(0.3);
  });
  test("no phase at the start is refused", () =>
    expect(() => inTime(lift, { until: 1, phases: [{ from: 0.5, conditions: {} }] })).toThrow(RangeError));
});
