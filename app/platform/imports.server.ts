/** A file that was sent to be imported: kept as it came so that it can be looked at first, then read row by row and stored all or nothing. */
import { and, eq, isNull, getTableColumns } from "drizzle-orm";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { PoolClient } from "pg";
import { from as copyFrom } from "pg-copy-streams";
import { connections, db } from "~/db/client.server";
import { imports } from "~/db/schema";
import { brokenAt, copyCell, firstRows, rowsOf, type Row } from "./csv.server";
import type { Delimiter } from "./csvText";
import { notFound } from "./guard.server";
import { requestImport } from "./jobs.server";
import { SHOWN_ROWS, type AnyFate, FatesShown } from "./fates.server";

const { content: _content, ...aboutFile } = getTableColumns(imports);
/** What is known of a file that was sent; the file itself is read only by who reads it (`contentOf`). */
export type ImportRow = Omit<typeof imports.$inferSelect, "content">;

/** A file of at most this size is read while its page loads; a larger one by a worker, with progress. */
const IN_PAGE_BYTES = 20_000;

export const isLarge = (record: Pick<ImportRow, "bytes">) => record.bytes > IN_PAGE_BYTES;

/** What the page of a file shows while a worker reads it. */
export interface ImportStage {
  stage: NonNullable<ImportRow["stage"]>;
  progress: number | null;
}

/** Hand a file to a worker. */
export async function beginStage(id: string, stage: NonNullable<ImportRow["stage"]>): Promise<void> {
  await db()
    .update(imports)
    .set({ stage, progress: 0, failure: null, ...(stage === "previewing" && { preview: null }) })
    .where(and(eq(imports.id, id), isNull(imports.doneAt)));
  await requestImport(id);
}

/** Tell how far a worker has come with a file. */
export async function tellProgress(id: string, progress: number): Promise<void> {
  await db().update(imports).set({ progress }).where(eq(imports.id, id));
}

/** A worker is done with a file: its preview, or why it could not. */
export async function endStage(id: string, end: { preview?: unknown; failure?: string }): Promise<void> {
  await db()
    .update(imports)
    .set({
      stage: null,
      progress: null,
      ...(end.preview !== undefined && { preview: end.preview }),
      ...(end.failure && { failure: end.failure.slice(0, 500) }),
    })
    .where(eq(imports.id, id));
}

export async function importRecord(id: string): Promise<ImportRow> {
  const [row] = await db().select(aboutFile).from(imports).where(eq(imports.id, id));
  if (!row) throw notFound("import");
  return row;
}

export interface FileMapping {
  delimiter: Delimiter;
  hasHeader: boolean;
  /** Lines above the headings, or above the rows where there are none. */
  titleLines: number;
}

/** Rows after which progress is told. */
const TELL_EVERY = 20_000;

/**
 * Every row of a file through a reader, as a stream. A file that cannot be read on ends with a bad row that says so.
 * @param tell how much of the file is read, 0 to 1
 */
export async function* readRows<F extends AnyFate>(
  text: string,
  mapping: FileMapping,
  read: (cells: string[], line: number) => F,
  tell?: (share: number) => Promise<void>,
): AsyncGenerator<{ fate: F; cells: string[] }> {
  let skip = mapping.titleLines + (mapping.hasHeader ? 1 : 0);
  let count = 0;
  const lines = Math.max(1, text.length / Math.max(1, text.indexOf("\n") + 1));
  try {
    for await (const { record, info } of rowsOf(text, mapping) as AsyncIterable<Row>) {
      if (skip-- > 0) continue;
      yield { fate: read(record, info.lines), cells: record };
      if (tell && ++count % TELL_EVERY === 0) await tell(Math.min(0.95, count / lines));
    }
  } catch (error) {
    const broken = brokenAt(error);
    if (!broken) throw error;
    yield { fate: { line: broken.line, fate: "bad", reason: broken.reason } as F, cells: [] };
  }
}

export interface ReadFile<F extends AnyFate> {
  fates: F[];
  /** Cells of the first rows. */
  shown: string[][];
}

/** Every row of a file that is small enough to be held. */
export async function readFile<F extends AnyFate>(
  text: string,
  mapping: FileMapping,
  read: (cells: string[], line: number) => F,
): Promise<ReadFile<F>> {
  const fates: F[] = [];
  const shown: string[][] = [];
  for await (const { fate, cells } of readRows(text, mapping, read)) {
    if (shown.length < SHOWN_ROWS) shown.push(cells);
    fates.push(fate);
  }
  return { fates, shown };
}

/** The line that names the columns. */
export async function headingsOf(
  text: string,
  { delimiter, titleLines }: Pick<FileMapping, "delimiter" | "titleLines">,
): Promise<string[]> {
  return (await firstRows(text, delimiter, titleLines + 1))[titleLines] ?? [];
}

/** What a preview shows of a file that is held. */
export async function fatesShown<F extends AnyFate>(
  text: string,
  mapping: FileMapping,
  { fates, shown }: ReadFile<F>,
  nameOf: (fate: F & { fate: "add" }) => string,
) {
  const found = new FatesShown<F>(nameOf);
  fates.forEach((fate, i) => found.take(fate, shown[i] ?? []));
  return found.shown(await headingsOf(text, mapping));
}

export type Imported = { ok: true; added: number; there: number } | { ok: false; message: string };

/** Why nothing is added: bad rows, and nobody chose to leave them out. Undefined: go on. */
export function badRows(bad: number, skipBad: boolean): string | undefined {
  return bad > 0 && !skipBad
    ? `${bad} row${bad === 1 ? " is" : "s are"} bad. Correct the file, or choose to leave them out.`
    : undefined;
}

const LINES_AT_ONCE = 500;

async function* chunks<T>(
  rows: AsyncIterable<T> | Iterable<T>,
  lineOf: (row: T) => readonly (string | number | null)[],
): AsyncGenerator<string> {
  let lines: string[] = [];
  for await (const row of rows) {
    lines.push(`${lineOf(row).map(copyCell).join("\t")}\n`);
    if (lines.length < LINES_AT_ONCE) continue;
    yield lines.join("");
    lines = [];
  }
  if (lines.length > 0) yield lines.join("");
}

/** What becomes of a transaction: kept, or as if it had not been. */
export interface Outcome<R> {
  keep: boolean;
  result: R;
}

/**
 * COPY rows, as they come, into a temporary table `incoming`, then what `work` does with it, all in one transaction.
 * It runs on a connection of its own time: a large file takes longer than a page may.
 * @param columns names and types of the table, in the order of a row's cells
 */
export async function copyIn<T, R>(
  columns: Record<string, string>,
  rows: AsyncIterable<T> | Iterable<T>,
  lineOf: (row: T) => readonly (string | number | null)[],
  work: (client: PoolClient) => Promise<Outcome<R>>,
): Promise<R> {
  const client = await connections().connect();
  let broken: Error | undefined;
  try {
    await client.query("begin");
    await client.query("set local statement_timeout = 0");
    await client.query(
      `create temporary table incoming (${Object.entries(columns)
        .map(([name, type]) => `${name} ${type}`)
        .join(", ")}) on commit drop`,
    );
    await pipeline(
      Readable.from(chunks(rows, lineOf)),
      client.query(copyFrom(`copy incoming (${Object.keys(columns).join(", ")}) from stdin`)),
    );
    const { keep, result } = await work(client);
    await client.query(keep ? "commit" : "rollback");
    return result;
  } catch (error) {
    broken = error as Error;
    await client.query("rollback").catch(() => undefined);
    throw error;
  } finally {
    client.release(broken !== undefined);
  }
}

/** Within the transaction that stored its rows: the file is done with. Nothing happens when another run was first. */
export async function markDone(client: PoolClient, importId: string, added: number, there: number): Promise<void> {
  await client.query(
    "update imports set done_at = now(), added = $2, already_there = $3, stage = null, progress = null, " +
      "preview = null, content = ''::bytea where id = $1 and done_at is null",
    [importId, added, there],
  );
}
