/** Work carried out at one machine of the harbour: hold points, two people, findings, proof, signatures, what falls due. */
import { and, eq, inArray, isNull } from "drizzle-orm";
import sharp from "sharp";
import { DAY, HOUR, stepsOf, symptoms } from "@core";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { users } from "~/db/peopleTables";
import {
  assessments,
  campaignParts,
  campaigns,
  circuitDiagnoses,
  circuitDiagrams,
  components,
  instruments,
  interventions,
  isolations,
  lives,
  machines,
  points,
  readings,
  sites,
  stops,
  temporaryChanges,
  testRecords,
  workEntries,
  workRuns,
  type DiagnosisDetail,
} from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { diagramOf } from "~/domain/circuits/index.server";
import { caseOf, enterResult, openIsolation } from "~/domain/isolation/index.server";
import { openDebris } from "~/domain/oil/debris.server";
import { beginCampaign, campaignPage, closeCampaign, settlePart } from "~/domain/bookings/campaigns.server";
import { bookWork, finishWork } from "~/domain/bookings/commands.server";
import { dueWork, noteMove } from "~/domain/bookings/due.server";
import { keepCopy, procedureBy, proceduresFor } from "~/domain/runs/procedures.server";
import { procedureText } from "~/domain/runs/procedureForm";
import { interventionPage } from "~/domain/bookings/page.server";
import { acceptAltered } from "~/domain/runs/altered.server";
import { receiveWork } from "~/domain/runs/receive.server";
import { findRecords, recordPage } from "~/domain/record/record.server";
import { runPage, runState, startRun } from "~/domain/runs/run.server";
import { addAddendum, checkWork, lookedAgain, signWork, writeUp } from "~/domain/record/sign.server";
import { holdParts, renewLife } from "~/domain/bookings/lives.server";
import { logReading, pointPlace } from "~/domain/readings/index.server";
import { closeQueue } from "~/platform/jobs.server";
import { photoContent } from "~/platform/photoStore.server";
import type { SignedInUser } from "~/platform/session.server";
import { now } from "~/runtime/clock.server";
import { loadDemo } from "./load.server";
import { people } from "./world";

let drop: () => Promise<void>;
let engineer: SignedInUser;
let technician: SignedInUser;
let pump: { id: string; machineId: string; circuitId: string; siteId: string; pointId: string };

beforeAll(async () => {
  drop = await ownDatabase("work");
  await migrateDatabase();
  await loadDemo(Object.fromEntries(people.map((p) => [p.signIn, "a long enough one"])), {
    only: ["Outer gate north"],
  });
  const all = await db().select().from(users);
  const userOf = (role: "engineer" | "technician"): SignedInUser => {
    const row = all.find((u) => u.role === role)!;
    return { id: row.id, name: row.name, role, units: {} };
  };
  [engineer, technician] = [userOf("engineer"), userOf("technician")];
  const [point] = await db()
    .select({
      id: components.id,
      circuitId: components.circuitId,
      machineId: machines.id,
      siteId: machines.siteId,
      pointId: points.id,
    })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .innerJoin(machines, eq(machines.name, "Outer gate north"))
    .where(and(eq(components.name, "Pump A"), eq(points.quantity, "caseDrainFlow")));
  pump = point!;
}, 240_000);
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await drop();
});

const uuid = () => crypto.randomUUID();
const zone = "Europe/London";

async function book(change: Record<string, string> = {}): Promise<string> {
  const done = await bookWork(
    {
      componentId: pump.id,
      pointId: pump.pointId,
      kind: "replacement",
      stopId: "",
      crewHours: "8",
      note: "Worn",
      again: "on",
      submission: uuid(),
      ...change,
    },
    engineer,
  );
  if (!done.ok) throw new Error(JSON.stringify(done.problems));
  return done.id;
}

async function begin(workId: string, procedure = "replace-compensated-pump"): Promise<string> {
  const run = await startRun(workId, { procedure, submission: uuid() }, technician);
  if (!run.ok) throw new Error("not begun");
  return run.id;
}

interface Sent {
  step: string;
  entry?: "done" | "skipped" | "reopened" | "released";
  values?: Record<string, string>;
  reason?: string;
  after?: string;
  submission?: string;
  by?: string;
  at?: number;
}
const send = async (runId: string, user: SignedInUser, sent: Sent) => {
  const state = await runState(runId);
  const last = state.entries.findLast((e) => e.step === sent.step)?.submission ?? "";
  const item = {
    kind: "step",
    runId,
    submission: uuid(),
    at: now() - 1000,
    by: user.id,
    entry: "done",
    values: {},
    reason: "",
    after: last,
    ...sent,
  };
  return (await receiveWork(runId, [item], user))[0]!;
};

/** A photograph of a run, as a tablet sends it. */
const takePhoto = async (runId: string, submission = uuid(), background = "#888") => {
  const picture = await sharp({ create: { width: 80, height: 40, channels: 3, background } })
    .jpeg()
    .toBuffer();
  const item = { kind: "workPhoto", runId, submission, at: now() - 1, step: "", finding: "", caption: "", marks: [] };
  return (await receiveWork(runId, [{ ...item, base64: picture.toString("base64") }], technician))[0]!;
};

/** A test that was kept at the pump: what proves work as a reading does. */
const testOnce = () =>
  db()
    .insert(testRecords)
    .values({
      componentId: pump.id,
      test: "shut-in",
      at: new Date(now()),
      typed: {},
      outcome: {} as never,
      by: technician.name,
      submission: uuid(),
    });

/** Everything up to a step, each with what it asks for. */
async function carryOut(runId: string, until: string | null, user = technician): Promise<void> {
  const { run } = await runPage(runId);
  const given: Record<string, Record<string, string>> = {};
  for (const { id, ask, closedBy } of stepsOf(run.procedure)) {
    if (id === until) return;
    const values: Record<string, string> = {};
    if (ask?.kind === "text") values.text = "as the sheet says";
    if (ask?.kind === "day") values.day = "2027-01-24";
    if (ask?.kind === "lines") values.tags = "P, T";
    if (ask?.kind === "count") values.count = (ask.equals ? given[ask.equals]?.count : undefined) ?? "4";
    if (ask?.kind === "torque") Object.assign(values, { stated: "42 N·m", reached: "42 N·m", passes: "3" });
    if (ask?.kind === "choice") values.choice = ask.options.find((o) => !o.stops)!.id;
    if (ask?.kind === "value") values.value = String(Math.max(0, ask.least ?? 0) + (ask.above ? 10 : 0));
    given[id] = values;
    if (closedBy === "evidence") await takePhoto(runId);
    if (closedBy === "reading") await testOnce();
    expect(await send(runId, user, { step: id, values })).toMatchObject({ fate: "saved" });
  }
}

const altered = () =>
  db()
    .select({ what: temporaryChanges.what })
    .from(temporaryChanges)
    .where(and(eq(temporaryChanges.machineId, pump.machineId), isNull(temporaryChanges.putBackAt)));

test("a procedure is begun once however often it is sent; the likeliest for a pump comes first", async () => {
  const work = await book();
  const submission = uuid();
  const fields = { procedure: "replace-compensated-pump", submission };
  const [a, b] = await Promise.all([startRun(work, fields, technician), startRun(work, fields, technician)]);
  expect(a).toEqual(b);
  expect(await db().select().from(workRuns).where(eq(workRuns.interventionId, work))).toHaveLength(1);
  const [first] = await proceduresFor("axialPistonPump", "replacement", pump.machineId);
  expect(first!.id).toBe("replace-compensated-pump");
  expect((await interventionPage(work)).work.condemnedBy.length).toBeGreaterThan(0);
});

test("work knows what condemned the part: the verdict, and the isolation, debris event, bulletin or fault it comes from", async () => {
  const symptom = { circuitId: pump.circuitId, symptom: "slow", submission: uuid() };
  const opened = await openIsolation(symptom, engineer);
  if (!opened.ok) throw new Error("not opened");
  const [isolation] = await db().select().from(isolations).where(eq(isolations.id, opened.id));
  const [first] = caseOf(isolation!).tests;
  const [result] = Object.entries(first!.about.results);
  await enterResult(opened.id, { test: first!.id, result: result![0], submission: uuid() }, engineer);
  const found = { what: "Bronze flakes on the case filter", at: "2026-11-23 08:00", submission: uuid() };
  const event = await openDebris(pump.circuitId, found, engineer, zone);
  if (!event.ok) throw new Error(JSON.stringify(event.problems));
  const [bulletin] = await db().select({ id: campaigns.id, name: campaigns.bulletin }).from(campaigns);
  const told = async (origin: string, originId: string) => {
    const { condemnedBy } = (await interventionPage(await book({ origin, originId }))).work;
    return condemnedBy.map((p) => ("text" in p ? p.text : "")).join("");
  };
  const { verdict } = (await db().select().from(assessments).where(eq(assessments.pointId, pump.pointId)))[0]!;
  const bare = verdict.map((p) => ("text" in p ? p.text : "")).join("");
  expect(bare.length).toBeGreaterThan(10);
  expect(await told("", "")).toBe(bare);
  const isolated = await told("isolation", opened.id);
  expect(isolated).toContain(`${bare} Isolated: ${symptoms.slow.label}; `);
  expect(isolated.toLowerCase()).toContain(result![1].toLowerCase());
  expect(await told("debris", event.id)).toBe(`${bare} Debris: ${found.what}.`);
  expect(await told("campaign", bulletin!.id)).toContain(`Bulletin ${bulletin!.name}`);
  const named = [{ text: "Pump A: worn, leaks to the case", explains: [pump.pointId] }];
  const detail = { named, since: {} } as unknown as DiagnosisDetail;
  await db()
    .insert(circuitDiagnoses)
    .values({ circuitId: pump.circuitId, detail })
    .onConflictDoUpdate({ target: circuitDiagnoses.circuitId, set: { detail } });
  expect(await told("fault", pump.circuitId)).toBe(
    `${bare} Named by the readings of the circuit: Pump A: worn, leaks to the case.`,
  );
  // a record that is gone takes nothing from the booking
  expect(await told("debris", uuid())).toBe(bare);
});

test("a hold point bars what follows, is not skipped by a technician, nor by one who claims to be the engineer", async () => {
  const run = await begin(await book());
  await carryOut(run, "isolated");
  expect(await send(run, technician, { step: "card" })).toMatchObject({
    fate: "refused",
    message: expect.stringContaining("Isolated"),
  });
  const skip = { step: "isolated", entry: "skipped" as const, reason: "the lock is at the other pump" };
  expect(await send(run, technician, skip)).toMatchObject({ fate: "refused" });
  expect(await send(run, technician, { ...skip, by: engineer.id })).toMatchObject({ fate: "refused" });
  expect(await send(run, engineer, { ...skip, reason: "no" })).toMatchObject({ fate: "refused" });
  expect(await send(run, engineer, skip)).toMatchObject({ fate: "saved" });
  const state = await runState(run);
  expect(state.entries.at(-1)).toMatchObject({ kind: "skipped", by: engineer.name, reason: skip.reason });
  // zero means zero
  await send(run, technician, { step: "propped" });
  await send(run, technician, { step: "accumulators" });
  expect(await send(run, technician, { step: "zero", values: { value: "12 bar" } })).toMatchObject({
    fate: "refused",
    field: "value",
  });
  expect(await send(run, technician, { step: "zero", values: { value: "0 bar" } })).toMatchObject({ fate: "saved" });
});

test("two people at one step: the second is told what the first wrote, the same twice is once", async () => {
  const run = await begin(await book());
  const values = { text: "SM-7 rev C" };
  const submission = uuid();
  const item = { step: "document", values, after: "", submission };
  expect(await send(run, technician, item)).toMatchObject({ fate: "saved" });
  expect(await send(run, technician, item)).toMatchObject({ fate: "saved" });
  expect(await send(run, engineer, { ...item, submission: uuid() })).toMatchObject({ fate: "saved" });
  const other = { ...item, submission: uuid(), values: { text: "SM-7 rev D" } };
  expect(await send(run, engineer, other)).toMatchObject({
    fate: "conflict",
    message: expect.stringContaining(`${technician.name} did this in the meantime: SM-7 rev C`),
  });
  const rows = await db().select().from(workEntries).where(eq(workEntries.runId, run));
  expect(rows).toHaveLength(1);
  // put to a person, who records the newer revision as well: both stay on the record
  expect(await send(run, engineer, { ...other, after: submission })).toMatchObject({ fate: "saved" });
  expect((await runState(run)).entries.map((e) => e.values.text)).toEqual(["SM-7 rev C", "SM-7 rev D"]);
});

test("nonsense, another run's entries and the future are refused; the others go on", async () => {
  const run = await begin(await book());
  const other = await begin(await book());
  const good = {
    kind: "step",
    runId: run,
    submission: uuid(),
    at: now() - 1,
    step: "ready",
    entry: "done",
    values: {},
    reason: "",
    after: "",
  };
  const fates = await receiveWork(
    run,
    [
      null,
      { kind: "step" },
      { ...good, runId: other, submission: uuid() },
      { ...good, at: now() + HOUR, submission: uuid() },
      good,
    ],
    technician,
  );
  expect(fates.map((f) => f.fate)).toEqual(["refused", "refused", "refused", "refused", "saved"]);
});

test("what is altered stands on the machine until its step puts it back", async () => {
  const work = await book();
  const run = await begin(work);
  await carryOut(run, "propped");
  expect((await altered()).map((a) => a.what)).toContain("Isolated and locked");
  const early = await finishWork(work, zone, { doneAt: "2026-11-24 08:00", hours: "", version: "1" }, technician);
  expect(early.ok).toBe(false);
  const page = await interventionPage(work);
  const fields = {
    doneAt: "2026-11-24 08:00",
    hours: String(Math.ceil(page.counter!) + 1),
    serial: "N 1",
    version: "1",
    hoursRight: "on",
  };
  expect(await finishWork(work, zone, fields, technician)).toMatchObject({ ok: false, because: "conflict" });
  // accepting by name is the engineer's, and is written down
  expect(await finishWork(work, zone, { ...fields, acceptAltered: "on" }, technician)).toMatchObject({ ok: false });
  await send(run, engineer, { step: "isolated", entry: "reopened", reason: "locked at the wrong pump" });
  expect(await altered()).toEqual([]);
});

test("a step taken back takes back what it did: the register follows the entries that count", async () => {
  const work = await book();
  const run = await begin(work);
  await carryOut(run, "unlocked");
  expect((await altered()).map((a) => a.what)).toEqual(["Isolated and locked"]);
  await send(run, technician, { step: "unlocked" });
  expect(await altered()).toEqual([]);
  // by mistake: the locks are still on, and the machine says so again
  await send(run, technician, { step: "unlocked", entry: "reopened", reason: "ticked by mistake" });
  expect((await altered()).map((a) => a.what)).toEqual(["Isolated and locked"]);
  const page = await interventionPage(work);
  const fields = {
    doneAt: "2026-11-24 08:00",
    hours: String(Math.ceil(page.counter!) + 1),
    serial: "N 1",
    version: String(page.work.version),
    hoursRight: "on",
  };
  // open steps stand against "done" as they do against signing
  expect(await finishWork(work, zone, fields, technician)).toMatchObject({
    ok: false,
    problems: { form: expect.stringMatching(/steps are open/) },
  });
  await send(run, technician, { step: "unlocked" });
  expect(await altered()).toEqual([]);
});

test("a hold that asks for a reading or a photograph is closed by it, not by a press", async () => {
  const run = await begin(await book());
  await carryOut(run, "look");
  expect(await send(run, technician, { step: "look" })).toMatchObject({
    fate: "refused",
    message: expect.stringContaining("photograph"),
  });
  await takePhoto(run);
  expect(await send(run, technician, { step: "look" })).toMatchObject({ fate: "saved" });
  await send(run, technician, { step: "isolated", entry: "reopened", reason: "the trial is over" });
});

test("the id of an entry belongs to one record: a signed record's photograph is not exchanged through another run", async () => {
  const [first, second] = [await book({ kind: "inspection" }), await book({ kind: "inspection" })];
  const [run, other] = [await begin(first), await begin(second)];
  const submission = uuid();
  expect(await takePhoto(run, submission)).toMatchObject({ fate: "saved" });
  const [kept] = (await recordPage(first)).photos;
  const before = await photoContent(kept!.id);
  expect(kept!.id).not.toBe(submission);
  expect(await takePhoto(run, submission, "#f00")).toMatchObject({ fate: "saved" });
  expect(await takePhoto(other, submission, "#f00")).toMatchObject({ fate: "conflict" });
  expect(await photoContent(kept!.id)).toEqual(before);
  expect((await recordPage(second)).photos).toEqual([]);
  // the same of findings and steps
  const finding = {
    kind: "finding",
    submission: uuid(),
    at: now() - 1,
    finding: "wear",
    values: { where: "x", pattern: "scored" },
  };
  const sendFinding = async (runId: string) => (await receiveWork(runId, [{ ...finding, runId }], technician))[0];
  expect(await sendFinding(run)).toMatchObject({ fate: "saved" });
  expect(await sendFinding(other)).toMatchObject({ fate: "conflict" });
});

test("who took an entry and who sent it are both kept; nobody is named who may not take one", async () => {
  const run = await begin(await book());
  const [viewer] = await db().select().from(users).where(eq(users.role, "viewer"));
  const values = { text: "SM-7" };
  await send(run, technician, { step: "document", values, by: engineer.id });
  await send(run, technician, { step: "ready", by: viewer!.id });
  const rows = await db().select().from(workEntries).where(eq(workEntries.runId, run)).orderBy(workEntries.id);
  expect(rows.map((r) => [r.by, r.sentBy, r.sentById])).toEqual([
    [engineer.name, technician.name, technician.id],
    [technician.name, null, technician.id],
  ]);
});

test("a reading that comes in while a replacement is recorded is the new part's, the fitted minute included", async () => {
  const [other] = await db()
    .select({ component: components.id, point: points.id })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .where(and(eq(components.name, "Pump B"), eq(points.quantity, "caseDrainFlow")));
  const at = new Date(Math.floor(now() / 60_000) * 60_000 - 30 * 60_000);
  let letGo: () => void = () => undefined;
  const gate = new Promise<void>((done) => (letGo = done));
  let fresh = "";
  const replacing = db().transaction(async (tx) => {
    await holdParts(tx, eq(components.id, other!.component));
    const [life] = await tx
      .select()
      .from(lives)
      .where(and(eq(lives.componentId, other!.component), isNull(lives.endedAt)));
    const begun = { at, hours: 9999, reason: "worn", serial: "N 9", renewed: true };
    fresh = await renewLife(tx, other!.component, life!, begun);
    await gate;
  });
  await new Promise((done) => setTimeout(done, 100));
  const fields = {
    takenAt: at.toISOString().slice(0, 16),
    value: "0.9",
    pressure: "210",
    temperature: "50",
    state: "fullStroke",
  };
  const { point } = await pointPlace(other!.point);
  const kept = {
    ...fields,
    state: point.state,
    keptBecause: "read twice",
    note: "",
    hours: "",
    speed: "",
    least: "",
    instrumentId: "",
  };
  const logging = logReading(await pointPlace(other!.point), { ...kept, submission: uuid() }, technician);
  setTimeout(letGo, 300);
  await replacing;
  const saved = await logging;
  if (!saved.ok) throw new Error(JSON.stringify(saved));
  const [row] = await db().select().from(readings).where(eq(readings.id, saved.readingId));
  expect(row!.lifeId).toBe(fresh);
});

test("one command uses one connection: inside a transaction nothing asks for a second", async () => {
  await db().transaction(async (tx) => {
    expect(db()).toBe(tx);
  });
});

test("what stays altered is accepted entry by entry, by name, and stands on the signed record", async () => {
  const work = await book({ kind: "inspection" });
  const left = ["Relief valve two turns out", "Cooler bypassed"];
  const alter = (what: string) =>
    db()
      .insert(temporaryChanges)
      .values({ machineId: pump.machineId, what, at: new Date(now()), by: technician.name, submission: uuid() });
  await alter(left[0]!);
  const { counter } = await interventionPage(work);
  const version = async () => String((await interventionPage(work)).work.version);
  const fields = { doneAt: "2026-11-24 08:00", hours: String(Math.ceil(counter!) + 1), hoursRight: "on" };
  const done = await finishWork(work, zone, { ...fields, acceptAltered: "on", version: await version() }, engineer);
  expect(done).toMatchObject({ ok: true });
  // what was accepted when it was done does not stand against signing; what was altered since does
  await alter(left[1]!);
  const sign = async () =>
    signWork(work, { version: await version(), unprovenBecause: "an inspection changes nothing" }, engineer);
  expect(await sign()).toMatchObject({ ok: false, problems: { form: expect.stringContaining("cooler bypassed") } });
  const open = (await interventionPage(work)).altered.find((a) => a.acceptedBy === null)!;
  expect(open.what).toBe(left[1]);
  for (let twice = 0; twice < 2; twice++)
    expect(await acceptAltered(work, { changeId: open.id }, engineer)).toMatchObject({ ok: true });
  expect(await acceptAltered(work, { changeId: uuid() }, engineer)).toMatchObject({ ok: false });
  expect(await sign()).toMatchObject({ ok: true });
  expect(await acceptAltered(work, { changeId: open.id }, engineer)).toMatchObject({ ok: false, because: "conflict" });
  await db()
    .update(temporaryChanges)
    .set({ putBackAt: new Date(now()), putBackBy: "L. Aske" })
    .where(isNull(temporaryChanges.putBackAt));
  const record = await recordPage(work);
  expect(record.accepted.map((a) => [a.what, a.by, a.putBackBy])).toEqual(
    left.map((what) => [what, engineer.name, "L. Aske"]),
  );
  expect(record.work.openPoints).toBe("");
});

test("a step that names the day to look again makes the work a stop-gap; without its day it is not signed", async () => {
  const work = await book({ kind: "repair", interim: "on" });
  expect((await interventionPage(work)).work).toMatchObject({ interim: true, lookAgainOn: null });
  const before = (await interventionPage(work)).work.version;
  const run = await begin(work, "free-spool");
  const { counter } = await interventionPage(work);
  const fields = { doneAt: "2026-11-24 08:00", hours: String(Math.ceil(counter!) + 1), hoursRight: "on" };
  expect((await interventionPage(work)).work.lookAgainOn).toBeNull();
  await carryOut(run, null);
  const version = String((await interventionPage(work)).work.version);
  expect(Number(version)).toBeGreaterThan(before);
  expect(await finishWork(work, zone, { ...fields, version }, technician)).toMatchObject({ ok: true });
  const after = await interventionPage(work);
  expect(after.work).toMatchObject({ interim: true, lookAgainOn: "2027-01-24" });
  expect(after.against).toEqual([]);
});

test("findings are judged, photographs kept; a finding is withdrawn by its writer and stays on record", async () => {
  const work = await book();
  const run = await begin(work);
  const finding = uuid();
  const picture = await sharp({ create: { width: 80, height: 40, channels: 3, background: "#888" } })
    .jpeg()
    .toBuffer();
  const at = now() - 1;
  const fates = await receiveWork(
    run,
    [
      {
        kind: "finding",
        runId: run,
        submission: uuid(),
        at,
        finding: "decision",
        values: { where: "bore", decision: "oversize" },
      },
      {
        kind: "finding",
        runId: run,
        submission: finding,
        at,
        finding: "wear",
        values: { where: "plate", pattern: "scored" },
      },
      {
        kind: "workPhoto",
        runId: run,
        submission: uuid(),
        at,
        step: "",
        finding,
        caption: "Plate",
        marks: [{ x: 0.5, y: 0.5, radius: 0.1 }],
        base64: picture.toString("base64"),
      },
      {
        kind: "workPhoto",
        runId: run,
        submission: uuid(),
        at,
        step: "",
        finding: uuid(),
        caption: "",
        marks: [],
        base64: picture.toString("base64"),
      },
      {
        kind: "workPhoto",
        runId: run,
        submission: uuid(),
        at,
        step: "",
        finding: "",
        caption: "",
        marks: [],
        base64: Buffer.from("<svg/>").toString("base64"),
      },
    ],
    technician,
  );
  expect(fates.map((f) => f.fate)).toEqual(["refused", "saved", "saved", "saved", "refused"]);
  const record = await recordPage(work);
  expect(record.findings[0]).toMatchObject({ says: { bad: true } });
  expect(record.photos.map((p) => p.findingId)).toEqual([finding, null]);
  expect((await photoContent(record.photos[0]!.id))!.subarray(0, 2)).toEqual(Buffer.from([0xff, 0xd8]));
  const withdrawal = (reason: string) => ({
    kind: "withdrawal",
    runId: run,
    submission: uuid(),
    at,
    by: technician.id,
    finding,
    reason,
  });
  const withdraw = async (user: SignedInUser, reason: string) =>
    (await receiveWork(run, [withdrawal(reason)], user))[0];
  // another technician may not, and not by naming the writer in the entry; nor without a reason
  const another = { ...technician, id: uuid(), name: "Another" };
  expect(await withdraw(another, "the scores were dirt")).toMatchObject({ fate: "refused" });
  expect(await withdraw(technician, "no")).toMatchObject({ fate: "refused" });
  expect(await withdraw(technician, "the scores were dirt")).toMatchObject({ fate: "saved" });
  expect(await withdraw(technician, "sent a second time")).toMatchObject({ fate: "saved" });
  expect((await recordPage(work)).findings).toEqual([
    expect.objectContaining({
      id: finding,
      withdrawn: expect.objectContaining({ by: technician.name, because: "the scores were dirt" }),
    }),
  ]);
});

test("from the finding to a signed record: proven by a reading, locked, added to, checked by another", async () => {
  await db().update(sites).set({ twoSignatures: true }).where(eq(sites.id, pump.siteId));
  const work = await book();
  const run = await begin(work);
  await carryOut(run, null);
  expect(await altered()).toEqual([]);
  const page = await interventionPage(work);
  const hours = Math.ceil(page.counter!) + 10;
  const fields = {
    doneAt: "2026-11-24 08:00",
    hours: String(hours),
    serial: "N 4711",
    findings: "Plate scored",
    version: String(page.work.version),
    hoursRight: "on",
  };
  expect(await finishWork(work, zone, fields, technician)).toMatchObject({ ok: true });
  const version = async () => String((await interventionPage(work)).work.version);
  expect(await writeUp(work, { interim: "on", lookAgainOn: "", version: await version() }, technician)).toMatchObject({
    ok: false,
    problems: { lookAgainOn: expect.any(String) },
  });
  expect(
    await writeUp(work, { parts: "Pump N 4711", settingsLeft: "210 bar", version: await version() }, technician),
  ).toMatchObject({ ok: true });
  expect(await signWork(work, { version: "1" }, engineer)).toMatchObject({ ok: false, because: "conflict" });
  expect(await signWork(work, { version: await version() }, engineer)).toMatchObject({
    ok: false,
    problems: { unprovenBecause: expect.stringContaining("No reading since") },
  });
  const [life] = await db()
    .select()
    .from(lives)
    .where(and(eq(lives.componentId, pump.id), isNull(lives.endedAt)));
  await db()
    .insert(readings)
    .values({
      pointId: pump.pointId,
      lifeId: life!.id,
      takenAt: new Date(now() - 10 * 60_000),
      value: 0.9,
      entered: "0.9 L/min",
      pressure: 210,
      temperature: 50,
      hours: hours + 0.5,
      takenBy: technician.name,
    });
  const proof = (await interventionPage(work)).compared.find((c) => c.pointId === pump.pointId)!.proof!;
  expect(proof.verdict).toBe("proven");
  expect(proof.difference).toBeLessThan(-2 * proof.uncertainty);
  expect(await checkWork(work, technician)).toMatchObject({ ok: false });
  expect(await signWork(work, { version: await version() }, engineer)).toMatchObject({ ok: true });
  expect(await signWork(work, { version: "1" }, engineer)).toMatchObject({ ok: true });
  // locked for every way in
  expect(await writeUp(work, { version: await version() }, engineer)).toMatchObject({ ok: false, because: "conflict" });
  expect(
    await send(run, technician, { step: "leaks", entry: "reopened", reason: "a drip was seen later" }),
  ).toMatchObject({ fate: "refused" });
  const late = {
    kind: "finding",
    runId: run,
    submission: uuid(),
    at: now() - 1,
    finding: "wear",
    values: { where: "x", pattern: "scored" },
  };
  expect((await receiveWork(run, [late], technician))[0]).toMatchObject({ fate: "refused" });
  expect(await startRun(work, { procedure: "commission-pump", submission: uuid() }, technician)).toMatchObject({
    ok: false,
  });
  const addition = { addendum: "A drip at the case union, tightened.", submission: uuid() };
  expect(await addAddendum(work, addition, technician)).toMatchObject({ ok: true });
  expect(await addAddendum(work, addition, technician)).toMatchObject({ ok: true });
  expect(await checkWork(work, engineer)).toMatchObject({
    ok: false,
    problems: { form: expect.stringContaining("another person") },
  });
  expect(await checkWork(work, technician)).toMatchObject({ ok: true });
  const record = await recordPage(work);
  expect(record).toMatchObject({
    newSerial: "N 4711",
    work: { signedBy: engineer.name, checkedBy: technician.name, unprovenBecause: "" },
    addenda: [{ text: addition.addendum }],
  });
  expect((await findRecords("4711 scored")).records.map((r) => r.id)).toContain(work);
  expect((await findRecords("100% _")).records).toEqual([]);
  await db().update(sites).set({ twoSignatures: false }).where(eq(sites.id, pump.siteId));
});

test("where the plant says so an engineer releases each hold point", async () => {
  await db().update(sites).set({ holdsReleased: true }).where(eq(sites.id, pump.siteId));
  const run = await begin(await book());
  await carryOut(run, "isolated");
  await send(run, technician, { step: "isolated" });
  expect(await send(run, technician, { step: "propped" })).toMatchObject({ fate: "refused" });
  expect(
    await send(run, technician, { step: "isolated", entry: "released", reason: "Seen and released." }),
  ).toMatchObject({ fate: "refused" });
  expect(
    await send(run, engineer, { step: "isolated", entry: "released", reason: "Seen and released." }),
  ).toMatchObject({ fate: "saved" });
  expect(await send(run, technician, { step: "propped" })).toMatchObject({ fate: "saved" });
  await db().update(sites).set({ holdsReleased: false }).where(eq(sites.id, pump.siteId));
  await db()
    .update(temporaryChanges)
    .set({ putBackAt: new Date(now()) })
    .where(isNull(temporaryChanges.putBackAt));
});

test("a plant's copy: offered first, versioned; what runs keeps its version; the second editor is told", async () => {
  const base = await procedureBy("free-spool");
  const text = `${procedureText(base)}\nTag the valve as freed`;
  const submission = uuid();
  const made = await keepCopy("free-spool", { title: "Free a spool, our way", steps: text, submission }, engineer);
  expect(await keepCopy("free-spool", { title: "Free a spool, our way", steps: text, submission }, engineer)).toEqual(
    made,
  );
  if (!made.ok) throw new Error("not kept");
  const [first] = await proceduresFor("directionalValve", "repair", pump.machineId);
  expect(first).toMatchObject({ title: "Free a spool, our way", version: 1 });
  const run = await begin(await book({ kind: "repair" }), made.id);
  const next = { title: "Free a spool, our way", steps: `${text}\nTell the office`, version: "1" };
  const both = await Promise.all([keepCopy(made.id, next, engineer), keepCopy(made.id, next, engineer)]);
  expect(both.map((b) => b.ok).sort()).toEqual([false, true]);
  expect((await procedureBy(made.id)).version).toBe(2);
  const { run: running } = await runPage(run);
  expect(running.version).toBe(1);
  expect(stepsOf(running.procedure).at(-1)!.text).toBe("Tag the valve as freed");
});

test("a modification splits the trends of the whole circuit, and says so", async () => {
  const work = await book({ kind: "repair" });
  const open = () =>
    db()
      .select({ id: lives.id, startedAt: lives.startedAt, known: lives.knownWhenNew })
      .from(lives)
      .innerJoin(components, eq(components.id, lives.componentId))
      .where(and(eq(components.circuitId, pump.circuitId), isNull(lives.endedAt)));
  const before = await open();
  const page = await interventionPage(work);
  const fields = {
    doneAt: "2026-11-24 08:40",
    hours: String(Math.ceil(page.counter!) + 1),
    hoursRight: "on",
    version: "1",
    modification: "Relief valve added at the gate",
    wholeCircuit: "on",
  };
  expect(await finishWork(work, zone, fields, technician)).toMatchObject({ ok: true });
  const after = await open();
  expect(after).toHaveLength(before.length);
  expect(after.every((l) => !before.some((b) => b.id === l.id))).toBe(true);
  expect((await recordPage(work)).work.modification).toContain("Relief valve");
});

test("what comes due by date: a stop-gap, a valve to move, an old hose, a campaign; dealt with, it is gone", async () => {
  const work = await book({ kind: "repair" });
  const today = new Date(now()).toISOString().slice(0, 10);
  await db()
    .update(interventions)
    .set({ doneAt: new Date(now() - DAY), doneBy: technician.name, interim: true, lookAgainOn: today })
    .where(eq(interventions.id, work));
  await db().update(components).set({ exerciseDays: 30 }).where(eq(components.id, pump.id));
  await diagramOf(pump.circuitId);
  const [diagram] = await db().select().from(circuitDiagrams).where(eq(circuitDiagrams.circuitId, pump.circuitId));
  const lines = diagram!.netlist.lines.map((l, i) =>
    i === 0
      ? { ...l, data: { made: "hose" as const, rating: 280, bore: 12, length: 1, fittedOn: "2019-05-01", tag: "H-1" } }
      : l,
  );
  await db()
    .update(circuitDiagrams)
    .set({ netlist: { ...diagram!.netlist, lines } })
    .where(eq(circuitDiagrams.circuitId, pump.circuitId));
  const campaign = {
    siteId: pump.siteId,
    title: "Springs",
    bulletin: "SB 1",
    marking: "K",
    kind: "axialPistonPump",
    dueOn: today,
    submission: uuid(),
  };
  const begun = await beginCampaign(campaign, engineer);
  expect(await beginCampaign(campaign, engineer)).toEqual(begun);
  if (!begun.ok) throw new Error("not begun");
  const kinds = async () => (await dueWork({ most: 100 })).map((d) => d.kind);
  // the part was fitted within the hour in the test above: its first move is not due yet
  expect(await kinds()).toEqual(expect.arrayContaining(["interim", "hose", "campaign"]));
  await db()
    .update(lives)
    .set({ startedAt: new Date(now() - 50 * DAY) })
    .where(eq(lives.componentId, pump.id));
  const exercise = (await dueWork({ most: 100 })).find((d) => d.kind === "exercise")!;
  expect(exercise.dueAt).toBeLessThan(now());
  expect((await dueWork({ most: 100, machineIds: [pump.machineId] })).length).toBeGreaterThan(2);
  expect(await dueWork({ most: 100, machineIds: [uuid()] })).toEqual([]);
  // a plan asks by site, and to its end
  const all = await dueWork({ most: 100 });
  expect(await dueWork({ most: 100, siteId: pump.siteId })).toEqual(all.filter((d) => d.kind !== "calibration"));
  expect(await dueWork({ most: 100, siteId: uuid() })).toEqual([]);
  // booked for now and for a stop that is over: both are late, until they are done
  const soon = await book({ kind: "inspection" });
  const left = await book({ kind: "inspection" });
  const [over] = await db()
    .insert(stops)
    .values({ siteId: pump.siteId, name: "Summer stop", startsOn: "2026-07-01", days: 2, crewHours: 8 })
    .returning();
  await db()
    .update(interventions)
    .set({ stopId: null, bookedAt: new Date(now() - 20 * DAY) })
    .where(eq(interventions.id, soon));
  await db().update(interventions).set({ stopId: over!.id }).where(eq(interventions.id, left));
  const late = (await dueWork({ most: 100 })).filter((d) => d.kind === "booking" || d.kind === "missed");
  expect(late.find((d) => d.id === soon)).toMatchObject({ kind: "booking", to: `/work/${soon}` });
  expect(late.find((d) => d.id === left)).toMatchObject({
    kind: "missed",
    why: expect.stringContaining("Summer stop"),
  });
  for (const d of late.filter((d) => [soon, left].includes(d.id))) expect(d.dueAt).toBeLessThan(now());
  // what waits for its part is not late before the part can be there
  await db().update(components).set({ leadTimeDays: 24, sparesOnHand: 0 }).where(eq(components.id, pump.id));
  await db().update(interventions).set({ kind: "replacement" }).where(eq(interventions.id, soon));
  expect((await dueWork({ most: 100 })).find((d) => d.id === soon)!.dueAt).toBeGreaterThan(now());
  await db()
    .update(interventions)
    .set({ cancelledAt: new Date(now()) })
    .where(inArray(interventions.id, [soon, left]));
  expect((await dueWork({ most: 100 })).some((d) => [soon, left].includes(d.id))).toBe(false);
  // an instrument whose calibration runs out belongs to no site
  const [meter] = await db()
    .insert(instruments)
    .values({
      tag: "X-1",
      name: "Meter",
      quantity: "flow",
      fullScale: 100,
      accuracyClass: 1,
      calibrationDueAt: new Date(now() - DAY),
    })
    .returning();
  expect((await dueWork({ most: 100 })).find((d) => d.id === meter!.id)).toMatchObject({ kind: "calibration" });
  await db()
    .update(instruments)
    .set({ retiredAt: new Date(now()) })
    .where(eq(instruments.id, meter!.id));
  const years = await dueWork({ most: 100, siteId: pump.siteId, until: now() + 7 * 365 * DAY });
  expect(years.length).toBeGreaterThanOrEqual(all.filter((d) => d.kind !== "calibration").length);
  expect(await dueWork({ most: 1, siteId: pump.siteId })).toEqual(
    all.filter((d) => d.kind !== "calibration").slice(0, 1),
  );
  const move = { componentId: pump.id, submission: uuid() };
  await noteMove(move, technician);
  await noteMove(move, technician);
  expect((await dueWork({ most: 100 })).find((d) => d.kind === "exercise")!.dueAt).toBeGreaterThan(now());
  for (const lookAgainOn of ["", "soon", "2026-02-31"])
    expect(await lookedAgain(work, { lookAgainOn }, technician)).toMatchObject({
      ok: false,
      problems: { lookAgainOn: expect.any(String) },
    });
  expect(await lookedAgain(work, { cured: "on" }, technician)).toMatchObject({ ok: true });
  expect(await kinds()).not.toContain("interim");
  const { parts } = await campaignPage(begun.id);
  expect(await closeCampaign(begun.id, engineer)).toMatchObject({ ok: false, because: "conflict" });
  for (const p of parts) {
    const fields = { part: p.id, version: "1", [`result-${p.id}`]: "done", [`marking-${p.id}`]: "K" };
    expect(await settlePart(begun.id, { ...fields, [`marking-${p.id}`]: "" }, technician)).toMatchObject({ ok: false });
    expect(await settlePart(begun.id, fields, technician)).toMatchObject({ ok: true });
    expect(await settlePart(begun.id, fields, technician)).toMatchObject({ ok: false, because: "conflict" });
  }
  expect(await closeCampaign(begun.id, engineer)).toMatchObject({ ok: true });
  expect((await dueWork({ most: 100 })).map((d) => d.what)).not.toContain("Springs");
  const changed = await db()
    .select({ result: campaignParts.result })
    .from(campaignParts)
    .where(eq(campaignParts.campaignId, begun.id));
  expect(changed).toEqual(parts.map(() => ({ result: "done" })));
});
