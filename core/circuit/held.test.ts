import { expect, test } from "@jest/globals";
import { circuitOf } from "./build";
import { creepOf, marginOf } from "./held";

const lift = circuitOf(
  {
    tank: ["tank"],
    check: ["pilotCheck", { margin: 57 }],
    cylinder: ["cylinder", { bore: 125, rod: 80, stroke: 1000, load: 100, pistonLeak: 0.00001 }],
  },
  ["check.C - cylinder.A"],
);
const find = (id: string) => lift.elements.find((e) => e.id === id)!;
const usual = { commands: {} };
const leak = (pistonLeak: number) => ({ commands: {}, faults: { cylinder: { pistonLeak } } });

test("oil that crosses the piston raises the opposite side: q·K·(1 − φ)·t over V_o + φ²·V_l", () => {
  expect(marginOf(lift, find("check"), usual)).toBe(57);
  const full = (Math.PI / 400) * 125 ** 2;
  const annulus = full - (Math.PI / 400) * 80 ** 2;
  const phi = annulus / full;
  const q = (0.00002 * 100 * 100) / full;
  const [vl, vo] = [(full * 50) / 1000, (annulus * 50) / 1000];
  const rise = (14_000 * q * (1 - phi) * 10) / (vo + phi * phi * vl);
  expect(57 - marginOf(lift, find("check"), leak(0.00002))!).toBeCloseTo(rise, 9);
  expect(rise).toBeGreaterThan(5);
});

test("with the load on the rod side the opposite side falls to the void: the margin stays", () => {
  const hanging = circuitOf({ tank: ["tank"], check: ["pilotCheck", { margin: 57 }], cylinder: ["cylinder"] }, [
    "check.C - cylinder.B",
  ]);
  expect(
    marginOf(
      hanging,
      hanging.elements.find((e) => e.id === "check")!,
      leak(0.001),
    ),
  ).toBe(57);
});

test("behind a check a piston leak does not let the load down, a leaking check does", () => {
  const before = creepOf(lift, find("cylinder"), usual);
  expect(creepOf(lift, find("cylinder"), leak(0.001))).toBe(before);
  const leaking = { commands: {}, faults: { check: { leakBack: 0.001 } } };
  expect(creepOf(lift, find("cylinder"), leaking)).toBeGreaterThan(10 * before);
});

test("a cylinder that nothing holds creeps with its piston; a valve that holds none has no margin", () => {
  const bare = circuitOf({ tank: ["tank"], check: ["pilotCheck"], cylinder: ["cylinder"] }, ["check.V - tank.T"]);
  const cylinder = bare.elements.find((e) => e.id === "cylinder")!;
  expect(creepOf(bare, cylinder, leak(0.001))).toBeGreaterThan(10 * creepOf(bare, cylinder, usual));
  expect(
    marginOf(
      bare,
      bare.elements.find((e) => e.id === "check")!,
      usual,
    ),
  ).toBeNull();
});
