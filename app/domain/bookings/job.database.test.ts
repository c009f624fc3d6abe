/** A job from the complaint to its end: what begins one, what belongs to it, where it stands, who may end it. */
import { eq } from "drizzle-orm";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { interventions, isolations, jobs } from "~/db/schema";
import { ownDatabase } from "~/db/testDatabase";
import { caseOf, closeIsolation, enterResult, openIsolation } from "~/domain/isolation/index.server";
import { closeJob, complain, reopenJob } from "~/domain/jobs/index.server";
import { addPlant, ENGINEER, TECHNICIAN, type Plant } from "~/domain/testPlant";
import { Missing } from "~/platform/missing";
import { closeQueue } from "~/platform/jobs.server";
import { bookWork, changeWork, finishWork } from "./commands.server";
import { jobList, jobPage } from "./job.server";

let plant: Plant;
let other: Plant;
let dropDatabase: () => Promise<void>;
const uuid = () => crypto.randomUUID();
const idOf = (done: { ok: true; id: string } | { ok: false; problems: Record<string, string> }) => {
  if (!done.ok) throw new Error(JSON.stringify(done.problems));
  return done.id;
};
const complaint = (change: Record<string, string> = {}) => ({
  circuitId: plant.circuit,
  componentId: "",
  noticed: "Jacks slow, tank hot",
  submission: uuid(),
  ...change,
});
const booking = (change: Record<string, string> = {}) => ({
  componentId: plant.pump,
  kind: "repair",
  stopId: "",
  crewHours: "3",
  again: "on",
  note: "Pump looked at",
  submission: uuid(),
  ...change,
});
const jobOf = async (work: string) =>
  (await db().select({ job: interventions.jobId }).from(interventions).where(eq(interventions.id, work)))[0]!.job;

beforeAll(async () => {
  dropDatabase = await ownDatabase("jobs");
  await migrateDatabase();
  plant = await addPlant("JO");
  other = await addPlant("JP");
});
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await dropDatabase();
});

describe("a complaint", () => {
  test.each([
    ["nothing noticed", { noticed: "  " }, "noticed"],
    ["no machine", { circuitId: "" }, "circuitId"],
    ["a machine that is not there", { circuitId: uuid() }, "circuitId"],
    ["an old form", { submission: "" }, "submission"],
  ])("%s is refused beside its field", async (_, change, field) => {
    const done = await complain(complaint(change), TECHNICIAN);
    expect(done.ok ? [] : Object.keys(done.problems)).toEqual([field]);
  });
  test("about a part of another circuit is refused", async () => {
    const done = await complain(complaint({ componentId: other.pump }), TECHNICIAN);
    expect(done).toMatchObject({ ok: false, problems: { componentId: expect.any(String) } });
  });
  test("sent twice at once is one job; another complaint is another", async () => {
    const form = complaint();
    const [a, b] = await Promise.all([complain(form, TECHNICIAN), complain(form, TECHNICIAN)]);
    expect(idOf(a)).toBe(idOf(b));
    expect(idOf(await complain(complaint(), TECHNICIAN))).not.toBe(idOf(a));
  });
});

test("a job goes from the complaint over its isolation and its work to the end, and one page has it all", async () => {
  const job = idOf(await complain(complaint({ componentId: plant.pump }), TECHNICIAN));
  expect((await jobPage(job)).stand.here).toBe("cause");
  const isolation = idOf(
    await openIsolation({ circuitId: plant.circuit, symptom: "slow", job, submission: uuid() }, TECHNICIAN),
  );
  const [row] = await db().select().from(isolations).where(eq(isolations.id, isolation));
  expect(row!.jobId).toBe(job);
  const [first] = caseOf(row!).tests;
  const [result, words] = Object.entries(first!.about.results)[0]!;
  await enterResult(isolation, { test: first!.id, result, submission: uuid() }, TECHNICIAN);
  const begun = await jobPage(job);
  expect(begun.stand.here).toBe("cause");
  expect(begun.causes).toMatchObject([{ id: isolation, closed: false, results: 1 }]);
  expect(
    begun.events
      .map((e) => e.text)
      .join("\n")
      .toLowerCase(),
  ).toContain(words.toLowerCase());
  const { version } = (await db().select().from(isolations).where(eq(isolations.id, isolation)))[0]!;
  const closed = await closeIsolation(
    isolation,
    { found: caseOf(row!).suspects[0]!.id, findings: "Case drain 4 L/min", version: String(version) },
    TECHNICIAN,
  );
  expect(closed).toMatchObject({ ok: true });
  expect((await jobPage(job)).stand.here).toBe("decided");
  const work = idOf(await bookWork(booking({ origin: "isolation", originId: isolation }), ENGINEER));
  expect(await jobOf(work)).toBe(job);
  expect((await jobPage(job)).stand.here).toBe("done");
  const finished = await finishWork(
    work,
    "Europe/London",
    { doneAt: "2026-11-23T10:00", hours: "4000", findings: "Shaft seal and plate renewed", version: "1" },
    ENGINEER,
  );
  expect(finished).toMatchObject({ ok: true });
  const page = await jobPage(job);
  expect(page.stand.here).toBe("proven");
  expect(page.events.map((e) => e.at)).toEqual(page.events.map((e) => e.at).sort((a, b) => a - b));
  expect((await jobList()).open.find((j) => j.id === job)).toMatchObject({ here: "proven" });
});

test("an isolation and work that come from nothing begin a job of their own; one from a job joins it", async () => {
  const alone = idOf(await openIsolation({ circuitId: plant.circuit, symptom: "slow", submission: uuid() }, ENGINEER));
  const [row] = await db().select().from(isolations).where(eq(isolations.id, alone));
  expect((await jobPage(row!.jobId!)).noticed.length).toBeGreaterThan(3);
  const job = idOf(await complain(complaint(), TECHNICIAN));
  expect(await jobOf(idOf(await bookWork(booking({ origin: "job", originId: job }), ENGINEER)))).toBe(job);
  const bare = await jobOf(idOf(await bookWork(booking(), ENGINEER)));
  expect(bare).not.toBe(job);
  expect(await jobPage(bare!)).toMatchObject({ noticed: "Pump looked at", component: expect.any(String) });
});

test("a job of another machine is not joined", async () => {
  const job = idOf(await complain(complaint({ circuitId: other.circuit }), TECHNICIAN));
  const work = idOf(await bookWork(booking({ origin: "job", originId: job }), ENGINEER));
  expect(await jobOf(work)).not.toBe(job);
  const isolation = idOf(
    await openIsolation({ circuitId: plant.circuit, symptom: "slow", job, submission: uuid() }, ENGINEER),
  );
  expect((await db().select().from(isolations).where(eq(isolations.id, isolation)))[0]!.jobId).not.toBe(job);
});

test("cancelled work leaves the job open, to be decided anew", async () => {
  const job = idOf(await complain(complaint(), TECHNICIAN));
  const work = idOf(await bookWork(booking({ origin: "job", originId: job }), ENGINEER));
  expect(await changeWork(work, { intent: "cancel", version: "1" }, ENGINEER)).toMatchObject({ ok: true });
  const page = await jobPage(job);
  expect(page.stand.here).toBe("cause");
  expect(page.events.map((e) => e.text)).toContainEqual(expect.stringContaining("cancelled"));
  expect((await jobList()).open.map((j) => j.id)).toContain(job);
});

test("it is not closed while its work is booked or its isolation is open", async () => {
  const job = idOf(await complain(complaint(), TECHNICIAN));
  const work = idOf(await bookWork(booking({ origin: "job", originId: job }), ENGINEER));
  const close = () => closeJob(job, { because: "Nothing found" }, TECHNICIAN);
  expect(await close()).toMatchObject({ because: "conflict", problems: { form: expect.stringContaining("work") } });
  await changeWork(work, { intent: "cancel", version: "1" }, ENGINEER);
  idOf(await openIsolation({ circuitId: plant.circuit, symptom: "slow", job, submission: uuid() }, TECHNICIAN));
  expect(await close()).toMatchObject({
    because: "conflict",
    problems: { form: expect.stringContaining("isolation") },
  });
  expect((await jobPage(job)).closedAt).toBeNull();
});

test("it is closed by hand with a reason, once, and opened again", async () => {
  const job = idOf(await complain(complaint(), TECHNICIAN));
  expect(await closeJob(job, { because: " " }, TECHNICIAN)).toMatchObject({
    problems: { because: expect.any(String) },
  });
  expect(await closeJob(job, { because: "The gauge was wrong" }, TECHNICIAN)).toMatchObject({ ok: true });
  expect(await closeJob(job, { because: "Another reason" }, ENGINEER)).toMatchObject({ ok: true });
  expect(await jobPage(job)).toMatchObject({ closedBecause: "The gauge was wrong", stand: { here: null } });
  expect((await jobList()).over.map((j) => j.id)).toContain(job);
  expect(await reopenJob(job, TECHNICIAN)).toMatchObject({ ok: true });
  expect((await jobPage(job)).stand.here).toBe("cause");
  expect(await closeJob(uuid(), { because: "gone" }, TECHNICIAN)).toMatchObject({ because: "gone" });
  await expect(jobPage(uuid())).rejects.toThrow(Missing);
});

test("numbers count on, and no two jobs share one", async () => {
  const all = await db().select({ number: jobs.number }).from(jobs);
  expect(new Set(all.map((j) => j.number)).size).toBe(all.length);
});
