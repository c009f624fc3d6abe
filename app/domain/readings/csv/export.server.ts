/** Reads of the record: who changed what, imports, and what export offers. */
import { and, desc, eq, isNotNull, isNull, sql } from "drizzle-orm";
import { pointQuantityIds, quantityOf } from "@core";
import { db } from "~/db/client.server";
import { changes, circuits, components, imports, machines, points, readings } from "~/db/schema";
import { literal, safeCell } from "~/platform/csv.server";

/** Readings are counted up to here; beyond, the page says "more than". */
const COUNTED = 100_000;

export async function recordsPage() {
  const [edits, corrections, done, machineRows, [total]] = await Promise.all([
    db()
      .select({ id: changes.id, at: changes.at, by: changes.by, what: changes.what })
      .from(changes)
      .orderBy(desc(changes.at))
      .limit(20),
    db()
      .select({
        id: readings.id,
        at: readings.supersededAt,
        by: readings.supersededBy,
        why: readings.supersededWhy,
        entered: readings.entered,
        point: points.name,
        pointId: points.id,
      })
      .from(readings)
      .innerJoin(points, eq(points.id, readings.pointId))
      .where(isNotNull(readings.supersededAt))
      .orderBy(desc(readings.supersededAt))
      .limit(10),
    db()
      .select({
        id: imports.id,
        fileName: imports.fileName,
        doneAt: imports.doneAt,
        added: imports.added,
        by: imports.createdBy,
      })
      .from(imports)
      .where(isNotNull(imports.doneAt))
      .orderBy(desc(imports.doneAt))
      .limit(10),
    db().select({ id: machines.id, name: machines.name }).from(machines).orderBy(machines.name),
    db()
      .execute<{ readings: number }>(
        sql`select count(*)::int as readings from (select 1 from readings limit ${COUNTED}) counted`,
      )
      .then((r) => r.rows),
  ]);
  const failed = await failedRecords();
  const counted = total?.readings ?? 0;
  return { edits, corrections, done, failed, machines: machineRows, readings: counted, more: counted >= COUNTED };
}

/** What could not be assessed, and why; the rest of the fleet goes on without it. */
async function failedRecords() {
  const { rows } = await db().execute<{
    to: string;
    what: string;
    failure: string;
    failures: number;
    triedAt: Date | string | null;
  }>(sql`
    (select '/points/' || p.id as "to", m.name || ', ' || c.name || ': ' || p.name as what, a.failure, a.failures, a.tried_at as "triedAt"
      from assessments a join points p on p.id = a.point_id join components c on c.id = p.component_id
        join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id where a.failure is not null limit 20)
    union all
    (select '/oil/' || k.id, m.name || ', oil of ' || k.name, o.failure, o.failures, o.tried_at
      from oil_assessments o join circuits k on k.id = o.circuit_id join machines m on m.id = k.machine_id where o.failure is not null limit 20)`);
  return rows.map((r) => ({ ...r, triedAt: r.triedAt === null ? null : new Date(r.triedAt).getTime() }));
}

/** Points for a select, by their code. */
export async function pointChoices() {
  return db()
    .select({
      value: points.id,
      label: sql<string>`${machines.tag} || '/' || ${components.name} || '/' || ${points.name}`,
    })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .where(and(isNull(points.retiredAt), isNull(machines.retiredAt)))
    .orderBy(machines.tag, components.position, points.name)
    .limit(5000);
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

/** The query of the readings of a selection, for a CSV file. What is chosen stands in it as literals, so that the indexes serve. */
export function readingsQuery({ machineId, pointId, from, to, withSuperseded }: Selection): string {
  const where = [
    machineId && `m.id = ${literal(machineId)}::uuid`,
    pointId && `r.point_id = ${literal(pointId)}::uuid`,
    // days of the site where the machine stands
    from && `r.taken_at >= ${literal(from)}::date::timestamp at time zone t.time_zone`,
    to && `r.taken_at < (${literal(to)}::date + 1)::timestamp at time zone t.time_zone`,
    !withSuperseded && "r.superseded_at is null",
  ].filter(Boolean);
  const code = "m.tag || '/' || c.name || '/' || p.name";
  const utc = `to_char(r.taken_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;
  return `
      select ${safeCell(code)} as point, ${utc} as taken_at, r.value, u.unit, r.least, r.temperature as oil_c,
        r.pressure as load_bar, r.speed as speed_rpm, r.hours as hours_h,
             p.state, ${safeCell("i.tag")} as instrument, ${safeCell("r.note")} as note, ${safeCell("r.taken_by")} as
               by, ${safeCell("r.entered")} as as_entered,
             ${safeCell("r.kept_because")} as kept_because, r.doubtful, r.superseded_at is not null as superseded,
               ${safeCell("r.superseded_why")} as superseded_why
      from readings r join points p on p.id = r.point_id join components c on c.id = p.component_id
        join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id
      join sites t on t.id = m.site_id left join instruments i on i.id = r.instrument_id
      left join lateral (values ${unitRows()}) u(quantity, unit) on u.quantity = p.quantity
      where ${where.length > 0 ? where.join(" and ") : "true"}
      order by m.tag, c.position, p.name, r.taken_at`;
}
