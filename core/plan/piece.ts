/** One piece of the plan: why it is in it, when its limit comes, what it takes and costs. */
import { widenCrossings } from "../forecast/widen";
import type { ConditionState } from "../state/state";
import { dayOf, dayStart } from "../units/day";
import { lowerFirst } from "../units/format";
import type { PointQuantityId } from "../units/quantities";
import { DAY } from "../units/time";
import { hoursOf } from "./options";
import { partReadyOn } from "./part";
import type { PlanPiece } from "./types";
import { costsOfKind, usualHours } from "./usual";

/** A part of which nobody knows since when it is in counts as a year old. */
const UNKNOWN_AGE = 365 * DAY;
/** Chance of standing beyond the limit from which it counts as crossed. */
const CROSSED = 0.5;
/** Quantiles of a level that no forecast speaks of. */
const QUANTILES = 20;
/** A reading is never surer than this share of its margin. */
const SUREST = 0.02;
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
const WORK = {
  replacement: "Replace the part",
  repair: "Repair or overhaul it",
  inspection: "Inspect or test it",
} as const;

/** A point that asks for work, as it was assessed. */
export interface PiecePoint {
  pointId: string;
  componentId: string;
  circuitId: string;
  machine: string;
  point: string;
  kind: string;
  quantity: PointQuantityId;
  state: ConditionState;
  /** Dates of its limit, quantile by quantile, epoch ms; null in it: beyond the horizon. */
  crossings: (number | null)[] | null;
  noTrend: boolean;
  /** Chance of standing beyond the limit now. */
  beyond: number | null;
  /** Margin used, and how far one reading scatters in shares of the way from baseline to limit; null: not known. */
  used: number | null;
  scatter: number | null;
}

export interface PieceComponent {
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

/** Booked work. */
export interface PieceWork {
  id: string;
  pointId: string | null;
  kind: keyof typeof WORK;
  crewHours: number;
  orderedOn: string | null;
  stopId: string | null;
  /** Its stop is to come; null: it has none. */
  ahead: boolean | null;
}

/** A named fault of a circuit with the act that cures it. */
export interface PieceFault {
  /** As Isolate numbers it: circuit and place. */
  key: string;
  circuitId: string;
  /** The element that is worked on; often a component. */
  element: string;
  text: string;
  /** Points that it accounts for. */
  explains: readonly string[];
  act: { do: keyof typeof VERBS; text: string; minutes: number; part: boolean; stop: boolean };
}

/** Why a component is in the plan, before it is priced. */
export interface Reason<P extends PiecePoint = PiecePoint> {
  componentId: string;
  points: P[];
  fault: PieceFault | null;
}

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

/**
 * Which components ask for work, and for what: faults take their points with them.
 * @param points that ask for work, the most urgent first
 * @param faults of the circuits, the likeliest first
 * @returns a reason for each fault and for each point that no fault explains; apart from them the faults that are set or cleaned
 * without a stop, which are no piece of a plan, each with its worst point
 * @throws {never}
 * @example reasonsIn([], []) // { reasons: [], atOnce: [] }
 */
export function reasonsIn<P extends PiecePoint>(
  points: readonly P[],
  faults: readonly PieceFault[],
): { reasons: Reason<P>[]; atOnce: { fault: PieceFault; worst: P }[] } {
  const taken = new Set<string>();
  const reasons: Reason<P>[] = [];
  const atOnce: { fault: PieceFault; worst: P }[] = [];
  for (const fault of faults) {
    const own = points.filter(
      (p) => p.circuitId === fault.circuitId && fault.explains.includes(p.pointId) && !taken.has(p.pointId),
    );
    const [worst] = own;
    if (!worst) continue;
    for (const p of own) taken.add(p.pointId);
    if (fault.act.stop) reasons.push({ componentId: fault.element, points: own, fault });
    else atOnce.push({ fault, worst });
  }
  const rest = points.filter((p) => !taken.has(p.pointId));
  return {
    reasons: [...reasons, ...rest.map((p) => ({ componentId: p.componentId, points: [p], fault: null }))],
    atOnce,
  };
}

/** What is done, and whether it needs a part. */
interface Task {
  says: string;
  needsPart: boolean;
  hours: PlanPiece["hours"];
}

function bookedTask(work: PieceWork): Task {
  return { says: WORK[work.kind], needsPart: work.kind !== "inspection", hours: { mechanical: work.crewHours } };
}

function cure({ act, text }: PieceFault, kind: string): Task {
  const about = text.replace(/^[^:]+: /, "").replace("× ", "×\u00a0");
  const hours = act.part ? usualHours(kind) : { mechanical: Math.max(1, Math.ceil(act.minutes / 60)) };
  return { says: `${VERBS[act.do]}: ${about}`, needsPart: act.part, hours };
}

function renewalOrLook(points: readonly PiecePoint[], kind: string): Task {
  return points.some((p) => WEAR.includes(p.quantity))
    ? { says: "Renew the part", needsPart: true, hours: usualHours(kind) }
    : {
        says: `Look at it: ${lowerFirst(points[0]?.point ?? "")}`,
        needsPart: false,
        hours: { mechanical: LOOK_HOURS },
      };
}

/**
 * A component's piece, with what pages tell of it.
 * @param component with its part
 * @param reasons why it is in the plan, the most urgent first; none for work that was booked by hand
 * @param work what is booked for it; undefined: nothing
 * @param at when the site's day began, epoch ms
 * @param timeZone of the site
 * @param widerOf how much wider the forecasts of such a point are drawn than they were issued, 1 or more
 * @returns the piece as the plan weighs it, and its facts
 * @throws {never}
 * @example
 * const part = { leadTimeDays: 5, partCost: 900, failureCost: 4000, spares: 0, fittedAt: null };
 * const pump = { componentId: "c", circuitId: "k", machineId: "m", machine: "Crane", component: "Pump", kind: "gearPump", ...part };
 * const booked = { id: "w", pointId: null, kind: "repair", crewHours: 6, orderedOn: null, stopId: null, ahead: null };
 * pieceOf(pump, [], booked, Date.UTC(2026, 10, 24), "UTC", () => 1).facts.act // "Repair or overhaul it"
 */
export function pieceOf(
  component: PieceComponent,
  reasons: readonly Reason[],
  work: PieceWork | undefined,
  at: number,
  timeZone: string,
  widerOf: (point: PiecePoint) => number,
): { piece: PlanPiece; facts: PieceFacts } {
  const points = reasons.flatMap((c) => c.points);
  const [worst] = points;
  const fault = reasons.find((c) => c.fault)?.fault ?? null;
  const { says, needsPart, hours } = work
    ? bookedTask(work)
    : fault
      ? cure(fault, component.kind)
      : renewalOrLook(points, component.kind);
  const { assumed, ...costs } = costsOfKind(component.kind, {
    part: component.partCost,
    failure: component.failureCost,
  });
  const orderedOn = work?.orderedOn ?? null;
  const part = { leadTimeDays: component.leadTimeDays, orderedOn, today: dayOf(at, timeZone) };
  const crossings = points.length > 0 ? earliest(points.map((p) => crossingsOf(p, at, widerOf(p)))) : [null];
  const fittedAt = component.fittedAt ? new Date(component.fittedAt).getTime() : at - UNKNOWN_AGE;
  return {
    piece: {
      id: component.componentId,
      label: `${component.machine}, ${lowerFirst(component.component)}`,
      machine: component.machineId,
      circuit: component.circuitId,
      hours,
      partAt: needsPart ? Math.max(at, dayStart(partReadyOn(part), timeZone)) : null,
      partSure: !needsPart || orderedOn !== null || component.leadTimeDays === 0,
      crossings,
      since: Math.min(fittedAt, at - DAY),
      costs: { part: needsPart ? costs.part : 0, failure: costs.failure },
      reads: readsOf(points),
      booked: bookedFor(work),
    },
    facts: {
      id: component.componentId,
      componentId: component.componentId,
      pointId: worst?.pointId ?? work?.pointId ?? null,
      workId: work?.id ?? null,
      machineId: component.machineId,
      machine: component.machine,
      component: component.component,
      act: says,
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

/** The stop that work is booked for, or a stop of its own; null: nothing, or a stop that is over. */
function bookedFor(work: PieceWork | undefined): PlanPiece["booked"] {
  if (!work) return null;
  if (!work.stopId) return "own";
  return work.ahead ? work.stopId : null;
}

/** When the limit is crossed, as quantiles: a proved forecast, or what the level says by itself. */
function crossingsOf(point: PiecePoint, at: number, wider: number): (number | null)[] {
  const beyond = point.beyond ?? 0;
  if (beyond >= CROSSED) return [at];
  // every other quantile is half of what the page has to carry, and errs early by half a percent
  if (point.crossings && !point.noTrend)
    return widenCrossings(
      point.crossings.filter((_, i) => i % 2 === 0),
      at,
      wider,
    );
  const crossed = Math.round(beyond * QUANTILES);
  return Array.from({ length: QUANTILES }, (_, i) => (i < crossed ? at : null));
}

/** Of several points of one part the one that comes first, share by share: they wear together. */
function earliest(all: readonly (readonly (number | null)[])[]): (number | null)[] {
  const count = Math.max(...all.map((c) => c.length));
  return Array.from({ length: count }, (_, i) => {
    const first = Math.min(...all.map((c) => c[Math.floor((i * c.length) / count)] ?? Infinity));
    return Number.isFinite(first) ? first : null;
  });
}

/** What one more reading tells: of the point whose limit comes first, where a proved forecast rests on it. */
function readsOf(points: readonly PiecePoint[]): PlanPiece["reads"] {
  const middle = (p: PiecePoint) => p.crossings?.[p.crossings.length >> 1] ?? Infinity;
  const told = points.filter((p) => p.crossings && !p.noTrend && p.used !== null && p.scatter !== null);
  if (told.length === 0) return null;
  const first = told.reduce((best, p) => (middle(p) < middle(best) ? p : best));
  return { level: first.used!, deviation: Math.max(SUREST, first.scatter!) };
}

const quantile = (crossings: readonly (number | null)[], p: number) =>
  crossings[Math.min(crossings.length - 1, Math.floor(p * crossings.length))] ?? null;
