import { expect, test } from "@jest/globals";
import { draftCircuit } from "./draft";
import { fitCircuit, type BaselineReading } from "./fit";

const none = { displacement: null, speed: null };
const { netlist } = draftCircuit({
  workingPressure: 160,
  components: [
    { id: "tank", kind: "reservoir", name: "Reservoir", ...none, points: [] },
    {
      id: "pump",
      kind: "gearPump",
      name: "Pump",
      displacement: 28,
      speed: 1470,
      points: [{ id: "flow", name: "Delivery", quantity: "flow" }],
    },
    {
      id: "filter",
      kind: "filter",
      name: "Return filter",
      ...none,
      points: [{ id: "drop", name: "Differential pressure", quantity: "pressureDrop" }],
    },
  ],
});
const reading = (pointId: string, value: number): BaselineReading => ({
  pointId,
  state: "any",
  value,
  uncertainty: 0.02 * value,
});

test("one figure a reading is free, and each moves to what its gauge showed", () => {
  const fit = fitCircuit(netlist, [reading("flow", 39), reading("drop", 0.7)], {});
  expect(fit.free.map((f) => [f.element, f.figure])).toEqual([
    ["pump", "slip"],
    ["filter", "laminar"],
  ]);
  expect(fit.fits).toBe(true);
  expect(fit.met.map((m) => Math.abs(m.deviations!) < 0.5)).toEqual([true, true]);
});

test("a reading that no figure can explain is not met, be it the only one", () => {
  // 28 cm³ at 1470 r/min displace 41 L/min: no slip makes it 60
  const alone = fitCircuit(netlist, [reading("flow", 60)], {});
  expect(alone.met[0]!.deviations).toBeLessThan(-2);
  expect(alone.fits).toBe(false);
  expect(fitCircuit(netlist, [reading("flow", 60), reading("drop", 0.7)], {}).fits).toBe(false);
});

test("nothing read, nothing claimed", () => {
  expect(fitCircuit(netlist, [], {})).toEqual({ data: {}, free: [], met: [], fits: false });
});
