/** Reads of the fleet register. */
import { and, eq, isNull, sql } from "drizzle-orm";
import {
  missingPoints,
  stateOfUrgency,
  urgenciesOf,
  type Assessment,
  type ConditionState,
  type PointQuantityId,
} from "@core";
import { ask, db } from "~/db/client.server";
import { oilAssessments } from "~/db/oilTables";
import {
  assessments,
  circuits,
  components,
  fluids,
  instruments,
  lives,
  machines,
  points,
  sites,
  stops,
  temporaryChanges,
} from "~/db/schema";
import { currentParts, marginTrendOf, type MarginTrend } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { notFound } from "~/platform/missing";
import { meterChangesOf } from "./hourMeter.server";
import type { RecordKind } from "./form";

export interface FleetMachine {
  id: string;
  name: string;
  tag: string;
  area: string;
  points: number;
  worst: ConditionState | null;
  needing: number;
  /** Points that nobody has read yet. */
  unread: number;
  retired: boolean;
}

/** From this urgency on somebody is needed. */
const [NEEDS_ONE] = urgenciesOf("alert");

/** All machines with their worst state, by area. */
export async function fleetList(withRetired: boolean): Promise<FleetMachine[]> {
  const rows = await ask<Omit<FleetMachine, "worst"> & { urgency: number | null }>(sql`
    with of_component as (
      select p.component_id, count(*) as points, max(a.urgency) as urgency, count(*) filter (where a.urgency >= ${NEEDS_ONE}) as needing,
             count(*) filter (where coalesce(a.readings, 0) = 0) as unread
      from points p left join assessments a on a.point_id = p.id where p.retired_at is null group by p.component_id),
    oils as (
      select k.machine_id, max(o.urgency) as urgency from oil_assessments o join circuits k on k.id = o.circuit_id
      where k.retired_at is null and o.urgency >= ${NEEDS_ONE} group by k.machine_id)
    select m.id, m.name, m.tag, m.area, m.retired_at is not null as retired, coalesce(sum(w.points), 0)::int as points,
           greatest(max(w.urgency), max(o.urgency)) as urgency, coalesce(sum(w.needing), 0)::int as needing,
           coalesce(sum(w.unread), 0)::int as unread
    from machines m
    left join circuits k on k.machine_id = m.id and k.retired_at is null
    left join components c on c.circuit_id = k.id and c.retired_at is null
    left join of_component w on w.component_id = c.id
    left join oils o on o.machine_id = m.id
    where ${withRetired ? sql`true` : sql`m.retired_at is null`}
    group by m.id order by m.area, m.name`);
  return rows.map(({ urgency, ...machine }) => ({
    ...machine,
    worst: urgency === null ? null : stateOfUrgency(urgency),
  }));
}

/** Areas in use. */
export async function areaList(): Promise<string[]> {
  const rows = await db()
    .selectDistinct({ area: machines.area })
    .from(machines)
    .where(isNull(machines.retiredAt))
    .orderBy(machines.area);
  return rows.map((r) => r.area);
}

export interface MachinePoint {
  id: string;
  name: string;
  quantity: PointQuantityId;
  unit: string;
  state: ConditionState;
  margin: Assessment["margin"];
  lastRaw: number | null;
  lastAt: number | null;
  verdict: Assessment["verdict"];
  /** How its margin went; null: too few readings, or no limit. */
  trend?: MarginTrend | null;
}

/** Where a machine stands. `Missing` when there is none. */
export async function machinePlace(id: string): Promise<{ machine: string; timeZone: string }> {
  const [row] = await db()
    .select({ machine: machines.id, timeZone: sites.timeZone })
    .from(machines)
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(machines.id, id));
  if (!row) throw notFound("machine");
  return row;
}

/** One machine: circuits, components in the order of the circuit, points with their state, and what is missing. */
export async function machinePage(id: string) {
  const [machine] = await db()
    .select()
    .from(machines)
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(machines.id, id));
  if (!machine) throw notFound("machine");
  const [altered, meterChanges, circuitRows, componentRows, pointRows] = await Promise.all([
    db()
      .select({ what: temporaryChanges.what, before: temporaryChanges.before, by: temporaryChanges.by })
      .from(temporaryChanges)
      .where(and(eq(temporaryChanges.machineId, id), isNull(temporaryChanges.putBackAt)))
      .orderBy(temporaryChanges.at),
    meterChangesOf(id),
    db()
      .select({ circuit: circuits, fluid: fluids.name, oil: oilAssessments.state })
      .from(circuits)
      .leftJoin(fluids, eq(fluids.id, circuits.fluidId))
      .leftJoin(oilAssessments, eq(oilAssessments.circuitId, circuits.id))
      .where(and(eq(circuits.machineId, id), isNull(circuits.retiredAt)))
      .orderBy(circuits.name),
    db()
      .select({ component: components, life: lives })
      .from(components)
      .innerJoin(circuits, eq(circuits.id, components.circuitId))
      .leftJoin(lives, and(eq(lives.componentId, components.id), isNull(lives.endedAt)))
      .where(and(eq(circuits.machineId, id), isNull(components.retiredAt)))
      .orderBy(components.position, components.name),
    db()
      .select({
        id: points.id,
        componentId: points.componentId,
        name: points.name,
        quantity: points.quantity,
        unit: points.unit,
        state: assessments.state,
        margin: assessments.margin,
        lastRaw: assessments.lastRaw,
        lastAt: assessments.lastAt,
        verdict: assessments.verdict,
        parts: currentParts,
      })
      .from(points)
      .innerJoin(components, eq(components.id, points.componentId))
      .innerJoin(circuits, eq(circuits.id, components.circuitId))
      .leftJoin(assessments, eq(assessments.pointId, points.id))
      .where(and(eq(circuits.machineId, id), isNull(points.retiredAt), isNull(components.retiredAt)))
      .orderBy(points.name),
  ]);
  return {
    altered,
    meterChanges,
    timeZone: machine.sites.timeZone,
    now: now(),
    machine: { ...machine.machines, retired: machine.machines.retiredAt !== null },
    site: machine.sites.name,
    circuits: circuitRows.map(({ circuit, fluid, oil }) => ({
      id: circuit.id,
      name: circuit.name,
      fluid,
      oil: oil ?? "unproven",
      workingPressure: circuit.workingPressure,
      components: componentRows
        .filter((r) => r.component.circuitId === circuit.id)
        .map(({ component, life }) => ({
          id: component.id,
          kind: component.kind,
          name: component.name,
          model: component.model,
          serial: life?.serial ?? "",
          startedAt: life?.startedAt.getTime() ?? null,
          knownWhenNew: life?.knownWhenNew ?? true,
          points: pointRows
            .filter((p) => p.componentId === component.id)
            .map(({ parts, ...p }): MachinePoint => ({
              ...p,
              trend: marginTrendOf(parts),
              state: p.state ?? "unread",
              verdict: p.verdict ?? [],
              lastAt: p.lastAt?.getTime() ?? null,
            })),
        })),
      missing: missingPoints(
        componentRows
          .filter((r) => r.component.circuitId === circuit.id)
          .map(({ component }) => ({
            id: component.id,
            kind: component.kind,
            quantities: pointRows.filter((p) => p.componentId === component.id).map((p) => p.quantity),
          })),
      ).map((m) => ({ ...m, component: componentRows.find((r) => r.component.id === m.componentId)!.component.name })),
    })),
  };
}

export type MachineCircuit = Awaited<ReturnType<typeof machinePage>>["circuits"][number];

const tables = {
  site: sites,
  machine: machines,
  circuit: circuits,
  component: components,
  point: points,
  fluid: fluids,
  stop: stops,
} as const;

/** The table of a kind of record. */
export function tableOf(kind: RecordKind) {
  return tables[kind];
}

/** One record as stored. */
export async function recordOf(
  kind: RecordKind,
  id: string,
): Promise<Record<string, unknown> & { version: number; retiredAt: Date | null }> {
  const table = tables[kind];
  const [row] = await db()
    .select()
    .from(table as typeof sites)
    .where(eq((table as typeof sites).id, id));
  if (!row) throw notFound(kind);
  return row;
}

export interface Choice {
  value: string;
  label: string;
}

/** What the selects of an edit form offer. */
export async function choices(from: readonly string[]): Promise<Record<string, Choice[]>> {
  const made: Record<string, () => Promise<Choice[]>> = {
    sites: () =>
      db()
        .select({ value: sites.id, label: sites.name })
        .from(sites)
        .where(isNull(sites.retiredAt))
        .orderBy(sites.name),
    machines: () =>
      db()
        .select({ value: machines.id, label: machines.name })
        .from(machines)
        .where(isNull(machines.retiredAt))
        .orderBy(machines.name),
    circuits: () =>
      db()
        .select({ value: circuits.id, label: sql<string>`${machines.name} || ', ' || ${circuits.name}` })
        .from(circuits)
        .innerJoin(machines, eq(machines.id, circuits.machineId))
        .where(and(isNull(circuits.retiredAt), isNull(machines.retiredAt)))
        .orderBy(machines.name, circuits.name),
    components: () =>
      db()
        .select({ value: components.id, label: sql<string>`${machines.name} || ', ' || ${components.name}` })
        .from(components)
        .innerJoin(circuits, eq(circuits.id, components.circuitId))
        .innerJoin(machines, eq(machines.id, circuits.machineId))
        .where(and(isNull(components.retiredAt), isNull(circuits.retiredAt), isNull(machines.retiredAt)))
        .orderBy(machines.name, components.position),
    fluids: () =>
      db()
        .select({ value: fluids.id, label: fluids.name })
        .from(fluids)
        .where(isNull(fluids.retiredAt))
        .orderBy(fluids.name),
    instruments: () =>
      db()
        .select({ value: instruments.id, label: sql<string>`${instruments.tag} || ', ' || ${instruments.name}` })
        .from(instruments)
        .where(isNull(instruments.retiredAt))
        .orderBy(instruments.tag),
  };
  return Object.fromEntries(await Promise.all(from.map(async (name) => [name, await made[name]!()] as const)));
}
