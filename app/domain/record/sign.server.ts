/** The record of a piece of work: written up, signed, checked by a second person, added to. Signed is locked. */
import { eq } from "drizzle-orm";
import { calendarDay, isProven, lowerFirst } from "@core";
import { db, type Queryable } from "~/db/client.server";
import { interventions, workAddenda } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import { changedMeanwhile, formIsOld, type Answer, type Because, type Refused } from "~/domain/answer";
import { sentBefore } from "~/domain/sent.server";
import { check, isUuid } from "~/platform/validate";
import { now } from "~/runtime/clock.server";
import { alteredAt, openRuns } from "~/domain/runs/index.server";
import { recordWords, writeUpSchema } from "./form";
import { beforeAndAfter } from "./proof.server";
import { SHORTEST_REASON } from "~/domain/runs/index";

type Work = typeof interventions.$inferSelect;

const refuse = (form: string, because: Because = "conflict"): Refused => ({ ok: false, because, problems: { form } });

async function held(tx: Queryable, id: string): Promise<Work | undefined> {
  const [work] = await tx.select().from(interventions).where(eq(interventions.id, id)).for("update");
  return work;
}

/** Parts, people, settings as left, what stays open, stop-gap or cure. Until it is signed. */
export async function writeUp(id: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const checked = await check(writeUpSchema, fields);
  if (!checked.ok) return { ok: false, problems: checked.problems };
  const { version } = checked.values;
  return db().transaction(async (tx): Promise<Answer> => {
    const work = await held(tx, id);
    if (!work) return refuse("This work is gone.", "gone");
    if (work.signedAt) return refuse(`${work.signedBy} has signed the record. Write it as an addition.`);
    if (work.version !== version) return changedMeanwhile("this record");
    const values = recordWords(checked.values);
    await tx
      .update(interventions)
      .set({ ...values, version: version + 1 })
      .where(eq(interventions.id, id));
    await audit(tx, actor, { what: "wrote up a piece of work", recordId: id, after: values });
    return { ok: true, id };
  });
}

/** What still stands against signing, in words; empty: nothing. */
export async function againstSigning(q: Queryable, work: Work): Promise<string[]> {
  const open = await openRuns(q, work);
  const altered = await alteredAt(q, work);
  return [
    ...(work.doneAt ? [] : ["The work is not recorded as done"]),
    ...open,
    ...(work.interim && !work.lookAgainOn ? ["A stop-gap: the day to look again is not named"] : []),
    ...altered
      .filter((a) => a.acceptedBy === null)
      .map((a) => `Still altered on the machine: ${lowerFirst(a.what)}. Put it back, or accept it by name`),
  ];
}

/** Sign: every step closed, nothing left altered, and proven by a reading, or the reason why not. */
export async function signWork(id: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  return db().transaction(async (tx): Promise<Answer> => {
    const work = await held(tx, id);
    if (!work) return refuse("This work is gone.", "gone");
    if (work.signedAt)
      return work.signedById === actor.id ? { ok: true, id } : refuse(`${work.signedBy} has signed it already.`);
    if (Number(fields.version) !== work.version) return changedMeanwhile("this record");
    const against = await againstSigning(tx, work);
    if (against.length > 0) return refuse(`Not yet: ${against.join("; ")}.`);
    const because = (fields.unprovenBecause ?? "").trim().slice(0, 500);
    const proven = isProven(await beforeAndAfter(work), work.pointId);
    if (proven !== true && because.length < SHORTEST_REASON)
      return {
        ok: false,
        problems: {
          unprovenBecause:
            proven === null
              ? "No reading since proves it. Read the point again, or say why you sign all the same."
              : "The readings since do not prove it. Say why you sign all the same.",
        },
      };
    const values = {
      signedAt: new Date(now()),
      signedBy: actor.name,
      signedById: actor.id,
      unprovenBecause: proven === true ? "" : because,
    };
    await tx
      .update(interventions)
      .set({ ...values, version: work.version + 1 })
      .where(eq(interventions.id, id));
    await audit(tx, actor, { what: "signed a record of work", recordId: id, after: values });
    return { ok: true, id };
  });
}

/** The second signature: another person than the first. */
export async function checkWork(id: string, actor: Actor): Promise<Answer> {
  return db().transaction(async (tx): Promise<Answer> => {
    const work = await held(tx, id);
    if (!work) return refuse("This work is gone.", "gone");
    if (!work.signedAt) return refuse("It is not signed yet.");
    if (work.checkedAt)
      return work.checkedById === actor.id ? { ok: true, id } : refuse(`${work.checkedBy} has checked it.`);
    if (work.signedById === actor.id) return refuse("The second signature is another person’s.");
    await tx
      .update(interventions)
      .set({ checkedAt: new Date(now()), checkedBy: actor.name, checkedById: actor.id, version: work.version + 1 })
      .where(eq(interventions.id, id));
    await audit(tx, actor, { what: "checked and signed a record of work", recordId: id });
    return { ok: true, id };
  });
}

/** What is added to a signed record. The record itself stays as it was signed. */
export async function addAddendum(id: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const text = (fields.addendum ?? "").trim();
  if (text.length < 3) return { ok: false, problems: { addendum: "Write what is added." } };
  if (text.length > 2000) return { ok: false, problems: { addendum: "At most 2000 characters." } };
  if (!isUuid(fields.submission)) return formIsOld();
  const before = await sentBefore(db(), workAddenda, fields.submission, { interventionId: id });
  if (before) return before.ok ? { ok: true, id } : before;
  const [work] = await db()
    .select({ signedAt: interventions.signedAt })
    .from(interventions)
    .where(eq(interventions.id, id));
  if (!work?.signedAt) return refuse("It is not signed yet: write it into the record itself.");
  await db()
    .insert(workAddenda)
    .values({ interventionId: id, text, at: new Date(now()), by: actor.name, submission: fields.submission })
    .onConflictDoNothing({ target: workAddenda.submission });
  return { ok: true, id };
}

/** A stop-gap was looked at again: it holds until another day, or its cause was dealt with. */
export async function lookedAgain(id: string, fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const until = calendarDay(fields.lookAgainOn ?? "");
  const gone = fields.cured === "on";
  if (!gone && until === undefined)
    return { ok: false, problems: { lookAgainOn: "Say when to look again, or that its cause is dealt with." } };
  return db().transaction(async (tx): Promise<Answer> => {
    const work = await held(tx, id);
    if (!work?.interim) return refuse("This is no stop-gap.", "gone");
    if (work.lookedAgainAt) return refuse(`${work.lookedAgainBy} has closed it.`);
    await tx
      .update(interventions)
      .set(gone ? { lookedAgainAt: new Date(now()), lookedAgainBy: actor.name } : { lookAgainOn: until })
      .where(eq(interventions.id, id));
    await audit(tx, actor, {
      what: gone ? "closed a stop-gap" : "looked at a stop-gap again",
      recordId: id,
      before: { lookAgainOn: work.lookAgainOn },
      after: gone ? {} : { lookAgainOn: until },
    });
    return { ok: true, id };
  });
}
