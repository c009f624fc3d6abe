/** An isolation as it was kept, made into a case that can be reckoned with. */
import { and, asc, eq, isNull } from "drizzle-orm";
import { beginCase, type IsolationCase, type TestResult } from "@core";
import type { Queryable } from "~/db/client.server";
import { isolationResults, type isolations } from "~/db/schema";

/** The case of a stored isolation. */
export function caseOf({
  symptom,
  netlist,
  evidence,
  taught,
  plant,
}: Pick<typeof isolations.$inferSelect, "symptom" | "netlist" | "evidence" | "taught" | "plant">): IsolationCase {
  return beginCase(symptom, netlist && evidence ? { netlist, evidence } : null, { ...plant, found: taught }, netlist);
}

/** Results that count, in the order in which they came. */
export async function resultsOf(q: Queryable, isolationId: string): Promise<TestResult[]> {
  const rows = await q
    .select({ at: isolationResults.test, result: isolationResults.result })
    .from(isolationResults)
    .where(and(eq(isolationResults.isolationId, isolationId), isNull(isolationResults.withdrawnAt)))
    .orderBy(asc(isolationResults.place));
  return rows;
}
