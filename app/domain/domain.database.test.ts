/** Reads and writes against a real database: npm test gives each run one of its own. */
import sharp from "sharp";
import { DAY, HOUR } from "@core";
import { actorNamed } from "~/domain/access/testActor";
import { and, eq, isNotNull, like } from "drizzle-orm";
import { closeConnections, db, isDatabaseDown, migrateDatabase } from "~/db/client.server";
import {
  assessments,
  changes,
  circuits,
  componentMoves,
  components,
  fluids,
  forecastsIssued,
  interventions,
  peerEvidence,
  lives,
  machines,
  photos,
  points,
  readings,
  sites,
  testRecords,
} from "~/db/schema";
import { sessions, users } from "~/db/peopleTables";
import { addRecord, editRecord } from "./assets/commands.server";
import { recordMeterChange, withdrawMeterChange } from "./assets/hourMeter.server";
import { fleetList, machinePage } from "./assets/queries.server";
import {
  monthsLater,
  recallInstrument,
  recordCheck,
  saveInstrument,
  withdrawRecall,
} from "./instruments/commands.server";
import { fitsOf, instrumentList, instrumentPage, instrumentRow } from "./instruments/queries.server";
import { factsOf } from "./assets/facts.server";
import { saveRound } from "./rounds/commands.server";
import { receive } from "./rounds/receive.server";
import { choosablePoints, roundList, walkPoints } from "./rounds/queries.server";
import { addPlantTest, noteChange, putBack, recordTest } from "./checks/commands.server";
import {
  allTests,
  componentPlace,
  lastRecord,
  openChanges,
  recentRecords,
  recordPage,
  testOf,
} from "./checks/queries.server";
import { correctReading, setLimit } from "./readings/commands.server";
import { logReading } from "./readings/log.server";
import { pointPlace } from "./readings/place.server";
import { hoursQuestionOf } from "./readings/questions.server";
import { photoOf as pointPhoto, pointPage, readingOf } from "./readings/pointPage.server";
import { closeQueue } from "~/platform/jobs.server";
import { addFirstEngineer, hashPassword, signIn, userOf } from "~/platform/session.server";
import { assessPoint, assessPoints, assessStalePoints } from "./condition/assessment.server";
import { peersOf } from "./condition/peerEvidence.server";
import { pointSetups } from "./condition/setups.server";
import { exportFleet } from "./assets/fleetFile/export.server";
import { importFleet } from "./assets/fleetFile/import.server";
import { importRecord } from "~/platform/imports.server";
import { storeUpload } from "~/platform/uploads.server";
import { preview, runImport, saveMapping } from "./readings/csv/import.server";
import { namesOf, tieNames } from "./readings/csv/names.server";
import { storeReadings } from "./readings/csv/store.server";
import { undoImport } from "./readings/csv/undo.server";
import { fieldsOf } from "~/platform/validate";
import { sinceLastLook } from "./overview/changed.server";
import { find } from "./overview/shell.server";
import { needs, horizon, stateCounts, stopsAhead } from "./overview/today.server";
import { bookWork, changeWork, finishWork } from "./bookings/commands.server";
import { bookingContext } from "./bookings/context.server";
import { interventionPage } from "./bookings/page.server";
import { add, addPlant, componentForm, pointForm, readingForm as entry } from "./testPlant";
import { Missing } from "~/platform/missing";

if (!process.env.DATABASE_URL) throw new Error("These tests need a database: run them with npm test -- jest.");

const NOW = Date.parse(process.env.JUNCTERAL_NOW!);
const ids = { site: "", fluid: "", machine: "", circuit: "", component: "", point: "" };

/** A form as a browser sends it. */
function typed(fields: Record<string, string>): FormData {
  const form = new FormData();
  for (const [name, value] of Object.entries(fields)) form.set(name, value);
  return form;
}

beforeAll(async () => {
  await migrateDatabase();
  const { pump, drain, ...rest } = await addPlant();
  Object.assign(ids, rest, { component: pump, point: drain });
  await add("stop", { siteId: ids.site, name: "Winter stop", startsOn: "2027-01-18", days: "3", crewHours: "24" });
  const place = await pointPlace(ids.point);
  expect(
    await setLimit(
      place,
      { basis: "shareOfFullFlow", upper: "10", lower: "", reason: "", version: String(place.point.version) },
      actorNamed("R. Oduya"),
    ),
  ).toEqual({ ok: true });
  const [life] = await db().select().from(lives).where(eq(lives.componentId, ids.component));
  // four years of steadily rising case drain, as an import would bring them
  await storeReadings(
    Array.from({ length: 48 }, (_, i) => ({
      line: i,
      pointId: ids.point,
      lifeId: life!.id,
      takenAt: NOW - (49 - i) * 30 * DAY,
      value: 1.3 + i * 0.1 + (i % 3) * 0.02,
      least: null,
      entered: "x",
      temperature: 50,
      pressure: 210,
      speed: null,
      hours: 1000 + i * 270,
      instrumentId: null,
      note: "",
      by: "T. Wren",
    })),
    null,
  );
  await assessStalePoints();
});

afterAll(async () => {
  await closeQueue();
  await closeConnections();
});

test("migrating twice changes nothing", async () => {
  await migrateDatabase();
  expect(await db().select().from(sites)).toHaveLength(1);
});

describe("assessment", () => {
  test("what was imported is assessed, and the forecast is kept as issued", async () => {
    const [a] = await db().select().from(assessments).where(eq(assessments.pointId, ids.point));
    expect(a).toMatchObject({ readings: 48, stale: false });
    expect(["drifting", "alert", "alarm"]).toContain(a!.state);
    expect(a!.p10!.getTime()).toBeGreaterThan(NOW - 60 * DAY);
    expect(await db().select().from(forecastsIssued).where(eq(forecastsIssued.pointId, ids.point))).toHaveLength(1);
    await assessPoints([ids.point]);
    expect(await db().select().from(forecastsIssued).where(eq(forecastsIssued.pointId, ids.point))).toHaveLength(1);
  });
  test("a date that moves without a reading keeps why, until what moved it is taken back", async () => {
    const memory = async () =>
      (await db().select().from(assessments).where(eq(assessments.pointId, ids.point)))[0]!.detail!.memory;
    expect((await memory()).moved).toBeNull();
    const hoursPerDay = (await db().select().from(machines))[0]!.hoursPerDay;
    const limit = await db().select({ upper: points.limitUpper }).from(points).where(eq(points.id, ids.point));
    await db()
      .update(points)
      .set({ limitUpper: limit[0]!.upper! * 1.5 })
      .where(eq(points.id, ids.point));
    await assessPoints([ids.point]);
    expect((await memory()).moved).toMatchObject({ because: ["point"] });
    await db().update(points).set({ limitUpper: limit[0]!.upper }).where(eq(points.id, ids.point));
    await db()
      .update(machines)
      .set({ hoursPerDay: hoursPerDay * 2 });
    await assessPoints([ids.point]);
    expect((await memory()).moved).toMatchObject({ because: ["duty", "point"] });
    await db().update(machines).set({ hoursPerDay });
    await assessPoints([ids.point]);
  });
  test("Today, the horizon, the fleet and the find box show it", async () => {
    expect((await needs()).flatMap((n) => (n.kind === "point" ? n.point.pointId : []))).toContain(ids.point);
    expect((await horizon()).map((l) => l.label)).toContain("Trial hoist, pump");
    expect(Object.values(await stateCounts()).reduce((s, n) => s + n, 0)).toBe(1);
    expect((await stopsAhead()).next).toMatchObject({ name: "Winter stop", work: [] });
    expect((await fleetList(false))[0]).toMatchObject({ name: "Trial hoist", points: 1 });
    expect((await find("hoist case")).map((f) => f.to)).toEqual([`/points/${ids.point}`]);
    expect(await find("100%_\\")).toEqual([]);
    // what is called exactly so stands before what only holds the words
    await db()
      .insert(machines)
      .values([
        { siteId: ids.site, name: "Another trial hoist", tag: "AT-1" },
        { siteId: ids.site, name: "A trial hoist crane", tag: "AT-2" },
      ]);
    expect((await find("trial hoist"))[0]!.label).toBe("Trial hoist");
    const point = (await find("trial hoist case drain"))[0]!;
    expect(point).toMatchObject({ kind: "point", to: `/points/${ids.point}` });
    await db().delete(machines).where(like(machines.tag, "AT-%"));
    const page = await machinePage(ids.machine);
    expect(page.circuits[0]!.missing.map((m) => m.quantity)).toEqual(["pressure", "vacuum"]);
  });
});

test("what changed since a person last looked: once they had been away, and what was judged by another version is no news", async () => {
  const [person] = await db()
    .insert(users)
    .values({ name: "E. Marsh", signIn: "marsh", passwordHash: "none", role: "viewer" })
    .returning();
  const id = person!.id;
  const away = () =>
    db()
      .update(users)
      .set({ lookedAt: new Date(NOW - DAY) })
      .where(eq(users.id, id));
  const wasOther = async (change: { shape?: number } = {}) => {
    const [row] = await db().select().from(assessments).where(eq(assessments.pointId, ids.point));
    const state = row!.state === "steady" ? ("alert" as const) : ("steady" as const);
    await db()
      .update(assessments)
      .set({ state, stateSince: null, stateBefore: null, ...change })
      .where(eq(assessments.pointId, ids.point));
    await assessPoint(ids.point);
    return state;
  };
  await db().update(assessments).set({ stateSince: null, stateBefore: null });
  expect(await sinceLastLook(id)).toBeNull();
  await away();
  expect(await sinceLastLook(id)).toBeNull();
  const before = await wasOther();
  const changed = await sinceLastLook(id);
  expect(changed).toMatchObject({ since: NOW - DAY, states: 1, points: [{ pointId: ids.point, before }] });
  // the visit goes on: it is told again
  expect(await sinceLastLook(id)).toEqual(changed);
  await wasOther({ shape: 0 });
  expect(await sinceLastLook(id)).toBeNull();
  await db().delete(users).where(eq(users.id, id));
});

describe("readings", () => {
  test("an odd value is a question; with a reason it is kept; sent twice it is one", async () => {
    const place = await pointPlace(ids.point);
    const odd = entry({ value: "9" });
    expect(await logReading(place, odd, actorNamed("T. Wren"))).toMatchObject({
      ok: false,
      question: { kind: expect.any(String) },
    });
    const first = await logReading(place, { ...odd, keptBecause: "read twice" }, actorNamed("T. Wren"));
    const second = await logReading(place, { ...odd, keptBecause: "read twice" }, actorNamed("T. Wren"));
    expect(first).toEqual(second);
    expect(await logReading(place, entry({ keptBecause: "x" }), actorNamed("T. Wren"))).toMatchObject({
      ok: false,
      problems: { takenAt: expect.stringContaining("already a reading at that time") },
    });
  });
  test("a correction supersedes; the second to correct is told; a withdrawn one stays on record", async () => {
    const place = await pointPlace(ids.point);
    const old = (await pointPage(ids.point, 0)).table[0]!;
    const reading = await readingOf(ids.point, old.id);
    expect(await correctReading(place, reading, entry({ value: "5.2", why: "" }), actorNamed("T. Wren"))).toMatchObject(
      {
        ok: false,
        problems: { why: expect.any(String) },
      },
    );
    expect(
      await correctReading(place, reading, entry({ value: "5.2", why: "one digit off" }), actorNamed("T. Wren")),
    ).toMatchObject({ ok: true });
    expect(
      await correctReading(place, reading, entry({ value: "5.3", why: "me too" }), actorNamed("L. Aske")),
    ).toMatchObject({
      ok: false,
      problems: { form: expect.stringContaining("T. Wren has already corrected") },
    });
    const page = await pointPage(ids.point, 0);
    expect(page).toMatchObject({ superseded: 1, inLife: { count: 49, over: false } });
    const fresh = await readingOf(ids.point, page.table[0]!.id);
    expect(fresh).toMatchObject({ value: 5.2, supersedesId: reading.id, keptBecause: "" });
    expect(
      await correctReading(place, fresh, entry({ why: "wrong point", intent: "withdraw" }), actorNamed("T. Wren")),
    ).toMatchObject({ ok: true });
    expect(await pointPage(ids.point, 0)).toMatchObject({ superseded: 2, inLife: { count: 48, over: false } });
    // the second page is another query than the first, on whichever connection it comes
    const pages = await Promise.all(Array.from({ length: 12 }, (_, i) => pointPage(ids.point, i % 2)));
    for (const shown of pages) expect(shown.table).toHaveLength(24);
    const rows = [...pages[0]!.table, ...pages[1]!.table].map((r) => r.id);
    expect(new Set(rows).size).toBe(48);
  });
  test.each([
    [{ takenAt: "2027-01-01T10:00" }, "takenAt", /future/],
    [{ takenAt: "2019-01-01T10:00" }, "takenAt", /not fitted/],
    [{ state: "idle" }, "state", /never mixes/],
    [{ instrumentId: "x" }, "instrumentId", /from the list/],
    [{ temperature: "140" }, "temperature", /outside the possible range for oil, −40\.0 to 130/],
    [{ instrumentId: crypto.randomUUID() }, "instrumentId", /from the list/],
    [{ takenAt: "2026-02-30T10:00" }, "takenAt", /Write the date/],
  ] as const)("%p is refused beside its field", async (change, field, message) => {
    expect(
      await logReading(await pointPlace(ids.point), entry({ keptBecause: "x", ...change }), actorNamed("T. Wren")),
    ).toMatchObject({ ok: false, problems: { [field]: expect.stringMatching(message) } });
  });
});

describe("import", () => {
  const csv = `point,taken_at,value\nTH-1/Pump/Case drain,2021-09-01,1.3\nTH-1/Pump/Case drain,2021-10-01,1.31\nTH-1/Pump/Nothing,2021-10-01,1.31\n`;
  const mapping = (skipBad: boolean) => ({
    delimiter: ",",
    decimalMark: ".",
    hasHeader: true,
    dateOrder: "ymd",
    columns: { point: 0, takenAt: 1, value: 2 },
    units: {},
    pointId: "",
    skipBad,
  });
  test("all or nothing, and the same file again adds nothing", async () => {
    const id = await storeUpload("a.csv", Buffer.from(csv), "T. Wren");
    expect((await preview(await importRecord(id))).counts).toEqual({ add: 2, there: 0, bad: 1 });
    expect(await saveMapping(id, { ...mapping(false), columns: {} })).toMatchObject({
      "column-value": expect.any(String),
      "column-takenAt": expect.any(String),
      "column-point": expect.any(String),
    });
    expect(await saveMapping(id, mapping(false))).toBeNull();
    expect(await runImport(await importRecord(id))).toMatchObject({
      ok: false,
      message: expect.stringContaining("1 row is bad"),
    });
    await saveMapping(id, mapping(true));
    expect(await runImport(await importRecord(id))).toEqual({ ok: true, added: 2, there: 0 });
    const again = await storeUpload("a.csv", Buffer.from(csv), "T. Wren");
    await saveMapping(again, mapping(true));
    expect(await runImport(await importRecord(again))).toEqual({ ok: true, added: 0, there: 2 });
  });
  test("a name that is not known is tied to its point once, and the next file with it needs no more", async () => {
    const file = (day: string) => `machine,point,taken_at,value\nTH-1,KANAL_07,${day},1.33\nTH-1,KANAL_08,${day},7\n`;
    const columns = { machine: 0, point: 1, takenAt: 2, value: 3 };
    const first = await storeUpload("logger.csv", Buffer.from(file("2021-08-01")), "T. Wren");
    await saveMapping(first, { ...mapping(true), columns });
    const unknown = await preview(await importRecord(first));
    expect(unknown.names).toEqual([
      { key: "th-1/kanal_07", text: "TH-1, KANAL_07", rows: 1, code: null },
      { key: "th-1/kanal_08", text: "TH-1, KANAL_08", rows: 1, code: null },
    ]);
    expect(unknown.counts).toMatchObject({ add: 0, bad: 2 });
    const typed = (name0: string) =>
      namesOf({ "key-0": "th-1/kanal_07", "name-0": name0, "key-1": "th-1/kanal_08", "name-1": "" });
    expect(await tieNames(typed("TH-1/Pump/Nothing"), actorNamed("T. Wren"))).toEqual({
      "name-0": "There is no such point.",
    });
    expect(await tieNames(typed("th-1 / Pump / Case drain"), actorNamed("T. Wren"))).toBeNull();
    expect(await runImport(await importRecord(first))).toEqual({ ok: true, added: 1, there: 0 });
    const next = await storeUpload("logger.csv", Buffer.from(file("2021-08-02")), "T. Wren");
    await saveMapping(next, { ...mapping(true), columns });
    const known = await preview(await importRecord(next));
    expect(known.counts).toMatchObject({ add: 1, bad: 1 });
    expect(known.names.map((n) => n.code)).toEqual(["TH-1/Pump/Case drain", null]);
    // let go again: an empty field
    expect(await tieNames(typed(""), actorNamed("T. Wren"))).toBeNull();
    expect((await preview(await importRecord(next))).counts).toMatchObject({ add: 0, bad: 2 });
    expect(await undoImport(first, actorNamed("R. Oduya"))).toMatchObject({ ok: true });
  });
  test("rows from before a part was fitted begin its life where that is wanted; an import is taken back as a whole", async () => {
    const [fitted] = await db().select().from(lives).where(eq(lives.componentId, ids.component));
    const old = `machine,point,taken_at,value\nTH-1,Case drain,2016-09-01,1.2\nTH-1,Case drain,2016-10-01,1.21\n`;
    const columns = { machine: 0, point: 1, takenAt: 2, value: 3 };
    const id = await storeUpload("old.csv", Buffer.from(old), "T. Wren");
    await saveMapping(id, { ...mapping(false), columns });
    const refused = await preview(await importRecord(id));
    expect(refused.counts).toEqual({ add: 0, there: 0, bad: 2 });
    // the same fault in two rows is told once, with what to do
    expect(refused.faults).toEqual([
      expect.objectContaining({ count: 2, reason: expect.stringContaining("begin these lives") }),
    ]);
    await saveMapping(id, { ...mapping(false), columns, beginLives: true });
    expect(await runImport(await importRecord(id))).toMatchObject({ ok: true, added: 2 });
    const own = async () =>
      db()
        .select({ life: lives.startedAt, at: readings.takenAt, superseded: readings.supersededAt })
        .from(readings)
        .innerJoin(lives, eq(lives.id, readings.lifeId))
        .where(eq(readings.importId, id));
    expect((await own()).map((r) => r.life.toISOString().slice(0, 10))).toEqual(["2016-09-01", "2016-09-01"]);
    expect(await undoImport(id, actorNamed("R. Oduya"))).toMatchObject({ ok: true });
    expect((await own()).every((r) => r.superseded !== null)).toBe(true);
    expect(await undoImport(id, actorNamed("R. Oduya"))).toMatchObject({ ok: true });
    await db().update(lives).set({ startedAt: fitted!.startedAt }).where(eq(lives.id, fitted!.id));
  });
  test("a row that the database refuses takes all with it", async () => {
    const before = await db().select().from(readings);
    const [good] = before;
    const row = {
      line: 1,
      pointId: ids.point,
      lifeId: good!.lifeId,
      takenAt: NOW - 5 * DAY,
      value: 2,
      least: null,
      entered: "2",
      temperature: null,
      pressure: null,
      speed: null,
      hours: null,
      instrumentId: null,
      note: "tab\tand\\newline\n",
      by: "x",
    };
    await expect(
      storeReadings([row, { ...row, takenAt: NOW - 4 * DAY, pointId: crypto.randomUUID() }], null),
    ).rejects.toThrow(/foreign key/);
    expect(await db().select().from(readings)).toHaveLength(before.length);
    expect(await storeReadings([row], null)).toBe(1);
    const [kept] = await db()
      .select()
      .from(readings)
      .where(eq(readings.takenAt, new Date(row.takenAt)));
    expect(kept!.note).toBe("tab\tand\\newline\n");
  });
});

test("a limit on the wrong side of today's level is questioned, then set", async () => {
  const place = await pointPlace(ids.point);
  const before = { upper: "10", basis: "shareOfFullFlow" };
  const set = async (change: Record<string, string>) =>
    setLimit(
      place,
      { lower: "", reason: "", version: String((await pointPlace(ids.point)).point.version), ...before, ...change },
      actorNamed("R. Oduya"),
    );
  expect(await set({ upper: "5" })).toMatchObject({
    ok: false,
    problems: {},
    question: expect.stringMatching(/already beyond this limit of 3\.26/),
  });
  expect(await set({ upper: "5", beyond: "on" })).toEqual({ ok: true });
  const [a] = await db().select().from(assessments).where(eq(assessments.pointId, ids.point));
  expect(a!.state).toBe("alarm");
  expect(await set({})).toEqual({ ok: true });
});

describe("recalls", () => {
  test("cover what is corrected, and what arrives later; withdrawn, the readings count again", async () => {
    const saved = await saveInstrument(
      null,
      {
        tag: "R-1",
        name: "Recall meter",
        quantity: "caseDrainFlow",
        fullScale: "20 L/min",
        accuracyClass: "1",
        principle: "any",
        version: "1",
      },
      actorNamed("R. Oduya"),
      {},
    );
    if (!saved.ok) throw new Error(JSON.stringify(saved.problems));
    const place = await pointPlace(ids.point);
    const log = async (takenAt: string, value: string) => {
      const done = await logReading(
        place,
        entry({ takenAt, value, instrumentId: saved.id, keptBecause: "read twice" }),
        actorNamed("T. Wren"),
      );
      if (!done.ok) throw new Error(JSON.stringify(done));
      return done.readingId;
    };
    const first = await log("2026-11-10T10:00", "6.1");
    const instrument = await instrumentRow(saved.id);
    const recall = {
      from: "2026-11-01T00:00",
      until: "2026-11-20T00:00",
      reason: "Reads 12 % high",
      submission: crypto.randomUUID(),
    };
    // sent twice at once: one recall
    const [one, two] = await Promise.all(
      [1, 2].map(() => recallInstrument(instrument, recall, actorNamed("R. Oduya"), "Europe/London")),
    );
    expect(one).toEqual(two);
    await log("2026-11-12T10:00", "6.2");
    expect(
      await correctReading(
        place,
        await readingOf(ids.point, first),
        entry({
          takenAt: "2026-11-10T10:00",
          value: "6.1 L/min",
          note: "a note",
          instrumentId: saved.id,
          why: "note forgotten",
        }),
        actorNamed("T. Wren"),
      ),
    ).toMatchObject({ ok: true });
    const own = async () => (await pointPage(ids.point, 0)).table.filter((r) => r.instrument === "R-1");
    const marks = async () => (await own()).map((r) => r.mark);
    expect(await marks()).toEqual(["recalled", "recalled"]);
    const page = await instrumentPage(saved.id);
    expect(page.recalls).toMatchObject([{ readings: 2, withdrawnBy: null }]);
    expect(
      await withdrawRecall(instrument, { recall: page.recalls[0]!.id, why: "" }, actorNamed("R. Oduya")),
    ).toMatchObject({
      ok: false,
      problems: { why: expect.any(String) },
    });
    expect(
      await withdrawRecall(
        instrument,
        { recall: page.recalls[0]!.id, why: "The bench was wrong" },
        actorNamed("R. Oduya"),
      ),
    ).toMatchObject({ ok: true });
    expect(
      await withdrawRecall(
        instrument,
        { recall: page.recalls[0]!.id, why: "The bench was wrong" },
        actorNamed("L. Aske"),
      ),
    ).toMatchObject({ ok: false, problems: { form: expect.stringContaining("R. Oduya") } });
    expect(await marks()).not.toContain("recalled");
    for (const r of await own())
      await correctReading(
        place,
        await readingOf(ids.point, r.id),
        entry({ why: "end of the trial", intent: "withdraw" }),
        actorNamed("T. Wren"),
      );
  });
  test("a calibration that is entered late does not take the place of a newer one; six months after 31 August is 28 February", async () => {
    expect(
      monthsLater(Date.UTC(2025, 7, 31, 10), 6, "Europe/London")
        .toISOString()
        .slice(0, 10),
    ).toBe("2026-02-28");
    const saved = await saveInstrument(
      null,
      {
        tag: "C-1",
        name: "Gauge",
        quantity: "pressure",
        fullScale: "100 bar",
        accuracyClass: "1",
        principle: "any",
        version: "1",
      },
      actorNamed("R. Oduya"),
      {},
    );
    if (!saved.ok) throw new Error("not saved");
    const calibrate = async (at: string) =>
      recordCheck(
        await instrumentRow(saved.id),
        { kind: "calibration", at, points: "0 0\n50 50", months: "12", submission: crypto.randomUUID() },
        actorNamed("L. Aske"),
        "Europe/London",
        {},
      );
    await calibrate("2026-10-01T10:00");
    await calibrate("2026-02-01T10:00");
    expect((await instrumentRow(saved.id)).calibrationDueAt!.toISOString().slice(0, 10)).toBe("2027-10-01");
  });
});

describe("correcting", () => {
  test("a note leaves the value as it was typed, in its unit", async () => {
    const place = await pointPlace(ids.point);
    const done = await logReading(
      place,
      entry({ takenAt: "2026-11-22T10:00", value: "1.6 gal/min", keptBecause: "read twice" }),
      actorNamed("T. Wren"),
    );
    if (!done.ok) throw new Error(JSON.stringify(done));
    const old = await readingOf(ids.point, done.readingId);
    const corrected = await correctReading(
      place,
      old,
      entry({ takenAt: "2026-11-22T10:00", value: old.entered, temperature: "50", note: "warm", why: "note" }),
      actorNamed("T. Wren"),
    );
    if (!corrected.ok) throw new Error(JSON.stringify(corrected));
    const kept = await readingOf(ids.point, corrected.readingId);
    expect(kept).toMatchObject({ entered: "1.6 gal/min", value: old.value, note: "warm" });
    await correctReading(place, kept, entry({ why: "end of the trial", intent: "withdraw" }), actorNamed("T. Wren"));
  });
});

describe("running hours", () => {
  const asked = async (hours: number, at = NOW - DAY) =>
    hoursQuestionOf(db(), await pointPlace(ids.point), { at, hours });
  test("hours that run backwards or jump are questioned, not refused", async () => {
    expect(await asked(10)).toMatch(/runs backwards.*Was the meter replaced/);
    expect(await asked(136_900)).toMatch(/ten times/);
    expect(await asked(14_000)).toBeUndefined();
    const fields = entry({ value: "6.1", hours: "90", takenAt: "2026-11-21T10:40" });
    expect(await logReading(await pointPlace(ids.point), fields, actorNamed("T. Wren"))).toMatchObject({
      ok: false,
      question: { kind: "hours" },
    });
    expect(
      await logReading(await pointPlace(ids.point), { ...fields, keptBecause: "says so" }, actorNamed("T. Wren")),
    ).toMatchObject({ ok: true });
    const page = await pointPage(ids.point, 0);
    expect(page.table[0]).toMatchObject({ noted: 90 });
    // kept, and not believed: the axis goes on
    expect(page.last!.hours).toBeGreaterThan(13_600);
    const kept = await readingOf(ids.point, page.table[0]!.id);
    expect(
      await correctReading(
        await pointPlace(ids.point),
        kept,
        entry({ why: "no such hours", intent: "withdraw" }),
        actorNamed("T. Wren"),
      ),
    ).toMatchObject({ ok: true });
  });
  test("a replaced meter is recorded at the machine, once, and its hours go on; a wrong record is withdrawn", async () => {
    const change = {
      kind: "replaced",
      at: "2026-11-01T08:00",
      before: "13900",
      after: "0",
      note: "",
      submission: crypto.randomUUID(),
    };
    expect(
      await recordMeterChange(ids.machine, { ...change, after: "lots" }, actorNamed("R. Oduya"), "Europe/London"),
    ).toMatchObject({ ok: false, problems: { after: expect.any(String) } });
    expect(
      await recordMeterChange(
        ids.machine,
        { ...change, at: "2026-02-30T08:00" },
        actorNamed("R. Oduya"),
        "Europe/London",
      ),
    ).toMatchObject({ ok: false, problems: { at: expect.any(String) } });
    const saved = await recordMeterChange(ids.machine, change, actorNamed("R. Oduya"), "Europe/London");
    expect(saved).toMatchObject({ ok: true });
    expect(await recordMeterChange(ids.machine, change, actorNamed("R. Oduya"), "Europe/London")).toEqual(saved);
    expect(await asked(180)).toBeUndefined();
    expect(await asked(50_000)).toMatch(/^50.000.h is more than/);
    expect(await asked(14_000)).toMatch(/more than has passed/);
    expect((await machinePage(ids.machine)).meterChanges).toHaveLength(1);
    if (!saved.ok) throw new Error("not saved");
    expect(await withdrawMeterChange(ids.machine, { change: saved.id }, actorNamed("R. Oduya"))).toMatchObject({
      ok: true,
    });
    expect(await withdrawMeterChange(ids.machine, { change: saved.id }, actorNamed("L. Aske"))).toMatchObject({
      ok: false,
      problems: { form: expect.stringContaining("R. Oduya") },
    });
    expect(await asked(14_000)).toBeUndefined();
    await assessStalePoints();
  });
});

describe("work", () => {
  test("from booking to a new life, with the old one closed and its forecasts scored", async () => {
    const about = await bookingContext(null, ids.point);
    expect(about.stops[0]!.probability).not.toBeNull();
    const form = {
      componentId: ids.component,
      pointId: ids.point,
      kind: "replacement",
      stopId: about.stops[0]!.id,
      crewHours: "8",
      partOrderedOn: "",
      note: "worn",
      submission: crypto.randomUUID(),
    };
    const booked = await bookWork(form, actorNamed("R. Oduya"));
    expect(await bookWork(form, actorNamed("R. Oduya"))).toEqual(booked);
    expect(
      await bookWork({ ...form, submission: crypto.randomUUID(), stopId: crypto.randomUUID() }, actorNamed("R. Oduya")),
    ).toMatchObject({ ok: false, problems: { stopId: expect.any(String) } });
    if (!booked.ok) throw new Error("not booked");
    expect(
      await changeWork(booked.id, fieldsOf(typed({ intent: "order", version: "1" })), actorNamed("R. Oduya")),
    ).toMatchObject({
      ok: true,
    });
    expect(
      await changeWork(booked.id, { intent: "move", stopId: "", version: "1" }, actorNamed("R. Oduya")),
    ).toMatchObject({
      ok: false,
      because: "conflict",
    });
    const done = { doneAt: "2026-11-24T08:00", hours: "14000", serial: "", findings: "scored", version: "2" };
    expect(await finishWork(booked.id, "Europe/London", done, actorNamed("T. Wren"))).toMatchObject({
      ok: false,
      problems: { serial: expect.any(String) },
    });
    expect(
      await finishWork(booked.id, "Europe/London", { ...done, serial: "B2", hours: "12" }, actorNamed("T. Wren")),
    ).toMatchObject({ ok: false, problems: { hours: expect.stringContaining("backwards") } });
    expect(
      await finishWork(
        booked.id,
        "Europe/London",
        { ...done, serial: "B2", doneAt: "2027-11-24T08:00" },
        actorNamed("T. Wren"),
      ),
    ).toMatchObject({ ok: false, problems: { doneAt: expect.stringContaining("future") } });
    expect(await finishWork(booked.id, "Europe/London", { ...done, serial: "B2" }, actorNamed("T. Wren"))).toEqual({
      ok: true,
      id: booked.id,
    });
    expect(
      await finishWork(booked.id, "Europe/London", { ...done, serial: "B3" }, actorNamed("T. Wren")),
    ).toMatchObject({
      ok: false,
      because: "conflict",
    });
    const both = await db().select().from(lives).where(eq(lives.componentId, ids.component)).orderBy(lives.startedAt);
    expect(both.map((l) => [l.serial, l.endedAt === null])).toEqual([
      ["A1", false],
      ["B2", true],
    ]);
    const [issued] = await db().select().from(forecastsIssued).where(eq(forecastsIssued.lifeId, both[0]!.id));
    expect(issued).toMatchObject({ outcome: "replaced" });
    const [a] = await db().select().from(assessments).where(eq(assessments.pointId, ids.point));
    expect(a).toMatchObject({ readings: 0, state: "unread", lifeId: both[1]!.id });
    const page = await interventionPage(booked.id);
    expect(page.compared[0]).toMatchObject({ before: { readings: 1 }, after: null });
    expect(
      await logReading(
        await pointPlace(ids.point),
        entry({ takenAt: "2026-11-24T08:30", value: "1.35", hours: "14001" }),
        actorNamed("T. Wren"),
      ),
    ).toMatchObject({ ok: true });
    expect((await interventionPage(booked.id)).compared[0]!.after!.value).toBeCloseTo(1.35, 2);
    expect(await db().select().from(interventions)).toHaveLength(1);
  });

  test("a part that is gone still tells the next one how it wore; it is read again when its evidence is old", async () => {
    const evidence = () => db().select().from(peerEvidence).where(eq(peerEvidence.pointId, ids.point));
    const [old] = await db()
      .select()
      .from(lives)
      .where(and(eq(lives.componentId, ids.component), isNotNull(lives.endedAt)));
    const [setup] = await pointSetups(db()).where(eq(points.id, ids.point));
    const [kept] = (await evidence()).filter((l) => l.lifeId === old!.id);
    expect(kept!.evidence).toMatchObject({
      censored: false,
      noise: expect.any(Number),
      exponents: { a: expect.any(Number) },
    });
    // the crossing was at 6.5 L/min, about 50 readings of 270 h after new
    expect(kept!.evidence!.hours).toBeGreaterThan(11_000);
    expect(kept!.evidence!.hours).toBeLessThan(17_000);
    expect(kept!.evidence!.course!.length).toBeGreaterThan(10);
    expect(await peersOf(db(), setup!)).toHaveLength(1);
    // the life itself is not its own peer
    expect(await peersOf(db(), { ...setup!, lifeId: old!.id })).toHaveLength(
      (await evidence()).filter((l) => l.evidence !== null && l.lifeId !== old!.id).length,
    );

    await db()
      .update(peerEvidence)
      .set({ evidence: null, madeAt: new Date(NOW - HOUR) })
      .where(eq(peerEvidence.lifeId, old!.id));
    await assessPoint(ids.point, { ended: true });
    expect((await evidence()).find((l) => l.lifeId === old!.id)!.evidence).toBeNull();
    await db()
      .update(peerEvidence)
      .set({ madeAt: new Date(NOW - 2 * DAY) })
      .where(eq(peerEvidence.lifeId, old!.id));
    await assessPoint(ids.point, { ended: true });
    expect((await evidence()).find((l) => l.lifeId === old!.id)!.evidence!.hours).toBeCloseTo(
      kept!.evidence!.hours,
      -3,
    );
  });
});

describe("fleet register", () => {
  test("two people edit one machine: the second is told", async () => {
    const [machine] = await db().select().from(machines).where(eq(machines.id, ids.machine));
    const fields = {
      siteId: ids.site,
      name: "Trial hoist",
      tag: "TH-1",
      area: "Quay",
      hoursPerDay: "8",
      note: "",
      version: String(machine!.version),
    };
    expect(
      await editRecord("machine", ids.machine, { ...fields, note: "first" }, actorNamed("R. Oduya")),
    ).toMatchObject({
      ok: true,
    });
    expect(
      await editRecord("machine", ids.machine, { ...fields, note: "second" }, actorNamed("L. Aske")),
    ).toMatchObject({
      ok: false,
      because: "conflict",
      version: machine!.version + 1,
      problems: { form: expect.stringContaining("R. Oduya changed this record") },
    });
  });
  test("a tag is used once on a site", async () => {
    expect(
      await addRecord("machine", { siteId: ids.site, name: "Another", tag: "TH-1", hoursPerDay: "8" }, actorNamed("x")),
    ).toMatchObject({ ok: false, problems: { tag: expect.stringContaining("has that tag") } });
  });
  test("a changed fluid or stop makes what depends on it stale", async () => {
    const [fluid] = await db().select().from(fluids).where(eq(fluids.id, ids.fluid));
    await db().update(assessments).set({ stale: false });
    expect(
      await editRecord(
        "fluid",
        ids.fluid,
        { name: "Trial oil", kv40: "47", kv100: "6.8", density15: "875", version: String(fluid!.version) },
        actorNamed("x"),
      ),
    ).toMatchObject({ ok: true });
    expect((await db().select().from(assessments).where(eq(assessments.pointId, ids.point)))[0]!.stale).toBe(true);
  });
  test("goes out and comes in again without a change; what is new is added", async () => {
    const file = await exportFleet();
    expect(await importFleet(JSON.stringify(file), actorNamed("x"))).toMatchObject({ ok: true, added: {} });
    const copy = structuredClone(file);
    copy.sites[0]!.machines![0]!.tag = "TH-2";
    // what is said of the oil goes along
    const need = { least: 10, bestLow: 16, bestHigh: 36, greatestAtStart: 1000, types: ["mineral" as const] };
    copy.fluids!.push({
      name: "Rape ester",
      kv40: 46,
      kv100: 9,
      density15: 920,
      type: "ester",
      fresh: { zinc: 3, acidNumber: 1.2 },
    });
    Object.assign(copy.sites[0]!.machines![0]!.circuits![0]!, { fluid: "Rape ester", metalLimits: { iron: 18 } });
    copy.sites[0]!.machines![0]!.circuits![0]!.components![0]!.fluidNeed = need;
    expect(await importFleet(JSON.stringify(copy), actorNamed("x"))).toMatchObject({
      ok: true,
      added: { fluids: 1, machines: 1, circuits: 1, components: 1, points: 1 },
    });
    const again = await exportFleet();
    expect(again.fluids!.find((f) => f.name === "Rape ester")!.fresh).toEqual({ zinc: 3, acidNumber: 1.2 });
    const circuit = again.sites[0]!.machines!.find((m) => m.tag === "TH-2")!.circuits![0]!;
    expect(circuit).toMatchObject({ fluid: "Rape ester", metalLimits: { iron: 18 } });
    expect(circuit.components![0]!.fluidNeed).toEqual(need);
    const [{ length: pointCount }, { length: circuitCount }, { length: componentCount }] = await Promise.all([
      db().select().from(points),
      db().select().from(circuits),
      db().select().from(components),
    ]);
    expect([pointCount, circuitCount, componentCount]).toEqual([2, 2, 2]);
    copy.sites[0]!.machines![0]!.circuits![0]!.components![0]!.points![0]!.unit = "bar";
    expect(await importFleet(JSON.stringify(copy), actorNamed("x"))).toMatchObject({
      ok: false,
      messages: [expect.stringContaining("bar is not a unit of case drain flow")],
    });
    expect((await db().select().from(changes)).length).toBeGreaterThan(5);
  });
});

/** With the name of who took it in its file. */
const somePicture = () =>
  sharp({ create: { width: 40, height: 20, channels: 3, background: "#777" } })
    .jpeg()
    .withExif({ IFD0: { Artist: "Somebody" } })
    .toBuffer();

describe("sign-in", () => {
  test("an empty database gets its first engineer once", async () => {
    await expect(addFirstEngineer("Oduya", "short")).rejects.toThrow(/10 characters/);
    expect(await addFirstEngineer("Oduya", "a long enough one")).toBe(true);
    expect(await addFirstEngineer("Somebody", "a long enough one")).toBe(false);
    expect(await signIn("oduya", "a long enough one", "127.0.0.9", false)).toMatchObject({ ok: true });
  });
  test("a right password opens a session; a wrong one does not say which was wrong; tries are limited", async () => {
    await db()
      .insert(users)
      .values({ name: "K. Ferrin", signIn: "ferrin", role: "viewer", passwordHash: await hashPassword("open quay") });
    const good = await signIn("Ferrin", "open quay", "127.0.0.1", true);
    if (!good.ok) throw new Error("refused");
    expect(good.cookie).toMatch(/HttpOnly/);
    expect(good.cookie).toMatch(/Secure/);
    const user = await userOf(new Request("http://quay/", { headers: { Cookie: good.cookie.split(";")[0]! } }));
    expect(user).toMatchObject({ name: "K. Ferrin", role: "viewer" });
    expect(await userOf(new Request("http://quay/", { headers: { Cookie: "juncteral=forged" } }))).toBeUndefined();
    await db()
      .update(sessions)
      .set({ expiresAt: new Date(Date.now() - 60_000) })
      .where(eq(sessions.userId, user!.id));
    const later = new Request("http://quay/", { headers: { Cookie: good.cookie.split(";")[0]! } });
    expect(await userOf(later)).toBeUndefined();
    const wrong = await signIn("ferrin", "x", "10.0.0.1", false);
    expect(wrong).toEqual(await signIn("nobody", "x", "10.0.0.2", false));
    // tries are slowed down and not shut out: the right one gets in, later; of many at once few are tried
    for (let i = 0; i < 8; i++) await signIn("ferrin", "x", "10.0.0.3", false);
    const begun = Date.now();
    expect(await signIn("ferrin", "open quay", "10.0.0.3", false)).toMatchObject({ ok: true });
    expect(Date.now() - begun).toBeGreaterThan(3000);
    for (let i = 0; i < 8; i++) await signIn("ferrin", "x", "10.0.0.4", false);
    const burst = await Promise.all(Array.from({ length: 30 }, () => signIn("ferrin", "x", "10.0.0.4", false)));
    expect(burst.filter((r) => !r.ok && r.status === 429)).toHaveLength(27);
  });
  test("names that others tried from an address shut nobody there out", async () => {
    for (let i = 0; i < 60; i++) await signIn(`nobody-${i}`, "x", "10.0.0.5", false);
    expect(await signIn("ferrin", "open quay", "10.0.0.5", false)).toMatchObject({ ok: true });
  });
});

test("a database that is away is told from a wrong query", async () => {
  const wrong: unknown = await db()
    .execute("select nonsense")
    .catch((error: unknown) => error);
  expect(wrong).toBeInstanceOf(Error);
  expect(isDatabaseDown(wrong)).toBe(false);
  expect(isDatabaseDown({ cause: { code: "ECONNREFUSED" } })).toBe(true);
  expect(isDatabaseDown({ code: "42703" })).toBe(false);
});

describe("at the machine", () => {
  /** A second pump with a steady year behind it, for what comes after the first one was replaced. */
  const second = { component: "", point: "" };
  beforeAll(async () => {
    second.component = await add(
      "component",
      componentForm(ids.circuit, { name: "Second pump", position: "2", startedAt: "2025-08-01", serial: "B1" }),
    );
    second.point = await add("point", pointForm(second.component));
    const place = await pointPlace(second.point);
    await setLimit(
      place,
      { basis: "shareOfFullFlow", upper: "10", lower: "", reason: "", version: String(place.point.version) },
      actorNamed("R. Oduya"),
    );
    const [life] = await db().select().from(lives).where(eq(lives.componentId, second.component));
    await storeReadings(
      Array.from({ length: 14 }, (_, i) => ({
        line: i,
        pointId: second.point,
        lifeId: life!.id,
        takenAt: NOW - (15 - i) * 30 * DAY,
        value: 1.3 + (i % 3) * 0.01,
        least: null,
        entered: "x",
        temperature: 50,
        pressure: 210,
        speed: null,
        hours: 100 + i * 270,
        instrumentId: null,
        note: "",
        by: "T. Wren",
      })),
      null,
    );
    await assessStalePoints();
  });

  describe("rounds", () => {
    const user = { id: crypto.randomUUID(), name: "T. Wren", role: "technician" as const, units: {} };
    beforeAll(async () => {
      await db()
        .insert(users)
        .values({ id: user.id, name: user.name, signIn: "wren", role: user.role, passwordHash: "none" });
    });
    const fields = (change: Record<string, string>) => {
      const { submission: _s, ...rest } = entry(change);
      return rest;
    };
    let roundId = "";

    test("a round is saved in walking order; a second editor is told", async () => {
      expect(await saveRound(null, { name: "", every: "month" }, [], actorNamed("R. Oduya"))).toMatchObject({
        ok: false,
        problems: { name: expect.any(String), points: expect.any(String) },
      });
      expect(
        await saveRound(null, { name: "Trial", every: "days", days: "" }, [second.point], actorNamed("R. Oduya")),
      ).toMatchObject({ ok: false, problems: { days: expect.any(String) } });
      const saved = await saveRound(
        null,
        { name: "Trial", every: "week", closer: "on" },
        [second.point, second.point],
        actorNamed("R. Oduya"),
      );
      if (!saved.ok) throw new Error(JSON.stringify(saved.problems));
      roundId = saved.id;
      expect(await walkPoints(roundId, {})).toMatchObject([
        { id: second.point, machine: "Trial hoist", needsConditions: true, everyDays: 7 },
      ]);
      expect(
        await saveRound(
          roundId,
          { name: "Trial again", every: "hours", hours: "90", version: "1" },
          [second.point],
          actorNamed("R. Oduya"),
        ),
      ).toMatchObject({ ok: true });
      // 90 h at about 9 h a day
      expect((await walkPoints(roundId, {}))[0]!.everyDays).toBeLessThan(15);
      expect((await walkPoints(roundId, {}))[0]!.closer).toBe(false);
      expect(
        await saveRound(
          roundId,
          { name: "Trial third", every: "week", version: "1" },
          [second.point],
          actorNamed("R. Oduya"),
        ),
      ).toMatchObject({ ok: false, because: "conflict" });
      expect((await roundList()).find((r) => r.id === roundId)).toMatchObject({
        name: "Trial again",
        points: 1,
        intervalHours: 90,
        closer: 0,
      });
      expect((await choosablePoints(roundId)).find((c) => c.id === second.point)).toMatchObject({ chosen: 0 });
    });

    test("what a tablet sends twice is taken once; each entry has its own fate", async () => {
      const reading = {
        kind: "reading" as const,
        submission: crypto.randomUUID(),
        roundId,
        pointId: second.point,
        at: NOW,
        fields: fields({ takenAt: "2026-11-24T07:10", value: "1.32" }),
      };
      const skip = {
        kind: "skip" as const,
        submission: crypto.randomUUID(),
        roundId,
        pointId: second.point,
        at: NOW,
        reason: "Machine stands",
      };
      const photo = {
        kind: "photo" as const,
        submission: crypto.randomUUID(),
        roundId,
        pointId: second.point,
        at: NOW,
        reading: reading.submission,
        mediaType: "image/jpeg",
        base64: (await somePicture()).toString("base64"),
      };
      expect((await receive(roundId, [reading, skip, photo], user)).map((f) => f.fate)).toEqual([
        "saved",
        "saved",
        "saved",
      ]);
      expect((await receive(roundId, [reading, skip, photo], user)).map((f) => f.fate)).toEqual([
        "saved",
        "saved",
        "saved",
      ]);
      expect(await db().select().from(readings).where(eq(readings.submission, reading.submission))).toHaveLength(1);
      const kept = await db().select().from(photos).where(eq(photos.pointId, second.point));
      expect(kept).toHaveLength(1);
      expect((await pointPage(second.point, 0)).photos).toEqual([{ id: kept[0]!.id, at: NOW, by: user.name }]);
      // made anew: what came with the file is gone
      expect((await sharp((await pointPhoto(kept[0]!.id)).content).metadata()).exif).toBeUndefined();
      await expect(pointPhoto(crypto.randomUUID())).rejects.toThrow(Missing);
      const { componentId } = (await db().select().from(points).where(eq(points.id, second.point)))[0]!;
      const { fields: _typed, ...at } = reading;
      const move = { ...at, kind: "move", submission: crypto.randomUUID(), componentId };
      const gone = { ...move, submission: crypto.randomUUID(), componentId: crypto.randomUUID() };
      const moves = (await receive(roundId, [move, move, gone], user)).map((f) => f.fate);
      expect(moves).toEqual(["saved", "saved", "refused"]);
      const noted = await db().select().from(componentMoves).where(eq(componentMoves.componentId, componentId));
      expect(noted).toEqual([expect.objectContaining({ by: user.name, note: "on a round" })]);
      const odd = {
        ...reading,
        submission: crypto.randomUUID(),
        fields: fields({ takenAt: "2026-11-24T07:20", value: "60" }),
      };
      expect((await receive(roundId, [odd], user))[0]).toMatchObject({ fate: "saved" });
      expect(
        (await db().select().from(readings).where(eq(readings.submission, odd.submission)))[0]!.keptBecause,
      ).toContain("not questioned on the tablet");
      const bad = [
        { ...reading, submission: "x" },
        { ...reading, submission: crypto.randomUUID() },
        { ...reading, submission: crypto.randomUUID(), fields: fields({ takenAt: "2026-11-24T07:30", value: "" }) },
        { ...reading, submission: crypto.randomUUID(), pointId: crypto.randomUUID() },
        { ...photo, submission: crypto.randomUUID(), base64: Buffer.from("<html>no picture").toString("base64") },
        { ...skip, submission: crypto.randomUUID(), pointId: crypto.randomUUID() },
      ];
      expect((await receive(roundId, bad, user)).map((f) => f.fate)).toEqual([
        "refused",
        "conflict",
        "refused",
        "refused",
        "refused",
        "refused",
      ]);
    });
  });

  describe("instruments", () => {
    test("registered, checked, fitted to a point, and recalled in one step", async () => {
      const form = {
        tag: "X-1",
        name: "Trial meter",
        quantity: "caseDrainFlow",
        principle: "turbine",
        fullScale: "10",
        accuracyClass: "1",
        leastReading: "",
        viscosityLow: "5",
        viscosityHigh: "100",
        note: "",
      };
      expect(
        await saveInstrument(null, { ...form, fullScale: "0", viscosityHigh: "" }, actorNamed("R. Oduya"), {}),
      ).toMatchObject({
        ok: false,
        problems: { viscosityHigh: expect.any(String) },
      });
      const added = await saveInstrument(null, form, actorNamed("R. Oduya"), {});
      if (!added.ok) throw new Error(JSON.stringify(added.problems));
      expect(await saveInstrument(null, form, actorNamed("R. Oduya"), {})).toMatchObject({
        ok: false,
        problems: { tag: expect.stringContaining("Another") },
      });
      const row = await instrumentRow(added.id);
      expect(
        await saveInstrument(row, { ...form, name: "Trial meter 2", version: "9" }, actorNamed("R. Oduya"), {}),
      ).toMatchObject({ ok: false, because: "conflict" });
      expect(
        await recordCheck(
          row,
          { at: "2026-06-01T10:00", kind: "check", points: "0", submission: crypto.randomUUID() },
          actorNamed("L. Aske"),
          "Europe/London",
          {},
        ),
      ).toMatchObject({ ok: false, problems: { points: expect.any(String) } });
      const check = {
        at: "2026-06-01T10:00",
        kind: "calibration",
        months: "12",
        points: "1 1.05\n9 8.95",
        submission: crypto.randomUUID(),
      };
      expect(await recordCheck(row, check, actorNamed("L. Aske"), "Europe/London", {})).toMatchObject({
        ok: true,
        passed: true,
      });
      expect(await recordCheck(row, check, actorNamed("L. Aske"), "Europe/London", {})).toMatchObject({
        ok: true,
        passed: true,
      });
      expect(
        await recordCheck(
          row,
          { ...check, kind: "check", at: "2026-10-01T10:00", points: "1 1.2\n9 10.1", submission: crypto.randomUUID() },
          actorNamed("L. Aske"),
          "Europe/London",
          {},
        ),
      ).toMatchObject({ ok: true, passed: false });
      const page = await instrumentPage(added.id);
      expect(page).toMatchObject({
        failedUnrecalled: true,
        due: "good",
        checks: [{ passed: false }, { passed: true }],
      });
      expect(page.inDoubt.from).toBe(Date.UTC(2026, 5, 1, 9));
      const fits = await fitsOf(second.point);
      expect(fits.fits.find((f) => f.instrument.tag === "X-1")!.fitness.reasons.filter((r) => r.must)).toEqual([]);
      expect((await instrumentList()).map((i) => i.tag)).toContain("X-1");

      await db().update(readings).set({ instrumentId: added.id }).where(eq(readings.pointId, second.point));
      expect(
        await recallInstrument(
          row,
          { from: "2026-06-01T10:00", until: "2026-05-01T10:00", reason: "", submission: crypto.randomUUID() },
          actorNamed("R. Oduya"),
          "Europe/London",
        ),
      ).toMatchObject({ ok: false, problems: { until: expect.any(String), reason: expect.any(String) } });
      const recall = {
        from: "2026-06-01T10:00",
        until: "2026-10-01T10:00",
        reason: "Reads 12 % high",
        submission: crypto.randomUUID(),
      };
      expect(await recallInstrument(row, recall, actorNamed("R. Oduya"), "Europe/London")).toMatchObject({ ok: true });
      expect(await recallInstrument(row, recall, actorNamed("R. Oduya"), "Europe/London")).toMatchObject({ ok: true });
      const [done] = (await instrumentPage(added.id)).recalls;
      expect(done!.readings).toBeGreaterThan(2);
      const marks = Object.values((await pointPage(second.point, 0)).detail!.marks);
      expect(marks.filter((m) => m === "recalled")).toHaveLength(done!.readings);
      // it failed its last check: what it reads now is kept and weighted down
      const after = await logReading(
        await pointPlace(second.point),
        entry({ takenAt: "2026-11-24T08:20", value: "1.31", instrumentId: added.id, keptBecause: "seen" }),
        actorNamed("T. Wren"),
      );
      if (!after.ok) throw new Error(JSON.stringify(after));
      expect((await readingOf(second.point, after.readingId)).doubtful).toBe(true);
    });
  });

  describe("tests at the machine", () => {
    test("kept with what they said, compared with last time; work is not signed off while something is altered", async () => {
      const place = await componentPlace(second.component);
      const { check } = await testOf("shut-in");
      const typed = { pressure: "205", low: "195", high: "215", seconds: "12" };
      expect(
        await recordTest(
          check,
          place,
          { ...typed, pressure: "", submission: crypto.randomUUID() },
          actorNamed("T. Wren"),
          {},
        ),
      ).toMatchObject({ ok: false, problems: { pressure: expect.any(String) } });
      const form = { ...typed, note: "", submission: crypto.randomUUID() };
      const kept = await recordTest(check, place, form, actorNamed("T. Wren"), {});
      expect(await recordTest(check, place, form, actorNamed("T. Wren"), {})).toEqual(kept);
      await db()
        .update(testRecords)
        .set({ at: new Date(NOW - DAY) });
      const again = await recordTest(
        check,
        place,
        { ...typed, pressure: "2000 psi", submission: crypto.randomUUID() },
        actorNamed("T. Wren"),
        { pressure: "psi" },
      );
      if (!again.ok) throw new Error("not kept");
      const page = await recordPage(again.id);
      expect(page.typed).toMatchObject({ pressure: "2000 psi", low: "195 psi" });
      expect(page.before).not.toBeNull();
      expect(await lastRecord(second.component, "shut-in")).toMatchObject({ id: again.id });
      expect(await recentRecords()).toHaveLength(2);

      expect(
        await noteChange(place, { altered: "x", submission: crypto.randomUUID() }, actorNamed("T. Wren")),
      ).toMatchObject({
        ok: false,
      });
      const noted = { altered: "Compensator turned up", asItStood: "210 bar", submission: crypto.randomUUID() };
      await noteChange(place, noted, actorNamed("T. Wren"));
      await noteChange(place, noted, actorNamed("T. Wren"));
      const open = await openChanges(place.machineId);
      expect(open).toMatchObject([{ what: "Compensator turned up", before: "210 bar" }]);
      expect((await machinePage(place.machineId)).altered).toHaveLength(1);
      const booked = await bookWork(
        {
          componentId: second.component,
          pointId: second.point,
          kind: "inspection",
          stopId: "",
          crewHours: "4",
          partOrderedOn: "",
          note: "",
          submission: crypto.randomUUID(),
        },
        actorNamed("R. Oduya"),
      );
      if (!booked.ok) throw new Error(JSON.stringify(booked.problems));
      const done = {
        doneAt: "2026-11-24T08:00",
        hours: "20000",
        hoursRight: "on",
        serial: "",
        findings: "Seen.",
        version: "1",
      };
      expect(await finishWork(booked.id, "Europe/London", done, actorNamed("L. Aske"))).toMatchObject({
        ok: false,
        problems: { form: expect.stringContaining("Compensator turned up") },
      });
      await putBack(open[0]!.id, actorNamed("T. Wren"));
      expect(await openChanges()).toEqual([]);
      expect(await finishWork(booked.id, "Europe/London", done, actorNamed("L. Aske"))).toMatchObject({ ok: true });
    });

    test("a plant's own test is added, listed and made", async () => {
      const own = {
        title: "Latch",
        asks: "Does it let go?",
        before: "Shut",
        caution: "Stand clear of it.",
        steps: "",
        alters: "",
        readings: "Latch; pressure; 40 bar; 60 bar",
      };
      expect(
        await addPlantTest(
          { ...own, asks: "no question", caution: "", readings: "Latch; furlong; ; " },
          [],
          actorNamed("R. Oduya"),
        ),
      ).toMatchObject({
        ok: false,
        problems: {
          asks: expect.any(String),
          caution: expect.any(String),
          kinds: expect.any(String),
          readings: expect.stringContaining("furlong"),
        },
      });
      expect(
        await addPlantTest(
          { ...own, readings: "Latch; pressure; 60 bar; 40 bar" },
          ["cylinder"],
          actorNamed("R. Oduya"),
        ),
      ).toMatchObject({ ok: false, problems: { readings: expect.stringContaining("upper bound") } });
      const added = await addPlantTest(own, ["cylinder"], actorNamed("R. Oduya"));
      if (!added.ok) throw new Error("not added");
      expect((await allTests()).find((t) => t.id === added.id)).toMatchObject({ own: true, title: "Latch" });
      expect((await testOf(added.id)).check.title).toBe("Latch");
    });
  });

  test("a calculation takes its facts from the fleet", async () => {
    expect(await factsOf(second.component)).toMatchObject({
      name: expect.stringContaining("Second pump"),
      facts: { displacement: 45, speed: 1450, kv40: expect.any(Number), referencePressure: 210 },
    });
  });
});
