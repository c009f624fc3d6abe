/** The condition of a site or a machine over a period, as a report that is printed, and as the figures in it. */
import { sql } from "drizzle-orm";
import {
  DAY,
  calendarDay,
  causes,
  dayOf,
  dayStart,
  type Assessment,
  type ConditionState,
  type PointQuantityId,
  type ReadingState,
} from "@core";
import { ask } from "~/db/client.server";
import type { DiagnosisDetail } from "~/db/schema";
import {
  ASSESSMENT_SHAPE,
  marginTrendOf,
  partsOf,
  type AssessmentParts,
  type MarginTrend,
} from "~/domain/condition/index.server";
import { costsOf, keptPlans, planSites, scorecardPage } from "~/domain/plan/index.server";
import { notFound } from "~/platform/missing";
import { isUuid } from "~/platform/validate";
import { now } from "~/runtime/clock.server";
import { chartsOf } from "./charts.server";

/** A report covers the last quarter unless another period is asked for. */
const USUAL = 91 * DAY;
/** Points that are read for the page, the worst first, and for its files. */
const ON_PAGE = 300;
const IN_FILE = 5000;
const MOST_WORK = 100;
/** Points drawn over time, the worst first. */
const CHARTS = 24;

/** States in which the report writes of a point at length. */
const needsAttention = (state: ConditionState) => state === "alarm" || state === "alert" || state === "drifting";

export interface ReportAsked {
  site: string | null;
  machine: string | null;
  from: string | null;
  to: string | null;
}

export interface ReportPoint {
  pointId: string;
  machine: string;
  component: string;
  point: string;
  quantity: PointQuantityId;
  readState: ReadingState;
  unit: string;
  state: ConditionState;
  lastAt: number | null;
  lastRaw: number | null;
  verdict: Assessment["verdict"];
  margin: Assessment["margin"];
  p10: number | null;
  p50: number | null;
  p90: number | null;
  /** It crossed its limit within the period. */
  crossedAt: number | null;
  /** Chance of standing beyond its limit now; null: nothing is known of it. */
  beyond: number | null;
  readings: number;
  trend: MarginTrend | null;
}

export interface ReportWork {
  machine: string;
  component: string;
  kind: string;
  note: string;
  findings: string;
  doneAt: number | null;
  doneBy: string;
  stop: string | null;
  startsOn: string | null;
  hours: number;
}

export interface ReportFault {
  circuitId: string;
  machine: string;
  text: string;
  share: number;
  act: string;
  since: number | null;
}

const ms = (value: Date | string | null) => (value === null ? null : new Date(value).getTime());

/** First and last day of what is asked for, in the site's days; what is no day, or the wrong way round, is the last quarter. */
function periodOf({ from, to }: ReportAsked, timeZone: string) {
  const last = calendarDay(to ?? "") ?? dayOf(now(), timeZone);
  const end = dayStart(last, timeZone) + DAY;
  const asked = calendarDay(from ?? "");
  const first = asked && asked <= last ? asked : dayOf(end - USUAL, timeZone);
  return { first, last, start: dayStart(first, timeZone), end };
}

type Where = { siteId: string; machineId: string | null };
const placed = ({ siteId, machineId }: Where) =>
  machineId ? sql`m.site_id = ${siteId} and m.id = ${machineId}` : sql`m.site_id = ${siteId}`;

async function pointsIn(where: Where, start: number, end: number, most: number): Promise<ReportPoint[]> {
  const [since, until] = [new Date(start).toISOString(), new Date(end).toISOString()];
  const rows = await ask<
    Omit<ReportPoint, "lastAt" | "p10" | "p50" | "p90" | "crossedAt" | "trend"> & {
      lastAt: Date | string | null;
      p10: Date | string | null;
      p50: Date | string | null;
      p90: Date | string | null;
      crossedAt: Date | string | null;
      parts: AssessmentParts | null;
    }
  >(sql`
    select p.id as "pointId", m.name as machine, p.component, p.name as point, p.quantity, p.read_state as "readState", p.unit,
           a.state, a.last_at as "lastAt", a.last_raw as "lastRaw", a.verdict, a.margin, a.p10, a.p50, a.p90,
           (select e.crossed_at from peer_evidence e where e.point_id = p.id and e.life_id = a.life_id
             and e.crossed_at >= ${since} and e.crossed_at < ${until}) as "crossedAt",
           (select count(*)::int from readings r where r.point_id = p.id and r.taken_at >= ${since} and r.taken_at < ${until}
             and r.superseded_at is null) as readings,
           (case when a.shape = ${ASSESSMENT_SHAPE} then a.detail ->> 'beyond' end)::float8 as beyond, ${partsOf(sql`a`)} as parts
    from assessments a join active_points p on p.id = a.point_id join machines m on m.id = p.machine_id
    where ${placed(where)} order by a.urgency desc, m.name, p.component, p.id limit ${most}`);
  return rows.map(({ parts, lastAt, p10, p50, p90, crossedAt, ...r }) => ({
    ...r,
    lastAt: ms(lastAt),
    p10: ms(p10),
    p50: ms(p50),
    p90: ms(p90),
    crossedAt: ms(crossedAt),
    trend: marginTrendOf(parts),
  }));
}

async function workIn(where: Where, start: number, end: number): Promise<{ done: ReportWork[]; open: ReportWork[] }> {
  const rows = await ask<Omit<ReportWork, "doneAt"> & { doneAt: Date | string | null }>(sql`
    select m.name as machine, c.name as component, i.kind, i.note, i.findings, i.done_at as "doneAt",
           coalesce(i.done_by, '') as "doneBy", s.name as stop, s.starts_on::text as "startsOn", i.crew_hours as hours
    from interventions i join components c on c.id = i.component_id join circuits k on k.id = c.circuit_id
    join machines m on m.id = k.machine_id left join stops s on s.id = i.stop_id
    where ${placed(where)} and i.cancelled_at is null and (i.done_at is null or (i.done_at >= ${new Date(start).toISOString()}
      and i.done_at < ${new Date(end).toISOString()})) order by i.done_at desc nulls last, s.starts_on limit ${MOST_WORK}`);
  const all = rows.map((r) => ({ ...r, doneAt: ms(r.doneAt) }));
  return { done: all.filter((w) => w.doneAt !== null), open: all.filter((w) => w.doneAt === null) };
}

async function faultsIn(where: Where): Promise<ReportFault[]> {
  const rows = await ask<{ circuitId: string; machine: string; detail: DiagnosisDetail }>(sql`
    select d.circuit_id as "circuitId", m.name as machine, d.detail from circuit_diagnoses d
    join circuits k on k.id = d.circuit_id join machines m on m.id = k.machine_id
    where ${placed(where)} and d.share is not null and k.retired_at is null order by d.share desc limit 60`);
  return rows.flatMap(({ circuitId, machine, detail }) =>
    detail.named.map((f) => {
      const starts = f.explains.flatMap((id) => detail.since[id] ?? []);
      return {
        circuitId,
        machine,
        text: f.text,
        share: f.share,
        act: causes[f.cause].act.text,
        since: starts.length > 0 ? Math.min(...starts) : null,
      };
    }),
  );
}

async function statesIn(where: Where): Promise<Record<ConditionState, number>> {
  const rows = await ask<{ state: ConditionState; count: number }>(sql`
    select a.state, count(*)::int as count from assessments a join active_points p on p.id = a.point_id
    join machines m on m.id = p.machine_id where ${placed(where)} group by a.state`);
  const states: Record<ConditionState, number> = { alarm: 0, alert: 0, drifting: 0, unproven: 0, unread: 0, steady: 0 };
  for (const { state, count } of rows) states[state] = count;
  return states;
}

/** The report that is asked for, `whole` for a file. `Missing` where the site or the machine is not there. */
export async function report(asked: ReportAsked, { whole = false } = {}) {
  const [machine] = isUuid(asked.machine)
    ? await ask<{ id: string; name: string; tag: string; siteId: string }>(
        sql`select id, name, tag, site_id as "siteId" from machines where id = ${asked.machine}`,
      )
    : [];
  if (asked.machine && !machine) throw notFound("machine");
  const { all, site } = await planSites(machine?.siteId ?? asked.site);
  if (!site) throw notFound("site");
  const { first, last, start, end } = periodOf(asked, site.timeZone);
  const where = { siteId: site.id, machineId: machine?.id ?? null };
  const [points, states, work, faults, kept, score] = await Promise.all([
    pointsIn(where, start, end, whole ? IN_FILE : ON_PAGE),
    statesIn(where),
    workIn(where, start, end),
    faultsIn(where),
    machine ? [] : keptPlans(site.id),
    machine ? null : scorecardPage(),
  ]);
  const [plan] = kept;
  const drawn = points.filter((p) => needsAttention(p.state)).slice(0, CHARTS);
  return {
    charts: await chartsOf(drawn.map((p) => p.pointId)),
    site,
    sites: all,
    machine: machine ? { id: machine.id, name: machine.name, tag: machine.tag } : null,
    from: first,
    to: last,
    madeAt: now(),
    currency: (await costsOf(site.id)).costs.currency,
    states,
    points,
    faults,
    ...work,
    plan: plan
      ? { name: plan.name, madeAt: plan.madeAt, madeBy: plan.madeBy, totals: plan.totals, lines: plan.lines }
      : null,
    score: score ? { all: score.all, notBefore: score.notBefore, unforeseen: score.unforeseen } : null,
  };
}

export type Report = Awaited<ReturnType<typeof report>>;

/** What an address asks for. */
export const reportAsked = (request: Request): ReportAsked => {
  const { searchParams } = new URL(request.url);
  const of = (name: string) => searchParams.get(name);
  return { site: of("site"), machine: of("machine"), from: of("from"), to: of("to") };
};
