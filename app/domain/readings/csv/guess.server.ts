/** How a file is written, from the file itself. */
import { firstRows } from "~/platform/csv.server";
import { guessDateOrder, looksLikeHeadings } from "~/platform/csvCells";
import { guessDecimalMark, guessDelimiter } from "~/platform/csvText";
import { guessColumns, type Mapping } from "./mapping";

/** Lines above the headings that are looked through for them. */
const MOST_TITLES = 8;

/** A first mapping from the file itself. */
export async function guessMapping(text: string): Promise<Mapping> {
  const delimiter = guessDelimiter(text);
  const rows = await firstRows(text, delimiter, 20);
  const guesses = rows.slice(0, MOST_TITLES + 1).map(guessColumns);
  // the first line that looks like headings, known or not: a line of data may hold a word that is one
  const titleLines = Math.max(
    0,
    rows
      .slice(0, MOST_TITLES + 1)
      .findIndex((row, i) => guesses[i]!.hasHeader || (looksLikeHeadings(row) && row.length > 3)),
  );
  const { columns, units } = guesses[titleLines] ?? guessColumns([]);
  const hasHeader = looksLikeHeadings(rows[titleLines] ?? []);
  const dates =
    typeof columns.takenAt === "number" ? rows.slice(titleLines + 1).map((r) => r[columns.takenAt!] ?? "") : [];
  return {
    delimiter,
    decimalMark: guessDecimalMark(text, delimiter),
    hasHeader,
    titleLines,
    dateOrder: guessDateOrder(dates),
    columns,
    units,
    pointId: "",
    skipBad: false,
    beginLives: false,
  };
}
