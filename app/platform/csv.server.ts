/** Rows of a CSV file as a stream, in and out, and rows for PostgreSQL's COPY. */
import { parse } from "csv-parse";
import { PassThrough, Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { to as copyTo } from "pg-copy-streams";
import { connections } from "~/db/client.server";
import { log } from "./log.server";
import type { Delimiter } from "./csvText";

const LONGEST_CELL = 20_000;

/** Characters that the reader gets at a time, so that a large file never holds up what else runs. */
const SLICE = 65_536;

function* slices(text: string): Generator<string> {
  for (let i = 0; i < text.length; i += SLICE) yield text.slice(i, i + SLICE);
}

/** Cells of the file with their line numbers, as a stream: the file is never held as rows. */
export function rowsOf(text: string, mapping: { delimiter: Delimiter }) {
  return Readable.from(slices(text)).pipe(parse({ delimiter: mapping.delimiter, bom: true, relax_column_count: true, relax_quotes: true, skip_empty_lines: true, trim: true, info: true, max_record_size: LONGEST_CELL * 20 }));
}

/** Why a file cannot be read on from some line; undefined when the error is another one. */
export function brokenAt(error: unknown): { line: number; reason: string } | undefined {
  const { code, lines } = error as { code?: string; lines?: number };
  if (!code?.startsWith("CSV_")) return undefined;
  const reason = code === "CSV_QUOTE_NOT_CLOSED" ? "A quotation mark opens in this row and is never closed. Nothing after it can be read."
    : code === "CSV_MAX_RECORD_SIZE" ? "This row is far too long: is the separator right, or a quotation mark missing? Nothing after it can be read."
    : "A quotation mark stands inside this row where none may. Double it, or leave it out. Nothing after it can be read.";
  return { line: lines ?? 0, reason };
}

export type Row = { record: string[]; info: { lines: number } };

export async function firstRows(text: string, delimiter: Delimiter, count: number): Promise<string[][]> {
  const rows: string[][] = [];
  try {
    for await (const row of rowsOf(text.slice(0, 200_000), { delimiter }) as AsyncIterable<Row>) {
      rows.push(row.record.map((c) => c.slice(0, 200)));
      if (rows.length >= count) break;
    }
  } catch (error) {
    // cut in the middle of a cell, or broken further down: the rows before it serve
    if (!brokenAt(error)) throw error;
  }
  return rows;
}

/** A cell of PostgreSQL's COPY text format. */
export function copyCell(value: string | number | null): string {
  if (value === null) return "\\N";
  return typeof value === "number" ? String(value) : value.replace(/[\\\t\n\r]/g, (c) => ({ "\\": "\\\\", "\t": "\\t", "\n": "\\n", "\r": "\\r" })[c]!);
}

/** SQL: cells that a spreadsheet would take for a formula get an apostrophe in front. */
export const safeCell = (column: string) => `case when ${column} ~ '^[=+@\\-\\t\\r]' then '''' || ${column} else ${column} end`;

/** SQL: a value that was given to `csvOut` by name. */
export const setting = (name: string) => `current_setting('juncteral.${name}')`;

/**
 * The rows of a query as CSV, straight from the database as a stream. Values are passed as settings of the
 * transaction, since COPY takes no parameters: names and query are constants of ours, values come from anywhere.
 */
export async function csvOut(query: string, values: Record<string, string> = {}): Promise<PassThrough> {
  const client = await connections().connect();
  const out = new PassThrough();
  try {
    await client.query("begin read only");
    for (const [name, value] of Object.entries(values)) await client.query("select set_config($1, $2, true)", [`juncteral.${name}`, value]);
    const source = client.query(copyTo(`copy (${query}) to stdout with (format csv, header true)`));
    out.write("\ufeff");
    pipeline(source, out).then(
      () => client.query("commit").then(() => client.release(), (error: Error) => client.release(error)),
      (error: Error) => {
        log.error({ err: error.message }, "the export broke off");
        client.release(error);
      },
    );
  } catch (error) {
    client.release(error as Error);
    throw error;
  }
  return out;
}
