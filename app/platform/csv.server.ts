/** Rows of a CSV file as a stream, and rows for PostgreSQL's COPY. */
import { parse } from "csv-parse";
import { Readable } from "node:stream";
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
