/** Hour meters as records of their machine: replaced, set back, or a wrong figure put right. */
import { FORM_IS_OLD, formIsOld, type Answer } from "~/domain/answer";
import { sentBefore, sentElsewhere } from "~/domain/sent.server";
import { audit, type Actor } from "~/domain/access/index.server";
import { and, eq, isNull } from "drizzle-orm";
import { object, string } from "yup";
import { circuits, components, hourMeterChanges, points } from "~/db/schema";
import { db, type Queryable } from "~/db/client.server";
import { markStale, markOilStale } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { requestAssessment } from "~/platform/jobs.server";
import { check, localMoment, quantityField, textField, isUuid } from "~/platform/validate";
import type { Edited } from "./edited";

const kinds = ["replaced", "reset", "corrected"] as const;

const schema = object({
  kind: string().oneOf(kinds, "Choose what was done.").required("Choose what was done."),
  at: string().trim().required("Say when."),
  before: quantityField("runningHours", { required: true }),
  after: quantityField("runningHours", { required: true }),
  note: textField(300),
  submission: string().uuid(FORM_IS_OLD).required(FORM_IS_OLD),
});

/** Everything at a machine reckons with its hours: its points, and its oils. */
async function staleAtMachine(tx: Queryable, machineId: string): Promise<void> {
  const rows = await tx
    .select({ circuit: circuits.id, point: points.id })
    .from(circuits)
    .leftJoin(components, eq(components.circuitId, circuits.id))
    .leftJoin(points, eq(points.componentId, components.id))
    .where(eq(circuits.machineId, machineId));
  await markOilStale(
    tx,
    rows.map((r) => r.circuit),
  );
  await markStale(
    tx,
    rows.flatMap((r) => r.point ?? []),
  );
}

/** Record a change of the hour meter. The same form sent twice records it once. */
export async function recordMeterChange(
  machineId: string,
  fields: Record<string, string>,
  actor: Actor,
  timeZone: string,
): Promise<Edited> {
  const checked = await check(schema, fields);
  if (!checked.ok) return { ok: false, problems: checked.problems };
  const v = checked.values;
  const at = localMoment(v.at, timeZone);
  if (Number.isNaN(at)) return { ok: false, problems: { at: "Write the date and time as 2026-11-20 10:40." } };
  if (at > now() + 300_000) return { ok: false, problems: { at: "That is in the future." } };
  const values = {
    machineId,
    kind: v.kind,
    at: new Date(at),
    before: v.before!.value,
    after: v.after!.value,
    note: v.note,
    by: actor.name,
    submission: v.submission,
  };
  const saved = await db().transaction(async (tx): Promise<Answer> => {
    const [row] = await tx
      .insert(hourMeterChanges)
      .values(values)
      .onConflictDoNothing()
      .returning({ id: hourMeterChanges.id });
    if (!row) return (await sentBefore(tx, hourMeterChanges, v.submission, { machineId })) ?? sentElsewhere;
    await audit(tx, actor, { what: "hour meter of a machine", recordId: machineId, after: values });
    await staleAtMachine(tx, machineId);
    return { ok: true, id: row.id };
  });
  if (saved.ok) await requestAssessment();
  return saved;
}

/** A record of the hour meter was wrong: it stays, and no longer counts. */
export async function withdrawMeterChange(
  machineId: string,
  fields: Record<string, string>,
  actor: Actor,
): Promise<Edited> {
  const { change } = fields;
  if (!isUuid(change)) return formIsOld();
  const problem = await db().transaction(async (tx) => {
    const [row] = await tx
      .select()
      .from(hourMeterChanges)
      .where(and(eq(hourMeterChanges.id, change), eq(hourMeterChanges.machineId, machineId)))
      .for("update");
    if (!row) return "There is no such record at this machine.";
    if (row.withdrawnAt) return `${row.withdrawnBy} has already withdrawn it.`;
    await tx
      .update(hourMeterChanges)
      .set({ withdrawnAt: new Date(now()), withdrawnBy: actor.name })
      .where(eq(hourMeterChanges.id, change));
    await audit(tx, actor, { what: "hour meter of a machine, record withdrawn", recordId: machineId, before: row });
    await staleAtMachine(tx, machineId);
    return undefined;
  });
  if (problem) return { ok: false, because: "conflict", problems: { form: problem } };
  await requestAssessment();
  return { ok: true, id: change };
}

/** Changes of a machine's hour meter that count, newest first. */
export async function meterChangesOf(machineId: string) {
  const rows = await db()
    .select()
    .from(hourMeterChanges)
    .where(and(eq(hourMeterChanges.machineId, machineId), isNull(hourMeterChanges.withdrawnAt)))
    .orderBy(hourMeterChanges.at);
  return rows.reverse().map((r) => ({
    id: r.id,
    at: r.at.getTime(),
    kind: r.kind,
    before: r.before,
    after: r.after,
    note: r.note,
    by: r.by,
  }));
}
