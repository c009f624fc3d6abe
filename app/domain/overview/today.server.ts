/** What Today shows. Every figure here was made when a reading landed; nothing is computed for the fleet. */
import { DAY, MONTH } from "@core";
import { sql } from "drizzle-orm";
import type { Assessment, ConditionState, NamedFault, OilAssessment } from "@core";
import type { DiagnosisDetail } from "~/db/schema";
import { ask } from "~/db/client.server";
import {
  type AssessmentParts,
  leadTimeNowOf,
  type MarginTrend,
  marginTrendOf,
  notOverOf,
  partsOf,
} from "~/domain/condition/index.server";
import { accountedFor, faultKey, openEvent } from "./decisions.server";
import { dueAt, roundJoins } from "~/domain/readings/index.server";
import { now } from "~/runtime/clock.server";

const DECISIONS = 12;
/** Points that are read to make so many entries: one fault may move several. */
const DECISION_POINTS = 40;
/** A reading that asks for a second one stands among the drifting ones, at least. */
const ASKS_URGENCY = 25;
const HORIZON_LINES = 10;
export const HORIZON_MONTHS = 12;

export interface Decision {
  pointId: string;
  point: string;
  component: string;
  machine: string;
  componentId: string;
  circuitId: string;
  state: ConditionState;
  urgency: number;
  verdict: Assessment["verdict"];
  margin: Assessment["margin"];
  /** How its margin went; null: too few readings, or no limit. */
  trend: MarginTrend | null;
  knownWhenNew: boolean;
  /** The newest reading asks for a second one. */
  asksAgain: boolean;
  /** The named fault that accounts for this point (its circuit, and its place among those named); null: it stands for itself. */
  faultOf: string | null;
  booking: { id: string; kind: string; stop: string | null; startsOn: string | null } | null;
}

export interface HorizonLine {
  pointId: string;
  /** The named fault that it stands for, with all points of that fault. */
  faultOf: string | null;
  label: string;
  state: ConditionState;
  p10: number;
  p50: number | null;
  p90: number | null;
  bookedOn: string | null;
}

const openBooking = sql`left join lateral (
  select i.id, i.kind, s.name as stop, s.starts_on from interventions i left join stops s on s.id = i.stop_id
  where i.component_id = p.component_id and i.done_at is null and i.cancelled_at is null order by s.starts_on nulls last limit 1) b on true`;

/** Points that need a decision, the worst first. */
async function decisions(): Promise<Decision[]> {
  const horizon = new Date(now() + 365 * DAY).toISOString();
  const rows = await ask<{
    pointId: string;
    point: string;
    component: string;
    machine: string;
    componentId: string;
    circuitId: string;
    state: ConditionState;
    urgency: number;
    verdict: Assessment["verdict"];
    margin: Assessment["margin"];
    parts: AssessmentParts | null;
    knownWhenNew: boolean;
    asksAgain: boolean;
    faultOf: string | null;
    bookingId: string | null;
    kind: string;
    stop: string | null;
    startsOn: string | null;
  }>(sql`
    select p.id as "pointId", p.name as point, p.component, p.machine, p.component_id as "componentId",
           p.circuit_id as "circuitId", a.state, a.urgency, a.verdict, a.margin,
           ${partsOf(sql`a`)} as parts,
           coalesce(l.known_when_new, true) as "knownWhenNew", a.asks_again as "asksAgain",
           ${faultKey} as "faultOf", b.id as "bookingId", b.kind, b.stop, b.starts_on::text as "startsOn"
    from assessments a join active_points p on p.id = a.point_id left join lives l on l.id = a.life_id ${accountedFor} ${openBooking}
    where (a.asks_again or a.state in ('alarm', 'alert') or (a.state = 'drifting' and a.p10 < ${horizon}
      and p.quantity <> 'pressureDrop') or (a.state = 'unproven' and l.known_when_new = false and a.readings > 0
      and p.quantity in ('caseDrainFlow', 'leakageFlow', 'flow')))
    order by greatest(a.urgency, case when a.asks_again then ${ASKS_URGENCY} else 0 end) desc, p.machine, p.id limit ${DECISION_POINTS}`);
  return rows.map(({ bookingId, kind, stop, startsOn, parts, ...row }) => ({
    ...row,
    trend: marginTrendOf(parts),
    booking: bookingId ? { id: bookingId, kind, stop, startsOn } : null,
  }));
}

/** One fault with the points that it accounts for: one entry, with what to do. */
export interface FaultNeed {
  key: string;
  circuitId: string;
  machine: string;
  fault: NamedFault;
  /** Since when the first of its points has been away from its baseline, epoch ms. */
  since: number | null;
  /** The points that it accounts for and that need a decision, the worst first. */
  points: Decision[];
}

export type Need = { kind: "point"; point: Decision } | { kind: "fault"; fault: FaultNeed };

async function faultNeeds(points: readonly Decision[]): Promise<FaultNeed[]> {
  const keys = [...new Set(points.flatMap((p) => p.faultOf ?? []))];
  if (keys.length === 0) return [];
  const ids = [...new Set(keys.map((key) => key.split("/")[0]!))];
  const rows = await ask<{ circuitId: string; machine: string; detail: DiagnosisDetail }>(sql`
    select d.circuit_id as "circuitId", m.name as machine, d.detail
    from circuit_diagnoses d join circuits k on k.id = d.circuit_id join machines m on m.id = k.machine_id
    where d.circuit_id = any(${sql.param(ids)}::uuid[])`);
  return rows.flatMap(({ circuitId, machine, detail: { named, since } }) =>
    named.flatMap((fault, i): FaultNeed[] => {
      const key = `${circuitId}/${i + 1}`;
      const own = points.filter((p) => p.faultOf === key);
      const starts = fault.explains.flatMap((id) => since[id] ?? []);
      const first = starts.length > 0 ? Math.min(...starts) : null;
      return own.length > 0 ? [{ key, circuitId, machine, fault, since: first, points: own }] : [];
    }),
  );
}

/** What needs a decision, worst first: one entry a fault, and the points that no fault accounts for. */
export async function needs(): Promise<Need[]> {
  const points = await decisions();
  const faults = new Map((await faultNeeds(points)).map((f) => [f.key, f]));
  const found: Need[] = [];
  for (const point of points) {
    const fault = point.faultOf === null ? undefined : faults.get(point.faultOf);
    if (!fault) found.push({ kind: "point", point });
    else if (fault.points[0] === point) found.push({ kind: "fault", fault });
  }
  return found.slice(0, DECISIONS);
}

export interface OilNeed {
  circuitId: string;
  machine: string;
  circuit: string;
  state: ConditionState;
  urgency: number;
  verdict: OilAssessment["verdict"];
  margin: OilAssessment["margin"];
  /** The debris event that deals with it. */
  eventId: string | null;
}

const OILS = 6;

/** Oils in alarm or alert, the worst first. */
export async function oilNeeds(): Promise<OilNeed[]> {
  const rows = await ask<OilNeed>(sql`
    select k.id as "circuitId", m.name as machine, k.name as circuit, o.state, o.urgency, o.verdict, o.margin,
           ${openEvent} as "eventId"
    from oil_assessments o join circuits k on k.id = o.circuit_id join machines m on m.id = k.machine_id
    where k.retired_at is null and m.retired_at is null and o.state in ('alarm', 'alert') order by o.urgency desc limit ${OILS}`);
  return rows;
}

export async function stateCounts(): Promise<Record<ConditionState, number>> {
  const rows = await ask<{ state: ConditionState; count: number }>(sql`
    with of_component as (
      select p.component_id, a.state, count(*) as count from assessments a join points p on p.id = a.point_id
      where p.retired_at is null group by p.component_id, a.state)
    select w.state, sum(w.count)::int as count from of_component w join components c on c.id = w.component_id
    join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id
    where c.retired_at is null and k.retired_at is null and m.retired_at is null group by w.state`);
  const counts: Record<ConditionState, number> = { unread: 0, unproven: 0, steady: 0, drifting: 0, alert: 0, alarm: 0 };
  for (const row of rows) counts[row.state] = row.count;
  return counts;
}

export async function horizon(): Promise<HorizonLine[]> {
  const until = new Date(now() + HORIZON_MONTHS * MONTH).toISOString();
  const rows = await ask<{
    pointId: string;
    faultOf: string | null;
    label: string;
    state: ConditionState;
    p10: Date | string;
    p50: Date | string | null;
    p90: Date | string | null;
    bookedOn: string | null;
  }>(sql`
    select p.id as "pointId", p.machine || ', ' || lower(left(p.component, 1)) || substr(p.component, 2) as label, a.state, a.fault_of as "faultOf", a.p10,
      a.p50, a.p90, b.starts_on::text as "bookedOn"
    from (select distinct on (coalesce(${faultKey}, p.component_id::text)) a.*, ${faultKey} as fault_of
          from assessments a join active_points p on p.id = a.point_id ${accountedFor}
          where a.p10 < ${until} and (a.state in ('alert', 'alarm') or (a.state = 'drifting'
            and p.quantity <> 'pressureDrop')) order by coalesce(${faultKey}, p.component_id::text), a.urgency desc) a
    join active_points p on p.id = a.point_id ${openBooking} order by a.p50 nulls last, a.p10 limit ${HORIZON_LINES}`);
  const ms = (value: Date | string | null) => (value === null ? null : new Date(value).getTime());
  return rows.map((r) => ({ ...r, p10: ms(r.p10)!, p50: ms(r.p50), p90: ms(r.p90) }));
}

export interface DueRound {
  roundId: string;
  name: string;
  points: number;
  dueAt: number;
}

/** Rounds whose points fall due within a week, the latest first. */
export async function dueRounds(): Promise<DueRound[]> {
  const until = new Date(now() + 7 * DAY).toISOString();
  const rows = await ask<{ roundId: string; name: string; points: number; dueAt: Date | string }>(sql`
    select r.id as "roundId", r.name, count(*)::int as points, min(${dueAt()}) as "dueAt"
    from ${roundJoins} where ${dueAt()} < ${until}
    group by r.id, r.name order by "dueAt"`);
  return rows.map((r) => ({ ...r, dueAt: new Date(r.dueAt).getTime() }));
}

/** Points that fall due within a week; one that stands in two rounds is one point. */
export async function duePoints(): Promise<number> {
  const until = new Date(now() + 7 * DAY).toISOString();
  const rows = await ask<{ points: number }>(
    sql`select count(distinct p.id)::int as points from ${roundJoins} where ${dueAt()} < ${until}`,
  );
  return rows[0]!.points;
}

export interface NextStop {
  id: string;
  name: string;
  startsOn: string;
  crewHours: number;
  timeZone: string;
  work: {
    id: string;
    what: string;
    hours: number;
    needsPart: boolean;
    leadTimeDays: number | null;
    orderedOn: string | null;
  }[];
}

/** The stop to come, or under way, with what is booked on it, and all stops within the horizon. */
export async function stopsAhead(): Promise<{
  next: NextStop | null;
  all: { id: string; name: string; startsOn: string; days: number; timeZone: string }[];
}> {
  const all = await ask<{
    id: string;
    name: string;
    startsOn: string;
    days: number;
    crewHours: number;
    timeZone: string;
  }>(sql`
    select s.id, s.name, s.starts_on::text as "startsOn", s.days, s.crew_hours as "crewHours", t.time_zone as
      "timeZone" from stops s join sites t on t.id = s.site_id where s.retired_at is null and ${notOverOf()}
      order by s.starts_on limit 8`);
  const first = all[0];
  if (!first) return { next: null, all: [] };
  const work = await ask<NextStop["work"][number]>(sql`
    select i.id, m.name || ', ' || lower(left(c.name, 1)) || substr(c.name, 2) || ': ' || i.kind as what, i.crew_hours
      as hours, i.kind <> 'inspection' as "needsPart",
           ${leadTimeNowOf} as "leadTimeDays", i.part_ordered_on::text as "orderedOn"
    from interventions i join components c on c.id = i.component_id join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id
    where i.stop_id = ${first.id} and i.done_at is null and i.cancelled_at is null order by m.name limit 20`);
  return { next: { ...first, work: work }, all: all };
}
