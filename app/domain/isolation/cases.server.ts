/** Writes about isolations: open one, enter and withdraw results, close it with what was found. */
import { and, desc, eq, isNotNull, isNull, sql } from "drizzle-orm";
import { oddsOf, symptoms, type GaugeEvidence, type Netlist, type PlantKnowledge, type SymptomId } from "@core";
import { db, type Queryable } from "~/db/client.server";
import { circuits, isolationResults, isolations, machines } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import { changedMeanwhile, FORM_IS_OLD, formIsOld, type Answer, type Refused } from "~/domain/answer";
import { diagramIfAny } from "~/domain/circuits/index.server";
import { sentBefore, sentMeanwhile } from "~/domain/sent.server";
import { beginJob, jobOfCircuit } from "~/domain/jobs/index.server";
import { isUuid } from "~/platform/validate";
import { inThreads } from "~/platform/threads.server";
import { now } from "~/runtime/clock.server";
import { caseOf, resultsOf } from "./caseOf.server";
import { plantAdds } from "./plant.server";
import { factsOf } from "./facts.server";
import { leaningsOf } from "./leanings.server";
import { gaugesNow, usualOf } from "./diagnose.server";
import type { EvidenceTask } from "./evidenceTask";

const LONGEST_NOTE = 500;

const evidenceInThread = inThreads<EvidenceTask, GaugeEvidence>(
  "evidence",
  async (task) => (await import("./evidenceTask")).default(task),
  { most: 1 },
);

/** The diagram of a circuit, and what its gauges say where the model fits them. */
async function whatIsKnown(circuitId: string): Promise<{ netlist: Netlist | null; evidence: GaugeEvidence | null }> {
  const diagram = await diagramIfAny(circuitId);
  if (!diagram) return { netlist: null, evidence: null };
  if (!diagram.fit?.fits) return { netlist: diagram.netlist, evidence: null };
  const { gauges, states } = await gaugesNow(circuitId);
  const task = { netlist: diagram.netlist, states, usual: usualOf(diagram), gauges };
  return { netlist: diagram.netlist, evidence: await evidenceInThread(task) };
}

/** So many of the newest closed cases teach. */
const TEACHING = 500;

/** What closed cases of a symptom found, by cause. Ids of suspects are their cause, and where they sat. */
async function taughtBy(symptom: SymptomId): Promise<PlantKnowledge["found"]> {
  const rows = await db()
    .select({ found: isolations.found })
    .from(isolations)
    .where(and(eq(isolations.symptom, symptom), isNotNull(isolations.closedAt)))
    .orderBy(desc(isolations.closedAt))
    .limit(TEACHING);
  const counts: PlantKnowledge["found"] = {};
  for (const id of rows.flatMap((r) => r.found ?? [])) {
    const cause = id.split("@")[0]!;
    counts[cause] = (counts[cause] ?? 0) + 1;
  }
  return counts;
}

/** Open an isolation: what the gauges say is computed in a thread and kept with it. */
export async function openIsolation(fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const problems: Record<string, string> = {};
  const { circuitId = "", symptom = "", submission = "" } = fields;
  if (!Object.hasOwn(symptoms, symptom)) problems.symptom = "Choose what was noticed.";
  if (!isUuid(submission)) problems.form = FORM_IS_OLD;
  const [place] = isUuid(circuitId)
    ? await db()
        .select({ machine: machines.name })
        .from(circuits)
        .innerJoin(machines, eq(machines.id, circuits.machineId))
        .where(and(eq(circuits.id, circuitId), isNull(circuits.retiredAt), isNull(machines.retiredAt)))
    : [];
  if (!place) problems.circuitId = "Choose a circuit that is in use.";
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  const before = await sentBefore(db(), isolations, submission, { circuitId, symptom });
  if (before) return before;
  const [known, taught, facts, added, leanings] = await Promise.all([
    whatIsKnown(circuitId),
    taughtBy(symptom as SymptomId),
    factsOf(circuitId),
    plantAdds(),
    leaningsOf(circuitId),
  ]);
  // without a drawing no cause has a place, and nothing can lean to one
  const plant = known.netlist && leanings.length > 0 ? { ...added, leanings } : added;
  try {
    const id = await db().transaction(async (tx) => {
      const jobId =
        (await jobOfCircuit(tx, fields.job, circuitId)) ??
        (await beginJob(tx, { circuitId, componentId: null, noticed: "" }, actor));
      const [row] = await tx
        .insert(isolations)
        .values({
          circuitId,
          jobId,
          symptom: symptom as SymptomId,
          note: (fields.note ?? "").trim().slice(0, LONGEST_NOTE),
          openedAt: new Date(now()),
          openedBy: actor.name,
          ...known,
          taught,
          plant,
          submission,
        })
        .returning({ id: isolations.id });
      const { tests } = caseOf({ symptom: symptom as SymptomId, taught, plant, ...known });
      const told = facts.filter((f) => tests.some((t) => t.id === f.test));
      if (told.length > 0)
        await tx.insert(isolationResults).values(
          told.map(({ test, result, from }) => ({
            isolationId: row!.id,
            test,
            result,
            enteredAt: new Date(now()),
            enteredBy: from,
          })),
        );
      await audit(tx, actor, {
        what: `began to isolate a fault of ${place!.machine}: ${symptoms[symptom as SymptomId].label.toLowerCase()}`,
        recordId: row!.id,
        after: { symptom, circuitId },
      });
      return row!.id;
    });
    return { ok: true, id };
  } catch (error) {
    const same = await sentMeanwhile(error, isolations, submission, { circuitId, symptom });
    if (same) return same;
    throw error;
  }
}

/** The isolation, locked; undefined: there is none. */
async function locked(tx: Queryable, id: string) {
  const [row] = await tx.select().from(isolations).where(eq(isolations.id, id)).for("update");
  return row;
}

const GONE: Refused = { ok: false, because: "gone", problems: { form: "This isolation is gone." } };
const CLOSED: Refused = {
  ok: false,
  because: "conflict",
  problems: { form: "This isolation is closed. Begin a new one." },
};

/** Enter the result of a test. Sent twice it is there once; a second result of one test stands beside the first. */
export async function enterResult(id: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const { test = "", result = "", submission = "" } = fields;
  if (!isUuid(submission)) return formIsOld();
  return db().transaction(async (tx): Promise<Answer> => {
    const row = await locked(tx, id);
    if (!row) return GONE;
    const before = await sentBefore(tx, isolationResults, submission, { isolationId: id });
    if (before) return before.ok ? { ok: true, id } : before;
    if (row.closedAt) return CLOSED;
    const at = caseOf(row).tests.find((t) => t.id === test);
    if (!at || !Object.hasOwn(at.about.results, result))
      return { ok: false, problems: { result: "Choose what the test showed." } };
    await tx
      .insert(isolationResults)
      .values({ isolationId: id, test, result, enteredAt: new Date(now()), enteredBy: actor.name, submission });
    return { ok: true, id };
  });
}

/** Withdraw a result: it stays on record and counts no more. */
export async function withdrawResult(id: string, resultId: string, actor: Actor): Promise<Answer> {
  if (!isUuid(resultId)) return formIsOld();
  return db().transaction(async (tx): Promise<Answer> => {
    const row = await locked(tx, id);
    if (!row) return GONE;
    if (row.closedAt) return CLOSED;
    await tx
      .update(isolationResults)
      .set({ withdrawnAt: new Date(now()), withdrawnBy: actor.name })
      .where(
        and(
          eq(isolationResults.id, resultId),
          eq(isolationResults.isolationId, id),
          isNull(isolationResults.withdrawnAt),
        ),
      );
    return { ok: true, id };
  });
}

/** A doubt moves every odds: whoever closes the isolation meanwhile is told that it changed. */
const NEXT_VERSION = sql`${isolations.version} + 1`;

/** Leave the gauges out of the evidence, or let them count again. */
export async function doubtGauges(id: string, out: boolean): Promise<Answer> {
  const [row] = await db()
    .update(isolations)
    .set({ gaugesOut: out, version: NEXT_VERSION })
    .where(and(eq(isolations.id, id), isNull(isolations.closedAt)))
    .returning({ id: isolations.id });
  return row ? { ok: true, id } : CLOSED;
}

/** Leave something that the register says out of the evidence, or let it count again. */
export async function doubtLeaning(id: string, place: number, out: boolean): Promise<Answer> {
  return db().transaction(async (tx): Promise<Answer> => {
    const row = await locked(tx, id);
    if (!row) return GONE;
    if (row.closedAt) return CLOSED;
    const { leanings = [] } = row.plant;
    if (!leanings[place]) return formIsOld();
    const plant = { ...row.plant, leanings: leanings.map((l, i) => (i === place ? { ...l, out } : l)) };
    await tx.update(isolations).set({ plant, version: NEXT_VERSION }).where(eq(isolations.id, id));
    return { ok: true, id };
  });
}

/** Close it with what was really found: a suspect, or none of them. */
export async function closeIsolation(id: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const findings = (fields.findings ?? "").trim();
  return db().transaction(async (tx): Promise<Answer> => {
    const row = await locked(tx, id);
    if (!row) return GONE;
    if (row.closedAt) return CLOSED;
    if (String(row.version) !== fields.version) return changedMeanwhile("this isolation");
    const own = caseOf(row);
    const none = fields.found === "none";
    const suspect = own.suspects.findIndex((s) => s.id === fields.found);
    const problems: Record<string, string> = {};
    if (!none && suspect < 0) problems.found = "Choose what it was, or “none of these”.";
    if (none && findings.length < 5) problems.findings = "Say what it was then: it is of use to the next one.";
    if (Object.keys(problems).length > 0) return { ok: false, problems };
    const odds = oddsOf(own, await resultsOf(tx, id), { gauges: row.gaugesOut });
    await tx
      .update(isolations)
      .set({
        closedAt: new Date(now()),
        closedBy: actor.name,
        found: none ? [] : [own.suspects[suspect]!.id],
        foundText: none ? "None of what was suspected" : own.suspects[suspect]!.text,
        foundOdds: none ? odds.other : odds.suspects[suspect]!,
        findings: findings.slice(0, LONGEST_NOTE),
        version: NEXT_VERSION,
      })
      .where(eq(isolations.id, id));
    await audit(tx, actor, {
      what: `closed an isolation: ${none ? "none of what was suspected" : own.suspects[suspect]!.text}`,
      recordId: id,
      after: { found: fields.found, findings },
    });
    return { ok: true, id };
  });
}
