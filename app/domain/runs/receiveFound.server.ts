/** Findings and photographs of a run, as tablets send them. */
import { eq, and } from "drizzle-orm";
import { findingProblems } from "@core";
import type { Queryable } from "~/db/client.server";
import { workFindings, workPhotos } from "~/db/schema";
import type { Actor, Writer } from "~/domain/access/index.server";
import { keepPhoto, type MadePhoto } from "~/platform/photoStore.server";
import { mayAct } from "~/platform/permissions";
import { isUuid } from "~/platform/validate";
import type { OutgoingFinding, OutgoingWithdrawal, OutgoingWorkPhoto } from "./outgoing";
import { type WorkFate, refused, type Place } from "./held.server";

export async function receiveFinding(
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
export async function withdraw(
  tx: Queryable,
  place: Place,
  item: OutgoingWithdrawal,
  by: Writer,
  user: Actor,
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

export async function receivePhoto(
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
