/** Open and finished work, by its stops. */
import { and, asc, desc, eq, getTableColumns, isNotNull, isNull, sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { circuits, components, interventions, machines, sites, stops } from "~/db/schema";
import { leadTimeNow, notOver } from "~/domain/condition/index.server";

const workColumns = () => ({
  id: interventions.id,
  kind: interventions.kind,
  note: interventions.note,
  crewHours: interventions.crewHours,
  stopId: interventions.stopId,
  doneAt: interventions.doneAt,
  interim: interventions.interim,
  signedAt: interventions.signedAt,
  orderedOn: interventions.partOrderedOn,
  component: components.name,
  componentId: components.id,
  leadTimeDays: leadTimeNow,
  machine: machines.name,
  machineId: machines.id,
  timeZone: sites.timeZone,
  stop: stops.name,
  startsOn: stops.startsOn,
  /** Its stop is over, and it is still open. */
  missed: sql<boolean>`${interventions.stopId} is not null and not (${notOver()})`,
});

function work() {
  return db()
    .select(workColumns())
    .from(interventions)
    .innerJoin(components, eq(components.id, interventions.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .leftJoin(stops, eq(stops.id, interventions.stopId));
}

export type WorkRow = Awaited<ReturnType<typeof work>>[number];

const SHOWN_STOPS = 12;
const SHOWN_OPEN = 200;

/** Open work by its stop, the stops to come first; what fell past its stop is known by the stop's own days. */
export async function workPage() {
  const [ahead, open, done] = await Promise.all([
    db()
      .select({ ...getTableColumns(stops), timeZone: sites.timeZone })
      .from(stops)
      .innerJoin(sites, eq(sites.id, stops.siteId))
      .where(and(isNull(stops.retiredAt), notOver()))
      .orderBy(asc(stops.startsOn))
      .limit(SHOWN_STOPS),
    work()
      .where(and(isNull(interventions.doneAt), isNull(interventions.cancelledAt)))
      .orderBy(machines.name)
      .limit(SHOWN_OPEN),
    work().where(isNotNull(interventions.doneAt)).orderBy(desc(interventions.doneAt)).limit(12),
  ]);
  return { ahead, open, done };
}
