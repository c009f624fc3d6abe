/** Rows of a CSV file as a stream, in and out, and rows for PostgreSQL's COPY. */
import { parse } from "csv-parse";
import { PassThrough, Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { to as copyTo } from "pg-copy-streams";
import { createReadableStreamFromReadable } from "@react-router/node";
import pg from "pg";
import { connections } from "~/db/client.server";
import { config } from "~/runtime/config.server";
import { errorText } from "~/runtime/errors";
import { cleanText } from "./validate";
import { log } from "~/runtime/log.server";
import type { Delimiter } from "./csvText";

const { Client, escapeLiteral } = pg;

const LONGEST_CELL = 20_000;

/** Characters that the reader gets at a time, so that a large file never holds up what else runs. */
const SLICE = 65_536;

function* slices(text: string): Generator<string> {
  for (let i = 0; i < text.length; i += SLICE) yield text.slice(i, i + SLICE);
}

/** Cells of the file with their line numbers, as a stream: the file is never held as rows. */
export function rowsOf(text: string, mapping: { delimiter: Delimiter }) {
  return Readable.from(slices(text)).pipe(
    parse({
      delimiter: mapping.delimiter,
      bom: true,
      relax_column_count: true,
      relax_quotes: true,
      skip_empty_lines: true,
      trim: true,
      info: true,
      max_record_size: LONGEST_CELL * 20,
    }),
  );
}

/** Why a file cannot be read on from some line; undefined when the error is another one. */
export function brokenAt(error: unknown): { line: number; reason: string } | undefined {
  const { code, lines } = error as { code?: string; lines?: number };
  if (!code?.startsWith("CSV_")) return undefined;
  const reason =
    code === "CSV_QUOTE_NOT_CLOSED"
      ? "A quotation mark opens in this row and is never closed. Nothing after it can be read."
      : code === "CSV_MAX_RECORD_SIZE"
        ? "This row is far too long: is the separator right, or a quotation mark missing? Nothing after it can be read."
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
  return typeof value === "number"
    ? String(value)
    : value.replace(/[\\\t\n\r]/g, (c) => ({ "\\": "\\\\", "\t": "\\t", "\n": "\\n", "\r": "\\r" })[c]!);
}

/** SQL: cells that a spreadsheet would take for a formula get an apostrophe in front. */
export const safeCell = (column: string) =>
  `case when ${column} ~ '^[=+@\\-\\t\\r]' then '''' || ${column} else ${column} end`;

/** SQL: a text as a literal, for queries that are copied out, which take no parameters. */
export const literal = (text: string) => escapeLiteral(cleanText(text));

/** Exports that run at one time; each has a connection of its own, outside those that pages share. */
const MOST_EXPORTS = 6;
let running = 0;

/** Too many exports run already. */
export class ExportsBusy extends Error {}

/**
 * The rows of a query as CSV, straight from the database as a stream. It runs on a connection of its own for as long
 * as the reader takes, and ends with the reader: a download that is broken off leaves nothing running.
 * @param query SQL whose values are literals (see `literal`)
 * @throws ExportsBusy when too many run already
 */
export async function csvOut(query: string): Promise<PassThrough> {
  if (running >= MOST_EXPORTS) throw new ExportsBusy();
  running++;
  const client = new Client({
    connectionString: config.databaseUrl,
    connectionTimeoutMillis: 4000,
    statement_timeout: 0,
  });
  let over = false;
  const end = () => {
    if (over) return;
    over = true;
    running--;
    void client.end().catch(() => undefined);
  };
  client.on("error", (error) => log.warn({ err: errorText(error) }, "the connection of an export was lost"));
  try {
    await client.connect();
    const { rows } = await client.query<{ pid: number }>("select pg_backend_pid() as pid");
    await client.query("begin read only");
    const out = new PassThrough();
    out.write("\ufeff");
    pipeline(client.query(copyTo(`copy (${query}) to stdout with (format csv, header true)`)), out).then(
      end,
      (error: unknown) => {
        log.info({ err: errorText(error) }, "an export broke off");
        // the reader went away: the query is told so, since it notices nothing before it has a row to send
        void connections()
          .query("select pg_cancel_backend($1)", [rows[0]!.pid])
          .catch(() => undefined)
          .finally(end);
      },
    );
    return out;
  } catch (error) {
    end();
    throw error;
  }
}

/** An export as the answer to a request; it ends when the request does. */
export async function csvAnswer(request: Request, query: string, fileName: string): Promise<Response> {
  try {
    const stream = await csvOut(query);
    request.signal.addEventListener("abort", () => stream.destroy());
    return new Response(createReadableStreamFromReadable(stream), {
      headers: {
        "Content-Type": "text/csv; charset=utf-8",
        "Content-Disposition": `attachment; filename="${fileName}"`,
      },
    });
  } catch (error) {
    if (error instanceof ExportsBusy)
      return new Response("Several exports are running just now. Try again when one has ended.", {
        status: 503,
        headers: { "Retry-After": "30" },
      });
    throw error;
  }
}
