/** What many queries ask for, said once: where a point stands, and whether it is in use. */
import { and, eq, isNull, sql } from "drizzle-orm";
import { pgView } from "drizzle-orm/pg-core";
import { circuits, components, machines, points, sites } from "./assetTables";

/** Points in use with their place: neither the point nor its component, circuit or machine is retired. */
export const activePoints = pgView("active_points").as((query) =>
  query
    .select({
      id: points.id,
      name: points.name,
      quantity: points.quantity,
      unit: points.unit,
      readState: sql<string>`${points.state}`.as("read_state"),
      intervalDays: points.intervalDays,
      conditionsText: points.conditionsText,
      instrumentId: points.instrumentId,
      lastReadingAt: points.lastReadingAt,
      componentId: points.componentId,
      component: sql<string>`${components.name}`.as("component"),
      position: sql<string>`${components.position}`.as("component_position"),
      kind: sql<string>`${components.kind}`.as("component_kind"),
      leadTimeDays: components.leadTimeDays,
      circuitId: components.circuitId,
      circuit: sql<string>`${circuits.name}`.as("circuit"),
      fluidId: circuits.fluidId,
      machineId: circuits.machineId,
      machine: sql<string>`${machines.name}`.as("machine"),
      area: machines.area,
      hoursPerDay: machines.hoursPerDay,
      siteId: machines.siteId,
      timeZone: sites.timeZone,
    })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(
      and(
        isNull(points.retiredAt),
        isNull(components.retiredAt),
        isNull(circuits.retiredAt),
        isNull(machines.retiredAt),
      ),
    ),
);
