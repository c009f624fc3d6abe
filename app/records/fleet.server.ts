/** The fleet description as one JSON file: out, and in again. Importing adds what is missing and changes nothing that is there. */
import Ajv from "ajv";
import { isNull, sql } from "drizzle-orm";
import { findUnit, quantityOf, type LimitBasis, type PointQuantityId, type ReadingState } from "@core";
import { db, type Queryable } from "~/db/client.server";
import { changes, circuits, components, fluids, instruments, lives, machines, points, sites, stops } from "~/db/schema";
import { addEmptyAssessments } from "~/platform/assessment.server";
import { now } from "~/platform/clock.server";
import { requestAssessment } from "~/platform/jobs.server";
import { fleetSchema, type FleetComponent, type FleetFile } from "./fleetSchema";

const DATE_TIME = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:\d{2})$/;
const validate = new Ajv({ allErrors: true, formats: { "date-time": (text: string) => DATE_TIME.test(text) && !Number.isNaN(Date.parse(text)) }, allowUnionTypes: true }).compile(fleetSchema);

/** The whole fleet that is not retired. */
export async function exportFleet(): Promise<FleetFile> {
  const [siteRows, stopRows, machineRows, circuitRows, componentRows, lifeRows, pointRows, fluidRows, instrumentRows] = await Promise.all([
    db().select().from(sites).where(isNull(sites.retiredAt)).orderBy(sites.name),
    db().select().from(stops).where(isNull(stops.retiredAt)).orderBy(stops.startsOn),
    db().select().from(machines).where(isNull(machines.retiredAt)).orderBy(machines.tag),
    db().select().from(circuits).where(isNull(circuits.retiredAt)).orderBy(circuits.name),
    db().select().from(components).where(isNull(components.retiredAt)).orderBy(components.position, components.name),
    db().select().from(lives).where(isNull(lives.endedAt)),
    db().select().from(points).where(isNull(points.retiredAt)).orderBy(points.name),
    db().select().from(fluids).where(isNull(fluids.retiredAt)).orderBy(fluids.name),
    db().select().from(instruments).where(isNull(instruments.retiredAt)).orderBy(instruments.tag),
  ]);
  const lifeOf = new Map(lifeRows.map((l) => [l.componentId, l]));
  const fluidName = new Map(fluidRows.map((f) => [f.id, f.name]));
  const groups = <T, K>(rows: T[], key: (row: T) => K) => {
    const map = new Map<K, T[]>();
    for (const row of rows) map.set(key(row), [...(map.get(key(row)) ?? []), row]);
    return (k: K) => map.get(k) ?? [];
  };
  const pointsOf = groups(pointRows, (p) => p.componentId);
  const componentsOf = groups(componentRows, (c) => c.circuitId);
  const circuitsOf = groups(circuitRows, (c) => c.machineId);
  return {
    format: "juncteral-fleet",
    version: 1,
    fluids: fluidRows.map(({ name, kv40, kv100, density15, type, waterA, waterB, fresh }) => ({ name, kv40, kv100, density15, type, waterA, waterB, fresh })),
    instruments: instrumentRows.map(({ tag, name, quantity, fullScale, accuracyClass }) => ({ tag, name, quantity, fullScale, accuracyClass })),
    sites: siteRows.map((site) => ({
      name: site.name, timeZone: site.timeZone,
      stops: stopRows.filter((s) => s.siteId === site.id).map(({ name, startsOn, days, crewHours }) => ({ name, startsOn, days, crewHours })),
      machines: machineRows.filter((m) => m.siteId === site.id).map((m) => ({
        name: m.name, tag: m.tag, area: m.area, hoursPerDay: m.hoursPerDay, note: m.note,
        circuits: circuitsOf(m.id).map((k) => ({
          name: k.name, fluid: k.fluidId ? (fluidName.get(k.fluidId) ?? null) : null, workingPressure: k.workingPressure, volume: k.volume, startTemperature: k.startTemperature, longestHours: k.longestHours, longestMonths: k.longestMonths, targetCode: k.targetCode, targetReason: k.targetReason, metalLimits: k.metalLimits,
          components: componentsOf(k.id).map((c): FleetComponent => {
            const life = lifeOf.get(c.id);
            return {
              name: c.name, kind: c.kind, model: c.model, position: c.position, displacement: c.displacement, speed: c.speed, leadTimeDays: c.leadTimeDays, runInHours: c.runInHours, makersCode: c.makersCode, materials: c.materials, symptomIfStuck: c.symptomIfStuck, fluidNeed: c.fluidNeed, filter: c.filter,
              ...(life && { fittedAt: life.startedAt.toISOString(), fittedHours: life.startHours, serial: life.serial, knownWhenNew: life.knownWhenNew }),
              points: pointsOf(c.id).map((p) => ({
                name: p.name, quantity: p.quantity, state: p.state, unit: p.unit, intervalDays: p.intervalDays, referencePressure: p.referencePressure, referenceTemperature: p.referenceTemperature,
                limit: p.limitBasis ? { basis: p.limitBasis, upper: p.limitUpper, lower: p.limitLower, reason: p.limitReason } : null, conditions: p.conditionsText,
              })),
            };
          }),
        })),
      })),
    })),
  };
}

export type FleetImported = { ok: true; added: Record<string, number>; there: number } | { ok: false; messages: string[] };

const MOST_MESSAGES = 20;

/** Read a fleet file and add what is missing, in one transaction. */
export async function importFleet(text: string, by: string): Promise<FleetImported> {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text.replace(/^\ufeff/, ""));
  } catch (error) {
    return { ok: false, messages: [`The file is not JSON: ${(error as Error).message}`] };
  }
  if (!validate(parsed)) return { ok: false, messages: (validate.errors ?? []).slice(0, MOST_MESSAGES).map((e) => `${e.instancePath || "the file"}: ${e.message ?? "not allowed"}${e.params && "additionalProperty" in e.params ? ` (${String(e.params.additionalProperty)})` : ""}`) };
  const file = parsed as unknown as FleetFile;
  const wrong = whatIsWrong(file);
  if (wrong.length) return { ok: false, messages: wrong.slice(0, MOST_MESSAGES) };
  const result = await db().transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(727276)`);
    return addMissing(tx, file, by);
  });
  await requestAssessment();
  return result;
}

/** What the schema cannot say: names that must exist, units that must fit. */
function whatIsWrong(file: FleetFile): string[] {
  const wrong: string[] = [];
  for (const f of file.fluids ?? []) if (f.kv40 <= f.kv100) wrong.push(`Fluid ${f.name}: the viscosity at 40 °C must be above that at 100 °C.`);
  for (const site of file.sites) {
    try {
      new Intl.DateTimeFormat("en", { timeZone: site.timeZone });
    } catch {
      wrong.push(`Site ${site.name}: ${site.timeZone} is not a time zone.`);
    }
    for (const m of site.machines ?? []) for (const k of m.circuits ?? []) for (const c of k.components ?? []) for (const p of c.points ?? []) {
      const quantity = quantityOf(p.quantity as PointQuantityId);
      if (p.unit && !findUnit(p.unit, quantity.dimension)) wrong.push(`${m.tag}/${c.name}/${p.name}: ${p.unit} is not a unit of ${quantity.label.toLowerCase()}.`);
    }
  }
  return wrong;
}

async function addMissing(tx: Queryable, file: FleetFile, by: string): Promise<FleetImported> {
  const added: Record<string, number> = {};
  let there = 0;
  /** Rows already there by key, so that each level is looked up once. */
  async function level<T extends { id: string }>(what: string, existing: Promise<T[]>, keyOf: (row: T) => string, wanted: { key: string; row: Record<string, unknown> }[], insert: (rows: never[]) => Promise<unknown>): Promise<Map<string, string>> {
    const known = new Map((await existing).map((row) => [keyOf(row), row.id]));
    const fresh = new Map<string, Record<string, unknown>>();
    for (const { key, row } of wanted) {
      if (known.has(key) || fresh.has(key)) there++;
      else fresh.set(key, { id: crypto.randomUUID(), ...row });
    }
    const rows = [...fresh.values()];
    for (let i = 0; i < rows.length; i += 500) await insert(rows.slice(i, i + 500) as never[]);
    if (rows.length) added[what] = rows.length;
    for (const [key, row] of fresh) known.set(key, row.id as string);
    return known;
  }
  const fluidIds = await level("fluids", tx.select().from(fluids), (f) => f.name, (file.fluids ?? []).map((f) => ({ key: f.name, row: f })), (rows) => tx.insert(fluids).values(rows));
  await level("instruments", tx.select().from(instruments), (i) => i.tag, (file.instruments ?? []).map((i) => ({ key: i.tag, row: i })), (rows) => tx.insert(instruments).values(rows));
  const siteIds = await level("sites", tx.select().from(sites), (s) => s.name, file.sites.map((s) => ({ key: s.name, row: { name: s.name, timeZone: s.timeZone } })), (rows) => tx.insert(sites).values(rows));
  await level("stops", tx.select().from(stops), (s) => `${s.siteId}/${s.name}/${s.startsOn}`, file.sites.flatMap((s) => (s.stops ?? []).map((stop) => ({ key: `${siteIds.get(s.name)}/${stop.name}/${stop.startsOn}`, row: { ...stop, siteId: siteIds.get(s.name) } }))), (rows) => tx.insert(stops).values(rows));
  const allMachines = file.sites.flatMap((s) => (s.machines ?? []).map((m) => ({ key: `${siteIds.get(s.name)}/${m.tag}`, siteId: siteIds.get(s.name)!, m })));
  const machineIds = await level("machines", tx.select().from(machines), (m) => `${m.siteId}/${m.tag}`, allMachines.map(({ key, siteId, m }) => ({ key, row: { siteId, name: m.name, tag: m.tag, area: m.area ?? "", hoursPerDay: m.hoursPerDay ?? 8, note: m.note ?? "" } })), (rows) => tx.insert(machines).values(rows));
  const allCircuits = allMachines.flatMap(({ key, m }) => (m.circuits ?? []).map((k) => ({ key: `${machineIds.get(key)}/${k.name}`, machineId: machineIds.get(key)!, k })));
  const circuitIds = await level("circuits", tx.select().from(circuits), (c) => `${c.machineId}/${c.name}`, allCircuits.map(({ key, machineId, k }) => ({ key, row: { machineId, name: k.name, fluidId: k.fluid ? (fluidIds.get(k.fluid) ?? null) : null, workingPressure: k.workingPressure ?? null, volume: k.volume ?? null, startTemperature: k.startTemperature ?? null, longestHours: k.longestHours ?? null, longestMonths: k.longestMonths ?? null, targetCode: k.targetCode ?? "", targetReason: k.targetReason ?? "", metalLimits: k.metalLimits ?? {} } })), (rows) => tx.insert(circuits).values(rows));
  const allComponents = allCircuits.flatMap(({ key, k }) => (k.components ?? []).map((c) => ({ key: `${circuitIds.get(key)}/${c.name}`, circuitId: circuitIds.get(key)!, c })));
  const componentIds = await level("components", tx.select().from(components), (c) => `${c.circuitId}/${c.name}`, allComponents.map(({ key, circuitId, c }) => ({ key, row: { circuitId, name: c.name, kind: c.kind, model: c.model ?? "", position: c.position ?? 0, displacement: c.displacement ?? null, speed: c.speed ?? null, leadTimeDays: c.leadTimeDays ?? null, runInHours: c.runInHours ?? 50, makersCode: c.makersCode ?? "", materials: c.materials ?? [], symptomIfStuck: c.symptomIfStuck ?? "", fluidNeed: c.fluidNeed ?? null, filter: c.filter ? { element: "", ...c.filter } : null } })), (rows) => tx.insert(components).values(rows));
  await level("lives", tx.select().from(lives).where(isNull(lives.endedAt)), (l) => l.componentId, allComponents.map(({ key, c }) => ({ key: componentIds.get(key)!, row: { componentId: componentIds.get(key), startedAt: c.fittedAt ? new Date(c.fittedAt) : new Date(now()), startHours: c.fittedHours ?? 0, serial: c.serial ?? "", knownWhenNew: c.knownWhenNew ?? false } })), (rows) => tx.insert(lives).values(rows));
  const before = new Set((await tx.select({ id: points.id }).from(points)).map((p) => p.id));
  const pointIds = await level("points", tx.select().from(points), (p) => `${p.componentId}/${p.name}/${p.state}`, allComponents.flatMap(({ key, c }) => (c.points ?? []).map((p) => ({
    key: `${componentIds.get(key)}/${p.name}/${p.state}`,
    row: {
      componentId: componentIds.get(key), name: p.name, quantity: p.quantity as PointQuantityId, state: p.state as ReadingState, unit: p.unit ?? quantityOf(p.quantity as PointQuantityId).unit, intervalDays: p.intervalDays ?? 30, referencePressure: p.referencePressure ?? null, referenceTemperature: p.referenceTemperature ?? null,
      limitBasis: (p.limit?.basis ?? null) as LimitBasis | null, limitUpper: p.limit?.upper ?? null, limitLower: p.limit?.lower ?? null, limitReason: p.limit?.reason ?? "", limitSetBy: p.limit ? by : "", limitSetAt: p.limit ? new Date() : null, conditionsText: p.conditions ?? "",
    },
  }))), (rows) => tx.insert(points).values(rows));
  const fresh = [...pointIds.values()].filter((id) => !before.has(id));
  for (let i = 0; i < fresh.length; i += 1000) await addEmptyAssessments(tx, fresh.slice(i, i + 1000));
  delete added.lives;
  if (Object.keys(added).length) await tx.insert(changes).values({ by, what: `fleet file: added ${Object.entries(added).map(([what, n]) => `${n} ${what}`).join(", ")}` });
  return { ok: true, added, there };
}

