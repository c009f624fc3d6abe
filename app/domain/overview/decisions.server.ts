/** What waits for a decision, as Today lists it and the frame counts it. */
import { sql } from "drizzle-orm";
import { ask } from "~/db/client.server";

/** Of assessment a: somebody has to decide. */
const pressing = sql`a.state in ('alarm', 'alert')`;
/** Of circuit k: its debris event that is not closed yet deals with its oil. */
export const openEvent = sql`(select e.id from debris_events e where e.circuit_id = k.id and e.closed_at is null order by e.opened_at desc limit 1)`;

/** Of point p: the diagnosis d of its circuit, where a named fault accounts for the point. */
export const accountedFor = sql`left join circuit_diagnoses d on d.circuit_id = p.circuit_id and d.share is not null and p.id = any(d.explained)`;
/** The named fault of d that accounts for point p: its circuit and its place among those that are named; null: none does. */
export const faultKey = sql`d.circuit_id::text || '/' || (select n.place from jsonb_array_elements(d.detail -> 'named')
  with ordinality n(fault, place) where n.fault -> 'explains' ? p.id::text order by n.place limit 1)`;

/**
 * Points in alarm or alert for which no work is booked, those that one fault accounts for as one, and oils with which no
 * debris event deals.
 */
export async function openDecisions(): Promise<number> {
  const rows = await ask<{ open: number }>(sql`
    select (select count(distinct coalesce(${faultKey}, p.id::text)) from assessments a join active_points p on p.id = a.point_id
             ${accountedFor}
             where (${pressing} or a.asks_again) and not exists (select 1 from interventions i
               where i.component_id = p.component_id and i.done_at is null and i.cancelled_at is null))::int
         + (select count(*) from oil_assessments a join circuits k on k.id = a.circuit_id join machines m on m.id = k.machine_id
             where k.retired_at is null and m.retired_at is null and ${pressing} and ${openEvent} is null)::int as open`);
  return rows[0]!.open;
}
