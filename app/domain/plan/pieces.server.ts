/**
 * Everything that a site's plan weighs: faults, forecasts and booked work as pieces, one a component, its planned stops,
 * and what is due without any stop.
 */
import { and, asc, eq, getTableColumns, isNotNull, isNull, lte } from "drizzle-orm";
import {
  causes,
  DAY,
  dayOf,
  dayStart,
  noWishes,
  pieceOf,
  reasonsIn,
  usualCosts,
  type PieceFacts,
  type PieceFault,
  type PlanCosts,
  type PlanProblem,
  type PlanStop,
} from "@core";
import { db } from "~/db/client.server";
import type { DiagnosisDetail } from "~/db/schema";
import { circuitDiagnoses, circuits, instruments, machines, planCosts, sites, stops } from "~/db/schema";
import { notOver } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { componentRows, pointRows, workRows } from "./rows.server";
import { familyOf, widenings } from "./scorecard.server";

/** A plan looks so far ahead, and to a month past its last stop, at most three years. */
const AHEAD = 365 * DAY;
const AFTER_LAST = 30 * DAY;
const FARTHEST = 3 * 365 * DAY;
/** Stops that are weighed. */
const MOST_STOPS = 100;

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

/** What is due and stops nothing. */
export interface NowItem {
  key: string;
  text: string;
  act: string;
  to: string;
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
  const at = dayStart(dayOf(now(), site.timeZone), site.timeZone);
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
  const { reasons: found, atOnce } = reasonsIn(points, faults.flatMap(namedIn));
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
        at,
        site.timeZone,
        (point) => wider.get(familyOf(point)) ?? 1,
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
    atOnce: [
      ...atOnce.map(({ fault: { key, text, act, circuitId }, worst }) => ({
        key,
        text: `${worst.machine}: ${text}`,
        act: `${act.text}, ${act.minutes} min`,
        to: `/isolate/faults/${circuitId}`,
      })),
      ...(await calibrationsDue(at)),
    ],
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

/** The named faults of a circuit, each with the act that cures it. */
function namedIn({ circuitId, detail }: { circuitId: string; detail: DiagnosisDetail | null }): PieceFault[] {
  return (detail?.named ?? []).map(({ fault, text, explains, cause }, i) => ({
    key: `${circuitId}/${i + 1}`,
    circuitId,
    element: fault.element,
    text,
    explains,
    act: causes[cause].act,
  }));
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
