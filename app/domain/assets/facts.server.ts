/** Facts of a component and its circuit, so that a calculation need not be told them. */
import { and, desc, eq, isNull } from "drizzle-orm";
import type { FactId } from "@core";
import { db } from "~/db/client.server";
import { assessments, circuits, components, fluids, machines, points } from "~/db/schema";
import { notFound } from "~/platform/missing";

export interface Facts {
  componentId: string;
  name: string;
  /** In core units; absent: the fleet does not say. */
  facts: Partial<Record<FactId, number>>;
}

/** What the fleet knows of a component. `Missing` when there is none. */
export async function factsOf(componentId: string): Promise<Facts> {
  const [[row], [relief], [reference]] = await Promise.all([
    db()
      .select({ component: components, circuit: circuits, fluid: fluids, machine: machines.name })
      .from(components)
      .innerJoin(circuits, eq(circuits.id, components.circuitId))
      .innerJoin(machines, eq(machines.id, circuits.machineId))
      .leftJoin(fluids, eq(fluids.id, circuits.fluidId))
      .where(eq(components.id, componentId)),
    db()
      .select({ value: assessments.lastRaw })
      .from(components)
      .innerJoin(points, eq(points.componentId, components.id))
      .innerJoin(assessments, eq(assessments.pointId, points.id))
      .where(
        and(
          eq(components.kind, "reliefValve"),
          eq(points.quantity, "pressure"),
          isNull(components.retiredAt),
          isNull(points.retiredAt),
          eq(
            components.circuitId,
            db().select({ id: components.circuitId }).from(components).where(eq(components.id, componentId)),
          ),
        ),
      )
      .orderBy(desc(assessments.lastAt))
      .limit(1),
    db()
      .select({ pressure: points.referencePressure, temperature: points.referenceTemperature })
      .from(points)
      .where(and(eq(points.componentId, componentId), isNull(points.retiredAt)))
      .orderBy(points.referencePressure)
      .limit(1),
  ]);
  if (!row) throw notFound("component");
  const { component, circuit, fluid } = row;
  const found: Record<FactId, number | null | undefined> = {
    displacement: component.displacement,
    speed: component.speed,
    ratedPressure: component.maxPressure,
    workingPressure: circuit.workingPressure,
    volume: circuit.volume,
    kv40: fluid?.kv40,
    kv100: fluid?.kv100,
    density15: fluid?.density15,
    reliefSetting: relief?.value,
    referencePressure: reference?.pressure,
    referenceTemperature: reference?.temperature,
  };
  return {
    componentId,
    name: `${row.machine}, ${component.name}`,
    facts: Object.fromEntries(
      Object.entries(found).filter((entry): entry is [string, number] => typeof entry[1] === "number"),
    ),
  };
}
