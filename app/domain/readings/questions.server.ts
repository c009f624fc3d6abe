/** What is odd about a reading: asked before it is saved, never refused. */
import { and, eq, isNull, lte, ne, sql } from "drizzle-orm";
import {
  dayOf,
  expectedReading,
  meterOffset,
  physicsQuestion as askOfPhysics,
  quantityOf,
  questionHours,
  questionReading,
  type PointQuantityId,
  type Question,
} from "@core";
import type { Queryable } from "~/db/client.server";
import {
  assessments,
  circuits,
  components,
  hourMeterChanges,
  instruments,
  interventions,
  machines,
  points,
  workRuns,
} from "~/db/schema";
import { currentDetail, fluidOf, pointSetups } from "~/domain/condition/index.server";
import type { CheckedReading } from "./checked";
import { pumpedFlow } from "./knownOfCircuit.server";
import type { Point, PointPlace } from "./place.server";

/** The first thing that is odd about a checked reading; undefined: nothing is. */
export async function questionAbout(
  tx: Queryable,
  place: Point,
  reading: CheckedReading,
): Promise<Question | undefined> {
  return (
    (await valueQuestion(tx, place, reading)) ??
    (await physicsQuestion(tx, place, reading)) ??
    (await instrumentQuestion(tx, place, reading)) ??
    (reading.hoursQuestion ? { kind: "hours", message: reading.hoursQuestion } : undefined)
  );
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
async function valueQuestion(tx: Queryable, place: Point, reading: CheckedReading): Promise<Question | undefined> {
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
  const question = questionReading(
    { value: reading.value.value, entered: reading.value.entered, unit: reading.value.unit },
    place.point.quantity,
    expected,
    stored.last,
    place.point.unit,
  );
  const good = isBetter(place.point.quantity, reading.value.value, stored.last);
  return question && good && (await isPutRight(tx, place.componentId, reading.takenAt)) ? undefined : question;
}

/** Does it lie on the sound side of the last one? */
function isBetter(quantity: PointQuantityId, value: number, last: number | null): boolean {
  const { harm } = quantityOf(quantity);
  return last !== null && ((harm === "rising" && value < last) || (harm === "falling" && value > last));
}

/** Is the part being repaired or replaced: its procedure was begun, and it is not recorded as done? A good reading is what that work is for. */
async function isPutRight(tx: Queryable, componentId: string, at: Date): Promise<boolean> {
  const [work] = await tx
    .select({ id: interventions.id })
    .from(interventions)
    .innerJoin(workRuns, eq(workRuns.interventionId, interventions.id))
    .where(
      and(
        eq(interventions.componentId, componentId),
        ne(interventions.kind, "inspection"),
        isNull(interventions.doneAt),
        isNull(interventions.cancelledAt),
        lte(workRuns.startedAt, at),
      ),
    )
    .limit(1);
  return work !== undefined;
}

/** What physics forbids is asked about from the first reading on, when no other reading says what to expect. */
async function physicsQuestion(
  tx: Queryable,
  { point, componentId }: Point,
  { value }: CheckedReading,
): Promise<Question | undefined> {
  const [circuit] = await tx
    .select({
      workingPressure: circuits.workingPressure,
      pumped: pumpedFlow(sql`${circuits.id}`),
    })
    .from(components)
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .where(eq(components.id, componentId));
  return askOfPhysics(point.quantity, value.value, {
    pumpedFlow: circuit?.pumped ?? null,
    workingPressure: circuit?.workingPressure ?? null,
  });
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
