/** Rounds against a database: what is refused, who walks what, when a point is due, and what a tablet brings home. */
import fc from "fast-check";
import { eq, sql } from "drizzle-orm";
import { DAY, HOUR, readingInterval } from "@core";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { users } from "~/db/peopleTables";
import { changes, points, readings, roundPoints, roundSkips, rounds } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { intervalDays, roundJoins } from "~/domain/readings/due.server";
import { editRecord } from "~/domain/assets/commands.server";
import { recordOf } from "~/domain/assets/queries.server";
import { add, addPlant, componentForm, ENGINEER, pointForm, readingForm, type Plant } from "~/domain/testPlant";
import { hashPassword } from "~/platform/session.server";
import { closeQueue } from "~/platform/jobs.server";
import { saveRound } from "./commands.server";
import { outgoingOf } from "./outgoing";
import { choosablePoints, roundList, roundRow, stripsOf, walkPoints } from "./queries.server";
import { receive } from "./receive.server";

let plant: Plant;
let second = "";
let dropDatabase: () => Promise<void>;

const NOW = Date.parse(process.env.JUNCTERAL_NOW!);
const walker = { id: crypto.randomUUID(), name: "T. Wren", role: "technician" as const, units: {} };

const round = (change: Record<string, string> = {}): Record<string, string> => ({
  name: "Trial round",
  walkedBy: "",
  every: "week",
  days: "",
  hours: "",
  closer: "",
  version: "1",
  ...change,
});
async function added(change: Record<string, string> = {}, ids = [plant.drain, second]) {
  const saved = await saveRound(null, round(change), ids, ENGINEER);
  if (!saved.ok) throw new Error(JSON.stringify(saved.problems));
  return saved.id;
}

beforeAll(async () => {
  dropDatabase = await ownDatabase("rounds");
  await migrateDatabase();
  plant = await addPlant("RO");
  second = await add("point", pointForm(plant.pump, { name: "Case temperature", quantity: "temperature", unit: "°C" }));
  await db()
    .insert(users)
    .values({
      id: walker.id,
      name: walker.name,
      signIn: "walker",
      role: walker.role,
      passwordHash: await hashPassword("a long enough one"),
    });
});
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await dropDatabase();
});

describe("a round is refused", () => {
  test.each([
    ["without a name", { name: " " }, "name"],
    ["with a name of a book's length", { name: "x".repeat(101) }, "name"],
    ["without a rhythm", { every: "" }, "every"],
    ["every so many days, and none named", { every: "days" }, "days"],
    ["every half day", { every: "days", days: "0.5" }, "days"],
    ["every thousand and one days", { every: "days", days: "1001" }, "days"],
    ["by hours, and none named", { every: "hours" }, "hours"],
    ["by no hours", { every: "hours", hours: "0" }, "hours"],
    ["by hours in words", { every: "hours", hours: "many" }, "hours"],
  ])("%s", async (_how, change, field) => {
    const before = (await db().select().from(rounds)).length;
    const done = await saveRound(null, round(change), [plant.drain], ENGINEER);
    expect(Object.keys(done.ok ? {} : done.problems)).toEqual([field]);
    expect((await db().select().from(rounds)).length).toBe(before);
  });
  test.each([
    ["no point", []],
    ["what is no id", ["everything"]],
    ["a point that is gone", [crypto.randomUUID()]],
    ["more than a person walks", Array.from({ length: 501 }, () => crypto.randomUUID())],
  ])("with %s", async (_what, ids) => {
    expect(await saveRound(null, round(), ids, ENGINEER)).toMatchObject({
      ok: false,
      problems: { points: expect.any(String) },
    });
  });
  test("that is not there", async () =>
    expect(await saveRound(crypto.randomUUID(), round(), [plant.drain], ENGINEER)).toMatchObject({
      ok: false,
      because: "gone",
    }));
});

describe("a round", () => {
  test.each([
    ["week", {}, 7, null],
    ["month", {}, 30, null],
    ["days", { days: "12" }, 12, null],
    ["hours", { hours: "250" }, 30, 250],
  ])("every %s", async (every, change, days, hours) => {
    const id = await added({ every, ...change, name: `By ${every}` });
    expect(await roundRow(id)).toMatchObject({ intervalDays: days, intervalHours: hours });
  });
  test("keeps its order, and a point chosen twice once", async () => {
    const id = await added({}, [second, plant.drain, second]);
    expect((await walkPoints(id, {})).map((p) => p.id)).toEqual([second, plant.drain]);
    await saveRound(id, round({ version: "1" }), [plant.drain, second], ENGINEER);
    expect((await walkPoints(id, {})).map((p) => p.id)).toEqual([plant.drain, second]);
  });
  test("stands at the site of its first point", async () => {
    const other = await addPlant("RO2");
    expect((await roundRow(await added({}, [other.drain, plant.drain]))).siteId).toBe(other.site);
  });
  test("two who edit it at once: one is saved, one is told, and no point is lost", async () => {
    const id = await added();
    const answers = await Promise.all([
      saveRound(id, round({ name: "Mine", version: "1" }), [plant.drain], ENGINEER),
      saveRound(id, round({ name: "Theirs", version: "1" }), [plant.drain, second], ENGINEER),
    ]);
    expect(answers.map((a) => a.ok).sort()).toEqual([false, true]);
    expect(answers.find((a) => !a.ok)).toMatchObject({ because: "conflict" });
    const kept = await roundRow(id);
    const held = await db().select().from(roundPoints).where(eq(roundPoints.roundId, id));
    expect(held).toHaveLength(kept.name === "Mine" ? 1 : 2);
  });
  test("retired, it is walked no more and stands in the record of changes", async () => {
    const id = await added({ name: "To retire" });
    await saveRound(id, round({ name: "To retire", version: "1", intent: "retire" }), [plant.drain], ENGINEER);
    expect((await roundList()).map((r) => r.id)).not.toContain(id);
    const noted = await db().select().from(changes).where(eq(changes.recordId, id));
    expect(noted.map((c) => c.what).sort()).toEqual(["added round To retire", "retired round To retire"]);
  });
  test("a point that is retired is not walked, and comes back with it", async () => {
    const gone = await add("point", pointForm(plant.pump, { name: "Soon retired" }));
    const id = await added({}, [plant.drain, gone]);
    const edit = async (intent: string) => {
      const { version } = await recordOf("point", gone);
      expect(await editRecord("point", gone, { intent, version: String(version) }, ENGINEER)).toMatchObject({
        ok: true,
      });
    };
    await edit("retire");
    expect((await walkPoints(id, {})).map((p) => p.id)).toEqual([plant.drain]);
    expect((await choosablePoints(id)).map((p) => p.id)).not.toContain(gone);
    await edit("restore");
    expect((await walkPoints(id, {})).map((p) => p.id)).toEqual([plant.drain, gone]);
  });
  test("one that was never read is due today, and not late", async () => {
    const fresh = await add("point", pointForm(plant.pump, { name: "Never read" }));
    const id = await added({ name: "Fresh" }, [fresh]);
    expect((await roundList()).find((r) => r.id === id)).toMatchObject({ points: 1, due: 1, late: 0, dueAt: NOW });
    // a month on nobody has read it yet: the round's interval is over
    await db()
      .update(rounds)
      .set({ begunAt: new Date("2026-10-20T00:00:00Z") })
      .where(eq(rounds.id, id));
    await db()
      .update(roundPoints)
      .set({ addedAt: new Date("2026-10-20T00:00:00Z") })
      .where(eq(roundPoints.roundId, id));
    expect((await roundList()).find((r) => r.id === id)!.late).toBeGreaterThan(0);
    // a point that joins an old round is not late for the time before it did, and stays in it when the round is edited
    const joined = await add("point", pointForm(plant.pump, { name: "Joined later" }));
    const edited = async (ids: string[]) =>
      saveRound(id, round({ name: "Fresh", version: String((await roundRow(id)).version) }), ids, ENGINEER);
    expect(await edited([fresh, joined])).toMatchObject({ ok: true });
    expect((await roundList()).find((r) => r.id === id)).toMatchObject({ points: 2, late: 1 });
    expect(await edited([joined, fresh])).toMatchObject({ ok: true });
    expect((await roundList()).find((r) => r.id === id)).toMatchObject({ points: 2, late: 1 });
  });
  test("late is what was due on a day before today, not what was due this morning", async () => {
    const point = await add("point", pointForm(plant.pump, { name: "Due this morning", intervalDays: "30" }));
    const id = await added({ name: "Mornings" }, [point]);
    // a round that was just begun is late for nothing, however long ago its points were read
    await db()
      .update(points)
      .set({ lastReadingAt: new Date("2026-08-17T08:00:00Z") })
      .where(eq(points.id, point));
    expect((await roundList()).find((r) => r.id === id)!.late).toBe(0);
    await db()
      .update(rounds)
      .set({ begunAt: new Date("2026-09-01T00:00:00Z") })
      .where(eq(rounds.id, id));
    const lateAt = async (lastReading: string) => {
      await db()
        .update(points)
        .set({ lastReadingAt: new Date(lastReading) })
        .where(eq(points.id, point));
      return (await roundList()).find((r) => r.id === id)!.late;
    };
    // the tests' clock stands at 09:00 of 24 November, a week after the 17th
    expect(await lateAt("2026-11-17T08:00:00Z")).toBe(0);
    expect(await lateAt("2026-11-17T00:10:00Z")).toBe(0);
    expect(await lateAt("2026-11-16T23:50:00Z")).toBe(1);
  });
  test("what a walker needs: the reader's unit, the caution, whether conditions are asked for", async () => {
    const [drain, temperature] = await walkPoints(await added(), { flow: "gal/min" });
    expect(drain).toMatchObject({ unit: "gal/min", needsConditions: true, last: null, state: "unread" });
    expect(drain!.caution).toMatch(/Never plug a case drain/);
    expect(drain!.known.pumpedFlow).toBeGreaterThan(10);
    expect(temperature).toMatchObject({ needsConditions: false, isOilTemperature: false });
  });
  test("a recorded change of the hour meter is no jump for who walks", async () => {
    const id = await added();
    const before = { pointId: plant.drain, taken: "2026-11-10T08:00:00Z" };
    await db().execute(sql`insert into readings (point_id, life_id, taken_at, value, entered, hours, taken_by)
      select ${before.pointId}, l.id, ${before.taken}::timestamptz, 1, '1', 12000, 'T. Wren' from lives l
        join points p on p.component_id = l.component_id where p.id = ${before.pointId} and l.ended_at is null`);
    const shown = async () => (await walkPoints(id, {})).find((p) => p.id === plant.drain)!.last!.hours;
    expect(await shown()).toBe(12000);
    await db().execute(sql`insert into hour_meter_changes (machine_id, at, kind, before, after, by)
      select k.machine_id, '2026-11-12T08:00:00Z', 'replaced', 12010, 10, 'T. Wren' from circuits k where k.id = ${plant.circuit}`);
    // the meter that is in now would have shown nothing yet when the old one showed 12000
    expect(await shown()).toBe(0);
    await db().execute(sql`delete from hour_meter_changes`);
    await db().execute(sql`delete from readings where hours = 12000`);
  });
  test("strips: the components of each circuit in their order, retired ones not", async () => {
    const valve = await add(
      "component",
      componentForm(plant.circuit, { kind: "reliefValve", name: "Relief valve", position: "0" }),
    );
    expect((await stripsOf([plant.circuit, plant.circuit]))[plant.circuit]!.map((p) => p.id)).toEqual([
      valve,
      plant.pump,
    ]);
    expect(await stripsOf([])).toEqual({});
  });
});

describe("how often a point is read", () => {
  /** The expression of the database on given numbers, beside the function of the core. */
  async function ask(usual: number, p10: number | null, state: string, closer: boolean): Promise<number> {
    const id = await added({ every: "days", days: String(usual), closer: closer ? "on" : "", name: "Interval" }, [
      plant.drain,
    ]);
    await db().execute(sql`update points set interval_days = 3650 where id = ${plant.drain}`);
    await db().execute(
      sql`update assessments set state = ${state}, asks_again = false,
        p10 = ${p10 === null ? null : new Date(p10).toISOString()}::timestamptz where point_id = ${plant.drain}`,
    );
    const { rows } = await db().execute<{ days: string }>(
      sql`select ${intervalDays()} as days from ${roundJoins} where rp.round_id = ${id}`,
    );
    await saveRound(id, round({ version: "1", intent: "retire" }), [plant.drain], ENGINEER);
    return Number(rows[0]!.days);
  }
  test("the database and the core say the same, whatever the usual interval and the earliest crossing", async () => {
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 1, max: 400 }), fc.integer({ min: -100, max: 1500 }), async (usual, ahead) => {
        const p10 = NOW + ahead * DAY;
        expect(await ask(usual, p10, "drifting", true)).toBe(readingInterval(usual, p10, NOW));
      }),
      { numRuns: 15 },
    );
  });
  test("closer only where the round says so and the point is on its way to the limit", async () => {
    const soon = NOW + 60 * DAY;
    expect(await ask(30, soon, "drifting", false)).toBe(30);
    expect(await ask(30, soon, "steady", true)).toBe(30);
    expect(await ask(30, null, "drifting", true)).toBe(30);
    expect(await ask(30, soon, "alert", true)).toBe(10);
  });
});

describe("what a tablet sends", () => {
  let roundId = "";
  const base = () => ({
    submission: crypto.randomUUID(),
    roundId,
    pointId: plant.drain,
    at: NOW - 60_000,
    by: walker.id,
  });
  const reading = (fields: Record<string, string>, change: object = {}) => {
    const { submission: _own, ...typed } = readingForm(fields);
    return { kind: "reading" as const, ...base(), fields: typed, ...change };
  };
  beforeAll(async () => {
    roundId = await added({ name: "Sent" });
  });

  test.each([
    ["nothing", null],
    ["a text", "reading"],
    ["a kind that nobody knows", { kind: "dance" }],
    ["a kind of the language itself", { kind: "constructor" }],
    ["no id", { kind: "skip", submission: "x", roundId: "x", pointId: "x", at: NOW, reason: "" }],
    ["a moment of the last century", { kind: "move", ...({} as object), at: Date.UTC(1970, 0, 1) }],
  ])("%s is no entry", (_what, item) => {
    expect(outgoingOf(item)).toBeUndefined();
  });

  test("one that cannot be read does not hold up the others, each has its own fate in their order", async () => {
    const [good, bad] = [reading({ takenAt: "2026-11-01T08:00" }), { kind: "dance", submission: "abc" }];
    const fates = await receive(roundId, [bad, good, null], walker);
    expect(fates.map((f) => [f.submission, f.fate])).toEqual([
      ["abc", "refused"],
      [good.submission, "saved"],
      ["", "refused"],
    ]);
  });

  test("the person who took it is named, though another one sends it", async () => {
    const item = reading({ takenAt: "2026-11-02T08:00" });
    const sender = { ...walker, id: crypto.randomUUID(), name: "L. Aske" };
    expect(await receive(roundId, [item], sender)).toMatchObject([{ fate: "saved" }]);
    const [row] = await db().select().from(readings).where(eq(readings.submission, item.submission));
    expect(row).toMatchObject({ takenBy: "T. Wren", sentBy: "L. Aske" });
    // an unknown person is no person: the sender stands in
    const unknown = reading({ takenAt: "2026-11-03T08:00" }, { by: crypto.randomUUID() });
    await receive(roundId, [unknown], sender);
    const [own] = await db().select().from(readings).where(eq(readings.submission, unknown.submission));
    expect(own).toMatchObject({ takenBy: "L. Aske", sentBy: null });
  });

  test("the same list ten times, three at once, is each entry once", async () => {
    const items = [reading({ takenAt: "2026-11-04T08:00" }), reading({ takenAt: "2026-11-05T08:00" })];
    for (let i = 0; i < 4; i++)
      await Promise.all([
        receive(roundId, items, walker),
        receive(roundId, items, walker),
        receive(roundId, items, walker),
      ]);
    for (const { submission } of items)
      expect(await db().select().from(readings).where(eq(readings.submission, submission))).toHaveLength(1);
  });

  test("a moment that is taken is a conflict, with its field; nothing is written over", async () => {
    await receive(roundId, [reading({ takenAt: "2026-11-06T08:00", value: "1.41" })], walker);
    const [fate] = await receive(roundId, [reading({ takenAt: "2026-11-06T08:00", value: "1.45" })], walker);
    expect(fate).toMatchObject({ fate: "conflict", field: "takenAt", message: expect.stringContaining("1.41") });
  });

  test("a tablet whose clock runs ahead is told of its clock", async () =>
    expect(
      await receive(roundId, [{ kind: "skip", ...base(), at: NOW + HOUR, reason: "Guard" }], walker),
    ).toMatchObject([{ fate: "refused", field: "takenAt", message: expect.stringContaining("tablet's clock") }]));

  test("a skip keeps its reason, and one without a reason says so; a point that left the round is refused", async () => {
    const skip = (change: object) => ({ kind: "skip" as const, ...base(), reason: "  Guard locked  ", ...change });
    const [named, silent] = [skip({}), skip({ reason: "   " })];
    const stranger = skip({ pointId: (await addPlant("RO3")).drain });
    expect((await receive(roundId, [named, silent, stranger], walker)).map((f) => f.fate)).toEqual([
      "saved",
      "saved",
      "refused",
    ]);
    const kept = await db().select().from(roundSkips).where(eq(roundSkips.roundId, roundId));
    expect(kept.map((s) => s.reason).sort()).toEqual(["Guard locked", "no reason"]);
  });

  test.each([
    ["no picture", Buffer.from("<svg/>")],
    ["nothing", Buffer.alloc(0)],
  ])("a photograph of %s is refused in plain words", async (_what, content) => {
    const photo = {
      kind: "photo" as const,
      ...base(),
      reading: crypto.randomUUID(),
      mediaType: "image/png",
      base64: content.toString("base64"),
    };
    expect(await receive(roundId, [photo], walker)).toMatchObject([{ fate: "refused" }]);
  });

  test("a reading in the sender's units, where an older tablet left the number bare", async () => {
    const item = reading({ takenAt: "2026-11-07T08:00", value: "0.4", temperature: "122", pressure: "3000" });
    await receive(roundId, [item], { ...walker, units: { flow: "gal/min", temperature: "°F", pressure: "psi" } });
    const [row] = await db().select().from(readings).where(eq(readings.submission, item.submission));
    expect(row!.value).toBeCloseTo(1.514, 3);
    expect(row!.temperature).toBeCloseTo(50, 6);
    const [point] = await db().select().from(points).where(eq(points.id, plant.drain));
    expect(point!.unit).toBe("L/min");
  });
});
