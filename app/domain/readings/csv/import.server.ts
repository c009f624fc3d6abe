/** Import of readings from a CSV file: a preview with every row's fate, then all or nothing. */
import { eq } from "drizzle-orm";
import type { PoolClient } from "pg";
import { db } from "~/db/client.server";
import { imports } from "~/db/schema";
import {
  badRows,
  copyIn,
  headingsOf,
  markDone,
  readRows,
  type Imported,
  type ImportRow,
  type Outcome,
} from "~/platform/imports.server";
import { FatesShown, type ShownFates } from "~/platform/fates.server";
import { contentOf } from "~/platform/uploads.server";
import { requestAssessment } from "~/platform/jobs.server";
import { check } from "~/platform/validate";
import { unusedColumns } from "~/platform/csvCells";
import { decode } from "~/platform/csvText";
import { guessMapping } from "./guess.server";
import { lookupFor } from "./lookup.server";
import { mappingSchema, type Mapping } from "./mapping";
import { NamesInFile, type NameInFile } from "./names.server";
import { rowReader, type Fate, type NewReading } from "./rows";
import { cellsOf, columns, storeIncoming } from "./store.server";

export interface Preview extends ShownFates {
  mapping: Mapping;
  /** Headings of columns that nothing is taken from. */
  unused: string[];
  /** Names that no code of the fleet explains, with the points that they are tied to. */
  names: NameInFile[];
}

const mappingOfRecord = async (record: ImportRow): Promise<Mapping | null> => {
  const stored = record.mapping ? await check(mappingSchema, record.mapping as Record<string, unknown>) : null;
  return stored?.ok ? stored.values : null;
};

/** Every row's fate under a mapping (the stored one, or a guess). */
export async function preview(record: ImportRow, tell?: (share: number) => Promise<void>): Promise<Preview> {
  const text = decode(await contentOf(record.id));
  const mapping = (await mappingOfRecord(record)) ?? (await guessMapping(text));
  const names = new NamesInFile();
  const keep = async (_client: PoolClient, shown: FatesShown<Fate>) => ({ keep: false, result: shown });
  const found = await staged(text, mapping, record.createdBy, tell, keep, names);
  const head = await headingsOf(text, mapping);
  return {
    mapping,
    names: names.list,
    unused: mapping.hasHeader ? unusedColumns(head, mapping.columns) : [],
    ...found.shown(head),
  };
}

/** The preview that a worker made, where it is of this mapping. */
export function storedPreview(record: ImportRow): Preview | null {
  return record.preview as Preview | null;
}

const OTHER_VALUE = "Another value is already recorded for that moment. Correct it at the point if this one is right.";
const SHOWN_AGAINST = 200;

/** All good rows of a file in the table `incoming`, held against the record, and what becomes of it. */
async function staged<R>(
  text: string,
  mapping: Mapping,
  by: string,
  tell: ((share: number) => Promise<void>) | undefined,
  use: (client: PoolClient, shown: FatesShown<Fate>) => Promise<Outcome<R>>,
  names = new NamesInFile(),
): Promise<R> {
  const shown = new FatesShown<Fate>((fate) => `${fate.point.code}: ${fate.reading.entered}`);
  const fateOf = rowReader(mapping, await lookupFor(), by, (key, name, point) =>
    names.take(key, name, point?.code ?? null),
  );
  async function* good(): AsyncGenerator<NewReading> {
    for await (const { fate, cells } of readRows(text, mapping, fateOf, tell)) {
      shown.take(fate, cells);
      if (fate.fate === "add") yield fate.reading;
    }
  }
  return copyIn(columns, good(), cellsOf, async (client) => {
    await client.query("analyze incoming");
    const same = "abs(r.value - i.value) <= 1e-9 * greatest(1, abs(r.value))";
    const against =
      "incoming i join readings r on r.point_id = i.point_id and r.taken_at = i.taken_at and r.superseded_at is null";
    const {
      rows: [counts],
    } = await client.query<{ there: number; other: number }>(
      `select count(*) filter (where ${same})::int as there, count(*) filter (where not ${same})::int as other from ${against}`,
    );
    const lines = async (where: string, most: number) =>
      (
        await client.query<{ line: number }>(
          `select i.line from ${against} where ${where} order by i.line limit ${most}`,
        )
      ).rows.map((r) => r.line);
    shown.settle(
      { count: counts!.there, lines: await lines(`${same} and i.line <= ${Number(shown.lastShown)}`, SHOWN_AGAINST) },
      { count: counts!.other, lines: await lines(`not ${same}`, SHOWN_AGAINST) },
      OTHER_VALUE,
    );
    return use(client, shown);
  });
}

/** Keep a mapping with the import. Returns what is wrong with it. */
export async function saveMapping(id: string, raw: unknown): Promise<Record<string, string> | null> {
  const checked = await check(mappingSchema, raw as Record<string, unknown>);
  if (!checked.ok) return fieldNames(checked.problems);
  const mapping = checked.values;
  const problems: Record<string, string> = {};
  if (typeof mapping.columns.value !== "number") problems["column-value"] = "Say which column holds the value.";
  if (typeof mapping.columns.takenAt !== "number") problems["column-takenAt"] = "Say which column holds the date.";
  if (typeof mapping.columns.point !== "number" && !mapping.pointId)
    problems["column-point"] = "Say which column names the point, or choose one point for all rows.";
  if (Object.keys(problems).length) return problems;
  await db().update(imports).set({ mapping }).where(eq(imports.id, id));
  return null;
}

/** Messages of the mapping under the names that the form's fields have: "units.value" is the field "unit-value". */
function fieldNames(problems: Record<string, string>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(problems).map(([path, message]) => [
      path.replace(/^units\./, "unit-").replace(/^columns\./, "column-"),
      message,
    ]),
  );
}

/** Add every good row in one transaction, or nothing at all. Rows that are there already are counted, not doubled. */
export async function runImport(record: ImportRow, tell?: (share: number) => Promise<void>): Promise<Imported> {
  const mapping = await mappingOfRecord(record);
  if (!mapping) return { ok: false, message: "Look at the preview first." };
  const imported = await staged(
    decode(await contentOf(record.id)),
    mapping,
    record.createdBy,
    tell,
    async (client, shown): Promise<Outcome<Imported>> => {
      const { add, there, bad } = shown.found;
      const refused = badRows(bad, mapping.skipBad);
      if (refused) return { keep: false, result: { ok: false, message: refused } };
      const added = await storeIncoming(client, record.id, record.createdBy);
      await markDone(client, record.id, added, there + add - added);
      return { keep: true, result: { ok: true, added, there: there + add - added } };
    },
  );
  if (imported.ok) await requestAssessment();
  return imported;
}
