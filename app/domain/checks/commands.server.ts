/** Writes of tests: records, the register of temporary changes, the plant's own definitions. */
import { type Answer, formIsOld } from "~/domain/answer";
import { sentBefore, sentElsewhere } from "~/domain/sent.server";
import type { Actor } from "~/domain/access/index.server";
import { and, eq, isNull } from "drizzle-orm";
import {
  componentKindIds,
  isPointQuantity,
  parseQuantity,
  plantTestProblem,
  preferredUnit,
  runCalculator,
  type ComponentKind,
  type PlantTest,
  type Check,
  type UnitPreference,
} from "@core";
import { db } from "~/db/client.server";
import { lives, temporaryChanges, testDefinitions, testRecords } from "~/db/schema";
import { now } from "~/runtime/clock.server";
import { isUuid } from "~/platform/validate";
import type { componentPlace } from "./queries.server";

type Place = Awaited<ReturnType<typeof componentPlace>>;
export type Recorded = Answer;

/** Keep a test that was made. What it says is worked out here, from what was typed. */
export async function recordTest(
  check: Check,
  place: Place,
  fields: Record<string, string>,
  actor: Actor,
  units: UnitPreference,
): Promise<Recorded> {
  if (!isUuid(fields.submission)) return formIsOld();
  // what was typed without a unit was meant in the person's own: the record says so to everybody
  const typed = Object.fromEntries(
    Object.entries(check.calculation.fields).map(([k, field]) => {
      const text = (fields[k] ?? "").trim().slice(0, 20_000);
      return [
        k,
        field.kind === "quantity" && /^[\d\s.,+-]+$/.test(text)
          ? `${text} ${preferredUnit(field.quantity, units)}`
          : text,
      ];
    }),
  );
  const result = runCalculator(check.calculation, typed, units);
  if (!result.ok) return { ok: false, problems: result.problems };
  return db().transaction(async (tx): Promise<Recorded> => {
    const [life] = await tx
      .select({ id: lives.id })
      .from(lives)
      .where(and(eq(lives.componentId, place.id), isNull(lives.endedAt)));
    const [row] = await tx
      .insert(testRecords)
      .values({
        componentId: place.id,
        lifeId: life?.id ?? null,
        test: check.id,
        at: new Date(now()),
        typed,
        outcome: result.outcome,
        note: (fields.note ?? "").trim().slice(0, 1000),
        by: actor.name,
        submission: fields.submission!,
      })
      .onConflictDoNothing({ target: testRecords.submission })
      .returning({ id: testRecords.id });
    if (row) return { ok: true, id: row.id };
    return (await sentBefore(tx, testRecords, fields.submission!, { componentId: place.id })) ?? sentElsewhere;
  });
}

/** Note what is altered, before it is altered; the same form sent twice notes it once. */
export async function noteChange(
  place: Pick<Place, "machineId"> & { id: string | null },
  fields: Record<string, string>,
  actor: Actor,
): Promise<Recorded> {
  const what = (fields.altered ?? "").trim();
  if (what.length < 3) return { ok: false, problems: { altered: "Say what is altered." } };
  if (what.length > 200) return { ok: false, problems: { altered: "At most 200 characters." } };
  if (!isUuid(fields.submission)) return formIsOld();
  const [row] = await db()
    .insert(temporaryChanges)
    .values({
      machineId: place.machineId,
      componentId: place.id,
      what,
      before: (fields.asItStood ?? "").trim().slice(0, 200),
      at: new Date(now()),
      by: actor.name,
      submission: fields.submission,
    })
    .onConflictDoNothing({ target: temporaryChanges.submission })
    .returning({ id: temporaryChanges.id });
  if (row) return { ok: true, id: row.id };
  return (await sentBefore(db(), temporaryChanges, fields.submission, { machineId: place.machineId })) ?? sentElsewhere;
}

export async function putBack(id: string, actor: Actor): Promise<void> {
  await db()
    .update(temporaryChanges)
    .set({ putBackAt: new Date(now()), putBackBy: actor.name })
    .where(and(eq(temporaryChanges.id, id), isNull(temporaryChanges.putBackAt)));
}

const lines = (text: string | undefined) =>
  (text ?? "")
    .split(/\r?\n/)
    .map((l) => l.trim())
    .filter(Boolean)
    .slice(0, 30)
    .map((l) => l.slice(0, 300));

/** Lines "label; quantity; least; greatest" of a plant's own test. */
function readingLines(text: string): { ok: true; readings: PlantTest["readings"] } | { ok: false; message: string } {
  const readings: {
    label: string;
    quantity: PlantTest["readings"][number]["quantity"];
    least: number | null;
    greatest: number | null;
  }[] = [];
  for (const [i, line] of lines(text).entries()) {
    const [label = "", quantity = "", least = "", greatest = ""] = line.split(";").map((c) => c.trim());
    if (!label) return { ok: false, message: `Line ${i + 1}: give the reading a name.` };
    if (!isPointQuantity(quantity))
      return {
        ok: false,
        message: `Line ${i + 1}: “${quantity.slice(0, 30)}” is no quantity known here, for example pressure, flow, temperature, strokeTime.`,
      };
    const bounds = [least, greatest].map((b) => (b === "" ? null : parseQuantity(b, quantity)));
    const bad = bounds.find((b) => b && !b.ok);
    if (bad && !bad.ok) return { ok: false, message: `Line ${i + 1}: ${bad.message}` };
    const value = (b: (typeof bounds)[number] | undefined) => (b && b.ok ? b.parsed.value : null);
    readings.push({ label, quantity, least: value(bounds[0]), greatest: value(bounds[1]) });
  }
  return { ok: true, readings };
}

/** A plant adds a test of its own. */
export async function addPlantTest(
  fields: Record<string, string>,
  kinds: readonly string[],
  actor: Actor,
): Promise<Recorded> {
  const problems: Record<string, string> = {};
  const title = (fields.title ?? "").trim();
  if (!title || title.length > 100) problems.title = "Give it a name of at most 100 characters.";
  const asks = (fields.asks ?? "").trim();
  if (!asks.endsWith("?") || asks.length > 200)
    problems.asks = "Write the question that it answers, with a question mark.";
  if (lines(fields.before).length === 0) problems.before = "What must be true before it starts?";
  if ((fields.caution ?? "").trim().length < 10) problems.caution = "State the caution.";
  const chosen = kinds.filter((k): k is ComponentKind => (componentKindIds as readonly string[]).includes(k));
  if (chosen.length === 0) problems.kinds = "Choose at least one kind of component.";
  const read = readingLines(fields.readings ?? "");
  if (!read.ok) problems.readings = read.message;
  const definition: PlantTest = {
    title,
    asks,
    kinds: chosen,
    before: lines(fields.before),
    caution: (fields.caution ?? "").trim().slice(0, 500),
    steps: lines(fields.steps),
    alters: lines(fields.alters),
    readings: read.ok ? read.readings : [],
  };
  if (read.ok) {
    const wrong = plantTestProblem(definition);
    if (wrong) problems.readings = wrong;
  }
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  const [row] = await db()
    .insert(testDefinitions)
    .values({ definition, createdBy: actor.name })
    .returning({ id: testDefinitions.id });
  return { ok: true, id: row!.id };
}
