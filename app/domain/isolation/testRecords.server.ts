/** Tests that were guided in Tests, as results of an isolation: taken only where the record leaves no doubt which it was. */
import { and, desc, eq, gte } from "drizzle-orm";
import { isolationTests, testAtOf, type IsolationTest, type Outcome } from "@core";
import { db } from "~/db/client.server";
import { components, testRecords } from "~/db/schema";

const MOST = 30;

export interface RecordedResult {
  recordId: string;
  /** Test at its place, and its result, as an isolation has them. */
  test: string;
  result: string;
  at: number;
  by: string;
}

/**
 * Which result a record stands for: the ordinary one where it was in order, the other one where it was not and there is
 * only one other; null: the record does not say.
 */
export function resultOfTone(test: IsolationTest, tone: Outcome["tone"]): string | null {
  const [usual, ...signs] = Object.keys(test.results);
  if (tone === "good") return usual ?? null;
  return tone === "bad" && signs.length === 1 ? signs[0]! : null;
}

/** What guided tests of a circuit's components have shown since a moment, the newest of each test first. */
export async function recordedSince(circuitId: string, since: Date): Promise<RecordedResult[]> {
  const rows = await db()
    .select({
      id: testRecords.id,
      test: testRecords.test,
      componentId: testRecords.componentId,
      outcome: testRecords.outcome,
      at: testRecords.at,
      by: testRecords.by,
    })
    .from(testRecords)
    .innerJoin(components, eq(components.id, testRecords.componentId))
    .where(and(eq(components.circuitId, circuitId), gte(testRecords.at, since)))
    .orderBy(desc(testRecords.at))
    .limit(MOST);
  const found = new Map<string, RecordedResult>();
  for (const row of rows)
    for (const [id, test] of Object.entries(isolationTests)) {
      if (test.procedure !== row.test) continue;
      const result = resultOfTone(test, row.outcome.tone);
      const at = testAtOf(id, test.at === undefined ? null : row.componentId);
      if (result && !found.has(at))
        found.set(at, { recordId: row.id, test: at, result, at: row.at.getTime(), by: row.by });
    }
  return [...found.values()];
}
