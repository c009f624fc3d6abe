/** Writes about a circuit's oil: samples, fills, targets and what components are to it, elements. */
import type { Answer } from "~/domain/answer";
import { audit, type Actor } from "~/domain/access/index.server";
import { and, asc, desc, eq, inArray, isNull, ne, sql } from "drizzle-orm";
import { fluidTypeIds, type ComponentFluidNeed, type FilterData } from "@core";
import { brokenConstraint, db, type Queryable } from "~/db/client.server";
import { oilEvents, samplePhotos, samples } from "~/db/oilTables";
import { circuits, components, lives, points } from "~/db/schema";
import { markStale, assessOilNow, markOilStale } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { isUuid } from "~/platform/guard.server";
import { requestAssessment } from "~/platform/jobs.server";
import { imageType } from "~/platform/photo.server";
import { hoursQuestionOf } from "~/domain/readings/index.server";
import { calendarDay, check, localMoment } from "~/platform/validate";
import { componentSchema, oilEventSchema, parseResults, sampleSchema, targetSchema, type BareUnits } from "./form";
import { parseMaterials } from "./materials";
import { mixingOf } from "./fluidPage.server";

export type Done = Answer;

const SLACK = 5 * 60_000;
export const LARGEST_PHOTO = 8 * 1024 * 1024;

const day = (at: Date, timeZone: string) =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric", timeZone }).format(at);

/** A moment typed into a form, or what is wrong with it. */
function momentOf(text: string | undefined, timeZone: string): number | string {
  const at = localMoment(text ?? "", timeZone);
  if (Number.isNaN(at)) return "Write the date and time as 2026-11-20 10:40.";
  return at > now() + SLACK ? "That is in the future." : at;
}

/** First of all rows: whoever changes a circuit or what is said of its oil takes them in one order. */
async function lockCircuit(tx: Queryable, circuitId: string): Promise<void> {
  await tx.select({ id: circuits.id }).from(circuits).where(eq(circuits.id, circuitId)).for("no key update");
}

/** When the circuit was first filled; null: nobody noted it. */
export async function firstFill(tx: Queryable, circuitId: string): Promise<Date | null> {
  const [row] = await tx
    .select({ at: oilEvents.at })
    .from(oilEvents)
    .where(
      and(
        eq(oilEvents.circuitId, circuitId),
        isNull(oilEvents.withdrawnAt),
        inArray(oilEvents.kind, ["fill", "change"]),
      ),
    )
    .orderBy(asc(oilEvents.at))
    .limit(1);
  return row?.at ?? null;
}

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
): Promise<Done> {
  const units: BareUnits = { counts: fields.countsPer === "/100 mL" ? "/100 mL" : "/mL", water: "ppm" };
  const checked = await check(sampleSchema, fields);
  const code = (fields.code ?? "").trim();
  const { results, problems: wrong } = parseResults((id) => fields[id] ?? "", code, units);
  const problems: Record<string, string> = { ...wrong, ...(!checked.ok && checked.problems) };
  const at = momentOf(fields.takenAt, timeZone);
  if (typeof at === "string") problems.takenAt = at;
  if (Object.keys(results).length === 0 && !code && Object.keys(wrong).length === 0)
    problems.form = "Nothing was found in this sample: enter at least one result, or the laboratory's code.";
  const content = photo ? Buffer.from(await photo.arrayBuffer()) : null;
  const mediaType = content ? imageType(content) : undefined;
  if (content && (content.length > LARGEST_PHOTO || !mediaType)) problems.photo = "JPEG, PNG or WebP up to 8 MB.";
  if (Object.keys(problems).length > 0 || !checked.ok || typeof at === "string") return { ok: false, problems };
  const v = checked.values;
  const takenAt = new Date(at);
  try {
    const done = await db().transaction(async (tx): Promise<Done> => {
      await lockCircuit(tx, circuitId);
      const [sent] = await tx.select({ id: samples.id }).from(samples).where(eq(samples.submission, v.submission));
      if (sent) return { ok: true, id: sent.id };
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
      if (content && mediaType)
        await tx.insert(samplePhotos).values({ sampleId: row!.id, mediaType, content, by: actor.name });
      await markOilStale(tx, [circuitId]);
      return { ok: true, id: row!.id };
    });
    if (done.ok) await reassess(circuitId);
    return done;
  } catch (error) {
    const constraint = brokenConstraint(error);
    if (constraint === "samples_number")
      return {
        ok: false,
        problems: {
          number:
            "There is a sample with this number already. Numbers are given once; withdraw the other one first if it is wrong.",
        },
      };
    if (constraint?.includes("submission")) {
      const [sent] = await db().select({ id: samples.id }).from(samples).where(eq(samples.submission, v.submission));
      if (sent) return { ok: true, id: sent.id };
    }
    throw error;
  }
}

/** Assess the oil at once, and let the worker see to the points that reckon with it. */
async function reassess(circuitId: string): Promise<void> {
  await assessOilNow(circuitId);
  await requestAssessment();
}

/** A wrong sample is withdrawn with its reason: it stays on record and counts no more. */
export async function withdrawSample(id: string, why: string, actor: Actor): Promise<Done> {
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
  if (!row) return { ok: false, status: 409, problems: { why: "It is withdrawn already." } };
  await reassess(row.circuitId);
  return { ok: true, id };
}

/** Note a fill, a change, a top-up, a drain or a level. A top-up with another fluid is saved only when the warning was read. */
export async function noteOilEvent(
  circuitId: string,
  fields: Record<string, string>,
  actor: Actor,
  timeZone: string,
): Promise<Done & { warning?: string }> {
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
  if (v.kind === "topUp" && fields.mixed !== "on") {
    const warning = await mixingOf(circuitId, v.fluidId);
    if (warning)
      return {
        ok: false,
        problems: { mixed: "Tick this when it was filled all the same, so that the record is true." },
        warning: warning.message,
      };
  }
  const id = await db().transaction(async (tx) => {
    await lockCircuit(tx, circuitId);
    const [sent] = await tx.select({ id: oilEvents.id }).from(oilEvents).where(eq(oilEvents.submission, v.submission));
    if (sent) return sent.id;
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
    return row!.id;
  });
  await reassess(circuitId);
  return { ok: true, id };
}

/** A wrong entry is withdrawn with its reason: it stays on record and counts no more. */
export async function withdrawOilEvent(circuitId: string, fields: Record<string, string>, actor: Actor): Promise<Done> {
  const id = fields.event ?? "";
  const why = (fields.why ?? "").trim();
  if (!isUuid(id)) return { ok: false, problems: { form: "The form is out of date: load the page again." } };
  if (why.length < 3) return { ok: false, problems: { why: "Say why: the record keeps it." } };
  const done = await db().transaction(async (tx): Promise<Done> => {
    await lockCircuit(tx, circuitId);
    const [gone] = await tx
      .update(oilEvents)
      .set({ withdrawnAt: new Date(now()), withdrawnBy: actor.name, withdrawnWhy: why.slice(0, 500) })
      .where(and(eq(oilEvents.id, id), eq(oilEvents.circuitId, circuitId), isNull(oilEvents.withdrawnAt)))
      .returning({ kind: oilEvents.kind });
    if (!gone) return { ok: false, status: 409, problems: { form: "It is withdrawn already." } };
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

const CHANGED = "Somebody else changed this in the meantime. Load the page to see it; what you typed stays here.";

/** Target, volume, coldest start, longest interval and limits of metals of a circuit. */
export async function setCircuitOil(circuitId: string, fields: Record<string, string>, actor: Actor): Promise<Done> {
  const checked = await check(targetSchema, fields);
  if (!checked.ok) return { ok: false, problems: checked.problems };
  const v = checked.values;
  const values = {
    targetCode: v.targetCode,
    targetReason: v.targetCode ? v.targetReason : "",
    targetSetBy: v.targetCode ? actor.name : "",
    startTemperature: v.startTemperature?.value ?? null,
    volume: v.volume?.value ?? null,
    longestHours: v.longestHours?.value ?? null,
    longestMonths: v.longestMonths,
    metalLimits: v.metalLimits,
  };
  const done = await db().transaction(async (tx): Promise<Done> => {
    const [before] = await tx.select().from(circuits).where(eq(circuits.id, circuitId)).for("no key update");
    if (before!.version !== v.version) return { ok: false, status: 409, problems: { form: CHANGED } };
    await tx
      .update(circuits)
      .set({ ...values, version: before!.version + 1 })
      .where(eq(circuits.id, circuitId));
    await audit(tx, actor, {
      what: `set the oil's target of ${before!.name}`,
      recordId: circuitId,
      before,
      after: values,
    });
    await markOilStale(tx, [circuitId]);
    return { ok: true, id: circuitId };
  });
  if (done.ok) await reassess(circuitId);
  return done;
}

/** What a component is to the oil. */
export async function setComponentOil(
  componentId: string,
  fields: Record<string, string>,
  actor: Actor,
): Promise<Done> {
  const checked = await check(componentSchema, fields);
  const problems: Record<string, string> = checked.ok ? {} : { ...checked.problems };
  const materials = parseMaterials(fields.materials ?? "");
  if (typeof materials === "string") problems.materials = materials;
  if (!checked.ok || typeof materials === "string") return { ok: false, problems };
  const v = checked.values;
  const range = [v.least, v.bestLow, v.bestHigh, v.greatestAtStart].map((q) => q?.value ?? null);
  if (range.some((r) => r !== null) && range.some((r) => r === null))
    problems.least = "Give all four viscosities, or none.";
  else if (range[0] !== null && !range.every((r, i) => i === 0 || r! >= range[i - 1]!))
    problems.least = "They run from the least to the greatest.";
  const filterParts = [v.beta, v.size, v.flow?.value ?? null, v.bypass?.value ?? null];
  if (filterParts.some((p) => p !== null) && filterParts.some((p) => p === null))
    problems.beta = "A filter needs its ratio, size, flow and bypass setting.";
  const types = fluidTypeIds.filter((t) => fields[`type-${t}`] === "on");
  if (range[0] !== null && types.length === 0) problems["type-mineral"] = "Tick the fluids that it is made for.";
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  const fluidNeed: ComponentFluidNeed | null =
    range[0] === null
      ? null
      : { least: range[0]!, bestLow: range[1]!, bestHigh: range[2]!, greatestAtStart: range[3]!, types };
  const filter: FilterData | null =
    v.beta === null
      ? null
      : { beta: v.beta, size: v.size!, flow: v.flow!.value, bypass: v.bypass!.value, element: v.element };
  const values = { makersCode: v.makersCode, materials, symptomIfStuck: v.symptomIfStuck, fluidNeed, filter };
  const done = await db().transaction(async (tx): Promise<Done & { circuitId?: string }> => {
    const [before] = await tx.select().from(components).where(eq(components.id, componentId)).for("no key update");
    if (before!.version !== v.version) return { ok: false, status: 409, problems: { form: CHANGED } };
    await tx
      .update(components)
      .set({ ...values, version: before!.version + 1 })
      .where(eq(components.id, componentId));
    await audit(tx, actor, {
      what: `set what ${before!.name} is to the oil`,
      recordId: componentId,
      before,
      after: values,
    });
    await markOilStale(tx, [before!.circuitId]);
    return { ok: true, id: componentId, circuitId: before!.circuitId };
  });
  if (done.ok && done.circuitId) await reassess(done.circuitId);
  return done;
}

/** A new element in a filter: the life of the old one ends, the new one's begins, and its readings are a series of their own. */
export async function renewElement(
  circuitId: string,
  componentId: string,
  fields: Record<string, string>,
  timeZone: string,
): Promise<Done> {
  const at = momentOf(fields.at, timeZone);
  if (typeof at === "string") return { ok: false, problems: { at } };
  if (!isUuid(fields.submission))
    return { ok: false, problems: { form: "The form is out of date: load the page again." } };
  const renewed = new Date(at);
  const done = await db().transaction(async (tx): Promise<Done> => {
    const [component] = await tx
      .select({ id: components.id })
      .from(components)
      .where(
        and(eq(components.id, componentId), eq(components.circuitId, circuitId), sql`${components.filter} is not null`),
      )
      .for("no key update");
    if (!component) return { ok: false, problems: { form: "That is no filter of this circuit." } };
    // the id of the new life is the form's: sent twice, it is there already
    const [sent] = await tx.select({ id: lives.id }).from(lives).where(eq(lives.id, fields.submission!));
    if (sent) return { ok: true, id: sent.id };
    const [life] = await tx
      .select()
      .from(lives)
      .where(and(eq(lives.componentId, componentId), isNull(lives.endedAt)));
    // the page named the element that was in: another one has been fitted since
    if (fields.present !== undefined && fields.present !== (life?.id ?? ""))
      return {
        ok: false,
        status: 409,
        problems: {
          form: "Somebody else has recorded a new element in this filter in the meantime. Load the page to see it; what you typed stays here.",
        },
      };
    if (life && renewed <= life.startedAt)
      return {
        ok: false,
        problems: {
          at: `The element that is in was fitted on ${day(life.startedAt, timeZone)}; the new one is later.`,
        },
      };
    const [reading] = await tx
      .execute<{ n: number; hours: number | null }>(
        sql`
      select count(*) filter (where r.taken_at >= ${renewed.toISOString()})::int as n, max(r.hours) filter (where
        r.taken_at < ${renewed.toISOString()}) as hours
      from readings r join points p on p.id = r.point_id where p.component_id = ${componentId} and r.superseded_at is null`,
      )
      .then((r) => r.rows);
    if (reading!.n > 0)
      return {
        ok: false,
        problems: {
          at: `${reading!.n} reading${reading!.n === 1 ? " was" : "s were"} taken after that with the old element: give a later time, or correct the readings.`,
        },
      };
    if (life)
      await tx
        .update(lives)
        .set({ endedAt: renewed, endReason: `Element renewed. ${(fields.found ?? "").trim()}`.trim().slice(0, 500) })
        .where(and(eq(lives.id, life.id), ne(lives.startedAt, renewed)));
    await tx.insert(lives).values({
      id: fields.submission!,
      componentId,
      startedAt: renewed,
      startHours: reading!.hours ?? life?.startHours ?? 0,
      serial: (fields.element ?? "").trim().slice(0, 60),
      knownWhenNew: true,
    });
    const affected = await tx.select({ id: points.id }).from(points).where(eq(points.componentId, componentId));
    await markOilStale(tx, [circuitId]);
    await markStale(
      tx,
      affected.map((a) => a.id),
    );
    return { ok: true, id: fields.submission! };
  });
  if (done.ok) await reassess(circuitId);
  return done;
}
