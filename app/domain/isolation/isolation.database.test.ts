/** Isolations against a database: nothing is doubled or lost, what was wrong stays on record, closed cases teach. */
import { eq } from "drizzle-orm";
import { users } from "~/db/peopleTables";
import {
  campaignParts,
  campaigns,
  circuitDiagnoses,
  circuits,
  components,
  isolationResults,
  isolations,
  practiceRuns,
  sites,
  testRecords,
} from "~/db/schema";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { ownDatabase } from "~/db/testDatabase";
import { actorNamed } from "~/domain/access/testActor";
import { machineFromTemplate } from "~/domain/assets/template.server";
import { closeQueue } from "~/platform/jobs.server";
import { casePage } from "./casePage.server";
import { closeIsolation, doubtGauges, doubtLeaning, enterResult, openIsolation, withdrawResult } from "./cases.server";
import { diagnoseStaleCircuits } from "./diagnose.server";
import { addKnowledge, plantEntries, retireKnowledge } from "./plant.server";
import { adviseTestPoints, askTestPoints, testPointsPage } from "./testPoints.server";
import { faultPage, isolationsListed } from "./place.server";
import { beginPractice, practiceName, practicePage, practiceTest } from "./practice.server";
import { Missing } from "~/platform/missing";

let drop: () => Promise<void>;
let circuitId = "";
const engineer = actorNamed("R. Oduya");

beforeAll(async () => {
  drop = await ownDatabase("isolation");
  await migrateDatabase();
  await machineFromTemplate(
    {
      template: "loadHolding",
      name: "Tail lift",
      tag: "TL-1",
      site: "North yard",
      timeZone: "Europe/London",
      displacement: "22",
      speed: "1450",
      pressure: "160 bar",
      oil: "VG 46",
    },
    engineer,
  );
  const [circuit] = await db().select({ id: circuits.id }).from(circuits);
  circuitId = circuit!.id;
}, 60_000);
afterAll(async () => {
  await closeQueue();
  await closeConnections();
  await drop();
});

async function opened(symptom = "creeps"): Promise<string> {
  const done = await openIsolation({ circuitId, symptom, submission: crypto.randomUUID() }, engineer);
  if (!done.ok) throw new Error(JSON.stringify(done.problems));
  return done.id;
}
const enter = (id: string, test: string, result: string, submission = crypto.randomUUID() as string) =>
  enterResult(id, { test, result, submission }, engineer);

test("a symptom that is none, a circuit that is none, a form that is old: said beside the field", async () => {
  const answer = await openIsolation({ circuitId: "none", symptom: "purple", submission: "1" }, engineer);
  expect(answer).toMatchObject({
    ok: false,
    problems: { symptom: expect.any(String), circuitId: expect.any(String), form: expect.any(String) },
  });
});

test("sent twice at once, it is begun once", async () => {
  const fields = { circuitId, symptom: "slow", submission: crypto.randomUUID() };
  const [a, b] = await Promise.all([openIsolation(fields, engineer), openIsolation(fields, engineer)]);
  expect(a).toEqual(b);
});

test("results keep their order, one that was wrong stays on record, and the odds go back", async () => {
  const id = await opened();
  const before = await casePage(id);
  const best = before.best!;
  expect((await enter(id, "nonsense", "high")).ok).toBe(false);
  expect((await enter(id, best.id, "purple")).ok).toBe(false);
  const submission = crypto.randomUUID();
  await Promise.all([
    enter(id, best.id, best.results[1]!.value, submission),
    enter(id, best.id, best.results[1]!.value, submission),
  ]);
  const after = await casePage(id);
  expect(after.evidence).toHaveLength(1);
  expect(after.suspects[0]!.before).not.toBeNull();
  expect(after.best?.id).not.toBe(best.id);
  await withdrawResult(id, after.evidence[0]!.id, engineer);
  const undone = await casePage(id);
  expect(undone.evidence[0]).toMatchObject({ withdrawn: true });
  expect(undone.suspects.map((s) => [s.id, s.now])).toEqual(before.suspects.map((s) => [s.id, s.now]));
  expect(await db().select().from(isolationResults).where(eq(isolationResults.isolationId, id))).toHaveLength(1);
});

test("two people close it: the second is told, and a closed case takes no result", async () => {
  const id = await opened();
  const { version, suspects } = await casePage(id);
  const found = suspects[0]!.id;
  expect(await closeIsolation(id, { version: String(version), found: "" }, engineer)).toMatchObject({
    problems: { found: expect.any(String) },
  });
  expect(await closeIsolation(id, { version: String(version), found: "none" }, engineer)).toMatchObject({
    problems: { findings: expect.any(String) },
  });
  expect((await closeIsolation(id, { version: "99", found }, engineer)).ok).toBe(false);
  expect((await closeIsolation(id, { version: String(version), found }, engineer)).ok).toBe(true);
  expect(await closeIsolation(id, { version: String(version), found }, engineer)).toMatchObject({
    because: "conflict",
  });
  expect(await enter(id, "ask.lately", "nothing")).toMatchObject({ because: "conflict" });
  expect(await doubtGauges(id, true)).toMatchObject({ ok: false });
  expect((await isolationsListed()).find((c) => c.id === id)).toMatchObject({ found: suspects[0]!.text });
});

test("what closed cases found counts in the next one of that symptom, and in no other", async () => {
  for (let i = 0; i < 3; i++) {
    const id = await opened("dropsLate");
    const { every } = await casePage(id);
    const released = every.find((s) => s.id.startsWith("holding.released"))!;
    await closeIsolation(id, { version: "1", found: released.id }, engineer);
  }
  const [taught] = await db()
    .select()
    .from(isolations)
    .where(eq(isolations.id, await opened("dropsLate")));
  expect(taught!.taught).toEqual({ "holding.released": 3 });
  const [other] = await db()
    .select()
    .from(isolations)
    .where(eq(isolations.id, await opened("harsh")));
  expect(other!.taught).toEqual({});
});

test("a circuit without readings is not diagnosed, and says why", async () => {
  await db().insert(circuitDiagnoses).values({ circuitId }).onConflictDoNothing();
  await diagnoseStaleCircuits();
  expect(await faultPage(circuitId)).toMatchObject({ none: "nothing drawn", stale: false, detail: null });
  expect(await faultPage("00000000-0000-4000-8000-000000000000")).toBeUndefined();
});

test("practice: a test is made once, a name ends it, and it is its owner's alone", async () => {
  const [person] = await db()
    .insert(users)
    .values({ name: "T. Wren", signIn: "wren", passwordHash: "none", role: "technician" })
    .returning();
  const refused = await beginPractice({ level: "9", seed: "0", submission: crypto.randomUUID() }, person!);
  expect(refused).toMatchObject({ problems: { level: expect.any(String), seed: expect.any(String) } });
  const begun = await beginPractice({ level: "1", seed: "5", submission: crypto.randomUUID() }, person!);
  if (!begun.ok) throw new Error("not begun");
  const { tests, suspects } = await practicePage(begun.id, person!.id);
  await Promise.all([practiceTest(begun.id, tests[0]!.id, person!), practiceTest(begun.id, tests[0]!.id, person!)]);
  expect((await practicePage(begun.id, person!.id)).made).toHaveLength(1);
  expect((await practiceName(begun.id, "nonsense", person!)).ok).toBe(false);
  expect((await practiceName(begun.id, suspects[0]!.id, person!)).ok).toBe(true);
  expect(await practiceTest(begun.id, tests[1]!.id, person!)).toMatchObject({ because: "conflict" });
  expect((await practicePage(begun.id, person!.id)).over).not.toBeNull();
  await expect(practicePage(begun.id, crypto.randomUUID())).rejects.toThrow(Missing);
});

test("of practice the newest 200 runs of a person are kept, and nobody else's go", async () => {
  const [busy, other] = await db()
    .insert(users)
    .values(
      ["busy", "other"].map((signIn) => ({ name: signIn, signIn, passwordHash: "none", role: "technician" as const })),
    )
    .returning();
  const old = (personId: string) => ({ personId, level: 1 as const, seed: 5, startedAt: new Date(2020, 0, 1) });
  await db()
    .insert(practiceRuns)
    .values([old(other!.id), ...Array.from({ length: 205 }, () => old(busy!.id))]);
  const begun = await beginPractice({ level: "1", seed: "5", submission: crypto.randomUUID() }, busy!);
  const left = (personId: string) => db().$count(practiceRuns, eq(practiceRuns.personId, personId));
  expect([await left(busy!.id), await left(other!.id)]).toEqual([200, 1]);
  if (!begun.ok) throw new Error("not begun");
  expect(await practicePage(begun.id, busy!.id)).toBeDefined();
});

test("who closes an isolation whose gauges were doubted meanwhile is told, and closes it on a second look", async () => {
  const id = await opened("dropsLate");
  const { version } = await casePage(id);
  await doubtGauges(id, true);
  const none = { found: "none", findings: "A hose kinked behind the panel." };
  expect(await closeIsolation(id, { ...none, version: String(version) }, engineer)).toMatchObject({ ok: false });
  const { version: seen } = await casePage(id);
  expect(await closeIsolation(id, { ...none, version: String(seen) }, engineer)).toMatchObject({ ok: true });
});

test("what the plant adds counts from then on, once, and an open isolation keeps what held when it began", async () => {
  const fields = {
    kind: "cause",
    label: "Hand lever of the tail lift not in its notch",
    part: "holding",
    symptom0: "creeps",
    rank0: "often",
    do: "restore",
    act: "Put the lever into its notch",
    minutes: "2",
    basis: "told by the night shift",
    submission: crypto.randomUUID(),
  };
  const before = await opened();
  const added = await addKnowledge(fields, engineer);
  expect(added.ok).toBe(true);
  expect(await addKnowledge(fields, engineer)).toEqual(added);
  expect(await plantEntries()).toHaveLength(1);
  const named = (page: Awaited<ReturnType<typeof casePage>>) => page.every.filter((s) => s.text.includes("lever"));
  expect(named(await casePage(before))).toHaveLength(0);
  const after = await opened();
  expect(named(await casePage(after))).toHaveLength(1);
  if (added.ok) await retireKnowledge(added.id, engineer);
  expect(named(await casePage(after))).toHaveLength(1);
  expect(named(await casePage(await opened()))).toHaveLength(0);
});

test("a guided test made meanwhile is offered, and taken in where somebody says so", async () => {
  const id = await opened("runsHot");
  const page = await casePage(id);
  expect(page.guided).toEqual([]);
  const [relief] = await db().select().from(components).where(eq(components.kind, "reliefValve"));
  await db()
    .insert(testRecords)
    .values({
      componentId: relief!.id,
      test: "heat-survey",
      at: new Date(Date.now() + 1000),
      typed: {},
      outcome: { answer: [], tone: "bad", working: { rows: [] } } as never,
      by: "A. Ferreira",
      submission: crypto.randomUUID(),
    });
  const [offered] = (await casePage(id)).guided;
  expect(offered).toMatchObject({ test: `heat.relief@${relief!.id}`, result: "hot", by: "A. Ferreira" });
  await enter(id, offered!.test, offered!.result);
  expect((await casePage(id)).guided).toEqual([]);
  // the next isolation of this circuit knows it by itself
  const next = await casePage(await opened("runsHot"));
  expect(next.evidence.map((e) => e.by)).toContain("a guided test, A. Ferreira");
});

test("test points are worked out when asked, and said to be none where there is no circuit", async () => {
  expect((await testPointsPage(circuitId))!.asked).toBe(false);
  expect(await askTestPoints(circuitId)).toMatchObject({ ok: true });
  expect(await testPointsPage(circuitId)).toMatchObject({ asked: true, madeAt: null });
  await adviseTestPoints(circuitId);
  const page = await testPointsPage(circuitId);
  expect(page!.failure).toBeNull();
  expect(page!.madeAt).not.toBeNull();
  expect(page!.advice!.cases).toBeGreaterThan(0);
  expect(await askTestPoints(crypto.randomUUID())).toMatchObject({ ok: false, because: "gone" });
}, 240_000);

test("an open bulletin and what parts of the model had stand in the evidence, and can be taken out", async () => {
  const [cylinder] = await db().select().from(components).where(eq(components.kind, "cylinder"));
  await db().update(components).set({ model: "EC 80" }).where(eq(components.id, cylinder!.id));
  const first = await opened("creeps");
  const before = await casePage(first);
  expect(before.leanings).toEqual([]);
  const suspect = before.every.find((s) => s.id.endsWith(`@${cylinder!.id}`))!;
  const share = (page: Awaited<ReturnType<typeof casePage>>) =>
    page.suspects.find((s) => s.id === suspect.id)?.now ?? 0;
  const closed = await closeIsolation(
    first,
    { found: suspect.id, findings: "Seal renewed.", version: String(before.version) },
    engineer,
  );
  expect(closed).toMatchObject({ ok: true });
  const [site] = await db().select({ id: sites.id }).from(sites);
  const [campaign] = await db()
    .insert(campaigns)
    .values({
      siteId: site!.id,
      title: "Seals that swell",
      bulletin: "SB 4",
      marking: "K",
      madeBy: engineer.name,
      madeAt: new Date(),
      submission: crypto.randomUUID(),
    })
    .returning();
  await db().insert(campaignParts).values({ campaignId: campaign!.id, componentId: cylinder!.id });
  const second = await opened("creeps");
  const page = await casePage(second);
  expect(page.leanings.map((l) => l.text)).toEqual([
    expect.stringMatching(/^A bulletin is open for .*: Seals that swell \(SB 4\)$/),
    expect.stringMatching(/^One of this model \(EC 80\) had it: /),
  ]);
  expect(share(page)).toBeGreaterThan(share(before));
  for (const place of [0, 1]) expect(await doubtLeaning(second, place, true)).toMatchObject({ ok: true });
  const without = await casePage(second);
  expect(without.leanings.every((l) => l.out)).toBe(true);
  expect(share(without)).toBeLessThan(share(page));
  expect(await doubtLeaning(second, 1, false)).toMatchObject({ ok: true });
  expect(share(await casePage(second))).toBeGreaterThan(share(without));
  expect(await doubtLeaning(second, 7, true)).toMatchObject({ ok: false });
  expect(await doubtLeaning(first, 0, true)).toMatchObject({ ok: false, because: "conflict" });
  expect(await doubtLeaning(crypto.randomUUID(), 0, true)).toMatchObject({ ok: false, because: "gone" });
});
