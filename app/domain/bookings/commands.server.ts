/** Booking work, carrying it out, cancelling it; each in one transaction. */
import { changedMeanwhile, type Answer, type Because, type Refused } from "~/domain/answer";
import { sentBefore, sentMeanwhile } from "~/domain/sent.server";
import { audit, type Actor } from "~/domain/access/index.server";
import { and, eq, isNull } from "drizzle-orm";
import { CLOCK_SLACK, dayOf } from "@core";
import { brokenConstraint, db, type Queryable } from "~/db/client.server";
import { circuits, components, interventions, lives, machines, points, sites, stops } from "~/db/schema";
import { assessPoints, markStale } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { log } from "~/runtime/log.server";
import { hoursQuestionOf } from "~/domain/readings/index.server";
import { check, pastMoment, isUuid } from "~/platform/validate";
import { mayAct } from "~/platform/permissions";
import { acceptByName, alteredAt, openRuns } from "~/domain/runs/index.server";
import { recordWords, writeUpSchema, writtenUp } from "~/domain/record/index";
import { bookingSchema, doneSchema } from "./form";
import { holdParts, renewLife, splitTrends } from "./lives.server";
import { condemning, jobOf } from "./origin.server";
import { errorText } from "~/runtime/errors";

export type WorkSaved = Answer;

const refused = (problems: Record<string, string>, because?: Because): Refused => ({
  ok: false,
  problems,
  ...(because && { because }),
});

/** Book a piece of work, into a stop or without one. The same form sent twice books once. */
export async function bookWork(fields: Record<string, string>, actor: Actor): Promise<WorkSaved> {
  const checked = await check(bookingSchema, fields);
  if (!checked.ok) return refused(checked.problems);
  const v = checked.values;
  try {
    return await db().transaction(async (tx): Promise<WorkSaved> => {
      if (fields.stopId === undefined) return refused({ stopId: "Choose a stop, or a stop of its own." });
      // one booking at a time for a component, so that the second person sees the first one's
      await tx
        .select({ id: components.id })
        .from(components)
        .where(eq(components.id, v.componentId))
        .for("no key update");
      // asked once the part is held: a copy of this form that came a moment earlier has been stored by now
      const sent = await sentBefore(tx, interventions, v.submission, { componentId: v.componentId });
      if (sent) return sent;
      if (isUuid(v.pointId)) {
        const [point] = await tx
          .select({ id: points.id })
          .from(points)
          .where(and(eq(points.id, v.pointId), eq(points.componentId, v.componentId)));
        if (!point) return refused({ form: "That point belongs to another component. Load the page again." });
      }
      if (v.stopId) {
        const [stop] = await tx
          .select({ id: stops.id })
          .from(stops)
          .where(and(eq(stops.id, v.stopId), isNull(stops.retiredAt)));
        if (!stop) return refused({ stopId: "That stop is gone. Load the page again." });
      }
      const [there] = await tx
        .select({ by: interventions.bookedBy, kind: interventions.kind })
        .from(interventions)
        .where(
          and(
            eq(interventions.componentId, v.componentId),
            isNull(interventions.doneAt),
            isNull(interventions.cancelledAt),
          ),
        )
        .limit(1);
      if (there && v.again !== "on")
        return refused(
          {
            form:
              `${there.by} has already booked work for this component (${there.kind}). Tick “another piece of ` +
              `work” to book beside it; what you typed stays here.`,
          },
          "conflict",
        );
      const pointId = isUuid(v.pointId) ? v.pointId : null;
      const condemnedBy = await condemning(tx, { pointId, origin: v.origin, originId: v.originId });
      const [row] = await tx
        .insert(interventions)
        .values({
          componentId: v.componentId,
          jobId: await jobOf(tx, v, actor),
          pointId,
          kind: v.kind,
          stopId: v.stopId || null,
          crewHours: v.crewHours,
          partOrderedOn: v.partOrderedOn || null,
          note: v.note,
          interim: v.interim === "on",
          origin: v.origin,
          originId: v.originId,
          condemnedBy,
          bookedBy: actor.name,
          submission: v.submission,
        })
        .returning({ id: interventions.id });
      // what is said of its points counts with the part that is ordered
      await markStale(tx, await pointsOf(tx, v.componentId));
      return { ok: true, id: row!.id };
    });
  } catch (error) {
    const sent = await sentMeanwhile(error, interventions, v.submission, { componentId: v.componentId });
    if (sent) return sent;
    if (brokenConstraint(error)?.includes("component_id")) return refused({ form: "The component is gone." });
    throw error;
  }
}

/** Move booked work to another stop, note that the part was ordered, or cancel it. */
export async function changeWork(id: string, fields: Record<string, string>, actor: Actor): Promise<WorkSaved> {
  return db().transaction(async (tx): Promise<WorkSaved> => {
    const [row] = await tx.select().from(interventions).where(eq(interventions.id, id)).for("update");
    if (!row) return refused({ form: "This work is gone." }, "gone");
    if (row.doneAt || row.cancelledAt) return refused({ form: "This work is already closed." }, "conflict");
    if (String(row.version) !== fields.version) return changedMeanwhile("this work");
    const next = { version: row.version + 1 };
    if (fields.intent === "cancel")
      await tx
        .update(interventions)
        .set({ ...next, cancelledAt: new Date(now()) })
        .where(eq(interventions.id, id));
    else if (fields.intent === "order")
      await tx
        .update(interventions)
        .set({ ...next, partOrderedOn: dayOf(now(), await zoneOf(tx, row.componentId)) })
        .where(eq(interventions.id, id));
    else {
      if (fields.stopId) {
        const [stop] = isUuid(fields.stopId)
          ? await tx
              .select({ id: stops.id })
              .from(stops)
              .where(and(eq(stops.id, fields.stopId), isNull(stops.retiredAt)))
          : [];
        if (!stop) return refused({ stopId: "Choose a stop from the list." });
      }
      await tx
        .update(interventions)
        .set({ ...next, stopId: fields.stopId || null })
        .where(eq(interventions.id, id));
    }
    await markStale(tx, await pointsOf(tx, row.componentId));
    await audit(tx, actor, {
      what: `work: ${fields.intent ?? "moved"}`,
      recordId: id,
      before: { stopId: row.stopId, partOrderedOn: row.partOrderedOn },
      after: fields,
    });
    return { ok: true, id };
  });
}

/** Points of a component: what is said of them counts with the part that is ordered. */
async function pointsOf(tx: Queryable, componentId: string): Promise<string[]> {
  return (await tx.select({ id: points.id }).from(points).where(eq(points.componentId, componentId))).map((p) => p.id);
}

async function zoneOf(tx: Queryable, componentId: string): Promise<string> {
  const [row] = await tx
    .select({ timeZone: sites.timeZone })
    .from(components)
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(components.id, componentId));
  return row?.timeZone ?? "UTC";
}

/** Record that work was done. A replacement ends the life of the old part and begins that of the new one. */
export async function finishWork(
  id: string,
  timeZone: string,
  fields: Record<string, string>,
  actor: Actor,
): Promise<WorkSaved> {
  const checked = await check(doneSchema, fields);
  const words = writtenUp(fields) ? await check(writeUpSchema, fields) : null;
  const at = pastMoment(fields.doneAt ?? "", timeZone, now());
  const problems: Record<string, string> = {
    ...(checked.ok ? {} : checked.problems),
    ...(words && !words.ok ? words.problems : {}),
  };
  if (!problems.doneAt && Number.isNaN(at)) problems.doneAt = "Write the date and time as 2026-11-20 10:40.";
  else if (at > now() + CLOCK_SLACK) problems.doneAt = "That is in the future. Record work when it is done.";
  if (!checked.ok || Object.keys(problems).length > 0) return refused(problems);
  const { hours, serial, findings, version } = checked.values;
  const doneAt = new Date(at);
  let assessed: string[] = [];
  const saved = await db().transaction(async (tx): Promise<WorkSaved> => {
    const [row] = await tx.select().from(interventions).where(eq(interventions.id, id)).for("update");
    if (!row) return refused({ form: "This work is gone." }, "gone");
    if (row.doneAt || row.cancelledAt)
      return refused({ form: `${row.doneBy ?? "Somebody"} has already closed this work.` }, "conflict");
    if (row.version !== version) return changedMeanwhile("this work");
    const open = await openRuns(tx, row);
    if (open.length > 0)
      return refused(
        {
          form: `Not to be recorded as done yet: ${open.join("; ")}. Do them, or skip them with a reason that stays on the record.`,
        },
        "conflict",
      );
    const altered = (await alteredAt(tx, row)).filter((a) => a.acceptedBy === null);
    const left = altered.map((a) => a.what).join(", ");
    const accepted = checked.values.acceptAltered === "on" && mayAct(actor.role, "engineer");
    if (left && !accepted)
      return refused(
        {
          form:
            `Not to be recorded as done yet: ${left} on this machine is still altered. Put it back under Tests or in ` +
            `its procedure first; an engineer may accept it by name.`,
        },
        "conflict",
      );
    const replacing = row.kind === "replacement";
    await holdParts(tx, eq(components.id, row.componentId));
    if (replacing && !serial)
      return refused({ serial: "Note the serial of the new part, or “none” if it carries none." });
    const [life] = await tx
      .select()
      .from(lives)
      .where(and(eq(lives.componentId, row.componentId), isNull(lives.endedAt)))
      .for("update");
    if (life && doneAt <= life.startedAt) return refused({ doneAt: "Before the present part was fitted." });
    const [place] = await tx
      .select({ machineId: circuits.machineId })
      .from(components)
      .innerJoin(circuits, eq(circuits.id, components.circuitId))
      .where(eq(components.id, row.componentId));
    const question = await hoursQuestionOf(tx, { machineId: place!.machineId, timeZone }, { at, hours: hours!.value });
    if (question && checked.values.hoursRight !== "on") return refused({ hours: question });
    const { modification, wholeCircuit } = checked.values;
    const reason = replacing ? row.note || "replaced" : `modified: ${modification}`;
    const begun = { at: doneAt, hours: hours!.value, reason, serial: replacing ? serial : null };
    const startedLifeId =
      replacing || modification
        ? await renewLife(tx, row.componentId, life ?? null, { ...begun, renewed: replacing })
        : null;
    const others = modification && wholeCircuit === "on" ? await splitTrends(tx, row.componentId, begun) : [];
    await tx
      .update(interventions)
      .set({
        doneAt,
        doneHours: hours!.value,
        doneBy: actor.name,
        findings,
        modification,
        ...(words?.ok ? recordWords(words.values) : {}),
        endedLifeId: startedLifeId ? (life?.id ?? null) : null,
        startedLifeId,
        version: row.version + 1,
      })
      .where(eq(interventions.id, id));
    await acceptByName(tx, id, altered, actor);
    assessed = [...(await pointsOf(tx, row.componentId)), ...others];
    await markStale(tx, assessed);
    return { ok: true, id };
  });
  if (saved.ok)
    await assessPoints(assessed).catch((error: Error) =>
      log.error({ err: errorText(error) }, "assessment left to the worker"),
    );
  return saved;
}
