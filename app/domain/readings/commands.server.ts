/** Writes at a point, each in one transaction: corrections and limits. New readings come in through the platform. */
import type { Answer } from "~/domain/answer";
import { audit, type Actor } from "~/domain/access/index.server";
import { eq, sql } from "drizzle-orm";
import {
  excess,
  formatQuantity,
  limitProblem,
  parseNumber,
  parseQuantity,
  quantityOf,
  resolveLimits,
  sidesOf,
  theoreticalFlow,
  type LimitRule,
} from "@core";
import { db, type Queryable } from "~/db/client.server";
import { assessments, components, points, readings, type AssessmentDetail } from "~/db/schema";
import { currentDetail, markStale } from "~/domain/condition/index.server";
import { checkReading } from "./check.server";
import { assessNow, enteredText, sentTwice, type Saved } from "./log.server";
import type { Point } from "./place.server";
import { check } from "~/platform/validate";
import { limitSchema } from "./limitForm";
import { now } from "~/runtime/clock.server";

/** Replace a reading by a corrected one, or withdraw it. The old one stays in the record with who, when and why. */
export async function correctReading(
  place: Point,
  old: typeof readings.$inferSelect,
  fields: Record<string, string>,
  actor: Actor,
): Promise<Saved> {
  const why = (fields.why ?? "").trim();
  if (why.length < 3) return { ok: false, problems: { why: "Say why: the record keeps it." } };
  if (why.length > 300) return { ok: false, problems: { why: "At most 300 characters." } };
  const withdraw = fields.intent === "withdraw";
  const result = await db()
    .transaction(async (tx): Promise<Saved> => {
      const [locked] = await tx.select().from(readings).where(eq(readings.id, old.id)).for("update");
      if (!locked || locked.supersededAt)
        return {
          ok: false,
          problems: {
            form: `${locked?.supersededBy ?? "Somebody"} has already corrected this reading. Open the newer one.`,
          },
        };
      const supersede = () =>
        tx
          .update(readings)
          .set({ supersededAt: new Date(now()), supersededBy: actor.name, supersededWhy: why })
          .where(eq(readings.id, old.id));
      if (withdraw) {
        await supersede();
        await refreshLast(tx, place.id);
        return { ok: true, readingId: old.id };
      }
      const checked = await checkReading(tx, place, fields, old.id);
      if (!checked.ok) return checked;
      const { reading } = checked;
      // what was not touched stays as it was, to the last digit and in the unit in which it was typed
      const untouched = (fields.value ?? "").trim() === old.entered;
      const same = (now: number | null, before: number | null) =>
        now !== null && before !== null && Math.abs(now - before) <= 1e-5 * Math.abs(before) ? before : now;
      // a reason to keep a value was given for that value
      const kept = fields.keptBecause?.trim() ? reading.keptBecause : untouched ? old.keptBecause : "";
      await supersede();
      const [row] = await tx
        .insert(readings)
        .values({
          pointId: place.id,
          lifeId: reading.lifeId,
          takenAt: reading.takenAt,
          value: untouched ? old.value : reading.value.value,
          entered: untouched ? old.entered : enteredText(reading.value),
          least: same(reading.least?.value ?? null, old.least),
          pressure: same(reading.pressure, old.pressure),
          temperature: same(reading.temperature, old.temperature),
          speed: same(reading.speed, old.speed),
          hours: same(reading.hours, old.hours),
          instrumentId: reading.instrumentId,
          note: reading.note,
          keptBecause: kept,
          takenBy: old.takenBy,
          sentBy: old.sentBy,
          submission: reading.submission,
          supersedesId: old.id,
          doubtful: fields.doubtful === "on",
        })
        .returning({ id: readings.id });
      await refreshLast(tx, place.id);
      return { ok: true, readingId: row!.id };
    })
    .catch((error: unknown) => sentTwice(error, place.id, fields.submission));
  if (result.ok) await assessNow(place.id);
  return result;
}

async function refreshLast(tx: Queryable, pointId: string): Promise<void> {
  await tx
    .update(points)
    .set({
      lastReadingAt: sql`(select max(taken_at) from readings where point_id = ${pointId} and superseded_at is null)`,
    })
    .where(eq(points.id, pointId));
  await markStale(tx, [pointId]);
}

/** A limit as typed: percent, a factor, or a quantity with its unit. */
function limitValue(text: string, basis: LimitRule["basis"], place: Point): { value: number | null; problem?: string } {
  if (text === "") return { value: null };
  if (basis === "absolute" || basis === "maker") {
    const parsed = parseQuantity(text, place.point.quantity, { assume: place.point.unit });
    return parsed.ok ? { value: parsed.parsed.value } : { value: null, problem: parsed.message };
  }
  const value = parseNumber(text.replace(/%$/, ""));
  const most = basis === "shareOfFullFlow" ? 100 : 1000;
  if (!(value > 0 && value <= most))
    return {
      value: null,
      problem:
        basis === "shareOfFullFlow"
          ? "Write a percentage between 0 and 100, for example 10."
          : "Write a factor, for example 3.",
    };
  return { value };
}

/** What to ask before a limit is set on the wrong side of the level that is read today. */
function levelQuestion(
  rule: LimitRule,
  scale: { fullFlow?: number; baseline?: number },
  detail: AssessmentDetail | null,
  place: Point,
): string | undefined {
  const resolved = resolveLimits(rule, scale);
  const expectation = detail?.expectation;
  const level = expectation
    ? expectation.scale === "log"
      ? Math.exp(expectation.centre)
      : expectation.centre
    : (detail?.lastRaw ?? null);
  if (!resolved.ok || level === null) return undefined;
  const side = sidesOf(resolved.limits).find((s) => excess(level, s) >= 0);
  if (!side) return undefined;
  const show = (value: number) => formatQuantity(value, place.point.quantity, { unit: place.point.unit });
  return (
    `It reads about ${show(level)} today, which is already beyond this limit of ${show(side.limit)}: the ` +
    `point becomes an alarm at once. Is the limit right, and on the right side?`
  );
}

export type LimitSaved = Answer<
  object,
  {
    question?: string;
    theirs?: {
      by: string;
      at: number;
      basis: string | null;
      upper: number | null;
      lower: number | null;
      version: number;
    };
  }
>;

/** Change a limit and its basis. Whoever started from an older limit is told and decides again. */
export async function setLimit(place: Point, fields: Record<string, string>, actor: Actor): Promise<LimitSaved> {
  const checked = await check(limitSchema, fields);
  if (!checked.ok) return { ok: false, problems: checked.problems };
  const { basis, version, reason } = checked.values;
  const upper = limitValue(checked.values.upper, basis, place);
  const lower = limitValue(checked.values.lower, basis, place);
  if (upper.problem || lower.problem)
    return {
      ok: false,
      problems: { ...(upper.problem && { upper: upper.problem }), ...(lower.problem && { lower: lower.problem }) },
    };
  const rule: LimitRule = { basis, upper: upper.value, lower: lower.value };
  const saved = await db().transaction(async (tx): Promise<LimitSaved> => {
    const [current] = await tx.select().from(points).where(eq(points.id, place.id)).for("no key update");
    if (!current) return { ok: false, problems: { form: "The point is gone." } };
    if (current.version !== version) {
      return {
        ok: false,
        problems: {
          form:
            `${current.limitSetBy || "Somebody"} changed this point in the meantime. Yours is still in the ` +
            `form: look at theirs, then save again if yours is right.`,
        },
        theirs: {
          by: current.limitSetBy,
          at: current.limitSetAt?.getTime() ?? 0,
          basis: current.limitBasis,
          upper: current.limitUpper,
          lower: current.limitLower,
          version: current.version,
        },
      };
    }
    const [component] = await tx.select().from(components).where(eq(components.id, place.componentId));
    const [stored] = await tx
      .select({ detail: currentDetail })
      .from(assessments)
      .where(eq(assessments.pointId, place.id));
    const fullFlow =
      component?.displacement && component.speed ? theoreticalFlow(component.displacement, component.speed) : undefined;
    const baseline = stored?.detail?.baseline?.centre;
    const problem = limitProblem(rule, quantityOf(current.quantity).harm, {
      ...(fullFlow !== undefined && { fullFlow }),
      ...(baseline !== undefined && { baseline }),
    });
    if (problem)
      return { ok: false, problems: { [rule.upper === null && rule.lower !== null ? "lower" : "upper"]: problem } };
    const question = levelQuestion(
      rule,
      { ...(fullFlow !== undefined && { fullFlow }), ...(baseline !== undefined && { baseline }) },
      stored?.detail ?? null,
      place,
    );
    if (question && checked.values.beyond !== "on") return { ok: false, problems: {}, question };
    await tx
      .update(points)
      .set({
        limitBasis: basis,
        limitUpper: rule.upper,
        limitLower: rule.lower,
        limitReason: reason,
        limitSetBy: actor.name,
        limitSetAt: new Date(now()),
        version: current.version + 1,
      })
      .where(eq(points.id, place.id));
    await audit(tx, actor, {
      what: `limit of ${place.machine}, ${place.component}: ${place.name}`,
      recordId: place.id,
      before: { basis: current.limitBasis, upper: current.limitUpper, lower: current.limitLower },
      after: { ...rule, reason },
    });
    await markStale(tx, [place.id]);
    return { ok: true };
  });
  if (saved.ok) await assessNow(place.id);
  return saved;
}
