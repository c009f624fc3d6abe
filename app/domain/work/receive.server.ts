/** Entries of a procedure as tablets send them: each has its own fate, none is taken twice, none is overwritten unseen. */
import { and, eq, isNull, sql } from "drizzle-orm";
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
import { users } from "~/db/peopleTables";
import {
  circuits,
  components,
  interventions,
  machines,
  sites,
  temporaryChanges,
  workEntries,
  workFindings,
  workPhotos,
  workRuns,
} from "~/db/schema";
import { keepPhoto, makePhoto } from "~/platform/photoStore.server";
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

/** Who wrote an entry; somebody else may be signed in by the time it is sent. */
async function writerOf(item: OutgoingWork, user: SignedInUser): Promise<{ id: string; name: string }> {
  if (!isUuid(item.by) || item.by === user.id) return user;
  const [person] = await db().select({ id: users.id, name: users.name }).from(users).where(eq(users.id, item.by));
  return person ?? user;
}

async function receiveOne(item: OutgoingWork, user: SignedInUser): Promise<WorkFate> {
  const by = await writerOf(item, user);
  if (item.kind === "workPhoto") return receivePhoto(item, by.name);
  return db().transaction(async (tx) => {
    const place = await placeOf(tx, item.runId);
    if (!place) return refused(item.submission, "This procedure is gone.");
    if (item.kind === "withdrawal") return withdraw(tx, place, item, by, user);
    if (await isTaken(tx, item)) return { submission: item.submission, fate: "saved" };
    if (place.closed) return refused(item.submission, place.closed);
    return item.kind === "finding"
      ? receiveFinding(tx, place.interventionId, item, by)
      : receiveStep(tx, place, item, by, user);
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
  return { ...row, ...where!, closed };
}

async function isTaken(tx: Queryable, item: OutgoingStep | OutgoingFinding): Promise<boolean> {
  const table = item.kind === "step" ? workEntries : workFindings;
  const rows = await tx
    .select({ submission: table.submission })
    .from(table)
    .where(eq(table.submission, item.submission));
  return rows.length > 0;
}

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
  by: { id: string; name: string },
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
  const passHolds = mayAct(user.role, "engineer") && by.id === user.id;
  const problem = entryProblem(stand, { step: item.step, kind: item.entry, reason: item.reason }, { passHolds });
  if (problem || !own) return refused(submission, problem ?? "This procedure has no such step.");
  if (item.entry === "done") {
    const others = Object.fromEntries(stand.steps.map((s) => [s.step.id, s.entry?.values]));
    const [wrong] = Object.entries(stepProblems(own.step, item.values, others));
    if (wrong) return refused(submission, wrong[1], wrong[0]);
  }
  await tx.insert(workEntries).values({
    runId: item.runId,
    step: item.step,
    kind: item.entry,
    values: item.entry === "done" ? item.values : {},
    reason: item.reason.trim(),
    at: new Date(item.at),
    by: by.name,
    byId: by.id,
    submission,
  });
  if (item.entry === "done") {
    await register(tx, place, own.step, entries, item, by.name);
    if (own.step.interim && item.values.day) await stopGap(tx, place.interventionId, item.values.day);
  }
  return { submission, fate: "saved" };
}

/** What a step alters stands on the machine's page until the step that puts it back is done. */
async function register(
  tx: Queryable,
  place: Place,
  step: Place["procedure"]["phases"][number]["steps"][number],
  entries: readonly StepEntry[],
  item: OutgoingStep,
  by: string,
): Promise<void> {
  if (step.alters)
    await tx
      .insert(temporaryChanges)
      .values({
        machineId: place.machineId,
        componentId: place.componentId,
        what: step.alters,
        before: "",
        at: new Date(item.at),
        by,
        submission: item.submission,
      })
      .onConflictDoNothing({ target: temporaryChanges.submission });
  for (const before of entries.filter((e) => e.step === step.putsBack && e.kind === "done"))
    await tx
      .update(temporaryChanges)
      .set({ putBackAt: new Date(item.at), putBackBy: by })
      .where(and(eq(temporaryChanges.submission, before.submission), isNull(temporaryChanges.putBackAt)));
}

/** A step that names the day to look again makes the work a stop-gap; who has the write-up open is told of it. */
async function stopGap(tx: Queryable, interventionId: string, day: string): Promise<void> {
  await tx
    .update(interventions)
    .set({ interim: true, lookAgainOn: day, version: sql`${interventions.version} + 1` })
    .where(eq(interventions.id, interventionId));
}

async function receiveFinding(
  tx: Queryable,
  interventionId: string,
  item: OutgoingFinding,
  by: { id: string; name: string },
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
    by: by.name,
    byId: by.id,
    submission,
  });
  return { submission, fate: "saved" };
}

/** A finding that was wrong is withdrawn by its writer or an engineer, and stays on record. Twice is once. */
async function withdraw(
  tx: Queryable,
  place: Place,
  item: OutgoingWithdrawal,
  by: { id: string; name: string },
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
    .set({ withdrawnAt: new Date(item.at), withdrawnBy: by.name, withdrawnBecause: item.reason.trim() })
    .where(eq(workFindings.id, finding.id));
  return { submission, fate: "saved" };
}

async function receivePhoto(item: OutgoingWorkPhoto, by: string): Promise<WorkFate> {
  const { submission } = item;
  const made = await makePhoto(Buffer.from(item.base64, "base64"));
  if (!made) return refused(submission, "The photograph cannot be read: JPEG, PNG or WebP up to 12 MB.");
  const place = await placeOf(db(), item.runId);
  if (!place) return refused(submission, "This procedure is gone.");
  if (place.closed) return refused(submission, place.closed);
  // a finding that was refused leaves its picture to the work
  const [finding] = isUuid(item.finding)
    ? await db().select({ id: workFindings.id }).from(workFindings).where(eq(workFindings.id, item.finding))
    : [];
  // the picture first: a row without one would be a hole in the record
  await keepPhoto(submission, made.content);
  await db()
    .insert(workPhotos)
    .values({
      id: submission,
      interventionId: place.interventionId,
      step: item.step,
      findingId: finding?.id ?? null,
      caption: item.caption.trim(),
      marks: item.marks,
      width: made.width,
      height: made.height,
      at: new Date(item.at),
      by,
      submission,
    })
    .onConflictDoNothing({ target: workPhotos.submission });
  return { submission, fate: "saved" };
}
