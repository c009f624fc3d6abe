/** A file that was sent to be imported: kept as it came so that it can be looked at first, then read row by row and stored all or nothing. */
import { eq } from "drizzle-orm";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { PoolClient } from "pg";
import { from as copyFrom } from "pg-copy-streams";
import { connections, db } from "~/db/client.server";
import { imports } from "~/db/schema";
import { config } from "./config.server";
import { copyCell, firstRows, rowsOf, type Row } from "./csv.server";
import type { Delimiter } from "./csvText";
import { notFound } from "./guard.server";

export type ImportRow = typeof imports.$inferSelect;

/** The text file of an upload form, or what is wrong with it. */
export async function uploadOf(request: Request): Promise<{ ok: true; name: string; content: Buffer; fields: FormData } | { ok: false; message: string; fields: FormData }> {
  const fields = await request.formData();
  const file = fields.get("file");
  if (!(file instanceof File) || file.size === 0) return { ok: false, fields, message: "Choose a file with at least one row." };
  const content = Buffer.from(await file.arrayBuffer());
  if (content.subarray(0, 4).toString("latin1") === "PK\u0003\u0004") return { ok: false, fields, message: "That is a workbook, not CSV. Save it as CSV from the spreadsheet and choose that." };
  if (content.subarray(0, 4096).includes(0) && !(content[0] === 0xff || content[0] === 0xfe)) return { ok: false, fields, message: "That is not a text file. Save the sheet as CSV." };
  return { ok: true, name: file.name, content, fields };
}

export const uploadLimitMb = () => Math.floor(config.uploadLimit / 1_048_576);

/** Keep a file. @param laboratory of a laboratory's file: whose */
export async function storeUpload(fileName: string, content: Buffer, by: string, laboratory: string | null = null): Promise<string> {
  const [row] = await db().insert(imports).values({ fileName: fileName.slice(0, 200), content, bytes: content.length, createdBy: by, laboratory }).returning({ id: imports.id });
  return row!.id;
}

export async function importRecord(id: string): Promise<ImportRow> {
  const [row] = await db().select().from(imports).where(eq(imports.id, id));
  if (!row) throw notFound("import");
  return row;
}

const SHOWN_ROWS = 25;
const SHOWN_BAD = 200;
const SHOWN_CELLS = 16;

type AnyFate = { line: number; fate: "add" } | { line: number; fate: "there" } | { line: number; fate: "bad"; reason: string };

export interface ReadFile<F extends AnyFate> {
  fates: F[];
  /** Cells of the first rows. */
  shown: string[][];
}

/** Every row of a file through a reader, in one pass. */
export async function readFile<F extends AnyFate>(text: string, mapping: { delimiter: Delimiter; hasHeader: boolean }, read: (cells: string[], line: number) => F): Promise<ReadFile<F>> {
  const fates: F[] = [];
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
  return { fates, shown };
}

/** What a preview shows of them. */
export async function fatesShown<F extends AnyFate>(text: string, delimiter: Delimiter, { fates, shown }: ReadFile<F>, nameOf: (fate: F & { fate: "add" }) => string) {
  const counts = { add: 0, there: 0, bad: 0 };
  const reasonOf = (fate: F) => (fate.fate === "bad" ? fate.reason : fate.fate === "there" ? "recorded already" : nameOf(fate as F & { fate: "add" }));
  const bad: { line: number; reason: string }[] = [];
  for (const fate of fates) {
    counts[fate.fate]++;
    if (fate.fate === "bad" && bad.length < SHOWN_BAD) bad.push({ line: fate.line, reason: fate.reason });
  }
  return {
    head: (await firstRows(text, delimiter, 1))[0] ?? [], counts, bad,
    rows: fates.slice(0, SHOWN_ROWS).map((fate, i) => ({ line: fate.line, cells: (shown[i] ?? []).slice(0, SHOWN_CELLS).map((c) => c.slice(0, 60)), fate: fate.fate, reason: reasonOf(fate) })),
  };
}

export type Imported = { ok: true; added: number; there: number } | { ok: false; message: string };

/** The rows to add and how many are there already; or why nothing is added: bad rows, and nobody chose to leave them out. */
export function goodRows<F extends AnyFate>(fates: readonly F[], skipBad: boolean): { ok: true; good: (F & { fate: "add" })[]; there: number } | { ok: false; message: string } {
  const bad = fates.filter((f) => f.fate === "bad").length;
  if (bad > 0 && !skipBad) return { ok: false, message: `${bad} row${bad === 1 ? " is" : "s are"} bad. Mend the file, or choose to leave them out.` };
  return { ok: true, good: fates.filter((f): f is F & { fate: "add" } => f.fate === "add"), there: fates.filter((f) => f.fate === "there").length };
}

const LINES_AT_ONCE = 500;

function* chunks<T>(rows: readonly T[], lineOf: (row: T) => readonly (string | number | null)[]): Generator<string> {
  for (let i = 0; i < rows.length; i += LINES_AT_ONCE) yield rows.slice(i, i + LINES_AT_ONCE).map((row) => `${lineOf(row).map(copyCell).join("\t")}\n`).join("");
}

/**
 * COPY rows into a temporary table `incoming`, then what `store` does with it, all in one transaction. `store` returns
 * how many rows were added; the import, where there is one, is marked as done.
 * @param columns names and types of the table, in the order of a row's cells
 */
export async function copyIn<T>(columns: Record<string, string>, rows: readonly T[], lineOf: (row: T) => readonly (string | number | null)[], store: (client: PoolClient) => Promise<number>, done: { importId: string | null; there: number }): Promise<number> {
  const client = await connections().connect();
  let broken: Error | undefined;
  try {
    await client.query("begin");
    await client.query(`create temporary table incoming (${Object.entries(columns).map(([name, type]) => `${name} ${type}`).join(", ")}) on commit drop`);
    await pipeline(Readable.from(chunks(rows, lineOf)), client.query(copyFrom(`copy incoming (${Object.keys(columns).join(", ")}) from stdin`)));
    const added = await store(client);
    if (done.importId) await client.query("update imports set done_at = now(), added = $2, already_there = $3, content = ''::bytea where id = $1 and done_at is null", [done.importId, added, done.there + rows.length - added]);
    await client.query("commit");
    return added;
  } catch (error) {
    broken = error as Error;
    await client.query("rollback").catch(() => undefined);
    throw error;
  } finally {
    client.release(broken !== undefined);
  }
}
