/** Reads of the record: who changed what, imports, and what export offers. */
import { and, desc, eq, isNotNull, isNull, sql } from "drizzle-orm";
import type { PassThrough } from "node:stream";
import { pointQuantityIds, quantityOf } from "@core";
import { db } from "~/db/client.server";
import { changes, circuits, components, imports, machines, points, readings } from "~/db/schema";
import { csvOut, safeCell, setting } from "~/platform/csv.server";

/** Readings are counted up to here; beyond, the page says "more than". */
const COUNTED = 100_000;

export async function recordsPage() {
  const [edits, corrections, done, machineRows, [total]] = await Promise.all([
    db().select({ id: changes.id, at: changes.at, by: changes.by, what: changes.what }).from(changes).orderBy(desc(changes.at)).limit(20),
    db().select({ id: readings.id, at: readings.supersededAt, by: readings.supersededBy, why: readings.supersededWhy, entered: readings.entered, point: points.name, pointId: points.id }).from(readings).innerJoin(points, eq(points.id, readings.pointId)).where(isNotNull(readings.supersededAt)).orderBy(desc(readings.supersededAt)).limit(10),
    db().select({ id: imports.id, fileName: imports.fileName, doneAt: imports.doneAt, added: imports.added, by: imports.createdBy }).from(imports).where(isNotNull(imports.doneAt)).orderBy(desc(imports.doneAt)).limit(10),
    db().select({ id: machines.id, name: machines.name }).from(machines).orderBy(machines.name),
    db().execute<{ readings: number }>(sql`select count(*)::int as readings from (select 1 from readings limit ${COUNTED}) counted`).then((r) => r.rows),
  ]);
  const counted = total?.readings ?? 0;
  return { edits, corrections, done, machines: machineRows, readings: counted, more: counted >= COUNTED };
}

/** Points for a select, by their code. */
export async function pointChoices() {
  return db().select({ value: points.id, label: sql<string>`${machines.tag} || '/' || ${components.name} || '/' || ${points.name}` })
    .from(points).innerJoin(components, eq(components.id, points.componentId)).innerJoin(circuits, eq(circuits.id, components.circuitId)).innerJoin(machines, eq(machines.id, circuits.machineId))
    .where(and(isNull(points.retiredAt), isNull(machines.retiredAt))).orderBy(machines.tag, components.position, points.name).limit(5000);
}

/** The core unit of every quantity, as rows of SQL values. Names and units are constants of ours. */
function unitRows(): string {
  return pointQuantityIds.map((id) => `('${id}', '${quantityOf(id).unit}')`).join(", ");
}

export interface Selection {
  machineId: string;
  pointId: string;
  from: string;
  to: string;
  withSuperseded: boolean;
}

/** Readings as CSV, straight from the database as a stream. */
export function readingsCsv(selection: Selection): Promise<PassThrough> {
  return csvOut(`
      select m.tag || '/' || c.name || '/' || p.name as point, to_char(r.taken_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as taken_at, r.value, u.unit, r.least, r.temperature as oil_c, r.pressure as load_bar, r.speed as speed_rpm, r.hours as hours_h,
             p.state, i.tag as instrument, ${safeCell("r.note")} as note, ${safeCell("r.taken_by")} as by, r.entered as as_entered, r.doubtful, r.superseded_at is not null as superseded, r.superseded_why
      from readings r join points p on p.id = r.point_id join components c on c.id = p.component_id join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id left join instruments i on i.id = r.instrument_id
      left join lateral (values ${unitRows()}) u(quantity, unit) on u.quantity = p.quantity
      where (${setting("machine")} = '' or m.id::text = ${setting("machine")})
        and (${setting("point")} = '' or p.id::text = ${setting("point")})
        and r.taken_at >= coalesce(nullif(${setting("from")}, '')::timestamptz, '-infinity')
        and r.taken_at < coalesce(nullif(${setting("to")}, '')::timestamptz + interval '1 day', 'infinity')
        ${selection.withSuperseded ? "" : "and r.superseded_at is null"}
      order by m.tag, c.position, p.name, r.taken_at`, { machine: selection.machineId, point: selection.pointId, from: selection.from, to: selection.to });
}
