/** A checked fleet file into the database, level by level: what is there stays as it is. */
import type { Queryable } from "~/db/client.server";
import { circuits, fluids, hourMeterChanges, machines, sites, stops } from "~/db/schema";
import { audit, type Actor } from "~/domain/access/index.server";
import { addInstruments } from "./addInstruments.server";
import { Adding, date, inParts } from "./adding.server";
import { addRounds } from "./addRounds.server";
import { pointCode } from "./check";
import type { FleetFile } from "./types";
import { addComponents, addDiagrams, addLives, addPoints } from "./addParts.server";

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
  const componentIds = await addComponents(tx, adding, allComponents);
  await addDiagrams(tx, allCircuits, circuitIds, componentIds.ids);
  await addLives(tx, allComponents, componentIds);

  const allPoints = allComponents.flatMap(({ key, siteId, tag, c }) =>
    (c.points ?? []).map((p) => ({
      key: `${componentIds.ids.get(key)}/${p.name}/${p.state}`,
      componentId: componentIds.ids.get(key)!,
      place: `${siteId}/${pointCode(tag, c.name, p.name)}/${p.state}`,
      p,
    })),
  );
  const pointIds = await addPoints(tx, adding, allPoints, instrumentIds, actor);
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
