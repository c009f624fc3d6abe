/** What a person sees before booking. */
import { and, asc, eq, getTableColumns, inArray, isNull, sql } from "drizzle-orm";
import { dayOf, dayStart, partAgainstStop, partReadyOn, probabilityBy } from "@core";
import { db } from "~/db/client.server";
import { assessments, circuits, components, interventions, machines, points, sites, stops } from "~/db/schema";
import { currentDetail, leadTimeNow, notOver } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { notFound } from "~/platform/missing";

/** What a person needs to see before booking: the stops with the chance of failing before each, and the part. */
export async function bookingContext(componentId: string | null, pointId: string | null) {
  const place = db()
    .select({
      componentId: components.id,
      component: components.name,
      leadTimeDays: leadTimeNow,
      machine: machines.name,
      machineId: machines.id,
      siteId: machines.siteId,
      timeZone: sites.timeZone,
      pointId: points.id,
      point: points.name,
      verdict: assessments.verdict,
      state: assessments.state,
      margin: assessments.margin,
      detail: currentDetail,
    })
    .from(components)
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .leftJoin(points, pointId ? eq(points.id, pointId) : sql`false`)
    .leftJoin(assessments, eq(assessments.pointId, points.id));
  const [row] = pointId
    ? await place.where(eq(points.componentId, components.id))
    : await place.where(eq(components.id, componentId!));
  if (!row) throw notFound(pointId ? "point" : "component");
  const ahead = await db()
    .select(getTableColumns(stops))
    .from(stops)
    .innerJoin(sites, eq(sites.id, stops.siteId))
    .where(and(eq(stops.siteId, row.siteId), isNull(stops.retiredAt), notOver()))
    .orderBy(asc(stops.startsOn))
    .limit(8);
  const booked = await db()
    .select({ stopId: interventions.stopId, hours: sql<number>`sum(${interventions.crewHours})::float8` })
    .from(interventions)
    .where(
      and(
        isNull(interventions.doneAt),
        isNull(interventions.cancelledAt),
        inArray(
          interventions.stopId,
          ahead.map((s) => s.id),
        ),
      ),
    )
    .groupBy(interventions.stopId);
  const open = await db()
    .select({
      id: interventions.id,
      kind: interventions.kind,
      by: interventions.bookedBy,
      orderedOn: interventions.partOrderedOn,
      stop: stops.name,
      startsOn: stops.startsOn,
    })
    .from(interventions)
    .leftJoin(stops, eq(stops.id, interventions.stopId))
    .where(
      and(
        eq(interventions.componentId, row.componentId),
        isNull(interventions.doneAt),
        isNull(interventions.cancelledAt),
      ),
    );
  const { detail, ...rest } = row;
  const forecast = detail?.noTrend ? null : (detail?.forecast ?? null);
  const beyond = (detail?.beyond ?? 0) >= 0.5;
  const part = {
    leadTimeDays: row.leadTimeDays,
    orderedOn:
      open
        .map((o) => o.orderedOn)
        .filter((d) => d !== null)
        .sort()[0] ?? null,
    today: dayOf(now(), row.timeZone),
  };
  const chanceBy = (at: number) => (beyond ? 1 : forecast ? probabilityBy(forecast, at) : null);
  const partAt = dayStart(partReadyOn(part), row.timeZone);
  const choices = ahead.map((s) => {
    const at = dayStart(s.startsOn, row.timeZone);
    return {
      id: s.id,
      name: s.name,
      startsOn: s.startsOn,
      at,
      crewHours: s.crewHours,
      bookedHours: booked.find((b) => b.stopId === s.id)?.hours ?? 0,
      probability: chanceBy(at),
      part: partAgainstStop(part, s.startsOn),
    };
  });
  return {
    ...rest,
    part,
    partAt,
    beyond,
    beforePart: chanceBy(partAt),
    open,
    stops: choices,
    ...proposal(choices, chanceBy(partAt)),
  };
}

/** From this chance of the limit before it on, a stop is no proposal. */
const TOO_LATE = 0.5;

/**
 * Which stop to propose: the first that the part can make and that comes before the limit more likely than not. None:
 * no stop is chosen for the person, and the least bad way is named instead.
 */
function proposal(
  choices: readonly { id: string; probability: number | null; part: { late: boolean } }[],
  beforePart: number | null,
): { proposed: string | null; leastBad: "own" | string | null } {
  const makes = choices.filter((s) => !s.part.late);
  const sound = makes.find((s) => (s.probability ?? 0) < TOO_LATE);
  if (sound) return { proposed: sound.id, leastBad: null };
  const first = makes[0];
  if (!first) return { proposed: null, leastBad: choices.length > 0 || beforePart !== null ? "own" : null };
  return { proposed: null, leastBad: (beforePart ?? 1) < (first.probability ?? 1) - 0.01 ? "own" : first.id };
}

export type BookingContext = Awaited<ReturnType<typeof bookingContext>>;
