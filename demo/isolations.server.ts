/** Isolations of the harbour, entered as people would have: two that were closed, one that is open. */
import { eq } from "drizzle-orm";
import { DAY, drawPractice, practiceCase, type PracticeLevel, type SymptomId, type TestId } from "@core";
import { db } from "~/db/client.server";
import { users } from "~/db/peopleTables";
import { circuits, isolationResults, isolations, jobs, machines, practiceRuns } from "~/db/schema";
import {
  beginPractice,
  caseOf,
  closeIsolation,
  enterResult,
  openIsolation,
  practiceName,
  practiceTest,
} from "~/domain/isolation/index.server";

const MINUTE = 60_000;

interface Told {
  machine: string;
  symptom: SymptomId;
  daysAgo: number;
  note: string;
  results: [TestId, string][];
  found?: { cause: string; findings: string };
}

const told: Told[] = [
  {
    machine: "SL-1",
    symptom: "noShift",
    daysAgo: 96,
    note: "Commanded from the panel, nothing moved.",
    results: [
      ["ask.stood", "yes"],
      ["volt.coil", "both"],
      ["drive.override", "refuses"],
    ],
    found: {
      cause: "valve.seized",
      findings:
        "Spool moved by hand with clean oil until it came back by itself; varnish on it. Exercise plan asked for.",
    },
  },
  {
    machine: "RR-2",
    symptom: "slow",
    daysAgo: 41,
    note: "Luffing took half as long again.",
    results: [["look.level", "low"]],
    found: {
      cause: "fluid.low",
      findings: "A union at the filter wept. Tightened, 6 L filled through the filter cart.",
    },
  },
  {
    machine: "RR-1",
    symptom: "dropsLate",
    daysAgo: 1,
    note: "Came down a hand's width after an hour on the hook.",
    results: [["look.release", "shut"]],
  },
];

/** Cases that people practised on: right by the best path, and wrong after opening too early. */
const practised = [
  {
    who: "technician",
    level: "1",
    seed: "12",
    daysAgo: 20,
    tests: ["look.level", "ask.lately", "listen.pump"],
    right: true,
  },
  { who: "technician", level: "2", seed: "40", daysAgo: 13, tests: ["look.leaks", "oil.sample"], right: false },
  {
    who: "engineer",
    level: "3",
    seed: "7",
    daysAgo: 6,
    tests: ["ask.lately", "look.level", "oil.sample"],
    right: true,
  },
];

/** Practice results of the people who sign in. */
export async function loadPractice(now: number): Promise<void> {
  for (const p of practised) {
    const [person] = await db().select().from(users).where(eq(users.signIn, p.who));
    if (!person) continue;
    const begun = await beginPractice({ level: p.level, seed: p.seed, submission: crypto.randomUUID() }, person);
    if (!begun.ok) throw new Error(Object.values(begun.problems).join(" "));
    for (const test of p.tests) await practiceTest(begun.id, test, person);
    const [level, seed] = [Number(p.level) as PracticeLevel, Number(p.seed)];
    const { own, truth } = practiceCase(drawPractice(level, seed), level, seed)!;
    const named = p.right ? truth : (truth + 1) % own.suspects.length;
    await practiceName(begun.id, own.suspects[named]!.id, person);
    const startedAt = new Date(now - p.daysAgo * DAY);
    await db()
      .update(practiceRuns)
      .set({ startedAt, endedAt: new Date(startedAt.getTime() + 9 * MINUTE) })
      .where(eq(practiceRuns.id, begun.id));
  }
}

/** Begin, walk and, where it was found, close each of them; then give them the dates on which they were. */
export async function loadIsolations(technician: string, now: number): Promise<void> {
  const actor = { id: null, name: technician, role: "technician" as const };
  for (const t of told) {
    const [circuit] = await db()
      .select({ id: circuits.id })
      .from(circuits)
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .where(eq(machines.tag, t.machine));
    // a part of the harbour may be loaded without it
    if (!circuit) continue;
    const submission = crypto.randomUUID();
    const opened = await openIsolation({ circuitId: circuit.id, symptom: t.symptom, note: t.note, submission }, actor);
    if (!opened.ok) throw new Error(Object.values(opened.problems).join(" "));
    const { id } = opened;
    const [row] = await db().select().from(isolations).where(eq(isolations.id, id));
    const own = caseOf(row!);
    for (const [test, result] of t.results) {
      const at = own.tests.find((x) => x.test === test)!;
      await enterResult(id, { test: at.id, result, submission: crypto.randomUUID() }, actor);
    }
    const found = own.suspects.find((s) => s.cause === t.found?.cause);
    if (t.found && found)
      await closeIsolation(id, { found: found.id, findings: t.found.findings, version: "1" }, actor);
    const openedAt = new Date(now - t.daysAgo * DAY);
    await db().update(jobs).set({ openedAt }).where(eq(jobs.id, row!.jobId!));
    await db()
      .update(isolations)
      .set({ openedAt, ...(t.found && { closedAt: new Date(openedAt.getTime() + 95 * MINUTE) }) })
      .where(eq(isolations.id, id));
    await db()
      .update(isolationResults)
      .set({ enteredAt: new Date(openedAt.getTime() + 20 * MINUTE) })
      .where(eq(isolationResults.isolationId, id));
  }
}
