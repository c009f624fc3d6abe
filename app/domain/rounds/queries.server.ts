/** Rounds: what is due, the way that is walked, and all that a tablet takes along. */
import { eq, sql } from "drizzle-orm";
import {
  DAY,
  componentKinds,
  quantityOf,
  preferredUnit,
  type ComponentKind,
  type ConditionState,
  type Expectation,
  type Fluid,
  type KnownOfCircuit,
  type PointQuantityId,
  type ReadingState,
  type UnitPreference,
  cautionFor,
  readsTheOil,
} from "@core";
import { db } from "~/db/client.server";
import { hourMeterChanges, rounds } from "~/db/schema";
import { dueAt, intervalDays, pumpedFlow, roundJoins, usualDays } from "~/domain/readings/index.server";
import { ASSESSMENT_SHAPE } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { notFound } from "~/platform/missing";

export interface RoundLine {
  id: string;
  name: string;
  walkedBy: string;
  points: number;
  due: number;
  /** Due on a day of its site before today. */
  late: number;
  /** The earliest of its points. */
  dueAt: number | null;
  intervalDays: number;
  /** Running hours between readings, where the round goes by them. */
  intervalHours: number | null;
  closer: number;
}

/** All rounds in use, the latest first. */
export async function roundList(): Promise<RoundLine[]> {
  const [soon, present] = [new Date(now() + 7 * DAY).toISOString(), new Date(now()).toISOString()];
  const result = await db().execute<
    Omit<RoundLine, "dueAt"> & { dueAt: Date | string | null } & Record<string, unknown>
  >(sql`
    select r.id, r.name, r.walked_by as "walkedBy", r.interval_days as "intervalDays", r.interval_hours as "intervalHours",
           count(x.id)::int as points, min(x.due) as "dueAt",
           count(*) filter (where x.due < ${soon})::int as due,
           count(*) filter (where (x.due at time zone s.time_zone)::date <
             (${present}::timestamptz at time zone s.time_zone)::date)::int as late,
           count(*) filter (where x.days < x.usual)::int as closer
    from rounds r join sites s on s.id = r.site_id
      left join (select p.id, rp.round_id, ${dueAt()} as due, ${intervalDays()} as days, ${usualDays} as usual
                 from ${roundJoins}) x on x.round_id = r.id
    where r.retired_at is null group by r.id order by "dueAt" nulls last, r.name`);
  return result.rows.map((r) => ({ ...r, dueAt: r.dueAt === null ? null : new Date(r.dueAt).getTime() }));
}

export async function roundRow(id: string) {
  const [row] = await db().select().from(rounds).where(eq(rounds.id, id));
  if (!row) throw notFound("round");
  return row;
}

export interface WalkPoint {
  id: string;
  name: string;
  machine: string;
  machineId: string;
  circuit: string;
  circuitId: string;
  component: string;
  componentId: string;
  quantity: PointQuantityId;
  unit: string;
  readState: ReadingState;
  conditions: string;
  instrument: { id: string; tag: string; name: string } | null;
  caution: string;
  fluid: Fluid | null;
  expectation: Expectation | null;
  /** What no reading of its circuit can exceed, by plates and settings. */
  known: KnownOfCircuit;
  state: ConditionState;
  /** `hours` as the meter that is in now would have shown them: a recorded change is no jump. */
  last: { raw: number; at: number; temperature: number | null; hours: number | null } | null;
  timeZone: string;
  needsConditions: boolean;
  /** It reads the oil of its circuit itself: its value is the oil temperature of what follows. */
  isOilTemperature: boolean;
  dueAt: number;
  everyDays: number;
  /** Is it read closer than usual, since its limit nears? */
  closer: boolean;
}

interface WalkRow extends Record<string, unknown> {
  id: string;
  name: string;
  machine: string;
  machineId: string;
  circuit: string;
  circuitId: string;
  component: string;
  componentId: string;
  quantity: PointQuantityId;
  unit: string;
  readState: ReadingState;
  conditions: string;
  instrumentId: string | null;
  instrumentTag: string | null;
  instrumentName: string | null;
  kv40: number | null;
  kv100: number | null;
  density15: number | null;
  pumpedFlow: number | null;
  workingPressure: number | null;
  expectation: Expectation | null;
  state: ConditionState | null;
  lastRaw: number | null;
  lastAt: Date | string | null;
  lastTemperature: number | null;
  lastHours: number | null;
  timeZone: string;
  due: Date | string;
  days: number;
  usual: number;
}

/** The points of a round in walking order, with all that a reading needs. */
export async function walkPoints(id: string, units: UnitPreference): Promise<WalkPoint[]> {
  const result = await db().execute<WalkRow>(sql`
    select p.id, p.name, p.machine, p.machine_id as "machineId", p.circuit, p.circuit_id as "circuitId", p.component,
      p.component_id as "componentId", p.quantity, p.unit, p.read_state as "readState", p.conditions_text as conditions,
           i.id as "instrumentId", i.tag as "instrumentTag", i.name as "instrumentName", f.kv40, f.kv100, f.density15,
           ${pumpedFlow(sql`p.circuit_id`)} as "pumpedFlow", (select k.working_pressure from circuits k where k.id = p.circuit_id) as "workingPressure",
             case when a.shape = ${ASSESSMENT_SHAPE} then a.detail->'expectation' end as expectation, a.state,
           l.value as "lastRaw", l.taken_at as "lastAt", l.temperature as "lastTemperature",
             l.hours - coalesce((select sum(h.before - h.after) from ${hourMeterChanges} h where h.machine_id = p.machine_id
               and h.withdrawn_at is null and h.at > l.taken_at), 0) as "lastHours",
             p.time_zone as "timeZone", ${dueAt()} as due, ${intervalDays()} as days, ${usualDays} as usual
    from ${roundJoins} left join fluids f on f.id = p.fluid_id left
      join instruments i on i.id = p.instrument_id and i.retired_at is null
    left join lateral (select value, taken_at, temperature, hours from readings where point_id = p.id
      and superseded_at is null order by taken_at desc limit 1) l on true
    where rp.round_id = ${id} order by rp.position`);
  return result.rows.map((r) => ({
    id: r.id,
    name: r.name,
    machine: r.machine,
    machineId: r.machineId,
    circuit: r.circuit,
    circuitId: r.circuitId,
    component: r.component,
    componentId: r.componentId,
    quantity: r.quantity,
    unit: preferredUnit(r.quantity, units, r.unit),
    readState: r.readState,
    conditions: r.conditions,
    instrument: r.instrumentId ? { id: r.instrumentId, tag: r.instrumentTag!, name: r.instrumentName! } : null,
    caution: cautionFor(r.quantity),
    fluid:
      r.kv40 !== null && r.kv100 !== null && r.density15 !== null
        ? { kv40: r.kv40, kv100: r.kv100, density15: r.density15 }
        : null,
    expectation: r.expectation,
    known: { pumpedFlow: r.pumpedFlow, workingPressure: r.workingPressure },
    state: r.state ?? "unread",
    last:
      r.lastRaw === null
        ? null
        : { raw: r.lastRaw, at: new Date(r.lastAt!).getTime(), temperature: r.lastTemperature, hours: r.lastHours },
    timeZone: r.timeZone,
    needsConditions: quantityOf(r.quantity).correction === "leakage",
    isOilTemperature: readsTheOil(r.quantity, r.name),
    dueAt: new Date(r.due).getTime(),
    everyDays: Math.round(r.days),
    closer: r.days < r.usual,
  }));
}

export interface StripPart {
  id: string;
  name: string;
  kind: ComponentKind;
}

/** Components of the circuits on the way, in order, to draw where one stands. */
export async function stripsOf(circuitIds: readonly string[]): Promise<Record<string, StripPart[]>> {
  if (circuitIds.length === 0) return {};
  const result = await db().execute<
    { id: string; name: string; kind: string; circuitId: string } & Record<string, unknown>
  >(sql`
    select id, name, kind, circuit_id as "circuitId" from components where retired_at is null
      and circuit_id in ${[...new Set(circuitIds)]} order by position, name`);
  const strips: Record<string, StripPart[]> = {};
  for (const r of result.rows)
    (strips[r.circuitId] ??= []).push({
      id: r.id,
      name: r.name,
      kind: Object.hasOwn(componentKinds, r.kind) ? (r.kind as ComponentKind) : "other",
    });
  return strips;
}

export interface Choosable {
  id: string;
  label: string;
  machine: string;
  area: string;
  chosen: number | null;
}

/** Points that a round can hold, by machine, with their place in this one. */
export async function choosablePoints(roundId: string | null): Promise<Choosable[]> {
  const result = await db().execute<Choosable & Record<string, unknown>>(sql`
    select p.id, p.component || ': ' || p.name as label, p.machine, p.area, rp.position as chosen
    from active_points p left join round_points rp on rp.point_id = p.id and rp.round_id = ${roundId}
    order by p.area, p.machine, p.component_position, p.component, p.name`);
  return result.rows;
}
