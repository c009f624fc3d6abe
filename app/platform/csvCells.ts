/** What stands in the cells and headings of a file: dates in any order, headings with their units. */
import { TZDate } from "@date-fns/tz";
import { number } from "yup";

export type DateOrder = "ymd" | "dmy" | "mdy";

export const dateOrders: { value: DateOrder; label: string }[] = [
  { value: "ymd", label: "2026-11-20 10:40" },
  { value: "dmy", label: "20.11.2026 or 20/11/2026" },
  { value: "mdy", label: "11/20/2026" },
];

/** A heading without its unit, spaces and case. */
export const fold = (head: string) =>
  head
    .toLowerCase()
    .replace(/μ/g, "µ")
    .replace(/[[(].*?[\])]/g, "")
    .replace(/[_\s]+/g, " ")
    .trim()
    // "Pressure bar", "Water ppm": a unit at the end that no bracket sets apart
    .replace(/(.)\s(?:bar|mpa|kpa|psi|l\/min|lpm|gpm|°c|°f|c|ppm|mg\/kg|h|hrs?|rpm|r\/min|mm²\/s|cst)$/u, "$1")
    .trim();
/** The unit that a heading carries in brackets. */
export const unitIn = (head: string) => /[[(]\s*([^\])]+?)\s*[\])]/.exec(head)?.[1] ?? "";

/** Cells that are figures or dates: a line of headings has hardly any. */
const isFigure = (cell: string) => /^[\s'<>]*[-+]?\d[\d\s.,:/-]*(?:am|pm)?\s*$/i.test(cell);

/** Does a line look like headings: words, and next to no figures? */
export const looksLikeHeadings = (cells: readonly string[]): boolean => {
  const said = cells.filter((c) => c.trim() !== "");
  return said.length >= 2 && said.some((c) => /\p{L}/u.test(c)) && said.filter(isFigure).length * 4 <= said.length;
};

/** Headings of columns that a mapping leaves out. */
export function unusedColumns(
  head: readonly string[],
  columns: Readonly<Record<string, number | null | undefined>>,
): string[] {
  const used = new Set(Object.values(columns));
  return head.flatMap((h, i) => (h.trim() === "" || used.has(i) ? [] : [h.trim()]));
}

/** The column of each field by its headings; the first that fits, none twice. */
export function findColumns<N extends string>(
  head: readonly string[],
  fields: readonly { name: N; heads: readonly string[] }[],
): { columns: Partial<Record<N, number | null>>; found: number } {
  const columns: Partial<Record<N, number | null>> = {};
  const taken = new Set<number>();
  for (const field of fields) {
    const known = new Set(field.heads.map(fold));
    const index = head.findIndex((h, i) => !taken.has(i) && known.has(fold(h)));
    columns[field.name] = index >= 0 ? index : null;
    if (index >= 0) taken.add(index);
  }
  return { columns, found: taken.size };
}

/** A column in a stored mapping: its number, or null. */
export const columnField = number()
  .integer()
  .min(0)
  .max(500)
  .nullable()
  .transform((v: number, o: unknown) => (o === "" || o === null ? null : v))
  .default(null);

/** Lines above the headings in a stored mapping. */
export const titleLinesField = number()
  .transform((v: number, o: unknown) => (o === "" || o === undefined || o === null ? 0 : v))
  .typeError("A number of lines.")
  .integer("Whole lines.")
  .min(0, "None or more.")
  .max(20, "At most 20.")
  .default(0);

/** The order of day, month and year that all sample dates allow. */
export function guessDateOrder(samples: readonly string[]): DateOrder {
  if (samples.some((s) => /^\s*\d{4}[-/.]/.test(s))) return "ymd";
  const pairs = samples.flatMap((s) => {
    const m = /^\s*(\d{1,2})[./-](\d{1,2})[./-]\d{2,4}/.exec(s);
    return m ? [[Number(m[1]), Number(m[2])] as const] : [];
  });
  if (pairs.some(([, second]) => second > 12)) return "mdy";
  return "dmy";
}

/** Moment of a date text in a time zone; NaN when it is none. A date without a time is read at noon. */
export function parseMoment(text: string, order: DateOrder, timeZone: string): number {
  const t = text.trim();
  if (/^\d{4}-\d{2}-\d{2}T[\d:.]+(Z|[+-]\d{2}:?\d{2})$/.test(t)) return Date.parse(t);
  const match =
    /^(\d{1,4})[-/.](\d{1,2})[-/.](\d{2,4})(?:[T,\s]+(\d{1,2})[:.](\d{2})(?:[:.](\d{2})(?:\.\d+)?)?\s*(am|pm)?)?$/i.exec(
      t,
    );
  if (!match) return Number.NaN;
  const [first, second, third] = [Number(match[1]), Number(match[2]), Number(match[3])];
  const isYearFirst = match[1]!.length === 4;
  const [writtenYear, month, day] = isYearFirst
    ? [first, second, third]
    : order === "mdy"
      ? [third, first, second]
      : [third, second, first];
  const year = (writtenYear ?? 0) < 100 && !isYearFirst ? (writtenYear ?? 0) + 2000 : writtenYear;
  let hour = match[4] === undefined ? 12 : Number(match[4]);
  if (match[7]) hour = (hour % 12) + (match[7].toLowerCase() === "pm" ? 12 : 0);
  const minute = Number(match[5] ?? 0);
  const secondOfMinute = Number(match[6] ?? 0);
  if (
    year < 1950 ||
    year > 2200 ||
    month < 1 ||
    month > 12 ||
    day < 1 ||
    day > new Date(Date.UTC(year, month, 0)).getUTCDate() ||
    hour > 23 ||
    minute > 59 ||
    secondOfMinute > 59
  )
    return Number.NaN;
  return new TZDate(year, month - 1, day, hour, minute, secondOfMinute, timeZone).getTime();
}

/** A cell as a message shows it. */
export const clip = (text: string) => (text.length > 40 ? `${text.slice(0, 37)}…` : text);
