/** Booking, moving, ordering, cancelling and finishing work against a database: what is refused, and what two people do at once. */
import { and, eq, isNull } from "drizzle-orm";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { assessments, interventions, lives } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { editRecord } from "~/domain/assets/commands.server";
import { recordOf } from "~/domain/assets/queries.server";
import { actorNamed } from "~/domain/access/testActor";
import { add, addPlant, componentForm, ENGINEER, TECHNICIAN, ZONE, type Plant } from "~/domain/testPlant";
import { closeQueue } from "~/platform/jobs.server";
import { bookWork, changeWork, finishWork } from "./commands.server";
import { bookingContext } from "./context.server";
import { workPage } from "./list.server";
import { interventionPage } from "./page.server";
import { Missing } from "~/platform/missing";

let plant: Plant;
let stop = "";
let dropDatabase: () => Promise<void>;

const booking = (change: Record<string, string> = {}): Record<string, string> => ({
  componentId: plant.pump,
  pointId: plant.drain,
  kind: "replacement",
  stopId: stop,
  crewHours: "8",
  partOrderedOn: "",
  note: "",
  submission: crypto.randomUUID(),
  ...change,
});
/** A pump of its own, so that no test meets another one's work. */
let pumps = 0;
const pump = () => add("component", componentForm(plant.circuit, { name: `Pump ${++pumps}` }));
async function booked(change: Record<string, string> = {}) {
  const done = await bookWork(booking({ componentId: await pump(), pointId: "", ...change }), ENGINEER);
  if (!done.ok) throw new Error(JSON.stringify(done.problems));
  const [row] = await db().select().from(interventions).where(eq(interventions.id, done.id));
  return row!;
}
const rowOf = async (id: string) => (await db().select().from(interventions).where(eq(interventions.id, id)))[0]!;

beforeAll(async () => {
  dropDatabase = await ownDatabase("work_commands");
  await migrateDatabase();
  plant = await addPlant("WK");
  stop = await add("stop", {
    siteId: plant.site,
    name: "Winter stop",
    startsOn: "2027-01-18",
    days: "3",
    crewHours: "24",
  });
});
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await dropDatabase();
});

describe("booking", () => {
  test.each([
    ["no component", { componentId: "" }, "componentId"],
    ["nothing to be done", { kind: "painting" }, "kind"],
    ["hours in words", { crewHours: "many" }, "crewHours"],
    ["hours below nothing", { crewHours: "-1" }, "crewHours"],
    ["no hours", { crewHours: " " }, "crewHours"],
    ["an order on a day that does not exist", { partOrderedOn: "2026-02-30" }, "partOrderedOn"],
    ["a stop that is no id", { stopId: "Winter" }, "stopId"],
    ["a stop that is gone", { stopId: crypto.randomUUID() }, "stopId"],
    ["a note of a book's length", { note: "x".repeat(2001) }, "note"],
    ["an old form", { submission: "x" }, "submission"],
  ])("%s is refused beside its field", async (_what, change, field) => {
    const done = await bookWork(booking(change), ENGINEER);
    expect(Object.keys(done.ok ? {} : done.problems)).toEqual([field]);
    expect(await db().select().from(interventions).where(eq(interventions.componentId, plant.pump))).toEqual([]);
  });
  test("where nobody chose a stop it is asked for; a stop of its own is a choice", async () => {
    const { stopId: _none, ...unchosen } = booking({ componentId: await pump(), pointId: "" });
    expect(await bookWork(unchosen, ENGINEER)).toMatchObject({ ok: false, problems: { stopId: expect.any(String) } });
    expect((await booked({ stopId: "" })).stopId).toBeNull();
  });
  test("a retired stop is gone, a point of another part is refused", async () => {
    const gone = await add("stop", {
      siteId: plant.site,
      name: "Gone",
      startsOn: "2027-03-01",
      days: "1",
      crewHours: "8",
    });
    await editRecord(
      "stop",
      gone,
      { intent: "retire", version: String((await recordOf("stop", gone)).version) },
      ENGINEER,
    );
    expect(await bookWork(booking({ stopId: gone }), ENGINEER)).toMatchObject({
      ok: false,
      problems: { stopId: expect.stringContaining("gone") },
    });
    expect(await bookWork(booking({ componentId: await pump() }), ENGINEER)).toMatchObject({
      ok: false,
      problems: { form: expect.stringContaining("another component") },
    });
  });
  test("three of one form at once are one piece of work", async () => {
    const form = booking({ componentId: await pump(), pointId: "" });
    const answers = await Promise.all([1, 2, 3].map(() => bookWork(form, ENGINEER)));
    expect(new Set(answers.map((a) => (a.ok ? a.id : "refused"))).size).toBe(1);
  });
  test("two people book one part at once: one is told of the other, and may book beside", async () => {
    const componentId = await pump();
    const form = () => booking({ componentId, pointId: "" });
    const answers = await Promise.all([bookWork(form(), ENGINEER), bookWork(form(), actorNamed("L. Aske"))]);
    expect(answers.filter((a) => a.ok)).toHaveLength(1);
    expect(answers.find((a) => !a.ok)).toMatchObject({
      because: "conflict",
      problems: { form: expect.stringMatching(/^(R\. Oduya|L\. Aske) has already booked/) },
    });
    expect(await bookWork({ ...form(), again: "on" }, ENGINEER)).toMatchObject({ ok: true });
    expect((await bookingContext(componentId, null)).open).toHaveLength(2);
  });
});

describe("changing what is booked", () => {
  test("it moves to another stop or to none; a stop that is no stop is refused", async () => {
    const work = await booked();
    expect(await changeWork(work.id, { stopId: "later", version: "1" }, ENGINEER)).toMatchObject({
      ok: false,
      problems: { stopId: expect.any(String) },
    });
    expect(await changeWork(work.id, { stopId: "", version: "1" }, ENGINEER)).toMatchObject({ ok: true });
    expect(await rowOf(work.id)).toMatchObject({ stopId: null, version: 2 });
  });
  test("two change it at once: the second is told, nothing is overwritten", async () => {
    const work = await booked();
    const answers = await Promise.all([
      changeWork(work.id, { intent: "order", version: "1" }, ENGINEER),
      changeWork(work.id, { intent: "cancel", version: "1" }, ENGINEER),
    ]);
    expect(answers.map((a) => a.ok).sort()).toEqual([false, true]);
    const row = await rowOf(work.id);
    expect([row.partOrderedOn !== null, row.cancelledAt !== null].filter(Boolean)).toHaveLength(1);
  });
  test("ordered, it stands at the site's own day, and what is said of its points is made again", async () => {
    const work = await booked({ componentId: plant.pump, pointId: plant.drain });
    await db().update(assessments).set({ stale: false });
    await changeWork(work.id, { intent: "order", version: "1" }, ENGINEER);
    expect((await rowOf(work.id)).partOrderedOn).toBe("2026-11-24");
    expect((await db().select().from(assessments).where(eq(assessments.pointId, plant.drain)))[0]!.stale).toBe(true);
    await changeWork(work.id, { intent: "cancel", version: "2" }, ENGINEER);
  });
  test("cancelled it is closed: nothing changes it any more, and it is on no list", async () => {
    const work = await booked();
    await changeWork(work.id, { intent: "cancel", version: "1" }, ENGINEER);
    expect(await changeWork(work.id, { stopId: "", version: "2" }, ENGINEER)).toMatchObject({
      ok: false,
      because: "conflict",
    });
    expect((await workPage()).open.map((w) => w.id)).not.toContain(work.id);
  });
  test("what is not there is told so", async () => {
    expect(await changeWork(crypto.randomUUID(), { version: "1" }, ENGINEER)).toMatchObject({
      ok: false,
      because: "gone",
    });
    await expect(interventionPage(crypto.randomUUID())).rejects.toThrow(Missing);
  });
});

describe("finishing", () => {
  const done = (change: Record<string, string> = {}) => ({
    doneAt: "2026-11-24T08:00",
    hours: "1000",
    hoursRight: "on",
    serial: "B-7",
    findings: "Worn.",
    version: "1",
    ...change,
  });
  test.each([
    ["no moment", { doneAt: "" }, "doneAt"],
    ["a day that does not exist", { doneAt: "2026-02-30T08:00" }, "doneAt"],
    ["tomorrow", { doneAt: "2026-11-25T08:00" }, "doneAt"],
    ["before the part was fitted", { doneAt: "2021-07-01T08:00" }, "doneAt"],
    ["no hours", { hours: "" }, "hours"],
    ["no serial of the new part", { serial: "" }, "serial"],
  ])("%s is refused, and the old life goes on", async (_what, change, field) => {
    const work = await booked();
    const answer = await finishWork(work.id, ZONE, done(change), TECHNICIAN);
    expect(Object.keys(answer.ok ? {} : answer.problems)).toContain(field);
    const open = await db()
      .select()
      .from(lives)
      .where(and(eq(lives.componentId, work.componentId), isNull(lives.endedAt)));
    expect(open).toHaveLength(1);
    expect((await rowOf(work.id)).doneAt).toBeNull();
  });
  test("a replacement ends one life and begins the next at the same moment; a repair does not", async () => {
    const work = await booked();
    expect(await finishWork(work.id, ZONE, done(), TECHNICIAN)).toMatchObject({ ok: true });
    const own = await db().select().from(lives).where(eq(lives.componentId, work.componentId)).orderBy(lives.startedAt);
    expect(own).toHaveLength(2);
    expect(own[0]!.endedAt).toEqual(own[1]!.startedAt);
    expect(own[1]).toMatchObject({ serial: "B-7", startHours: 1000, knownWhenNew: true });
    const repair = await booked({ kind: "repair" });
    await finishWork(repair.id, ZONE, done({ serial: "" }), TECHNICIAN);
    expect(await db().select().from(lives).where(eq(lives.componentId, repair.componentId))).toHaveLength(1);
  });
  test("two finish it at once: one new life, and the second is told who closed it", async () => {
    const work = await booked();
    const answers = await Promise.all([
      finishWork(work.id, ZONE, done(), TECHNICIAN),
      finishWork(work.id, ZONE, done({ serial: "C-8" }), actorNamed("L. Aske")),
    ]);
    expect(answers.filter((a) => a.ok)).toHaveLength(1);
    expect(answers.find((a) => !a.ok)).toMatchObject({ because: "conflict" });
    expect(await db().select().from(lives).where(eq(lives.componentId, work.componentId))).toHaveLength(2);
  });
});
