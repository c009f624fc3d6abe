/** What the clean-up page starts from. */
import { and, eq, isNull, sql } from "drizzle-orm";
import { db } from "~/db/client.server";
import { oilAssessments } from "~/db/oilTables";
import { components } from "~/db/schema";
import { currentOil, oilSampleOf, samplesOf } from "~/domain/condition/index.server";
import { circuitPlace } from "./place.server";

/** What the clean-up page starts from. */
export async function cleanUpPage(id: string) {
  const [place, rows, [stored], found] = await Promise.all([
    circuitPlace(id),
    db()
      .select({ id: components.id, name: components.name, filter: components.filter })
      .from(components)
      .where(and(eq(components.circuitId, id), isNull(components.retiredAt), sql`${components.filter} is not null`)),
    db().select({ detail: currentOil }).from(oilAssessments).where(eq(oilAssessments.circuitId, id)),
    samplesOf(db(), [id]),
  ]);
  return {
    circuitId: id,
    name: place.circuit.name,
    machine: place.machine,
    volume: place.circuit.volume,
    hoursPerDay: place.hoursPerDay,
    filters: rows,
    target: stored?.detail?.target ?? null,
    step: stored?.detail?.step ?? null,
    samples: (found.get(id) ?? []).map(oilSampleOf),
  };
}
