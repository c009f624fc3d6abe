/** Has a machine stood for long? Told from the running hours that came with its readings. */
import { DAY } from "@core";
import { sql } from "drizzle-orm";
import { ask } from "~/db/client.server";

/** Readings so many days apart with so few hours between them: it stood. */
const LONG_DAYS = 45;
const FEW_HOURS = 2;
/** The newest reading with hours must be younger than this, and the one before it not too old to be compared. */
const NEWEST_DAYS = 60;
const OLDEST_DAYS = 400;

/** Did the machine of this circuit run for less than two hours in the last month and a half? False where nothing tells. */
export async function stoodLong(circuitId: string, at: number): Promise<boolean> {
  const day = (back: number) => new Date(at - back * DAY).toISOString();
  const [row] = await ask<{ between: number | null }>(sql`
    with read as (
      select r.taken_at, r.hours from readings r
      where r.point_id in (select p.id from points p join components c on c.id = p.component_id where c.circuit_id = ${circuitId})
        and r.hours is not null and r.superseded_at is null and r.taken_at between ${day(OLDEST_DAYS)} and ${day(0)}),
    newest as (select taken_at, hours from read where taken_at >= ${day(NEWEST_DAYS)} order by taken_at desc limit 1)
    select newest.hours - (select hours from read
      where read.taken_at <= newest.taken_at - make_interval(days => ${LONG_DAYS}) order by read.taken_at desc limit 1) as between
    from newest`);
  const between = row?.between ?? null;
  return between !== null && between >= 0 && between < FEW_HOURS;
}
