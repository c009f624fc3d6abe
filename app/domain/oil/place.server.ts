/** A circuit and where it is. */
import { eq } from "drizzle-orm";
import { db } from "~/db/client.server";
import { circuits, fluids, machines, sites } from "~/db/schema";
import { notFound } from "~/platform/missing";

/** A circuit and where it is. `Missing` when there is none. */
export async function circuitPlace(id: string) {
  const [row] = await db()
    .select({
      circuit: circuits,
      machine: machines.name,
      machineId: machines.id,
      tag: machines.tag,
      area: machines.area,
      hoursPerDay: machines.hoursPerDay,
      timeZone: sites.timeZone,
      fluid: fluids,
    })
    .from(circuits)
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .leftJoin(fluids, eq(fluids.id, circuits.fluidId))
    .where(eq(circuits.id, id));
  if (!row) throw notFound("circuit");
  return row;
}
