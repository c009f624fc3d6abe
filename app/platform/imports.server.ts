/** A file that was sent to be imported: kept as it came until it is imported, so that it can be looked at first. */
import { eq } from "drizzle-orm";
import { db } from "~/db/client.server";
import { imports } from "~/db/schema";
import { config } from "./config.server";
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
