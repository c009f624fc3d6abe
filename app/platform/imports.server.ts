/** A file that was sent to be imported: kept as it came so that it can be looked at first, then read row by row and stored all or nothing. */
import { and, eq, isNull, sql, getTableColumns } from "drizzle-orm";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { PoolClient } from "pg";
import { from as copyFrom } from "pg-copy-streams";
import { connections, db } from "~/db/client.server";
import { imports } from "~/db/schema";
import { config } from "~/runtime/config.server";
import { brokenAt, copyCell, firstRows, rowsOf, type Row } from "./csv.server";
import type { Delimiter } from "./csvText";
import { notFound } from "./guard.server";
import { requestImport } from "./jobs.server";
import { formOf } from "./request.server";

const { content: _content, ...aboutFile } = getTableColumns(imports);
/** What is known of a file that was sent; the file itself is read only by who reads it (`contentOf`). */
export type ImportRow = Omit<typeof imports.$inferSelect, "content">;

/** The text file of an upload form, or what is wrong with it. */
export async function uploadOf(
  request: Request,
): Promise<
  { ok: true; name: string; content: Buffer; fields: FormData } | { ok: false; message: string; fields: FormData }
> {
  const fields = await formOf(request);
  const file = fields.get("file");
  if (!(file instanceof File) || file.size === 0)
    return { ok: false, fields, message: "Choose a file with at least one row." };
  const content = Buffer.from(await file.arrayBuffer());
  if (content.subarray(0, 4).toString("latin1") === "PK\u0003\u0004")
    return {
      ok: false,
      fields,
      message: "That is a workbook, not CSV. Save it as CSV from the spreadsheet and choose that.",
    };
  if (content.includes(0) && !(content[0] === 0xff || content[0] === 0xfe))
    return { ok: false, fields, message: "That is not a text file. Save the sheet as CSV." };
  return { ok: true, name: file.name, content, fields };
}

export const uploadLimitMb = () => Math.floor(config.uploadLimit / 1_048_576);

/** Files of one person that wait to be looked at; more push the oldest out. */
const MOST_WAITING = 5;

/** Keep a file. @param laboratory of a laboratory's file: whose */
export async function storeUpload(
  fileName: string,
  content: Buffer,
  by: string,
  laboratory: string | null = null,
): Promise<string> {
  const [row] = await db()
    .insert(imports)
    .values({
      fileName: fileName.replaceAll("\0", "").slice(0, 200),
      content,
      bytes: content.length,
      createdBy: by,
      laboratory,
    })
    .returning({ id: imports.id });
  await db()
    .execute(sql`update imports set content = ''::bytea, preview = null, failure = ${DISCARDED} where done_at is null and failure is null and id in (
    select id from imports where created_by = ${by} and done_at is null and failure is null order by created_at desc offset ${MOST_WAITING})`);
  return row!.id;
}

/** Why a file that was never imported is gone. */
const DISCARDED = "It was not imported in time, so the file was discarded. Upload it again.";
const KEPT_DAYS = 7;

/** Discard files that nobody imported. */
export async function sweepUploads(): Promise<void> {
  await db().execute(
    sql`update imports set content = ''::bytea, preview = null, failure = ${DISCARDED} where done_at is null
      and failure is null and created_at < now() - ${KEPT_DAYS} * interval '1 day'`,
  );
}

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

/** The file as it was sent. */
export async function contentOf(id: string): Promise<Buffer> {
  const [row] = await db().select({ content: imports.content }).from(imports).where(eq(imports.id, id));
  if (!row) throw notFound("import");
  return row.content;
}

const SHOWN_ROWS = 25;
const SHOWN_BAD = 200;
const SHOWN_CELLS = 16;

/** `odd`: added all the same, but somebody should look. */
type AnyFate =
  | { line: number; fate: "add"; odd?: string }
  | { line: number; fate: "there" }
  | { line: number; fate: "bad"; reason: string };

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

/** Different faults that are told apart. */
const SHOWN_FAULTS = 50;

/** What a preview shows, collected row by row: counts of all, the first rows, the first bad ones. */
export class FatesShown<F extends AnyFate> {
  private readonly counts = { add: 0, there: 0, bad: 0 };
  private readonly bad: { line: number; reason: string }[] = [];
  private readonly odd: { line: number; reason: string }[] = [];
  /** The same fault in many rows is told once. */
  private readonly faults = new Map<string, { count: number; first: number; last: number }>();
  private readonly rows: { line: number; cells: string[]; fate: AnyFate["fate"]; reason: string }[] = [];

  constructor(private readonly nameOf: (fate: F & { fate: "add" }) => string) {}

  take(fate: F, cells: readonly string[]): void {
    this.counts[fate.fate]++;
    if (fate.fate === "bad") {
      if (this.bad.length < SHOWN_BAD) this.bad.push({ line: fate.line, reason: fate.reason });
      this.count(fate.reason, fate.line);
    }
    if (fate.fate === "add" && fate.odd && this.odd.length < SHOWN_BAD)
      this.odd.push({ line: fate.line, reason: fate.odd });
    const reason =
      fate.fate === "bad"
        ? fate.reason
        : fate.fate === "there"
          ? "recorded already"
          : this.nameOf(fate as F & { fate: "add" });
    if (this.rows.length < SHOWN_ROWS)
      this.rows.push({
        line: fate.line,
        cells: cells.slice(0, SHOWN_CELLS).map((c) => c.slice(0, 60)),
        fate: fate.fate,
        reason,
      });
  }

  private count(reason: string, line: number, times = 1): void {
    const known = this.faults.get(reason);
    if (known) Object.assign(known, { count: known.count + times, last: Math.max(known.last, line) });
    else if (this.faults.size < SHOWN_FAULTS) this.faults.set(reason, { count: times, first: line, last: line });
  }

  /**
   * Held against the record: of the rows that were good by themselves some are there already, and some say another
   * thing than the record. @param lines of the first rows that are there, and of the first that contradict
   */
  settle(
    there: { count: number; lines: readonly number[] },
    against: { count: number; lines: readonly number[] },
    reason: string,
  ): void {
    this.counts.add -= there.count + against.count;
    this.counts.there += there.count;
    this.counts.bad += against.count;
    const [known, wrong] = [new Set(there.lines), new Set(against.lines)];
    for (const row of this.rows) {
      if (known.has(row.line)) Object.assign(row, { fate: "there", reason: "recorded already" });
      if (wrong.has(row.line)) Object.assign(row, { fate: "bad", reason });
    }
    this.bad.push(...against.lines.map((line) => ({ line, reason })));
    if (against.count > 0) this.count(reason, against.lines[0] ?? 0, against.count);
    this.bad.sort((p, q) => p.line - q.line);
    this.bad.length = Math.min(this.bad.length, SHOWN_BAD);
  }

  /** The last line that is shown. */
  get lastShown(): number {
    return this.rows.at(-1)?.line ?? 0;
  }

  get found(): { add: number; there: number; bad: number } {
    return this.counts;
  }

  /** @param headings cells of the line that names the columns */
  shown(headings: string[]) {
    const faults = [...this.faults].map(([reason, where]) => ({ reason, ...where })).sort((a, b) => b.count - a.count);
    return { head: headings, counts: this.counts, bad: this.bad, faults, odd: this.odd, rows: this.rows };
  }
}

/** What a preview shows of a file. */
export type ShownFates = ReturnType<FatesShown<AnyFate>["shown"]>;

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
