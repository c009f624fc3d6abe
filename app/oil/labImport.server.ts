/** Import of a laboratory's file: a preview with every row's fate, then all or nothing. The mapping is kept for the laboratory. */
import { eq, isNull, sql } from "drizzle-orm";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { from as copyFrom } from "pg-copy-streams";
import { connections, db } from "~/db/client.server";
import { circuits, imports, laboratories, machines, sites } from "~/db/schema";
import { now } from "~/platform/clock.server";
import { copyCell, firstRows, rowsOf, type Row } from "~/platform/csv.server";
import { guessDateOrder } from "~/platform/csvCells";
import { decode, guessDecimalMark, guessDelimiter } from "~/platform/csvText";
import type { ImportRow } from "~/platform/imports.server";
import { requestAssessment } from "~/platform/jobs.server";
import { check } from "~/platform/validate";
import type { FileFates } from "~/ui/importFile";
import { fits, guessLabColumns, labMappingSchema, type LabMapping } from "./labMapping";
import { foldName, labReader, type LabCircuit, type LabFate, type LabLookup, type NewSample } from "./labRows";

const SHOWN_ROWS = 25;
const SHOWN_BAD = 200;

async function lookupFor(): Promise<LabLookup> {
  const rows = await db().select({ id: circuits.id, circuit: circuits.name, machine: machines.name, tag: machines.tag, timeZone: sites.timeZone, filledAt: sql<string | null>`(select min(e.at) from oil_events e where e.circuit_id = ${circuits.id} and e.kind in ('fill', 'change'))` })
    .from(circuits).innerJoin(machines, eq(machines.id, circuits.machineId)).innerJoin(sites, eq(sites.id, machines.siteId)).where(isNull(circuits.retiredAt));
  const byName = new Map<string, LabCircuit | null>();
  for (const r of rows) {
    const circuit: LabCircuit = { id: r.id, timeZone: r.timeZone, filledAt: r.filledAt ? new Date(r.filledAt).getTime() : null };
    byName.set(r.id, circuit);
    for (const name of new Set([r.tag, r.machine, `${r.tag}/${r.circuit}`, `${r.machine}/${r.circuit}`].map(foldName))) byName.set(name, byName.has(name) && byName.get(name)?.id !== r.id ? null : circuit);
  }
  return { circuits: byName, now: now() };
}

interface Kept {
  mapping: LabMapping;
  head: string[];
}

/** The mapping of the import, else what is kept of its laboratory where the headings are the same, else a guess. */
async function mappingFor(record: ImportRow, text: string): Promise<{ mapping: LabMapping; from: "file" | "laboratory" | "guess" }> {
  const stored = record.mapping ? await check(labMappingSchema, record.mapping as Record<string, unknown>) : null;
  if (stored?.ok) return { mapping: stored.values as unknown as LabMapping, from: "file" };
  const delimiter = guessDelimiter(text);
  const rows = await firstRows(text, delimiter, 20);
  const head = rows[0] ?? [];
  if (record.laboratory) {
    const [laboratory] = await db().select({ mapping: laboratories.mapping }).from(laboratories).where(eq(laboratories.name, record.laboratory));
    const kept = laboratory?.mapping as Kept | undefined;
    if (kept && fits(kept.mapping, head, kept.head)) return { mapping: { ...kept.mapping, skipBad: false }, from: "laboratory" };
  }
  const guess = guessLabColumns(head);
  const dates = typeof guess.columns.takenAt === "number" ? rows.slice(1).map((r) => r[guess.columns.takenAt!] ?? "") : [];
  return { mapping: { delimiter, decimalMark: guessDecimalMark(text, delimiter), dateOrder: guessDateOrder(dates), skipBad: false, ...guess }, from: "guess" };
}

/** Numbers that are on record, with what tells the same sample from another one. */
async function recordedNumbers(numbers: readonly string[]): Promise<Map<string, { circuitId: string; at: number }>> {
  if (numbers.length === 0) return new Map();
  const result = await db().execute<{ number: string; circuitId: string; at: string }>(sql`select number, circuit_id as "circuitId", (extract(epoch from taken_at) * 1000)::int8::text as at from samples where withdrawn_at is null and number = any(${sql.param([...numbers])}::text[])`);
  return new Map(result.rows.map((r) => [r.number, { circuitId: r.circuitId, at: Number(r.at) }]));
}

async function walk(text: string, mapping: LabMapping, by: string, visit: (fate: LabFate, cells: string[]) => void): Promise<void> {
  const read = labReader(mapping, await lookupFor(), by);
  const fates: LabFate[] = [];
  const shown: string[][] = [];
  let head = mapping.hasHeader;
  for await (const { record, info } of rowsOf(text, mapping) as AsyncIterable<Row>) {
    if (head) {
      head = false;
      continue;
    }
    if (shown.length < SHOWN_ROWS) shown.push(record);
    fates.push(read(record, info.lines));
  }
  const recorded = await recordedNumbers(fates.flatMap((f) => (f.fate === "add" ? [f.sample.number] : [])));
  fates.forEach((fate, i) => visit(fate.fate === "add" ? against(fate, recorded.get(fate.sample.number)) : fate, shown[i] ?? []));
}

function against(fate: LabFate & { fate: "add" }, there: { circuitId: string; at: number } | undefined): LabFate {
  if (!there) return fate;
  const same = there.circuitId === fate.sample.circuitId && Math.abs(there.at - fate.sample.takenAt) < 86_400_000;
  return same ? { line: fate.line, fate: "there" } : { line: fate.line, fate: "bad", reason: `Number ${fate.sample.number} is on record for another sample. Numbers are given once.` };
}

export interface LabPreview extends FileFates {
  mapping: LabMapping;
  from: "file" | "laboratory" | "guess";
}

export async function labPreview(record: ImportRow): Promise<LabPreview> {
  const text = decode(record.content);
  const { mapping, from } = await mappingFor(record, text);
  const head = (await firstRows(text, mapping.delimiter, 1))[0] ?? [];
  const result: LabPreview = { mapping, from, head, rows: [], bad: [], counts: { add: 0, there: 0, bad: 0 } };
  await walk(text, mapping, record.createdBy, (fate, cells) => {
    result.counts[fate.fate]++;
    const reason = fate.fate === "bad" ? fate.reason : fate.fate === "there" ? "recorded already" : fate.sample.number;
    if (fate.fate === "bad" && result.bad.length < SHOWN_BAD) result.bad.push({ line: fate.line, reason });
    if (result.rows.length < SHOWN_ROWS) result.rows.push({ line: fate.line, cells: cells.slice(0, 16).map((c) => c.slice(0, 60)), fate: fate.fate, reason });
  });
  return result;
}

/** Keep a mapping with the import. Returns what is wrong with it. */
export async function saveLabMapping(id: string, raw: unknown): Promise<Record<string, string> | null> {
  const checked = await check(labMappingSchema, raw as Record<string, unknown>);
  if (!checked.ok) return checked.problems;
  const mapping = checked.values as unknown as LabMapping;
  const problems: Record<string, string> = {};
  for (const [field, words] of [["number", "the sample's number"], ["machine", "the machine"], ["takenAt", "the date"]] as const) if (typeof mapping.columns[field] !== "number") problems[`column-${field}`] = `Say which column holds ${words}.`;
  if (Object.keys(problems).length) return problems;
  await db().update(imports).set({ mapping }).where(eq(imports.id, id));
  return null;
}

export type LabImported = { ok: true; added: number; there: number } | { ok: false; message: string };

/** Add every good row in one transaction, or nothing. */
export async function runLabImport(record: ImportRow): Promise<LabImported> {
  const checked = await check(labMappingSchema, (record.mapping ?? {}) as Record<string, unknown>);
  if (!checked.ok) return { ok: false, message: "Look at the preview first." };
  const mapping = checked.values as unknown as LabMapping;
  const text = decode(record.content);
  const good: NewSample[] = [];
  let bad = 0;
  let there = 0;
  await walk(text, mapping, record.createdBy, (fate) => {
    if (fate.fate === "add") good.push(fate.sample);
    else if (fate.fate === "bad") bad++;
    else there++;
  });
  if (bad > 0 && !mapping.skipBad) return { ok: false, message: `${bad} row${bad === 1 ? " is" : "s are"} bad. Mend the file, or choose to leave them out.` };
  const head = (await firstRows(text, mapping.delimiter, 1))[0] ?? [];
  const added = await storeSamples(good, record.id, record.laboratory ?? "", there, { mapping, head });
  await requestAssessment();
  return { ok: true, added, there: there + good.length - added };
}

const copyColumns = ["circuit_id", "number", "taken_at", "hours", "place", "state", "results", "code", "colour", "taken_by", "note"] as const;

const copyLine = (s: NewSample) => `${[s.circuitId, s.number, new Date(s.takenAt).toISOString(), s.hours, s.place, s.state, JSON.stringify(s.results), s.code, s.colour, s.takenBy, s.note].map(copyCell).join("\t")}\n`;

function* lines(list: readonly NewSample[]): Generator<string> {
  for (let i = 0; i < list.length; i += 500) yield list.slice(i, i + 500).map(copyLine).join("");
}

async function storeSamples(list: readonly NewSample[], importId: string, laboratory: string, there: number, kept: Kept): Promise<number> {
  const client = await connections().connect();
  let broken: Error | undefined;
  try {
    await client.query("begin");
    await client.query("create temporary table incoming (circuit_id uuid, number text, taken_at timestamptz, hours float8, place text, state text, results jsonb, code text, colour text, taken_by text, note text) on commit drop");
    await pipeline(Readable.from(lines(list)), client.query(copyFrom(`copy incoming (${copyColumns.join(", ")}) from stdin`)));
    const inserted = await client.query(`insert into samples (${copyColumns.join(", ")}, laboratory, import_id) select ${copyColumns.join(", ")}, $1, $2::uuid from incoming on conflict (number) where withdrawn_at is null do nothing`, [laboratory, importId]);
    await client.query("insert into oil_assessments (circuit_id, state, urgency, verdict, stale) select distinct circuit_id, 'unproven', 10, '[]'::jsonb, true from incoming on conflict (circuit_id) do update set stale = true");
    if (laboratory) await client.query("insert into laboratories (name, mapping, updated_at) values ($1, $2, now()) on conflict (name) do update set mapping = excluded.mapping, updated_at = now()", [laboratory, JSON.stringify(kept)]);
    await client.query("update imports set done_at = now(), added = $2, already_there = $3, content = ''::bytea where id = $1 and done_at is null", [importId, inserted.rowCount, there + list.length - (inserted.rowCount ?? 0)]);
    await client.query("commit");
    return inserted.rowCount ?? 0;
  } catch (error) {
    broken = error as Error;
    await client.query("rollback").catch(() => undefined);
    throw error;
  } finally {
    client.release(broken !== undefined);
  }
}

export async function laboratoryNames(): Promise<string[]> {
  const rows = await db().execute<{ name: string }>(sql`select name from laboratories union select distinct laboratory from (select laboratory from samples where laboratory <> '' order by created_at desc limit 500) s order by 1`);
  return rows.rows.map((r) => r.name);
}
