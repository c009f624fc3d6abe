/** Writes about instruments: the register, checks, and a recall of what one read. */
import { type Answer, changedMeanwhile, FORM_IS_OLD, formIsOld } from "~/domain/answer";
import { sentBefore, sentElsewhere } from "~/domain/sent.server";
import { audit, type Actor } from "~/domain/access/index.server";
import { TZDate } from "@date-fns/tz";
import { addMonths } from "date-fns";
import { and, eq, gte, isNull, lte, or } from "drizzle-orm";
import {
  findUnit,
  parseNumber,
  preferredUnit,
  quantityOf,
  toCore,
  type PointQuantityId,
  type UnitPreference,
  isPointQuantity,
} from "@core";
import { brokenConstraint, db, type Queryable } from "~/db/client.server";
import { instrumentChecks, instrumentRecalls, instruments, readings } from "~/db/schema";
import { assessPoints, markStale } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { requestAssessment } from "~/platform/jobs.server";
import { log } from "~/runtime/log.server";
import { check, localMoment, isUuid } from "~/platform/validate";
import { checkLines, instrumentSchema } from "./form";
import type { InstrumentRow } from "./queries.server";
import { errorText } from "~/runtime/errors";

export type Done = Answer;

/** Add an instrument, or change one. */
export async function saveInstrument(
  old: InstrumentRow | null,
  fields: Record<string, string>,
  actor: Actor,
  units: UnitPreference,
): Promise<Done> {
  const quantity: PointQuantityId = isPointQuantity(fields.quantity ?? "")
    ? (fields.quantity as PointQuantityId)
    : "pressure";
  const checked = await check(instrumentSchema(quantity, units), fields);
  if (!checked.ok) return { ok: false, problems: checked.problems };
  const v = checked.values;
  if ((v.viscosityLow === null) !== (v.viscosityHigh === null))
    return {
      ok: false,
      problems: { [v.viscosityLow ? "viscosityHigh" : "viscosityLow"]: "Give both ends of the range, or neither." },
    };
  if (v.viscosityLow && v.viscosityHigh && v.viscosityLow.value >= v.viscosityHigh.value)
    return { ok: false, problems: { viscosityHigh: "Above the lower end." } };
  if (!(v.fullScale!.value > 0)) return { ok: false, problems: { fullScale: "Full scale lies above zero." } };
  const values = {
    tag: v.tag,
    name: v.name,
    quantity: v.quantity,
    principle: v.principle,
    fullScale: v.fullScale!.value,
    leastReading: v.leastReading?.value ?? null,
    accuracyClass: v.accuracyClass,
    viscosityLow: v.viscosityLow?.value ?? null,
    viscosityHigh: v.viscosityHigh?.value ?? null,
    note: v.note,
  };
  try {
    const saved = await db().transaction(async (tx): Promise<Done> => {
      if (!old) {
        const [row] = await tx.insert(instruments).values(values).returning({ id: instruments.id });
        await audit(tx, actor, { what: "instrument added", recordId: row!.id, after: values });
        return { ok: true, id: row!.id };
      }
      const [locked] = await tx.select().from(instruments).where(eq(instruments.id, old.id)).for("update");
      if (locked!.version !== v.version) return changedMeanwhile("this instrument");
      await tx
        .update(instruments)
        .set({
          ...values,
          version: locked!.version + 1,
          ...(fields.intent === "retire" && { retiredAt: new Date(now()) }),
        })
        .where(eq(instruments.id, old.id));
      await audit(tx, actor, { what: "instrument", recordId: old.id, before: locked, after: values });
      // how sure a reading is follows from these two: what it ever read is judged anew
      if (locked!.fullScale !== values.fullScale || locked!.accuracyClass !== values.accuracyClass)
        await markStale(tx, await pointsRead(tx, old.id));
      return { ok: true, id: old.id };
    });
    await requestAssessment();
    return saved;
  } catch (error) {
    if (brokenConstraint(error)?.includes("tag"))
      return { ok: false, problems: { tag: "Another instrument has this tag." } };
    throw error;
  }
}

/** Record a calibration, or a check before use. It passes when every value lies within the class. */
export async function recordCheck(
  instrument: InstrumentRow,
  fields: Record<string, string>,
  actor: Actor,
  timeZone: string,
  units: UnitPreference,
): Promise<Done & { passed?: boolean }> {
  const problems: Record<string, string> = {};
  const at = localMoment(fields.at ?? "", timeZone);
  if (Number.isNaN(at)) problems.at = "Write the date and time as 2026-11-20 10:40.";
  else if (at > now() + 300_000) problems.at = "That is in the future.";
  const lines = checkLines(fields.points ?? "");
  if (!lines.ok) problems.points = lines.message;
  if (!isUuid(fields.submission)) problems.form = FORM_IS_OLD;
  const months = fields.kind === "calibration" ? Number(fields.months || "12") : 0;
  if (fields.kind === "calibration" && !(months > 0 && months <= 120))
    problems.months = "Months until the next one, 1 to 120.";
  const { dimension } = quantityOf(instrument.quantity);
  const unit = findUnit(preferredUnit(instrument.quantity, units), dimension)!;
  const read: { stated: number; read: number }[] = [];
  if (lines.ok) {
    lines.lines.forEach(([stated, got], i) => {
      const [s, g] = [parseNumber(stated), parseNumber(got)];
      if (!Number.isFinite(s) || !Number.isFinite(g))
        problems.points ??= `Line ${i + 1}: both must be numbers, in ${unit.symbol}.`;
      else read.push({ stated: toCore(s, unit), read: toCore(g, unit) });
    });
  }
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  const permissible = (instrument.accuracyClass / 100) * instrument.fullScale;
  const passed = read.every((p) => Math.abs(p.read - p.stated) <= permissible * (1 + 1e-9));
  const submission = fields.submission!;
  return db().transaction(async (tx): Promise<Done & { passed?: boolean }> => {
    const [row] = await tx
      .insert(instrumentChecks)
      .values({
        instrumentId: instrument.id,
        at: new Date(at),
        kind: fields.kind === "calibration" ? "calibration" : "check",
        points: read,
        passed,
        certificate: (fields.certificate ?? "").slice(0, 200),
        note: (fields.note ?? "").slice(0, 500),
        by: actor.name,
        submission,
      })
      .onConflictDoNothing()
      .returning({ id: instrumentChecks.id });
    if (!row) {
      const [sent] = await tx
        .select({ id: instrumentChecks.id, passed: instrumentChecks.passed })
        .from(instrumentChecks)
        .where(and(eq(instrumentChecks.submission, submission), eq(instrumentChecks.instrumentId, instrument.id)));
      return sent ? { ok: true, ...sent } : sentElsewhere;
    }
    if (passed && fields.kind === "calibration") {
      // one that is entered late does not take the place of a newer one
      await tx
        .update(instruments)
        .set({ calibratedAt: new Date(at), calibrationDueAt: monthsLater(at, months, timeZone) })
        .where(
          and(
            eq(instruments.id, instrument.id),
            or(isNull(instruments.calibratedAt), lte(instruments.calibratedAt, new Date(at))),
          ),
        );
      await audit(tx, actor, {
        what: "calibration of an instrument",
        recordId: instrument.id,
        after: { at: new Date(at).toISOString(), months, certificate: fields.certificate ?? "" },
      });
    }
    return { ok: true, id: row.id, passed };
  });
}

/** The same day some months on, in a time zone: 31 August and six months is 28 February. */
export function monthsLater(at: number, months: number, timeZone: string): Date {
  return new Date(addMonths(new TZDate(at, timeZone), months).getTime());
}

/** Most points that are assessed at once; more are left to the worker. */
const AT_ONCE = 60;

/** Points at which an instrument read anything, in a period or ever: what a recall, or its withdrawal, changes the judgement of. */
async function pointsRead(tx: Queryable, instrumentId: string, from?: Date, until?: Date): Promise<string[]> {
  const rows = await tx
    .selectDistinct({ id: readings.pointId })
    .from(readings)
    .where(
      and(
        eq(readings.instrumentId, instrumentId),
        from && gte(readings.takenAt, from),
        until && lte(readings.takenAt, until),
        isNull(readings.supersededAt),
      ),
    );
  return rows.map((r) => r.id);
}

async function assessAgain(pointIds: readonly string[]): Promise<void> {
  if (pointIds.length <= AT_ONCE)
    await assessPoints(pointIds).catch((error: Error) =>
      log.error({ err: errorText(error) }, "recalled points left to the worker"),
    );
  else await requestAssessment();
}

/**
 * Found out of calibration: everything it read between two moments is kept and no longer used, what arrives
 * later included, and the points are assessed again.
 */
export async function recallInstrument(
  instrument: InstrumentRow,
  fields: Record<string, string>,
  actor: Actor,
  timeZone: string,
): Promise<Done> {
  const problems: Record<string, string> = {};
  const [from, until] = [localMoment(fields.from ?? "", timeZone), localMoment(fields.until ?? "", timeZone)];
  if (Number.isNaN(from)) problems.from = "Write the date and time as 2026-11-20 10:40.";
  if (Number.isNaN(until)) problems.until = "Write the date and time as 2026-11-20 10:40.";
  else if (until <= from) problems.until = "After the beginning.";
  const reason = (fields.reason ?? "").trim();
  if (reason.length < 3) problems.reason = "Say what was found: the record keeps it.";
  if (!isUuid(fields.submission)) problems.form = FORM_IS_OLD;
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  const submission = fields.submission!;
  const { pointIds, saved } = await db().transaction(async (tx): Promise<{ pointIds: string[]; saved: Done }> => {
    const [row] = await tx
      .insert(instrumentRecalls)
      .values({
        instrumentId: instrument.id,
        fromAt: new Date(from),
        untilAt: new Date(until),
        reason: reason.slice(0, 500),
        by: actor.name,
        submission,
      })
      .onConflictDoNothing()
      .returning({ id: instrumentRecalls.id });
    if (!row) {
      const owner = { instrumentId: instrument.id };
      return { pointIds: [], saved: (await sentBefore(tx, instrumentRecalls, submission, owner)) ?? sentElsewhere };
    }
    await audit(tx, actor, {
      what: "recall of an instrument",
      recordId: instrument.id,
      after: { from: new Date(from).toISOString(), until: new Date(until).toISOString(), reason },
    });
    const ids = await pointsRead(tx, instrument.id, new Date(from), new Date(until));
    await markStale(tx, ids);
    return { pointIds: ids, saved: { ok: true, id: row.id } };
  });
  await assessAgain(pointIds);
  return saved;
}

/** A recall was wrong: it stays in the record with its reason, and the readings are believed again. */
export async function withdrawRecall(
  instrument: InstrumentRow,
  fields: Record<string, string>,
  actor: Actor,
): Promise<Done> {
  const why = (fields.why ?? "").trim();
  if (why.length < 3) return { ok: false, problems: { why: "Say why: the record keeps it." } };
  if (!isUuid(fields.recall)) return formIsOld();
  const recallId = fields.recall;
  const result = await db().transaction(async (tx): Promise<{ problem: string } | { ids: string[] }> => {
    const [recall] = await tx
      .select()
      .from(instrumentRecalls)
      .where(and(eq(instrumentRecalls.id, recallId), eq(instrumentRecalls.instrumentId, instrument.id)))
      .for("update");
    if (!recall) return { problem: "There is no such recall of this instrument." };
    if (recall.withdrawnAt) return { problem: `${recall.withdrawnBy} has already withdrawn it.` };
    await tx
      .update(instrumentRecalls)
      .set({ withdrawnAt: new Date(now()), withdrawnBy: actor.name, withdrawnWhy: why.slice(0, 300) })
      .where(eq(instrumentRecalls.id, recall.id));
    await audit(tx, actor, {
      what: "recall of an instrument withdrawn",
      recordId: instrument.id,
      before: { from: recall.fromAt, until: recall.untilAt, reason: recall.reason },
      after: { why },
    });
    const ids = await pointsRead(tx, instrument.id, recall.fromAt, recall.untilAt);
    await markStale(tx, ids);
    return { ids };
  });
  if ("problem" in result) return { ok: false, problems: { form: result.problem } };
  await assessAgain(result.ids);
  return { ok: true, id: recallId };
}
