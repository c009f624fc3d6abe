/** Marking stale: the next sweep assesses anew. */
import { and, eq, sql } from "drizzle-orm";
import { urgenciesOf, type PointQuantityId } from "@core";
import { db, type Queryable } from "~/db/client.server";
import { oilAssessments } from "~/db/oilTables";
import { assessments, circuitDiagnoses } from "~/db/schema";

/**
 * The diagnosis of a circuit is to be made anew. Last in a transaction that writes assessments, so that nobody waits for
 * its row with an assessment in hand.
 */
export async function markDiagnosisStale(tx: Queryable, circuitId: string): Promise<void> {
  await tx
    .insert(circuitDiagnoses)
    .values({ circuitId })
    .onConflictDoUpdate({
      target: circuitDiagnoses.circuitId,
      set: { stale: true, asked: sql`${circuitDiagnoses.asked} + 1`, failures: 0, triedAt: null },
    });
}

/** Readings that the oil of their circuit is judged with: filters, and leakage that wear metals are held against. */
export const oilQuantities: readonly PointQuantityId[] = ["pressureDrop", "caseDrainFlow", "leakageFlow"];

const ids = (list: readonly string[]) => sql`${sql.param([...list])}::uuid[]`;

/** Something has changed: it is tried at once, however often it failed before. */
const asksAnew = sql`stale = true, asked = asked + 1, failures = 0, tried_at = null`;

/** Mark points stale, within the transaction that changes something about them. */
export async function markStale(tx: Queryable, pointIds: readonly string[]): Promise<void> {
  if (pointIds.length === 0) return;
  // the oil first, then the points, each in the order of their ids: whoever marks several takes the rows in one order
  await tx.execute(sql`update oil_assessments set ${asksAnew} where circuit_id in (select circuit_id from oil_assessments where circuit_id in (
    select c.circuit_id from points p join components c on c.id = p.component_id where p.id = any(${ids(pointIds)})
      and p.quantity in ${oilQuantities}) order by circuit_id for update)`);
  await tx.execute(
    sql`update assessments set ${asksAnew} where point_id in (select point_id from assessments
      where point_id = any(${ids(pointIds)}) order by point_id for update)`,
  );
}

/** Mark every point and every circuit's oil stale. */
export async function markAllStale(): Promise<void> {
  await db().execute(
    sql`update assessments set ${asksAnew} where point_id in (select point_id from assessments order by point_id for update)`,
  );
  await db().execute(
    sql`update oil_assessments set ${asksAnew} where circuit_id in (select circuit_id from oil_assessments order by circuit_id for update)`,
  );
}

/** A new point has an assessment from the start: "no reading yet". */
export async function addEmptyAssessments(tx: Queryable, pointIds: readonly string[]): Promise<void> {
  if (pointIds.length === 0) return;
  await tx
    .insert(assessments)
    .values(
      pointIds.map((pointId) => ({
        pointId,
        state: "unread" as const,
        urgency: urgenciesOf("unread")[0],
        readings: 0,
        verdict: [{ text: "No reading yet." }],
        stale: true,
      })),
    )
    .onConflictDoNothing();
}

/** The oil of a circuit was judged at this count of changes, and its points are stale because of that: it need not be judged again. */
export async function oilIsFresh(tx: Queryable, circuitId: string, asked: number): Promise<void> {
  await tx
    .update(oilAssessments)
    .set({ stale: false })
    .where(and(eq(oilAssessments.circuitId, circuitId), eq(oilAssessments.asked, asked)));
}
