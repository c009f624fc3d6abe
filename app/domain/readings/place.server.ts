/** Where a point sits: what every reading of it is typed, judged and shown by. */
import { eq, sql } from "drizzle-orm";
import { preferredUnit, type UnitPreference } from "@core";
import { statement } from "~/db/client.server";
import { circuits, components, machines, points, sites } from "~/db/schema";
import { notFound } from "~/platform/missing";

export interface PointPlace {
  id: string;
  name: string;
  component: string;
  componentId: string;
  componentKind: string;
  model: string;
  circuit: string;
  machine: string;
  machineId: string;
  area: string;
  siteId: string;
  timeZone: string;
  /** The reader's units; what is typed without one is taken in them. */
  units: UnitPreference;
}

const placeOf = statement((tx) =>
  tx
    .select({
      point: points,
      component: components.name,
      componentId: components.id,
      componentKind: components.kind,
      model: components.model,
      circuit: circuits.name,
      machine: machines.name,
      machineId: machines.id,
      area: machines.area,
      siteId: sites.id,
      timeZone: sites.timeZone,
    })
    .from(points)
    .innerJoin(components, eq(components.id, points.componentId))
    .innerJoin(circuits, eq(circuits.id, components.circuitId))
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(points.id, sql.placeholder("point"))),
);

/** Where a point sits, its unit being the one that the reader prefers. `Missing` when there is none. */
export async function pointPlace(
  id: string,
  units: UnitPreference = {},
): Promise<PointPlace & { point: typeof points.$inferSelect }> {
  const [row] = await placeOf({ point: id });
  if (!row) throw notFound("point");
  return {
    ...row,
    id,
    name: row.point.name,
    point: { ...row.point, unit: preferredUnit(row.point.quantity, units, row.point.unit) },
    units,
  };
}

export type Point = PointPlace & { point: typeof points.$inferSelect };
