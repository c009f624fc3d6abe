/** What a tablet sends is taken in, one entry after another; each has its own fate and nothing is taken twice. */
import { and, eq } from "drizzle-orm";
import { CLOCK_SLACK } from "@core";
import { brokenConstraint, codeOf, db } from "~/db/client.server";
import { users } from "~/db/peopleTables";
import { photos, points, roundPoints, roundSkips } from "~/db/schema";
import { now } from "~/runtime/clock.server";
import { imageType } from "~/platform/photo.server";
import { logReading, pointPlace } from "~/domain/readings/index.server";
import { keepMove } from "~/domain/work/index.server";
import type { SignedInUser } from "~/platform/session.server";
import { isUuid } from "~/platform/validate";
import { outgoingOf, type Fate, type Outgoing } from "./outgoing";

/** Kept where the tablet did not question a value and the server, knowing more by now, would. */
const READ_ON_ROUND = "As read on the round; not questioned on the tablet.";
const LARGEST_PHOTO = 3_000_000;

/** Take in the entries of a round. */
export async function receive(roundId: string, items: readonly unknown[], user: SignedInUser): Promise<Fate[]> {
  const fates: Fate[] = [];
  const names = new Map<string, string>([[user.id, user.name]]);
  for (const given of items) {
    const item = outgoingOf(given);
    fates.push(
      item
        ? await receiveOne(roundId, item, user, await nameOf(item.by, names))
        : {
            submission: String((given as { submission?: unknown } | null)?.submission ?? "").slice(0, 100),
            fate: "refused",
            message: "This entry cannot be read.",
          },
    );
  }
  return fates;
}

/** The name of the person who took an entry; somebody else may be signed in by the time it is sent. */
async function nameOf(id: string | undefined, names: Map<string, string>): Promise<string | undefined> {
  if (!isUuid(id)) return undefined;
  if (!names.has(id)) {
    const [person] = await db().select({ name: users.name }).from(users).where(eq(users.id, id));
    if (person) names.set(id, person.name);
  }
  return names.get(id);
}

async function receiveOne(
  roundId: string,
  item: Outgoing,
  user: SignedInUser,
  takenBy: string | undefined,
): Promise<Fate> {
  const { submission } = item;
  const by = takenBy ?? user.name;
  if (item.at > now() + CLOCK_SLACK)
    return {
      submission,
      fate: "refused",
      field: "takenAt",
      message: "That is in the future. Check the tablet's clock.",
    };
  try {
    if (item.kind === "skip") {
      const [there] = await db()
        .select({ id: roundPoints.pointId })
        .from(roundPoints)
        .where(and(eq(roundPoints.roundId, roundId), eq(roundPoints.pointId, item.pointId)));
      if (!there) return { submission, fate: "refused", message: "The point is no longer on this round." };
      await db()
        .insert(roundSkips)
        .values({
          roundId,
          pointId: item.pointId,
          at: new Date(item.at),
          reason: item.reason.trim().slice(0, 300) || "no reason",
          by,
          submission,
        })
        .onConflictDoNothing({ target: roundSkips.submission });
      return { submission, fate: "saved" };
    }
    if (item.kind === "move") {
      const { componentId } = item;
      await keepMove({ submission, componentId, at: new Date(item.at), by, note: "on a round" });
      return { submission, fate: "saved" };
    }
    if (item.kind === "photo") {
      const content = Buffer.from(item.base64, "base64");
      const mediaType = imageType(content);
      if (content.length === 0 || content.length > LARGEST_PHOTO || !mediaType)
        return {
          submission,
          fate: "refused",
          message: "The photograph cannot be taken: JPEG, PNG or WebP up to 3 MB.",
        };
      const [point] = await db().select({ id: points.id }).from(points).where(eq(points.id, item.pointId));
      if (!point) return { submission, fate: "refused", message: "The point is gone." };
      await db()
        .insert(photos)
        .values({
          pointId: item.pointId,
          readingSubmission: item.reading,
          at: new Date(item.at),
          mediaType,
          content,
          by,
          submission,
        })
        .onConflictDoNothing({ target: photos.submission });
      return { submission, fate: "saved" };
    }
    // entries carry the units that they were typed in; what an older tablet left bare is in the sender's
    const place = await pointPlace(item.pointId, user.units);
    const fields: Record<string, string> = {
      ...Object.fromEntries(Object.entries(item.fields).map(([name, value]) => [name, value ?? ""])),
      submission,
    };
    const first = await logReading(place, fields, user, by);
    const saved =
      !first.ok && first.question
        ? await logReading(place, { ...fields, keptBecause: READ_ON_ROUND }, user, by)
        : first;
    if (saved.ok) return { submission, fate: "saved" };
    const [field, message] = Object.entries(saved.problems)[0] ?? ["form", "It could not be saved."];
    return { submission, fate: saved.conflict ? "conflict" : "refused", field, message };
  } catch (error) {
    if (brokenConstraint(error) || codeOf(error)?.startsWith("22"))
      return {
        submission,
        fate: "refused",
        message: "The point or the round is gone, or something in the entry cannot be stored.",
      };
    if ((error as { init?: { status?: number } }).init?.status === 404)
      return { submission, fate: "refused", message: "The point is gone." };
    throw error;
  }
}
