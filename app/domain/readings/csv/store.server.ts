/** Good rows become readings: through the table `incoming`, all in one transaction. */
import { drizzle } from "drizzle-orm/node-postgres";
import type { PoolClient } from "pg";
import { markStale } from "~/domain/condition/index.server";
import { copyIn } from "~/platform/imports.server";
import type { NewReading } from "./rows";

/** Columns of `incoming`, and a reading's cells in them. */
export const columns = {
  line: "int",
  point_id: "uuid",
  life_id: "uuid",
  taken_at: "timestamptz",
  value: "float8",
  least: "float8",
  entered: "text",
  temperature: "float8",
  pressure: "float8",
  speed: "float8",
  hours: "float8",
  instrument_id: "uuid",
  note: "text",
  taken_by: "text",
  kept_because: "text",
  doubtful: "bool",
};
export const cellsOf = (r: NewReading) => [
  r.line,
  r.pointId,
  r.lifeId,
  new Date(r.takenAt).toISOString(),
  r.value,
  r.least,
  r.entered,
  r.temperature,
  r.pressure,
  r.speed,
  r.hours,
  r.instrumentId,
  r.note,
  r.by,
  r.keptBecause ?? "",
  r.doubtful ? "t" : "f",
];
const names = Object.keys(columns)
  .filter((name) => name !== "line" && name !== "doubtful")
  .join(", ");

/** Rows from before a life as the record has it begin it at the first of them; what was noted of the hours then comes along. */
async function beginEarlier(client: PoolClient): Promise<void> {
  await client.query(
    `update lives l set started_at = i.first, start_hours = coalesce(i.hours, l.start_hours) from (
       select life_id, min(taken_at) as first, (array_agg(hours order by taken_at))[1] as hours from incoming group by life_id) i
     where l.id = i.life_id and i.first < l.started_at`,
  );
}

/**
 * A part may have been replaced while the file was read: its lives are held and each row is put to the one that is there then,
 * the fitted moment belonging to the new part.
 */
async function findLivesAgain(client: PoolClient): Promise<void> {
  await client.query(
    `select c.id from components c where c.id in (select p.component_id from incoming i join points p on p.id = i.point_id)
     order by c.id for share`,
  );
  await client.query(
    `update incoming i set life_id = l.id from points p join lives l on l.component_id = p.component_id
     where p.id = i.point_id and l.id <> i.life_id and i.taken_at >= l.started_at
       and (l.ended_at is null or i.taken_at < l.ended_at)`,
  );
}

/**
 * Rows of `incoming` become readings, what is there left out; their points are stale from then on. An instrument that
 * had failed its last check by then makes a reading doubtful, as it does at the machine.
 */
export async function storeIncoming(
  client: PoolClient,
  importId: string | null,
  sentBy: string | null,
): Promise<number> {
  await beginEarlier(client);
  await findLivesAgain(client);
  const inserted = await client.query(
    `insert into readings (${names}, doubtful, sent_by, import_id)
     select ${names}, doubtful or coalesce((select not c.passed from instrument_checks c
       where c.instrument_id = incoming.instrument_id and c.at <= incoming.taken_at order by c.at desc limit 1), false),
            case when taken_by = $2 then null else $2 end, $1::uuid
     from incoming on conflict (point_id, taken_at) where superseded_at is null do nothing`,
    [importId, sentBy],
  );
  await client.query(
    "update points p set last_reading_at = greatest(p.last_reading_at, i.newest) from (select point_id, " +
      "max(taken_at) as newest from incoming group by point_id) i where p.id = i.point_id",
  );
  const { rows } = await client.query<{ id: string }>("select distinct point_id as id from incoming");
  await markStale(
    drizzle(client),
    rows.map((r) => r.id),
  );
  return inserted.rowCount ?? 0;
}

/** Store readings that are known to be good, leaving out what is there. All in one transaction. */
export async function storeReadings(readings: readonly NewReading[], importId: string | null): Promise<number> {
  return copyIn(columns, readings, cellsOf, async (client) => ({
    keep: true,
    result: await storeIncoming(client, importId, null),
  }));
}
