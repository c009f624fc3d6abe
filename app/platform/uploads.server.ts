/** Files as sent: taken in, kept for a week, read back. */
import { eq, sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { imports } from "~/db/schema";
import { config } from "~/runtime/config.server";
import { notFound } from "./guard.server";
import { formOf } from "./request.server";

/** Why a file that was never imported is gone. */
const DISCARDED = "It was not imported in time, so the file was discarded. Upload it again.";

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

const KEPT_DAYS = 7;

/** Discard files that nobody imported. */
export async function sweepUploads(): Promise<void> {
  await db().execute(
    sql`update imports set content = ''::bytea, preview = null, failure = ${DISCARDED} where done_at is null
      and failure is null and created_at < now() - ${KEPT_DAYS} * interval '1 day'`,
  );
}

/** The file as it was sent. */
export async function contentOf(id: string): Promise<Buffer> {
  const [row] = await db().select({ content: imports.content }).from(imports).where(eq(imports.id, id));
  if (!row) throw notFound("import");
  return row.content;
}
