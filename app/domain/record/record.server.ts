/** The record of a piece of work, whole: why, what was found, steps, proof, signatures. And finding records again. */
import { and, asc, desc, eq, ilike, isNotNull, or, sql } from "drizzle-orm";
import { findingSays } from "@core";
import { db } from "~/db/client.server";
import {
  circuits,
  components,
  interventions,
  lives,
  machines,
  points,
  sites,
  stops,
  workAddenda,
  workFindings,
} from "~/db/schema";
import { notFound } from "~/platform/missing";
import { acceptedFor, findingsOf, photosOf, runsOf } from "~/domain/runs/index.server";
import { beforeAndAfter } from "./proof.server";

export async function recordPage(id: string) {
  const [row] = await db()
    .select({
      work: interventions,
      component: components.name,
      componentTag: components.tag,
      model: components.model,
      machine: machines.name,
      machineTag: machines.tag,
      machineId: machines.id,
      circuit: circuits.name,
      site: sites.name,
      timeZone: sites.timeZone,
      holdsReleased: sites.holdsReleased,
      twoSignatures: sites.twoSignatures,
      stop: stops.name,
      point: points.name,
    })
    .from(interventions)
    .innerJoin(components, eq(components.id, interventions.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .leftJoin(stops, eq(stops.id, interventions.stopId))
    .leftJoin(points, eq(points.id, interventions.pointId))
    .where(eq(interventions.id, id));
  if (!row) throw notFound("piece of work");
  const { work } = row;
  const [runs, findings, photos, addenda, compared, serials, accepted] = await Promise.all([
    runsOf(id, row.holdsReleased),
    findingsOf(id),
    photosOf(id),
    db()
      .select({ id: workAddenda.id, text: workAddenda.text, at: workAddenda.at, by: workAddenda.by })
      .from(workAddenda)
      .where(eq(workAddenda.interventionId, id))
      .orderBy(asc(workAddenda.at)),
    work.doneAt ? beforeAndAfter(work) : [],
    db().select({ id: lives.id, serial: lives.serial }).from(lives).where(eq(lives.componentId, work.componentId)),
    acceptedFor(id),
  ]);
  const serialOf = (lifeId: string | null) => serials.find((l) => l.id === lifeId)?.serial ?? "";
  return {
    ...row,
    runs,
    findings: findings.map((f) => ({ ...f, says: findingSays(f.kind, f.values) })),
    photos,
    addenda: addenda.map((a) => ({ ...a, at: a.at.getTime() })),
    compared,
    accepted,
    oldSerial: serialOf(work.endedLifeId),
    newSerial: serialOf(work.startedLifeId),
  };
}

export type WorkRecord = Awaited<ReturnType<typeof recordPage>>;

const FOUND = 60;

/** Records by machine, component, part number or serial, finding, person: every word must be somewhere in it. */
export async function findRecords(text: string) {
  const words = text.trim().split(/\s+/).filter(Boolean).slice(0, 8);
  const anywhere = (word: string) => {
    const like = `%${word.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
    return or(
      ilike(machines.name, like),
      ilike(machines.tag, like),
      ilike(components.name, like),
      ilike(components.model, like),
      ilike(interventions.note, like),
      ilike(interventions.findings, like),
      ilike(interventions.parts, like),
      ilike(interventions.doneBy, like),
      sql`exists (select 1 from ${lives} l where l.id in (${interventions.endedLifeId}, ${interventions.startedLifeId}) and l.serial ilike ${like})`,
      sql`exists (select 1 from ${workFindings} f where f.intervention_id = ${interventions.id} and f.withdrawn_at is null
        and f.kind || ' ' || f.values::text ilike ${like})`,
    );
  };
  const rows = await db()
    .select({
      id: interventions.id,
      kind: interventions.kind,
      doneAt: interventions.doneAt,
      doneBy: interventions.doneBy,
      note: interventions.note,
      findings: interventions.findings,
      interim: interventions.interim,
      signedAt: interventions.signedAt,
      machine: machines.name,
      component: components.name,
    })
    .from(interventions)
    .innerJoin(components, eq(components.id, interventions.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .where(and(isNotNull(interventions.doneAt), ...words.map(anywhere)))
    .orderBy(desc(interventions.doneAt))
    .limit(FOUND + 1);
  return {
    more: rows.length > FOUND,
    records: rows.slice(0, FOUND).map((r) => ({ ...r, doneAt: r.doneAt!.getTime(), signed: r.signedAt !== null })),
  };
}
