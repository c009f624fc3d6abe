/** A machine from a template against a database: everything is there, once, and can be read in the same minute. */
import { eq } from "drizzle-orm";
import { templateIds } from "@core";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { changes, circuits, components, lives, machines, points, roundPoints, rounds, sites } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { actorNamed } from "~/domain/access/testActor";
import { drawCircuit } from "~/domain/circuits/draw.server";
import { diagramOf } from "~/domain/circuits/index.server";
import { logReading } from "~/domain/readings/log.server";
import { pointPlace } from "~/domain/readings/place.server";
import { pointPage } from "~/domain/readings/pointPage.server";
import { now } from "~/runtime/clock.server";
import { closeQueue } from "~/platform/jobs.server";
import { addRecord, editRecord } from "./commands.server";
import { presentLifeOf } from "./presentLife.server";
import { machineFromTemplate } from "./template.server";

let drop: () => Promise<void>;
beforeAll(async () => {
  drop = await ownDatabase("template");
  await migrateDatabase();
}, 60_000);
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await drop();
});

const engineer = actorNamed("R. Oduya");
const plate = {
  template: "compensated",
  name: "Baler 2",
  tag: "BL-2",
  site: "North yard",
  timeZone: "Europe/London",
  displacement: "45",
  speed: "1450",
  pressure: "3000 psi",
  oil: "VG 46",
};
/** As a form sends a moment: whole minutes, in the site's zone. */
const thisMinute = () => new Date(now()).toISOString().slice(0, 16);

test("sent twice it is there once, with a round of all its points", async () => {
  const [first, second] = [await machineFromTemplate(plate, engineer), await machineFromTemplate(plate, engineer)];
  expect(first).toMatchObject({ ok: true });
  expect(second).toEqual(first);
  expect(await db().select().from(machines)).toHaveLength(1);
  expect(await db().select().from(sites)).toHaveLength(1);
  const all = await db().select().from(points);
  expect(all.length).toBeGreaterThan(8);
  expect(all.every((p) => p.limitReason.startsWith("Rule of thumb"))).toBe(true);
  // begun now, so that it is not late for readings of the years before it
  expect(await db().select().from(rounds)).toMatchObject([{ begunAt: new Date(now()) }]);
  expect(await db().select().from(roundPoints)).toHaveLength(all.length);
  const [pump] = await db().select().from(components).where(eq(components.name, "Pump"));
  expect(pump).toMatchObject({ displacement: 45, speed: 1450 });
  const said = (await db().select({ what: changes.what }).from(changes)).map((c) => c.what);
  expect(said).toContainEqual(
    expect.stringMatching(/^Baler 2 from a template: added (1 fluid, )?1 site, 1 machine, 1 circuit, /),
  );
});

test("a change of a part says of which machine", async () => {
  const [pump] = await db().select().from(components).where(eq(components.name, "Pump"));
  const added = await addRecord(
    "point",
    { name: "Spare gauge", quantity: "pressure", state: "fullStroke", unit: "bar", componentId: pump!.id },
    engineer,
  );
  if (!added.ok) throw new Error(JSON.stringify(added.problems));
  const [noted] = await db().select({ what: changes.what }).from(changes).where(eq(changes.recordId, added.id));
  expect(noted!.what).toBe("added point Spare gauge of Baler 2, pump");
});

test("what is typed without a unit is in the reader's units; a pressure that no machine has is asked about", async () => {
  const psi = { ...plate, name: "Press of psi", tag: "PSI-1", pressure: "900" };
  expect(await machineFromTemplate(psi, engineer, { pressure: "psi" })).toMatchObject({ ok: true });
  const [circuit] = await db()
    .select({ pressure: circuits.workingPressure })
    .from(circuits)
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .where(eq(machines.tag, "PSI-1"));
  expect(circuit!.pressure).toBeCloseTo(62.05, 1);
  const bar = await machineFromTemplate({ ...psi, tag: "PSI-2" }, engineer);
  expect(bar).toMatchObject({ ok: false, problems: { pressure: expect.stringContaining("900 psi (62 bar)") } });
});

test("parts that were fitted earlier take in readings of earlier years; a life can begin earlier still", async () => {
  const old = {
    ...plate,
    name: "Old press",
    tag: "OLD-1",
    fittedOn: "2023-01-10",
    fittedHours: "8000",
    knownWhenNew: "on",
  };
  const begun = await machineFromTemplate(old, engineer);
  if (!begun.ok) throw new Error(JSON.stringify(begun.problems));
  const [row] = await db()
    .select({ life: lives, componentId: points.componentId })
    .from(points)
    .innerJoin(lives, eq(lives.componentId, points.componentId))
    .where(eq(points.id, begun.pointId));
  expect(row!.life).toMatchObject({ startHours: 8000, knownWhenNew: true });
  expect(row!.life.startedAt.toISOString().slice(0, 10)).toBe("2023-01-10");
  // three years before that, by the edit of its component; not into the future
  const [component] = await db().select().from(components).where(eq(components.id, row!.componentId));
  const fields = Object.fromEntries(
    Object.entries(component!).flatMap(([k, v]) => (v === null || typeof v === "object" ? [] : [[k, String(v)]])),
  );
  const edit = (startedAt: string) =>
    editRecord("component", component!.id, { ...fields, startedAt, startHours: "100", serial: "" }, engineer);
  expect(await edit("2031-01-01")).toMatchObject({ ok: false, problems: { startedAt: expect.any(String) } });
  expect(await edit("2020-05-05")).toMatchObject({ ok: true });
  expect(await presentLifeOf(component!.id)).toMatchObject({ startedAt: "2020-05-05", startHours: 100 });
});

test("its first reading is taken in the same minute, and says that it is beyond the rule of thumb", async () => {
  const begun = await machineFromTemplate(plate, engineer);
  if (!begun.ok) throw new Error(JSON.stringify(begun.problems));
  const saved = await logReading(
    await pointPlace(begun.pointId),
    {
      value: "9",
      temperature: "50",
      pressure: "205",
      takenAt: thisMinute(),
      state: "fullStroke",
      submission: crypto.randomUUID(),
    },
    engineer,
  );
  expect(saved).toMatchObject({ ok: true });
  const page = await pointPage(begun.pointId, 0);
  expect(["alert", "alarm"]).toContain(page.state);
  expect(page.limit.reason).toMatch(/^Rule of thumb/);
});

test("a component added without a date can be read in the same minute too", async () => {
  const [pump] = await db().select().from(components).where(eq(components.name, "Pump"));
  const added = await addRecord(
    "component",
    {
      circuitId: pump!.circuitId,
      kind: "filter",
      name: "Second filter",
      position: "9",
      runInHours: "50",
      knownWhenNew: "on",
    },
    engineer,
  );
  expect(added).toMatchObject({ ok: true });
  const point = await addRecord(
    "point",
    {
      componentId: added.ok ? added.id : "",
      name: "Differential pressure",
      quantity: "pressureDrop",
      state: "fullStroke",
      unit: "bar",
      intervalDays: "30",
    },
    engineer,
  );
  if (!point.ok) throw new Error(JSON.stringify(point.problems));
  const saved = await logReading(
    await pointPlace(point.id),
    { value: "0.6", takenAt: thisMinute(), state: "fullStroke", submission: crypto.randomUUID() },
    engineer,
  );
  expect(saved).toMatchObject({ ok: true });
});

test.each(templateIds.map((id, i) => [id, i] as const))(
  "template %s makes a machine with its circuit",
  async (template, i) => {
    const begun = await machineFromTemplate({ ...plate, template, name: `Machine ${i}`, tag: `T-${i}` }, engineer);
    if (!begun.ok) throw new Error(JSON.stringify(begun.problems));
    const [pump] = await db()
      .select({ circuitId: components.circuitId })
      .from(components)
      .innerJoin(points, eq(points.componentId, components.id))
      .where(eq(points.id, begun.pointId));
    const diagram = await diagramOf(pump!.circuitId);
    expect(diagram!.drawing.parts.length).toBeGreaterThan(4);
  },
);

test.each([
  [{ name: "" }, "name"],
  [{ template: "spaceship" }, "template"],
  [{ timeZone: "Mars/Olympus" }, "timeZone"],
  [{ pressure: "abc" }, "pressure"],
  [{ displacement: "" }, "displacement"],
  [{ oil: "water" }, "oil"],
  [{ name: "Another machine" }, "tag"],
  [{ pressure: "900" }, "pressure"],
  [{ fittedOn: "2031-01-01" }, "fittedOn"],
])("%j is refused beside its field, and adds nothing", async (change, field) => {
  const before = (await db().select().from(machines)).length;
  const answer = await machineFromTemplate({ ...plate, ...change }, engineer);
  expect(answer).toMatchObject({ ok: false, problems: { [field]: expect.any(String) } });
  expect(await db().select().from(machines)).toHaveLength(before);
});

test("a machine without components is drawn first: what was drawn is the register, and nothing is invented", async () => {
  const [site] = await db().select().from(sites);
  const machine = await addRecord("machine", { siteId: site!.id, name: "Drawn first", tag: "DF-1" }, engineer);
  if (!machine.ok) throw new Error(JSON.stringify(machine.problems));
  const circuit = await addRecord("circuit", { machineId: machine.id, name: "Circuit" }, engineer);
  if (!circuit.ok) throw new Error(JSON.stringify(circuit.problems));
  const before = (await diagramOf(circuit.id))!;
  const netlist = {
    elements: [
      { id: "t", kind: "tank", name: "Tank", componentId: null, data: {} },
      { id: "p", kind: "fixedPump", name: "Lube pump", componentId: null, data: { displacement: 16, speed: 1450 } },
      { id: "r", kind: "relief", name: "Relief valve", componentId: null, data: { crack: 20 } },
    ],
    lines: [
      { id: "1", from: { element: "t", port: "T" }, to: { element: "p", port: "in" }, data: null },
      { id: "2", from: { element: "p", port: "out" }, to: { element: "r", port: "P" }, data: null },
      { id: "3", from: { element: "r", port: "T" }, to: { element: "t", port: "T" }, data: null },
    ],
    gauges: [],
  };
  const fields = { netlist: JSON.stringify(netlist), version: String(before.version), intent: "keep", register: "on" };
  expect(await drawCircuit(circuit.id, fields, engineer)).toMatchObject({ ok: true });
  const own = await db().select().from(components).where(eq(components.circuitId, circuit.id));
  expect(own.map((c) => [c.name, c.kind, c.displacement]).sort()).toEqual([
    ["Lube pump", "gearPump", 16],
    ["Relief valve", "reliefValve", null],
  ]);
  const drawn = (await diagramOf(circuit.id))!.netlist;
  expect(
    drawn.elements
      .filter((e) => e.componentId !== null)
      .map((e) => e.id)
      .sort(),
  ).toEqual(own.map((c) => c.id).sort());
  expect(drawn.lines).toHaveLength(3);
  // kept again it adds nothing
  const again = (await diagramOf(circuit.id))!;
  const twice = { ...fields, netlist: JSON.stringify(drawn), version: String(again.version) };
  expect(await drawCircuit(circuit.id, twice, engineer)).toMatchObject({ ok: true });
  expect(await db().select().from(components).where(eq(components.circuitId, circuit.id))).toHaveLength(2);
});
