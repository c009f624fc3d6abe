/** What is asked before a fluid is poured. */
import type { FluidType } from "../fluid/suitability";
import { pouring, suitsParts } from "./suits";

const fluid = (id: string, type: FluidType, kv40: number, kv100: number) => ({
  id,
  name: id,
  type,
  kv40,
  kv100,
  density15: 870,
});
const vg46 = fluid("VG 46", "mineral", 46, 6.8);
const vg32 = fluid("VG 32", "mineral", 32, 5.4);
const emulsion = fluid("Emulsion", "hfa", 1.2, 0.6);
const glycol = fluid("Glycol", "hfc", 46, 9);
const pump = { id: "p", name: "Pump", kind: "axialPistonPump", fluidNeed: null };
const cylinder = { id: "c", name: "Cylinder", kind: "cylinder", fluidNeed: null };
const warm = { start: -5, working: 50, hottest: 62 };

test("a mineral oil of the usual grade is poured without a word, at a cylinder nothing is asked", () => {
  expect(pouring(vg46, vg46, [pump], warm)).toBeNull();
  expect(pouring(vg32, vg46, [pump], warm)).toBeNull();
  expect(pouring(emulsion, vg46, [cylinder], warm)).toBeNull();
});

test("an emulsion at an oil pump: too thin, another type, how much leaks, what stays of the oil", () => {
  const said = pouring(emulsion, vg46, [pump, cylinder], warm)!;
  expect(said).toMatch(/^Emulsion is not made for this circuit\. Pump: .*too thin when hottest/);
  expect(said).toMatch(/not made for water emulsion \(HFA\)/);
  expect(said).toMatch(/times thinner than VG 46: slip and leakage grow/);
  expect(said).toMatch(/What stays of the mineral oil/);
});

test("a glycol of the same viscosity is refused for its type, unless the maker allows it", () => {
  expect(pouring(glycol, vg46, [pump], warm)).not.toMatch(/thinner|thicker/);
  const allowed = {
    ...pump,
    fluidNeed: {
      least: 10,
      bestLow: 16,
      bestHigh: 60,
      greatestAtStart: 1500,
      types: ["mineral", "hfc"] as FluidType[],
    },
  };
  expect(pouring(glycol, vg46, [allowed], warm)).toBeNull();
});

test("without a noted temperature the usual ones are taken, and it says so", () => {
  const nothing = { start: null, working: null, hottest: null };
  const [part] = suitsParts(vg46, [pump], nothing);
  expect(part!.assumed).toBe(true);
  expect(part!.findings.map((f) => f.at)).toEqual(["working", "hottest", "type"]);
  expect(pouring(emulsion, null, [pump], nothing)).toMatch(/no temperature is noted/);
  expect(suitsParts(vg46, [pump], warm)[0]!.assumed).toBe(false);
  // work hotter than the usual hottest: the hottest is at least that
  expect(suitsParts(vg46, [pump], { ...nothing, working: 80 })[0]!.findings[1]!.temperature).toBe(80);
});
