/** The order of the rows of a table. */

export type Key = string | number | null;

/** Texts as people sort them: P-2 before P-10, regardless of case. */
const collator = new Intl.Collator("en", { numeric: true, sensitivity: "base" });

/** Rows by a key, equal ones as they were; those without one come last, whichever way it runs. */
export function inOrder<Row>(rows: readonly Row[], by: (row: Row) => Key, descending: boolean): Row[] {
  const sign = descending ? -1 : 1;
  return rows
    .map((row, at) => ({ row, at, key: by(row) }))
    .sort((a, b) => {
      if (a.key === null || b.key === null) return (a.key === null ? 1 : 0) - (b.key === null ? 1 : 0) || a.at - b.at;
      const byKey =
        typeof a.key === "number" && typeof b.key === "number"
          ? a.key - b.key
          : collator.compare(String(a.key), String(b.key));
      return sign * byKey || a.at - b.at;
    })
    .map(({ row }) => row);
}
