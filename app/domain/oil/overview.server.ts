/** The oils of the fleet: the list, and what needs attention. */
import { DAY } from "@core";
import { sql } from "drizzle-orm";
import type { ConditionState, OilAssessment } from "@core";
import { db } from "~/db/client.server";
import { now } from "~/runtime/clock.server";

/** A circuit is sampled at least so often (common practice), days. */
const SAMPLE_EVERY = 120;

export interface OilListed {
  circuitId: string;
  machine: string;
  tag: string;
  area: string;
  circuit: string;
  state: ConditionState;
  code: string | null;
  target: string | null;
}

const inUse = sql`k.retired_at is null and m.retired_at is null`;

/** Every circuit in use, the worst oil first. */
export async function oilList(): Promise<OilListed[]> {
  const result = await db().execute<OilListed & Record<string, unknown>>(sql`
    select k.id as "circuitId", m.name as machine, m.tag, m.area, k.name as circuit, coalesce(o.state, 'unread') as state, o.code, o.target
    from circuits k join machines m on m.id = k.machine_id left join oil_assessments o on o.circuit_id = k.id
      where ${inUse} order by o.urgency desc nulls last, m.name, k.name limit 2000`);
  return result.rows;
}

/** What needs attention: oils that are not normal, open debris events, samples that are due, elements that block. */
export async function oilOverview() {
  const late = new Date(now() - SAMPLE_EVERY * DAY).toISOString();
  const [needs, events, due, elements, counts] = await Promise.all([
    db().execute<{
      circuitId: string;
      machine: string;
      circuit: string;
      state: ConditionState;
      verdict: OilAssessment["verdict"];
      margin: OilAssessment["margin"];
    }>(sql`
      select k.id as "circuitId", m.name as machine, k.name as circuit, o.state, o.verdict, o.margin
        from oil_assessments o join circuits k on k.id = o.circuit_id join machines m on m.id = k.machine_id
      where ${inUse} and o.state in ('alarm', 'alert', 'drifting') order by o.urgency desc limit 20`),
    db().execute<{ id: string; machine: string; what: string; openedAt: string; open: number; all: number }>(sql`
      select e.id, m.name as machine, e.what, e.opened_at as "openedAt", count(t.id) filter (where t.done_at is null)::int as open, count(t.id)::int as all
      from debris_events e join circuits k on k.id = e.circuit_id join machines m on m.id = k.machine_id left
        join debris_tasks t on t.event_id = e.id where e.closed_at is null group by e.id, m.name order by e.opened_at desc
        limit 10`),
    db().execute<{ circuitId: string; machine: string; lastAt: string | null }>(sql`
      select k.id as "circuitId", m.name as machine, o.last_at as "lastAt" from circuits k
        join machines m on m.id = k.machine_id left join oil_assessments o on o.circuit_id = k.id
      where ${inUse} and (o.last_at is null or o.last_at < ${late}) order by o.last_at nulls first limit 12`),
    db().execute<{ circuitId: string; machine: string; name: string; early: number; late: number | null }>(sql`
      select k.id as "circuitId", m.name as machine, f ->> 'name' as name, (f -> 'daysLeft' ->> 'early')::float8 as
        early, (f -> 'daysLeft' ->> 'late')::float8 as late
      from oil_assessments o join circuits k on k.id = o.circuit_id join machines m on m.id = k.machine_id cross
        join lateral jsonb_array_elements(o.detail -> 'filters') f
      where ${inUse} and (f -> 'daysLeft' ->> 'early')::float8 < 120 order by early limit 10`),
    db().execute<{ state: ConditionState; n: number }>(
      sql`select coalesce(o.state, 'unread') as state, count(*)::int as n from circuits k
        join machines m on m.id = k.machine_id left join oil_assessments o on o.circuit_id = k.id where ${inUse} group by 1`,
    ),
  ]);
  const ms = (text: string | null) => (text === null ? null : new Date(text).getTime());
  return {
    needs: needs.rows,
    events: events.rows.map((e) => ({ ...e, openedAt: ms(e.openedAt)! })),
    due: due.rows.map((d) => ({ ...d, lastAt: ms(d.lastAt) })),
    elements: elements.rows,
    counts: Object.fromEntries(counts.rows.map((c) => [c.state, c.n])) as Partial<Record<ConditionState, number>>,
  };
}
