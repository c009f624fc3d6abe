/**
 * A reading comes in: from a point's page, a round on a tablet. Checked against the point, its life and its
 * neighbours in time, questioned where it is odd, saved once. Readings are only ever added or superseded.
 */
import type { Answer } from "~/domain/answer";
import { type Actor } from "~/domain/access/index.server";
import { and, desc, eq, isNull, lte, sql } from "drizzle-orm";
import {
  dayOf,
  expectedReading,
  fittedAt,
  HOUR,
  meterOffset,
  physicallyOdd,
  NOT_FITTED,
  preferredUnit,
  questionHours,
  quantityOf,
  questionReading,
  readingProblems,
  type ParsedQuantity,
  type Question,
  type UnitPreference,
} from "@core";
import { brokenConstraint, db, statement, type Queryable } from "~/db/client.server";
import {
  assessments,
  circuits,
  components,
  hourMeterChanges,
  instrumentChecks,
  instruments,
  lives,
  machines,
  points,
  readings,
  sites,
} from "~/db/schema";
import { assessPoint, currentDetail, markStale, fluidOf, pointSetups } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { isUuid, notFound } from "~/platform/guard.server";
import { log } from "~/runtime/log.server";
import { readingSchema } from "./schema";
import { check, pastMoment } from "~/platform/validate";
import { errorText } from "~/runtime/errors";

const MINUTE = 60_000;

export interface PointPlace {
  id: string;
  name: string;
  component: string;
  componentId: string;
  componentKind: string;
  model: string;
  circuit: string;
  machine: string;
  machineId: string;
  area: string;
  siteId: string;
  timeZone: string;
  /** The reader's units; what is typed without one is taken in them. */
  units: UnitPreference;
}

const placeOf = statement((tx) =>
  tx
    .select({
      point: points,
      component: components.name,
      componentId: components.id,
      componentKind: components.kind,
      model: components.model,
      circuit: circuits.name,
      machine: machines.name,
      machineId: machines.id,
      area: machines.area,
      siteId: sites.id,
      timeZone: sites.timeZone,
    })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(points.id, sql.placeholder("point"))),
);

/** Where a point sits, its unit being the one that the reader prefers. 404 when there is none. */
export async function pointPlace(
  id: string,
  units: UnitPreference = {},
): Promise<PointPlace & { point: typeof points.$inferSelect }> {
  const [row] = await placeOf({ point: id });
  if (!row) throw notFound("point");
  return {
    ...row,
    id,
    name: row.point.name,
    point: { ...row.point, unit: preferredUnit(row.point.quantity, units, row.point.unit) },
    units,
  };
}

/** `conflict`: the moment is taken by another reading. */
export type Saved = Answer<{ readingId: string }, { question?: Question; conflict?: true }>;

export type Point = PointPlace & { point: typeof points.$inferSelect };

/** Assess at once; a failure leaves the point stale for the worker, and the reading is safe either way. */
export async function assessNow(pointId: string): Promise<void> {
  await assessPoint(pointId).catch((error: Error) =>
    log.error({ err: errorText(error), pointId }, "assessment left to the worker"),
  );
}

export interface CheckedReading {
  takenAt: Date;
  value: ParsedQuantity;
  least: ParsedQuantity | null;
  temperature: number | null;
  pressure: number | null;
  speed: number | null;
  hours: number | null;
  instrumentId: string | null;
  note: string;
  keptBecause: string;
  submission: string;
  lifeId: string;
  /** What is odd about the hours, to be answered before it is saved. */
  hoursQuestion: string | undefined;
}

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

/** What is odd about the hours typed, against those noted anywhere at the machine. */
export async function hoursQuestionOf(
  tx: Queryable,
  place: Pick<PointPlace, "machineId" | "timeZone">,
  typed: { at: number; hours: number },
  replaces: string | null = null,
): Promise<string | undefined> {
  const [machine] = await tx
    .select({ hoursPerDay: machines.hoursPerDay })
    .from(machines)
    .where(eq(machines.id, place.machineId));
  const changes = (
    await tx
      .select()
      .from(hourMeterChanges)
      .where(and(eq(hourMeterChanges.machineId, place.machineId), isNull(hourMeterChanges.withdrawnAt)))
      .orderBy(hourMeterChanges.at)
  ).map((c) => ({ at: c.at.getTime(), before: c.before, after: c.after }));
  const onAxis = (n: { at: number; hours: number }) => ({
    at: n.at,
    hours: n.hours + meterOffset(changes, n.at),
    shown: n.hours,
  });
  const moment = new Date(typed.at).toISOString();
  const beside = async (earlier: boolean) => {
    const order = earlier ? sql`desc` : sql`asc`;
    const { rows } = await tx.execute<{ at: number; hours: number }>(sql`
      select (extract(epoch from r.taken_at) * 1000)::float8 as at, r.hours from points p
        join components c on c.id = p.component_id join circuits k on k.id = c.circuit_id cross join lateral (
        select taken_at, hours from readings where point_id = p.id and hours is not null and superseded_at is null and id is distinct from ${replaces}::uuid
          and ${earlier ? sql`taken_at < ${moment}` : sql`taken_at > ${moment}`} order by taken_at ${order} limit 1) r
      where k.machine_id = ${place.machineId} order by r.taken_at ${order} limit 1`);
    return rows[0] ? onAxis({ at: Number(rows[0].at), hours: rows[0].hours }) : null;
  };
  const day = (at: number) =>
    new Intl.DateTimeFormat("en-GB", {
      day: "numeric",
      month: "short",
      year: "numeric",
      timeZone: place.timeZone,
    }).format(at);
  return questionHours(onAxis(typed), await beside(true), await beside(false), machine?.hoursPerDay ?? 8, day);
}

/** What is odd about the value for these conditions, by the stored expectation. */
async function questionOf(tx: Queryable, place: Point, reading: CheckedReading): Promise<Question | undefined> {
  const [stored] = await tx
    .select({ detail: currentDetail, last: assessments.lastRaw, lifeId: assessments.lifeId })
    .from(assessments)
    .where(eq(assessments.pointId, place.id));
  const [setup] = await pointSetups(tx).where(eq(points.id, place.id));
  if (!stored || stored.lifeId !== reading.lifeId) return undefined;
  const expectation = stored.detail?.expectation;
  const expected = expectation
    ? expectedReading(expectation, setup ? fluidOf(setup) : null, {
        pressure: reading.pressure,
        temperature: reading.temperature,
        at: reading.takenAt.getTime(),
      })
    : null;
  return questionReading(
    { value: reading.value.value, entered: reading.value.entered, unit: reading.value.unit },
    place.point.quantity,
    expected,
    stored.last,
    place.point.unit,
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
      const question =
        (await questionOf(tx, place, reading)) ??
        (await physicsQuestion(tx, place, reading)) ??
        (await instrumentQuestion(tx, place, reading)) ??
        (reading.hoursQuestion ? { kind: "hours" as const, message: reading.hoursQuestion } : undefined);
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

/** The id of a form stands for one reading at one point. */
const sentElsewhere: Saved = {
  ok: false,
  problems: { form: "This form was already used for another point. Load the page again; what you typed stays here." },
};

/** What physics forbids is asked about from the first reading on, when no other reading says what to expect. */
async function physicsQuestion(
  tx: Queryable,
  { point, componentId }: Point,
  { value }: CheckedReading,
): Promise<Question | undefined> {
  const [circuit] = await tx
    .select({
      workingPressure: circuits.workingPressure,
      pumped: sql<number | null>`(select sum(p.displacement * p.speed / 1000) from ${components} p
        where p.circuit_id = ${circuits.id} and p.retired_at is null and p.kind in ('axialPistonPump', 'gearPump', 'closedLoopPump'))`,
    })
    .from(components)
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .where(eq(components.id, componentId));
  const forbidden = physicallyOdd(point.quantity, value.value, {
    pumpedFlow: circuit?.pumped ?? null,
    workingPressure: circuit?.workingPressure ?? null,
  });
  return forbidden
    ? { kind: "physics", message: `${forbidden} Read it once more, or keep it and say why.` }
    : undefined;
}

/** Is it an instrument that reads this, and was its calibration in date? Asked, since it may be all there is. */
async function instrumentQuestion(
  tx: Queryable,
  { point, timeZone }: Point,
  { instrumentId, takenAt }: CheckedReading,
): Promise<Question | undefined> {
  if (!instrumentId) return undefined;
  const [own] = await tx.select().from(instruments).where(eq(instruments.id, instrumentId));
  if (!own) return undefined;
  if (quantityOf(own.quantity).dimension !== quantityOf(point.quantity).dimension)
    return {
      kind: "instrument",
      message:
        `${own.tag} reads ${quantityOf(own.quantity).label.toLowerCase()}, ` +
        `not ${quantityOf(point.quantity).label.toLowerCase()}. Choose another instrument, or say why.`,
    };
  if (own.calibrationDueAt && own.calibrationDueAt < takenAt)
    return {
      kind: "instrument",
      message: `The calibration of ${own.tag} ran out on ${dayOf(own.calibrationDueAt.getTime(), timeZone)}. Use another one, or keep the reading and say why.`,
    };
  return undefined;
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
