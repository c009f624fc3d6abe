/**
 * A reading comes in: from a point's page, a round on a tablet. Checked against the point, its life and its
 * neighbours in time, questioned where it is odd, saved once. Readings are only ever added or superseded.
 */
import type { Answer } from "~/domain/answer";
import type { Actor } from "~/domain/access/index.server";
import { and, desc, eq, isNull, lte, sql } from "drizzle-orm";
import type { ParsedQuantity, Question } from "@core";
import { brokenConstraint, db, type Queryable } from "~/db/client.server";
import { instrumentChecks, points, readings } from "~/db/schema";
import { assessPoint, markStale } from "~/domain/condition/index.server";
import { isUuid } from "~/platform/validate";
import { sentElsewhere } from "~/domain/sent.server";
import { errorText } from "~/runtime/errors";
import { log } from "~/runtime/log.server";
import { checkReading } from "./check.server";
import type { CheckedReading } from "./checked";
import type { Point } from "./place.server";
import { questionAbout } from "./questions.server";

/** `conflict`: the moment is taken by another reading. */
export type Saved = Answer<{ readingId: string }, { question?: Question; conflict?: true }>;

/** Assess at once; a failure leaves the point stale for the worker, and the reading is safe either way. */
export async function assessNow(pointId: string): Promise<void> {
  await assessPoint(pointId).catch((error: Error) =>
    log.error({ err: errorText(error), pointId }, "assessment left to the worker"),
  );
}

export const enteredText = (value: ParsedQuantity) => `${value.entered} ${value.unit}`;

/**
 * Save a reading. A doubtful value comes back as a question unless a reason to keep it was given.
 * The same form sent twice saves once.
 * @param takenBy who read it, where another person sends it
 * @param readAt when a device took it, epoch ms, beside the text of its form
 */
export async function logReading(
  place: Point,
  fields: Record<string, string>,
  actor: Actor,
  takenBy = actor.name,
  readAt: number | null = null,
): Promise<Saved> {
  const result = await db()
    .transaction(async (tx): Promise<Saved> => {
      // one save at a time at a point, so that a copy of the form finds the first one saved
      await tx.select({ id: points.id }).from(points).where(eq(points.id, place.id)).for("no key update");
      const checked = await checkReading(tx, place, fields, null, readAt);
      if (!checked.ok) return checked;
      const { reading } = checked;
      const [sent] = await tx
        .select({ id: readings.id, pointId: readings.pointId })
        .from(readings)
        .where(eq(readings.submission, reading.submission));
      if (sent) return sent.pointId === place.id ? { ok: true, readingId: sent.id } : sentElsewhere;
      const question = await questionAbout(tx, place, reading);
      if (question && !reading.keptBecause) return { ok: false, problems: {}, question };
      const [there] = await tx
        .select({ entered: readings.entered })
        .from(readings)
        .where(
          and(eq(readings.pointId, place.id), eq(readings.takenAt, reading.takenAt), isNull(readings.supersededAt)),
        );
      if (there)
        return {
          ok: false,
          conflict: true,
          problems: {
            takenAt: `There is already a reading at that time: ${there.entered}. Correct that one in the table, or change the time.`,
          },
        };
      const unfit = await lastCheckFailed(tx, reading);
      const [row] = await tx
        .insert(readings)
        .values({
          doubtful: unfit,
          pointId: place.id,
          lifeId: reading.lifeId,
          takenAt: reading.takenAt,
          value: reading.value.value,
          least: reading.least?.value ?? null,
          entered: enteredText(reading.value),
          pressure: reading.pressure,
          temperature: reading.temperature,
          speed: reading.speed,
          hours: reading.hours,
          instrumentId: reading.instrumentId,
          note: reading.note,
          keptBecause: question ? reading.keptBecause : "",
          takenBy,
          sentBy: takenBy === actor.name ? null : actor.name,
          submission: reading.submission,
        })
        .returning({ id: readings.id });
      await tx
        .update(points)
        .set({ lastReadingAt: sql`greatest(${points.lastReadingAt}, ${reading.takenAt.toISOString()}::timestamptz)` })
        .where(eq(points.id, place.id));
      await markStale(tx, [place.id]);
      return { ok: true, readingId: row!.id };
    })
    .catch((error: unknown) => sentTwice(error, place.id, fields.submission));
  if (result.ok) await assessNow(place.id);
  return result;
}

/** Did the instrument fail its last check before this reading? Then what it reads is kept and weighted down. */
async function lastCheckFailed(tx: Queryable, { instrumentId, takenAt }: CheckedReading): Promise<boolean> {
  if (!instrumentId) return false;
  const [last] = await tx
    .select({ passed: instrumentChecks.passed })
    .from(instrumentChecks)
    .where(and(eq(instrumentChecks.instrumentId, instrumentId), lte(instrumentChecks.at, takenAt)))
    .orderBy(desc(instrumentChecks.at))
    .limit(1);
  return last?.passed === false;
}

/** Two copies of one form raced each other: the first is saved, the second is told the same. */
export async function sentTwice(error: unknown, pointId: string, submission: string | undefined): Promise<Saved> {
  const constraint = brokenConstraint(error);
  // the copies may break either rule first: the one form, or the one moment
  if (constraint && isUuid(submission)) {
    const [sent] = await db()
      .select({ id: readings.id, pointId: readings.pointId })
      .from(readings)
      .where(eq(readings.submission, submission));
    if (sent) return sent.pointId === pointId ? { ok: true, readingId: sent.id } : sentElsewhere;
  }
  if (constraint === "readings_once")
    return {
      ok: false,
      conflict: true,
      problems: { takenAt: "Somebody just saved a reading at that time. Change the time, or correct theirs." },
    };
  throw error;
}
