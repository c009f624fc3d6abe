/** The fleet register against a database: each kind added, edited, retired and brought back; what a change makes stale. */
import { DAY } from "@core";
import { eq, isNull } from "drizzle-orm";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { assessments, changes, components, lives, machines, points, readings } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { add, addPlant, componentForm, ENGINEER, pointForm, ZONE, type Plant } from "~/domain/testPlant";
import { closeQueue } from "~/platform/jobs.server";
import { addRecord, editRecord } from "./commands.server";
import type { RecordKind } from "./form";
import { recordMeterChange, withdrawMeterChange } from "./hourMeter.server";
import { areaList, choices, fleetList, machinePage, machinePlace, recordOf } from "./queries.server";
import { Missing } from "~/platform/missing";

let plant: Plant;
let dropDatabase: () => Promise<void>;
const NOW = Date.parse(process.env.JUNCTERAL_NOW!);

const forms = (): Record<RecordKind, Record<string, string>> => ({
  site: { name: "Another quay", timeZone: ZONE },
  machine: {
    siteId: plant.site,
    name: "Winch",
    tag: "W-1",
    area: "Slip",
    hoursPerDay: "6",
    dutyDeviation: "",
    note: "",
  },
  circuit: {
    machineId: plant.machine,
    name: "Slewing",
    fluidId: plant.fluid,
    workingPressure: "180 bar",
    volume: "120",
  },
  component: componentForm(plant.circuit, { name: "Slewing pump" }),
  point: pointForm(plant.pump, {
    name: "Case pressure",
    quantity: "pressure",
    unit: "bar",
    referencePressure: "",
    referenceTemperature: "",
  }),
  fluid: { name: "Oil 32", kv40: "32", kv100: "5.4", density15: "870" },
  stop: { siteId: plant.site, name: "Spring stop", startsOn: "2027-04-12", days: "2", crewHours: "16" },
});
const kinds: RecordKind[] = ["site", "machine", "circuit", "component", "point", "fluid", "stop"];

const edit = async (kind: RecordKind, id: string, fields: Record<string, string>) =>
  editRecord(kind, id, { version: String((await recordOf(kind, id)).version), ...fields }, ENGINEER);
const staleOf = async (point: string) =>
  (await db().select({ stale: assessments.stale }).from(assessments).where(eq(assessments.pointId, point)))[0]!.stale;

beforeAll(async () => {
  dropDatabase = await ownDatabase("assets");
  await migrateDatabase();
  plant = await addPlant("AS");
});
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await dropDatabase();
});

describe.each(kinds)("a %s", (kind) => {
  let id = "";
  test("is added, with who did it", async () => {
    id = await add(kind, forms()[kind]);
    expect(await recordOf(kind, id)).toMatchObject({ name: forms()[kind].name, version: 1, retiredAt: null });
    const [noted] = await db().select().from(changes).where(eq(changes.recordId, id));
    expect(noted).toMatchObject({ by: ENGINEER.name, what: expect.stringMatching(/^added /) });
  });
  test("has a name of one to a hundred characters", async () => {
    for (const name of ["", "   ", "x".repeat(101)])
      expect(await addRecord(kind, { ...forms()[kind], name }, ENGINEER)).toMatchObject({
        ok: false,
        problems: { name: expect.any(String) },
      });
  });
  test("is renamed; an older form is told, and changes nothing", async () => {
    expect(await edit(kind, id, { ...forms()[kind], name: "Renamed" })).toEqual({ ok: true, id });
    expect(await editRecord(kind, id, { ...forms()[kind], name: "Old form", version: "1" }, ENGINEER)).toMatchObject({
      ok: false,
      because: "conflict",
      version: 2,
      problems: { form: expect.stringContaining(`${ENGINEER.name} changed this record`) },
    });
    expect(await recordOf(kind, id)).toMatchObject({ name: "Renamed", version: 2 });
  });
  test("is retired and brought back by the domain's clock; nothing is deleted", async () => {
    expect(await edit(kind, id, { intent: "retire" })).toMatchObject({ ok: true });
    expect((await recordOf(kind, id)).retiredAt).toEqual(new Date(NOW));
    expect(await edit(kind, id, { intent: "restore" })).toMatchObject({ ok: true });
    expect((await recordOf(kind, id)).retiredAt).toBeNull();
    const noted = await db().select({ what: changes.what }).from(changes).where(eq(changes.recordId, id));
    expect(noted.map((c) => c.what.split(" ")[0]).sort()).toEqual(["added", "brought", "edited", "retired"]);
    await edit(kind, id, { intent: "retire" });
  });
  test("that is not there is told so", async () => {
    expect(await editRecord(kind, crypto.randomUUID(), { ...forms()[kind], version: "1" }, ENGINEER)).toMatchObject({
      ok: false,
      because: "gone",
    });
  });
});

describe("what cannot be", () => {
  const refused = async (kind: RecordKind, change: Record<string, string>) => {
    const done = await addRecord(kind, { ...forms()[kind], ...change }, ENGINEER);
    return done.ok ? [] : Object.keys(done.problems).sort();
  };
  test.each<[RecordKind, string, Record<string, string>, string]>([
    ["site", "a zone that is nowhere", { timeZone: "Mars/Base" }, "timeZone"],
    ["machine", "a day of 25 hours", { hoursPerDay: "25" }, "hoursPerDay"],
    ["machine", "a duty that is off by itself thrice", { dutyDeviation: "3" }, "dutyDeviation"],
    ["machine", "no tag", { tag: " " }, "tag"],
    ["circuit", "a working pressure that is a temperature", { workingPressure: "40 °C" }, "workingPressure"],
    ["circuit", "a fluid that is no id", { fluidId: "VG 46" }, "fluidId"],
    ["component", "a kind that nobody knows", { kind: "teapot" }, "kind"],
    ["component", "half a spare", { sparesOnHand: "0.5" }, "sparesOnHand"],
    ["component", "a part of minus one", { partCost: "-1" }, "partCost"],
    ["component", "a start of tomorrow", { startedAt: "2026-11-25" }, "startedAt"],
    ["component", "a start that is no day", { startedAt: "2026-02-30" }, "startedAt"],
    ["point", "a unit of something else", { unit: "L/min" }, "unit"],
    ["point", "an interval of ten years and a day", { intervalDays: "3651" }, "intervalDays"],
    ["point", "a state that nobody knows", { state: "dancing" }, "state"],
    ["fluid", "thinner cold than hot", { kv40: "5", kv100: "6" }, "kv40"],
    ["fluid", "too thin for the method", { kv100: "0.2" }, "kv100"],
    ["fluid", "no viscosity", { kv40: "" }, "kv40"],
    ["stop", "a day that does not exist", { startsOn: "2027-02-30" }, "startsOn"],
    ["stop", "no day", { days: "0" }, "days"],
    ["stop", "a crew of less than nobody", { crewHours: "-1" }, "crewHours"],
  ])("%s: %s is refused beside its field", async (kind, _what, change, field) => {
    expect(await refused(kind, change)).toEqual([field]);
  });
  test("a reference of a leakage is both or none", async () => {
    const drain = pointForm(plant.pump, { name: "Half a reference" });
    expect(await refused("point", { ...drain, referencePressure: "" })).toEqual(["referencePressure"]);
    expect(await refused("point", { ...drain, referenceTemperature: "" })).toEqual(["referenceTemperature"]);
  });
  test("what it belongs to has to be there", async () => {
    expect(await refused("machine", { siteId: crypto.randomUUID(), tag: "W-GONE" })).toEqual(["form"]);
    expect(await refused("machine", { siteId: "", tag: "W-GONE" })).toEqual(["siteId"]);
  });
  test("a tag may be used again at another site, not at this one", async () => {
    const other = await add("site", { name: "Second quay", timeZone: ZONE });
    expect(await refused("machine", { tag: "AS-1" })).toEqual(["tag"]);
    expect(await refused("machine", { tag: "AS-1", siteId: other })).toEqual([]);
  });
});

describe("a part", () => {
  test("without a date is fitted this morning in its own zone: a reading of this minute is not older", async () => {
    const id = await add("component", componentForm(plant.circuit, { name: "New today", startedAt: "" }));
    const [life] = await db().select().from(lives).where(eq(lives.componentId, id));
    expect(life!.startedAt.toISOString()).toBe("2026-11-24T00:00:00.000Z");
  });
  test("begins its first life, with hours, serial and whether it was known when new", async () => {
    const id = await add(
      "component",
      componentForm(plant.circuit, { name: "Second hand", startHours: "1200", serial: "S-9", knownWhenNew: "" }),
    );
    const own = await db().select().from(lives).where(eq(lives.componentId, id));
    expect(own).toMatchObject([{ startHours: 1200, serial: "S-9", knownWhenNew: false, endedAt: null }]);
  });
  test("typed in a person's own units it is kept in the core's", async () => {
    const done = await addRecord(
      "component",
      componentForm(plant.circuit, { name: "In inches", displacement: "2.746", maxPressure: "5000" }),
      ENGINEER,
      { displacement: "in³/rev", pressure: "psi" },
    );
    if (!done.ok) throw new Error(JSON.stringify(done.problems));
    const row = (await recordOf("component", done.id)) as unknown as typeof components.$inferSelect;
    expect(row.displacement).toBeCloseTo(45, 1);
    expect(row.maxPressure).toBeCloseTo(344.7, 1);
  });
});

describe("a series stays what it is", () => {
  test("its quantity, state and part may change while nothing was read, and not afterwards", async () => {
    const id = await add("point", pointForm(plant.pump, { name: "Series" }));
    const form = (change: Record<string, string>) => pointForm(plant.pump, { name: "Series", ...change });
    expect(await edit("point", id, form({ state: "noLoad" }))).toMatchObject({ ok: false });
    expect(await edit("point", id, form({ state: "idle" }))).toMatchObject({ ok: true });
    const [life] = await db().select().from(lives).where(eq(lives.componentId, plant.pump));
    await db()
      .insert(readings)
      .values({
        pointId: id,
        lifeId: life!.id,
        takenAt: new Date(NOW - DAY),
        value: 1,
        entered: "1 L/min",
        takenBy: "T. Wren",
        submission: crypto.randomUUID(),
      });
    for (const [field, change] of [
      ["state", { state: "fullStroke" }],
      ["quantity", { quantity: "leakageFlow", state: "idle" }],
    ] as const)
      expect(await edit("point", id, form(change))).toMatchObject({
        ok: false,
        problems: { [field]: expect.stringContaining("Retire it and add another point") },
      });
    expect(await edit("point", id, form({ state: "idle", name: "Series, renamed" }))).toMatchObject({ ok: true });
  });
});

describe("what a change makes stale", () => {
  const settled = () => db().update(assessments).set({ stale: false });
  test.each<[RecordKind, () => [string, Record<string, string>]]>([
    ["fluid", () => [plant.fluid, { name: "Trial oil AS", kv40: "47", kv100: "6.8", density15: "875" }]],
    [
      "circuit",
      () => [
        plant.circuit,
        { machineId: plant.machine, name: "Hoist circuit", fluidId: plant.fluid, workingPressure: "220 bar" },
      ],
    ],
    ["component", () => [plant.pump, componentForm(plant.circuit, { displacement: "50" })]],
    ["point", () => [plant.drain, pointForm(plant.pump, { intervalDays: "20" })]],
  ])("a %s: what is said of its points", async (kind, of) => {
    await settled();
    const [id, fields] = of();
    expect(await edit(kind, id, fields)).toMatchObject({ ok: true });
    expect(await staleOf(plant.drain)).toBe(true);
  });
  test("a stop: every point of its site, and of no other", async () => {
    const other = await addPlant("AS2");
    await settled();
    await add("stop", { ...forms().stop, name: "One more" });
    expect([await staleOf(plant.drain), await staleOf(other.drain)]).toEqual([true, false]);
  });
});

describe("hour meters", () => {
  const change = (given: Record<string, string> = {}) => ({
    kind: "replaced",
    at: "2026-11-01T08:00",
    before: "13900",
    after: "0",
    note: "",
    submission: crypto.randomUUID(),
    ...given,
  });
  const record = (given: Record<string, string>) => recordMeterChange(plant.machine, change(given), ENGINEER, ZONE);
  test.each([
    ["a kind that nobody knows", { kind: "painted" }, "kind"],
    ["no moment", { at: "" }, "at"],
    ["tomorrow", { at: "2026-11-25T08:00" }, "at"],
    ["no figure before", { before: "" }, "before"],
    ["a figure after in bar", { after: "5 bar" }, "after"],
    ["an old form", { submission: "x" }, "submission"],
  ])("%s is refused", async (_what, given, field) => {
    expect(await record(given)).toMatchObject({ ok: false, problems: { [field]: expect.any(String) } });
  });
  test("three of one form at once are one record; it makes the machine's points stale", async () => {
    await db().update(assessments).set({ stale: false });
    const same = change();
    const answers = await Promise.all([1, 2, 3].map(() => recordMeterChange(plant.machine, same, ENGINEER, ZONE)));
    expect(new Set(answers.map((a) => (a.ok ? a.id : "no"))).size).toBe(1);
    expect((await machinePage(plant.machine)).meterChanges).toHaveLength(1);
    expect(await staleOf(plant.drain)).toBe(true);
  });
  test("withdrawn once, by its machine only", async () => {
    const [own] = (await machinePage(plant.machine)).meterChanges;
    const other = await addPlant("AS3");
    expect(await withdrawMeterChange(other.machine, { change: own!.id }, ENGINEER)).toMatchObject({
      ok: false,
      because: "conflict",
    });
    expect(await withdrawMeterChange(plant.machine, { change: "x" }, ENGINEER)).toMatchObject({ ok: false });
    expect(await withdrawMeterChange(plant.machine, { change: own!.id }, ENGINEER)).toMatchObject({ ok: true });
  });
});

describe("what pages read", () => {
  test("retired machines are listed only where they are asked for; areas are those in use", async () => {
    const id = await add("machine", { ...forms().machine, tag: "W-RET", area: "Forgotten yard" });
    await edit("machine", id, { intent: "retire" });
    expect((await fleetList(false)).map((m) => m.id)).not.toContain(id);
    expect((await fleetList(true)).find((m) => m.id === id)).toMatchObject({ retired: true, points: 0, worst: null });
    expect(await areaList()).not.toContain("Forgotten yard");
  });
  test("a machine's page has its parts in the order of the circuit and says what is missing", async () => {
    const page = await machinePage(plant.machine);
    const positions = page.circuits.flatMap((c) => c.components.map((x) => x.name));
    expect(positions).toContain("Pump");
    expect(page.circuits.every((c) => Array.isArray(c.missing))).toBe(true);
    await expect(machinePage(crypto.randomUUID())).rejects.toThrow(Missing);
    await expect(machinePlace(crypto.randomUUID())).rejects.toThrow(Missing);
  });
  test("what a form offers is in use, a part of a retired circuit not", async () => {
    const circuit = await add("circuit", { ...forms().circuit, name: "To retire" });
    const part = await add("component", componentForm(circuit, { name: "Part of it" }));
    const offered = async () => (await choices(["components"])).components!.map((c) => c.value);
    expect(await offered()).toContain(part);
    await edit("circuit", circuit, { intent: "retire" });
    expect(await offered()).not.toContain(part);
  });
  test("every choice has a label, and what is retired is in none of them", async () => {
    const all = await choices(["sites", "machines", "circuits", "components", "fluids", "instruments"]);
    for (const list of Object.values(all)) for (const c of list) expect(c.label).not.toBe("");
    const retired = await db().select({ id: machines.id }).from(machines).where(eq(machines.tag, "W-RET"));
    expect(all.machines!.map((m) => m.value)).not.toContain(retired[0]!.id);
    const inUse = await db().select({ id: points.id }).from(points).where(isNull(points.retiredAt));
    expect(inUse.length).toBeGreaterThan(0);
  });
});
