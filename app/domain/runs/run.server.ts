/** A procedure that is carried out: begun for a piece of work, and as a tablet takes it along. */
import { asc, eq } from "drizzle-orm";
import { standOfRun, type StepEntry } from "@core";
import { db, type Queryable } from "~/db/client.server";
import {
  circuitDiagrams,
  circuits,
  components,
  interventions,
  machines,
  sites,
  workEntries,
  workFindings,
  workPhotos,
  workRuns,
} from "~/db/schema";
import type { Actor } from "~/domain/access/index.server";
import { formIsOld, type Answer } from "~/domain/answer";
import { sentBefore } from "~/domain/sent.server";
import { now } from "~/runtime/clock.server";
import { notFound } from "~/platform/missing";
import { isUuid } from "~/platform/validate";
import { procedureBy } from "./procedures.server";
import type { RunFinding, RunState } from "./runState";

/** Begin a procedure for a piece of work. The same form sent twice begins it once. */
export async function startRun(interventionId: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const { submission } = fields;
  if (!isUuid(submission)) return formIsOld();
  const {
    copyId: _copy,
    version,
    machineId: _machine,
    machine: _name,
    madeBy: _by,
    ...procedure
  } = await procedureBy(fields.procedure ?? "");
  return db().transaction(async (tx): Promise<Answer> => {
    // the work first: of two copies of the form the second waits, and finds what the first made
    const [work] = await tx.select().from(interventions).where(eq(interventions.id, interventionId)).for("update");
    if (!work) throw notFound("piece of work");
    const before = await sentBefore(tx, workRuns, submission, { interventionId });
    if (before) return before;
    if (work.cancelledAt) return { ok: false, because: "conflict", problems: { form: "This work was cancelled." } };
    if (work.signedAt)
      return { ok: false, because: "conflict", problems: { form: "The record of this work is signed." } };
    const [row] = await tx
      .insert(workRuns)
      .values({
        interventionId,
        procedure,
        procedureVersion: version,
        startedAt: new Date(now()),
        startedBy: actor.name,
        submission,
      })
      .returning({ id: workRuns.id });
    return { ok: true, id: row!.id };
  });
}

const entryColumns = {
  submission: workEntries.submission,
  step: workEntries.step,
  kind: workEntries.kind,
  values: workEntries.values,
  reason: workEntries.reason,
  at: workEntries.at,
  by: workEntries.by,
  sentBy: workEntries.sentBy,
};

/** Entries of a run in the order in which they were taken. */
export async function entriesOf(q: Queryable, runId: string): Promise<StepEntry[]> {
  const rows = await q
    .select(entryColumns)
    .from(workEntries)
    .where(eq(workEntries.runId, runId))
    .orderBy(asc(workEntries.id));
  return rows.map((r) => ({ ...r, at: r.at.getTime() }));
}

/** Findings of a piece of work, those that were withdrawn too. */
export async function findingsOf(interventionId: string): Promise<RunFinding[]> {
  const rows = await db()
    .select({
      id: workFindings.id,
      kind: workFindings.kind,
      values: workFindings.values,
      at: workFindings.at,
      by: workFindings.by,
      sentBy: workFindings.sentBy,
      withdrawnAt: workFindings.withdrawnAt,
      withdrawnBy: workFindings.withdrawnBy,
      withdrawnBecause: workFindings.withdrawnBecause,
    })
    .from(workFindings)
    .where(eq(workFindings.interventionId, interventionId))
    .orderBy(asc(workFindings.at));
  return rows.map(({ withdrawnAt, withdrawnBy, withdrawnBecause, ...r }) => ({
    ...r,
    at: r.at.getTime(),
    withdrawn: withdrawnAt ? { by: withdrawnBy ?? "", at: withdrawnAt.getTime(), because: withdrawnBecause } : null,
  }));
}

export async function photosOf(interventionId: string) {
  const rows = await db()
    .select({
      id: workPhotos.id,
      submission: workPhotos.submission,
      step: workPhotos.step,
      findingId: workPhotos.findingId,
      caption: workPhotos.caption,
      marks: workPhotos.marks,
      width: workPhotos.width,
      height: workPhotos.height,
      at: workPhotos.at,
      by: workPhotos.by,
      sentBy: workPhotos.sentBy,
    })
    .from(workPhotos)
    .where(eq(workPhotos.interventionId, interventionId))
    .orderBy(asc(workPhotos.at));
  return rows.map((r) => ({ ...r, at: r.at.getTime() }));
}

async function runRow(runId: string) {
  const [row] = await db()
    .select({
      run: workRuns,
      work: interventions,
      component: components.name,
      componentId: components.id,
      circuitId: circuits.id,
      machine: machines.name,
      timeZone: sites.timeZone,
      holdsReleased: sites.holdsReleased,
    })
    .from(workRuns)
    .innerJoin(interventions, eq(interventions.id, workRuns.interventionId))
    .innerJoin(components, eq(components.id, interventions.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(workRuns.id, runId));
  if (!row) throw notFound("procedure");
  return row;
}

const closedWords = (work: { signedAt: Date | null; signedBy: string | null; cancelledAt: Date | null }): string =>
  work.cancelledAt
    ? "This work was cancelled."
    : work.signedAt
      ? `${work.signedBy ?? "Somebody"} signed the record: what comes now is an addition to it.`
      : "";

/** What changes while people work on it. */
export async function runState(runId: string): Promise<RunState> {
  const { run, work } = await runRow(runId);
  const [entries, findings, photos] = await Promise.all([
    entriesOf(db(), runId),
    findingsOf(run.interventionId),
    photosOf(run.interventionId),
  ]);
  return { entries, findings, photos, closed: closedWords(work) };
}

/** Tags of the hoses and pipes at a component, as the circuit has them. */
async function lineTags(circuitId: string, componentId: string): Promise<string[]> {
  const [diagram] = await db()
    .select({ netlist: circuitDiagrams.netlist })
    .from(circuitDiagrams)
    .where(eq(circuitDiagrams.circuitId, circuitId));
  if (!diagram) return [];
  const own = new Set(diagram.netlist.elements.filter((e) => e.componentId === componentId).map((e) => e.id));
  return diagram.netlist.lines
    .filter((l) => own.has(l.from.element) || own.has(l.to.element))
    .map((l, i) => l.data?.tag || `${own.has(l.from.element) ? l.from.port : l.to.port} ${i + 1}`);
}

/** All that a tablet takes along for a procedure. */
export async function runPage(runId: string) {
  const row = await runRow(runId);
  const [state, tags] = await Promise.all([runState(runId), lineTags(row.circuitId, row.componentId)]);
  return {
    run: {
      id: row.run.id,
      interventionId: row.run.interventionId,
      procedure: row.run.procedure,
      version: row.run.procedureVersion,
      startedAt: row.run.startedAt.getTime(),
      startedBy: row.run.startedBy,
    },
    machine: row.machine,
    component: row.component,
    /** The point that condemned it: what is read afterwards is read there. */
    pointId: row.work.pointId,
    timeZone: row.timeZone,
    rules: { holdsReleased: row.holdsReleased },
    tags,
    state,
  };
}

export type RunPage = Awaited<ReturnType<typeof runPage>>;

/** Procedures of a piece of work, and where each stands. */
export async function runsOf(interventionId: string, holdsReleased: boolean, q: Queryable = db()) {
  const runs = await q
    .select()
    .from(workRuns)
    .where(eq(workRuns.interventionId, interventionId))
    .orderBy(asc(workRuns.startedAt));
  const entries = await q
    .select({
      runId: workEntries.runId,
      ...entryColumns,
    })
    .from(workEntries)
    .innerJoin(workRuns, eq(workRuns.id, workEntries.runId))
    .where(eq(workRuns.interventionId, interventionId))
    .orderBy(asc(workEntries.id));
  return runs.map((run) => {
    const own = entries.filter((e) => e.runId === run.id).map(({ runId: _, at, ...e }) => ({ ...e, at: at.getTime() }));
    return {
      id: run.id,
      procedure: run.procedure,
      version: run.procedureVersion,
      startedAt: run.startedAt.getTime(),
      startedBy: run.startedBy,
      entries: own,
      stand: standOfRun(run.procedure, own, { holdsReleased }),
    };
  });
}

/** Procedures of a piece of work that are not through, in words: how many steps of each are open. */
export async function openRuns(q: Queryable, work: { id: string; componentId: string }): Promise<string[]> {
  const [site] = await q
    .select({ holdsReleased: sites.holdsReleased })
    .from(components)
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(components.id, work.componentId));
  return (await runsOf(work.id, site!.holdsReleased, q)).flatMap(({ procedure, stand }) => {
    const left = stand.steps.length - stand.closed;
    return left === 0 ? [] : [`${procedure.title}: ${left} step${left === 1 ? " is" : "s are"} open`];
  });
}

export type WorkRun = Awaited<ReturnType<typeof runsOf>>[number];
