/** What was drawn first becomes the register: symbols that nobody keeps a record of become components of the circuit. */
import { and, eq, isNull, max } from "drizzle-orm";
import { componentKindOf, dayOf, dayStart, type Netlist } from "@core";
import type { Queryable } from "~/db/client.server";
import { circuits, components, lives, machines, sites } from "~/db/schema";
import { now } from "~/runtime/clock.server";

/**
 * Add the drawn parts that the register does not have, and let their symbols stand for them.
 * @returns the netlist with the new components' ids, and their names; the same one where there is nothing to add
 */
export async function registerDrawn(
  tx: Queryable,
  circuitId: string,
  netlist: Netlist,
): Promise<{ netlist: Netlist; added: string[] }> {
  const drawn = netlist.elements.filter((e) => e.componentId === null && componentKindOf(e.kind) !== undefined);
  if (drawn.length === 0) return { netlist, added: [] };
  const [where] = await tx
    .select({ zone: sites.timeZone })
    .from(circuits)
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(eq(circuits.id, circuitId));
  const own = await tx
    .select({ name: components.name })
    .from(components)
    .where(and(eq(components.circuitId, circuitId), isNull(components.retiredAt)));
  const [last] = await tx
    .select({ position: max(components.position) })
    .from(components)
    .where(eq(components.circuitId, circuitId));
  const taken = new Set(own.map((c) => c.name));
  const free = (name: string) => {
    let [candidate, n] = [name, 2];
    while (taken.has(candidate)) candidate = `${name} ${n++}`;
    taken.add(candidate);
    return candidate;
  };
  const rows = await tx
    .insert(components)
    .values(
      drawn.map((e, i) => ({
        circuitId,
        name: free(e.name),
        kind: componentKindOf(e.kind)!,
        position: (last?.position ?? 0) + 1 + i,
        displacement: e.data.displacement ?? null,
        speed: e.data.speed ?? null,
      })),
    )
    .returning({ id: components.id, name: components.name });
  const startedAt = new Date(dayStart(dayOf(now(), where!.zone), where!.zone));
  // nobody said how worn they are, nor since when they are in: both can be put right at the component
  await tx
    .insert(lives)
    .values(rows.map((r) => ({ componentId: r.id, startedAt, startHours: 0, knownWhenNew: false })));
  const idOf = new Map(drawn.map((e, i) => [e.id, rows[i]!]));
  const at = <T extends { element: string }>(end: T): T => ({
    ...end,
    element: idOf.get(end.element)?.id ?? end.element,
  });
  return {
    netlist: {
      elements: netlist.elements.map((e) => {
        const row = idOf.get(e.id);
        return row ? { ...e, id: row.id, componentId: row.id, name: row.name } : e;
      }),
      lines: netlist.lines.map((l) => ({ ...l, from: at(l.from), to: at(l.to) })),
      gauges: netlist.gauges.map(at),
    },
    added: rows.map((r) => r.name),
  };
}
