/** What the commands about a circuit's oil share: moments, the lock of its row, its first fill, assessing it again. */
import { and, asc, eq, inArray, isNull } from "drizzle-orm";
import { CLOCK_SLACK } from "@core";
import type { Queryable } from "~/db/client.server";
import { oilEvents } from "~/db/oilTables";
import { circuits } from "~/db/schema";
import { assessOilNow } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { requestAssessment } from "~/platform/jobs.server";
import { localMoment } from "~/platform/validate";

/** A date as a message writes it. */
export const day = (at: Date, timeZone: string) =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric", timeZone }).format(at);

/** A moment typed into a form, or what is wrong with it. */
export function momentOf(text: string | undefined, timeZone: string): number | string {
  const at = localMoment(text ?? "", timeZone);
  if (Number.isNaN(at)) return "Write the date and time as 2026-11-20 10:40.";
  return at > now() + CLOCK_SLACK ? "That is in the future." : at;
}

/** First of all rows: whoever changes a circuit or what is said of its oil takes them in one order. */
export async function lockCircuit(tx: Queryable, circuitId: string): Promise<void> {
  await tx.select({ id: circuits.id }).from(circuits).where(eq(circuits.id, circuitId)).for("no key update");
}

/** When the circuit was first filled; null: nobody noted it. */
export async function firstFill(tx: Queryable, circuitId: string): Promise<Date | null> {
  const [row] = await tx
    .select({ at: oilEvents.at })
    .from(oilEvents)
    .where(
      and(
        eq(oilEvents.circuitId, circuitId),
        isNull(oilEvents.withdrawnAt),
        inArray(oilEvents.kind, ["fill", "change"]),
      ),
    )
    .orderBy(asc(oilEvents.at))
    .limit(1);
  return row?.at ?? null;
}

/** Assess the oil at once, and let the worker see to the points that reckon with it. */
export async function reassess(circuitId: string): Promise<void> {
  await assessOilNow(circuitId);
  await requestAssessment();
}
