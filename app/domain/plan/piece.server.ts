/** One piece of the plan: why it is in it, when its limit comes, what it takes and costs. */
import {
  DAY,
  causes,
  costsOfKind,
  dayOf,
  dayStart,
  hoursOf,
  lowerFirst,
  partReadyOn,
  usualHours,
  widenCrossings,
  type ConditionState,
  type NamedFault,
  type PlanPiece,
  type PointQuantityId,
} from "@core";
import type { DiagnosisDetail } from "~/db/schema";
import { now } from "~/runtime/clock.server";
import type { ComponentRow, PointRow, WorkRow } from "./rows.server";
import { familyOf } from "./scorecard.server";

/** A part of which nobody knows since when it is in counts as a year old. */
const UNKNOWN_AGE = 365 * DAY;
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

/** A reading is never surer than this share of its margin. */
const SUREST = 0.02;

/** What one more reading tells: of the point whose limit comes first, where a proved forecast rests on it. */
function readsOf(points: readonly PointRow[]): PlanPiece["reads"] {
  const middle = (p: PointRow) => p.crossings?.[p.crossings.length >> 1] ?? Infinity;
  const told = points.filter((p) => p.crossings && !p.noTrend && p.used !== null && p.scatter !== null);
  if (told.length === 0) return null;
  const first = told.reduce((best, p) => (middle(p) < middle(best) ? p : best));
  return { level: first.used!, deviation: Math.max(SUREST, first.scatter!) };
}

/** Why a component is in the plan, before it is priced. */
export interface Cause {
  componentId: string;
  points: PointRow[];
  fault: { key: string; fault: NamedFault } | null;
}

/** Faults take their points with them; what is set or cleaned without a stop is no piece of the plan. */
export function causesIn(
  points: readonly PointRow[],
  faults: readonly { circuitId: string; detail: DiagnosisDetail }[],
) {
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

/** When the site's day began, epoch ms. */
export const today = (timeZone: string) => dayStart(dayOf(now(), timeZone), timeZone);

const quantile = (crossings: readonly (number | null)[], p: number) =>
  crossings[Math.min(crossings.length - 1, Math.floor(p * crossings.length))] ?? null;

/** A component's piece, with what pages tell of it. */
export function pieceOf(
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
  const fittedAt = component.fittedAt ? new Date(component.fittedAt).getTime() : at - UNKNOWN_AGE;
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
      reads: readsOf(points),
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
