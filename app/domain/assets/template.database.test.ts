/** A machine from a template against a database: everything is there, once, and can be read in the same minute. */
import { eq } from "drizzle-orm";
import { templateIds } from "@core";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { components, machines, points, roundPoints, rounds, sites } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { actorNamed } from "~/domain/access/testActor";
import { diagramOf } from "~/domain/circuits/index.server";
import { logReading, pointPlace } from "~/domain/readings/log.server";
import { pointPage } from "~/domain/readings/pointPage.server";
import { now } from "~/runtime/clock.server";
import { closeQueue } from "~/platform/jobs.server";
import { addRecord } from "./commands.server";
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
  expect(await db().select().from(rounds)).toHaveLength(1);
  expect(await db().select().from(roundPoints)).toHaveLength(all.length);
  const [pump] = await db().select().from(components).where(eq(components.name, "Pump"));
  expect(pump).toMatchObject({ displacement: 45, speed: 1450 });
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
])("%j is refused beside its field, and adds nothing", async (change, field) => {
  const before = (await db().select().from(machines)).length;
  const answer = await machineFromTemplate({ ...plate, ...change }, engineer);
  expect(answer).toMatchObject({ ok: false, problems: { [field]: expect.any(String) } });
  expect(await db().select().from(machines)).toHaveLength(before);
});
