/**
 * The diagram of a circuit: as a person drew it, else as its components suggest. What is derived (drawing, fit) is made
 * off the event loop when what it was made of has changed, and kept.
 */
import { createHash } from "node:crypto";
import { and, eq, isNull } from "drizzle-orm";
import { gaugesOf, oilAt, type BaselineReading, type DraftComponent, type Fluid } from "@core";
import { db } from "~/db/client.server";
import { assessments, circuitDiagrams, circuits, components, fluids, points } from "~/db/schema";
import { currentParts } from "~/domain/condition/index.server";
import { log } from "~/runtime/log.server";
import { inThreads } from "~/platform/threads.server";
import type { CircuitResult, CircuitTask } from "./circuitTask";

/** Shape of what is stored; another one is made again. */
const SHAPE = 7;
/** Temperature that readings are corrected to or taken near, where nothing else is known, °C. */
const USUAL_TEMPERATURE = 50;
/** A baseline is never surer than this share of itself, nor than the model is true. */
const MODEL_SHARE = 0.02;

/** Draw and fit in a thread. */
export const drawInThread = inThreads<CircuitTask, CircuitResult>(
  "circuit",
  async (task) => (await import("./circuitTask")).default(task),
  { most: 1 },
);

/** Previews have a thread of their own, so that nobody's first drawing waits behind them; what waits long is of an older stroke. */
export const previewInThread = inThreads<CircuitTask, CircuitResult>(
  "circuit",
  async (task) => (await import("./circuitTask")).default(task),
  { most: 1, waiting: 6, givenUp: 20_000 },
);

interface Circuit {
  id: string;
  workingPressure: number | null;
  fluid: (Fluid & { density15: number }) | null;
  components: DraftComponent[];
  readings: BaselineReading[];
}

async function circuitOf(id: string): Promise<Circuit | undefined> {
  const [rows, [circuit]] = await Promise.all([
    db()
      .select({
        id: components.id,
        kind: components.kind,
        name: components.name,
        displacement: components.displacement,
        speed: components.speed,
        pointId: points.id,
        pointName: points.name,
        quantity: points.quantity,
        state: points.state,
        baseline: currentParts,
      })
      .from(components)
      .leftJoin(points, and(eq(points.componentId, components.id), isNull(points.retiredAt)))
      .leftJoin(assessments, eq(assessments.pointId, points.id))
      .where(and(eq(components.circuitId, id), isNull(components.retiredAt)))
      .orderBy(components.position, components.name, components.id, points.name, points.id),
    db()
      .select({
        workingPressure: circuits.workingPressure,
        kv40: fluids.kv40,
        kv100: fluids.kv100,
        density15: fluids.density15,
      })
      .from(circuits)
      .leftJoin(fluids, eq(fluids.id, circuits.fluidId))
      .where(eq(circuits.id, id)),
  ]);
  if (!circuit) return undefined;
  const found = new Map<string, DraftComponent & { points: DraftComponent["points"][number][] }>();
  const readings: BaselineReading[] = [];
  for (const row of rows) {
    const component = found.get(row.id) ?? { ...row, points: [] };
    found.set(row.id, component);
    if (row.pointId === null) continue;
    component.points.push({ id: row.pointId, name: row.pointName!, quantity: row.quantity! });
    const baseline = row.baseline?.baseline;
    if (!baseline || !row.state) continue;
    readings.push({
      pointId: row.pointId,
      state: row.state,
      value: baseline.centre,
      uncertainty: Math.max(baseline.uncertainty, baseline.spread, MODEL_SHARE * Math.abs(baseline.centre)),
    });
  }
  const { kv40, kv100, density15 } = circuit;
  return {
    id,
    workingPressure: circuit.workingPressure,
    fluid: kv40 !== null && kv100 !== null && density15 !== null ? { kv40, kv100, density15 } : null,
    components: [...found.values()].map(({ id: own, kind, name, displacement, speed, points: its }) => ({
      id: own,
      kind,
      name,
      displacement,
      speed,
      points: its,
    })),
    readings,
  };
}

/** The diagram of a circuit, made again where what it shows has changed. undefined: there is no such circuit. */
export async function diagramOf(circuitId: string) {
  const [circuit, [stored]] = await Promise.all([
    circuitOf(circuitId),
    db().select().from(circuitDiagrams).where(eq(circuitDiagrams.circuitId, circuitId)),
  ]);
  if (!circuit) return undefined;
  // where a point sits follows from its component, so that one that is added later is in the drawing too
  const own = stored?.drawnBy
    ? {
        ...stored.netlist,
        gauges: stored.netlist.elements.flatMap((e) => {
          const component = circuit.components.find((c) => c.id === e.componentId);
          return component ? gaugesOf(component, e.kind) : [];
        }),
      }
    : null;
  const task: CircuitTask = {
    workingPressure: circuit.workingPressure,
    components: circuit.components,
    netlist: own,
    readings: circuit.readings,
    oil: oilAt(circuit.fluid, USUAL_TEMPERATURE),
  };
  const basis = createHash("sha256")
    .update(JSON.stringify([SHAPE, task]))
    .digest("hex");
  const outline = {
    fluid: circuit.fluid,
    drawnBy: stored?.drawnBy ?? "",
    version: stored?.version ?? 1,
    components: circuit.components,
  };
  if (stored?.basis === basis)
    return { ...outline, netlist: stored.netlist, drawing: stored.drawing, assumed: stored.assumed, fit: stored.fit };
  const made = await drawInThread(task);
  const values = { netlist: made.netlist, drawing: made.drawing, assumed: made.assumed, fit: made.fit, basis };
  await db()
    .insert(circuitDiagrams)
    .values({ circuitId, ...values })
    .onConflictDoUpdate({
      target: circuitDiagrams.circuitId,
      set: values,
      // what somebody drew in the meantime stays
      setWhere: eq(circuitDiagrams.version, stored?.version ?? 1),
    });
  return { ...outline, ...made };
}

export type CircuitDiagram = NonNullable<Awaited<ReturnType<typeof diagramOf>>>;

/** The diagram for a page that has more to show: what cannot be drawn is logged and left out, the page stands. */
export async function diagramIfAny(circuitId: string): Promise<CircuitDiagram | undefined> {
  try {
    return await diagramOf(circuitId);
  } catch (error) {
    log.error({ error, circuitId }, "this circuit's diagram cannot be made");
    return undefined;
  }
}
