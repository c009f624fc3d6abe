/** What stands in the record of a site's plan: points that ask for work, components, and work that is booked. */
import { sql } from "drizzle-orm";
import type { PieceComponent, PiecePoint, PieceWork } from "@core";
import { ask } from "~/db/client.server";
import { sites, stops } from "~/db/schema";
import { leadTimeNowOf } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";

/** Rows that are read, the most urgent first. */
const MOST_PIECES = 1000;

export interface WorkRow extends PieceWork {
  componentId: string;
}

const inPlan = sql`(a.state in ('alarm', 'alert') or (a.state = 'drifting' and a.p10 is not null))`;

export async function pointRows(siteId: string, until: number): Promise<PiecePoint[]> {
  return ask<PiecePoint>(sql`
    select p.id as "pointId", p.component_id as "componentId", p.circuit_id as "circuitId",
           p.machine, p.component_kind as kind, p.quantity, p.name as point, a.state,
           a.detail -> 'forecast' -> 'crossingDates' as crossings, (a.detail ->> 'noTrend') is not null as "noTrend",
           (a.detail ->> 'beyond')::float8 as beyond, (a.margin ->> 'value')::float8 as used,
           (a.detail -> 'expectation' ->> 'deviation')::float8
             * case when a.detail -> 'expectation' ->> 'scale' = 'log' then abs(lim.value) else 1 end
             / nullif(abs(lim.value - (a.detail -> 'baseline' ->> 'centre')::float8), 0) as scatter
    from assessments a join active_points p on p.id = a.point_id
    cross join lateral (select coalesce((a.detail -> 'limits' ->> 'upper')::float8, (a.detail -> 'limits' ->> 'lower')::float8) as value) lim
    where p.site_id = ${siteId} and ${inPlan} and (a.p10 is null or a.p10 < ${new Date(until).toISOString()})
    order by a.urgency desc limit ${MOST_PIECES}`);
}

export async function componentRows(ids: readonly string[]): Promise<Map<string, PieceComponent>> {
  if (ids.length === 0) return new Map();
  const rows = await ask<PieceComponent>(sql`
    select c.id as "componentId", c.circuit_id as "circuitId", m.id as "machineId", m.name as machine, c.name as component,
           c.kind, ${leadTimeNowOf} as "leadTimeDays", c.part_cost as "partCost", c.failure_cost as "failureCost",
           c.spares_on_hand as spares, l.started_at as "fittedAt"
    from components c join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id
    left join lives l on l.component_id = c.id and l.ended_at is null
    where c.id = any(${sql.param(ids)}::uuid[]) and c.retired_at is null`);
  return new Map(rows.map((r) => [r.componentId, r]));
}

export async function workRows(siteId: string): Promise<WorkRow[]> {
  return ask<WorkRow>(sql`
    select i.id, i.component_id as "componentId", i.point_id as "pointId", i.kind, i.crew_hours as "crewHours",
           i.part_ordered_on::text as "orderedOn", i.stop_id as "stopId",
           (${stops.startsOn} + ${stops.days} > (${new Date(now()).toISOString()}::timestamptz at time zone ${sites.timeZone})::date) as ahead
    from interventions i join components c on c.id = i.component_id join circuits k on k.id = c.circuit_id
    join machines m on m.id = k.machine_id join sites on sites.id = m.site_id left join stops on stops.id = i.stop_id
    where m.site_id = ${siteId} and i.done_at is null and i.cancelled_at is null order by i.booked_at limit ${MOST_PIECES}`);
}
