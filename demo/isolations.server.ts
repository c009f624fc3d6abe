/** Isolations of the harbour, entered as people would have: two that were closed, one that is open. */
import { eq } from "drizzle-orm";
import type { SymptomId, TestId } from "@core";
import { db } from "~/db/client.server";
import { circuits, isolationResults, isolations, machines } from "~/db/schema";
import { caseOf, closeIsolation, enterResult, openIsolation } from "~/domain/isolation/index.server";

const DAY = 86_400_000;
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

/** Begin, walk and, where it was found, close each of them; then give them the dates on which they were. */
export async function loadIsolations(technician: string, now: number): Promise<void> {
  const actor = { id: null, name: technician, role: "technician" as const };
  for (const t of told) {
    const [circuit] = await db()
      .select({ id: circuits.id })
      .from(circuits)
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .where(eq(machines.tag, t.machine));
    const submission = crypto.randomUUID();
    const opened = await openIsolation({ circuitId: circuit!.id, symptom: t.symptom, note: t.note, submission }, actor);
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
