/** Import of a laboratory's file: a preview with every row's fate, then all or nothing. The mapping is kept for the laboratory. */
import { DAY } from "@core";
import { eq, isNull, sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { laboratories } from "~/db/oilTables";
import { circuits, imports, machines, sites } from "~/db/schema";
import { now } from "~/runtime/clock.server";
import { firstRows } from "~/platform/csv.server";
import { guessDateOrder } from "~/platform/csvCells";
import { decode, guessDecimalMark, guessDelimiter } from "~/platform/csvText";
import {
  badRows,
  copyIn,
  fatesShown,
  headingsOf,
  markDone,
  readFile,
  type Imported,
  type ImportRow,
  type ReadFile,
} from "~/platform/imports.server";
import type { ShownFates } from "~/platform/fates.server";
import { contentOf } from "~/platform/uploads.server";
import { requestAssessment } from "~/platform/jobs.server";
import { check } from "~/platform/validate";
import { fits, guessLabColumns, labMappingSchema, type LabMapping } from "./mapping";
import { foldName, labReader, type LabCircuit, type LabFate, type LabLookup, type NewSample } from "./rows";

async function lookupFor(): Promise<LabLookup> {
  const rows = await db()
    .select({
      id: circuits.id,
      circuit: circuits.name,
      machine: machines.name,
      tag: machines.tag,
      timeZone: sites.timeZone,
      filledAt: sql<
        string | null
      >`(select min(e.at) from oil_events e where e.circuit_id = ${circuits.id} and e.kind in ('fill', 'change'))`,
    })
    .from(circuits)
    .innerJoin(machines, eq(machines.id, circuits.machineId))
    .innerJoin(sites, eq(sites.id, machines.siteId))
    .where(isNull(circuits.retiredAt));
  const byName = new Map<string, LabCircuit | null>();
  for (const r of rows) {
    const circuit: LabCircuit = {
      id: r.id,
      timeZone: r.timeZone,
      filledAt: r.filledAt ? new Date(r.filledAt).getTime() : null,
    };
    byName.set(r.id, circuit);
    for (const name of new Set([r.tag, r.machine, `${r.tag}/${r.circuit}`, `${r.machine}/${r.circuit}`].map(foldName)))
      byName.set(name, byName.has(name) && byName.get(name)?.id !== r.id ? null : circuit);
  }
  return { circuits: byName, now: now() };
}

interface Kept {
  mapping: LabMapping;
  head: string[];
}

/** The mapping of the import, else what is kept of its laboratory where the headings are the same, else a guess. */
async function mappingFor(
  record: ImportRow,
  text: string,
): Promise<{ mapping: LabMapping; from: "file" | "laboratory" | "guess" }> {
  const stored = record.mapping ? await check(labMappingSchema, record.mapping as Record<string, unknown>) : null;
  if (stored?.ok) return { mapping: stored.values, from: "file" };
  const delimiter = guessDelimiter(text);
  const rows = await firstRows(text, delimiter, 20);
  const titleLines = Math.max(
    0,
    rows.slice(0, 9).findIndex((r) => guessLabColumns(r).hasHeader),
  );
  const head = rows[titleLines] ?? [];
  if (record.laboratory) {
    const [laboratory] = await db()
      .select({ mapping: laboratories.mapping })
      .from(laboratories)
      .where(eq(laboratories.name, record.laboratory));
    const kept = laboratory?.mapping as Kept | undefined;
    if (kept && fits(kept.mapping, head, kept.head))
      return { mapping: { ...kept.mapping, titleLines, skipBad: false }, from: "laboratory" };
  }
  const guess = guessLabColumns(head);
  const dates =
    typeof guess.columns.takenAt === "number"
      ? rows.slice(titleLines + 1).map((r) => r[guess.columns.takenAt!] ?? "")
      : [];
  return {
    mapping: {
      delimiter,
      decimalMark: guessDecimalMark(text, delimiter),
      dateOrder: guessDateOrder(dates),
      skipBad: false,
      titleLines,
      ...guess,
    },
    from: "guess",
  };
}

/** Numbers that are on record, with what tells the same sample from another one. */
async function recordedNumbers(
  numbers: readonly string[],
  laboratory: string,
): Promise<Map<string, { circuitId: string; at: number }>> {
  if (numbers.length === 0) return new Map();
  const result = await db().execute<{ number: string; circuitId: string; at: string }>(
    sql`select number, circuit_id as "circuitId", (extract(epoch from taken_at) * 1000)::int8::text as at from samples
      where withdrawn_at is null and laboratory = ${laboratory} and number = any(${sql.param([...numbers])}::text[])`,
  );
  return new Map(result.rows.map((r) => [r.number, { circuitId: r.circuitId, at: Number(r.at) }]));
}

/** Every row's fate, in one pass over the file and one look at the numbers that are on record. */
async function fatesOf(text: string, mapping: LabMapping, by: string, laboratory: string): Promise<ReadFile<LabFate>> {
  const { fates, shown } = await readFile(text, mapping, labReader(mapping, await lookupFor(), by));
  const recorded = await recordedNumbers(
    fates.flatMap((f) => (f.fate === "add" ? [f.sample.number] : [])),
    laboratory,
  );
  return {
    shown,
    fates: fates.map((fate) => (fate.fate === "add" ? against(fate, recorded.get(fate.sample.number)) : fate)),
  };
}

function against(fate: LabFate & { fate: "add" }, there: { circuitId: string; at: number } | undefined): LabFate {
  if (!there) return fate;
  const same = there.circuitId === fate.sample.circuitId && Math.abs(there.at - fate.sample.takenAt) < DAY;
  return same
    ? { line: fate.line, fate: "there" }
    : {
        line: fate.line,
        fate: "bad",
        reason: `Number ${fate.sample.number} is on record for another sample. Numbers are given once.`,
      };
}

export interface LabPreview extends ShownFates {
  mapping: LabMapping;
  from: "file" | "laboratory" | "guess";
}

export async function labPreview(record: ImportRow): Promise<LabPreview> {
  const text = decode(await contentOf(record.id));
  const { mapping, from } = await mappingFor(record, text);
  return {
    mapping,
    from,
    ...(await fatesShown(
      text,
      mapping,
      await fatesOf(text, mapping, record.createdBy, record.laboratory ?? ""),
      (fate) => fate.sample.number,
    )),
  };
}

/** Keep a mapping with the import. Returns what is wrong with it. */
export async function saveLabMapping(id: string, raw: unknown): Promise<Record<string, string> | null> {
  const checked = await check(labMappingSchema, raw as Record<string, unknown>);
  if (!checked.ok) return checked.problems;
  const mapping = checked.values;
  const problems: Record<string, string> = {};
  for (const [field, words] of [
    ["number", "the sample's number"],
    ["machine", "the machine"],
    ["takenAt", "the date"],
  ] as const)
    if (typeof mapping.columns[field] !== "number") problems[`column-${field}`] = `Say which column holds ${words}.`;
  if (Object.keys(problems).length) return problems;
  await db().update(imports).set({ mapping }).where(eq(imports.id, id));
  return null;
}

/** Add every good row in one transaction, or nothing. */
export async function runLabImport(record: ImportRow): Promise<Imported> {
  const checked = await check(labMappingSchema, (record.mapping ?? {}) as Record<string, unknown>);
  if (!checked.ok) return { ok: false, message: "Look at the preview first." };
  const mapping = checked.values;
  const text = decode(await contentOf(record.id));
  const { fates } = await fatesOf(text, mapping, record.createdBy, record.laboratory ?? "");
  const refused = badRows(fates.filter((f) => f.fate === "bad").length, mapping.skipBad);
  if (refused) return { ok: false, message: refused };
  const good = fates.flatMap((f) => (f.fate === "add" ? [f.sample] : []));
  const head = await headingsOf(text, mapping);
  const there = fates.filter((f) => f.fate === "there").length + good.length;
  const added = await storeSamples(good, { importId: record.id, there }, record.laboratory ?? "", { mapping, head });
  await requestAssessment();
  return { ok: true, added, there: there - added };
}

const columns = {
  circuit_id: "uuid",
  number: "text",
  taken_at: "timestamptz",
  hours: "float8",
  place: "text",
  state: "text",
  results: "jsonb",
  code: "text",
  colour: "text",
  taken_by: "text",
  note: "text",
};
const names = Object.keys(columns).join(", ");

/** Store samples; their circuits are stale from then on, and how the laboratory writes is kept. */
async function storeSamples(
  samples: readonly NewSample[],
  { importId, there }: { importId: string; there: number },
  laboratory: string,
  kept: Kept,
): Promise<number> {
  return copyIn(
    columns,
    samples,
    (s) => [
      s.circuitId,
      s.number,
      new Date(s.takenAt).toISOString(),
      s.hours,
      s.place,
      s.state,
      JSON.stringify(s.results),
      s.code,
      s.colour,
      s.takenBy,
      s.note,
    ],
    async (client) => {
      const inserted = await client.query(
        `insert into samples (${names}, laboratory, import_id) select ${names}, $1, $2::uuid from incoming
          on conflict (laboratory, number) where withdrawn_at is null do nothing`,
        [laboratory, importId],
      );
      await client.query(
        "insert into oil_assessments (circuit_id, state, urgency, verdict, stale) select distinct " +
          "circuit_id, 'unproven', 10, '[]'::jsonb, true from incoming on conflict (circuit_id) do update set " +
          "stale = true, asked = oil_assessments.asked + 1, failures = 0, tried_at = null",
      );
      if (laboratory)
        await client.query(
          "insert into laboratories (name, mapping, updated_at) values ($1, $2, now()) on conflict (name) do " +
            "update set mapping = excluded.mapping, updated_at = now()",
          [laboratory, JSON.stringify(kept)],
        );
      const added = inserted.rowCount ?? 0;
      await markDone(client, importId, added, there - added);
      return { keep: true, result: added };
    },
  );
}

export async function laboratoryNames(): Promise<string[]> {
  const rows = await db().execute<{ name: string }>(
    sql`select name from laboratories union select distinct laboratory from (select laboratory from samples
      where laboratory <> '' order by created_at desc limit 500) s order by 1`,
  );
  return rows.rows.map((r) => r.name);
}
