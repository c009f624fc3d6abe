/** Writes of rounds: name, rhythm, and the points in walking order. */
import { changedMeanwhile, type Answer } from "~/domain/answer";
import { audit, type Actor } from "~/domain/access/index.server";
import { and, eq, inArray, notInArray, sql } from "drizzle-orm";
import { number, object, string } from "yup";
import { db } from "~/db/client.server";
import { circuits, components, machines, points, roundPoints, rounds } from "~/db/schema";
import { now } from "~/runtime/clock.server";
import { check, isUuid, nameField } from "~/platform/validate";

const roundSchema = object({
  name: nameField("the round"),
  walkedBy: string().trim().max(100, "At most 100 characters.").default(""),
  every: string().oneOf(["week", "month", "days", "hours"], "Choose how often.").required("Choose how often."),
  days: number()
    .transform((v: number, o: unknown) => (o === "" ? undefined : v))
    .typeError("A number of days.")
    .integer("Whole days.")
    .min(1, "At least a day.")
    .max(1000, "At most 1000 days."),
  hours: number()
    .transform((v: number, o: unknown) => (o === "" ? undefined : v))
    .typeError("A number of hours.")
    .moreThan(0, "Above zero.")
    .max(50_000, "At most 50 000 h."),
  closer: string().default(""),
  version: number().integer().min(0).max(2_000_000_000).default(0),
});

export type RoundSaved = Answer;

const MOST_POINTS = 500;

/** Add or change a round; `pointIds` in walking order. */
export async function saveRound(
  id: string | null,
  fields: Record<string, string>,
  pointIds: readonly string[],
  actor: Actor,
): Promise<RoundSaved> {
  const checked = await check(roundSchema, fields);
  const problems: Record<string, string> = checked.ok ? {} : checked.problems;
  if (pointIds.length === 0) problems.points = "Choose at least one point.";
  else if (pointIds.length > MOST_POINTS || pointIds.some((p) => !isUuid(p)))
    problems.points = `Choose points from the list, at most ${MOST_POINTS}.`;
  if (checked.ok && checked.values.every === "days" && checked.values.days === undefined)
    problems.days = "How many days?";
  if (checked.ok && checked.values.every === "hours" && checked.values.hours === undefined)
    problems.hours = "How many running hours?";
  if (!checked.ok || Object.keys(problems).length > 0) return { ok: false, problems };
  const v = checked.values;
  const values = {
    name: v.name,
    walkedBy: v.walkedBy,
    intervalDays: v.every === "week" ? 7 : v.every === "days" ? v.days! : 30,
    intervalHours: v.every === "hours" ? v.hours! : null,
    closer: v.closer === "on",
  };
  const ids = [...new Set(pointIds)];
  return db().transaction(async (tx): Promise<RoundSaved> => {
    const there = await tx
      .select({ id: points.id, siteId: machines.siteId })
      .from(points)
      .innerJoin(components, eq(components.id, points.componentId))
      .innerJoin(circuits, eq(circuits.id, components.circuitId))
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .where(inArray(points.id, ids));
    if (there.length < ids.length)
      return {
        ok: false,
        problems: { points: "A point that was chosen is gone. Load the page again; what you chose stays here." },
      };
    let roundId = id;
    if (roundId === null) {
      // a round belongs to the site of its first point
      const [row] = await tx
        .insert(rounds)
        .values({ siteId: there.find((p) => p.id === ids[0])!.siteId, begunAt: new Date(now()), ...values })
        .returning({ id: rounds.id });
      roundId = row!.id;
      await audit(tx, actor, {
        what: `added round ${values.name}`,
        recordId: roundId,
        after: { ...values, points: ids.length },
      });
    } else {
      const [row] = await tx.select().from(rounds).where(eq(rounds.id, roundId)).for("update");
      if (!row) return { ok: false, problems: { form: "This round is gone." }, because: "gone" };
      if (row.version !== v.version) return changedMeanwhile("this round");
      await tx
        .update(rounds)
        .set({ ...values, version: row.version + 1, ...(fields.intent === "retire" && { retiredAt: new Date(now()) }) })
        .where(eq(rounds.id, roundId));
      await tx.delete(roundPoints).where(and(eq(roundPoints.roundId, roundId), notInArray(roundPoints.pointId, ids)));
      await audit(tx, actor, {
        what: `${fields.intent === "retire" ? "retired" : "edited"} round ${values.name}`,
        recordId: roundId,
        before: row,
        after: { ...values, points: ids.length },
      });
    }
    const addedAt = new Date(now());
    // those that were in it before keep the day since which they are asked for
    await tx
      .insert(roundPoints)
      .values(ids.map((pointId, position) => ({ roundId: roundId, pointId, position, addedAt })))
      .onConflictDoUpdate({
        target: [roundPoints.roundId, roundPoints.pointId],
        set: { position: sql`excluded.position` },
      });
    return { ok: true, id: roundId };
  });
}
