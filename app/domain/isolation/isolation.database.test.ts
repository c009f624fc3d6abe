/** Isolations against a database: nothing is doubled or lost, what was wrong stays on record, closed cases teach. */
import { eq } from "drizzle-orm";
import { users } from "~/db/peopleTables";
import { circuitDiagnoses, circuits, isolationResults, isolations } from "~/db/schema";
import { closeConnections, db, migrateDatabase } from "~/db/client.server";
import { ownDatabase } from "~/db/testDatabase";
import { actorNamed } from "~/domain/access/testActor";
import { machineFromTemplate } from "~/domain/assets/template.server";
import { closeQueue } from "~/platform/jobs.server";
import { casePage } from "./casePage.server";
import { closeIsolation, doubtGauges, enterResult, openIsolation, withdrawResult } from "./cases.server";
import { diagnoseStaleCircuits } from "./diagnose.server";
import { faultPage, isolationsListed } from "./place.server";
import { beginPractice, practiceName, practicePage, practiceTest } from "./practice.server";

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
  expect(await closeIsolation(id, { version: String(version), found }, engineer)).toMatchObject({ status: 409 });
  expect(await enter(id, "ask.lately", "nothing")).toMatchObject({ status: 409 });
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
  expect(await practiceTest(begun.id, tests[1]!.id, person!)).toMatchObject({ status: 409 });
  expect((await practicePage(begun.id, person!.id)).over).not.toBeNull();
  await expect(practicePage(begun.id, crypto.randomUUID())).rejects.toMatchObject({ init: { status: 404 } });
});
