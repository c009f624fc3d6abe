/** Entries of a procedure as tablets send them: each has its own fate, none is taken twice, none is overwritten unseen. */
import { eq, and, sql } from "drizzle-orm";
import {
  answerText,
  CLOCK_SLACK,
  entryProblem,
  findingProblems,
  standOfRun,
  stepProblems,
  type RunStand,
  type StepEntry,
} from "@core";
import { db, type Queryable } from "~/db/client.server";
import {
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
import { writerOf, type Writer } from "~/domain/access/index.server";
import { keepPhoto, makePhoto, type MadePhoto } from "~/platform/photoStore.server";
import { mayAct } from "~/platform/permissions";
import type { SignedInUser } from "~/platform/session.server";
import { isUuid } from "~/platform/validate";
import { now } from "~/runtime/clock.server";
import {
  outgoingWorkOf,
  type OutgoingFinding,
  type OutgoingStep,
  type OutgoingWithdrawal,
  type OutgoingWork,
  type OutgoingWorkPhoto,
} from "./outgoing";
import { missingFor } from "./closedBy.server";
import { followAltered } from "./register.server";
import { entriesOf } from "./run.server";

export interface WorkFate {
  submission: string;
  fate: "saved" | "conflict" | "refused";
  field?: string;
  message?: string;
}

const refused = (submission: string, message: string, field?: string): WorkFate => ({
  submission,
  fate: "refused",
  message,
  ...(field !== undefined && { field }),
});

/** Take in the entries of a run, one after another. */
export async function receiveWork(runId: string, items: readonly unknown[], user: SignedInUser): Promise<WorkFate[]> {
  const fates: WorkFate[] = [];
  for (const given of items) {
    const item = outgoingWorkOf(given);
    if (!item || item.runId !== runId)
      fates.push(
        refused(
          String((given as { submission?: unknown } | null)?.submission ?? "").slice(0, 100),
          "This entry cannot be read.",
        ),
      );
    else if (item.at > now() + CLOCK_SLACK)
      fates.push(refused(item.submission, "That is in the future. Check the tablet's clock."));
    else fates.push(await receiveOne(item, user));
  }
  return fates;
}

async function receiveOne(item: OutgoingWork, user: SignedInUser): Promise<WorkFate> {
  // a picture is made anew before the run is held: that takes a second, and nobody else waits for it
  const made = item.kind === "workPhoto" ? await makePhoto(Buffer.from(item.base64, "base64")) : null;
  return db().transaction(async (tx): Promise<WorkFate> => {
    const by = await writerOf(item.by, user);
    const place = await placeOf(tx, item.runId);
    if (!place) return refused(item.submission, "This procedure is gone.");
    if (item.kind === "withdrawal") return withdraw(tx, place, item, by, user);
    const there = await takenBy(tx, item);
    if (there)
      return there === place.owner[item.kind] ? { submission: item.submission, fate: "saved" } : usedElsewhere(item);
    if (place.closed) return refused(item.submission, place.closed);
    switch (item.kind) {
      case "workPhoto":
        return receivePhoto(tx, place.interventionId, item, made, by);
      case "finding":
        return receiveFinding(tx, place.interventionId, item, by);
      default:
        return receiveStep(tx, place, item, by, user);
    }
  });
}

type Place = NonNullable<Awaited<ReturnType<typeof placeOf>>>;

/** The run, held until the entry is in: two people at one step come one after the other. */
async function placeOf(tx: Queryable, runId: string) {
  const [row] = await tx
    .select({
      procedure: workRuns.procedure,
      interventionId: workRuns.interventionId,
      componentId: interventions.componentId,
      signedBy: interventions.signedBy,
      signedAt: interventions.signedAt,
      cancelledAt: interventions.cancelledAt,
    })
    .from(workRuns)
    .innerJoin(interventions, eq(interventions.id, workRuns.interventionId))
    .where(eq(workRuns.id, runId))
    .for("update");
  if (!row) return null;
  const [where] = await tx
    .select({ machineId: machines.id, holdsReleased: sites.holdsReleased })
    .from(components)
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(components.id, row.componentId));
  const closed = row.signedAt
    ? `${row.signedBy ?? "Somebody"} has signed the record. Write it as an addition to the record.`
    : row.cancelledAt
      ? "This work was cancelled."
      : null;
  // an entry of a step belongs to its run, a finding and a photograph to the whole work
  const owner = { step: runId, finding: row.interventionId, workPhoto: row.interventionId };
  return { ...row, ...where!, closed, owner };
}

/** To which run or work an entry of this id belongs already; undefined: it is new. */
async function takenBy(
  tx: Queryable,
  { kind, submission }: OutgoingStep | OutgoingFinding | OutgoingWorkPhoto,
): Promise<string | undefined> {
  if (kind === "step") {
    const [row] = await tx
      .select({ owner: workEntries.runId })
      .from(workEntries)
      .where(eq(workEntries.submission, submission));
    return row?.owner;
  }
  const table = kind === "finding" ? workFindings : workPhotos;
  const [row] = await tx.select({ owner: table.interventionId }).from(table).where(eq(table.submission, submission));
  return row?.owner;
}

/** The id of an entry stands for one entry of one record: a second one under it would replace what was signed. */
const usedElsewhere = ({ submission }: OutgoingWork): WorkFate => ({
  submission,
  fate: "conflict",
  message: "An entry of another piece of work has this id already. Enter it again.",
});

/** What the newest entry of a step says, for a person whose own says otherwise. */
function theirs(stand: RunStand, entries: readonly StepEntry[], step: string): string {
  const last = entries.findLast((e) => e.step === step);
  const ask = stand.steps.find((s) => s.step.id === step)?.step.ask;
  if (!last) return "";
  const what = { done: "did this", skipped: "skipped this", reopened: "took this back", released: "released this" };
  const answer = answerText(ask, last.values);
  return `${last.by} ${what[last.kind]} in the meantime${answer ? `: ${answer}` : ""}${last.reason ? ` (${last.reason})` : ""}.`;
}

/** The same entry by two people is one: both did it, nothing is to be decided. */
const sameAs = (item: OutgoingStep, last: StepEntry | undefined) =>
  last?.kind === item.entry &&
  last.kind === "done" &&
  JSON.stringify(Object.entries(last.values).sort()) === JSON.stringify(Object.entries(item.values).sort());

async function receiveStep(
  tx: Queryable,
  place: Place,
  item: OutgoingStep,
  by: Writer,
  user: SignedInUser,
): Promise<WorkFate> {
  const { submission } = item;
  const entries = await entriesOf(tx, item.runId);
  const stand = standOfRun(place.procedure, entries, place);
  const own = stand.steps.find((s) => s.step.id === item.step);
  const last = entries.findLast((e) => e.step === item.step);
  if ((own?.last ?? "") !== item.after) {
    if (sameAs(item, last)) return { submission, fate: "saved" };
    return { submission, fate: "conflict", message: theirs(stand, entries, item.step) };
  }
  // only who is signed in may pass a hold point, not whoever an entry names
  const passHolds = mayAct(user.role, "engineer") && by.byId === user.id;
  const problem = entryProblem(stand, { step: item.step, kind: item.entry, reason: item.reason }, { passHolds });
  if (problem || !own) return refused(submission, problem ?? "This procedure has no such step.");
  if (item.entry === "done") {
    const others = Object.fromEntries(stand.steps.map((s) => [s.step.id, s.entry?.values]));
    const [wrong] = Object.entries(stepProblems(own.step, item.values, others));
    if (wrong) return refused(submission, wrong[1], wrong[0]);
    const missing = await missingFor(tx, own.step.closedBy, { runId: item.runId, ...place });
    if (missing) return refused(submission, missing);
  }
  await tx.insert(workEntries).values({
    runId: item.runId,
    step: item.step,
    kind: item.entry,
    values: item.entry === "done" ? item.values : {},
    reason: item.reason.trim(),
    at: new Date(item.at),
    ...by,
    submission,
  });
  const after = await entriesOf(tx, item.runId);
  await followAltered(tx, place, item.step, standOfRun(place.procedure, after, place), after);
  if (own.step.interim) await stopGap(tx, place.interventionId, item.entry === "done" ? item.values.day : undefined);
  return { submission, fate: "saved" };
}

/** A step that names the day to look again makes the work a stop-gap until it is taken back; who has the write-up open is told of it. */
async function stopGap(tx: Queryable, interventionId: string, day: string | undefined): Promise<void> {
  await tx
    .update(interventions)
    .set({ ...(day ? { interim: true } : {}), lookAgainOn: day ?? null, version: sql`${interventions.version} + 1` })
    .where(eq(interventions.id, interventionId));
}

async function receiveFinding(
  tx: Queryable,
  interventionId: string,
  item: OutgoingFinding,
  by: Writer,
): Promise<WorkFate> {
  const { submission } = item;
  const [wrong] = Object.entries(findingProblems(item.finding, item.values));
  if (wrong) return refused(submission, wrong[1], wrong[0]);
  await tx.insert(workFindings).values({
    id: submission,
    interventionId,
    kind: item.finding,
    values: item.values,
    at: new Date(item.at),
    ...by,
    submission,
  });
  return { submission, fate: "saved" };
}

/** A finding that was wrong is withdrawn by its writer or an engineer, and stays on record. Twice is once. */
async function withdraw(
  tx: Queryable,
  place: Place,
  item: OutgoingWithdrawal,
  by: Writer,
  user: SignedInUser,
): Promise<WorkFate> {
  const { submission } = item;
  const [finding] = await tx
    .select()
    .from(workFindings)
    .where(and(eq(workFindings.id, item.finding), eq(workFindings.interventionId, place.interventionId)));
  if (!finding) return refused(submission, "There is no such finding.");
  if (finding.withdrawnAt) return { submission, fate: "saved" };
  if (place.closed) return refused(submission, place.closed);
  // who is signed in, not whoever the entry names; a finding of before ids were kept goes by its name
  const own = finding.byId ? finding.byId === user.id : finding.by === user.name;
  if (!own && !mayAct(user.role, "engineer"))
    return refused(submission, `${finding.by} wrote it; an engineer may withdraw it.`);
  await tx
    .update(workFindings)
    .set({ withdrawnAt: new Date(item.at), withdrawnBy: by.by, withdrawnBecause: item.reason.trim() })
    .where(eq(workFindings.id, finding.id));
  return { submission, fate: "saved" };
}

async function receivePhoto(
  tx: Queryable,
  interventionId: string,
  item: OutgoingWorkPhoto,
  made: MadePhoto | null,
  { by, sentBy, sentById }: Writer,
): Promise<WorkFate> {
  const { submission } = item;
  if (!made) return refused(submission, "The photograph cannot be read: JPEG, PNG or WebP up to 12 MB.");
  // a finding that was refused, or of other work, leaves its picture to the work
  const [finding] = isUuid(item.finding)
    ? await tx
        .select({ id: workFindings.id })
        .from(workFindings)
        .where(and(eq(workFindings.id, item.finding), eq(workFindings.interventionId, interventionId)))
    : [];
  const [row] = await tx
    .insert(workPhotos)
    .values({
      interventionId,
      step: item.step,
      findingId: finding?.id ?? null,
      caption: item.caption.trim(),
      marks: item.marks,
      width: made.width,
      height: made.height,
      at: new Date(item.at),
      by,
      sentBy,
      sentById,
      submission,
    })
    .returning({ id: workPhotos.id });
  // under the row's own id, which no tablet chooses; where it cannot be written the row goes too
  await keepPhoto(row!.id, made.content);
  return { submission, fate: "saved" };
}
