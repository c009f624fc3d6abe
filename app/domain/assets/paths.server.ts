/** Where a person goes after adding or editing a record. */
import { eq } from "drizzle-orm";
import { db } from "~/db/client.server";
import { circuits, components } from "~/db/schema";
import type { RecordKind } from "./form";

export async function afterEdit(kind: RecordKind, id: string): Promise<string> {
  switch (kind) {
    case "machine":
      return `/fleet/machines/${id}`;
    case "circuit": {
      const [row] = await db().select({ machineId: circuits.machineId }).from(circuits).where(eq(circuits.id, id));
      return `/fleet/machines/${row!.machineId}`;
    }
    case "component": {
      const [row] = await db()
        .select({ machineId: circuits.machineId })
        .from(components)
        .innerJoin(circuits, eq(circuits.id, components.circuitId))
        .where(eq(components.id, id));
      return `/fleet/machines/${row!.machineId}#c-${id}`;
    }
    case "point":
      return `/points/${id}`;
    case "stop":
      return "/work";
    default:
      return "/fleet";
  }
}
