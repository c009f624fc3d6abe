/** Hoses and pipes of the harbour: sized soundly, two stories among them, and the drawing stays what it was. */
import { DAY, gaugesOf, lineRemarks, lineStyle, netlistProblems, random, type LineStyle, type Netlist } from "@core";
import { plannedComponents, plannedNetlist } from "./draft";
import { fleetPlan } from "./fleet";
import { surveyed } from "./lines";

const NOW = Date.UTC(2026, 10, 24, 9);
const rng = () => random(7);
const of = (tag: string) => {
  const plan = fleetPlan().find((m) => m.tag === tag)!;
  return surveyed(plan, plannedComponents(plan), NOW, rng());
};
const remarksOf = (netlist: Netlist) =>
  netlist.lines.flatMap((l) =>
    lineRemarks(netlist, l, NOW).map((parts) =>
      parts.map((p) => ("text" in p ? p.text : "value" in p ? `${p.value} bar` : "")).join(""),
    ),
  );

test.each(
  fleetPlan()
    .filter((m) => !m.tag.startsWith("SL-"))
    .map((m) => [m.tag, m] as const),
)("%s: every line is known, and none speaks against the circuit but in the stories", (tag, plan) => {
  const netlist = of(tag)!;
  expect(netlistProblems(netlist).filter((p) => p.grave)).toEqual([]);
  expect(netlist.lines.every((l) => l.data && l.data.tag && l.data.bore && l.data.length)).toBe(true);
  expect(new Set(netlist.lines.map((l) => l.data!.tag)).size).toBe(netlist.lines.length);
  expect(remarksOf(netlist)).toHaveLength(tag === "SC-2" ? 1 : 0);
  const bare = { ...netlist, lines: netlist.lines.map((l) => ({ ...l, data: null })) };
  expect(bare).toEqual(plannedNetlist(plan));
  // a drawing that a person kept gets its gauges from its components: they are those of the proposal
  const components = plannedComponents(plan);
  const own = netlist.elements.flatMap((e) => {
    const component = components.find((c) => c.id === e.componentId);
    return component ? gaugesOf(component, e.kind) : [];
  });
  expect(own).toEqual(expect.arrayContaining(netlist.gauges));
  expect(own).toHaveLength(netlist.gauges.length);
});

test("suction lines are the widest, drains the narrowest", () => {
  const netlist = of("LG-ON")!;
  const bores = (wanted: LineStyle) =>
    netlist.lines.filter((l) => lineStyle(netlist, l) === wanted).map((l) => l.data!.bore!);
  const [suction, pressure, drain] = [bores("suction"), bores("pressure"), bores("case")];
  for (const some of [suction, pressure, drain]) expect(some.length).toBeGreaterThan(0);
  expect(Math.min(...suction)).toBeGreaterThan(Math.max(...pressure));
  expect(Math.min(...pressure)).toBeGreaterThanOrEqual(Math.max(...drain));
});

test("a hose of too low a rating is named with its relief valve; one comes due within a month", () => {
  expect(remarksOf(of("SC-2")!)[0]).toMatch(/Rated 140 bar, and the relief valve allows \d+ bar/);
  const oldest = of("SW-1")!
    .lines.map((l) => (l.data!.made === "hose" ? l.data!.fittedOn : "9"))
    .sort()[0]!;
  expect((NOW - Date.parse(oldest)) / (365.25 * DAY)).toBeGreaterThan(5.9);
  expect((NOW - Date.parse(oldest)) / (365.25 * DAY)).toBeLessThan(6);
});

test("circuits that nobody went over stay proposals", () => expect(of("SL-3")).toBeUndefined());
