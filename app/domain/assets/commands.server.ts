/** Writes to the fleet register: add, edit, retire. Two people editing: the second is told. */
import { audit, type Actor } from "~/domain/access/index.server";
import { eq, inArray, sql } from "drizzle-orm";
import { dayOf, quantityOf, type PointQuantityId, type UnitPreference } from "@core";
import { brokenConstraint, db, type Queryable } from "~/db/client.server";
import { oilAssessments } from "~/db/oilTables";
import { changes, circuits, components, lives, machines, points, readings, sites, stops } from "~/db/schema";
import { addEmptyAssessments, markStale, markOilStale } from "~/domain/condition/index.server";
import { requestAssessment } from "~/platform/jobs.server";
import { now } from "~/runtime/clock.server";
import { check, localMoment } from "~/platform/validate";
import { movePresentLife } from "./presentLife.server";
import type { Edited } from "./edited";
import { newLifeSchema, recordSpecs, type RecordKind } from "./form";
import { tableOf } from "./queries.server";

/** Checked values as columns: a typed quantity becomes its core value, an empty choice becomes null. */
function columnsOf(kind: RecordKind, values: Record<string, unknown>): Record<string, unknown> {
  const columns: Record<string, unknown> = {};
  for (const field of recordSpecs[kind].fields) {
    const value = values[field.name];
    if (field.type === "quantity") columns[field.name] = (value as { value: number } | null)?.value ?? null;
    else if (field.type === "select" && field.optional) columns[field.name] = value || null;
    else if (field.type === "number" && field.optional) columns[field.name] = value ?? null;
    else columns[field.name] = value;
  }
  if (kind === "point" && !columns.unit) columns.unit = quantityOf(columns.quantity as PointQuantityId).unit;
  return columns;
}

async function checkRecord(
  kind: RecordKind,
  fields: Record<string, string>,
  units: UnitPreference,
): Promise<{ ok: true; columns: Record<string, unknown> } | { ok: false; problems: Record<string, string> }> {
  const checked = await check(recordSpecs[kind].schema, fields, { units });
  if (!checked.ok) return checked;
  const columns = columnsOf(kind, checked.values);
  if (
    kind === "point" &&
    quantityOf(columns.quantity as PointQuantityId).correction === "leakage" &&
    (columns.referencePressure === null) !== (columns.referenceTemperature === null)
  ) {
    return {
      ok: false,
      problems: {
        [columns.referencePressure === null ? "referencePressure" : "referenceTemperature"]:
          "A reference needs both pressure and temperature.",
      },
    };
  }
  return { ok: true, columns };
}

function constraintProblem(error: unknown): Record<string, string> | undefined {
  const constraint = brokenConstraint(error);
  if (constraint === "machines_tag") return { tag: "Another machine on this site has that tag." };
  if (constraint?.endsWith("_fk") || constraint?.includes("_id_"))
    return { form: "What this belongs to is gone. Load the page again." };
  return undefined;
}

/** Add a record. A component begins its first life with it. */
export async function addRecord(
  kind: RecordKind,
  fields: Record<string, string>,
  actor: Actor,
  units: UnitPreference = {},
): Promise<Edited> {
  const checked = await checkRecord(kind, fields, units);
  const life =
    kind === "component" ? await check(newLifeSchema, { ...fields, knownWhenNew: fields.knownWhenNew === "on" }) : null;
  if (!checked.ok || (life && !life.ok))
    return {
      ok: false,
      problems: { ...(!checked.ok && checked.problems), ...(life && !life.ok && life.problems) },
    };
  try {
    const id = await db().transaction(async (tx) => {
      const [row] = await tx
        .insert(tableOf(kind) as typeof sites)
        .values(checked.columns as typeof sites.$inferInsert)
        .returning({ id: sites.id });
      const added = row!.id;
      if (kind === "component" && life?.ok) {
        // the day begins where the machine stands; without one it is today, from the morning on: a reading is taken in
        // whole minutes, and one of this very minute would else be older than the part
        const zone = await zoneOfCircuit(tx, String(checked.columns.circuitId));
        const started = localMoment(`${life.values.startedAt || dayOf(now(), zone)}T00:00`, zone);
        if (Number.isNaN(started) || started > now()) throw new StartDate();
        await tx.insert(lives).values({
          componentId: added,
          startedAt: new Date(started),
          startHours: life.values.startHours?.value ?? 0,
          serial: life.values.serial,
          knownWhenNew: life.values.knownWhenNew,
        });
      }
      if (kind === "point") await addEmptyAssessments(tx, [added]);
      await audit(tx, actor, {
        what: `added ${recordSpecs[kind].label} ${String(checked.columns.name)}${await placeWords(tx, kind, checked.columns)}`,
        recordId: added,
        after: checked.columns,
      });
      if (kind === "stop") await staleBelow(tx, "site", String(checked.columns.siteId));
      return added;
    });
    await requestAssessment();
    return { ok: true, id };
  } catch (error) {
    if (error instanceof StartDate)
      return { ok: false, problems: { startedAt: "Write a date that has passed, as 2026-11-20." } };
    const problems = constraintProblem(error);
    if (problems) return { ok: false, problems };
    throw error;
  }
}

class StartDate extends Error {}

/** Where a part or a point belongs, for the list of changes: " of Ship loader, pump". */
async function placeWords(tx: Queryable, kind: RecordKind, columns: object): Promise<string> {
  const { machineId, circuitId, componentId } = columns as Partial<
    Record<"machineId" | "circuitId" | "componentId", string>
  >;
  if (kind !== "circuit" && kind !== "component" && kind !== "point") return "";
  const { rows } = await tx.execute<{ words: string }>(
    kind === "circuit"
      ? sql`select name as words from machines where id = ${machineId!}`
      : kind === "component"
        ? sql`select m.name as words from circuits k join machines m on m.id = k.machine_id where k.id = ${circuitId!}`
        : sql`select m.name || ', ' || lower(left(c.name, 1)) || substr(c.name, 2) as words from components c
              join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id where c.id = ${componentId!}`,
  );
  return rows[0] ? ` of ${rows[0].words}` : "";
}

async function zoneOfCircuit(tx: Queryable, circuitId: string): Promise<string> {
  const [row] = await tx
    .select({ timeZone: sites.timeZone })
    .from(circuits)
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(circuits.id, circuitId));
  return row?.timeZone ?? "UTC";
}

/** What a series is cannot change under its readings: they would be read as something else, or belong to another part. */
async function seriesProblem(
  tx: Queryable,
  id: string,
  before: typeof points.$inferSelect,
  columns: Record<string, unknown>,
): Promise<Record<string, string> | undefined> {
  const changed = (["quantity", "state", "componentId"] as const).find(
    (name) => name in columns && columns[name] !== before[name],
  );
  if (!changed) return undefined;
  const [any] = await tx.select({ id: readings.id }).from(readings).where(eq(readings.pointId, id)).limit(1);
  return any
    ? {
        [changed]:
          "There are readings of this point already, and they stay what they are. Retire it and add another point instead.",
      }
    : undefined;
}

/** Mark stale whatever is said of the points and the oil below a record. */
async function staleBelow(tx: Queryable, kind: RecordKind, id: string): Promise<void> {
  const where = {
    site: sites.id,
    machine: machines.id,
    circuit: circuits.id,
    component: components.id,
    point: points.id,
    fluid: circuits.fluidId,
    stop: stops.id,
  }[kind];
  if (kind === "stop") {
    const [stop] = await tx.select({ siteId: stops.siteId }).from(stops).where(eq(stops.id, id));
    if (stop) await staleBelow(tx, "site", stop.siteId);
    return;
  }
  const rows = await tx
    .select({ circuit: circuits.id, component: components.id, point: points.id })
    .from(sites)
    .innerJoin(machines, eq(machines.siteId, sites.id))
    .innerJoin(circuits, eq(circuits.machineId, machines.id))
    .leftJoin(components, eq(components.circuitId, circuits.id))
    .leftJoin(points, eq(points.componentId, components.id))
    .where(eq(where, id));
  // the oil first, then the points: whoever marks or assesses them takes their rows in this order
  const known = await tx
    .select({ id: oilAssessments.circuitId })
    .from(oilAssessments)
    .where(
      inArray(
        oilAssessments.circuitId,
        rows.map((r) => r.circuit),
      ),
    )
    .orderBy(oilAssessments.circuitId)
    .for("update");
  await markOilStale(
    tx,
    known.map((k) => k.id),
  );
  await markStale(
    tx,
    rows.flatMap((r) => r.point ?? []),
  );
}

/** Edit a record, or retire it, or bring it back. Nothing is deleted. */
export async function editRecord(
  kind: RecordKind,
  id: string,
  fields: Record<string, string>,
  actor: Actor,
  units: UnitPreference = {},
): Promise<Edited> {
  const { intent } = fields;
  const checked =
    intent === "retire" || intent === "restore"
      ? { ok: true as const, columns: { retiredAt: intent === "retire" ? new Date(now()) : null } }
      : await checkRecord(kind, fields, units);
  if (!checked.ok) return { ok: false, problems: checked.problems };
  const table = tableOf(kind) as typeof sites;
  try {
    const edited = await db().transaction(async (tx): Promise<Edited> => {
      const [before] = await tx.select().from(table).where(eq(table.id, id)).for("no key update");
      if (!before) return { ok: false, because: "gone", problems: { form: "This record is gone." } };
      if (String(before.version) !== fields.version) {
        const [last] = await tx
          .select()
          .from(changes)
          .where(eq(changes.recordId, id))
          .orderBy(sql`${changes.at} desc`)
          .limit(1);
        return {
          ok: false,
          because: "conflict",
          version: before.version,
          problems: {
            form:
              `${last?.by ?? "Somebody"} changed this record in the meantime. Yours is still in the form: ` +
              `save again if it is right, or load the page to see theirs.`,
          },
        };
      }
      const problem =
        kind === "point"
          ? await seriesProblem(tx, id, before as unknown as typeof points.$inferSelect, checked.columns)
          : undefined;
      if (problem) return { ok: false, problems: problem };
      const wrong =
        kind === "component"
          ? await movePresentLife(
              tx,
              id,
              await zoneOfCircuit(tx, (before as unknown as { circuitId: string }).circuitId),
              fields,
            )
          : undefined;
      if (wrong) return { ok: false, problems: wrong };
      const did = intent === "retire" ? "retired" : intent === "restore" ? "brought back" : "edited";
      await tx
        .update(table)
        .set({ ...checked.columns, version: before.version + 1 })
        .where(eq(table.id, id));
      await audit(tx, actor, {
        what: `${did} ${recordSpecs[kind].label} ${before.name}${await placeWords(tx, kind, before)}`,
        recordId: id,
        before,
        after: checked.columns,
      });
      await staleBelow(tx, kind, id);
      return { ok: true, id };
    });
    if (edited.ok) await requestAssessment();
    return edited;
  } catch (error) {
    const problems = constraintProblem(error);
    if (problems) return { ok: false, problems };
    throw error;
  }
}
