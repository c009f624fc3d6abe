/** Import of readings from a CSV file: a preview with every row's fate, then all or nothing. */
import { and, eq, isNull, sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { circuits, components, imports, instruments, lives, machines, points, sites } from "~/db/schema";
import { oilQuantities } from "~/platform/assessment.server";
import { now } from "~/platform/clock.server";
import { copyIn, fatesShown, goodRows, readFile, type Imported, type ImportRow, type ReadFile } from "~/platform/imports.server";
import { requestAssessment } from "~/platform/jobs.server";
import { check } from "~/platform/validate";
import { firstRows } from "~/platform/csv.server";
import { guessDateOrder } from "~/platform/csvCells";
import { decode, guessDecimalMark, guessDelimiter } from "~/platform/csvText";
import type { FileFates } from "~/ui/importFile";
import { guessColumns, mappingSchema, type Mapping } from "./mapping";
import { againstRecord, foldCode, rowReader, type Fate, type ImportLookup, type ImportPoint, type NewReading } from "./rows";


async function lookupFor(): Promise<ImportLookup> {
  const [pointRows, lifeRows, instrumentRows] = await Promise.all([
    db().select({ id: points.id, componentId: points.componentId, name: points.name, quantity: points.quantity, unit: points.unit, state: points.state, component: components.name, tag: machines.tag, machine: machines.name, timeZone: sites.timeZone })
      .from(points).innerJoin(components, eq(components.id, points.componentId)).innerJoin(circuits, eq(circuits.id, components.circuitId)).innerJoin(machines, eq(machines.id, circuits.machineId)).innerJoin(sites, eq(sites.id, machines.siteId))
      .where(and(isNull(points.retiredAt), isNull(machines.retiredAt))),
    db().select().from(lives),
    db().select({ id: instruments.id, tag: instruments.tag }).from(instruments),
  ]);
  const livesOf = new Map<string, ImportPoint["lives"]>();
  for (const l of lifeRows) {
    const list = livesOf.get(l.componentId) ?? [];
    list.push({ id: l.id, startedAt: l.startedAt.getTime(), endedAt: l.endedAt?.getTime() ?? null });
    livesOf.set(l.componentId, list);
  }
  const byCode = new Map<string, ImportPoint | null>();
  for (const p of pointRows) {
    const point: ImportPoint = { id: p.id, code: `${p.tag}/${p.component}/${p.name}`, quantity: p.quantity, unit: p.unit, state: p.state, timeZone: p.timeZone, lives: livesOf.get(p.componentId) ?? [] };
    byCode.set(p.id, point);
    for (const code of new Set([point.code, `${p.machine}/${p.component}/${p.name}`].map(foldCode))) byCode.set(code, byCode.has(code) ? null : point);
  }
  return { points: byCode, instruments: new Map(instrumentRows.map((i) => [i.tag.toLowerCase(), i.id])), now: now() };
}

/** A first mapping from the file itself. */
async function guessMapping(text: string): Promise<Mapping> {
  const delimiter = guessDelimiter(text);
  const rows = await firstRows(text, delimiter, 20);
  const { columns, units, hasHeader } = guessColumns(rows[0] ?? []);
  const dates = typeof columns.takenAt === "number" ? rows.slice(1).map((r) => r[columns.takenAt!] ?? "") : [];
  return { delimiter, decimalMark: guessDecimalMark(text, delimiter), hasHeader, dateOrder: guessDateOrder(dates), columns, units, pointId: "", skipBad: false };
}

export interface Preview extends FileFates {
  mapping: Mapping;
}

/** What is recorded already for the points of a file over the time that it covers, by point and moment. */
async function existingValues(pointIds: readonly string[], from: number, to: number): Promise<Map<string, number>> {
  if (pointIds.length === 0) return new Map();
  const result = await db().execute<{ pointId: string; at: string; value: number }>(sql`
    select point_id as "pointId", (extract(epoch from taken_at) * 1000)::int8::text as at, value from readings where superseded_at is null and point_id = any(${sql.param([...pointIds])}::uuid[])
      and taken_at between ${new Date(from).toISOString()} and ${new Date(to).toISOString()}`);
  return new Map(result.rows.map((r) => [`${r.pointId}@${r.at}`, r.value]));
}

/** Every row's fate, in one pass over the file and one look at what is recorded for the points that it names. */
async function fatesOf(text: string, mapping: Mapping, by: string): Promise<ReadFile<Fate>> {
  const { fates, shown } = await readFile(text, mapping, rowReader(mapping, await lookupFor(), by));
  const named = new Set<string>();
  let from = Infinity;
  let to = -Infinity;
  for (const fate of fates) {
    if (fate.fate !== "add") continue;
    named.add(fate.point.id);
    from = Math.min(from, fate.reading.takenAt);
    to = Math.max(to, fate.reading.takenAt);
  }
  const existing = await existingValues([...named], from, to);
  return { shown, fates: fates.map((fate) => (fate.fate === "add" ? againstRecord(fate, existing.get(`${fate.point.id}@${fate.reading.takenAt}`)) : fate)) };
}

/** Every row's fate under a mapping (the stored one, or a guess). */
export async function preview(record: ImportRow): Promise<Preview> {
  const text = decode(record.content);
  const stored = record.mapping ? await check(mappingSchema, record.mapping as Record<string, unknown>) : null;
  const mapping = stored?.ok ? (stored.values as unknown as Mapping) : await guessMapping(text);
  return { mapping, ...(await fatesShown(text, mapping.delimiter, await fatesOf(text, mapping, record.createdBy), (fate) => `${fate.point.code}: ${fate.reading.entered}`)) };
}

/** Keep a mapping with the import. Returns what is wrong with it. */
export async function saveMapping(id: string, raw: unknown): Promise<Record<string, string> | null> {
  const checked = await check(mappingSchema, raw as Record<string, unknown>);
  if (!checked.ok) return checked.problems;
  const mapping = checked.values as unknown as Mapping;
  const problems: Record<string, string> = {};
  if (typeof mapping.columns.value !== "number") problems["column-value"] = "Say which column holds the value.";
  if (typeof mapping.columns.takenAt !== "number") problems["column-takenAt"] = "Say which column holds the date.";
  if (typeof mapping.columns.point !== "number" && !mapping.pointId) problems["column-point"] = "Say which column names the point, or choose one point for all rows.";
  if (Object.keys(problems).length) return problems;
  await db().update(imports).set({ mapping }).where(eq(imports.id, id));
  return null;
}

/** Add every good row in one transaction, or nothing at all. Rows that are there already are counted, not doubled. */
export async function runImport(record: ImportRow): Promise<Imported> {
  const checked = await check(mappingSchema, (record.mapping ?? {}) as Record<string, unknown>);
  if (!checked.ok) return { ok: false, message: "Look at the preview first." };
  const mapping = checked.values as unknown as Mapping;
  const { fates } = await fatesOf(decode(record.content), mapping, record.createdBy);
  const rows = goodRows(fates, mapping.skipBad);
  if (!rows.ok) return rows;
  const added = await storeReadings(rows.good.map((f) => f.reading), record.id);
  await requestAssessment();
  return { ok: true, added, there: rows.there + rows.good.length - added };
}

const columns = { point_id: "uuid", life_id: "uuid", taken_at: "timestamptz", value: "float8", least: "float8", entered: "text", temperature: "float8", pressure: "float8", speed: "float8", hours: "float8", instrument_id: "uuid", note: "text", taken_by: "text" };
const names = Object.keys(columns).join(", ");

/** Store readings, leaving out what is there; their points are stale from then on. All in one transaction. */
export async function storeReadings(readings: readonly NewReading[], importId: string | null): Promise<number> {
  return copyIn(columns, readings, (r) => [r.pointId, r.lifeId, new Date(r.takenAt).toISOString(), r.value, r.least, r.entered, r.temperature, r.pressure, r.speed, r.hours, r.instrumentId, r.note, r.by], async (client) => {
    const inserted = await client.query(`insert into readings (${names}, import_id) select ${names}, $1::uuid from incoming on conflict (point_id, taken_at) where superseded_at is null do nothing`, [importId]);
    await client.query("update points p set last_reading_at = greatest(p.last_reading_at, i.newest) from (select point_id, max(taken_at) as newest from incoming group by point_id) i where p.id = i.point_id");
    await client.query("update oil_assessments set stale = true where circuit_id in (select c.circuit_id from points p join components c on c.id = p.component_id where p.id in (select distinct point_id from incoming) and p.quantity = any($1))", [oilQuantities]);
    await client.query("update assessments set stale = true where point_id in (select distinct point_id from incoming)");
    return inserted.rowCount ?? 0;
  }, { importId, there: 0 });
}
