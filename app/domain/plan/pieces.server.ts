/**
 * Everything that a site's plan weighs: faults, forecasts and booked work as pieces, one a component, its planned stops,
 * and what is due without any stop.
 */
import { and, asc, eq, getTableColumns, isNotNull, isNull, lte, sql } from "drizzle-orm";
import {
  lowerFirst,
  causes,
  costsOfKind,
  dayOf,
  dayStart,
  hoursOf,
  noWishes,
  partReadyOn,
  usualCosts,
  usualHours,
  widenCrossings,
  type ConditionState,
  type NamedFault,
  type PlanCosts,
  type PlanPiece,
  type PlanProblem,
  type PlanStop,
  type PointQuantityId,
} from "@core";
import { ask, db } from "~/db/client.server";
import {
  circuitDiagnoses,
  circuits,
  instruments,
  machines,
  planCosts,
  sites,
  stops,
  type DiagnosisDetail,
} from "~/db/schema";
import { leadTimeNowOf, notOver } from "~/domain/planning/index.server";
import { now } from "~/runtime/clock.server";
import { familyOf, widenings } from "./scorecard.server";

const DAY = 86_400_000;
/** A plan looks so far ahead, and to a month past its last stop, at most three years. */
const AHEAD = 365 * DAY;
const AFTER_LAST = 30 * DAY;
const FARTHEST = 3 * 365 * DAY;
/** Pieces of a plan, the most urgent first, and stops. */
const MOST_PIECES = 1000;
const MOST_STOPS = 100;
/** Chance of standing beyond the limit from which it counts as crossed. */
const CROSSED = 0.5;
/** Quantities whose drift is wear of the part; the others ask for a look. */
const WEAR: readonly PointQuantityId[] = ["caseDrainFlow", "leakageFlow", "flow", "clearance", "pressureDrop"];
const LOOK_HOURS = 2;
const VERBS = {
  set: "Set",
  clean: "Clean",
  replace: "Replace",
  refill: "Refill",
  repair: "Repair",
  free: "Free",
  restore: "Restore",
  check: "Check",
} as const;

/** What stands behind a piece, for pages. */
export interface PieceFacts {
  id: string;
  componentId: string;
  pointId: string | null;
  workId: string | null;
  machineId: string;
  machine: string;
  component: string;
  /** What is done, in words. */
  act: string;
  /** Named fault of its circuit, as Isolate numbers it; null: a forecast or booked work. */
  faultOf: string | null;
  state: ConditionState | null;
  p10: number | null;
  p50: number | null;
  p90: number | null;
  leadTimeDays: number | null;
  orderedOn: string | null;
  spares: number;
  /** Last day to order for a stop is counted from this, days; null: it needs no part. */
  partDays: number | null;
  needsPart: boolean;
  hours: number;
  /** Its hours or costs are usual ones of its kind, not the plant's. */
  assumed: boolean;
  value: number;
}

/** What is due and stops nothing. */
export interface NowItem {
  key: string;
  text: string;
  act: string;
  to: string;
}

interface PointRow {
  pointId: string;
  componentId: string;
  circuitId: string;
  machineId: string;
  machine: string;
  component: string;
  kind: string;
  quantity: PointQuantityId;
  point: string;
  state: ConditionState;
  urgency: number;
  crossings: (number | null)[] | null;
  noTrend: boolean;
  beyond: number | null;
  fittedAt: Date | string | null;
}

interface ComponentRow {
  componentId: string;
  circuitId: string;
  machineId: string;
  machine: string;
  component: string;
  kind: string;
  leadTimeDays: number | null;
  partCost: number | null;
  failureCost: number | null;
  spares: number;
  fittedAt: Date | string | null;
}

interface WorkRow {
  id: string;
  componentId: string;
  pointId: string | null;
  kind: string;
  note: string;
  crewHours: number;
  orderedOn: string | null;
  stopId: string | null;
  ahead: boolean | null;
}

const inPlan = sql`(a.state in ('alarm', 'alert') or (a.state = 'drifting' and a.p10 is not null))`;

async function pointRows(siteId: string, until: number): Promise<PointRow[]> {
  return ask<PointRow>(sql`
    select p.id as "pointId", p.component_id as "componentId", p.circuit_id as "circuitId", p.machine_id as "machineId",
           p.machine, p.component, p.component_kind as kind, p.quantity, p.name as point, a.state, a.urgency,
           a.detail -> 'forecast' -> 'crossingDates' as crossings, (a.detail ->> 'noTrend') is not null as "noTrend",
           (a.detail ->> 'beyond')::float8 as beyond, l.started_at as "fittedAt"
    from assessments a join active_points p on p.id = a.point_id left join lives l on l.id = a.life_id
    where p.site_id = ${siteId} and ${inPlan} and (a.p10 is null or a.p10 < ${new Date(until).toISOString()})
    order by a.urgency desc limit ${MOST_PIECES}`);
}

async function componentRows(ids: readonly string[]): Promise<Map<string, ComponentRow>> {
  if (ids.length === 0) return new Map();
  const rows = await ask<ComponentRow>(sql`
    select c.id as "componentId", c.circuit_id as "circuitId", m.id as "machineId", m.name as machine, c.name as component,
           c.kind, ${leadTimeNowOf} as "leadTimeDays", c.part_cost as "partCost", c.failure_cost as "failureCost",
           c.spares_on_hand as spares, l.started_at as "fittedAt"
    from components c join circuits k on k.id = c.circuit_id join machines m on m.id = k.machine_id
    left join lives l on l.component_id = c.id and l.ended_at is null
    where c.id = any(${sql.param(ids)}::uuid[]) and c.retired_at is null`);
  return new Map(rows.map((r) => [r.componentId, r]));
}

async function workRows(siteId: string): Promise<WorkRow[]> {
  return ask<WorkRow>(sql`
    select i.id, i.component_id as "componentId", i.point_id as "pointId", i.kind, i.note, i.crew_hours as "crewHours",
           i.part_ordered_on::text as "orderedOn", i.stop_id as "stopId",
           (${stops.startsOn} + ${stops.days} > (${new Date(now()).toISOString()}::timestamptz at time zone ${sites.timeZone})::date) as ahead
    from interventions i join components c on c.id = i.component_id join circuits k on k.id = c.circuit_id
    join machines m on m.id = k.machine_id join sites on sites.id = m.site_id left join stops on stops.id = i.stop_id
    where m.site_id = ${siteId} and i.done_at is null and i.cancelled_at is null order by i.booked_at limit ${MOST_PIECES}`);
}

/** When the limit is crossed, as quantiles: a proved forecast, or what the level says by itself. */
function crossingsIn(row: PointRow, at: number, wider: ReadonlyMap<string, number>): (number | null)[] {
  if ((row.beyond ?? 0) >= CROSSED) return [at];
  // every other quantile is half of what the page has to carry, and errs early by half a percent
  if (row.crossings && !row.noTrend)
    return widenCrossings(
      row.crossings.filter((_, i) => i % 2 === 0),
      at,
      wider.get(familyOf(row)) ?? 1,
    );
  const crossed = Math.round((row.beyond ?? 0) * 20);
  return Array.from({ length: 20 }, (_, i) => (i < crossed ? at : null));
}

/** Of several points of one part the one that comes first, share by share: they wear together. */
function earliest(all: readonly (readonly (number | null)[])[]): (number | null)[] {
  const count = Math.max(...all.map((c) => c.length));
  return Array.from({ length: count }, (_, i) => {
    const found = all.map((c) => c[Math.floor((i * c.length) / count)] ?? Infinity);
    const first = Math.min(...found);
    return Number.isFinite(first) ? first : null;
  });
}

/** Why a component is in the plan, before it is priced. */
interface Cause {
  componentId: string;
  points: PointRow[];
  fault: { key: string; fault: NamedFault } | null;
}

/** Faults take their points with them; what is set or cleaned without a stop is no piece of the plan. */
function causesIn(points: readonly PointRow[], faults: readonly { circuitId: string; detail: DiagnosisDetail }[]) {
  const taken = new Set<string>();
  const found: Cause[] = [];
  const atOnce: NowItem[] = [];
  for (const { circuitId, detail } of faults)
    detail.named.forEach((fault, i) => {
      const own = points.filter(
        (p) => p.circuitId === circuitId && fault.explains.includes(p.pointId) && !taken.has(p.pointId),
      );
      if (own.length === 0) return;
      for (const p of own) taken.add(p.pointId);
      const key = `${circuitId}/${i + 1}`;
      const { act } = causes[fault.cause];
      if (!act.stop)
        atOnce.push({
          key,
          text: `${own[0]!.machine}: ${fault.text}`,
          act: `${act.text}, ${act.minutes} min`,
          to: `/isolate/faults/${circuitId}`,
        });
      else
        found.push({
          componentId: fault.fault.element,
          points: own,
          fault: { key, fault },
        });
    });
  for (const p of points)
    if (!taken.has(p.pointId)) found.push({ componentId: p.componentId, points: [p], fault: null });
  return { found, atOnce };
}

const today = (timeZone: string) => dayStart(dayOf(now(), timeZone), timeZone);

const quantile = (crossings: readonly (number | null)[], p: number) =>
  crossings[Math.min(crossings.length - 1, Math.floor(p * crossings.length))] ?? null;

function pieceOf(
  component: ComponentRow,
  reasons: readonly Cause[],
  work: WorkRow | undefined,
  timeZone: string,
  wider: ReadonlyMap<string, number>,
): { piece: PlanPiece; facts: PieceFacts } {
  const at = today(timeZone);
  const points = reasons.flatMap((c) => c.points);
  const [worst] = points;
  const fault = reasons.find((c) => c.fault)?.fault ?? null;
  const act = fault ? causes[fault.fault.cause].act : null;
  const wears = points.some((p) => WEAR.includes(p.quantity));
  const needsPart = work ? work.kind !== "inspection" : act ? act.part : wears;
  const look = !needsPart && !act && !work;
  const hours = work
    ? { mechanical: work.crewHours }
    : act && !act.part
      ? { mechanical: Math.max(1, Math.ceil(act.minutes / 60)) }
      : look
        ? { mechanical: LOOK_HOURS }
        : usualHours(component.kind);
  const { assumed, ...costs } = costsOfKind(component.kind, {
    part: component.partCost,
    failure: component.failureCost,
  });
  const orderedOn = work?.orderedOn ?? null;
  const part = { leadTimeDays: component.leadTimeDays, orderedOn, today: dayOf(at, timeZone) };
  const partAt = needsPart ? Math.max(at, dayStart(partReadyOn(part), timeZone)) : null;
  const crossings = points.length > 0 ? earliest(points.map((p) => crossingsIn(p, at, wider))) : [null];
  const booked = work ? (work.stopId && work.ahead ? work.stopId : work.stopId ? null : "own") : null;
  const fittedAt = component.fittedAt ? new Date(component.fittedAt).getTime() : at - AHEAD;
  const label = `${component.machine}, ${lowerFirst(component.component)}`;
  const says = work
    ? { replacement: "Replace the part", repair: "Repair or overhaul it", inspection: "Inspect or test it" }[work.kind]
    : act && fault
      ? `${VERBS[act.do]}: ${fault.fault.text.replace(/^[^:]+: /, "").replace("× ", "×\u00a0")}`
      : look
        ? `Look at it: ${lowerFirst(worst?.point ?? "")}`
        : "Renew the part";
  return {
    piece: {
      id: component.componentId,
      label,
      machine: component.machineId,
      circuit: component.circuitId,
      hours,
      partAt,
      partSure: !needsPart || orderedOn !== null || component.leadTimeDays === 0,
      crossings,
      since: Math.min(fittedAt, at - DAY),
      costs: { part: needsPart ? costs.part : 0, failure: costs.failure },
      booked,
    },
    facts: {
      id: component.componentId,
      componentId: component.componentId,
      pointId: worst?.pointId ?? work?.pointId ?? null,
      workId: work?.id ?? null,
      machineId: component.machineId,
      machine: component.machine,
      component: component.component,
      act: says ?? "",
      faultOf: fault?.key ?? null,
      state: worst?.state ?? null,
      p10: quantile(crossings, 0.1),
      p50: quantile(crossings, 0.5),
      p90: quantile(crossings, 0.9),
      leadTimeDays: component.leadTimeDays,
      orderedOn,
      spares: component.spares,
      partDays: needsPart ? component.leadTimeDays : null,
      needsPart,
      hours: hoursOf(hours),
      assumed: assumed && needsPart,
      value: needsPart ? costs.part : 0,
    },
  };
}

/** Costs of a site: its own, or usual ones. */
export async function costsOf(siteId: string): Promise<{ costs: PlanCosts; setBy: string | null; version: number }> {
  const [row] = await db().select().from(planCosts).where(eq(planCosts.siteId, siteId));
  // figures that came later than the record have their usual value
  return row
    ? { costs: { ...usualCosts, ...row.costs }, setBy: row.setBy, version: row.version }
    : { costs: usualCosts, setBy: null, version: 0 };
}

/** Sites that can be planned, and the one that is meant; null: there is none. */
export async function planSites(asked: string | null) {
  const all = await db()
    .select({ id: sites.id, name: sites.name, timeZone: sites.timeZone })
    .from(sites)
    .where(isNull(sites.retiredAt))
    .orderBy(sites.name)
    .limit(50);
  return { all, site: all.find((s) => s.id === asked) ?? all[0] ?? null };
}

export interface SitePlan {
  problem: PlanProblem;
  pieces: Record<string, PieceFacts>;
  atOnce: NowItem[];
  /** Stops as their site writes them. */
  stops: {
    id: string;
    name: string;
    startsOn: string;
    days: number;
    at: number;
    crewHours: number;
    electricianHours: number;
  }[];
  /** Machine tags of stops that no machine bears. */
  strangeTags: { stop: string; tag: string }[];
}

/** The problem of a site as it stands, without wishes but those that bookings are. */
export async function sitePlan(site: { id: string; timeZone: string }): Promise<SitePlan> {
  // the site's day, not the second: a plan that is kept a minute later must find the same options
  const at = today(site.timeZone);
  const [stopRows, machineRows, { costs }, work, faults, wider] = await Promise.all([
    db()
      .select(getTableColumns(stops))
      .from(stops)
      .innerJoin(sites, eq(sites.id, stops.siteId))
      .where(and(eq(stops.siteId, site.id), isNull(stops.retiredAt), notOver()))
      .orderBy(asc(stops.startsOn))
      .limit(MOST_STOPS),
    db()
      .select({ id: machines.id, tag: machines.tag })
      .from(machines)
      .where(and(eq(machines.siteId, site.id), isNull(machines.retiredAt))),
    costsOf(site.id),
    workRows(site.id),
    db()
      .select({ circuitId: circuitDiagnoses.circuitId, detail: circuitDiagnoses.detail })
      .from(circuitDiagnoses)
      .innerJoin(circuits, eq(circuits.id, circuitDiagnoses.circuitId))
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .where(and(eq(machines.siteId, site.id), isNotNull(circuitDiagnoses.share), isNull(circuits.retiredAt))),
    widenings(),
  ]);
  const planned = stopRows.map((s) => ({ ...s, at: dayStart(s.startsOn, site.timeZone) }));
  const last = planned.at(-1)?.at ?? at;
  const until = Math.min(at + FARTHEST, Math.max(at + AHEAD, last + AFTER_LAST));
  const points = await pointRows(site.id, until);
  const told = faults.flatMap((f) => (f.detail ? [{ circuitId: f.circuitId, detail: f.detail }] : []));
  const { found, atOnce } = causesIn(points, told);
  const ids = [
    ...new Set([
      ...found.map((c) => c.componentId),
      ...found.flatMap((c) => c.points.map((p) => p.componentId)),
      ...work.map((w) => w.componentId),
    ]),
  ];
  const components = await componentRows(ids);
  // a fault of an element that is no component of its own (a line, a strainer) is worked on where it shows
  const placed = found.map((c) =>
    components.has(c.componentId) ? c : { ...c, componentId: c.points[0]!.componentId },
  );
  const inOrder = [...new Set([...placed.map((c) => c.componentId), ...work.map((w) => w.componentId)])];
  const made = inOrder.flatMap((id) => {
    const component = components.get(id);
    if (!component) return [];
    const reasons = placed.filter((c) => c.componentId === id);
    return [
      pieceOf(
        component,
        reasons,
        work.find((w) => w.componentId === id),
        site.timeZone,
        wider,
      ),
    ];
  });
  const byTag = new Map(machineRows.map((m) => [m.tag.toLowerCase(), m.id]));
  const strangeTags: SitePlan["strangeTags"] = [];
  const planStops = planned.map((s): PlanStop => {
    const tags = s.machineTags.split(",").flatMap((t) => t.trim() || []);
    const known = tags.flatMap((tag) => {
      const id = byTag.get(tag.toLowerCase());
      if (!id) strangeTags.push({ stop: s.name, tag });
      return id ?? [];
    });
    const crew = { mechanical: s.crewHours, ...(s.electricianHours > 0 && { electrical: s.electricianHours }) };
    return { id: s.id, name: s.name, at: Math.max(at, s.at), crew, machines: tags.length > 0 ? known : null };
  });
  const pinned = Object.fromEntries(made.flatMap(({ piece }) => (piece.booked ? [[piece.id, piece.booked]] : [])));
  return {
    problem: {
      now: at,
      until,
      stops: planStops,
      pieces: made.map((m) => m.piece),
      costs,
      wishes: { ...noWishes, pinned },
    },
    pieces: Object.fromEntries(made.map((m) => [m.facts.id, m.facts])),
    atOnce: [...atOnce, ...(await calibrationsDue(at))],
    stops: planned.map(({ id, name, startsOn, days, at: begins, crewHours, electricianHours }) => ({
      id,
      name,
      startsOn,
      days,
      at: begins,
      crewHours,
      electricianHours,
    })),
    strangeTags,
  };
}

/** Calibrations that fall due within two months: readings made after it are not believed as before. */
async function calibrationsDue(at: number): Promise<NowItem[]> {
  const rows = await db()
    .select({ id: instruments.id, tag: instruments.tag, due: instruments.calibrationDueAt })
    .from(instruments)
    .where(and(isNull(instruments.retiredAt), lte(instruments.calibrationDueAt, new Date(at + 60 * DAY))))
    .orderBy(instruments.calibrationDueAt)
    .limit(12);
  return rows.map((r) => ({
    key: r.id,
    text: `Instrument ${r.tag}`,
    act: r.due!.getTime() < at ? "calibration overdue" : "calibrate within two months",
    to: `/instruments/${r.id}`,
  }));
}
