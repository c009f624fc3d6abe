/** Writes of rounds: what a round is, and what a tablet sends. */
import { eq } from "drizzle-orm";
import { number, object, string } from "yup";
import { db } from "~/db/client.server";
import { photos, roundPoints, rounds, roundSkips, sites } from "~/db/schema";
import { brokenConstraint } from "~/db/client.server";
import { now } from "~/platform/clock.server";
import { isUuid } from "~/platform/guard.server";
import { logReading, pointPlace } from "~/platform/readings.server";
import type { SignedInUser } from "~/platform/session.server";
import { check, nameField } from "~/platform/validate";
import type { Fate, Outgoing } from "./outgoing";

const roundSchema = object({
  name: nameField("the round"),
  walkedBy: string().trim().max(100, "At most 100 characters.").default(""),
  every: string().oneOf(["week", "month", "days", "hours"], "Choose how often.").required("Choose how often."),
  days: number().transform((v: number, o: unknown) => (o === "" ? undefined : v)).typeError("A number of days.").integer("Whole days.").min(1, "At least a day.").max(1000, "At most 1000 days."),
  hours: number().transform((v: number, o: unknown) => (o === "" ? undefined : v)).typeError("A number of hours.").moreThan(0, "Above zero.").max(50_000, "At most 50 000 h."),
  closer: string().default(""),
  version: number().integer().default(0),
});

export type RoundSaved = { ok: true; id: string } | { ok: false; problems: Record<string, string>; status: number };

const MOST_POINTS = 500;

/** Add or change a round; `pointIds` in walking order. */
export async function saveRound(id: string | null, fields: Record<string, string>, pointIds: readonly string[]): Promise<RoundSaved> {
  const checked = await check(roundSchema, fields);
  const problems: Record<string, string> = checked.ok ? {} : checked.problems;
  if (pointIds.length === 0) problems.points = "Choose at least one point.";
  else if (pointIds.length > MOST_POINTS || pointIds.some((p) => !isUuid(p))) problems.points = `Choose points from the list, at most ${MOST_POINTS}.`;
  if (checked.ok && checked.values.every === "days" && checked.values.days === undefined) problems.days = "How many days?";
  if (checked.ok && checked.values.every === "hours" && checked.values.hours === undefined) problems.hours = "How many running hours?";
  if (!checked.ok || Object.keys(problems).length > 0) return { ok: false, problems, status: 422 };
  const v = checked.values;
  const values = { name: v.name, walkedBy: v.walkedBy, intervalDays: v.every === "week" ? 7 : v.every === "days" ? v.days! : 30, intervalHours: v.every === "hours" ? v.hours! : null, closer: v.closer === "on" };
  return db().transaction(async (tx): Promise<RoundSaved> => {
    let roundId = id;
    if (roundId === null) {
      const [site] = await tx.select({ id: sites.id }).from(sites).orderBy(sites.name).limit(1);
      if (!site) return { ok: false, problems: { form: "Add a site first." }, status: 422 };
      const [row] = await tx.insert(rounds).values({ siteId: site.id, ...values }).returning({ id: rounds.id });
      roundId = row!.id;
    } else {
      const [row] = await tx.select({ version: rounds.version }).from(rounds).where(eq(rounds.id, roundId)).for("update");
      if (row!.version !== v.version) return { ok: false, problems: { form: "Somebody changed this round while you were at it. Load the page to see it; what you chose stays here." }, status: 409 };
      await tx.update(rounds).set({ ...values, version: row!.version + 1, ...(fields.intent === "retire" && { retiredAt: new Date(now()) }) }).where(eq(rounds.id, roundId));
      await tx.delete(roundPoints).where(eq(roundPoints.roundId, roundId));
    }
    await tx.insert(roundPoints).values([...new Set(pointIds)].map((pointId, position) => ({ roundId: roundId!, pointId, position })));
    return { ok: true, id: roundId };
  });
}

/** Kept where the tablet did not question a value and the server, knowing more by now, would. */
const READ_ON_ROUND = "As read on the round; not questioned on the tablet.";
const LARGEST_PHOTO = 3_000_000;

/** Take in what a tablet sends, one after another; each has its own fate and nothing is taken twice. */
export async function receive(roundId: string, items: readonly Outgoing[], user: SignedInUser): Promise<Fate[]> {
  const fates: Fate[] = [];
  for (const item of items) fates.push(await receiveOne(roundId, item, user));
  return fates;
}

async function receiveOne(roundId: string, item: Outgoing, user: SignedInUser): Promise<Fate> {
  const { submission } = item;
  if (!isUuid(submission) || !isUuid(item.pointId)) return { submission, fate: "refused", message: "This entry cannot be read." };
  try {
    if (item.kind === "skip") {
      await db().insert(roundSkips).values({ roundId, pointId: item.pointId, at: new Date(item.at), reason: item.reason.trim().slice(0, 300) || "no reason", by: user.name, submission }).onConflictDoNothing({ target: roundSkips.submission });
      return { submission, fate: "saved" };
    }
    if (item.kind === "photo") {
      const content = Buffer.from(item.base64, "base64");
      if (content.length === 0 || content.length > LARGEST_PHOTO || !/^image\/(jpeg|png|webp)$/.test(item.mediaType)) return { submission, fate: "refused", message: "The photograph cannot be taken: JPEG, PNG or WebP up to 3 MB." };
      await db().insert(photos).values({ pointId: item.pointId, readingSubmission: isUuid(item.reading) ? item.reading : null, at: new Date(item.at), mediaType: item.mediaType, content, by: user.name, submission }).onConflictDoNothing({ target: photos.submission });
      return { submission, fate: "saved" };
    }
    const place = await pointPlace(item.pointId, user.units);
    const fields = { ...item.fields, submission };
    const first = await logReading(place, fields, user.name);
    const saved = !first.ok && first.question ? await logReading(place, { ...fields, keptBecause: READ_ON_ROUND }, user.name) : first;
    if (saved.ok) return { submission, fate: "saved" };
    const [field, message] = Object.entries(saved.problems)[0] ?? ["form", "It could not be saved."];
    return { submission, fate: /already a reading|just saved/.test(message) ? "conflict" : "refused", field, message };
  } catch (error) {
    if (brokenConstraint(error)) return { submission, fate: "refused", message: "The point or the round is gone." };
    if (error instanceof Response || (error as { init?: { status?: number } }).init?.status === 404) return { submission, fate: "refused", message: "The point is gone." };
    throw error;
  }
}
