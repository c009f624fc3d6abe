/** Short tables out as CSV (RFC 4180), made at once. Long ones are streamed from the database: csv.server.ts. */

export type CsvCell = string | number | null;

function cell(value: CsvCell): string {
  const text = String(value ?? "");
  // a cell that begins as a formula does is text
  const safe = typeof value === "string" && /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
  return /[",\n\r]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** Rows as the text of a file, headings first. */
export const csvText = (rows: readonly (readonly CsvCell[])[]): string =>
  rows.map((r) => `${r.map(cell).join(",")}\r\n`).join("");
