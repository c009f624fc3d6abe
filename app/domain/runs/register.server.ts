/** What a procedure leaves altered on its machine: it follows from the entries that count, whatever was done and taken back on the way. */
import { and, eq, inArray, isNotNull, isNull, notExists, sql } from "drizzle-orm";
import type { RunStand, StepEntry } from "@core";
import type { Queryable } from "~/db/client.server";
import { acceptedChanges, temporaryChanges } from "~/db/schema";

/**
 * Bring the register in line with a step that was just done, skipped or taken back.
 * @param place the machine and the component
 * @param stepId the step of the newest entry
 * @param stand of the run with that entry
 * @param entries of the run, that one too
 */
export async function followAltered(
  tx: Queryable,
  place: { machineId: string; componentId: string },
  stepId: string,
  stand: RunStand,
  entries: readonly StepEntry[],
): Promise<void> {
  const own = stand.steps.find((s) => s.step.id === stepId);
  if (own?.step.alters) await followAlteration(tx, place, own, entries);
  if (own?.step.putsBack) await followPutBack(tx, own, entries);
}

type Stand = RunStand["steps"][number];

const doneOf = (stepId: string, entries: readonly StepEntry[]) =>
  entries.filter((e) => e.step === stepId && e.kind === "done");

/** One entry of the register for the entry that counts, none for those that were taken back. */
async function followAlteration(
  tx: Queryable,
  place: { machineId: string; componentId: string },
  { step, entry }: Stand,
  entries: readonly StepEntry[],
): Promise<void> {
  const counts = entry?.kind === "done" ? entry : null;
  const gone = doneOf(step.id, entries).filter((e) => e.submission !== counts?.submission);
  if (gone.length > 0) {
    const theirs = inArray(
      temporaryChanges.submission,
      gone.map((e) => e.submission),
    );
    const accepted = tx
      .select({ one: sql`1` })
      .from(acceptedChanges)
      .where(eq(acceptedChanges.changeId, temporaryChanges.id));
    await tx.delete(temporaryChanges).where(and(theirs, notExists(accepted)));
    // what somebody accepted by name stays on that record, and no longer on the machine
    const last = entries.at(-1)!;
    await tx
      .update(temporaryChanges)
      .set({ putBackAt: new Date(last.at), putBackBy: last.by })
      .where(and(theirs, isNull(temporaryChanges.putBackAt)));
  }
  if (counts)
    await tx
      .insert(temporaryChanges)
      .values({
        ...place,
        what: step.alters!,
        at: new Date(counts.at),
        by: counts.by,
        submission: counts.submission,
      })
      .onConflictDoNothing({ target: temporaryChanges.submission });
}

/** Put back while the step that puts it back counts; altered again when that is taken back. */
async function followPutBack(tx: Queryable, { step, entry }: Stand, entries: readonly StepEntry[]): Promise<void> {
  const altered = inArray(
    temporaryChanges.submission,
    doneOf(step.putsBack!, entries).map((e) => e.submission),
  );
  if (entry?.kind === "done") {
    await tx
      .update(temporaryChanges)
      .set({ putBackAt: new Date(entry.at), putBackBy: entry.by })
      .where(and(altered, isNull(temporaryChanges.putBackAt)));
    return;
  }
  // only what this step put back: what somebody put back at the machine's page stays so
  const ownMoments = doneOf(step.id, entries).map((e) => new Date(e.at));
  if (ownMoments.length > 0)
    await tx
      .update(temporaryChanges)
      .set({ putBackAt: null, putBackBy: null })
      .where(and(altered, isNotNull(temporaryChanges.putBackAt), inArray(temporaryChanges.putBackAt, ownMoments)));
}
