/** Work ends a life and begins another: of the part that was replaced, or of trends that a modification splits. */
import { and, asc, eq, gte, inArray, isNull, lt, ne, type SQL } from "drizzle-orm";
import type { Queryable } from "~/db/client.server";
import { components, forecastsIssued, lives, points, readings } from "~/db/schema";

type Life = typeof lives.$inferSelect;

interface Begun {
  at: Date;
  hours: number;
  reason: string;
  /** Of the new part; null: the part is the same. */
  serial: string | null;
}

/** Readings taken from the fitted minute on but logged before it was recorded belong to the new life; its forecasts came to an end. */
async function handOver(tx: Queryable, from: Life, to: string, at: Date): Promise<void> {
  await tx
    .update(readings)
    .set({ lifeId: to })
    .where(and(eq(readings.lifeId, from.id), gte(readings.takenAt, at)));
  await tx
    .update(forecastsIssued)
    .set({ outcomeAt: at, outcome: "replaced" })
    .where(and(eq(forecastsIssued.lifeId, from.id), isNull(forecastsIssued.outcomeAt)));
}

/** Hold parts whose lives are about to change: readings that are on their way wait, and find the life that is there then. */
export async function holdParts(tx: Queryable, which: SQL): Promise<void> {
  await tx.select({ id: components.id }).from(components).where(which).orderBy(asc(components.id)).for("no key update");
}

/** End a part's life and begin the next. Returns the id of the new one. */
export async function renewLife(
  tx: Queryable,
  componentId: string,
  before: Life | null,
  { at, hours, reason, serial, renewed }: Begun & { renewed: boolean },
): Promise<string> {
  if (before)
    await tx.update(lives).set({ endedAt: at, endHours: hours, endReason: reason }).where(eq(lives.id, before.id));
  const [fresh] = await tx
    .insert(lives)
    .values({
      componentId,
      startedAt: at,
      startHours: hours,
      serial: serial ?? before?.serial ?? "",
      // of a part that stays as much is known as before
      knownWhenNew: renewed || (before?.knownWhenNew ?? false),
    })
    .returning({ id: lives.id });
  if (before) await handOver(tx, before, fresh!.id, at);
  return fresh!.id;
}

/** A modification splits the trends of every other part of the circuit too. Returns the points concerned. */
export async function splitTrends(tx: Queryable, componentId: string, begun: Begun): Promise<string[]> {
  const [own] = await tx
    .select({ circuitId: components.circuitId })
    .from(components)
    .where(eq(components.id, componentId));
  await holdParts(tx, and(eq(components.circuitId, own!.circuitId), isNull(components.retiredAt))!);
  const running = await tx
    .select({ life: lives })
    .from(lives)
    .innerJoin(components, eq(components.id, lives.componentId))
    .where(
      and(
        eq(components.circuitId, own!.circuitId),
        ne(components.id, componentId),
        isNull(components.retiredAt),
        isNull(lives.endedAt),
        lt(lives.startedAt, begun.at),
      ),
    )
    .for("update");
  // a circuit has a dozen parts at most, and this is done once in years
  for (const { life } of running)
    await renewLife(tx, life.componentId, life, { ...begun, serial: life.serial, renewed: false });
  const ids = running.map(({ life }) => life.componentId);
  return (await tx.select({ id: points.id }).from(points).where(inArray(points.componentId, ids))).map((p) => p.id);
}
