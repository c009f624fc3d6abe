/** What a tablet sends is taken in, one entry after another; each has its own fate and nothing is taken twice. */
import { and, eq, type SQL } from "drizzle-orm";
import { CLOCK_SLACK, type UnitPreference } from "@core";
import { brokenConstraint, codeOf, db } from "~/db/client.server";
import { photos, points, roundPoints, roundSkips } from "~/db/schema";
import { now } from "~/runtime/clock.server";
import { Missing } from "~/platform/missing";
import { makePhoto } from "~/platform/photoStore.server";
import { writerOf, type Actor, type Writer } from "~/domain/access/index.server";
import { logReading, pointPlace } from "~/domain/readings/index.server";
import { keepMove } from "~/domain/bookings/index.server";
import { outgoingOf, type Fate, type Outgoing } from "./outgoing";

/** Who is signed in at the tablet, and the units of what it left bare. */
type Sender = Actor & { units: UnitPreference };

/** Kept where the tablet did not question a value and the server, knowing more by now, would. */
const READ_ON_ROUND = "As read on the round; not questioned on the tablet.";

/** Take in the entries of a round. */
export async function receive(roundId: string, items: readonly unknown[], user: Sender): Promise<Fate[]> {
  const fates: Fate[] = [];
  for (const given of items) {
    const item = outgoingOf(given);
    fates.push(
      item
        ? await receiveOne(roundId, item, user, await writerOf(item.by, user))
        : {
            submission: String((given as { submission?: unknown } | null)?.submission ?? "").slice(0, 100),
            fate: "refused",
            message: "This entry cannot be read.",
          },
    );
  }
  return fates;
}

/** What to tell of an entry that was not stored because its id is there: it is this one, or another's. */
async function thereAlready(table: typeof roundSkips | typeof photos, submission: string, own: SQL): Promise<Fate> {
  const [same] = await db()
    .select({ id: table.id })
    .from(table)
    .where(and(eq(table.submission, submission), own));
  return same
    ? { submission, fate: "saved" }
    : { submission, fate: "refused", message: "An entry of another point has this id already. Enter it again." };
}

async function receiveOne(roundId: string, item: Outgoing, user: Sender, writer: Writer): Promise<Fate> {
  const { submission } = item;
  const { by, sentBy, sentById } = writer;
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
      const [row] = await db()
        .insert(roundSkips)
        .values({
          roundId,
          pointId: item.pointId,
          at: new Date(item.at),
          reason: item.reason.trim().slice(0, 300) || "no reason",
          by,
          sentBy,
          sentById,
          submission,
        })
        .onConflictDoNothing({ target: roundSkips.submission })
        .returning({ id: roundSkips.id });
      if (row) return { submission, fate: "saved" };
      return thereAlready(roundSkips, submission, eq(roundSkips.pointId, item.pointId));
    }
    if (item.kind === "move") {
      const { componentId } = item;
      const kept = await keepMove({
        submission,
        componentId,
        at: new Date(item.at),
        by,
        sentBy,
        sentById,
        note: "on a round",
      });
      return kept.ok
        ? { submission, fate: "saved" }
        : { submission, fate: "refused", message: "An entry of another part has this id already. Enter it again." };
    }
    if (item.kind === "photo") {
      const made = await makePhoto(Buffer.from(item.base64, "base64"));
      if (!made)
        return {
          submission,
          fate: "refused",
          message: "The photograph cannot be read: JPEG, PNG or WebP up to 12 MB.",
        };
      const [point] = await db().select({ id: points.id }).from(points).where(eq(points.id, item.pointId));
      if (!point) return { submission, fate: "refused", message: "The point is gone." };
      const [row] = await db()
        .insert(photos)
        .values({
          pointId: item.pointId,
          readingSubmission: item.reading,
          at: new Date(item.at),
          mediaType: "image/jpeg",
          content: made.content,
          by,
          submission,
        })
        .onConflictDoNothing({ target: photos.submission })
        .returning({ id: photos.id });
      if (row) return { submission, fate: "saved" };
      return thereAlready(photos, submission, eq(photos.pointId, item.pointId));
    }
    // entries carry the units that they were typed in; what an older tablet left bare is in the sender's
    const place = await pointPlace(item.pointId, user.units);
    const fields: Record<string, string> = {
      ...Object.fromEntries(Object.entries(item.fields).map(([name, value]) => [name, value ?? ""])),
      submission,
    };
    const first = await logReading(place, fields, user, by, item.at);
    const saved =
      !first.ok && first.question
        ? await logReading(place, { ...fields, keptBecause: READ_ON_ROUND }, user, by, item.at)
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
    if (error instanceof Missing) return { submission, fate: "refused", message: "The point is gone." };
    throw error;
  }
}
