/** Readings at one point against a database: what is refused, asked and kept, by whom, and what two people do at once. */
import { and, eq, isNull } from "drizzle-orm";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { assessments, changes, instrumentChecks, instruments, points, readings } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import {
  add,
  addPlant,
  componentForm,
  ENGINEER,
  pointForm,
  readingForm,
  TECHNICIAN,
  type Plant,
} from "~/domain/testPlant";
import { closeQueue } from "~/platform/jobs.server";
import { correctReading, setLimit } from "./commands.server";
import { logReading } from "./log.server";
import { pointPlace } from "./place.server";
import { pointPage, readingOf } from "./pointPage.server";

let plant: Plant;
let dropDatabase: () => Promise<void>;

const NOW = Date.parse(process.env.JUNCTERAL_NOW!);
const MINUTE = 60_000;
/** "2026-11-24T08:58" in London, where it is winter: minutes before the tests' clock. */
const minutesAgo = (minutes: number) => new Date(NOW - minutes * MINUTE).toISOString().slice(0, 16);

const log = async (change: Record<string, string> = {}, point = plant.drain, by = TECHNICIAN) =>
  logReading(await pointPlace(point), readingForm(change), by);
async function kept(change: Record<string, string> = {}, point = plant.drain) {
  const done = await log({ keptBecause: "trial", ...change }, point);
  if (!done.ok) throw new Error(JSON.stringify(done));
  return readingOf(point, done.readingId);
}
const countOf = async (point: string) =>
  (
    await db()
      .select({ id: readings.id })
      .from(readings)
      .where(and(eq(readings.pointId, point), isNull(readings.supersededAt)))
  ).length;

beforeAll(async () => {
  dropDatabase = await ownDatabase("readings");
  await migrateDatabase();
  plant = await addPlant("RD");
});
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await dropDatabase();
});

describe("what is refused, beside its field", () => {
  test.each([
    ["no value", { value: "" }, "value"],
    ["words", { value: "a lot" }, "value"],
    ["a unit of something else", { value: "3 bar" }, "value"],
    ["more than any case drain gives", { value: "1e9" }, "value"],
    ["no time", { takenAt: "" }, "takenAt"],
    ["a time that is none", { takenAt: "last Tuesday" }, "takenAt"],
    ["a day that does not exist", { takenAt: "2026-02-30T10:00" }, "takenAt"],
    ["six minutes from now", { takenAt: minutesAgo(-6) }, "takenAt"],
    ["before the part was fitted", { takenAt: "2021-07-31T10:00" }, "takenAt"],
    ["another state than the series", { state: "noLoad" }, "state"],
    ["a state that nobody knows", { state: "dancing" }, "state"],
    ["an oil temperature that is a pressure", { temperature: "40 bar" }, "temperature"],
    ["hours in words", { hours: "many" }, "hours"],
    ["an instrument that is no id", { instrumentId: "G-1" }, "instrumentId"],
    ["an instrument that is not there", { instrumentId: crypto.randomUUID() }, "instrumentId"],
    ["a note of a book's length", { note: "x".repeat(1001) }, "note"],
    ["a form without its id", { submission: "" }, "submission"],
  ])("%s", async (_what, change, field) => {
    const before = await countOf(plant.drain);
    const done = await log(change);
    expect(done).toMatchObject({ ok: false });
    expect(Object.keys(done.ok ? {} : done.problems)).toContain(field);
    expect(await countOf(plant.drain)).toBe(before);
  });
  test("several at once are told at once", async () => {
    const done = await log({ value: "", temperature: "40 bar", takenAt: "" });
    expect(Object.keys(done.ok ? {} : done.problems).sort()).toEqual(["takenAt", "temperature", "value"]);
  });
  test("the device's clock may run a few minutes ahead", async () =>
    expect(await kept({ takenAt: minutesAgo(-4) })).toMatchObject({ entered: "1.4 L/min" }));
});

describe("what is kept", () => {
  test("the value in the core's unit, the text as it was typed, and who took it", async () => {
    const row = await kept({
      value: "0.4 gal/min",
      takenAt: "2026-11-10T08:00",
      temperature: "122 °F",
      pressure: "3000 psi",
    });
    expect(row).toMatchObject({ entered: "0.4 gal/min", takenBy: TECHNICIAN.name, sentBy: null });
    expect(row.value).toBeCloseTo(0.4 * 3.785411784, 9);
    expect(row.temperature).toBeCloseTo(50, 9);
    expect(row.pressure).toBeCloseTo(206.8427, 3);
  });
  test("summer time: ten in the morning in July is nine of the world's clock", async () => {
    const row = await kept({ takenAt: "2026-07-10T10:00" });
    expect(row.takenAt.toISOString()).toBe("2026-07-10T09:00:00.000Z");
  });
  test("somebody else sends what a person took: both names stand", async () => {
    const done = await logReading(
      await pointPlace(plant.drain),
      readingForm({ takenAt: "2026-11-11T08:00", keptBecause: "trial" }),
      ENGINEER,
      "L. Aske",
    );
    if (!done.ok) throw new Error("not kept");
    expect(await readingOf(plant.drain, done.readingId)).toMatchObject({ takenBy: "L. Aske", sentBy: ENGINEER.name });
  });
  test("the newest moment of the point is the newest reading's, not the last that was entered", async () => {
    await kept({ takenAt: "2025-01-10T08:00" });
    const [row] = await db().select().from(points).where(eq(points.id, plant.drain));
    expect(row!.lastReadingAt!.getTime()).toBeGreaterThan(NOW);
  });
});

describe("twice", () => {
  test("the same form one after another, and five at once, is one reading", async () => {
    const place = await pointPlace(plant.drain);
    const form = readingForm({ takenAt: "2026-10-01T08:00", keptBecause: "trial" });
    const before = await countOf(plant.drain);
    const answers = await Promise.all(Array.from({ length: 5 }, () => logReading(place, form, TECHNICIAN)));
    expect(new Set(answers.map((a) => (a.ok ? a.readingId : JSON.stringify(a)))).size).toBe(1);
    expect(await logReading(place, form, TECHNICIAN)).toEqual(answers[0]);
    expect(await countOf(plant.drain)).toBe(before + 1);
  });
  test("two forms for one moment: the second is told what is there", async () => {
    await kept({ takenAt: "2026-10-02T08:00", value: "1.5" });
    const second = await log({ takenAt: "2026-10-02T08:00", value: "1.6", keptBecause: "trial" });
    expect(second).toMatchObject({
      ok: false,
      conflict: true,
      problems: { takenAt: expect.stringContaining("1.5 L/min") },
    });
  });
  test("a form that was used for another record is refused, and says so", async () => {
    const other = await add("point", pointForm(plant.pump, { name: "Case drain, cold" }));
    const form = readingForm({ takenAt: "2026-10-03T08:00", keptBecause: "trial" });
    expect(await logReading(await pointPlace(plant.drain), form, TECHNICIAN)).toMatchObject({ ok: true });
    expect(await logReading(await pointPlace(other), form, TECHNICIAN)).toMatchObject({
      ok: false,
      problems: { form: expect.stringContaining("another record") },
    });
    expect(await countOf(other)).toBe(0);
  });
});

describe("questions", () => {
  let steady = "";
  beforeAll(async () => {
    steady = await add("point", pointForm(plant.pump, { name: "Case drain, steady" }));
    for (let month = 1; month <= 10; month++)
      await kept(
        { takenAt: `2026-${String(month).padStart(2, "0")}-05T08:00`, value: (1.4 + 0.01 * (month % 3)).toFixed(2) },
        steady,
      );
  });
  test("a value of the usual kind is none", async () =>
    expect(await log({ takenAt: "2026-11-05T08:00", value: "1.42" }, steady)).toMatchObject({ ok: true }));
  test.each([
    ["ten times too much", "14", "digit"],
    ["half as much again", "2.2", "high"],
    ["half of it", "0.7", "low"],
    ["gallons typed as litres", "0.37", "unit"],
  ])("%s is asked about, and nothing is saved", async (_what, value, kind) => {
    const before = await countOf(steady);
    const done = await log({ takenAt: "2026-11-06T08:00", value }, steady);
    expect(done).toMatchObject({ ok: false, problems: {}, question: { kind } });
    expect(await countOf(steady)).toBe(before);
  });
  test("with a reason it is kept, the reason with it; a reason for nothing odd is not kept", async () => {
    const odd = await kept(
      { takenAt: "2026-11-07T08:00", value: "2.2", keptBecause: "read twice, relief was warm" },
      steady,
    );
    expect(odd.keptBecause).toBe("read twice, relief was warm");
    const usual = await kept({ takenAt: "2026-11-08T08:00", value: "1.41", keptBecause: "because" }, steady);
    expect(usual.keptBecause).toBe("");
  });
  test("warm oil explains more: the same value is expected at 70 °C", async () =>
    expect(await log({ takenAt: "2026-11-09T08:00", value: "2.4", temperature: "66" }, steady)).toMatchObject({
      ok: true,
    }));
});

describe("corrections", () => {
  test.each([
    ["no reason", { why: "" }, "2026-09-02T08:00"],
    ["a reason that says nothing", { why: "x" }, "2026-09-03T08:00"],
    ["a reason of a book's length", { why: "x".repeat(301) }, "2026-09-04T08:00"],
  ])("%s is refused", async (_what, change, takenAt) => {
    const old = await kept({ takenAt });
    const done = await correctReading(await pointPlace(plant.drain), old, readingForm(change), ENGINEER);
    expect(done).toMatchObject({ ok: false, problems: { why: expect.any(String) } });
    expect((await readingOf(plant.drain, old.id)).supersededAt).toBeNull();
  });
  test("the old one stays with who, when and why; the new one knows which it replaces and who took it", async () => {
    const old = await kept({ takenAt: "2026-08-01T08:00", value: "1.9" });
    const done = await correctReading(
      await pointPlace(plant.drain),
      old,
      readingForm({ takenAt: "2026-08-01T08:00", value: "1.39", why: "a nine for a three" }),
      ENGINEER,
    );
    if (!done.ok) throw new Error(JSON.stringify(done));
    expect(await readingOf(plant.drain, old.id)).toMatchObject({
      value: 1.9,
      supersededBy: ENGINEER.name,
      supersededWhy: "a nine for a three",
      supersededAt: new Date(NOW),
    });
    expect(await readingOf(plant.drain, done.readingId)).toMatchObject({
      value: 1.39,
      supersedesId: old.id,
      takenBy: TECHNICIAN.name,
    });
  });
  test("two people correct one: the second is told by whom", async () => {
    const old = await kept({ takenAt: "2026-08-02T08:00" });
    const place = await pointPlace(plant.drain);
    const correct = (value: string, by: typeof ENGINEER) =>
      correctReading(place, old, readingForm({ takenAt: "2026-08-02T08:00", value, why: "read wrongly" }), by);
    const answers = await Promise.all([correct("1.5", ENGINEER), correct("1.6", { ...ENGINEER, name: "L. Aske" })]);
    expect(answers.filter((a) => a.ok)).toHaveLength(1);
    const told = answers.find((a) => !a.ok);
    expect(told).toMatchObject({
      problems: { form: expect.stringMatching(/^(R\. Oduya|L\. Aske) has already corrected/) },
    });
  });
  test("withdrawn, it counts no more, and the point's newest moment goes back", async () => {
    const own = await add("point", pointForm(plant.pump, { name: "Case drain, withdrawn" }));
    await kept({ takenAt: "2026-08-01T08:00" }, own);
    const last = await kept({ takenAt: "2026-09-01T08:00" }, own);
    const done = await correctReading(
      await pointPlace(own),
      last,
      readingForm({ why: "another pump was read", intent: "withdraw" }),
      ENGINEER,
    );
    expect(done).toMatchObject({ ok: true });
    expect(await countOf(own)).toBe(1);
    const [row] = await db().select().from(points).where(eq(points.id, own));
    expect(row!.lastReadingAt!.toISOString()).toBe("2026-08-01T07:00:00.000Z");
    expect((await db().select().from(assessments).where(eq(assessments.pointId, own)))[0]!.readings).toBe(1);
  });
  test("a correction is checked as a reading is, and the old one stays where it is refused", async () => {
    const old = await kept({ takenAt: "2026-08-03T08:00" });
    const done = await correctReading(
      await pointPlace(plant.drain),
      old,
      readingForm({ takenAt: "2026-08-03T08:00", value: "bar", why: "typing" }),
      ENGINEER,
    );
    expect(done).toMatchObject({ ok: false, problems: { value: expect.any(String) } });
    expect((await readingOf(plant.drain, old.id)).supersededAt).toBeNull();
  });
});

describe("limits", () => {
  let point = "";
  const set = async (change: Record<string, string>) => {
    const place = await pointPlace(point);
    return setLimit(
      place,
      { basis: "absolute", upper: "6", lower: "", reason: "", version: String(place.point.version), ...change },
      ENGINEER,
    );
  };
  beforeAll(async () => {
    point = await add("point", pointForm(plant.pump, { name: "Case drain, limits" }));
  });
  test.each([
    ["no basis", { basis: "" }, "basis"],
    ["words", { upper: "high" }, "upper"],
    ["a pressure for a flow", { upper: "6 bar" }, "upper"],
    ["a share above the whole", { basis: "shareOfFullFlow", upper: "120" }, "upper"],
    ["a share of nothing", { basis: "shareOfFullFlow", upper: "0" }, "upper"],
    ["as new, once", { basis: "multipleOfNew", upper: "1" }, "upper"],
    ["a leakage that may not fall", { upper: "", lower: "1" }, "lower"],
    ["nothing", { upper: "", lower: "" }, "upper"],
    ["the upper one below the lower one", { upper: "2", lower: "3" }, "upper"],
  ])("%s is refused beside its field", async (_what, change, field) => {
    const done = await set(change);
    expect(Object.keys(done.ok ? {} : done.problems)).toEqual([field]);
  });
  test("typed in another unit it is kept in the core's", async () => {
    expect(await set({ upper: "2 gal/min" })).toEqual({ ok: true });
    expect((await pointPlace(point)).point.limitUpper).toBeCloseTo(7.570823568, 9);
  });
  test("who started from an older limit is shown theirs, and may set again on it", async () => {
    const stale = String((await pointPlace(point)).point.version);
    expect(await set({ upper: "5", reason: "manual, page 12" })).toEqual({ ok: true });
    const second = await set({ upper: "4", version: stale });
    expect(second).toMatchObject({ ok: false, theirs: { by: ENGINEER.name, upper: 5, at: NOW } });
    expect((await pointPlace(point)).point.limitUpper).toBe(5);
    const again = second.ok ? stale : String(second.theirs!.version);
    expect(await set({ upper: "4", version: again })).toEqual({ ok: true });
  });
  test("each change stands in the record with what was before", async () => {
    const noted = await db().select().from(changes).where(eq(changes.recordId, point));
    const limits = noted.filter((c) => c.what.startsWith("limit of"));
    expect(limits).toHaveLength(3);
    expect(limits.every((c) => c.by === ENGINEER.name)).toBe(true);
  });
  test("a share of full flow needs the component's displacement and speed", async () => {
    const bare = await add(
      "component",
      componentForm(plant.circuit, { name: "Unknown pump", displacement: "", speed: "" }),
    );
    point = await add("point", pointForm(bare));
    const done = await set({ basis: "shareOfFullFlow", upper: "10" });
    expect(done).toMatchObject({
      ok: false,
      problems: { upper: expect.stringContaining("displacement and the speed") },
    });
  });
});

describe("the point's page", () => {
  test("a meter that failed its last check is kept, and marked", async () => {
    const [meter] = await db()
      .insert(instruments)
      .values({ tag: "RM-1", name: "Meter", quantity: "caseDrainFlow", fullScale: 10, accuracyClass: 1 })
      .returning({ id: instruments.id });
    const failed = { kind: "check" as const, points: [], passed: false, by: TECHNICIAN.name };
    await db()
      .insert(instrumentChecks)
      .values({
        ...failed,
        instrumentId: meter!.id,
        at: new Date("2026-11-20T08:00:00Z"),
        submission: crypto.randomUUID(),
      });
    const before = await kept({ takenAt: "2026-11-19T08:00", instrumentId: meter!.id });
    expect(before.doubtful).toBe(false);
    const row = await kept({ takenAt: "2026-11-23T08:00", instrumentId: meter!.id });
    expect(row.doubtful).toBe(true);
    const page = await pointPage(plant.drain, 0);
    expect(page.table.find((r) => r.id === row.id)).toMatchObject({ instrument: "RM-1" });
  });
  test("pages of the table follow one another without a gap or a double", async () => {
    const [first, second] = [await pointPage(plant.drain, 0), await pointPage(plant.drain, 1)];
    const ids = [...first.table, ...second.table].map((r) => r.id);
    expect(new Set(ids).size).toBe(ids.length);
    const times = first.table.map((r) => r.at);
    expect(times).toEqual([...times].sort((a, b) => b - a));
  });
});
