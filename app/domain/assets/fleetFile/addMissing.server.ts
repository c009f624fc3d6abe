/** A checked fleet file into the database, level by level: what is there stays as it is. */
import { netlistOfFile, quantityOf, type Drawing } from "@core";
import type { Queryable } from "~/db/client.server";
import {
  circuitDiagrams,
  circuits,
  components,
  fluids,
  hourMeterChanges,
  lives,
  machines,
  points,
  sites,
  stops,
} from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import { addEmptyAssessments } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { addInstruments } from "./addInstruments.server";
import { Adding, date, inParts } from "./adding.server";
import { addRounds } from "./addRounds.server";
import { pointCode } from "./check";
import type { FleetFile } from "./types";

const NOT_DRAWN: Drawing = { width: 0, height: 0, parts: [], tanks: [], wires: [], dots: [], ports: {} };

/** Add what is missing. Call it inside a transaction that no other import runs beside. */
export async function addMissing(
  tx: Queryable,
  file: FleetFile,
  actor: Actor,
  source: string,
): Promise<Pick<Adding, "added" | "there">> {
  const adding = new Adding();
  const fluidIds = (
    await adding.level(
      "fluids",
      tx.select().from(fluids),
      (f) => f.name,
      (file.fluids ?? []).map((f) => ({ key: f.name, row: { ...f, retiredAt: date(f.retiredAt) } })),
      (rows) => tx.insert(fluids).values(rows),
    )
  ).ids;
  const instrumentIds = await addInstruments(tx, adding, file, actor);
  const siteIds = (
    await adding.level(
      "sites",
      tx.select().from(sites),
      (s) => s.name,
      file.sites.map((s) => ({
        key: s.name,
        row: {
          name: s.name,
          timeZone: s.timeZone,
          // what the file leaves out is as the table has it
          holdsReleased: s.holdsReleased,
          twoSignatures: s.twoSignatures,
          nextChanceDays: s.nextChanceDays,
          acceptedPercent: s.acceptedPercent,
          retiredAt: date(s.retiredAt),
        },
      })),
      (rows) => tx.insert(sites).values(rows),
    )
  ).ids;
  await adding.level(
    "stops",
    tx.select().from(stops),
    (s) => `${s.siteId}/${s.name}/${s.startsOn}`,
    file.sites.flatMap((s) =>
      (s.stops ?? []).map((stop) => ({
        key: `${siteIds.get(s.name)}/${stop.name}/${stop.startsOn}`,
        row: { ...stop, retiredAt: date(stop.retiredAt), siteId: siteIds.get(s.name)! },
      })),
    ),
    (rows) => tx.insert(stops).values(rows),
  );

  const allMachines = file.sites.flatMap((s) =>
    (s.machines ?? []).map((m) => ({ key: `${siteIds.get(s.name)}/${m.tag}`, siteId: siteIds.get(s.name)!, m })),
  );
  const machineIds = await adding.level(
    "machines",
    tx.select().from(machines),
    (m) => `${m.siteId}/${m.tag}`,
    allMachines.map(({ key, siteId, m }) => ({
      key,
      row: {
        siteId,
        name: m.name,
        tag: m.tag,
        area: m.area ?? "",
        hoursPerDay: m.hoursPerDay ?? 8,
        dutyDeviation: m.dutyDeviation ?? 0.15,
        note: m.note ?? "",
        retiredAt: date(m.retiredAt),
      },
    })),
    (rows) => tx.insert(machines).values(rows),
  );
  // what belongs to a record comes with it: one that was there keeps its own
  const meters = allMachines
    .filter(({ key }) => machineIds.fresh.has(key))
    .flatMap(({ key, m }) =>
      (m.hourMeter ?? []).map((c) => ({
        machineId: machineIds.ids.get(key)!,
        at: new Date(c.at),
        kind: c.kind,
        before: c.before,
        after: c.after,
        note: c.note ?? "",
        by: c.by || actor.name,
      })),
    );
  await inParts(meters, (rows) => tx.insert(hourMeterChanges).values(rows));

  const allCircuits = allMachines.flatMap(({ key, siteId, m }) =>
    (m.circuits ?? []).map((k) => ({
      key: `${machineIds.ids.get(key)}/${k.name}`,
      machineId: machineIds.ids.get(key)!,
      siteId,
      tag: m.tag,
      k,
    })),
  );
  const circuitIds = (
    await adding.level(
      "circuits",
      tx.select().from(circuits),
      (c) => `${c.machineId}/${c.name}`,
      allCircuits.map(({ key, machineId, k }) => ({
        key,
        row: {
          machineId,
          name: k.name,
          fluidId: k.fluid ? (fluidIds.get(k.fluid) ?? null) : null,
          workingPressure: k.workingPressure ?? null,
          volume: k.volume ?? null,
          startTemperature: k.startTemperature ?? null,
          longestHours: k.longestHours ?? null,
          longestMonths: k.longestMonths ?? null,
          targetCode: k.targetCode ?? "",
          targetReason: k.targetReason ?? "",
          targetSetBy: k.targetSetBy ?? "",
          metalLimits: k.metalLimits ?? {},
          retiredAt: date(k.retiredAt),
        },
      })),
      (rows) => tx.insert(circuits).values(rows),
    )
  ).ids;

  const allComponents = allCircuits.flatMap(({ key, siteId, tag, k }) =>
    (k.components ?? []).map((c) => ({
      key: `${circuitIds.get(key)}/${c.name}`,
      circuitId: circuitIds.get(key)!,
      siteId,
      tag,
      c,
    })),
  );
  const componentIds = await adding.level(
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
  await inParts(
    allCircuits.flatMap(({ key, k }) => {
      const circuitId = circuitIds.get(key)!;
      if (!k.diagram) return [];
      const idOf = (component: string) => componentIds.ids.get(`${circuitId}/${component}`);
      // drawing and fit are made at the first look
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

  const allPoints = allComponents.flatMap(({ key, siteId, tag, c }) =>
    (c.points ?? []).map((p) => ({
      key: `${componentIds.ids.get(key)}/${p.name}/${p.state}`,
      componentId: componentIds.ids.get(key)!,
      place: `${siteId}/${pointCode(tag, c.name, p.name)}/${p.state}`,
      p,
    })),
  );
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
  await addRounds(
    tx,
    adding,
    file,
    siteIds,
    new Map(allPoints.map(({ key, place }) => [place, pointIds.ids.get(key)!])),
  );

  const { added, there } = adding;
  if (Object.keys(added).length)
    await audit(tx, actor, {
      what: `${source}: added ${Object.entries(added)
        .map(([what, n]) => `${n} ${n === 1 ? what.replace(/s$/, "") : what}`)
        .join(", ")}`,
    });
  return { added, there };
}
