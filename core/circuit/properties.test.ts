/** What holds in every circuit: nothing is lost, nothing flows uphill, a leak never raises a pressure. */
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Conditions } from "./assembly";
import { circuitOf } from "./build";
import { elementKindIds, elementKinds } from "./kinds";
import { laminarAndTurbulent, orifice, ramp, share } from "./laws";
import { netlistProblems, nodesOf, whyNotJoined, type Netlist } from "./netlist";
import { steadyState, type SteadyState } from "./steady";

const solve = (n: Netlist, conditions: Conditions = {}): SteadyState => {
  const s = steadyState(n, conditions);
  if (!s.ok) throw new Error(s.problem);
  return s;
};

const lift = circuitOf(
  {
    tank: ["tank"],
    strainer: ["strainer"],
    pump: ["compensatedPump", { set: 210 }],
    relief: ["relief", { crack: 245 }],
    valve: ["proportional"],
    cylinder: ["cylinder", { load: 200 }],
    filter: ["filter"],
  },
  [
    "tank.T - strainer.in - pump.case - relief.T - filter.out",
    "strainer.out - pump.in",
    "pump.out - relief.P - valve.P",
    "valve.A - cylinder.A",
    "valve.B - cylinder.B",
    "valve.T - filter.in",
  ],
);

const anyFaults = fc.record({
  pump: fc.record({
    caseLeak: fc.double({ min: 0, max: 20, noNaN: true }),
    slip: fc.double({ min: 0, max: 20, noNaN: true }),
  }),
  relief: fc.record({
    setLow: fc.double({ min: 0, max: 150, noNaN: true }),
    heldOpen: fc.double({ min: 0, max: 3, noNaN: true }),
  }),
  valve: fc.record({
    worn: fc.double({ min: 0, max: 40, noNaN: true }),
    stuck: fc.double({ min: 0, max: 1, noNaN: true }),
  }),
  cylinder: fc.record({ pistonLeak: fc.double({ min: 0, max: 0.3, noNaN: true }) }),
  filter: fc.record({ blocked: fc.double({ min: 0, max: 30, noNaN: true }) }),
});
const anyState = fc.record({
  faults: anyFaults,
  command: fc.double({ min: -1, max: 1, noNaN: true }),
  viscosity: fc.double({ min: 0.3, max: 8, noNaN: true }),
});

test("whatever is wrong: every node balances, and what the shaft gives is heat or work", () =>
  fc.assert(
    fc.property(anyState, ({ faults, command, viscosity }) => {
      const s = solve(lift, { faults, commands: { valve: command }, viscosity });
      for (const ports of nodesOf(lift).ports) {
        if (ports.some((p) => p.startsWith("tank/") || s.voids.includes(p))) continue;
        const sum = ports.reduce(
          (q, key) => q + s.flowOut({ element: key.split("/")[0]!, port: key.split("/")[1]! }),
          0,
        );
        expect(Math.abs(sum)).toBeLessThan(1e-5);
      }
      let [shaft, spent] = [0, 0];
      for (const [id, e] of s.effects) {
        // friction of the pump is heat that no flow carries: 8 % of the power at full stroke, turned by 92 %
        const across = s.pressure({ element: "pump", port: "out" })! - s.pressure({ element: "pump", port: "in" })!;
        const friction = (((45 * 1450) / 1000) * Math.abs(across) * 0.08) / 0.92 / 600;
        shaft += id === "pump" ? e.shaft - friction : e.shaft;
        spent += e.heat + e.load;
      }
      if (s.voids.length > 0) return;
      // friction and drag of the cylinder are in its load
      expect(Math.abs(shaft - spent)).toBeLessThan(1e-4 + 1e-4 * shaft);
    }),
    { numRuns: 250 },
  ));

test("oil runs downhill through everything that no shaft turns", () =>
  fc.assert(
    fc.property(anyState, ({ faults, command, viscosity }) => {
      const s = solve(lift, { faults, commands: { valve: command }, viscosity });
      for (const [id, e] of s.effects) {
        if (id === "pump") continue;
        for (const f of e.flows) {
          if (f.from === "inside" || Math.abs(f.q) < 1e-6) continue;
          const at = (port: string) => (port === "outside" ? 0 : s.pressure({ element: id, port })!);
          expect(Math.sign(f.q) * (at(f.from) - at(f.to))).toBeGreaterThan(-1e-6);
        }
      }
    }),
    { numRuns: 250 },
  ));

test("one more leak never raises a pressure in a net of orifices", () =>
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0.8, max: 4, noNaN: true }), { minLength: 3, maxLength: 6 }),
      fc.nat(),
      fc.double({ min: 0.001, max: 0.5, noNaN: true }),
      (diameters, where, leak) => {
        const n = diameters.length;
        const chain = (at: number | null): Netlist => {
          const elements: Parameters<typeof circuitOf>[0] = {
            tank: ["tank"],
            pump: ["fixedPump", { displacement: 10, caseLeak: 0 }],
            relief: ["relief", { crack: 200 }],
          };
          diameters.forEach((diameter, i) => (elements[`o${i}`] = ["throttle", { diameter }]));
          if (at !== null) elements.leak = ["consumer", { leak }];
          const joints = ["tank.T - pump.in - relief.T", "pump.out - relief.P - o0.in"];
          for (let i = 1; i < n; i++) joints.push(`o${i - 1}.out - o${i}.in${at === i ? " - leak.P" : ""}`);
          joints.push(`o${n - 1}.out - tank.T`);
          return circuitOf(elements, joints);
        };
        const at = 1 + (where % (n - 1));
        const [tight, leaky] = [solve(chain(null)), solve(chain(at))];
        for (let i = 0; i < n; i++) {
          const port = { element: `o${i}`, port: "in" };
          expect(leaky.pressure(port)!).toBeLessThanOrEqual(tight.pressure(port)! + 1e-6);
        }
      },
    ),
    { numRuns: 250 },
  ));

test("a fault grows out of nothing: small severities move the gauges little", () => {
  const healthy = solve(lift, { commands: { valve: 1 } });
  const drawn = new Set(["pump", "relief", "valve", "cylinder", "filter", "strainer"]);
  for (const e of lift.elements.filter((x) => drawn.has(x.id)))
    for (const [fault, { greatest }] of Object.entries(elementKinds[e.kind].faults)) {
      const slight = solve(lift, { commands: { valve: 1 }, faults: { [e.id]: { [fault]: greatest * 1e-6 } } });
      for (const port of ["out", "case"])
        expect(
          Math.abs(slight.pressure({ element: "pump", port })! - healthy.pressure({ element: "pump", port })!),
        ).toBeLessThan(0.05);
    }
});

describe("laws and their slopes", () => {
  const laws: [string, (x: number) => { q: number; slope: number }][] = [
    ["orifice", (dp) => orifice(5, dp)],
    ["laminar and turbulent", (dp) => laminarAndTurbulent(0.02, 3e-4, dp)],
    ["laminar", (dp) => laminarAndTurbulent(0.02, 0, dp)],
    ["ramp", (x) => ({ q: ramp(x, 0.5).value, slope: ramp(x, 0.5).slope })],
    ["share", (x) => ({ q: share(x, 0.1).value, slope: share(x, 0.1).slope })],
  ];
  test.each(laws)("%s rises, and its slope is that of the curve", (_n, law) =>
    fc.assert(
      fc.property(fc.double({ min: -300, max: 300, noNaN: true }), (x) => {
        const h = 1e-4;
        const numeric = (law(x + h).q - law(x - h).q) / (2 * h);
        expect(law(x).slope).toBeGreaterThanOrEqual(0);
        expect(Math.abs(law(x).slope - numeric)).toBeLessThan(
          1e-3 * Math.max(1, Math.abs(numeric)) + 60 * Number(Math.abs(x) < 0.05),
        );
      }),
    ),
  );
});

describe("netlists", () => {
  test("what may not be joined, and why", () => {
    const join = (a: string, b: string) => {
      const [ae, ap] = a.split(".") as [string, string];
      const [be, bp] = b.split(".") as [string, string];
      return whyNotJoined(lift, { element: ae, port: ap }, { element: be, port: bp });
    };
    expect(join("valve.A", "relief.P")).toBeUndefined();
    expect(join("pump.out", "tank.T")).toMatch(/delivers nothing/);
    expect(join("pump.in", "pump.out")).toMatch(/bypass/);
    expect(join("relief.T", "tank.T")).toMatch(/joined already/);
    expect(join("valve.A", "valve.A")).toMatch(/itself/);
    expect(join("valve.Q", "tank.T")).toMatch(/no such port/);
  });
  test("open ports are remarks, slipped units and strangers are grave", () => {
    const open = circuitOf({ tank: ["tank"], pump: ["fixedPump"] }, ["tank.T - pump.in"]);
    expect(netlistProblems(open)).toEqual([expect.objectContaining({ element: "pump", port: "out", grave: false })]);
    const slipped = circuitOf({ tank: ["tank"], relief: ["relief", { crack: 3000 }] }, ["tank.T - relief.T"]);
    expect(netlistProblems(slipped)[0]).toMatchObject({
      grave: true,
      message: expect.stringMatching(/Is the unit right/),
    });
    expect(netlistProblems({ elements: [], lines: [], gauges: [] })[0]!.message).toMatch(/no reservoir/);
    const strange = {
      ...open,
      lines: [
        ...open.lines,
        { id: "x", from: { element: "gone", port: "P" }, to: { element: "pump", port: "out" }, data: null },
      ],
    };
    expect(netlistProblems(strange)[0]).toMatchObject({ grave: true });
  });
  test("five hundred components are refused in words, three hundred are solved", () => {
    const chain = (n: number) => {
      const elements: Parameters<typeof circuitOf>[0] = { tank: ["tank"], pump: ["fixedPump"], relief: ["relief"] };
      for (let i = 0; i < n; i++) elements[`o${i}`] = ["throttle", { diameter: 20 }];
      const joints = ["tank.T - pump.in - relief.T", "pump.out - relief.P - o0.in"];
      for (let i = 1; i < n; i++) joints.push(`o${i - 1}.out - o${i}.in`);
      return circuitOf(elements, [...joints, `o${n - 1}.out - tank.T`]);
    };
    expect(() => steadyState(chain(500))).toThrow(/more than one circuit holds/);
    expect(steadyState(chain(290)).ok).toBe(true);
  });
  test("a loop of check valves and two relief valves in one line do no harm", () => {
    const loop = circuitOf(
      {
        tank: ["tank"],
        pump: ["fixedPump"],
        a: ["check"],
        b: ["check"],
        c: ["check"],
        one: ["relief", { crack: 100 }],
        two: ["relief", { crack: 80 }],
      },
      ["tank.T - pump.in - two.T", "pump.out - one.P", "one.T - two.P - a.in - c.out", "a.out - b.in", "b.out - c.in"],
    );
    const s = solve(loop);
    expect(s.pressure({ element: "pump", port: "out" })!).toBeGreaterThan(180);
    expect(Math.abs(s.flowOut({ element: "a", port: "out" }))).toBeLessThan(0.01);
  });
  test("every kind has ports and figures whose usual value lies in its range", () => {
    for (const id of elementKindIds) {
      const kind = elementKinds[id];
      expect(Object.keys(kind.ports).length).toBeGreaterThan(0);
      for (const f of Object.values(kind.data)) {
        expect(f.usual).toBeGreaterThanOrEqual(f.least);
        expect(f.usual).toBeLessThanOrEqual(f.greatest);
        expect(f.source).not.toBe("");
      }
      for (const f of Object.values(kind.faults)) expect(f.says(f.greatest)).not.toMatch(/NaN|undefined/);
    }
  });
});
