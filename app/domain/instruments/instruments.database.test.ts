/** The register of instruments: what is refused, what two people do to one, when it is due, which one fits. */
import { eq } from "drizzle-orm";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { assessments, changes, instrumentChecks, instruments } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { logReading, pointPlace } from "~/domain/readings/index.server";
import { addPlant, ENGINEER, readingForm, TECHNICIAN, ZONE, type Plant } from "~/domain/testPlant";
import { closeQueue } from "~/platform/jobs.server";
import { monthsLater, recallInstrument, recordCheck, saveInstrument, withdrawRecall } from "./commands.server";
import { fitsOf, instrumentList, instrumentPage, instrumentRow } from "./queries.server";
import { Missing } from "~/platform/missing";

let plant: Plant;
let dropDatabase: () => Promise<void>;

const form = (change: Record<string, string> = {}): Record<string, string> => ({
  tag: "G-1",
  name: "Gauge",
  quantity: "pressure",
  principle: "gauge",
  fullScale: "400 bar",
  leastReading: "",
  accuracyClass: "0.6",
  viscosityLow: "",
  viscosityHigh: "",
  note: "",
  version: "1",
  ...change,
});
const refused = async (change: Record<string, string>) => {
  const done = await saveInstrument(null, form(change), ENGINEER, {});
  return done.ok ? {} : done.problems;
};
async function added(change: Record<string, string>) {
  const done = await saveInstrument(null, form(change), ENGINEER, {});
  if (!done.ok) throw new Error(JSON.stringify(done.problems));
  return instrumentRow(done.id);
}
const check = (change: Record<string, string> = {}): Record<string, string> => ({
  at: "2026-10-01T10:00",
  kind: "calibration",
  months: "12",
  points: "100 100.5\n200 201",
  certificate: "K-17",
  note: "",
  submission: crypto.randomUUID(),
  ...change,
});

beforeAll(async () => {
  dropDatabase = await ownDatabase("instruments");
  await migrateDatabase();
  plant = await addPlant("IN");
});
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await dropDatabase();
});

describe("the register", () => {
  test.each([
    ["no tag", { tag: "" }, "tag"],
    ["no name", { name: "" }, "name"],
    ["a full scale below zero", { fullScale: "-5 bar" }, "fullScale"],
    ["a full scale that is no pressure", { fullScale: "40 °C" }, "fullScale"],
    ["no full scale", { fullScale: "" }, "fullScale"],
    ["a class that is no number", { accuracyClass: "fine" }, "accuracyClass"],
    ["a principle that nobody knows", { principle: "magic" }, "principle"],
    ["one end of a range of viscosity", { viscosityLow: "10" }, "viscosityHigh"],
    ["the other end alone", { viscosityHigh: "10" }, "viscosityLow"],
    ["ends the wrong way round", { viscosityLow: "100", viscosityHigh: "10" }, "viscosityHigh"],
  ])("%s is refused beside its field", async (_what, change, field) => {
    expect(Object.keys(await refused({ tag: "G-X", ...change }))).toContain(field);
    expect(await db().select().from(instruments).where(eq(instruments.tag, "G-X"))).toEqual([]);
  });

  test("values are kept in the unit of the core, whatever unit was typed", async () => {
    const row = await added({ tag: "G-PSI", fullScale: "3000 psi" });
    expect(row.fullScale).toBeCloseTo(206.84, 2);
    const bare = await saveInstrument(null, form({ tag: "G-BARE", fullScale: "3000" }), ENGINEER, { pressure: "psi" });
    expect(bare.ok && (await instrumentRow(bare.id)).fullScale).toBeCloseTo(206.84, 2);
  });

  test("a tag is used once; who was second is told, and the first is as it was", async () => {
    const first = await added({ tag: "G-ONCE", name: "The first" });
    expect(await refused({ tag: "G-ONCE", name: "The second" })).toEqual({ tag: "Another instrument has this tag." });
    expect((await instrumentRow(first.id)).name).toBe("The first");
  });

  test("two people edit one: the second is told, and nothing of theirs is saved", async () => {
    const row = await added({ tag: "G-TWO" });
    const [mine, theirs] = [form({ tag: "G-TWO", name: "Mine" }), form({ tag: "G-TWO", name: "Theirs" })];
    expect(await saveInstrument(row, mine, ENGINEER, {})).toMatchObject({ ok: true });
    expect(await saveInstrument(row, theirs, TECHNICIAN, {})).toMatchObject({ ok: false, because: "conflict" });
    const now = await instrumentRow(row.id);
    expect(now).toMatchObject({ name: "Mine", version: 2 });
    // who did what stands in the record of changes, once for each change that was made
    const noted = await db().select().from(changes).where(eq(changes.recordId, row.id));
    expect(noted.map((c) => [c.what, c.by])).toEqual([
      ["instrument added", ENGINEER.name],
      ["instrument", ENGINEER.name],
    ]);
  });

  test("a retired one is on the list, last, and fits no point any more", async () => {
    const row = await added({ tag: "A-OLD", quantity: "caseDrainFlow", fullScale: "10 L/min" });
    const fitsBefore = await fitsOf(plant.drain);
    await saveInstrument(
      row,
      form({ ...form(), tag: "A-OLD", quantity: "caseDrainFlow", fullScale: "10 L/min", intent: "retire" }),
      ENGINEER,
      {},
    );
    expect((await instrumentRow(row.id)).retiredAt).not.toBeNull();
    expect((await instrumentList()).at(-1)!.tag).toBe("A-OLD");
    expect((await fitsOf(plant.drain)).others).toBeLessThanOrEqual(fitsBefore.others);
    expect((await fitsOf(plant.drain)).fits.map((f) => f.instrument.tag)).not.toContain("A-OLD");
  });
});

describe("checks and calibrations", () => {
  test.each([
    ["a day that does not exist", { at: "2026-02-30T10:00" }, "at"],
    ["tomorrow", { at: "2026-11-25T10:00" }, "at"],
    ["a line with one figure", { points: "100" }, "points"],
    ["a line that is no number", { points: "100 high" }, "points"],
    ["no line", { points: "" }, "points"],
    ["a calibration that is good for no time", { months: "0" }, "months"],
    ["or for two hundred months", { months: "200" }, "months"],
    ["a form without its id", { submission: "x" }, "form"],
  ])("%s is refused", async (_what, change, field) => {
    const row = await added({ tag: `C-${field}-${Math.random().toString(36).slice(2, 8)}` });
    const done = await recordCheck(row, check(change), TECHNICIAN, ZONE, {});
    expect(done).toMatchObject({ ok: false, problems: { [field]: expect.any(String) } });
    expect(await db().select().from(instrumentChecks).where(eq(instrumentChecks.instrumentId, row.id))).toEqual([]);
  });

  test("it passes up to its class of full scale, and not beyond: 0.6 % of 400 bar is 2.4", async () => {
    const row = await added({ tag: "C-EDGE" });
    const pass = (read: string) => recordCheck(row, check({ points: `0 0\n200 ${read}` }), TECHNICIAN, ZONE, {});
    expect(await pass("202.4")).toMatchObject({ passed: true });
    expect(await pass("202.41")).toMatchObject({ passed: false });
    expect(await pass("197.6")).toMatchObject({ passed: true });
  });

  test("figures are read in the person's own unit", async () => {
    const row = await added({ tag: "C-PSI" });
    // 14.5038 psi a bar: 2.4 bar are 34.8 psi
    expect(
      await recordCheck(row, check({ points: "0 0\n2900 2934" }), TECHNICIAN, ZONE, { pressure: "psi" }),
    ).toMatchObject({
      passed: true,
    });
    expect(
      await recordCheck(row, check({ points: "0 0\n2900 2936" }), TECHNICIAN, ZONE, { pressure: "psi" }),
    ).toMatchObject({
      passed: false,
    });
  });

  test("a check that passes renews no calibration; a calibration that fails neither", async () => {
    const row = await added({ tag: "C-DUE" });
    await recordCheck(row, check({ kind: "check" }), TECHNICIAN, ZONE, {});
    await recordCheck(row, check({ points: "0 0\n100 150" }), TECHNICIAN, ZONE, {});
    expect((await instrumentRow(row.id)).calibrationDueAt).toBeNull();
    expect((await instrumentPage(row.id)).due).toBe("never");
    await recordCheck(row, check(), TECHNICIAN, ZONE, {});
    expect((await instrumentRow(row.id)).calibrationDueAt!.toISOString()).toBe("2027-10-01T09:00:00.000Z");
  });

  test.each([
    ["2026-10-24T10:00", "1", "soon"],
    ["2026-09-01T10:00", "1", "out"],
    ["2026-10-24T10:00", "12", "good"],
  ])("calibrated on %s for %s months it is %s", async (at, months, due) => {
    const row = await added({ tag: `D-${due}` });
    // a month from 24 October ends an hour after the tests' clock
    await recordCheck(row, check({ at, months }), TECHNICIAN, ZONE, {});
    expect((await instrumentPage(row.id)).due).toBe(due);
  });

  test("months end on the last day where the next month is shorter, in the site's own zone", () => {
    const day = (at: number, months: number) => monthsLater(at, months, ZONE).toISOString();
    expect(day(Date.UTC(2026, 0, 31, 12), 1)).toBe("2026-02-28T12:00:00.000Z");
    expect(day(Date.UTC(2028, 0, 31, 12), 1)).toBe("2028-02-29T12:00:00.000Z");
    // from winter into summer time the hour on the wall stays
    expect(day(Date.UTC(2026, 0, 15, 12), 6)).toBe("2026-07-15T11:00:00.000Z");
  });
});

describe("a recall", () => {
  test("is refused without its period, its reason, or as an old form", async () => {
    const row = await added({ tag: "R-BAD" });
    const recall = {
      from: "2026-10-01T10:00",
      until: "2026-11-01T10:00",
      reason: "Dropped",
      submission: crypto.randomUUID(),
    };
    const problems = async (change: Record<string, string>) => {
      const done = await recallInstrument(row, { ...recall, ...change }, ENGINEER, ZONE);
      return done.ok ? [] : Object.keys(done.problems);
    };
    expect(await problems({ from: "yesterday" })).toEqual(["from"]);
    expect(await problems({ until: recall.from })).toEqual(["until"]);
    expect(await problems({ reason: " x " })).toEqual(["reason"]);
    expect(await problems({ submission: "" })).toEqual(["form"]);
    expect((await instrumentPage(row.id)).recalls).toEqual([]);
  });

  test("counts what it covers to the minute, both ends in, and another instrument's readings not", async () => {
    const [bad, good] = [
      await added({ tag: "R-BADM", quantity: "caseDrainFlow", fullScale: "20 L/min" }),
      await added({ tag: "R-GOODM", quantity: "caseDrainFlow", fullScale: "20 L/min" }),
    ];
    const place = await pointPlace(plant.drain);
    const read = async (takenAt: string, instrumentId: string) => {
      const done = await logReading(place, readingForm({ takenAt, instrumentId, keptBecause: "trial" }), TECHNICIAN);
      expect(done).toMatchObject({ ok: true });
    };
    await read("2026-11-01T10:00", bad.id);
    await read("2026-11-05T10:00", bad.id);
    await read("2026-11-09T10:00", bad.id);
    await read("2026-11-03T10:00", good.id);
    const recall = {
      from: "2026-11-01T10:00",
      until: "2026-11-05T10:00",
      reason: "Dropped",
      submission: crypto.randomUUID(),
    };
    expect(await recallInstrument(bad, recall, ENGINEER, ZONE)).toMatchObject({ ok: true });
    const page = await instrumentPage(bad.id);
    expect(page.recalls).toMatchObject([{ readings: 2, by: ENGINEER.name, withdrawnBy: null }]);
    expect(page).toMatchObject({ readings: 3, points: 1 });
    // the register counts each instrument's own
    const register = new Map((await instrumentList()).map((i) => [i.tag, i.readings]));
    expect([register.get("R-BADM"), register.get("R-GOODM"), register.get("G-PSI")]).toEqual([3, 1, 0]);
    expect(await withdrawRecall(good, { recall: page.recalls[0]!.id, why: "not mine" }, ENGINEER)).toMatchObject({
      ok: false,
      problems: { form: "There is no such recall of this instrument." },
    });
    expect(await withdrawRecall(bad, { recall: "nothing", why: "wrong id" }, ENGINEER)).toMatchObject({ ok: false });
  });

  test("a failed check puts in doubt from the last good one to itself", async () => {
    const row = await added({ tag: "R-DOUBT" });
    const at = async (day: string, points: string) =>
      recordCheck(row, check({ at: `${day}T10:00`, points }), TECHNICIAN, ZONE, {});
    await at("2026-06-01", "0 0\n200 200");
    await at("2026-08-01", "0 0\n200 201");
    await at("2026-10-01", "0 0\n200 220");
    const page = await instrumentPage(row.id);
    expect(page.failedUnrecalled).toBe(true);
    expect([page.inDoubt.from, page.inDoubt.until].map((t) => new Date(t!).toISOString().slice(0, 10))).toEqual([
      "2026-08-01",
      "2026-10-01",
    ]);
    await recallInstrument(
      row,
      {
        from: "2026-08-01T10:00",
        until: "2026-10-01T10:00",
        reason: "Failed its check",
        submission: crypto.randomUUID(),
      },
      ENGINEER,
      ZONE,
    );
    expect((await instrumentPage(row.id)).failedUnrecalled).toBe(false);
  });
});

describe("an accuracy that is put right", () => {
  test("has what it read judged again, and nothing where only its name was changed", async () => {
    const gauge = await added({ tag: "AC-1", quantity: "caseDrainFlow", fullScale: "20 L/min", accuracyClass: "1" });
    expect(
      await logReading(
        await pointPlace(plant.drain),
        readingForm({ takenAt: "2026-11-12T09:00", instrumentId: gauge.id, keptBecause: "trial" }),
        TECHNICIAN,
      ),
    ).toMatchObject({ ok: true });
    await db().update(assessments).set({ stale: false }).where(eq(assessments.pointId, plant.drain));
    const stale = async () =>
      (
        await db().select({ stale: assessments.stale }).from(assessments).where(eq(assessments.pointId, plant.drain))
      )[0]!.stale;
    const edit = (change: Record<string, string>, version: string) =>
      saveInstrument(
        gauge,
        form({ tag: "AC-1", quantity: "caseDrainFlow", fullScale: "20 L/min", accuracyClass: "1", version, ...change }),
        ENGINEER,
        {},
      );
    expect(await edit({ name: "Meter of the shop" }, "1")).toMatchObject({ ok: true });
    expect(await stale()).toBe(false);
    expect(await edit({ name: "Meter of the shop", accuracyClass: "5" }, "2")).toMatchObject({ ok: true });
    expect(await stale()).toBe(true);
  });
});

describe("which one fits a point", () => {
  test("without a reading nothing is known of what has to be read", async () => {
    const fresh = await addPlant("IN2");
    expect(await fitsOf(fresh.drain)).toMatchObject({ need: null, fits: [] });
  });
  test("those of another quantity are counted, not listed; the best come first", async () => {
    const found = await fitsOf(plant.drain);
    expect(found.need!.expected).toBeGreaterThan(1);
    expect(found.others).toBeGreaterThan(0);
    const rank = found.fits.map((f) => (f.fitness.preferred ? 0 : f.fitness.fit ? 1 : 2));
    expect(rank).toEqual([...rank].sort((a, b) => a - b));
  });
  test("a point that is not there is not found", async () =>
    expect(fitsOf(crypto.randomUUID())).rejects.toThrow(Missing));
});
