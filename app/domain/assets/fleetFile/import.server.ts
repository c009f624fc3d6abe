/** The fleet description from a JSON file. Importing adds what is missing and changes nothing that is there. */
import { audit, type Actor } from "~/domain/access/index.server";
import Ajv from "ajv";
import { sql } from "drizzle-orm";
import { netlistOfFile, quantityOf, type Drawing } from "@core";
import { db, type Queryable } from "~/db/client.server";
import {
  circuitDiagrams,
  circuits,
  components,
  fluids,
  hourMeterChanges,
  instrumentChecks,
  instrumentRecalls,
  instruments,
  lives,
  machines,
  points,
  roundPoints,
  rounds,
  sites,
  stops,
} from "~/db/schema";
import { addEmptyAssessments } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { requestAssessment } from "~/platform/jobs.server";
import { cleanText } from "~/platform/validate";
import { fleetProblems, pointCode } from "./check";
import { fleetSchema } from "./schema";
import type { FleetFile } from "./types";

const DATE_TIME = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:\d{2})$/;
const isMoment = (text: string) =>
  DATE_TIME.test(text) && Date.parse(text) > Date.UTC(1950, 0) && Date.parse(text) < Date.UTC(2200, 0);
const validate = new Ajv({
  allErrors: true,
  formats: { "date-time": isMoment },
  allowUnionTypes: true,
}).compile<FleetFile>(fleetSchema);

export type FleetImported =
  { ok: true; added: Record<string, number>; there: number } | { ok: false; messages: string[] };

const MOST_MESSAGES = 20;
const NOT_DRAWN: Drawing = { width: 0, height: 0, parts: [], tanks: [], wires: [], dots: [], ports: {} };

/** Read a fleet file and add what is missing, in one transaction. */
export async function importFleet(text: string, actor: Actor): Promise<FleetImported> {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text.replace(/^\ufeff/, ""), (_key, value: unknown) =>
      typeof value === "string" ? cleanText(value) : value,
    );
  } catch (error) {
    return { ok: false, messages: [`The file is not JSON: ${(error as Error).message}`] };
  }
  if (!validate(parsed))
    return {
      ok: false,
      messages: (validate.errors ?? [])
        .slice(0, MOST_MESSAGES)
        .map(
          (e) =>
            `${e.instancePath || "the file"}: ` +
            `${e.message ?? "not allowed"}${e.params && "additionalProperty" in e.params ? ` (${String(e.params.additionalProperty)})` : ""}`,
        ),
    };
  const file = parsed;
  const wrong = [...fleetProblems(file)];
  if (wrong.length) return { ok: false, messages: wrong.slice(0, MOST_MESSAGES) };
  const result = await db().transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(727276)`);
    return addMissing(tx, file, actor);
  });
  await requestAssessment();
  return result;
}

/** A level of the file: its rows by key, in the order of the file. */
interface Wanted<R> {
  key: string;
  row: R;
}

/** Counts what is added and what was there. */
class Adding {
  readonly added: Record<string, number> = {};
  there = 0;

  /** Ids of a level by key, what was there and what is new; `fresh` holds the keys that are new. */
  async level<T extends { id: string }, R>(
    what: string,
    existing: Promise<T[]>,
    keyOf: (row: T) => string,
    wanted: readonly Wanted<R>[],
    insert: (rows: (R & { id: string })[]) => Promise<unknown>,
  ): Promise<{ ids: Map<string, string>; fresh: ReadonlySet<string> }> {
    const ids = new Map((await existing).map((row) => [keyOf(row), row.id]));
    const fresh = new Map<string, R & { id: string }>();
    for (const { key, row } of wanted) {
      if (ids.has(key) || fresh.has(key)) this.there++;
      else fresh.set(key, { ...row, id: crypto.randomUUID() });
    }
    await inParts([...fresh.values()], insert);
    if (fresh.size > 0) this.added[what] = fresh.size;
    for (const [key, row] of fresh) ids.set(key, row.id);
    return { ids, fresh: new Set(fresh.keys()) };
  }
}

const PART = 500;

async function inParts<R>(rows: readonly R[], insert: (rows: R[]) => Promise<unknown>): Promise<void> {
  for (let i = 0; i < rows.length; i += PART) await insert(rows.slice(i, i + PART));
}

const date = (text: string | undefined) => (text ? new Date(text) : null);

async function addMissing(tx: Queryable, file: FleetFile, actor: Actor): Promise<FleetImported> {
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
        row: { name: s.name, timeZone: s.timeZone, retiredAt: date(s.retiredAt) },
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
      what: `fleet file: added ${Object.entries(added)
        .map(([what, n]) => `${n} ${what}`)
        .join(", ")}`,
    });
  return { ok: true, added, there };
}

/** Instruments with their calibrations, checks and recalls. */
async function addInstruments(
  tx: Queryable,
  adding: Adding,
  file: FleetFile,
  actor: Actor,
): Promise<Map<string, string>> {
  const wanted = (file.instruments ?? []).map(({ checks: _checks, recalls: _recalls, ...i }) => ({
    key: i.tag,
    row: {
      ...i,
      calibratedAt: date(i.calibratedAt),
      calibrationDueAt: date(i.calibrationDueAt),
      retiredAt: date(i.retiredAt),
    },
  }));
  const { ids, fresh } = await adding.level(
    "instruments",
    tx.select().from(instruments),
    (i) => i.tag,
    wanted,
    (rows) => tx.insert(instruments).values(rows),
  );
  const added = (file.instruments ?? []).filter((i) => fresh.has(i.tag));
  await inParts(
    added.flatMap((i) =>
      (i.checks ?? []).map((c) => ({
        ...c,
        at: new Date(c.at),
        by: c.by || actor.name,
        instrumentId: ids.get(i.tag)!,
      })),
    ),
    (rows) => tx.insert(instrumentChecks).values(rows),
  );
  await inParts(
    added.flatMap((i) =>
      (i.recalls ?? []).map((r) => ({
        reason: r.reason,
        fromAt: new Date(r.fromAt),
        untilAt: new Date(r.untilAt),
        by: r.by || actor.name,
        instrumentId: ids.get(i.tag)!,
      })),
    ),
    (rows) => tx.insert(instrumentRecalls).values(rows),
  );
  return ids;
}

/** Rounds with their points in walking order. */
async function addRounds(
  tx: Queryable,
  adding: Adding,
  file: FleetFile,
  siteIds: ReadonlyMap<string, string>,
  pointIds: ReadonlyMap<string, string>,
): Promise<void> {
  const all = file.sites.flatMap((s) =>
    (s.rounds ?? []).map((r) => ({ key: `${siteIds.get(s.name)}/${r.name}`, site: s.name, r })),
  );
  const { ids, fresh } = await adding.level(
    "rounds",
    tx.select().from(rounds),
    (r) => `${r.siteId}/${r.name}`,
    all.map(({ key, site, r }) => ({
      key,
      row: {
        siteId: siteIds.get(site)!,
        name: r.name,
        intervalDays: r.intervalDays ?? 30,
        intervalHours: r.intervalHours ?? null,
        closer: r.closer ?? true,
        walkedBy: r.walkedBy ?? "",
      },
    })),
    (rows) => tx.insert(rounds).values(rows),
  );
  await inParts(
    all
      .filter(({ key }) => fresh.has(key))
      .flatMap(({ key, site, r }) =>
        r.points.flatMap(({ code, state, site: elsewhere }, position) => {
          const pointId = pointIds.get(`${siteIds.get(elsewhere ?? site)}/${code}/${state}`);
          return pointId ? [{ roundId: ids.get(key)!, pointId, position }] : [];
        }),
      ),
    (rows) => tx.insert(roundPoints).values(rows).onConflictDoNothing(),
  );
}
