/**
 * The one rule against saving twice: every form that adds a record carries an id (`submission`), the record keeps it,
 * and a unique index refuses a second. A copy of the form is answered with the record of the first. Two copies at the
 * same moment both find nothing; the slower one breaks the index and looks again.
 */
import { eq } from "drizzle-orm";
import type { PgColumn, PgTable } from "drizzle-orm/pg-core";
import { brokenConstraint, db, type Queryable } from "~/db/client.server";

type SubmittedTable = PgTable & { id: PgColumn; submission: PgColumn };

/** Id of the record that this form has already made, if it has. */
export async function sentBefore(q: Queryable, table: SubmittedTable, submission: string): Promise<string | undefined> {
  const [row] = await q.select({ id: table.id }).from(table).where(eq(table.submission, submission));
  return row?.id as string | undefined;
}

/** After a unique index was broken: the record of the copy that was faster; undefined where it was another rule. */
export async function sentMeanwhile(
  error: unknown,
  table: SubmittedTable,
  submission: string,
): Promise<string | undefined> {
  return brokenConstraint(error) ? sentBefore(db(), table, submission) : undefined;
}
