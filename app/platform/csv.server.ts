/** Rows of a CSV file as a stream, in and out, and rows for PostgreSQL's COPY. */
import { parse } from "csv-parse";
import { PassThrough, Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { to as copyTo } from "pg-copy-streams";
import { connections } from "~/db/client.server";
import { log } from "./log.server";
import type { Delimiter } from "./csvText";

const LONGEST_CELL = 20_000;

/** Cells of the file with their line numbers, as a stream: the file is never held as rows. */
export function rowsOf(text: string, mapping: { delimiter: Delimiter }) {
  return Readable.from([text]).pipe(parse({ delimiter: mapping.delimiter, bom: true, relax_column_count: true, relax_quotes: true, skip_empty_lines: true, trim: true, info: true, max_record_size: LONGEST_CELL * 20 }));
}

export type Row = { record: string[]; info: { lines: number } };

export async function firstRows(text: string, delimiter: Delimiter, count: number): Promise<string[][]> {
  const rows: string[][] = [];
  for await (const row of rowsOf(text.slice(0, 200_000), { delimiter }) as AsyncIterable<Row>) {
    rows.push(row.record.map((c) => c.slice(0, 200)));
    if (rows.length >= count) break;
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
