/** One piece of work on its page. */
import { and, desc, eq, gte, isNull, sql } from "drizzle-orm";
import { findingSays, isProven } from "@core";
import { db } from "~/db/client.server";
import {
  circuits,
  components,
  interventions,
  jobs,
  lives,
  machines,
  points,
  readings,
  sites,
  stops,
  workRuns,
} from "~/db/schema";
import { debrisEvents } from "~/db/oilTables";
import { leadTimeNow } from "~/domain/condition/index.server";
import { notFound } from "~/platform/missing";
import { proceduresFor, alteredAt, findingsOf, runsOf, type WorkRun } from "~/domain/runs/index.server";
import { beforeAndAfter, againstSigning } from "~/domain/record/index.server";
import type { RunFinding } from "~/domain/runs/index";

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
      job: { id: jobs.id, number: jobs.number },
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
    .leftJoin(jobs, eq(jobs.id, interventions.jobId))
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
