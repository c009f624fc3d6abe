/** Jobs begun and ended: what is noticed, by whoever stands there. */
import { and, eq, inArray, isNull } from "drizzle-orm";
import { object, string } from "yup";
import { db, type Queryable } from "~/db/client.server";
import { circuits, components, interventions, isolations, jobs, machines } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import { FORM_IS_OLD, type Answer } from "~/domain/answer";
import { sentBefore, sentMeanwhile } from "~/domain/sent.server";
import { check, isUuid } from "~/platform/validate";
import { now } from "~/runtime/clock.server";

export interface Begun {
  circuitId: string;
  componentId: string | null;
  noticed: string;
}

/** A job for what begins here, in the transaction that stores it. */
export async function beginJob(tx: Queryable, begun: Begun, actor: Pick<Actor, "name">): Promise<string> {
  const [job] = await tx
    .insert(jobs)
    .values({ ...begun, openedAt: new Date(now()), openedBy: actor.name })
    .returning({ id: jobs.id });
  return job!.id;
}

/** One job a component, for many at once. */
export async function beginJobs(
  tx: Queryable,
  componentIds: readonly string[],
  actor: Pick<Actor, "name">,
): Promise<Map<string, string>> {
  const places = await tx
    .select({ id: components.id, circuitId: components.circuitId })
    .from(components)
    .where(inArray(components.id, [...componentIds]));
  const circuitOf = new Map(places.map((p) => [p.id, p.circuitId]));
  const rows = componentIds.map((componentId) => ({
    componentId,
    circuitId: circuitOf.get(componentId)!,
    openedAt: new Date(now()),
    openedBy: actor.name,
  }));
  const made = await tx.insert(jobs).values(rows).returning({ id: jobs.id, componentId: jobs.componentId });
  return new Map(made.map((j) => [j.componentId!, j.id]));
}

/** The job that is meant, where it is one of this circuit; undefined: begin one. */
export async function jobOfCircuit(
  tx: Queryable,
  id: string | undefined,
  circuitId: string,
): Promise<string | undefined> {
  if (!isUuid(id)) return undefined;
  const [job] = await tx
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.id, id), eq(jobs.circuitId, circuitId)));
  return job?.id;
}

const complaintSchema = object({
  circuitId: string().uuid("Choose the machine.").required("Choose the machine."),
  componentId: string().default(""),
  noticed: string().trim().required("Say what was noticed.").max(500, "At most 500 characters."),
  submission: string().uuid(FORM_IS_OLD).required(FORM_IS_OLD),
});

/** A machine is here with a complaint. The same form sent twice is one job. */
export async function complain(fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const checked = await check(complaintSchema, fields);
  if (!checked.ok) return { ok: false, problems: checked.problems };
  const { circuitId, noticed, submission } = checked.values;
  const componentId = isUuid(checked.values.componentId) ? checked.values.componentId : null;
  const [place] = await db()
    .select({ machine: machines.name, component: components.id })
    .from(circuits)
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .leftJoin(
      components,
      and(eq(components.circuitId, circuits.id), componentId ? eq(components.id, componentId) : undefined),
    )
    .where(and(eq(circuits.id, circuitId), isNull(circuits.retiredAt), isNull(machines.retiredAt)))
    .limit(1);
  if (!place) return { ok: false, problems: { circuitId: "Choose a machine that is in use." } };
  if (componentId && !place.component)
    return { ok: false, problems: { componentId: "That part is on another circuit." } };
  const owner = { circuitId };
  try {
    return await db().transaction(async (tx): Promise<Answer> => {
      const sent = await sentBefore(tx, jobs, submission, owner);
      if (sent) return sent;
      const [job] = await tx
        .insert(jobs)
        .values({ circuitId, componentId, noticed, openedAt: new Date(now()), openedBy: actor.name, submission })
        .returning({ id: jobs.id });
      await audit(tx, actor, {
        what: `noted a complaint about ${place.machine}: ${noticed.slice(0, 100)}`,
        recordId: job!.id,
        after: { noticed, circuitId, componentId },
      });
      return { ok: true, id: job!.id };
    });
  } catch (error) {
    const sent = await sentMeanwhile(error, jobs, submission, owner);
    if (sent) return sent;
    throw error;
  }
}

/** What of a job is still open, in words: it would be nobody's when the job is closed. Undefined: nothing. */
async function openOf(tx: Queryable, jobId: string): Promise<string | undefined> {
  const [work] = await tx
    .select({ id: interventions.id })
    .from(interventions)
    .where(and(eq(interventions.jobId, jobId), isNull(interventions.doneAt), isNull(interventions.cancelledAt)))
    .limit(1);
  if (work) return "Its work is still booked: record it as done, or cancel it.";
  const [isolation] = await tx
    .select({ id: isolations.id })
    .from(isolations)
    .where(and(eq(isolations.jobId, jobId), isNull(isolations.closedAt)))
    .limit(1);
  return isolation && "Its isolation is still open: close that with what was found, it teaches the next one.";
}

/** Nothing is to be done, or it goes on elsewhere: a job ended by hand, with its reason. Twice is once. */
export async function closeJob(id: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const because = (fields.because ?? "").trim();
  if (because.length < 3) return { ok: false, problems: { because: "Say why: the job keeps it." } };
  if (because.length > 500) return { ok: false, problems: { because: "At most 500 characters." } };
  return db().transaction(async (tx): Promise<Answer> => {
    const [job] = await tx.select().from(jobs).where(eq(jobs.id, id)).for("update");
    if (!job) return { ok: false, because: "gone", problems: { form: "This job is gone." } };
    if (job.closedAt) return { ok: true, id };
    const open = await openOf(tx, id);
    if (open) return { ok: false, because: "conflict", problems: { form: open } };
    await tx
      .update(jobs)
      .set({ closedAt: new Date(now()), closedBy: actor.name, closedBecause: because })
      .where(eq(jobs.id, id));
    await audit(tx, actor, { what: `closed job ${job.number}`, recordId: id, after: { because } });
    return { ok: true, id };
  });
}

/** A job that was ended by hand goes on. */
export async function reopenJob(id: string, actor: Actor): Promise<Answer> {
  return db().transaction(async (tx): Promise<Answer> => {
    const [job] = await tx.select().from(jobs).where(eq(jobs.id, id)).for("update");
    if (!job) return { ok: false, because: "gone", problems: { form: "This job is gone." } };
    if (!job.closedAt) return { ok: true, id };
    await tx.update(jobs).set({ closedAt: null, closedBy: null, closedBecause: "" }).where(eq(jobs.id, id));
    await audit(tx, actor, {
      what: `opened job ${job.number} again`,
      recordId: id,
      before: { because: job.closedBecause },
    });
    return { ok: true, id };
  });
}

/** Parts of a circuit that a complaint can be about. */
export async function partsOfCircuit(circuitId: string) {
  return db()
    .select({ id: components.id, name: components.name })
    .from(components)
    .where(and(eq(components.circuitId, circuitId), isNull(components.retiredAt)))
    .orderBy(components.position, components.name);
}
