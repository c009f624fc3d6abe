/** One machine of the harbour from its readings to its diagram, its fitted model and its row in the matrix. */
import { eq } from "drizzle-orm";
import { gaugeReader, workCommands } from "@core";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { circuitDiagrams, circuits, components, machines } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { actorNamed } from "~/domain/access/testActor";
import { exportFleet } from "~/domain/assets/fleetFile/export.server";
import { importFleet } from "~/domain/assets/fleetFile/import.server";
import { circuitPage } from "~/domain/circuits/circuitPage.server";
import { drawCircuit, previewOf } from "~/domain/circuits/draw.server";
import { diagramOf } from "~/domain/circuits/index.server";
import { fleetMatrix } from "~/domain/overview/matrix.server";
import { closeQueue } from "~/platform/jobs.server";
import { Missing } from "~/platform/missing";
import { loadDemo } from "./load.server";
import { people } from "./world";

let drop: () => Promise<void>;
let circuitId: string;
beforeAll(async () => {
  drop = await ownDatabase("circuit");
  await migrateDatabase();
  await loadDemo(Object.fromEntries(people.map((p) => [p.signIn, "a long enough one"])), { only: ["Sluice unit 3"] });
  [{ id: circuitId }] = (await db().select({ id: circuits.id }).from(circuits)) as [{ id: string }];
}, 120_000);
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await drop();
});

test("a diagram is made once, kept, and made again when a component comes", async () => {
  const first = await diagramOf(circuitId);
  expect(first!.drawing.parts.length).toBeGreaterThan(6);
  const [row] = await db().select().from(circuitDiagrams);
  expect(row).toMatchObject({ circuitId, drawnBy: "" });
  await diagramOf(circuitId);
  const [same] = await db().select().from(circuitDiagrams);
  expect(same).toEqual(row);
  const [added] = await db()
    .insert(components)
    .values({ circuitId, kind: "cylinder", name: "Second cylinder", position: 9 })
    .returning();
  const again = await diagramOf(circuitId);
  expect(again!.netlist.elements.some((e) => e.componentId === added!.id)).toBe(true);
  await db().delete(components).where(eq(components.id, added!.id));
  expect((await diagramOf(circuitId))!.netlist).toEqual(first!.netlist);
});

test("two who open it at once both get it", async () => {
  await db().delete(circuitDiagrams);
  const [a, b] = await Promise.all([diagramOf(circuitId), diagramOf(circuitId)]);
  expect(a!.drawing).toEqual(b!.drawing);
  expect(await db().select().from(circuitDiagrams)).toHaveLength(1);
});

test("fitted to its own baselines; a relief valve 24 bar lower moves what the gauges of the unit have moved", async () => {
  const page = await circuitPage(circuitId);
  const { netlist, fit } = page.diagram;
  expect(fit!.fits).toBe(true);
  const read = gaugeReader(netlist, new Map(page.points.map((p) => [p.id, p.readState])));
  const commands = workCommands(netlist);
  const relief = netlist.elements.find((e) => e.kind === "relief")!;
  const healthy = read({ commands, data: fit!.data }).values;
  const low = read({ commands, data: fit!.data, faults: { [relief.id]: { setLow: 24 } } }).values;
  const point = (name: string, component?: string) =>
    page.points.find((p) => p.name === name && (!component || p.component === component))!;
  for (const p of [
    point("Relief setting"),
    point("Valve temperature over line", "Relief valve"),
    point("Oil temperature"),
  ]) {
    // as read today, half a year after somebody turned it: the model moves the same way, by more than half as much
    const [was, would] = [healthy.get(p.id)!, low.get(p.id)!];
    expect(Math.sign(would - was)).toBe(Math.sign(p.lastRaw! - was));
    expect(Math.abs(would - was)).toBeGreaterThan(0.5 * Math.abs(p.lastRaw! - was));
  }
});

test("drawn by hand it stays as drawn, two people are told of one another, and the proposal comes back", async () => {
  const engineer = actorNamed("R. Oduya");
  const { netlist, version } = (await diagramOf(circuitId))!;
  const own = {
    ...netlist,
    elements: netlist.elements.map((e) => (e.kind === "relief" ? { ...e, name: "Main relief" } : e)),
  };
  const send = (n: unknown, v: number, intent = "keep") =>
    drawCircuit(circuitId, { netlist: JSON.stringify(n), version: String(v), intent }, engineer);
  expect(await send(own, version)).toMatchObject({ ok: true });
  expect(await send(netlist, version)).toMatchObject({ ok: false, because: "conflict" });
  const kept = (await diagramOf(circuitId))!;
  expect(kept).toMatchObject({ drawnBy: "R. Oduya", version: version + 1 });
  expect(kept.netlist.elements.find((e) => e.kind === "relief")!.name).toBe("Main relief");
  expect(kept.netlist.gauges).toHaveLength(netlist.gauges.length);
  expect(kept.fit!.fits).toBe(true);

  // through the fleet file it comes in as drawn, under the other machine's own components
  const file = await exportFleet();
  const [machine] = file.sites[0]!.machines!;
  expect(machine!.circuits![0]!.diagram).toMatchObject({ drawnBy: "R. Oduya" });
  const copy = {
    ...file,
    sites: [{ ...file.sites[0]!, rounds: [], machines: [{ ...machine!, name: "A copy", tag: "CP-1" }] }],
  };
  expect(await importFleet(JSON.stringify(copy), engineer)).toMatchObject({ ok: true });
  const [copied] = await db()
    .select({ id: circuits.id })
    .from(circuits)
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .where(eq(machines.tag, "CP-1"));
  const there = (await diagramOf(copied!.id))!;
  expect(there.drawnBy).toBe("R. Oduya");
  expect(there.netlist.elements.map((e) => e.name)).toEqual(kept.netlist.elements.map((e) => e.name));
  expect(there.netlist.gauges).toHaveLength(kept.netlist.gauges.length);
  expect(there.drawing.wires).toHaveLength(kept.drawing.wires.length);
  const broken = structuredClone(copy);
  broken.sites[0]!.machines![0]!.circuits![0]!.diagram!.elements[0]!.component = "Nobody";
  expect(await importFleet(JSON.stringify(broken), engineer)).toMatchObject({
    ok: false,
    messages: [expect.stringMatching(/the circuit has none/)],
  });
  await db().update(machines).set({ retiredAt: new Date() }).where(eq(machines.tag, "CP-1"));

  const stranger = { ...own, elements: [...own.elements, { ...own.elements[0]!, id: "x", componentId: "x" }] };
  expect(await send(stranger, version + 1)).toMatchObject({
    ok: false,
    problems: { form: expect.stringMatching(/does not have/) },
  });
  expect(await previewOf(circuitId, "{")).toMatchObject({ ok: false });
  expect(await previewOf(circuitId, JSON.stringify(own))).toMatchObject({ ok: true });
  // an unfinished one is kept: nothing joined, nothing solved
  expect(await send({ ...own, lines: [] }, version + 1)).toMatchObject({ ok: true });
  expect((await diagramOf(circuitId))!.drawing.wires).toEqual([]);
  expect(await send(null, version + 2, "propose")).toMatchObject({ ok: true });
  expect(await diagramOf(circuitId)).toMatchObject({ drawnBy: "", netlist });
});

test("no such circuit", async () => {
  expect(await diagramOf(crypto.randomUUID())).toBeUndefined();
  await expect(circuitPage(crypto.randomUUID())).rejects.toThrow(Missing);
});

test("the machine's row of the matrix: its worst of each family, filtered and sorted on the server", async () => {
  const all = { area: "", state: "", sort: "", page: 0 };
  const { rows, found } = await fleetMatrix(all);
  expect(found).toBe(1);
  expect(rows[0]).toMatchObject({ name: "Sluice unit 3", worst: "alarm" });
  expect(Object.keys(rows[0]!.cells).sort()).toEqual([
    "flow",
    "holding",
    "inlet",
    "leakage",
    "oil",
    "pressure",
    "temperature",
  ]);
  expect(rows[0]!.cells.pressure!.state).toBe("alarm");
  for (const wish of [{ state: "steady" }, { area: "Bridge" }, { page: 3 }])
    expect((await fleetMatrix({ ...all, ...wish })).rows).toEqual([]);
  for (const sort of ["name", "case", "oil", "nonsense"])
    expect((await fleetMatrix({ ...all, sort, state: "alarm" })).rows).toHaveLength(1);
  await db().update(machines).set({ retiredAt: new Date() });
  expect((await fleetMatrix(all)).rows).toEqual([]);
});
