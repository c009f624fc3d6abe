/** Components, their lives and points, and the drawings of their circuits, of a fleet file. */
import { netlistOfFile, quantityOf, type Drawing } from "@core";
import type { Queryable } from "~/db/client.server";
import { circuitDiagrams, components, lives, points } from "~/db/schema";
import type { Actor } from "~/domain/access/index.server";
import { addEmptyAssessments } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { Adding, date, inParts } from "./adding.server";
import type { FleetCircuit, FleetComponent, FleetPoint } from "./types";

const NOT_DRAWN: Drawing = { width: 0, height: 0, parts: [], tanks: [], wires: [], dots: [], ports: {} };

type Level = Awaited<ReturnType<Adding["level"]>>;
type Ids = ReadonlyMap<string, string>;
interface CircuitOfFile {
  key: string;
  k: FleetCircuit;
}
interface ComponentOfFile {
  key: string;
  circuitId: string;
  c: FleetComponent;
}
interface PointOfFile {
  key: string;
  componentId: string;
  p: FleetPoint;
}

export async function addComponents(
  tx: Queryable,
  adding: Adding,
  allComponents: readonly ComponentOfFile[],
): Promise<Level> {
  return adding.level(
    "components",
    tx.select().from(components),
    (c) => `${c.circuitId}/${c.name}`,
    allComponents.map(({ key, circuitId, c }) => ({
      key,
      row: {
        circuitId,
        name: c.name,
        kind: c.kind,
        tag: c.tag ?? "",
        model: c.model ?? "",
        note: c.note ?? "",
        position: c.position ?? 0,
        displacement: c.displacement ?? null,
        speed: c.speed ?? null,
        maxPressure: c.maxPressure ?? null,
        leadTimeDays: c.leadTimeDays ?? null,
        partCost: c.partCost ?? null,
        failureCost: c.failureCost ?? null,
        sparesOnHand: c.sparesOnHand ?? 0,
        exerciseDays: c.exerciseDays ?? null,
        runInHours: c.runInHours ?? 50,
        makersCode: c.makersCode ?? "",
        materials: c.materials ?? [],
        symptomIfStuck: c.symptomIfStuck ?? "",
        fluidNeed: c.fluidNeed ?? null,
        filter: c.filter ? { ...c.filter, element: c.filter.element ?? "" } : null,
        retiredAt: date(c.retiredAt),
      },
    })),
    (rows) => tx.insert(components).values(rows),
  );
}

/** What is drawn in the file; drawing and fit are made at the first look. */
export async function addDiagrams(
  tx: Queryable,
  allCircuits: readonly CircuitOfFile[],
  circuitIds: Ids,
  componentIds: Ids,
): Promise<void> {
  await inParts(
    allCircuits.flatMap(({ key, k }) => {
      const circuitId = circuitIds.get(key)!;
      if (!k.diagram) return [];
      const idOf = (component: string) => componentIds.get(`${circuitId}/${component}`);
      return [
        {
          circuitId,
          netlist: netlistOfFile(k.diagram, idOf),
          drawing: NOT_DRAWN,
          drawnBy: k.diagram.drawnBy,
          basis: "",
        },
      ];
    }),
    (rows) => tx.insert(circuitDiagrams).values(rows).onConflictDoNothing(),
  );
}

/** The lives of components that are new here: what was there keeps its own. */
export async function addLives(
  tx: Queryable,
  allComponents: readonly ComponentOfFile[],
  componentIds: Level,
): Promise<void> {
  await inParts(
    allComponents
      .filter(({ key }) => componentIds.fresh.has(key))
      .flatMap(({ key, c }) => {
        const componentId = componentIds.ids.get(key)!;
        const earlier = (c.earlierLives ?? []).map((l) => ({
          componentId,
          startedAt: new Date(l.fittedAt),
          startHours: l.fittedHours ?? 0,
          endedAt: new Date(l.endedAt),
          endHours: l.endHours ?? null,
          endReason: l.endReason ?? null,
          serial: l.serial ?? "",
          knownWhenNew: l.knownWhenNew ?? false,
        }));
        const fitted =
          c.fittedAt || !c.retiredAt
            ? [
                {
                  componentId,
                  // whole minutes, as readings are taken: one of this very minute is not older than the part
                  startedAt: date(c.fittedAt) ?? new Date(Math.floor(now() / 60_000) * 60_000),
                  startHours: c.fittedHours ?? 0,
                  endedAt: null,
                  endHours: null,
                  endReason: null,
                  serial: c.serial ?? "",
                  knownWhenNew: c.knownWhenNew ?? false,
                },
              ]
            : [];
        return [...earlier, ...fitted];
      }),
    (rows) => tx.insert(lives).values(rows),
  );
}

export async function addPoints(
  tx: Queryable,
  adding: Adding,
  allPoints: readonly PointOfFile[],
  instrumentIds: Ids,
  actor: Actor,
): Promise<Level> {
  const pointIds = await adding.level(
    "points",
    tx.select().from(points),
    (p) => `${p.componentId}/${p.name}/${p.state}`,
    allPoints.map(({ key, componentId, p }) => ({
      key,
      row: {
        componentId,
        name: p.name,
        quantity: p.quantity,
        state: p.state,
        tag: p.tag ?? "",
        unit: p.unit ?? quantityOf(p.quantity).unit,
        intervalDays: p.intervalDays ?? 30,
        referencePressure: p.referencePressure ?? null,
        referenceTemperature: p.referenceTemperature ?? null,
        makersNew: p.makersNew ?? null,
        instrumentId: p.instrument ? (instrumentIds.get(p.instrument) ?? null) : null,
        limitBasis: p.limit?.basis ?? null,
        limitUpper: p.limit?.upper ?? null,
        limitLower: p.limit?.lower ?? null,
        limitReason: p.limit?.reason ?? "",
        limitSetBy: p.limit ? p.limit.setBy || actor.name : "",
        limitSetAt: p.limit ? (date(p.limit.setAt) ?? new Date(now())) : null,
        conditionsText: p.conditions ?? "",
        retiredAt: date(p.retiredAt),
      },
    })),
    (rows) => tx.insert(points).values(rows),
  );
  await inParts(
    [...pointIds.fresh].map((key) => pointIds.ids.get(key)!),
    (ids) => addEmptyAssessments(tx, ids),
  );
  return pointIds;
}
