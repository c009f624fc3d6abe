/** What every level of a fleet file does: keep what is there, add what is missing, count both. */

/** A row of the file: its rows by key, in the order of the file. */
interface Wanted<R> {
  key: string;
  row: R;
}

/** Counts what is added and what was there. */
export class Adding {
  readonly added: Record<string, number> = {};
  there = 0;

  /** Ids of a level by key, what was there and what is new; `fresh` holds the keys that are new. */
  async level<T extends { id: string }, R>(
    what: string,
    existing: Promise<T[]>,
    keyOf: (row: T) => string,
    wanted: readonly Wanted<R>[],
    insert: (rows: (R & { id: string })[]) => Promise<unknown>,
  ): Promise<{ ids: Map<string, string>; fresh: ReadonlySet<string> }> {
    const ids = new Map((await existing).map((row) => [keyOf(row), row.id]));
    const fresh = new Map<string, R & { id: string }>();
    for (const { key, row } of wanted) {
      if (ids.has(key) || fresh.has(key)) this.there++;
      else fresh.set(key, { ...row, id: crypto.randomUUID() });
    }
    await inParts([...fresh.values()], insert);
    if (fresh.size > 0) this.added[what] = fresh.size;
    for (const [key, row] of fresh) ids.set(key, row.id);
    return { ids, fresh: new Set(fresh.keys()) };
  }
}

const PART = 500;

/** Rows in portions, so that no statement has too many parameters. */
export async function inParts<R>(rows: readonly R[], insert: (rows: R[]) => Promise<unknown>): Promise<void> {
  for (let i = 0; i < rows.length; i += PART) await insert(rows.slice(i, i + PART));
}

/** A date of the file, or none. */
export const date = (text: string | undefined) => (text ? new Date(text) : null);
