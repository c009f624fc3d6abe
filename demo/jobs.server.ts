/** Jobs of the harbour: one for each piece of work that was stored as history, and two complaints of this morning. */
import { asc, eq, isNull, sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { circuits, components, interventions, jobs, machines } from "~/db/schema";
import type { Actor } from "~/domain/access/index.server";
import { openIsolation } from "~/domain/isolation/index.server";
import { complain } from "~/domain/jobs/index.server";

/** Give what has none its job, in the order in which it was booked. */
async function giveJobs(): Promise<void> {
  const rows = await db()
    .select({
      id: interventions.id,
      componentId: interventions.componentId,
      circuitId: components.circuitId,
      openedAt: interventions.bookedAt,
      openedBy: interventions.bookedBy,
    })
    .from(interventions)
    .innerJoin(components, eq(components.id, interventions.componentId))
    .where(isNull(interventions.jobId))
    .orderBy(asc(interventions.bookedAt), asc(interventions.id));
  if (rows.length === 0) return;
  await db().insert(jobs).values(rows);
  // a job of history bears the id of its work
  await db()
    .update(interventions)
    .set({ jobId: sql`${interventions.id}` })
    .where(isNull(interventions.jobId));
}

/** Undefined: a part of the harbour is loaded without it. */
async function circuitOf(tag: string): Promise<string | undefined> {
  const [row] = await db()
    .select({ id: circuits.id })
    .from(circuits)
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .where(eq(machines.tag, tag))
    .orderBy(asc(circuits.name))
    .limit(1);
  return row?.id;
}

/** What was noticed this morning: once only told, once already being isolated. */
export async function loadJobs(technician: Actor): Promise<void> {
  await giveJobs();
  const told = async (tag: string, noticed: string) => {
    const circuitId = await circuitOf(tag);
    if (!circuitId) return undefined;
    const done = await complain({ circuitId, noticed, submission: crypto.randomUUID() }, technician);
    if (!done.ok) throw new Error(JSON.stringify(done.problems));
    return { circuitId, job: done.id };
  };
  await told("SL-2", "Jerks when it starts to lift, since the cold night.");
  const slow = await told("QC-3", "Slow in every movement since Monday, the tank hot to the hand.");
  if (!slow) return;
  const begun = await openIsolation(
    { ...slow, symptom: "slow", note: "", submission: crypto.randomUUID() },
    technician,
  );
  if (!begun.ok) throw new Error(JSON.stringify(begun.problems));
}
