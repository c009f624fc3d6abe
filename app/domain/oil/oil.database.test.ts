/** The oil against a real database: samples, fills, elements, debris events, a laboratory's file, and what they do to forecasts. */
import sharp from "sharp";
import { DAY } from "@core";
import { actorNamed } from "~/domain/access/testActor";
import { eq, isNull, sql } from "drizzle-orm";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { debrisTasks, oilAssessments, samples } from "~/db/oilTables";
import { assessments, circuits, components, lives } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { add } from "~/domain/testPlant";
import { editRecord } from "~/domain/assets/commands.server";
import { recordOf } from "~/domain/assets/queries.server";
import { renewElement } from "./element.server";
import { noteOilEvent, withdrawOilEvent } from "./fills.server";
import { saveSample, withdrawSample } from "./samples.server";
import { setCircuitOil, setComponentOil } from "./settings.server";
import { answerTask, closeDebris, openDebris, reopenDebris } from "./debris.server";
import { labPreview, laboratoryNames, runLabImport, saveLabMapping } from "./labFile/import.server";
import { guessLabColumns } from "./labFile/mapping";
import { undoLabImport } from "./labFile/undo.server";
import { samplesQuery } from "./samplesCsv.server";
import { csvOut } from "~/platform/csv.server";
import { circuitPage } from "./circuitPage.server";
import { cleanUpPage } from "./cleanUpPage.server";
import { debrisPage } from "./debrisPage.server";
import { fluidPage } from "./fluidPage.server";
import { oilList, oilOverview } from "./overview.server";
import { photoOf, samplePage } from "./samplePage.server";
import { settingsPage } from "./settingsPage.server";
import { assessPoints, assessStalePoints } from "~/domain/condition/assessment.server";
import { importRecord } from "~/platform/imports.server";
import { storeUpload } from "~/platform/uploads.server";
import { closeQueue } from "~/platform/jobs.server";
import { assessCircuits, assessStaleCircuits } from "~/domain/condition/oilAssessment.server";
import { hoursLine, oilInput } from "~/domain/condition/oilInput.server";
import { logReading } from "~/domain/readings/log.server";
import { pointPlace } from "~/domain/readings/place.server";
import { setLimit } from "~/domain/readings/commands.server";
import { storeReadings } from "~/domain/readings/csv/store.server";
import { find } from "~/domain/overview/shell.server";
import { oilNeeds } from "~/domain/overview/today.server";

if (!process.env.DATABASE_URL) throw new Error("These tests need a database: run them with npm test -- jest.");

const NOW = Date.parse(process.env.JUNCTERAL_NOW!);
const ZONE = "Europe/London";
const ids = {
  site: "",
  fluid: "",
  thin: "",
  ester: "",
  machine: "",
  circuit: "",
  pump: "",
  valve: "",
  filter: "",
  drain: "",
  drop: "",
};
const local = (at: number) => new Date(at).toISOString().slice(0, 16);

const counts = (factor = 1) => ({
  over4: String(900 * factor),
  over6: String(240 * factor),
  over14: String(30 * factor),
});
const entry = (number: string, daysAgo: number, change: Record<string, string> = {}): Record<string, string> => ({
  number,
  takenAt: local(NOW - daysAgo * DAY),
  hours: "",
  place: "port",
  state: "working",
  countsPer: "/mL",
  ...counts(),
  iron: "3",
  copper: "2",
  kv40: "45",
  submission: crypto.randomUUID(),
  ...change,
});
const save = (fields: Record<string, string>, photo: File | null = null) =>
  saveSample(ids.circuit, fields, photo, actorNamed("T. Wren"), ZONE);

let dropDatabase: () => Promise<void>;

beforeAll(async () => {
  dropDatabase = await ownDatabase("oil");
  await migrateDatabase();
  const tag = `OT-${Date.now() % 1e6}`;
  ids.site = await add("site", { name: `Oil quay ${tag}`, timeZone: ZONE });
  ids.fluid = await add("fluid", {
    name: `Oil 46 ${tag}`,
    kv40: "46",
    kv100: "6.8",
    density15: "875",
    type: "mineral",
    waterA: "",
    waterB: "",
  });
  ids.thin = await add("fluid", {
    name: `Oil 32 ${tag}`,
    kv40: "32",
    kv100: "5.4",
    density15: "870",
    type: "mineral",
    waterA: "7.5",
    waterB: "1550",
  });
  ids.ester = await add("fluid", {
    name: `Ester ${tag}`,
    kv40: "47",
    kv100: "9.2",
    density15: "920",
    type: "ester",
    waterA: "",
    waterB: "",
  });
  ids.machine = await add("machine", {
    siteId: ids.site,
    name: `Oil hoist ${tag}`,
    tag,
    area: "Quay",
    hoursPerDay: "10",
    note: "",
  });
  ids.circuit = await add("circuit", {
    machineId: ids.machine,
    name: "Hoist circuit",
    fluidId: ids.fluid,
    workingPressure: "200 bar",
    volume: "200 L",
  });
  const component = (kind: string, name: string, position: string) =>
    add("component", {
      circuitId: ids.circuit,
      kind,
      name,
      displacement: kind === "axialPistonPump" ? "45" : "",
      speed: kind === "axialPistonPump" ? "1450" : "",
      leadTimeDays: "40",
      position,
      runInHours: "50",
      startedAt: "2021-08-01",
      startHours: "0",
      serial: "A1",
      knownWhenNew: "on",
    });
  ids.pump = await component("axialPistonPump", "Pump", "1");
  ids.filter = await component("filter", "Return filter", "2");
  ids.valve = await component("proportionalValve", "Valve", "3");
  const point = (componentId: string, name: string, quantity: string, change: Record<string, string>) =>
    add("point", {
      componentId,
      name,
      quantity,
      state: "fullStroke",
      unit: "",
      intervalDays: "30",
      referencePressure: "",
      referenceTemperature: "50",
      instrumentId: "",
      conditionsText: "",
      ...change,
    });
  ids.drain = await point(ids.pump, "Case drain", "caseDrainFlow", { referencePressure: "200" });
  ids.drop = await point(ids.filter, "Drop", "pressureDrop", {});
  const place = await pointPlace(ids.drain);
  expect(
    await setLimit(
      place,
      { basis: "shareOfFullFlow", upper: "10", lower: "", reason: "", version: String(place.point.version) },
      actorNamed("R. Oduya"),
    ),
  ).toEqual({ ok: true });
  const [pumpLife] = await db().select().from(lives).where(eq(lives.componentId, ids.pump));
  const [filterLife] = await db().select().from(lives).where(eq(lives.componentId, ids.filter));
  const reading = (pointId: string, lifeId: string, i: number, value: number) => ({
    line: i,
    pointId,
    lifeId,
    takenAt: NOW - (49 - i) * 30 * DAY,
    value,
    least: null,
    entered: "x",
    temperature: 50,
    pressure: pointId === ids.drain ? 200 : null,
    speed: null,
    hours: 1000 + i * 300,
    instrumentId: null,
    note: "",
    by: "T. Wren",
  });
  await storeReadings(
    [
      ...Array.from({ length: 48 }, (_, i) =>
        reading(ids.drain, pumpLife!.id, i, 1.4 * (1 + 0.02 * Math.sin(i * 7)) * (i > 39 ? 1 + 0.06 * (i - 39) : 1)),
      ),
      ...Array.from({ length: 40 }, (_, i) => reading(ids.drop, filterLife!.id, i, 0.8 + 0.01 * i)),
    ],
    null,
  );
  await db().update(assessments).set({ stale: false });
});

afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await dropDatabase();
});

test("running hours at any day: between what was noted, and by the duty beyond", () => {
  const at = hoursLine(
    [
      { at: 10 * DAY, hours: 100 },
      { at: 0, hours: 0 },
    ],
    8,
  );
  expect([at(5 * DAY), at(11 * DAY), at(-DAY)]).toEqual([50, 108, -8]);
  expect(hoursLine([], 8)(DAY)).toBe(8);
});

describe("fills", () => {
  const fill = (change: Record<string, string>) =>
    noteOilEvent(
      ids.circuit,
      {
        kind: "fill",
        at: local(NOW - 1400 * DAY),
        litres: "200",
        fluidId: ids.fluid,
        level: "",
        condition: "",
        hours: "",
        changeBackBy: "",
        note: "",
        submission: crypto.randomUUID(),
        ...change,
      },
      actorNamed("T. Wren"),
      ZONE,
    );
  test("a fill, a top-up and a level are noted, once however often the form is sent", async () => {
    const submission = crypto.randomUUID();
    expect(await fill({ submission })).toEqual(await fill({ submission }));
    expect(await fill({ kind: "topUp", at: local(NOW - 900 * DAY), litres: "12 L" })).toMatchObject({ ok: true });
    expect(
      await fill({
        kind: "level",
        at: local(NOW - 30 * DAY),
        litres: "",
        level: "Middle",
        condition: "48 °C, retracted",
      }),
    ).toMatchObject({ ok: true });
    expect(await fluidPage(ids.circuit)).toMatchObject({
      more: false,
      events: { length: 3 },
      fill: { at: expect.any(Number), toppedUp: expect.any(Number) },
    });
  });
  test.each([
    [{ litres: "" }, "litres"],
    [{ fluidId: "" }, "fluidId"],
    [{ at: "2031-01-01T00:00" }, "at"],
    [{ at: "x" }, "at"],
    [{ kind: "level", level: "" }, "level"],
    [{ kind: "level", level: "half", condition: "" }, "condition"],
    [{ kind: "burn" }, "kind"],
    [{ changeBackBy: "soon" }, "changeBackBy"],
  ])("%p is refused beside its field", async (change, field) => {
    expect(await fill(change as Record<string, string>)).toMatchObject({
      ok: false,
      problems: { [field]: expect.any(String) },
    });
  });
  test("another fluid warns, and is noted when it was filled all the same", async () => {
    const topUp = { kind: "topUp", at: local(NOW - 800 * DAY), litres: "5", fluidId: ids.ester };
    expect(await fill(topUp)).toMatchObject({
      ok: false,
      warning: expect.stringContaining("another type"),
      problems: { mixed: expect.any(String) },
    });
    expect(await fill({ ...topUp, fluidId: ids.thin })).toMatchObject({
      ok: false,
      warning: expect.stringContaining("30 % thinner"),
    });
    // a change is asked about too, where a part is not made for what is poured
    const emulsion = await add("fluid", {
      name: "Emulsion",
      type: "hfa",
      kv40: "1.2",
      kv100: "0.6",
      density15: "990",
    });
    const change = { kind: "change", at: local(NOW - 790 * DAY), fluidId: emulsion };
    expect(await fill(change)).toMatchObject({
      ok: false,
      warning: expect.stringMatching(/Emulsion is not made for this circuit.*times thinner/s),
      problems: { mixed: expect.any(String) },
    });
    expect(await fill({ ...topUp, mixed: "on" })).toMatchObject({ ok: true });
    expect((await fluidPage(ids.circuit)).mixed).toMatch(/another type/);
  });
  test("a change of oil to another fluid is what the circuit holds from then on, unless a later fill says otherwise", async () => {
    expect(await fill({ kind: "change", at: local(NOW - 700 * DAY), fluidId: ids.thin })).toMatchObject({ ok: true });
    const holds = async () =>
      (await db().select({ fluidId: circuits.fluidId }).from(circuits).where(eq(circuits.id, ids.circuit)))[0]!.fluidId;
    expect(await holds()).toBe(ids.thin);
    await fill({ kind: "change", at: local(NOW - 650 * DAY) });
    expect(await holds()).toBe(ids.fluid);
    await fill({ kind: "change", at: local(NOW - 660 * DAY), fluidId: ids.thin });
    expect(await holds()).toBe(ids.fluid);
  });
  test("a wrong entry is withdrawn with its reason, counts no more, and what it said of the fluid goes with it", async () => {
    const wrong = await fill({ kind: "change", at: local(NOW - 640 * DAY), fluidId: ids.thin });
    const id = wrong.ok ? wrong.id : "";
    const holds = async () =>
      (await db().select({ fluidId: circuits.fluidId }).from(circuits).where(eq(circuits.id, ids.circuit)))[0]!.fluidId;
    expect(await holds()).toBe(ids.thin);
    expect(await withdrawOilEvent(ids.circuit, { event: id, why: "" }, actorNamed("T"))).toMatchObject({
      ok: false,
      problems: { why: expect.any(String) },
    });
    expect(
      await withdrawOilEvent(crypto.randomUUID(), { event: id, why: "Wrong machine" }, actorNamed("T")),
    ).toMatchObject({
      ok: false,
      because: "conflict",
    });
    expect(await withdrawOilEvent(ids.circuit, { event: id, why: "Wrong machine" }, actorNamed("T"))).toMatchObject({
      ok: true,
    });
    expect(await withdrawOilEvent(ids.circuit, { event: id, why: "Wrong machine" }, actorNamed("T"))).toMatchObject({
      ok: false,
      because: "conflict",
    });
    expect(await holds()).toBe(ids.fluid);
    expect((await fluidPage(ids.circuit)).events.find((e) => e.id === id)!.withdrawn).toEqual({
      by: "T",
      why: "Wrong machine",
    });
    const input = (await oilInput(db(), ids.circuit))!;
    expect(input.moves.some((m) => m.at === NOW - 640 * DAY)).toBe(false);
  });
});

describe("samples", () => {
  test.each([
    [{ number: "" }, "number"],
    [{ over6: "5000" }, "over6"],
    [{ code: "16/18/13" }, "code"],
    [{ waterShare: "130" }, "waterShare"],
    [{ water: "60 %" }, "water"],
    [{ takenAt: local(NOW + 9 * DAY) }, "takenAt"],
    [{ takenAt: local(NOW - 1500 * DAY) }, "takenAt"],
    [{ iron: "lots" }, "iron"],
    [{ place: "moon" }, "place"],
    [{ over4: "", over6: "", over14: "", iron: "", copper: "", kv40: "" }, "form"],
  ] as const)("%p is refused beside its field and nothing is saved", async (change, field) => {
    expect(await save(entry("S-0", 100, change as Record<string, string>))).toMatchObject({
      ok: false,
      problems: { [field]: expect.any(String) },
    });
    expect(await db().select().from(samples).where(eq(samples.number, "S-0"))).toEqual([]);
  });
  test("saved once, with its photograph; its number is given once; the hours go forward", async () => {
    const first = entry("S-1", 600, { hours: "9700" });
    const patch = await sharp({ create: { width: 20, height: 20, channels: 3, background: "#432" } })
      .png()
      .toBuffer();
    const photo = new File([new Uint8Array(patch)], "patch.png", { type: "image/png" });
    const done = await save(first, photo);
    expect(done).toMatchObject({ ok: true });
    expect(await save(first)).toEqual(done);
    expect(await save(entry("S-1", 500))).toMatchObject({
      ok: false,
      problems: { number: expect.stringContaining("already") },
    });
    expect(await save(entry("S-2", 500, { hours: "3000" }))).toMatchObject({
      ok: false,
      problems: { hours: expect.stringContaining("backwards") },
    });
    expect(await save(entry("S-2", 700, { hours: "12000" }))).toMatchObject({
      ok: false,
      problems: { hours: expect.stringContaining("more than has passed") },
    });
    expect(await save(entry("S-3", 500), new File(["x"], "a.txt", { type: "text/plain" }))).toMatchObject({
      ok: false,
      problems: { photo: expect.any(String) },
    });
    const page = await samplePage(done.ok ? done.id : "");
    expect(page.photos).toHaveLength(1);
    expect((await photoOf(page.photos[0]!)).mediaType).toBe("image/jpeg");
  });
  test("a dirty step is found, called on Today and in the oil's list, and the forecast reckons with it", async () => {
    for (let i = 0; i < 7; i++)
      await save(entry(`H-${i}`, 580 - i * 45, { iron: String(3 + i * 0.5), ...counts(0.9 + (i % 3) * 0.1) }));
    expect((await circuitPage(ids.circuit)).detail).toMatchObject({
      state: "steady",
      step: null,
      target: { text: "18/16/13" },
    });
    for (let i = 0; i < 4; i++)
      await save(entry(`D-${i}`, 255 - i * 45, { iron: String(10 + i * 4), copper: String(5 + i * 2), ...counts(9) }));
    const page = await circuitPage(ids.circuit);
    expect(page.detail).toMatchObject({ state: "alarm", step: { still: true } });
    expect(page.detail!.metals.find((m) => m.id === "iron")!.passed).toContain("own");
    expect(page.detail!.suspects[0]).toMatchObject({ name: "Pump", agrees: true });
    expect((await oilNeeds()).map((o) => o.circuitId)).toContain(ids.circuit);
    expect((await oilList())[0]!.circuitId).toBe(ids.circuit);
    expect((await oilOverview()).needs.map((n) => n.circuitId)).toContain(ids.circuit);
    expect((await find("oil hoist OT")).filter((f) => f.kind === "oil").map((f) => f.to)).toContain(
      `/oil/${ids.circuit}`,
    );
    // the point was marked stale by the oil, and its verdict now speaks of the dirt
    await assessStalePoints();
    const [a] = await db().select().from(assessments).where(eq(assessments.pointId, ids.drain));
    expect(a!.verdict.map((v) => ("text" in v ? v.text : "")).join("")).toMatch(/Contamination entered this oil/);
  });
  test("a sample from the drain is kept and not compared; a withdrawn one counts no more and frees its number", async () => {
    const drain = await save(entry("B-1", 60, { place: "drain", ...counts(100) }));
    expect((await circuitPage(ids.circuit)).detail!.code).toBe("20/18/15");
    expect(drain.ok).toBe(true);
    const id = drain.ok ? drain.id : "";
    expect(await withdrawSample(id, "", actorNamed("T. Wren"))).toMatchObject({ ok: false });
    expect(await withdrawSample(id, "wrong machine", actorNamed("T. Wren"))).toMatchObject({ ok: true });
    expect(await withdrawSample(id, "again", actorNamed("T. Wren"))).toMatchObject({ ok: false, because: "conflict" });
    expect((await circuitPage(ids.circuit)).listed.find((s) => s.id === id)).toMatchObject({ remark: "withdrawn" });
    expect(await save(entry("B-1", 50, counts(9)))).toMatchObject({ ok: true });
  });
  test("the measured viscosity corrects the readings, and what that changed is told", async () => {
    const page = await fluidPage(ids.circuit);
    expect(page.detail!.measured.at(-1)!.kv40).toBe(45);
    expect(page.changed[0]).toMatchObject({ pointId: ids.drain });
    expect(page.changed[0]!.measured).toBeLessThan(page.changed[0]!.stated);
    expect(page.detail!.suitability[0]!.findings.map((f) => f.at)).toContain("working");
  });
});

describe("targets, materials, elements", () => {
  test("a target by hand needs a reason; two at once: the second is told", async () => {
    const [circuit] = await db().select().from(circuits).where(eq(circuits.id, ids.circuit));
    const fields = {
      targetCode: "20/18/15",
      targetReason: "",
      startTemperature: "4 °C",
      volume: "200",
      version: String(circuit!.version),
    };
    expect(await setCircuitOil(ids.circuit, fields, actorNamed("R. Oduya"))).toMatchObject({
      ok: false,
      problems: { targetReason: expect.any(String) },
    });
    expect(
      await setCircuitOil(ids.circuit, { ...fields, targetReason: "old machine" }, actorNamed("R. Oduya")),
    ).toMatchObject({
      ok: true,
    });
    expect(
      await setCircuitOil(ids.circuit, { ...fields, targetReason: "me too" }, actorNamed("L. Aske")),
    ).toMatchObject({
      ok: false,
      because: "conflict",
    });
    expect((await circuitPage(ids.circuit)).detail!.target).toMatchObject({
      text: "20/18/15",
      because: "set by hand: old machine",
    });
    const { circuit: now } = await settingsPage(ids.circuit);
    const back = { ...fields, targetCode: "", targetReason: "", version: String(now.version) };
    expect(await setCircuitOil(ids.circuit, { ...back, metalLimits: "gold: 3" }, actorNamed("R. Oduya"))).toMatchObject(
      {
        ok: false,
        problems: { metalLimits: expect.stringContaining("is not one of") },
      },
    );
    expect(
      await setCircuitOil(ids.circuit, { ...back, metalLimits: "Fe: 18 ppm" }, actorNamed("R. Oduya")),
    ).toMatchObject({
      ok: true,
    });
    expect((await settingsPage(ids.circuit)).circuit.metalLimits).toEqual({ iron: 18 });
    expect((await circuitPage(ids.circuit)).detail!.metals.find((m) => m.id === "iron")).toMatchObject({
      fixed: 18,
      fixedStated: true,
    });
    const again = {
      ...back,
      metalLimits: "Fe: 18 ppm",
      version: String((await settingsPage(ids.circuit)).circuit.version),
    };
    expect(
      await setCircuitOil(ids.circuit, { ...again, longestHours: "0", longestMonths: "soon" }, actorNamed("R. Oduya")),
    ).toMatchObject({ ok: false, problems: { longestMonths: "Write a number of months." } });
    expect(await setCircuitOil(ids.circuit, { ...again, longestHours: "0" }, actorNamed("R. Oduya"))).toMatchObject({
      ok: false,
      problems: { longestHours: "At least one hour." },
    });
    expect(
      await setCircuitOil(
        ids.circuit,
        { ...again, longestHours: "4000", longestMonths: "600" },
        actorNamed("R. Oduya"),
      ),
    ).toMatchObject({ ok: true });
    expect((await fluidPage(ids.circuit)).detail!.age).toMatchObject({
      share: expect.any(Number),
      dueAt: expect.any(Number),
    });
  });
  test("figures of the new oil are kept with the fluid, and the oil of its circuits is judged again", async () => {
    const recorded = await recordOf("fluid", ids.fluid);
    const fields = {
      name: String(recorded.name),
      kv40: `${Number(recorded.kv40)} mm²/s`,
      kv100: `${Number(recorded.kv100)} mm²/s`,
      density15: `${Number(recorded.density15)} kg/m³`,
      type: "mineral",
      version: String(recorded.version),
    };
    expect(
      await editRecord("fluid", ids.fluid, { ...fields, fresh: "acid number: high" }, actorNamed("R. Oduya")),
    ).toMatchObject({
      ok: false,
      problems: { fresh: expect.stringContaining("Acid number") },
    });
    await assessStaleCircuits();
    expect(
      await editRecord(
        "fluid",
        ids.fluid,
        { ...fields, fresh: "acid number: 0.5\nzinc: 420 ppm" },
        actorNamed("R. Oduya"),
      ),
    ).toMatchObject({ ok: true });
    expect((await recordOf("fluid", ids.fluid)).fresh).toEqual({ acidNumber: 0.5, zinc: 420 });
    expect(
      (
        await db()
          .select({ stale: oilAssessments.stale })
          .from(oilAssessments)
          .where(eq(oilAssessments.circuitId, ids.circuit))
      )[0]!.stale,
    ).toBe(true);
    expect((await oilInput(db(), ids.circuit))!.fluid!.acidNew).toBe(0.5);
  });
  test("what a component is to the oil", async () => {
    const version = async () =>
      String(
        (await db().select({ v: components.version }).from(components).where(eq(components.id, ids.filter)))[0]!.v,
      );
    const empty = {
      makersCode: "",
      materials: "",
      symptomIfStuck: "",
      least: "",
      bestLow: "",
      bestHigh: "",
      greatestAtStart: "",
      beta: "",
      size: "",
      flow: "",
      bypass: "",
      element: "",
    };
    const set = async (change: Record<string, string>) =>
      setComponentOil(ids.filter, { ...empty, version: await version(), ...change }, actorNamed("R. Oduya"));
    expect(await set({ beta: "200" })).toMatchObject({ ok: false, problems: { beta: expect.any(String) } });
    expect(await set({ beta: "0.5", size: "6", flow: "60", bypass: "3" })).toMatchObject({
      ok: false,
      problems: { beta: expect.stringContaining("above 1") },
    });
    expect(await set({ materials: "gold: ring" })).toMatchObject({
      ok: false,
      problems: { materials: expect.any(String) },
    });
    expect(await set({ least: "10" })).toMatchObject({ ok: false, problems: { least: expect.any(String) } });
    expect(await set({ least: "10", bestLow: "16", bestHigh: "36", greatestAtStart: "1000" })).toMatchObject({
      ok: false,
      problems: { "type-mineral": expect.any(String) },
    });
    expect(
      await set({ least: "10", bestLow: "36", bestHigh: "16", greatestAtStart: "1000", "type-mineral": "on" }),
    ).toMatchObject({ ok: false, problems: { least: expect.stringContaining("greatest") } });
    expect(await set({ makersCode: "18/16" })).toMatchObject({
      ok: false,
      problems: { makersCode: expect.any(String) },
    });
    expect(await set({ beta: "200", size: "6", flow: "60 L/min", bypass: "3 bar", element: "EF" })).toMatchObject({
      ok: true,
    });
    expect(await set({ beta: "200", size: "6", flow: "60", bypass: "3", version: "0" })).toMatchObject({
      ok: false,
      because: "conflict",
    });
    expect((await circuitPage(ids.circuit)).detail!.filters[0]).toMatchObject({ past: null, blocked: false });
    expect((await cleanUpPage(ids.circuit)).filters[0]!.filter).toMatchObject({ beta: 200 });
  });
  test("a new element begins a life of its own, once; not before the last one's readings", async () => {
    const renew = (change: Record<string, string>) =>
      renewElement(
        ids.circuit,
        ids.filter,
        { at: local(NOW - 270 * DAY), element: "EF 2", found: "bronze", submission: crypto.randomUUID(), ...change },
        ZONE,
      );
    expect(await renew({ at: local(NOW - 900 * DAY) })).toMatchObject({
      ok: false,
      problems: { at: expect.stringContaining("old element") },
    });
    expect(await renew({ at: "2020-01-01T10:00" })).toMatchObject({
      ok: false,
      problems: { at: expect.stringContaining("later") },
    });
    expect(
      await renewElement(ids.circuit, ids.pump, { at: local(NOW), submission: crypto.randomUUID() }, ZONE),
    ).toMatchObject({ ok: false });
    const submission = crypto.randomUUID();
    expect(await renew({ submission })).toEqual(await renew({ submission }));
    const rows = await db().select().from(lives).where(eq(lives.componentId, ids.filter)).orderBy(lives.startedAt);
    expect(rows.map((l) => l.endReason)).toEqual(["Element renewed. bronze", null]);
    expect(rows[1]!.startHours).toBeGreaterThan(10_000);
  });
  test("an element through which oil passes is named as the likeliest cause", async () => {
    const place = await pointPlace(ids.drop);
    for (const [i, daysAgo] of [200, 150, 100, 50].entries()) {
      expect(
        await logReading(
          place,
          {
            value: "0.25",
            temperature: "50",
            pressure: "",
            hours: "",
            speed: "",
            takenAt: local(NOW - daysAgo * DAY),
            state: "fullStroke",
            instrumentId: "",
            note: "",
            keptBecause: "read twice",
            least: "",
            submission: crypto.randomUUID(),
          },
          actorNamed("T. Wren"),
        ),
      ).toMatchObject({ ok: true });
      if (i === 0)
        expect(
          (await db().select().from(oilAssessments).where(eq(oilAssessments.circuitId, ids.circuit)))[0]!.stale,
        ).toBe(true);
    }
    await assessStaleCircuits();
    const { detail } = await circuitPage(ids.circuit);
    expect(detail!.filters[0]!.past).toMatch(/not seated/);
    expect(detail!.causes[0]).toMatchObject({ id: "filterPast" });
  });
});

describe("a debris event", () => {
  test("opens with its whole list, is ticked off, and closes only with proof", async () => {
    const open = (change: Record<string, string>) =>
      openDebris(
        ids.circuit,
        {
          what: "Bronze flakes",
          foundAtId: ids.filter,
          at: local(NOW - 3 * DAY),
          submission: crypto.randomUUID(),
          ...change,
        },
        actorNamed("T. Wren"),
        ZONE,
      );
    expect(await open({ what: "" })).toMatchObject({ ok: false, problems: { what: expect.any(String) } });
    expect(await open({ at: local(NOW + DAY) })).toMatchObject({ ok: false, problems: { at: expect.any(String) } });
    expect(await open({ foundAtId: ids.site })).toMatchObject({
      ok: false,
      problems: { foundAtId: expect.any(String) },
    });
    const submission = crypto.randomUUID();
    const done = await open({ submission });
    expect(done).toEqual(await open({ submission }));
    const id = done.ok ? done.id : "";
    const page = await debrisPage(id);
    const checks = page.tasks.filter((t) => t.kind === "check");
    expect(checks.map((t) => t.title)).toEqual(["Valve", "Return filter", "Pump"]);
    expect(page.tasks.filter((t) => t.kind === "sample").map((t) => t.dueOn)).toHaveLength(4);
    const close = (change: Record<string, string> = {}) =>
      closeDebris(id, { sourceComponentId: ids.pump, source: "slipper", ...change }, actorNamed("R. Oduya"));
    expect(await close()).toMatchObject({ ok: false, problems: { form: expect.any(String) } });
    expect(await answerTask(id, { task: checks[0]!.id, result: "", note: "" }, actorNamed("T. Wren"))).toMatchObject({
      ok: false,
    });
    expect(
      await answerTask(id, { task: checks[0]!.id, result: "left", note: "" }, actorNamed("T. Wren")),
    ).toMatchObject({
      ok: false,
      problems: { [`note-${checks[0]!.id}`]: expect.any(String) },
    });
    for (const c of checks)
      expect(await answerTask(id, { task: c.id, result: "clean", note: "" }, actorNamed("T. Wren"))).toMatchObject({
        ok: true,
      });
    // answered once: a second answer does not write over it
    await answerTask(id, { task: checks[0]!.id, result: "stuckFreed", note: "" }, actorNamed("L. Aske"));
    expect((await db().select().from(debrisTasks).where(eq(debrisTasks.id, checks[0]!.id)))[0]).toMatchObject({
      result: "clean",
      doneBy: "T. Wren",
    });
    expect(await close()).toMatchObject({ ok: false, problems: { form: expect.stringContaining("no sample") } });
    await save(entry("E-1", 2, counts(9)));
    expect(await close()).toMatchObject({ ok: false, problems: { form: expect.stringContaining("not clean") } });
    await save(entry("E-2", 1, counts(0.5)));
    expect(await close({ sourceComponentId: "", source: "" })).toMatchObject({
      ok: false,
      problems: { source: expect.stringContaining("Name the source") },
    });
    expect(await close({ sourceComponentId: "", source: "pump", notFound: "on" })).toMatchObject({
      ok: false,
      problems: { source: expect.stringContaining("in vain") },
    });
    expect(await close()).toMatchObject({ ok: true });
    expect(await close()).toMatchObject({ ok: false, because: "conflict" });
    expect(
      await answerTask(id, { task: checks[0]!.id, result: "clean", note: "" }, actorNamed("T. Wren")),
    ).toMatchObject({
      ok: false,
      because: "conflict",
    });
    expect((await debrisPage(id)).event).toMatchObject({ sourceComponentId: ids.pump, closedBy: "R. Oduya" });
    expect(await reopenDebris(id, { why: "" }, actorNamed("L. Aske"))).toMatchObject({
      ok: false,
      problems: { why: expect.any(String) },
    });
    expect(await reopenDebris(id, { why: "Brass in the next sample" }, actorNamed("L. Aske"))).toMatchObject({
      ok: true,
    });
    expect(await reopenDebris(id, { why: "Again" }, actorNamed("L. Aske"))).toMatchObject({
      ok: false,
      because: "conflict",
    });
    expect((await debrisPage(id)).event).toMatchObject({
      closedAt: null,
      sourceComponentId: null,
      reopenedBy: "L. Aske",
      reopenedWhy: "Brass in the next sample",
    });
    expect(await close()).toMatchObject({ ok: true });
  });
});

describe("a laboratory's file", () => {
  test("previewed, mapped, imported all or nothing, and the mapping is kept", async () => {
    const [machine] = await db()
      .execute<{ tag: string }>(sql`select tag from machines where id = ${ids.machine}`)
      .then((r) => r.rows);
    const csv = (rows: string[]) => Buffer.from(["Bottle no;Unit;Sampled;N4;N6;N14;Fe", ...rows].join("\n"));
    const laboratory = `Laboratory ${crypto.randomUUID().slice(0, 8)}`;
    const rows = [
      `L-1;${machine!.tag};10.11.2026;900;240;30;<2`,
      `L-2;${machine!.tag};11.11.2026;90;240;30;4`,
      `E-2;${machine!.tag};11.10.2026;900;240;30;4`,
    ];
    const id = await storeUpload("lab.csv", csv(rows), "T. Wren", laboratory);
    const first = await labPreview(await importRecord(id));
    expect(first).toMatchObject({ from: "guess", mapping: { dateOrder: "dmy" } });
    const mapping = {
      delimiter: ";",
      decimalMark: ",",
      dateOrder: "dmy",
      hasHeader: true,
      countsPer: "/mL",
      water: "ppm",
      skipBad: false,
      columns: { number: 0, machine: 1, takenAt: 2, over4: 3, over6: 4, over14: 5, iron: 6 },
    };
    expect(await saveLabMapping(id, { ...mapping, columns: { over4: 3 } })).toMatchObject({
      "column-number": expect.any(String),
      "column-machine": expect.any(String),
    });
    expect(await saveLabMapping(id, mapping)).toBeNull();
    const seen = await labPreview(await importRecord(id));
    // another laboratory's E-2 is another bottle
    expect(seen.counts).toEqual({ add: 2, there: 0, bad: 1 });
    expect(seen.bad.map((b) => b.reason).join()).toMatch(/cumulative/);
    expect(await runLabImport(await importRecord(id))).toMatchObject({
      ok: false,
      message: expect.stringContaining("1 row is bad"),
    });
    await saveLabMapping(id, { ...mapping, skipBad: true });
    expect(await runLabImport(await importRecord(id))).toMatchObject({ ok: true, added: 2 });
    expect((await db().select().from(samples).where(eq(samples.number, "L-1")))[0]).toMatchObject({
      laboratory,
      results: { iron: { value: 2, below: true } },
    });
    expect(await laboratoryNames()).toContain(laboratory);
    // the next file of the same laboratory is read as the last one was
    const next = await storeUpload(
      "lab2.csv",
      csv([`L-3;${machine!.tag};12.11.2026;900;240;30;3`, `L-1;${machine!.tag};10.11.2026;900;240;30;3`]),
      "T. Wren",
      laboratory,
    );
    expect(await labPreview(await importRecord(next))).toMatchObject({
      from: "laboratory",
      counts: { add: 1, there: 1, bad: 0 },
    });
    const other = await storeUpload(
      "lab3.csv",
      csv([`L-1;${machine!.tag};01.10.2026;900;240;30;3`]),
      "T. Wren",
      laboratory,
    );
    expect((await labPreview(await importRecord(other))).bad[0]!.reason).toMatch(/on record for another sample/);
    // taken back as a whole: the sample is withdrawn, its number free, and asking twice does it once
    expect(await undoLabImport(next, actorNamed("R. Oduya"))).toMatchObject({ ok: false, because: "gone" });
    await saveLabMapping(next, mapping);
    expect(await runLabImport(await importRecord(next))).toMatchObject({ ok: true, added: 1 });
    expect(await undoLabImport(next, actorNamed("R. Oduya"))).toMatchObject({ ok: true });
    expect(await undoLabImport(next, actorNamed("R. Oduya"))).toMatchObject({ ok: true });
    expect(
      (await db().select().from(samples).where(eq(samples.importId, next))).map((row) => row.withdrawnWhy),
    ).toEqual(["import of lab2.csv undone"]);
    const again = await storeUpload(
      "lab2.csv",
      csv([`L-3;${machine!.tag};12.11.2026;900;240;30;3`]),
      "T. Wren",
      laboratory,
    );
    expect((await labPreview(await importRecord(again))).counts).toEqual({ add: 1, there: 0, bad: 0 });
  });
});

test("samples go out under headings that come in again", async () => {
  let text = "";
  for await (const chunk of await csvOut(samplesQuery())) text += String(chunk);
  const [head, ...rows] = text.replace("\ufeff", "").trim().split("\n");
  const { columns } = guessLabColumns(head!.split(",").map((h) => h.replace(/"/g, "")));
  expect(
    Object.entries(columns)
      .filter(([, v]) => v === null)
      .map(([k]) => k),
  ).toEqual(["time"]);
  expect(rows.find((r) => r.startsWith("L-1,"))).toContain("< 2");
  expect(rows).toHaveLength((await db().select().from(samples).where(isNull(samples.withdrawnAt))).length);
});

test("assessing twice says the same, and a circuit without a sample says so", async () => {
  await assessCircuits([ids.circuit]);
  const once = await circuitPage(ids.circuit);
  await assessCircuits([ids.circuit]);
  expect((await circuitPage(ids.circuit)).detail).toEqual(once.detail);
  await assessPoints([ids.drain]);
  const other = await add("circuit", {
    machineId: ids.machine,
    name: "Spare circuit",
    fluidId: "",
    workingPressure: "",
    volume: "",
  });
  await assessCircuits([other]);
  expect((await circuitPage(other)).detail).toMatchObject({ state: "unread", samples: 0 });
});
