/** A job on its page and in the list: what its isolations, its work, its steps and its signatures say, as one thread. */
import { and, asc, desc, eq, inArray, isNull, sql } from "drizzle-orm";
import { findingSays, isProven, jobStand, symptoms, type JobStageId } from "@core";
import { db } from "~/db/client.server";
import {
  circuits,
  components,
  interventions,
  isolations,
  jobs,
  machines,
  sites,
  stops,
  workAddenda,
} from "~/db/schema";
import { beforeAndAfter } from "~/domain/record/index.server";
import { evidenceTexts } from "~/domain/isolation/index.server";
import { findingsOf, runsOf } from "~/domain/runs/index.server";
import { notFound } from "~/platform/missing";
import { isUuid } from "~/platform/validate";

/** Something that happened in a job. */
export interface JobEvent {
  at: number;
  by: string;
  text: string;
  to: string | null;
}

const place = {
  id: jobs.id,
  number: jobs.number,
  noticed: jobs.noticed,
  openedAt: jobs.openedAt,
  openedBy: jobs.openedBy,
  closedAt: jobs.closedAt,
  closedBy: jobs.closedBy,
  closedBecause: jobs.closedBecause,
  circuitId: jobs.circuitId,
  circuit: circuits.name,
  componentId: jobs.componentId,
  component: components.name,
  machine: machines.name,
  machineId: machines.id,
  timeZone: sites.timeZone,
  holdsReleased: sites.holdsReleased,
};

const placed = () =>
  db()
    .select(place)
    .from(jobs)
    .innerJoin(circuits, eq(circuits.id, jobs.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .leftJoin(components, eq(components.id, jobs.componentId));

const causesOf = (jobIds: string[]) =>
  db()
    .select({
      id: isolations.id,
      jobId: isolations.jobId,
      symptom: isolations.symptom,
      note: isolations.note,
      openedAt: isolations.openedAt,
      openedBy: isolations.openedBy,
      closedAt: isolations.closedAt,
      closedBy: isolations.closedBy,
      found: isolations.foundText,
      foundIds: isolations.found,
      findings: isolations.findings,
    })
    .from(isolations)
    .where(inArray(isolations.jobId, jobIds))
    .orderBy(asc(isolations.openedAt));

const worksOf = (jobIds: string[]) =>
  db()
    .select({ work: interventions, component: components.name, stop: stops.name, startsOn: stops.startsOn })
    .from(interventions)
    .innerJoin(components, eq(components.id, interventions.componentId))
    .leftJoin(stops, eq(stops.id, interventions.stopId))
    .where(inArray(interventions.jobId, jobIds))
    .orderBy(asc(interventions.bookedAt));

type Cause = Awaited<ReturnType<typeof causesOf>>[number];
type Work = Awaited<ReturnType<typeof worksOf>>[number];

/** What was noticed: as typed, or as its isolation or its work says. */
function noticedOf(noticed: string, causes: readonly Cause[], works: readonly Work[]): string {
  const [first] = causes;
  if (noticed) return noticed;
  if (first) return symptoms[first.symptom].label;
  const [work] = works;
  return work ? work.work.note || `${work.component}: ${work.work.kind}` : "";
}

/** Signed as it is, or a reading after it says so. */
const isShown = ({ work }: Work, compared: Awaited<ReturnType<typeof beforeAndAfter>>) =>
  work.unprovenBecause !== "" || work.signedAt !== null || isProven(compared, work.pointId) !== null;

/** `Missing` when there is none. `mayWork`: a procedure opens at its steps; who only looks is led to the record. */
export async function jobPage(id: string, mayWork = true) {
  const [job] = await placed().where(eq(jobs.id, id));
  if (!job) throw notFound("job");
  const stepsAt = (work: string, run: string) => (mayWork ? `/work/runs/${run}` : `/work/${work}/record`);
  const [causes, works] = await Promise.all([causesOf([id]), worksOf([id])]);
  const parts = await Promise.all(
    works.map(async (w) => ({
      ...w,
      compared: w.work.doneAt ? await beforeAndAfter(w.work) : [],
      runs: await runsOf(w.work.id, job.holdsReleased),
      findings: (await findingsOf(w.work.id)).filter((f) => !f.withdrawn),
    })),
  );
  const added = await db()
    .select({ of: workAddenda.interventionId, text: workAddenda.text, at: workAddenda.at, by: workAddenda.by })
    .from(workAddenda)
    .where(
      inArray(
        workAddenda.interventionId,
        works.map((w) => w.work.id),
      ),
    );
  const stand = jobStand({
    causes: causes.map((c) => ({ closed: c.closedAt !== null })),
    works: parts.map((p) => ({
      cancelled: p.work.cancelledAt !== null,
      done: p.work.doneAt !== null,
      proven: p.work.doneAt !== null && isShown(p, p.compared),
      signed: p.work.signedAt !== null,
    })),
    closed: job.closedAt !== null,
  });
  // a cause is found at an element, which bears the id of its component where the register has it
  const foundAt = causes.flatMap((c) => (c.foundIds ?? []).flatMap((id) => id.split("@")[1] ?? [])).filter(isUuid);
  const [part] =
    foundAt.length > 0
      ? await db()
          .select({ id: components.id, name: components.name })
          .from(components)
          .where(and(inArray(components.id, foundAt), isNull(components.retiredAt)))
          .limit(1)
      : [];
  const results = await evidenceTexts(
    db(),
    causes.map((c) => c.id),
  );
  const events: JobEvent[] = [
    // what began with an isolation or with work is told by that
    ...(job.noticed ? [{ at: job.openedAt.getTime(), by: job.openedBy, text: job.noticed, to: null }] : []),
    ...causes.flatMap((c): JobEvent[] => {
      const to = `/isolate/${c.id}`;
      const begun = `Isolation begun: ${symptoms[c.symptom].label.toLowerCase()}${c.note ? `. ${c.note}` : ""}`;
      return [
        { at: c.openedAt.getTime(), by: c.openedBy, text: begun, to },
        ...results.filter((r) => r.isolationId === c.id).map(({ at, by, text }) => ({ at, by, text, to: null })),
        ...(c.closedAt
          ? [
              {
                at: c.closedAt.getTime(),
                by: c.closedBy ?? "",
                text: `Cause: ${c.found || "none of what was suspected"}${c.findings ? `. ${c.findings}` : ""}`,
                to,
              },
            ]
          : []),
      ];
    }),
    ...parts.flatMap(({ work, component, stop, runs, findings }): JobEvent[] => {
      const to = `/work/${work.id}`;
      const then = (at: Date | null, by: string | null, text: string, address: string | null = null): JobEvent[] =>
        at ? [{ at: at.getTime(), by: by ?? "", text, to: address }] : [];
      return [
        ...then(work.bookedAt, work.bookedBy, `${component}: ${work.kind} booked${stop ? `, ${stop}` : ""}`, to),
        ...then(work.cancelledAt, null, `${component}: cancelled`),
        ...runs.map((r) => ({
          at: r.startedAt,
          by: r.startedBy,
          text: `${r.procedure.title}: ${r.stand.closed} of ${r.stand.steps.length} steps`,
          to: stepsAt(work.id, r.id),
        })),
        ...findings.map((f) => ({
          at: f.at,
          by: f.by,
          text: `Found: ${findingSays(f.kind, f.values).text}`,
          to: null,
        })),
        ...then(work.doneAt, work.doneBy, `${component}: done${work.findings ? `. ${work.findings}` : ""}`, to),
        ...then(
          work.signedAt,
          work.signedBy,
          work.unprovenBecause ? `Signed without proof: ${work.unprovenBecause}` : "Signed",
          `/work/${work.id}/record`,
        ),
        ...then(work.checkedAt, work.checkedBy, "Checked and signed a second time"),
        ...added
          .filter((a) => a.of === work.id)
          .map((a) => ({ at: a.at.getTime(), by: a.by, text: `Added: ${a.text}`, to: null })),
      ];
    }),
    ...(job.closedAt
      ? [{ at: job.closedAt.getTime(), by: job.closedBy ?? "", text: `Closed: ${job.closedBecause}`, to: null }]
      : []),
  ];
  return {
    ...job,
    openedAt: job.openedAt.getTime(),
    closedAt: job.closedAt?.getTime() ?? null,
    noticed: noticedOf(job.noticed, causes, works),
    stand,
    /** The part that its cause was found at, with the isolation that found it. */
    foundAt: part
      ? { ...part, isolation: causes.find((c) => c.foundIds?.some((id) => id.endsWith(part.id)))!.id }
      : null,
    causes: causes.map((c) => ({
      id: c.id,
      closed: c.closedAt !== null,
      found: c.found,
      results: results.filter((r) => r.isolationId === c.id).length,
    })),
    works: parts.map(({ work, component, stop, startsOn, runs, compared }) => ({
      id: work.id,
      component,
      kind: work.kind,
      stop,
      startsOn,
      cancelled: work.cancelledAt !== null,
      done: work.doneAt !== null,
      pointId: work.pointId,
      proven: isProven(compared, work.pointId),
      unprovenBecause: work.unprovenBecause,
      signed: work.signedAt !== null,
      runs: runs.map((r) => ({
        id: r.id,
        title: r.procedure.title,
        to: stepsAt(work.id, r.id),
        closed: r.stand.closed,
        of: r.stand.steps.length,
      })),
    })),
    events: events.sort((a, b) => a.at - b.at),
  };
}

export type JobPage = Awaited<ReturnType<typeof jobPage>>;

/** Jobs on the page. */
const SHOWN = 100;

/** A job that somebody has still to do something about. */
const isOpen = sql<boolean>`${jobs.closedAt} is null and (
  exists (select 1 from ${isolations} i where i.job_id = ${jobs.id} and i.closed_at is null)
  or exists (select 1 from ${interventions} w where w.job_id = ${jobs.id} and w.cancelled_at is null and w.signed_at is null)
  or not exists (select 1 from ${interventions} w where w.job_id = ${jobs.id} and w.cancelled_at is null))`;

export interface JobRow {
  id: string;
  number: number;
  machine: string;
  noticed: string;
  openedAt: number;
  openedBy: string;
  timeZone: string;
  here: JobStageId | null;
}

/** Jobs, the open ones first, the newest first. */
export async function jobList(): Promise<{ open: JobRow[]; over: JobRow[] }> {
  const rows = await placed().orderBy(desc(isOpen), desc(jobs.openedAt)).limit(SHOWN);
  if (rows.length === 0) return { open: [], over: [] };
  const ids = rows.map((r) => r.id);
  const [causes, works] = await Promise.all([causesOf(ids), worksOf(ids)]);
  const listed = rows.map((job): JobRow => {
    const own = causes.filter((c) => c.jobId === job.id);
    const done = works.filter((w) => w.work.jobId === job.id);
    return {
      id: job.id,
      number: job.number,
      machine: job.machine,
      noticed: noticedOf(job.noticed, own, done),
      openedAt: job.openedAt.getTime(),
      openedBy: job.openedBy,
      timeZone: job.timeZone,
      here: jobStand({
        causes: own.map((c) => ({ closed: c.closedAt !== null })),
        // whether readings prove it is looked at on its page: here, done and not signed is waiting for proof
        works: done.map(({ work }) => ({
          cancelled: work.cancelledAt !== null,
          done: work.doneAt !== null,
          proven: work.signedAt !== null,
          signed: work.signedAt !== null,
        })),
        closed: job.closedAt !== null,
      }).here,
    };
  });
  return { open: listed.filter((j) => j.here !== null), over: listed.filter((j) => j.here === null) };
}
