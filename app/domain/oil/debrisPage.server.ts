/** A debris event with its list. */
import { and, desc, eq, isNull, sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { debrisEvents, debrisTasks, oilAssessments, samples } from "~/db/oilTables";
import { components } from "~/db/schema";
import { currentOil, oilSampleOf } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { notFound } from "~/platform/missing";
import { circuitPlace } from "./place.server";

/** A debris event with its list. */
export async function debrisPage(id: string) {
  const [event] = await db().select().from(debrisEvents).where(eq(debrisEvents.id, id));
  if (!event) throw notFound("debris event");
  const [place, tasks, parts, newest, [stored]] = await Promise.all([
    circuitPlace(event.circuitId),
    db().select().from(debrisTasks).where(eq(debrisTasks.eventId, id)).orderBy(debrisTasks.position),
    db()
      .select({ id: components.id, name: components.name, kind: components.kind })
      .from(components)
      .where(and(eq(components.circuitId, event.circuitId), isNull(components.retiredAt)))
      .orderBy(components.position),
    db()
      .select()
      .from(samples)
      .where(
        and(
          eq(samples.circuitId, event.circuitId),
          isNull(samples.withdrawnAt),
          sql`${samples.takenAt} > ${event.openedAt.toISOString()}`,
        ),
      )
      .orderBy(desc(samples.takenAt))
      .limit(12),
    db().select({ detail: currentOil }).from(oilAssessments).where(eq(oilAssessments.circuitId, event.circuitId)),
  ]);
  return {
    event: {
      ...event,
      openedAt: event.openedAt.getTime(),
      reopenedAt: event.reopenedAt?.getTime() ?? null,
      closedAt: event.closedAt?.getTime() ?? null,
    },
    machine: place.machine,
    circuit: place.circuit.name,
    timeZone: place.timeZone,
    now: now(),
    parts,
    tasks: tasks.map((t) => ({ ...t, doneAt: t.doneAt?.getTime() ?? null })),
    since: newest.map(oilSampleOf),
    target: stored?.detail?.target ?? null,
    causes: stored?.detail?.causes ?? [],
    suspects: stored?.detail?.suspects ?? [],
  };
}
