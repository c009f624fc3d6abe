import { expect, test } from "@jest/globals";
import { circuitOf } from "./build";
import { warmthOf } from "./heat";
import { steadyState, type SteadyState } from "./steady";
import type { Netlist } from "./netlist";

const solved = (netlist: Netlist, commands: Record<string, number> = {}): SteadyState => {
  const s = steadyState(netlist, { commands });
  if (!s.ok) throw new Error(s.problem);
  return s;
};
const port = (text: string) => ({ element: text.split(".")[0]!, port: text.split(".")[1]! });
/** Δp over ρ·c of mineral oil: 870 kg/m³ and 1900 J/(kg·K). */
const risePerBar = 1e5 / (870 * 1900);

test("oil throttled to tank warms by the pressure that it loses, whatever its flow", () => {
  for (const displacement of [8, 40]) {
    const netlist = circuitOf(
      {
        tank: ["tank"],
        pump: ["fixedPump", { displacement, slip: 0, caseLeak: 0 }],
        relief: ["relief", { crack: 180 }],
        after: ["throttle", { diameter: 12 }],
      },
      ["tank.T - pump.in", "pump.out - relief.P", "relief.T - after.in", "after.out - tank.T"],
    );
    const s = solved(netlist);
    const t = warmthOf(netlist, s);
    expect(t(port("pump.in"))).toBe(0);
    // a shaft turns the pump: its main flow is pressed, not throttled
    expect(t(port("pump.out"))).toBeCloseTo(0, 6);
    const lost = s.pressure(port("relief.P"))! - s.pressure(port("relief.T"))!;
    expect(lost).toBeGreaterThan(150);
    expect(t(port("relief.T"))!).toBeCloseTo(lost * risePerBar, 3);
  }
});

test("where two streams meet they mix by their flows", () => {
  const netlist = circuitOf(
    {
      tank: ["tank"],
      pump: ["fixedPump", { displacement: 30, slip: 0, caseLeak: 0 }],
      hot: ["throttle", { diameter: 2 }],
      cold: ["fixedPump", { displacement: 20, slip: 0, caseLeak: 0 }],
      relief: ["relief", { crack: 250 }],
      after: ["throttle", { diameter: 6 }],
    },
    [
      "tank.T - pump.in - cold.in - relief.T",
      "pump.out - hot.in - relief.P",
      "hot.out - cold.out - after.in",
      "after.out - tank.T",
    ],
  );
  const s = solved(netlist);
  const t = warmthOf(netlist, s);
  const [hot, cold] = [s.flowOut(port("hot.out")), s.flowOut(port("cold.out"))];
  const rise = (s.pressure(port("hot.in"))! - s.pressure(port("hot.out"))!) * risePerBar;
  expect(t(port("after.in"))!).toBeCloseTo((hot * rise) / (hot + cold), 3);
});

test("oil that stands, and a port that nothing is joined to, have none", () => {
  const netlist = circuitOf(
    { tank: ["tank"], pump: ["fixedPump", { caseLeak: 0 }], relief: ["relief"], dead: ["accumulator"] },
    ["tank.T - pump.in - relief.T", "pump.out - relief.P - dead.P"],
  );
  const t = warmthOf(netlist, solved(netlist));
  expect(t(port("pump.case"))).toBeNull();
  expect(t(port("dead.P"))).toBeCloseTo(0, 6);
  const still = circuitOf(
    {
      tank: ["tank"],
      pump: ["fixedPump", { caseLeak: 0, slip: 0 }],
      relief: ["relief"],
      valve: ["directional", { centre: 0, leak: 0 }],
      rest: ["throttle"],
    },
    [
      "tank.T - pump.in - relief.T - valve.T",
      "pump.out - relief.P - valve.P",
      "valve.A - rest.in",
      "valve.B - rest.out",
    ],
  );
  expect(warmthOf(still, solved(still))(port("rest.in"))).toBeNull();
});
