/** Writes about debris events: open with its whole list, tick off, close with proof. */
import { type Answer, FORM_IS_OLD, formIsOld } from "~/domain/answer";
import { sentBefore, sentElsewhere } from "~/domain/sent.server";
import { audit, type Actor } from "~/domain/access/index.server";
import { and, desc, eq, isNull, sql } from "drizzle-orm";
import {
  DAY,
  cleanUpPlan,
  closingProblems,
  countFor,
  debrisTasks,
  incomparable,
  overTarget,
  sampleCodes,
  type OilAssessment,
  type OilSample,
} from "@core";
import { db } from "~/db/client.server";
import { debrisEvents, debrisResults, debrisTasks as tasks, oilAssessments, samples } from "~/db/oilTables";
import { circuits, components } from "~/db/schema";
import { now } from "~/runtime/clock.server";
import { currentOil, oilSampleOf, samplesOf } from "~/domain/condition/index.server";
import { localMoment, isUuid } from "~/platform/validate";

/** Running minutes that the circuit's own filter needs from the newest sample to two numbers below target; null: never, or not known. */
async function flushMinutes(circuitId: string, detail: OilAssessment | null): Promise<number | null> {
  const [[circuit], [filter], found] = await Promise.all([
    db().select({ volume: circuits.volume }).from(circuits).where(eq(circuits.id, circuitId)),
    db()
      .select({ filter: components.filter })
      .from(components)
      .where(
        and(eq(components.circuitId, circuitId), isNull(components.retiredAt), sql`${components.filter} is not null`),
      )
      .limit(1),
    samplesOf(db(), [circuitId], 1),
  ]);
  const last = (found.get(circuitId) ?? []).map(oilSampleOf)[0];
  const count = last ? countFor(last, "over14") : null;
  if (!circuit?.volume || !filter?.filter || !detail?.target || count === null) return null;
  const target = 0.01 * 2 ** (detail.target.codes[2] - 2);
  return cleanUpPlan(
    { volume: circuit.volume, flow: filter.filter.flow, beta: filter.filter.beta, ingress: 0 },
    count,
    target,
  ).minutes;
}

/** Open an event: everything it threatens is put on its list. */
export async function openDebris(
  circuitId: string,
  fields: Record<string, string>,
  actor: Actor,
  timeZone: string,
): Promise<Answer> {
  const problems: Record<string, string> = {};
  const what = (fields.what ?? "").trim();
  if (what.length < 5) problems.what = "Say what was found, and where it lay.";
  if (!isUuid(fields.submission)) problems.form = FORM_IS_OLD;
  const at = localMoment(fields.at ?? "", timeZone);
  if (Number.isNaN(at)) problems.at = "Write the date and time as 2026-11-20 10:40.";
  else if (at > now() + 300_000) problems.at = "That is in the future.";
  const [parts, [stored]] = await Promise.all([
    db()
      .select({
        id: components.id,
        name: components.name,
        kind: components.kind,
        position: components.position,
        symptomIfStuck: components.symptomIfStuck,
      })
      .from(components)
      .where(and(eq(components.circuitId, circuitId), isNull(components.retiredAt))),
    db().select({ detail: currentOil }).from(oilAssessments).where(eq(oilAssessments.circuitId, circuitId)),
  ]);
  const foundAt = fields.foundAtId ? (parts.find((p) => p.id === fields.foundAtId)?.id ?? null) : null;
  if (fields.foundAtId && !foundAt) problems.foundAtId = "Choose a part of this circuit.";
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  const minutes = await flushMinutes(circuitId, stored?.detail ?? null);
  const list = debrisTasks(parts, foundAt, { targetCodes: stored?.detail?.target?.codes ?? null, minutes });
  return db().transaction(async (tx): Promise<Answer> => {
    const [row] = await tx
      .insert(debrisEvents)
      .values({
        circuitId,
        openedAt: new Date(at),
        openedBy: actor.name,
        what: what.slice(0, 500),
        foundAtId: foundAt,
        submission: fields.submission!,
      })
      .onConflictDoNothing({ target: debrisEvents.submission })
      .returning({ id: debrisEvents.id });
    if (!row) return (await sentBefore(tx, debrisEvents, fields.submission!, { circuitId })) ?? sentElsewhere;
    await tx.insert(tasks).values(
      list.map((t, position) => ({
        eventId: row.id,
        kind: t.kind,
        position,
        componentId: t.componentId,
        title: t.title,
        detail: t.detail,
        dueOn: t.dueDays === null ? null : new Date(at + t.dueDays * DAY).toISOString().slice(0, 10),
      })),
    );
    return { ok: true, id: row.id };
  });
}

const resultIds: readonly string[] = debrisResults;

/** What was found at a part, or that a step is done. */
export async function answerTask(eventId: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  if (!isUuid(fields.task)) return formIsOld();
  const result = fields.result ?? "";
  if (!resultIds.includes(result))
    return { ok: false, problems: { [`result-${fields.task}`]: "Choose what was found." } };
  const note = (fields.note ?? "").trim().slice(0, 500);
  if (result === "left" && note.length < 3)
    return { ok: false, problems: { [`note-${fields.task}`]: "Say why it was left." } };
  const taskId = fields.task;
  return db().transaction(async (tx): Promise<Answer> => {
    // the event first: whoever closes it waits for the answer, or the answer is told that it is closed
    const [event] = await tx
      .select({ closedAt: debrisEvents.closedAt })
      .from(debrisEvents)
      .where(eq(debrisEvents.id, eventId))
      .for("update");
    if (!event || event.closedAt) return { ok: false, because: "conflict", problems: { form: "The event is closed." } };
    const [task] = await tx
      .select()
      .from(tasks)
      .where(and(eq(tasks.id, taskId), eq(tasks.eventId, eventId)));
    if (!task) return { ok: false, because: "gone", problems: { form: "There is no such entry on this list." } };
    // one's own answer sent twice is the same answer; somebody else's stands, and one is told
    if (task.doneAt && task.doneBy === actor.name && task.result === result) return { ok: true, id: taskId };
    if (task.doneAt)
      return {
        ok: false,
        because: "conflict",
        problems: {
          [`result-${taskId}`]:
            `${task.doneBy} has already answered this: ${task.result}${task.note ? `, ${task.note}` : ""}. Load ` +
            `the page to see it; what you typed stays here.`,
        },
      };
    await tx
      .update(tasks)
      .set({ result: result as (typeof debrisResults)[number], note, doneAt: new Date(now()), doneBy: actor.name })
      .where(eq(tasks.id, taskId));
    return { ok: true, id: taskId };
  });
}

/** Does a sample meet the target at every size? Null: it cannot be compared, or has no code. */
export function isClean(sample: OilSample, target: OilAssessment["target"]): boolean | null {
  const codes = incomparable(sample) ? null : sampleCodes(sample);
  if (!codes || !target) return null;
  return overTarget(codes.iso, target).every((o) => o !== null && o <= 0);
}

/** Open a closed event again: it was not over. Its list, its samples and what was said at its closing stay on record. */
export async function reopenDebris(eventId: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const why = (fields.why ?? "").trim().slice(0, 500);
  if (why.length < 3) return { ok: false, problems: { why: "Say why: the record keeps it." } };
  return db().transaction(async (tx): Promise<Answer> => {
    const [before] = await tx.select().from(debrisEvents).where(eq(debrisEvents.id, eventId)).for("update");
    if (!before?.closedAt) return { ok: false, because: "conflict", problems: { form: "The event is open." } };
    const values = {
      closedAt: null,
      closedBy: null,
      sourceComponentId: null,
      sourceWords: "",
      sourceNotFound: false,
      cleanSampleId: null,
      reopenedAt: new Date(now()),
      reopenedBy: actor.name,
      reopenedWhy: why,
    };
    await tx
      .update(debrisEvents)
      .set({ ...values, version: before.version + 1 })
      .where(eq(debrisEvents.id, eventId));
    await audit(tx, actor, { what: "opened a debris event again", recordId: eventId, before, after: values });
    return { ok: true, id: eventId };
  });
}

/** Close an event: every part looked at, a clean sample, and a named source or an honest "not found". */
export async function closeDebris(eventId: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  return db().transaction(async (tx): Promise<Answer> => {
    const [event] = await tx.select().from(debrisEvents).where(eq(debrisEvents.id, eventId)).for("update");
    if (!event) return { ok: false, problems: { form: "There is no such event." } };
    if (event.closedAt)
      return { ok: false, because: "conflict", problems: { form: `${event.closedBy} has closed it already.` } };
    const [open] = await tx
      .select({ n: sql<number>`count(*)::int` })
      .from(tasks)
      .where(and(eq(tasks.eventId, eventId), eq(tasks.kind, "check"), isNull(tasks.doneAt)));
    const rows = await tx
      .select()
      .from(samples)
      .where(
        and(
          eq(samples.circuitId, event.circuitId),
          isNull(samples.withdrawnAt),
          sql`${samples.takenAt} > ${event.openedAt.toISOString()}`,
        ),
      )
      .orderBy(desc(samples.takenAt))
      .limit(20);
    const [stored] = await tx
      .select({ detail: currentOil })
      .from(oilAssessments)
      .where(eq(oilAssessments.circuitId, event.circuitId));
    const judged = rows
      .map(oilSampleOf)
      .map((s) => ({ id: s.id, clean: isClean(s, stored?.detail?.target ?? null) }))
      .filter((s) => s.clean !== null);
    const notFound = fields.notFound === "on";
    const [source] = isUuid(fields.sourceComponentId)
      ? await tx
          .select({ id: components.id })
          .from(components)
          .where(and(eq(components.id, fields.sourceComponentId), eq(components.circuitId, event.circuitId)))
      : [];
    const words = (fields.source ?? "").trim().slice(0, 500);
    const problems = closingProblems({
      checksOpen: open!.n,
      clean: judged[0]?.clean ?? null,
      sourceComponent: source !== undefined,
      words,
      notFound,
    });
    if (Object.keys(problems).length > 0) return { ok: false, problems };
    await tx
      .update(debrisEvents)
      .set({
        closedAt: new Date(now()),
        closedBy: actor.name,
        sourceComponentId: notFound ? null : (source?.id ?? null),
        sourceWords: words,
        sourceNotFound: notFound,
        cleanSampleId: judged[0]!.id,
        version: event.version + 1,
      })
      .where(eq(debrisEvents.id, eventId));
    return { ok: true, id: eventId };
  });
}
