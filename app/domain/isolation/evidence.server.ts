/** What an isolation rests on, in words, for the work that comes of it. */
import { and, asc, eq, inArray, isNull } from "drizzle-orm";
import { lowerFirst, symptoms } from "@core";
import type { Queryable } from "~/db/client.server";
import { isolationResults, isolations } from "~/db/schema";
import { caseOf } from "./caseOf.server";
import { resultText } from "./casePage.server";

/** The symptom and the tests that stand, in order; null: there is no such isolation. */
export async function evidenceWords(q: Queryable, id: string): Promise<string | null> {
  const [isolation] = await q.select().from(isolations).where(eq(isolations.id, id));
  if (!isolation) return null;
  const results = await q
    .select({ test: isolationResults.test, result: isolationResults.result })
    .from(isolationResults)
    .where(and(eq(isolationResults.isolationId, id), isNull(isolationResults.withdrawnAt)))
    .orderBy(asc(isolationResults.place));
  const own = caseOf(isolation);
  return [symptoms[isolation.symptom].label, ...results.map((r) => lowerFirst(resultText(own, r.test, r.result)))].join(
    "; ",
  );
}

/** Every test that stands of several isolations, in words, with who entered it: for the thread of a job. */
export async function evidenceTexts(q: Queryable, ids: readonly string[]) {
  if (ids.length === 0) return [];
  const cases = await q
    .select()
    .from(isolations)
    .where(inArray(isolations.id, [...ids]));
  const results = await q
    .select()
    .from(isolationResults)
    .where(and(inArray(isolationResults.isolationId, [...ids]), isNull(isolationResults.withdrawnAt)))
    .orderBy(asc(isolationResults.place));
  const own = new Map(cases.map((c) => [c.id, caseOf(c)]));
  return results.map((r) => ({
    isolationId: r.isolationId,
    at: r.enteredAt.getTime(),
    by: r.enteredBy,
    text: resultText(own.get(r.isolationId)!, r.test, r.result),
  }));
}
