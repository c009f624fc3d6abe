/**
 * The one rule against saving twice: every form that adds a record carries an id (`submission`), the record keeps it,
 * and a unique index refuses a second. A copy of the form is answered with the record of the first. Two copies at the
 * same moment both find nothing; the slower one breaks the index and looks again. An id belongs to one record: under
 * another machine, circuit or piece of work it is refused, since "saved" would be said of what nobody stored.
 */
import { eq, getTableColumns, sql } from "drizzle-orm";
import type { PgColumn, PgTable } from "drizzle-orm/pg-core";
import { brokenConstraint, db, type Queryable } from "~/db/client.server";
import type { Answer, Refused } from "./answer";

type SubmittedTable = PgTable & { id: PgColumn; submission: PgColumn };
/** What a record belongs to, by its columns. */
type Owner<T extends SubmittedTable> = Partial<Record<keyof T["_"]["columns"], string | null>>;

/** The id of a form stands for one record at one place. */
export const sentElsewhere: Refused = {
  ok: false,
  because: "conflict",
  problems: { form: "This form was already used for another record. Load the page again; what you typed stays here." },
};

/**
 * What to answer where this form has made its record already.
 * @param owner columns by which that record has to be this form's own; none: the table is the only place
 * @returns undefined: it is new
 */
export async function sentBefore<T extends SubmittedTable>(
  q: Queryable,
  table: T,
  submission: string,
  owner: Owner<T>,
): Promise<Answer | undefined> {
  const columns = getTableColumns(table as PgTable) as Record<string, PgColumn>;
  const own = Object.entries(owner as Record<string, string | null>).map(
    ([name, value]) => sql`${columns[name]!} is not distinct from ${value}`,
  );
  const [row] = await q
    .select({ id: table.id, own: own.length > 0 ? sql<boolean>`${sql.join(own, sql` and `)}` : sql<boolean>`true` })
    .from(table as PgTable)
    .where(eq(table.submission, submission));
  if (!row) return undefined;
  return row.own ? { ok: true, id: row.id as string } : sentElsewhere;
}

/** After a unique index was broken: the answer of the copy that was faster; undefined where it was another rule. */
export async function sentMeanwhile<T extends SubmittedTable>(
  error: unknown,
  table: T,
  submission: string,
  owner: Owner<T>,
): Promise<Answer | undefined> {
  return brokenConstraint(error) ? sentBefore(db(), table, submission, owner) : undefined;
}
