/** How long parts of one kind last here, and whether replacing by age would say the same as their condition does. */
import { sql } from "drizzle-orm";
import {
  DAY,
  ageReplacement,
  componentKinds,
  costsOfKind,
  hoursOf,
  usualHours,
  weibullFit,
  type AgeReplacement,
  type ComponentKind,
  type ConditionState,
  type Life,
  type WeibullFit,
} from "@core";
import { ask } from "~/db/client.server";
import { costsOf } from "./pieces.server";

const HOUR_SHARE = 1 / DAY;
const MOST = 5000;
/** Fewest lives that came to their limit for a fit. */
const FEWEST = 2;

interface Row {
  lifeId: string;
  kind: ComponentKind;
  machine: string;
  component: string;
  startedAt: Date | string;
  endedAt: Date | string | null;
  startHours: number;
  endHours: number | null;
  hoursPerDay: number;
  crossedAt: Date | string | null;
  seenUntil: Date | string;
  state: ConditionState | null;
  p50: Date | string | null;
}

export interface RunningPart {
  machine: string;
  component: string;
  /** Running hours so far. */
  age: number;
  state: ConditionState | null;
}

export interface KindLives {
  kind: string;
  lives: number;
  crossed: number;
  fit: WeibullFit | null;
  /** Why there is no fit. */
  none: string;
  advice: AgeReplacement | null;
  /** Parts older than the best age whose condition is steady, and younger ones whose condition asks for work sooner. */
  oldAndSteady: RunningPart[];
  youngAndWorn: RunningPart[];
}

const at = (value: Date | string) => new Date(value).getTime();

/** Lives of parts that were known when new, by kind, hours by the meter where it was noted, else by the machine's usual duty. */
async function lifeRows(siteId: string): Promise<Row[]> {
  return ask<Row>(sql`
    select l.id as "lifeId", c.kind, m.name as machine, c.name as component, l.started_at as "startedAt", l.ended_at as "endedAt",
           l.start_hours as "startHours", l.end_hours as "endHours", m.hours_per_day as "hoursPerDay",
           min(e.crossed_at) as "crossedAt", max(e.seen_until) as "seenUntil",
           (array_agg(a.state order by a.urgency desc))[1] as state, min(a.p50) as p50
    from lives l join components c on c.id = l.component_id join circuits k on k.id = c.circuit_id
    join machines m on m.id = k.machine_id join peer_evidence e on e.life_id = l.id and e.seen_until is not null
    join points p on p.id = e.point_id and p.quantity in ('caseDrainFlow', 'leakageFlow', 'flow', 'clearance')
    left join assessments a on a.point_id = e.point_id and a.life_id = l.id
    where m.site_id = ${siteId} and l.known_when_new
    group by l.id, c.id, m.id order by l.started_at desc limit ${MOST}`);
}

const startOf = (r: Row) => at(r.startedAt);
const hoursAt = (r: Row, moment: number) => (moment - startOf(r)) * HOUR_SHARE * r.hoursPerDay;

function lifeOf(r: Row): Life | null {
  const end = r.endedAt === null ? at(r.seenUntil) : at(r.endedAt);
  const crossed = r.crossedAt !== null;
  const noted = r.endHours === null ? null : r.endHours - r.startHours;
  const time = crossed ? hoursAt(r, at(r.crossedAt!)) : noted !== null && noted > 0 ? noted : hoursAt(r, end);
  return time > 0 ? { time, failed: crossed } : null;
}

function kindLives(kind: string, rows: readonly Row[], costs: Awaited<ReturnType<typeof costsOf>>["costs"]): KindLives {
  const all = rows.flatMap((r) => lifeOf(r) ?? []);
  const crossed = all.filter((l) => l.failed).length;
  const label = componentKinds[kind as ComponentKind]?.label ?? kind;
  const nothing = { fit: null, advice: null, oldAndSteady: [], youngAndWorn: [] };
  const base = { kind: label, lives: all.length, crossed };
  if (crossed < FEWEST)
    return {
      ...base,
      ...nothing,
      none: crossed === 0 ? "none has come to its limit yet" : "one life alone tells no spread",
    };
  let fit: WeibullFit;
  try {
    fit = weibullFit(all);
  } catch (error) {
    return { ...base, ...nothing, none: error instanceof Error ? error.message : "cannot be fitted" };
  }
  const { part, failure } = costsOfKind(kind, { part: null, failure: null });
  const planned = part + hoursOf(usualHours(kind)) * costs.crewHour + costs.opening;
  const advice = ageReplacement({
    shape: fit.shape,
    scale: fit.scale,
    planned,
    unplanned: failure,
    shapeInterval: fit.shapeInterval,
  });
  const running = rows.filter((r) => r.endedAt === null);
  const partOf = (r: Row): RunningPart => ({
    machine: r.machine,
    component: r.component,
    age: hoursAt(r, at(r.seenUntil)),
    state: r.state,
  });
  const best = advice.age;
  return {
    ...base,
    fit,
    none: "",
    advice,
    oldAndSteady:
      best === null
        ? []
        : running.filter((r) => r.state === "steady" && hoursAt(r, at(r.seenUntil)) > best).map(partOf),
    youngAndWorn:
      best === null
        ? []
        : running
            .filter((r) => {
              const soon = r.crossedAt !== null ? at(r.crossedAt) : r.p50 === null ? null : at(r.p50);
              return soon !== null && hoursAt(r, soon) < best;
            })
            .map(partOf),
  };
}

/** Lives of a site by kind, those of which most came to their limit first. */
export async function livesPage(siteId: string): Promise<KindLives[]> {
  const [rows, { costs }] = await Promise.all([lifeRows(siteId), costsOf(siteId)]);
  const kinds = new Map<string, Row[]>();
  for (const r of rows) {
    const own = kinds.get(r.kind);
    if (own) own.push(r);
    else kinds.set(r.kind, [r]);
  }
  return [...kinds]
    .map(([kind, own]) => kindLives(kind, own, costs))
    .sort((a, b) => b.crossed - a.crossed || b.lives - a.lives);
}
