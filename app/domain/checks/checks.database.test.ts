/** Tests at the machine against a database: what is kept of one, what is altered for it, and a plant's own. */
import { eq } from "drizzle-orm";
import { checks } from "@core";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { lives, temporaryChanges, testDefinitions, testRecords } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { addPlant, ENGINEER, TECHNICIAN, type Plant } from "~/domain/testPlant";
import { closeQueue } from "~/platform/jobs.server";
import { addPlantTest, noteChange, putBack, recordTest } from "./commands.server";
import { allTests, componentPlace, lastRecord, openChanges, recentRecords, recordPage, testOf } from "./queries.server";
import { Missing } from "~/platform/missing";

let plant: Plant;
let dropDatabase: () => Promise<void>;

beforeAll(async () => {
  dropDatabase = await ownDatabase("checks");
  await migrateDatabase();
  plant = await addPlant("PR");
});
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await dropDatabase();
});

const shutIn = { pressure: "205", low: "195", high: "215", seconds: "12" };
const record = async (change: Record<string, string> = {}, units = {}) =>
  recordTest(
    (await testOf("shut-in")).check,
    await componentPlace(plant.pump),
    { ...shutIn, submission: crypto.randomUUID(), ...change },
    TECHNICIAN,
    units,
  );
async function kept(change: Record<string, string> = {}, units = {}) {
  const done = await record(change, units);
  if (!done.ok) throw new Error(JSON.stringify(done.problems));
  return done.id;
}

describe("a record of a test", () => {
  test("is refused beside what is wrong, and nothing is kept", async () => {
    expect(await record({ pressure: "high", seconds: "" })).toMatchObject({
      ok: false,
      problems: { pressure: expect.any(String), seconds: expect.any(String) },
    });
    expect(await record({ submission: "once" })).toMatchObject({ ok: false, problems: { form: expect.any(String) } });
    expect(await recentRecords()).toEqual([]);
  });
  test("belongs to the life that is fitted, and says what it said then", async () => {
    const id = await kept();
    const [life] = await db().select().from(lives).where(eq(lives.componentId, plant.pump));
    const [row] = await db().select().from(testRecords).where(eq(testRecords.id, id));
    expect(row).toMatchObject({ lifeId: life!.id, by: TECHNICIAN.name, test: "shut-in" });
    expect(row!.outcome.tone).toBe("good");
  });
  test("a bare number keeps the unit that its person meant", async () => {
    const page = await recordPage(await kept({ pressure: "2900", low: "2800", high: "3100" }, { pressure: "psi" }));
    expect(page.typed).toMatchObject({ pressure: "2900 psi", low: "2800 psi" });
    expect(page.outcome.working.rows.find((r) => r.label === "pressure")!.value).toBeCloseTo(199.95, 2);
  });
  test("is compared with the one before it of the same test, not with a later one", async () => {
    const first = await kept({ pressure: "204" });
    await db()
      .update(testRecords)
      .set({ at: new Date("2026-05-01T08:00:00Z") })
      .where(eq(testRecords.id, first));
    const second = await kept({ pressure: "201" });
    await db()
      .update(testRecords)
      .set({ at: new Date("2026-06-01T08:00:00Z") })
      .where(eq(testRecords.id, second));
    expect((await recordPage(first)).before).toBeNull();
    expect((await recordPage(second)).before!.at).toBe(Date.UTC(2026, 4, 1, 8));
    expect((await lastRecord(plant.pump, "shut-in"))!.at).toBeGreaterThan(Date.UTC(2026, 5, 1));
    expect(await lastRecord(plant.pump, "load-test")).toBeNull();
  });
  test("sent five times at once it is there once", async () => {
    const submission = crypto.randomUUID();
    const answers = await Promise.all(Array.from({ length: 5 }, () => record({ submission })));
    expect(new Set(answers.map((a) => (a.ok ? a.id : "refused"))).size).toBe(1);
    expect(await db().select().from(testRecords).where(eq(testRecords.submission, submission))).toHaveLength(1);
  });
  test("a very long note is cut and not refused", async () => {
    expect((await recordPage(await kept({ note: "x".repeat(5000) }))).note).toHaveLength(1000);
  });
  test("what is not there is not found", async () => {
    for (const ask of [
      () => recordPage(crypto.randomUUID()),
      () => testOf("dance"),
      () => componentPlace(crypto.randomUUID()),
    ])
      await expect(ask()).rejects.toThrow(Missing);
  });
});

describe("what is altered for a test", () => {
  const note = async (altered: string, change: Record<string, string> = {}) =>
    noteChange(
      await componentPlace(plant.pump),
      { altered, asItStood: "210 bar", submission: crypto.randomUUID(), ...change },
      TECHNICIAN,
    );
  test.each(["", "ab", "x".repeat(201)])("%j is not said well enough", async (altered) => {
    expect(await note(altered)).toMatchObject({ ok: false, problems: { altered: expect.any(String) } });
  });
  test("stands until it is put back, oldest first, and says by whom and how it stood", async () => {
    await note("Compensator turned up");
    await note("Case line open");
    const open = await openChanges(plant.machine);
    expect(open.map((c) => c.what)).toEqual(["Compensator turned up", "Case line open"]);
    expect(open[0]).toMatchObject({ by: TECHNICIAN.name, before: "210 bar", component: "Pump" });
    await putBack(open[0]!.id, ENGINEER);
    expect((await openChanges(plant.machine)).map((c) => c.what)).toEqual(["Case line open"]);
  });
  test("put back twice, the first one's name stays", async () => {
    const [open] = await openChanges(plant.machine);
    await putBack(open!.id, ENGINEER);
    await putBack(open!.id, TECHNICIAN);
    const [row] = await db().select().from(temporaryChanges).where(eq(temporaryChanges.id, open!.id));
    expect(row!.putBackBy).toBe(ENGINEER.name);
  });
  test("another machine's register is its own", async () => {
    const other = await addPlant("PR2");
    await note("Relief backed out");
    expect(await openChanges(other.machine)).toEqual([]);
    expect(await openChanges()).toHaveLength(1);
  });
});

describe("a plant's own test", () => {
  const own = {
    title: "Latch",
    asks: "Does it let go?",
    before: "Gate shut\n\n  Nobody near it ",
    caution: "Stand clear of the gate.",
    steps: "Press open.\nWatch the gauge.",
    alters: "",
    readings: "Latch pressure; pressure; 40 bar; 60 bar\nTime; strokeTime; ; 3 s",
  };
  const problems = async (change: Record<string, string>, kinds = ["cylinder"]) => {
    const done = await addPlantTest({ ...own, ...change }, kinds, ENGINEER);
    return done.ok ? [] : Object.keys(done.problems);
  };
  test.each([
    ["no name", { title: "" }, "title"],
    ["a name of a book's length", { title: "x".repeat(101) }, "title"],
    ["a question that asks nothing", { asks: "It lets go." }, "asks"],
    ["nothing that must be true first", { before: "\n \n" }, "before"],
    ["no caution", { caution: "careful" }, "caution"],
    ["no reading", { readings: "" }, "readings"],
    ["a reading without a name", { readings: "; pressure; 40; 60" }, "readings"],
    ["a quantity that nobody knows", { readings: "Latch; courage; 1; 2" }, "readings"],
    ["a bound in another unit", { readings: "Latch; pressure; 40 °C; 60" }, "readings"],
    ["bounds the wrong way round", { readings: "Latch; pressure; 60; 40" }, "readings"],
  ])("%s is refused", async (_what, change, field) => {
    expect(await problems(change)).toEqual([field]);
  });
  test("for no kind of part, or one that nobody knows", async () => {
    expect(await problems({}, [])).toEqual(["kinds"]);
    expect(await problems({}, ["teapot"])).toEqual(["kinds"]);
    expect(await db().select().from(testDefinitions)).toEqual([]);
  });
  test("added, it is offered after those that ship, without its empty lines", async () => {
    const done = await addPlantTest(own, ["cylinder", "teapot"], ENGINEER);
    if (!done.ok) throw new Error(JSON.stringify(done.problems));
    const all = await allTests();
    expect(all.slice(0, checks.length).every((t) => !t.own)).toBe(true);
    expect(all.at(-1)).toMatchObject({ id: done.id, own: true, kinds: ["cylinder"] });
    const { plant: definition, check } = await testOf(done.id);
    expect(definition).toMatchObject({
      before: ["Gate shut", "Nobody near it"],
      steps: ["Press open.", "Watch the gauge."],
    });
    expect(Object.keys(check.calculation.fields)).toHaveLength(2);
  });
  test("what it says is kept like any other", async () => {
    const [mine] = (await allTests()).filter((t) => t.own);
    const { check } = await testOf(mine!.id);
    const done = await recordTest(
      check,
      await componentPlace(plant.pump),
      { r0: "50", r1: "2", submission: crypto.randomUUID() },
      TECHNICIAN,
      {},
    );
    if (!done.ok) throw new Error(JSON.stringify(done.problems));
    expect(await recordPage(done.id)).toMatchObject({ title: "Latch", outcome: { tone: "good" } });
  });
});
