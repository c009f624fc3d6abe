/** A new element in a filter. */
import { and, eq, isNull, ne, sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { components, lives, points } from "~/db/schema";
import { changedMeanwhile, formIsOld, type Answer } from "~/domain/answer";
import { markOilStale, markStale } from "~/domain/condition/index.server";
import { isUuid } from "~/platform/validate";
import { day, momentOf, reassess } from "./shared.server";

/** A new element in a filter: the life of the old one ends, the new one's begins, and its readings are a series of their own. */
export async function renewElement(
  circuitId: string,
  componentId: string,
  fields: Record<string, string>,
  timeZone: string,
): Promise<Answer> {
  const at = momentOf(fields.at, timeZone);
  if (typeof at === "string") return { ok: false, problems: { at } };
  if (!isUuid(fields.submission)) return formIsOld();
  const renewed = new Date(at);
  const done = await db().transaction(async (tx): Promise<Answer> => {
    const [component] = await tx
      .select({ id: components.id })
      .from(components)
      .where(
        and(eq(components.id, componentId), eq(components.circuitId, circuitId), sql`${components.filter} is not null`),
      )
      .for("no key update");
    if (!component) return { ok: false, problems: { form: "That is no filter of this circuit." } };
    // the id of the new life is the form's: sent twice, it is there already
    const [sent] = await tx.select({ id: lives.id }).from(lives).where(eq(lives.id, fields.submission!));
    if (sent) return { ok: true, id: sent.id };
    const [life] = await tx
      .select()
      .from(lives)
      .where(and(eq(lives.componentId, componentId), isNull(lives.endedAt)));
    // the page named the element that was in: another one has been fitted since
    if (fields.present !== undefined && fields.present !== (life?.id ?? ""))
      return changedMeanwhile("the element of this filter");
    if (life && renewed <= life.startedAt)
      return {
        ok: false,
        problems: {
          at: `The element that is in was fitted on ${day(life.startedAt, timeZone)}; the new one is later.`,
        },
      };
    const [reading] = await tx
      .execute<{ n: number; hours: number | null }>(
        sql`
      select count(*) filter (where r.taken_at >= ${renewed.toISOString()})::int as n, max(r.hours) filter (where
        r.taken_at < ${renewed.toISOString()}) as hours
      from readings r join points p on p.id = r.point_id where p.component_id = ${componentId} and r.superseded_at is null`,
      )
      .then((r) => r.rows);
    if (reading!.n > 0)
      return {
        ok: false,
        problems: {
          at: `${reading!.n} reading${reading!.n === 1 ? " was" : "s were"} taken after that with the old element: give a later time, or correct the readings.`,
        },
      };
    if (life)
      await tx
        .update(lives)
        .set({ endedAt: renewed, endReason: `Element renewed. ${(fields.found ?? "").trim()}`.trim().slice(0, 500) })
        .where(and(eq(lives.id, life.id), ne(lives.startedAt, renewed)));
    await tx.insert(lives).values({
      id: fields.submission!,
      componentId,
      startedAt: renewed,
      startHours: reading!.hours ?? life?.startHours ?? 0,
      serial: (fields.element ?? "").trim().slice(0, 60),
      knownWhenNew: true,
    });
    const affected = await tx.select({ id: points.id }).from(points).where(eq(points.componentId, componentId));
    await markOilStale(tx, [circuitId]);
    await markStale(
      tx,
      affected.map((a) => a.id),
    );
    return { ok: true, id: fields.submission! };
  });
  if (done.ok) await reassess(circuitId);
  return done;
}
