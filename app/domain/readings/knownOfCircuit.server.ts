/** What plates and settings of a circuit say before anybody has read it. */
import { sql, type SQL } from "drizzle-orm";
import { components } from "~/db/schema";

/** Displacement times speed of all pumps of a circuit, L/min; null where a plate is not stated. */
export const pumpedFlow = (circuitId: SQL) => sql<number | null>`(select sum(pump.displacement * pump.speed / 1000)
  from ${components} pump where pump.circuit_id = ${circuitId} and pump.retired_at is null
    and pump.kind in ('axialPistonPump', 'gearPump', 'closedLoopPump'))`;
