/** What was typed of a reading, checked against its point, its life and its neighbours in time. */
import { desc, eq } from "drizzle-orm";
import { fittedAt, HOUR, NOT_FITTED, readingProblems } from "@core";
import type { Queryable } from "~/db/client.server";
import { components, instruments, lives } from "~/db/schema";
import { check, isUuid, pastMoment } from "~/platform/validate";
import { now } from "~/runtime/clock.server";
import type { CheckedReading } from "./checked";
import type { Point } from "./place.server";
import { hoursQuestionOf } from "./questions.server";
import { readingSchema } from "./schema";

const MINUTE = 60_000;

/** Check what was typed against the point, its life and its neighbours in time. */
export async function checkReading(
  tx: Queryable,
  place: Point,
  fields: Record<string, string>,
  replaces: string | null,
  readAt: number | null = null,
): Promise<{ ok: true; reading: CheckedReading } | { ok: false; problems: Record<string, string> }> {
  const { point } = place;
  const cycle = point.state === "cycle";
  const checked = await check(readingSchema(point.quantity, point.unit, cycle, place.units), fields);
  const problems: Record<string, string> = checked.ok ? {} : checked.problems;
  const typedAt = pastMoment(fields.takenAt ?? "", place.timeZone, now());
  // a tablet knows the moment itself: its text names two of them in the hour that comes twice
  const minute = readAt === null ? Number.NaN : Math.floor(readAt / MINUTE) * MINUTE;
  const at = Math.abs(minute - typedAt) === HOUR ? minute : typedAt;
  const v = checked.ok ? checked.values : null;
  const rules = readingProblems(
    { takenAt: at, value: v?.value?.value ?? null, least: v?.least?.value ?? null, state: v?.state ?? null },
    point.state,
    now(),
  );
  // what cannot be read at all has its own message
  for (const [field, message] of Object.entries(rules)) problems[field] ??= message;
  if (!v) return { ok: false, problems };
  if (v.instrumentId && !isUuid(v.instrumentId)) problems.instrumentId = "Choose an instrument from the list.";
  if (Object.keys(problems).length > 0) return { ok: false, problems };

  const takenAt = new Date(at);
  await holdPart(tx, place.componentId);
  const periods = await tx
    .select({ id: lives.id, startedAt: lives.startedAt, endedAt: lives.endedAt })
    .from(lives)
    .where(eq(lives.componentId, place.componentId))
    .orderBy(desc(lives.startedAt));
  const life = fittedAt(
    periods.map((p) => ({ id: p.id, startedAt: p.startedAt.getTime(), endedAt: p.endedAt?.getTime() ?? null })),
    at,
  );
  if (!life) return { ok: false, problems: { takenAt: NOT_FITTED } };

  if (v.instrumentId) {
    const [instrument] = await tx
      .select({ id: instruments.id })
      .from(instruments)
      .where(eq(instruments.id, v.instrumentId));
    if (!instrument) return { ok: false, problems: { instrumentId: "Choose an instrument from the list." } };
  }
  const hoursQuestion = v.hours ? await hoursQuestionOf(tx, place, { at, hours: v.hours.value }, replaces) : undefined;
  return {
    ok: true,
    reading: {
      takenAt,
      value: v.value!,
      least: v.least,
      temperature: v.temperature?.value ?? null,
      pressure: v.pressure?.value ?? null,
      speed: v.speed?.value ?? null,
      hours: v.hours?.value ?? null,
      instrumentId: v.instrumentId || null,
      note: v.note,
      keptBecause: v.keptBecause,
      submission: v.submission,
      lifeId: life.id,
      hoursQuestion,
    },
  };
}

/**
 * Hold the part as it is until the reading is in: a replacement that is being recorded is waited for, so that a reading is
 * never stored with the life that just ended. Asked before its lives are, since a wait shows what was written meanwhile
 * only to the next query.
 */
async function holdPart(tx: Queryable, componentId: string): Promise<void> {
  await tx.select({ id: components.id }).from(components).where(eq(components.id, componentId)).for("share");
}
