/** Samples of oil: saved with their photograph, withdrawn with a reason. */
import { and, eq, isNull } from "drizzle-orm";
import { brokenConstraint, db, type Queryable } from "~/db/client.server";
import { samplePhotos, samples } from "~/db/oilTables";
import { circuits } from "~/db/schema";
import type { Actor } from "~/domain/access/index.server";
import type { Answer } from "~/domain/answer";
import { markOilStale } from "~/domain/condition/index.server";
import { hoursQuestionOf } from "~/domain/readings/index.server";
import { sentBefore, sentMeanwhile } from "~/domain/sent.server";
import { now } from "~/runtime/clock.server";
import { makePhoto } from "~/platform/photoStore.server";
import { check } from "~/platform/validate";
import { parseResults, sampleSchema, type BareUnits } from "./form";
import { day, firstFill, lockCircuit, momentOf, reassess } from "./shared.server";

/** What is odd about the hours of a sample, against all that was noted at its machine. */
async function hoursQuestion(
  tx: Queryable,
  circuitId: string,
  takenAt: Date,
  hours: number,
  timeZone: string,
): Promise<string | undefined> {
  const [row] = await tx.select({ machineId: circuits.machineId }).from(circuits).where(eq(circuits.id, circuitId));
  return row
    ? hoursQuestionOf(tx, { machineId: row.machineId, timeZone }, { at: takenAt.getTime(), hours })
    : undefined;
}

/** Save a sample with its patch photograph, once however often the form is sent. */
export async function saveSample(
  circuitId: string,
  fields: Record<string, string>,
  photo: File | null,
  actor: Actor,
  timeZone: string,
): Promise<Answer> {
  const units: BareUnits = { counts: fields.countsPer === "/100 mL" ? "/100 mL" : "/mL", water: "ppm" };
  const checked = await check(sampleSchema, fields);
  const code = (fields.code ?? "").trim();
  const { results, problems: wrong } = parseResults((id) => fields[id] ?? "", code, units);
  const problems: Record<string, string> = { ...wrong, ...(!checked.ok && checked.problems) };
  const at = momentOf(fields.takenAt, timeZone);
  if (typeof at === "string") problems.takenAt = at;
  if (Object.keys(results).length === 0 && !code && Object.keys(wrong).length === 0)
    problems.form = "Nothing was found in this sample: enter at least one result, or the laboratory's code.";
  // made anew from its pixels, as every photograph is: nothing else that came with the file is kept
  const made = photo ? await makePhoto(Buffer.from(await photo.arrayBuffer())) : null;
  if (photo && !made) problems.photo = "JPEG, PNG or WebP up to 12 MB.";
  if (Object.keys(problems).length > 0 || !checked.ok || typeof at === "string") return { ok: false, problems };
  const v = checked.values;
  const takenAt = new Date(at);
  try {
    const done = await db().transaction(async (tx): Promise<Answer> => {
      await lockCircuit(tx, circuitId);
      const sent = await sentBefore(tx, samples, v.submission, { circuitId });
      if (sent) return sent;
      const filled = await firstFill(tx, circuitId);
      if (filled && takenAt < filled)
        return {
          ok: false,
          problems: {
            takenAt: `The circuit was first filled on ${day(filled, timeZone)}: a sample of it cannot be older. Check the date, or the record of fills.`,
          },
        };
      const hours =
        v.hours && fields.hoursRight !== "on"
          ? await hoursQuestion(tx, circuitId, takenAt, v.hours.value, timeZone)
          : undefined;
      if (hours) return { ok: false, problems: { hours } };
      const [row] = await tx
        .insert(samples)
        .values({
          circuitId,
          number: v.number,
          takenAt,
          hours: v.hours?.value ?? null,
          place: v.place,
          state: v.state,
          results,
          code: code || null,
          colour: v.colour,
          sludge: v.sludge,
          laboratory: v.laboratory,
          takenBy: v.takenBy || actor.name,
          note: v.note,
          submission: v.submission,
        })
        .returning({ id: samples.id });
      if (made)
        await tx
          .insert(samplePhotos)
          .values({ sampleId: row!.id, mediaType: "image/jpeg", content: made.content, by: actor.name });
      await markOilStale(tx, [circuitId]);
      return { ok: true, id: row!.id };
    });
    if (done.ok) await reassess(circuitId);
    return done;
  } catch (error) {
    if (brokenConstraint(error) === "samples_number")
      return {
        ok: false,
        problems: {
          number:
            "There is a sample with this number already. Numbers are given once; withdraw the other one first if it is wrong.",
        },
      };
    const sent = await sentMeanwhile(error, samples, v.submission, { circuitId });
    if (sent) return sent;
    throw error;
  }
}

/** A wrong sample is withdrawn with its reason: it stays on record and counts no more. */
export async function withdrawSample(id: string, why: string, actor: Actor): Promise<Answer> {
  if (why.trim().length < 3) return { ok: false, problems: { why: "Say why: the record keeps it." } };
  const [row] = await db().transaction(async (tx) => {
    const taken = await tx
      .update(samples)
      .set({ withdrawnAt: new Date(now()), withdrawnBy: actor.name, withdrawnWhy: why.trim().slice(0, 500) })
      .where(and(eq(samples.id, id), isNull(samples.withdrawnAt)))
      .returning({ circuitId: samples.circuitId });
    await markOilStale(
      tx,
      taken.map((t) => t.circuitId),
    );
    return taken;
  });
  if (!row) return { ok: false, because: "conflict", problems: { why: "It is withdrawn already." } };
  await reassess(row.circuitId);
  return { ok: true, id };
}
