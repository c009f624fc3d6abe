/** A kept plan becomes booked work: all of it or none, and once, whoever presses first. */
import { and, asc, eq, inArray, isNull, sql } from "drizzle-orm";
import { db, type Queryable } from "~/db/client.server";
import { components, interventions, plans, points, stops, type KeptLine } from "~/db/schema";
import { beginJobs } from "~/domain/jobs/index.server";
import { audit, type Actor } from "~/domain/access/index.server";
import type { Answer } from "~/domain/answer";
import { markStale } from "~/domain/condition/index.server";
import { notFound } from "~/platform/missing";
import { now } from "~/runtime/clock.server";

/** What waits is left as it is. */
const asksForWork = (line: KeptLine) => line.kind !== "wait";
const stopOf = (line: KeptLine) => (line.kind === "stop" ? line.option : null);

/** Lines whose stop or component was taken out of use since the plan was kept: booked, they would be lost from sight. */
async function goneSince(tx: Queryable, lines: readonly KeptLine[]): Promise<KeptLine[]> {
  const stopIds = lines.flatMap((l) => stopOf(l) ?? []);
  const componentIds = lines.map((l) => l.componentId);
  const [standing, inUse] = await Promise.all([
    tx
      .select({ id: stops.id })
      .from(stops)
      .where(and(inArray(stops.id, stopIds), isNull(stops.retiredAt))),
    // held until the end, in one order: two who book at once see each other's work and do not wait for each other
    tx
      .select({ id: components.id })
      .from(components)
      .where(and(inArray(components.id, componentIds), isNull(components.retiredAt)))
      .orderBy(asc(components.id))
      .for("no key update"),
  ]);
  const there = new Set([...standing, ...inUse].map((r) => r.id));
  return lines.filter((l) => !there.has(l.componentId) || !there.has(stopOf(l) ?? l.componentId));
}

type Booked = { id: string; componentId: string; stopId: string | null };

/** Work at the components of a plan: what is open, the oldest booking first, and what was closed since the plan was made. */
async function workSince(tx: Queryable, plan: { madeAt: Date }, lines: readonly KeptLine[]) {
  const rows = await tx
    .select({
      id: interventions.id,
      componentId: interventions.componentId,
      stopId: interventions.stopId,
      doneAt: interventions.doneAt,
      cancelledAt: interventions.cancelledAt,
    })
    .from(interventions)
    .where(
      inArray(
        interventions.componentId,
        lines.map((l) => l.componentId),
      ),
    )
    .orderBy(asc(interventions.bookedAt), asc(interventions.id));
  const isOpen = (r: (typeof rows)[number]) => r.doneAt === null && r.cancelledAt === null;
  const open = rows.filter(isOpen);
  const closed = new Set(rows.filter((r) => !isOpen(r)).map((r) => r.id));
  const doneSince = new Set(rows.filter((r) => r.doneAt && r.doneAt >= plan.madeAt).map((r) => r.componentId));
  return {
    /** The booking that a line means: its own where it has one, else the oldest that is open at its component. */
    bookingOf: (line: KeptLine): Booked | undefined =>
      line.workId ? open.find((o) => o.id === line.workId) : open.find((o) => o.componentId === line.componentId),
    /** Its work was done or cancelled, or the part was dealt with, since the plan was made: it is not booked again. */
    isSettled: (line: KeptLine) => (line.workId ? closed.has(line.workId) : doneSince.has(line.componentId)),
  };
}

/** A booking is moved where there is one, else made. Returns the components whose work changed. */
async function bookLines(
  tx: Queryable,
  plan: { id: string; name: string },
  lines: readonly KeptLine[],
  bookingOf: (line: KeptLine) => Booked | undefined,
  actor: Actor,
): Promise<string[]> {
  const openFor = new Map(lines.flatMap((l) => [[l.componentId, bookingOf(l)] as const]).filter(([, b]) => b));
  const moved = lines.filter((l) => {
    const booked = openFor.get(l.componentId);
    return booked && booked.stopId !== stopOf(l);
  });
  // one write a stop, not one a piece
  for (const stopId of new Set(moved.map(stopOf)))
    await tx
      .update(interventions)
      .set({ stopId, version: sql`${interventions.version} + 1` })
      .where(
        inArray(
          interventions.id,
          moved.filter((l) => stopOf(l) === stopId).map((l) => openFor.get(l.componentId)!.id),
        ),
      );
  const made = lines.filter((l) => !openFor.has(l.componentId));
  if (made.length > 0) {
    const jobOf = await beginJobs(
      tx,
      made.map((l) => l.componentId),
      actor,
    );
    await tx.insert(interventions).values(
      made.map((l) => ({
        componentId: l.componentId,
        jobId: jobOf.get(l.componentId)!,
        pointId: l.pointId,
        kind: l.needsPart ? ("replacement" as const) : ("inspection" as const),
        stopId: stopOf(l),
        crewHours: l.hours,
        note: `Plan “${plan.name}”. ${l.reason}`,
        origin: "plan" as const,
        originId: plan.id,
        bookedBy: actor.name,
      })),
    );
  }
  return [...moved, ...made].map((l) => l.componentId);
}

const listed = (lines: readonly KeptLine[]) => {
  const names = lines.slice(0, 3).map((l) => `${l.label} (${l.name})`);
  return lines.length > 3 ? `${names.join("; ")} and ${lines.length - 3} more` : names.join("; ");
};

/** Book what a kept plan says. Refused as a whole where a stop or component of it is gone since. */
export async function bookPlan(
  id: string,
  actor: Actor,
): Promise<Answer<{ id: string; booked: number; settled: string[] }>> {
  return db().transaction(async (tx) => {
    const [plan] = await tx.select().from(plans).where(eq(plans.id, id)).for("update");
    if (!plan || plan.retiredAt) throw notFound("plan");
    if (plan.bookedAt) return { ok: true, id, booked: 0, settled: [] };
    const wanted = plan.lines.filter(asksForWork);
    const { bookingOf, isSettled } = await workSince(tx, plan, wanted);
    const lines = wanted.filter((l) => !isSettled(l));
    const gone = await goneSince(tx, lines);
    if (gone.length > 0)
      return {
        ok: false,
        because: "conflict",
        problems: {
          form: `Nothing was booked: the stop or the component is no longer in use for ${listed(gone)}. Solve and keep the plan again.`,
        },
      };
    const changed = await bookLines(tx, plan, lines, bookingOf, actor);
    await tx
      .update(plans)
      .set({ bookedAt: new Date(now()), bookedBy: actor.name })
      .where(eq(plans.id, id));
    await audit(tx, actor, { what: `booked the plan ${plan.name}`, recordId: id, after: { pieces: changed.length } });
    const touched = await tx.select({ id: points.id }).from(points).where(inArray(points.componentId, changed));
    await markStale(
      tx,
      touched.map((p) => p.id),
    );
    const settled = wanted.filter(isSettled).map((l) => `${l.label} (${l.name})`);
    return { ok: true, id, booked: changed.length, settled };
  });
}
