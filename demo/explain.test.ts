/** What the explanation of gauges is worth on the harbour's circuits: faults put in, gauges read with their errors. */
import { describe, expect, test } from "@jest/globals";
import {
  elementKinds,
  explainGauges,
  fitCircuit,
  gaugeReader,
  random,
  workCommands,
  type PresentGauge,
  type Random,
} from "@core";
import { plannedNetlist, plannedStates, readingsAsNew } from "./draft";
import { fleetPlan } from "./fleet";

/** Relative uncertainty of a gauge's level. */
const ERROR = 0.02;

function bench(tag: string) {
  const machine = fleetPlan().find((m) => m.tag === tag)!;
  const netlist = plannedNetlist(machine);
  const commands = workCommands(netlist);
  const { data } = fitCircuit(netlist, readingsAsNew(machine), commands);
  const read = gaugeReader(netlist, plannedStates(machine));
  const usual = { commands, data };
  const gauges = (faults: Record<string, Record<string, number>>, rng: Random): PresentGauge[] =>
    [...read({ ...usual, faults }).values].flatMap(([pointId, value]) =>
      value === null
        ? []
        : [
            {
              pointId,
              value: value * (1 + ERROR * rng.normal()),
              uncertainty: Math.max(0.005, ERROR * Math.abs(value)),
            },
          ],
    );
  return { netlist, read, usual, gauges };
}

test.each(["LG-ON", "SL-3", "QC-2"])("%s: nothing wrong is said to be nothing wrong", (tag) => {
  const b = bench(tag);
  for (let seed = 1; seed <= 2; seed++) {
    const [first] = explainGauges(b.netlist, b.read, b.usual, b.gauges({}, random(seed)));
    expect(first).toMatchObject({ faults: [], unknown: false });
    expect(first!.share).toBeGreaterThan(0.5);
  }
});

describe("a fault put in is named", () => {
  const machineOf = (tag: string, kind: string) => {
    const b = bench(tag);
    return { ...b, element: b.netlist.elements.find((e) => e.kind === kind)! };
  };
  test.each([
    ["SL-3", "relief", "setLow", 24],
    ["QC-2", "compensatedPump", "caseLeak", 3],
    ["RR-1", "filter", "blocked", 2],
    ["QC-2", "proportional", "worn", 5],
  ])("%s, %s %s", (tag, kind, fault, severity) => {
    const { netlist, read, usual, gauges, element } = machineOf(tag, kind);
    for (let seed = 1; seed <= 2; seed++) {
      const found = explainGauges(netlist, read, usual, gauges({ [element.id]: { [fault]: severity } }, random(seed)));
      // a weak spring and a low setting show alike: both are named, and the gauges cannot part them
      const named = found.filter((f) => f.faults[0]?.element === element.id);
      expect(found[0]!.faults[0]?.element).toBe(element.id);
      expect(named.reduce((s, f) => s + f.share, 0)).toBeGreaterThan(0.6);
      const own = named.find((f) => f.faults[0]!.fault === fault)!;
      expect(found.indexOf(own)).toBeLessThan(2);
      expect(own.faults[0]!.severity / severity).toBeGreaterThan(0.4);
      expect(own.faults[0]!.severity / severity).toBeLessThan(2.5);
      expect(own.explains.length).toBeGreaterThan(0);
    }
  });
});

test("gauges that no single fault moves so are not explained by force", () => {
  const b = bench("QC-2");
  const gauges = b.gauges({}, random(3)).map((g, i) => ({ ...g, value: g.value * (i % 2 === 0 ? 1.6 : 0.6) }));
  const [first] = explainGauges(b.netlist, b.read, b.usual, gauges);
  expect(first).toMatchObject({ faults: [], unknown: true });
});

test("shares are a share of everything, and every fault of every element was thought of", () => {
  const b = bench("SL-3");
  const all = explainGauges(b.netlist, b.read, b.usual, b.gauges({}, random(1)), { most: Infinity });
  expect(all.reduce((s, e) => s + e.share, 0)).toBeCloseTo(1, 9);
  const faults = b.netlist.elements.reduce((n, e) => n + Object.keys(elementKinds[e.kind].faults).length, 0);
  expect(all.length).toBeGreaterThan(0.8 * faults);
  expect(explainGauges(b.netlist, b.read, b.usual, [])).toEqual([]);
});
