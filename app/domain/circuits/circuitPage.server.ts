/** One circuit with its diagram and the last readings of its points, for asking what would happen. */
import { and, eq, isNull } from "drizzle-orm";
import { db } from "~/db/client.server";
import { assessments, circuits, components, machines, points, sites } from "~/db/schema";
import { currentParts } from "~/domain/condition/index.server";
import { notFound } from "~/platform/missing";
import { presentOf } from "./present";
import { diagramOf } from "./diagram.server";

/** `Missing` when there is none, or nothing is on record to be drawn. */
export async function circuitPage(id: string) {
  const [[place], rows, diagram] = await Promise.all([
    db()
      .select({
        name: circuits.name,
        machine: machines.name,
        machineId: machines.id,
        tag: machines.tag,
        area: machines.area,
        timeZone: sites.timeZone,
      })
      .from(circuits)
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .innerJoin(sites, eq(sites.id, machines.siteId))
      .where(eq(circuits.id, id)),
    db()
      .select({
        id: points.id,
        componentId: points.componentId,
        component: components.name,
        name: points.name,
        quantity: points.quantity,
        unit: points.unit,
        readState: points.state,
        state: assessments.state,
        margin: assessments.margin,
        lastRaw: assessments.lastRaw,
        lastAt: assessments.lastAt,
        parts: currentParts,
      })
      .from(points)
      .innerJoin(components, eq(components.id, points.componentId))
      .leftJoin(assessments, eq(assessments.pointId, points.id))
      .where(and(eq(components.circuitId, id), isNull(points.retiredAt), isNull(components.retiredAt)))
      .orderBy(components.position, components.name, points.name),
    diagramOf(id),
  ]);
  if (!place || !diagram) throw notFound("circuit");
  return {
    ...place,
    diagram,
    points: rows.map(({ parts, ...p }) => ({
      ...p,
      now: presentOf(p.id, parts),
      state: p.state ?? ("unread" as const),
      verdict: [],
      lastAt: p.lastAt?.getTime() ?? null,
    })),
  };
}

export type CircuitPage = Awaited<ReturnType<typeof circuitPage>>;
