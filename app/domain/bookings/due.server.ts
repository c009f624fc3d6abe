/** What comes due by its date beside forecasts and readings: stop-gaps to look at again, valves to move, hoses, fills, campaigns. */
import { sql, type SQL } from "drizzle-orm";
import { DAY, dayOf, dayStart, HOSE_YEARS } from "@core";
import { ask, db } from "~/db/client.server";
import { componentMoves } from "~/db/schema";
import type { Actor } from "~/domain/access/index.server";
import { formIsOld, type Answer } from "~/domain/answer";
import { sentBefore, sentElsewhere } from "~/domain/sent.server";
import { leadTimeNowOf } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { isUuid } from "~/platform/validate";

export type DueKind =
  "interim" | "exercise" | "hose" | "fill" | "campaign" | "unproven" | "booking" | "missed" | "calibration";

export interface DueItem {
  kind: DueKind;
  /** Work, component, circuit or campaign. */
  id: string;
  machineId: string | null;
  /** Machine and part, or the campaign. */
  what: string;
  why: string;
  /** Start of the day on which it is due, epoch ms. */
  dueAt: number;
  to: string;
}

/** Days ahead that count as due. */
export const AHEAD = 30;
/** Work that waits for no stop is done within so many days of its booking (common practice). */
const SOON = 7;

const part = sql`m.name || ', ' || lower(left(c.name, 1)) || substr(c.name, 2)`;
const place = sql`join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id join sites s on s.id = m.site_id`;
const inUse = sql`c.retired_at is null and k.retired_at is null and m.retired_at is null`;

/** Each source: id, machine, what, why, the ISO day and the zone in which it is one. */
function sources(today: string, until: string): Record<DueKind, SQL> {
  return {
    interim: sql`select 'interim' as kind, i.id::text as id, m.id::text as machine, ${part} as what,
        'stop-gap, the cause is open: look again' as why, i.look_again_on::text as day, s.time_zone as zone, s.id as site
      from interventions i join components c on c.id = i.component_id ${place}
      where i.interim and i.looked_again_at is null and i.done_at is not null and i.look_again_on <= ${until}`,
    exercise: sql`select 'exercise', c.id::text, m.id::text, ${part},
        'seldom moves: at least every ' || c.exercise_days || ' days',
        (coalesce((select max(v.at) from component_moves v where v.component_id = c.id),
          (select max(l.started_at) from lives l where l.component_id = c.id), ${today}::timestamptz)
          + make_interval(days => c.exercise_days))::date::text, s.time_zone, s.id
      from components c ${place} where c.exercise_days is not null and ${inUse}`,
    hose: sql`select 'hose', k.id::text, m.id::text, m.name || ', ' || k.name,
        'oldest hose fitted ' || to_char(g.oldest_hose::date, 'FMDD Mon YYYY'),
        (g.oldest_hose::date + make_interval(years => ${HOSE_YEARS}::int))::date::text, s.time_zone, s.id
      from circuit_diagrams g join circuits k on k.id = g.circuit_id join machines m on m.id = k.machine_id join sites s on s.id = m.site_id
      where g.oldest_hose <= (${until}::date - make_interval(years => ${HOSE_YEARS}::int))::date::text
        and k.retired_at is null and m.retired_at is null`,
    fill: sql`select 'fill', k.id::text, m.id::text, m.name || ', ' || k.name, 'stop-gap fill: change back', e.change_back_by::text, s.time_zone, s.id
      from oil_events e join circuits k on k.id = e.circuit_id join machines m on m.id = k.machine_id join sites s on s.id = m.site_id
      where e.change_back_by <= ${until} and e.withdrawn_at is null and k.retired_at is null and m.retired_at is null
        and not exists (select 1 from oil_events later where later.circuit_id = e.circuit_id and later.at > e.at
          and later.kind in ('change', 'fill') and later.withdrawn_at is null)`,
    campaign: sql`select 'campaign', g.id::text, null, g.title,
        (select count(*) filter (where p.result in ('open', 'old')) || ' of ' || count(*) || ' parts to look at or change'
          from campaign_parts p where p.campaign_id = g.id), g.due_on::text, s.time_zone, s.id
      from campaigns g join sites s on s.id = g.site_id where g.closed_at is null and g.due_on <= ${until}`,
    unproven: sql`select 'unproven', i.id::text, m.id::text, ${part}, 'done and not proven: read it again', i.done_at::date::text, s.time_zone, s.id
      from interventions i join components c on c.id = i.component_id ${place}
      where i.done_at > ${today}::timestamptz - interval '180 days' and i.signed_at is null and i.point_id is not null
        and ${inUse} and exists (select 1 from work_runs r where r.intervention_id = i.id)
        and not exists (select 1 from readings r where r.point_id = i.point_id and r.taken_at > i.done_at and r.superseded_at is null)`,
    // a part that has to come first is waited for
    booking: sql`select 'booking', i.id::text, m.id::text, ${part}, 'booked without a stop and not done',
        greatest((i.booked_at + make_interval(days => ${SOON}::int))::date, case when i.kind = 'replacement'
          then coalesce(i.part_ordered_on, i.booked_at::date) + ${leadTimeNowOf} end)::text, s.time_zone, s.id
      from interventions i join components c on c.id = i.component_id ${place}
      where i.done_at is null and i.cancelled_at is null and i.stop_id is null and ${inUse}`,
    missed: sql`select 'missed', i.id::text, m.id::text, ${part}, 'not done, and its stop is over: ' || o.name,
        (o.starts_on + o.days - 1)::date::text, s.time_zone, s.id
      from interventions i join stops o on o.id = i.stop_id join components c on c.id = i.component_id ${place}
      where i.done_at is null and i.cancelled_at is null and ${inUse}
        and (o.starts_on + o.days) <= (${today}::timestamptz at time zone s.time_zone)::date`,
    calibration: sql`select 'calibration', t.id::text, null, t.tag || ', ' || t.name, 'calibration runs out',
        t.calibration_due_at::date::text, coalesce((select time_zone from sites where retired_at is null order by name limit 1), 'UTC'), null::uuid
      from instruments t where t.retired_at is null and t.calibration_due_at <= ${until}::date + 1`,
  };
}

const pathOf: Record<DueKind, (id: string) => string> = {
  interim: (id) => `/work/${id}`,
  exercise: () => "/work/due",
  hose: (id) => `/fleet/circuits/${id}`,
  fill: (id) => `/oil/${id}`,
  campaign: (id) => `/work/campaigns/${id}`,
  unproven: (id) => `/work/${id}`,
  booking: (id) => `/work/${id}`,
  missed: (id) => `/work/${id}`,
  calibration: (id) => `/instruments/${id}`,
};

/** Which of what falls due is meant; what is left out says nothing. */
export interface DueWish {
  /** So many rows at most. */
  most: number;
  machineIds?: readonly string[];
  siteId?: string;
  /** Due by this moment, epoch ms; a month ahead where it is left out. */
  until?: number;
}

/** What falls due by its date, the latest first. */
export async function dueWork({ most, machineIds, siteId, until: by }: DueWish): Promise<DueItem[]> {
  const today = new Date(now()).toISOString();
  const until = new Date(by ?? now() + AHEAD * DAY).toISOString().slice(0, 10);
  const all = sql.join(Object.values(sources(today, until)), sql` union all `);
  const own = machineIds ? sql`and d.machine = any(${sql.param([...machineIds])}::text[])` : sql``;
  const here = siteId ? sql`and d.site = ${siteId}` : sql``;
  const rows = await ask<{
    kind: DueKind;
    id: string;
    machine: string | null;
    what: string;
    why: string;
    day: string;
    zone: string;
  }>(sql`select * from (${all}) d where d.day <= ${until} ${own} ${here} order by d.day, d.what limit ${most}`);
  return rows.map((r) => ({
    kind: r.kind,
    id: r.id,
    machineId: r.machine,
    what: r.what,
    why: r.why,
    dueAt: dayStart(r.day, r.zone),
    to: pathOf[r.kind](r.id),
  }));
}

interface Move {
  submission: string;
  componentId: string;
  at: Date;
  by: string;
  sentBy: string | null;
  sentById: string | null;
  note: string;
}

/** A valve that seldom moves was moved. The same entry sent twice is one move. */
export async function keepMove(move: Move): Promise<Answer> {
  const [row] = await db()
    .insert(componentMoves)
    .values(move)
    .onConflictDoNothing({ target: componentMoves.submission })
    .returning({ id: componentMoves.id });
  if (row) return { ok: true, id: row.id };
  const owner = { componentId: move.componentId };
  return (await sentBefore(db(), componentMoves, move.submission, owner)) ?? sentElsewhere;
}

/** The same, from the form of the page. */
export async function noteMove(fields: Record<string, string>, actor: Actor): Promise<Answer> {
  const { submission, componentId } = fields;
  if (!isUuid(submission) || !isUuid(componentId)) return formIsOld();
  const note = (fields.note ?? "").trim().slice(0, 200);
  const who = { by: actor.name, sentBy: null, sentById: actor.id };
  return keepMove({ submission, componentId, at: new Date(now()), ...who, note });
}

/** Parts with an exercise plan: when each was moved last, and when it is due. */
export async function exercisePlan() {
  const rows = await ask<{
    id: string;
    machine: string;
    machineId: string;
    component: string;
    days: number;
    zone: string;
    last: Date | string | null;
    by: string | null;
  }>(sql`
    select c.id, m.name as machine, m.id as "machineId", c.name as component, c.exercise_days as days, s.time_zone as zone,
           v.at as last, v.by
    from components c ${place}
    left join lateral (select at, by from component_moves v where v.component_id = c.id order by at desc limit 1) v on true
    where c.exercise_days is not null and ${inUse} order by v.at nulls first, m.name limit 200`);
  return rows.map((r) => {
    const last = r.last === null ? null : new Date(r.last).getTime();
    return { ...r, last, dueAt: last === null ? null : dayStart(dayOf(last + r.days * DAY, r.zone), r.zone) };
  });
}
