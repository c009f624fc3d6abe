/** Entries of a procedure as tablets send them: each has its own fate, none is taken twice, none is overwritten unseen. */
import { eq, sql } from "drizzle-orm";
import { answerText, CLOCK_SLACK, entryProblem, standOfRun, stepProblems, type RunStand, type StepEntry } from "@core";
import { db, type Queryable } from "~/db/client.server";
import { interventions, workEntries } from "~/db/schema";
import { writerOf, type Actor, type Writer } from "~/domain/access/index.server";
import { makePhoto } from "~/platform/photoStore.server";
import { mayAct } from "~/platform/permissions";
import { now } from "~/runtime/clock.server";
import { outgoingWorkOf, type OutgoingStep, type OutgoingWork } from "./outgoing";
import { missingFor } from "./closedBy.server";
import { followAltered } from "./register.server";
import { entriesOf } from "./run.server";
import { receiveFinding, withdraw, receivePhoto } from "./receiveFound.server";
import { type WorkFate, refused, type Place, placeOf, takenBy, usedElsewhere } from "./held.server";

/** Take in the entries of a run, one after another. */
export async function receiveWork(runId: string, items: readonly unknown[], user: Actor): Promise<WorkFate[]> {
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

async function receiveOne(item: OutgoingWork, user: Actor): Promise<WorkFate> {
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
  user: Actor,
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
