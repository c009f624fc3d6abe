/** Reads of planned and finished work. */
import { and, asc, desc, eq, getTableColumns, gte, inArray, isNotNull, isNull, sql } from "drizzle-orm";
import { dayOf, dayStart, findingSays, isProven, partAgainstStop, partReadyOn, probabilityBy } from "@core";
import { db } from "~/db/client.server";
import {
  assessments,
  circuits,
  components,
  interventions,
  lives,
  machines,
  points,
  readings,
  sites,
  stops,
  workRuns,
} from "~/db/schema";
import { debrisEvents } from "~/db/oilTables";
import { currentDetail, leadTimeNow, notOver } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { notFound } from "~/platform/missing";
import { proceduresFor } from "./procedures.server";
import { beforeAndAfter } from "./proof.server";
import { alteredAt } from "./altered.server";
import { findingsOf, runsOf, type WorkRun } from "./run.server";
import type { RunFinding } from "./runState";
import { againstSigning } from "./sign.server";

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

/** Debris that was found in the work: what it was, and the event of its circuit since the work was booked, where one is open. */
async function debrisOf(
  circuitId: string,
  work: { bookedAt: Date },
  findings: readonly RunFinding[],
): Promise<{ what: string; eventId: string | null } | null> {
  const found = findings.find((f) => f.kind === "debris");
  if (!found) return null;
  const [event] = await db()
    .select({ id: debrisEvents.id })
    .from(debrisEvents)
    .where(and(eq(debrisEvents.circuitId, circuitId), gte(debrisEvents.openedAt, work.bookedAt)))
    .orderBy(desc(debrisEvents.openedAt))
    .limit(1);
  return { what: findingSays(found.kind, found.values).text, eventId: event?.id ?? null };
}

/** What the steps of its procedures hold already: nobody types it a second time. */
function heldBySteps(runs: readonly WorkRun[]) {
  const done = runs.flatMap((r) => r.stand.steps.filter((s) => s.entry?.kind === "done"));
  const texts = (field: "serial" | "settingsLeft") =>
    done.flatMap(({ step, entry }) =>
      step.ask?.kind === "text" && step.ask.fills === field && entry!.values.text ? [entry!.values.text] : [],
    );
  // the part was in when what had been altered was put back: what is read afterwards is read of the new one
  const back = done.filter((s) => s.step.putsBack).map((s) => s.entry!.at);
  return {
    serial: texts("serial").at(-1) ?? "",
    settingsLeft: texts("settingsLeft").join("; "),
    doneAt: back.length > 0 ? Math.max(...back) : null,
  };
}

/** One piece of work with its place, its stop, and what the readings say before and after. */
export async function interventionPage(id: string) {
  const [row] = await db()
    .select({
      work: interventions,
      component: components.name,
      kindOfComponent: components.kind,
      leadTimeDays: leadTimeNow,
      machine: machines.name,
      machineId: machines.id,
      circuitId: circuits.id,
      timeZone: sites.timeZone,
      holdsReleased: sites.holdsReleased,
      twoSignatures: sites.twoSignatures,
      stop: stops.name,
      startsOn: stops.startsOn,
    })
    .from(interventions)
    .innerJoin(components, eq(components.id, interventions.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .leftJoin(stops, eq(stops.id, interventions.stopId))
    .where(eq(interventions.id, id));
  if (!row) throw notFound("piece of work");
  const [life] = await db()
    .select()
    .from(lives)
    .where(and(eq(lives.componentId, row.work.componentId), isNull(lives.endedAt)));
  const [counter] = await db()
    .select({
      hours: sql<number | null>`max(${readings.hours})`,
      // typed with what was read since its procedure began: nobody types it a second time
      since: sql<
        number | null
      >`max(${readings.hours}) filter (where ${readings.takenAt} >= (select min(w.started_at) from ${workRuns} w where w.intervention_id = ${id}))`,
    })
    .from(readings)
    .innerJoin(points, eq(points.id, readings.pointId))
    .where(and(eq(points.componentId, row.work.componentId), isNull(readings.supersededAt)));
  const compared = row.work.doneAt ? await beforeAndAfter(row.work) : [];
  const findings = (await findingsOf(id)).filter((f) => !f.withdrawn);
  const runs = await runsOf(id, row.holdsReleased);
  return {
    ...row,
    fromSteps: { ...heldBySteps(runs), hours: counter?.since ?? null },
    proven: isProven(compared, row.work.pointId),
    lifeSerial: life?.serial ?? "",
    lifeStartedAt: life?.startedAt.getTime() ?? null,
    counter: counter?.hours ?? null,
    compared,
    runs,
    findings,
    debris: await debrisOf(row.circuitId, row.work, findings),
    procedures: await proceduresFor(row.kindOfComponent, row.work.kind, row.machineId),
    against: row.work.doneAt && !row.work.signedAt ? await againstSigning(db(), row.work) : [],
    altered: row.work.signedAt ? [] : await alteredAt(db(), row.work),
  };
}

export type InterventionPage = Awaited<ReturnType<typeof interventionPage>>;
