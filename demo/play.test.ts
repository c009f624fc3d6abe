/** Every machine of the harbour can be played through every scenario that fits it. */
import { play, scenariosOf, workCommands } from "@core";
import { plannedNetlist } from "./draft";
import { fleetPlan } from "./fleet";

test.each(fleetPlan().map((m) => [m.name, m] as const))("%s", (_n, machine) => {
  const netlist = plannedNetlist(machine);
  const ids = scenariosOf(netlist);
  expect(ids).toContain("startUp");
  for (const id of ids) {
    const { course, lines, words } = play(netlist, id, { commands: workCommands(netlist) });
    if (!course.ok) throw new Error(`${id} at ${course.at} s: ${course.problem}`);
    expect(lines.length).toBeGreaterThan(0);
    for (const line of lines) for (const [, p] of line.points) expect(p).toBeGreaterThan(-1.5);
    expect(words.join()).not.toMatch(/NaN|undefined/);
  }
});

test("a relief valve set under the cut-out: the unloader never unloads", () => {
  const netlist = plannedNetlist(fleetPlan().find((m) => m.tag === "SL-3")!);
  const relief = netlist.elements.find((e) => e.kind === "relief")!;
  const switches = (setLow: number) => {
    const { course } = play(netlist, "cycles", { commands: {}, faults: { [relief.id]: { setLow } } });
    return course.ok ? course.switches.length : -1;
  };
  expect(switches(0)).toBeGreaterThan(0);
  expect(switches(25)).toBe(0);
});
