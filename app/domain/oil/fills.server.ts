/** Fills, changes, top-ups, drains and levels of a circuit: noted, withdrawn with a reason. */
import { calendarDay } from "@core";
import { and, desc, eq, inArray, isNull, sql } from "drizzle-orm";
import { db, type Queryable } from "~/db/client.server";
import { oilEvents } from "~/db/oilTables";
import { circuits, components, points } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import { formIsOld, type Answer } from "~/domain/answer";
import { markOilStale, markStale } from "~/domain/condition/index.server";
import { sentBefore } from "~/domain/sent.server";
import { now } from "~/runtime/clock.server";
import { check, isUuid } from "~/platform/validate";
import { oilEventSchema } from "./form";
import { againstPouring } from "./pouring.server";
import { lockCircuit, momentOf, reassess } from "./shared.server";

/** Note a fill, a change, a top-up, a drain or a level. What speaks against the fluid is asked before it is on record. */
export async function noteOilEvent(
  circuitId: string,
  fields: Record<string, string>,
  actor: Actor,
  timeZone: string,
): Promise<Answer & { warning?: string }> {
  const checked = await check(oilEventSchema, fields);
  const problems: Record<string, string> = checked.ok ? {} : checked.problems;
  const at = momentOf(fields.at, timeZone);
  if (typeof at === "string") problems.at = at;
  if (checked.ok) {
    const v = checked.values;
    if (v.kind === "level" ? v.level.length < 2 : !v.litres)
      problems[v.kind === "level" ? "level" : "litres"] =
        v.kind === "level" ? "Write what the glass shows." : "Say how many litres.";
    if (v.kind === "level" && v.condition.length < 3)
      problems.condition = "A level says nothing without the oil's temperature and where the actuators stood.";
    if ((v.kind === "fill" || v.kind === "change" || v.kind === "topUp") && !isUuid(v.fluidId))
      problems.fluidId = "Choose what was filled.";
    if (v.changeBackBy && !calendarDay(v.changeBackBy)) problems.changeBackBy = "Write the date as 2027-03-01.";
  }
  if (Object.keys(problems).length > 0 || !checked.ok || typeof at === "string") return { ok: false, problems };
  const v = checked.values;
  if ((v.kind === "fill" || v.kind === "change" || v.kind === "topUp") && fields.mixed !== "on") {
    const warning = await againstPouring(circuitId, v.fluidId, v.kind === "topUp");
    if (warning)
      return {
        ok: false,
        problems: { mixed: "Tick this when it was filled all the same, so that the record is true." },
        warning,
      };
  }
  const saved = await db().transaction(async (tx): Promise<Answer> => {
    await lockCircuit(tx, circuitId);
    const sent = await sentBefore(tx, oilEvents, v.submission, { circuitId });
    if (sent) return sent;
    const [row] = await tx
      .insert(oilEvents)
      .values({
        circuitId,
        kind: v.kind,
        at: new Date(at),
        hours: v.hours?.value ?? null,
        litres: v.litres?.value ?? null,
        fluidId: isUuid(v.fluidId) && v.kind !== "level" && v.kind !== "drained" ? v.fluidId : null,
        level: v.level,
        condition: v.condition,
        changeBackBy: v.changeBackBy || null,
        note: v.note,
        by: actor.name,
        submission: v.submission,
      })
      .returning({ id: oilEvents.id });
    await markOilStale(tx, [circuitId]);
    if (v.kind === "fill" || v.kind === "change") await takeFluid(tx, circuitId, actor);
    return { ok: true, id: row!.id };
  });
  if (saved.ok) await reassess(circuitId);
  return saved;
}

/** A wrong entry is withdrawn with its reason: it stays on record and counts no more. */
export async function withdrawOilEvent(
  circuitId: string,
  fields: Record<string, string>,
  actor: Actor,
): Promise<Answer> {
  const id = fields.event ?? "";
  const why = (fields.why ?? "").trim();
  if (!isUuid(id)) return formIsOld();
  if (why.length < 3) return { ok: false, problems: { why: "Say why: the record keeps it." } };
  const done = await db().transaction(async (tx): Promise<Answer> => {
    await lockCircuit(tx, circuitId);
    const [gone] = await tx
      .update(oilEvents)
      .set({ withdrawnAt: new Date(now()), withdrawnBy: actor.name, withdrawnWhy: why.slice(0, 500) })
      .where(and(eq(oilEvents.id, id), eq(oilEvents.circuitId, circuitId), isNull(oilEvents.withdrawnAt)))
      .returning({ kind: oilEvents.kind });
    if (!gone) return { ok: false, because: "conflict", problems: { form: "It is withdrawn already." } };
    await markOilStale(tx, [circuitId]);
    if (gone.kind === "fill" || gone.kind === "change") await takeFluid(tx, circuitId, actor);
    return { ok: true, id };
  });
  if (done.ok) await reassess(circuitId);
  return done;
}

/** The newest fill or change says what the circuit holds: its readings are corrected with that. */
async function takeFluid(tx: Queryable, circuitId: string, actor: Actor): Promise<void> {
  const [newest] = await tx
    .select({ fluidId: oilEvents.fluidId })
    .from(oilEvents)
    .where(
      and(
        eq(oilEvents.circuitId, circuitId),
        isNull(oilEvents.withdrawnAt),
        inArray(oilEvents.kind, ["fill", "change"]),
      ),
    )
    .orderBy(desc(oilEvents.at))
    .limit(1);
  const fluidId = newest?.fluidId;
  if (!fluidId) return;
  const changed = await tx
    .update(circuits)
    .set({ fluidId })
    .where(and(eq(circuits.id, circuitId), sql`${circuits.fluidId} is distinct from ${fluidId}`))
    .returning({ id: circuits.id });
  if (changed.length === 0) return;
  await audit(tx, actor, { what: "circuit filled with another fluid", recordId: circuitId, after: { fluidId } });
  const affected = await tx
    .select({ id: points.id })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .where(eq(components.circuitId, circuitId));
  await markStale(
    tx,
    affected.map((a) => a.id),
  );
}
