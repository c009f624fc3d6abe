/** What the page of a point says of lives that are none, short, many or very long. */
import { eq, sql } from "drizzle-orm";
import { DAY } from "@core";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { lives, readings } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { add, addPlant, pointForm, readingForm, TECHNICIAN, type Plant } from "~/domain/testPlant";
import { closeQueue } from "~/platform/jobs.server";
import { logReading } from "./log.server";
import { pointPlace } from "./place.server";
import { pointPage } from "./pointPage.server";
import { Missing } from "~/platform/missing";

let plant: Plant;
let dropDatabase: () => Promise<void>;

beforeAll(async () => {
  dropDatabase = await ownDatabase("point_page");
  await migrateDatabase();
  plant = await addPlant("PP");
});
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await dropDatabase();
});

const NOW = Date.parse(process.env.JUNCTERAL_NOW!);
const TABLE = 24;

/** So many readings, an hour apart, the newest so many days ago. */
async function fill(point: string, life: string, n: number, daysAgo: number): Promise<void> {
  await db().execute(sql`
    insert into readings (point_id, life_id, taken_at, value, entered, pressure, temperature, taken_by)
    select ${point}, ${life}, ${new Date(NOW - daysAgo * DAY).toISOString()}::timestamptz - i * interval '1 hour',
      1.4, '1.4 L/min', 210, 50, 'A logger' from generate_series(0, ${n - 1}) i`);
}

async function lifeOf(component: string): Promise<string> {
  const [life] = await db().select({ id: lives.id }).from(lives).where(eq(lives.componentId, component));
  return life!.id;
}

async function log(point: string, change: Record<string, string>): Promise<void> {
  const done = await logReading(await pointPlace(point), readingForm({ keptBecause: "trial", ...change }), TECHNICIAN);
  if (!done.ok) throw new Error(JSON.stringify(done.problems));
}

test("a point that was never read: its place and its limit, and nothing that would need a reading", async () => {
  expect(await pointPage(plant.drain, 0)).toMatchObject({
    state: "unread",
    table: [],
    chart: [],
    last: null,
    lastHours: null,
    sameMonth: null,
    farFrom: null,
    total: { count: 0, over: false },
    inLife: { count: 0, over: false },
  });
});

test("a point that is not there is a 404, whatever else is asked of it", async () => {
  await expect(pointPage(crypto.randomUUID(), 0)).rejects.toThrow(Missing);
});

test("hours are those that were noted last, on the first page of the table and on the second", async () => {
  const point = await add("point", pointForm(plant.pump, { name: "Drain with hours" }));
  await log(point, { takenAt: "2024-10-01T08:00", hours: "9000" });
  expect((await pointPage(point, 0)).lastHours).toBe(9000);
  // newer ones without hours fill the first page: the noted figure is found all the same
  await fill(point, await lifeOf(plant.pump), TABLE, 2);
  const [first, second] = await Promise.all([pointPage(point, 0), pointPage(point, 1)]);
  expect(first.table.every((r) => r.noted === null)).toBe(true);
  expect([first.lastHours, second.lastHours]).toEqual([9000, 9000]);
  expect([first.table.length, second.table.length]).toEqual([TABLE, 1]);
});

test("a point with more than is counted says so, of itself and of the life that goes on", async () => {
  const pump = await add("component", {
    circuitId: plant.circuit,
    kind: "gearPump",
    name: "Logged pump",
    displacement: "20",
    speed: "1450",
    position: "2",
    startedAt: "2021-08-01",
    startHours: "0",
    knownWhenNew: "on",
  });
  const point = await add("point", pointForm(pump, { name: "Logged drain" }));
  const before = await lifeOf(pump);
  await fill(point, before, 10_050, 40);
  expect(await pointPage(point, 0)).toMatchObject({
    total: { count: 10_000, over: true },
    inLife: { count: 10_000, over: true },
  });
  // a new part: the old one's readings are still the point's, and not the new life's
  const change = new Date(NOW - 30 * DAY);
  await db().update(lives).set({ endedAt: change, endReason: "Worn" }).where(eq(lives.id, before));
  const [next] = await db()
    .insert(lives)
    .values({ componentId: pump, startedAt: change, knownWhenNew: true })
    .returning({ id: lives.id });
  await fill(point, next!.id, 3, 10);
  const page = await pointPage(point, 0);
  expect(page).toMatchObject({ total: { count: 10_000, over: true }, inLife: { count: 3, over: false } });
  expect(page.chart.map((life) => [life.endedAt !== null, life.readings.length > 0])).toEqual([
    [true, true],
    [false, true],
  ]);
  // ten thousand readings are drawn by some hundred, and the table ends where they end
  expect(page.chart[0]!.readings.length).toBeLessThanOrEqual(400);
  expect((await pointPage(point, 418)).table).toHaveLength(10_053 - 418 * TABLE);
  expect((await pointPage(point, 5000)).table).toEqual([]);
});

test("withdrawn readings are counted apart", async () => {
  const point = await add("point", pointForm(plant.pump, { name: "Drain with a slip" }));
  await fill(point, await lifeOf(plant.pump), 4, 3);
  const [one] = await db().select({ id: readings.id }).from(readings).where(eq(readings.pointId, point)).limit(1);
  await db()
    .update(readings)
    .set({ supersededAt: new Date(NOW) })
    .where(eq(readings.id, one!.id));
  expect(await pointPage(point, 0)).toMatchObject({ superseded: 1, total: { count: 3 }, inLife: { count: 3 } });
});
