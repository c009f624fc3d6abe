/** What the record knows of a circuit already: it enters an isolation by itself, as results that can be taken out. */
import { DAY } from "@core";
import { and, desc, eq, gte, inArray, isNotNull, isNull, ne } from "drizzle-orm";
import type { OilAssessment } from "@core";
import { db } from "~/db/client.server";
import { debrisEvents, oilAssessments, oilEvents } from "~/db/oilTables";
import { circuits, components, interventions, temporaryChanges } from "~/db/schema";
import { currentOil } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { stoodLong } from "./stood.server";
import { recordedSince } from "./testRecords.server";

/** Work and fills of so many days may have to do with a fault of today. */
const LATELY = 60 * DAY;
/** A sample older than this says nothing of today. */
const SAMPLE_SPEAKS = 120 * DAY;
/** A guided test older than this says nothing of today. */
const RECORD_SPEAKS = 14 * DAY;
/** Viscosity off its stated one by this share is too thin or too thick (ISO 3448 leaves a grade 10 %). */
const OFF_GRADE = 0.1;

/** Water beyond what the oil dissolves, percent. */
const SATURATED = 100;

export interface Fact {
  /** Id of a test, at its place where it has one. */
  test: string;
  result: string;
  /** Whom the page names for it. */
  from: string;
}

/** What an oil sample shows, in the words of the test; null: too old, or none. */
function oilResult(oil: OilAssessment | null): string | null {
  if (!oil || oil.lastAt === null || oil.lastAt < now() - SAMPLE_SPEAKS) return null;
  if (oil.water !== null && oil.water.share !== null && oil.water.share >= SATURATED) return "water";
  if (oil.viscosityOff !== null && Math.abs(oil.viscosityOff) > OFF_GRADE)
    return oil.viscosityOff < 0 ? "thin" : "thick";
  // one metal that is a little higher than ever is watched, and is no dirt yet
  const pressing = oil.state === "alert" || oil.state === "alarm";
  const dirty = oil.over.some((over) => over !== null && over > 0) || oil.metals.length > 0;
  return pressing && dirty ? "dirty" : "right";
}

/** Facts of the record about a circuit. */
export async function factsOf(circuitId: string): Promise<Fact[]> {
  const since = new Date(now() - LATELY);
  const [[work], [fill], [altered], [oil], [debris], stood, recorded] = await Promise.all([
    db()
      .select({ id: interventions.id })
      .from(interventions)
      .innerJoin(components, eq(components.id, interventions.componentId))
      .where(
        and(
          eq(components.circuitId, circuitId),
          isNotNull(interventions.doneAt),
          gte(interventions.doneAt, since),
          ne(interventions.kind, "inspection"),
        ),
      )
      .limit(1),
    db()
      .select({ id: oilEvents.id })
      .from(oilEvents)
      .where(
        and(
          eq(oilEvents.circuitId, circuitId),
          gte(oilEvents.at, since),
          inArray(oilEvents.kind, ["fill", "change", "topUp"]),
          isNull(oilEvents.withdrawnAt),
        ),
      )
      .limit(1),
    db()
      .select({ id: temporaryChanges.id })
      .from(temporaryChanges)
      .innerJoin(circuits, eq(circuits.machineId, temporaryChanges.machineId))
      .where(and(eq(circuits.id, circuitId), isNull(temporaryChanges.putBackAt)))
      .orderBy(desc(temporaryChanges.at))
      .limit(1),
    db().select({ detail: currentOil }).from(oilAssessments).where(eq(oilAssessments.circuitId, circuitId)),
    db()
      .select({ id: debrisEvents.id })
      .from(debrisEvents)
      .where(and(eq(debrisEvents.circuitId, circuitId), isNull(debrisEvents.closedAt)))
      .limit(1),
    stoodLong(circuitId, now()),
    recordedSince(circuitId, new Date(now() - RECORD_SPEAKS)),
  ]);
  const facts: Fact[] = [];
  if (altered) facts.push({ test: "ask.lately", result: "settings", from: "the register of temporary changes" });
  if (work) facts.push({ test: "ask.lately", result: "opened", from: "the work record" });
  else if (fill) facts.push({ test: "ask.lately", result: "filled", from: "the record of fills" });
  if (stood) facts.push({ test: "ask.stood", result: "yes", from: "the running hours of its readings" });
  const sample = oilResult(oil?.detail ?? null);
  if (debris) facts.push({ test: "oil.sample", result: "dirty", from: "the open debris event" });
  else if (sample) facts.push({ test: "oil.sample", result: sample, from: "the newest oil sample" });
  for (const { test, result, by } of recorded) facts.push({ test, result, from: `a guided test, ${by}` });
  return facts;
}
