/** One circuit's oil: what it says, and the samples that say so. */
import { and, desc, eq, inArray, isNull, sql } from "drizzle-orm";
import {
  countFor,
  incomparable,
  sampleIso,
  sampleSeries,
  type AnalyteId,
  type MetalPoint,
  type OilAssessment,
  type OilSample,
} from "@core";
import { db } from "~/db/client.server";
import { debrisEvents, oilAssessments, oilEvents, samples } from "~/db/oilTables";
import { assessments, components, lives, points } from "~/db/schema";
import { currentOil, oilSampleOf, samplesOf } from "~/domain/condition/index.server";
import { now } from "~/runtime/clock.server";
import { circuitPlace } from "./place.server";
import { listed } from "./samplePage.server";

const SHOWN_SAMPLES = 30;
const MOST_CHANGES = 20;

/** Counts (per mL, over 4, 6 and 14 µm) and numbers of the code for the pictures: small, since it goes to the browser. */
export interface OilPicturePoint {
  at: number;
  comparable: boolean;
  counts: (number | null)[];
  numbers: (number | null)[];
}

function picturePoint(sample: OilSample): OilPicturePoint {
  return {
    at: sample.at,
    comparable: incomparable(sample) === null,
    counts: (["over4", "over6", "over14"] as const).map((id) => countFor(sample, id)),
    numbers: (sampleIso(sample)?.codes ?? [null, null, null]).map((c) => (typeof c === "number" ? c : null)),
  };
}

/** The metal that is shown first: the first that is beyond something. */
export function firstMetal(metals: OilAssessment["metals"]): AnalyteId | null {
  return (metals.find((m) => m.passed.length > 0) ?? metals[0])?.id ?? null;
}

/** The series of one metal of a circuit, for its picture. */
export async function metalOf(circuitId: string, metal: AnalyteId): Promise<MetalPoint[]> {
  const [row] = await db()
    .select({ points: sql<MetalPoint[] | null>`${oilAssessments.detail} -> 'metalPoints' -> ${metal}::text` })
    .from(oilAssessments)
    .where(eq(oilAssessments.circuitId, circuitId));
  return row?.points ?? [];
}

/** An assessment as its page shows it. */
export type ShownOil = Omit<OilAssessment, "metalPoints" | "rates" | "measured">;

/** One circuit's oil: what it says, and the samples that say so. */
export async function circuitPage(id: string) {
  const [place, [stored], found, withdrawn, events, changes, elementPoints, strainers] = await Promise.all([
    circuitPlace(id),
    // without the series: they are as large as all the rest, and one of them is shown
    db()
      .select({
        detail: sql<ShownOil | null>`(${currentOil}) - 'metalPoints' - 'rates' - 'measured'`,
        stale: oilAssessments.stale,
      })
      .from(oilAssessments)
      .where(eq(oilAssessments.circuitId, id)),
    samplesOf(db(), [id]),
    db()
      .select()
      .from(samples)
      .where(and(eq(samples.circuitId, id), sql`${samples.withdrawnAt} is not null`))
      .orderBy(desc(samples.takenAt))
      .limit(5),
    db()
      .select({
        id: debrisEvents.id,
        what: debrisEvents.what,
        openedAt: debrisEvents.openedAt,
        closedAt: debrisEvents.closedAt,
      })
      .from(debrisEvents)
      .where(eq(debrisEvents.circuitId, id))
      .orderBy(desc(debrisEvents.openedAt))
      .limit(6),
    db()
      .select({ at: oilEvents.at })
      .from(oilEvents)
      .where(
        and(eq(oilEvents.circuitId, id), inArray(oilEvents.kind, ["fill", "change"]), isNull(oilEvents.withdrawnAt)),
      )
      .orderBy(desc(oilEvents.at))
      .limit(MOST_CHANGES),
    db()
      .select({ componentId: components.id, pointId: points.id })
      .from(points)
      .innerJoin(components, eq(components.id, points.componentId))
      .where(and(eq(components.circuitId, id), eq(points.quantity, "pressureDrop"), isNull(points.retiredAt))),
    db()
      .select({
        pointId: points.id,
        component: components.name,
        state: assessments.state,
        verdict: assessments.verdict,
        margin: assessments.margin,
      })
      .from(points)
      .innerJoin(components, eq(components.id, points.componentId))
      .innerJoin(assessments, eq(assessments.pointId, points.id))
      .where(
        and(
          eq(components.circuitId, id),
          eq(points.quantity, "vacuum"),
          isNull(points.retiredAt),
          isNull(components.retiredAt),
        ),
      )
      .orderBy(components.position),
  ]);
  const all = found.get(id) ?? [];
  const read = all.map(oilSampleOf);
  const detail = stored?.detail ?? null;
  const latest = all.find((s) => s.id === detail?.lastSampleId);
  const metal = detail ? firstMetal(detail.metals) : null;
  return {
    circuitId: id,
    name: place.circuit.name,
    machine: place.machine,
    machineId: place.machineId,
    area: place.area,
    volume: place.circuit.volume,
    fluid: place.fluid?.name ?? null,
    timeZone: place.timeZone,
    now: now(),
    detail,
    stale: stored?.stale ?? true,
    picture: read.map(picturePoint),
    series: sampleSeries(read),
    changes: changes.map((c) => c.at.getTime()),
    kv40: place.fluid?.kv40 ?? null,
    latest: latest ? oilSampleOf(latest) : null,
    metal: metal ? { id: metal, points: await metalOf(id, metal) } : null,
    listed: [...all.slice(-SHOWN_SAMPLES), ...withdrawn]
      .sort((a, b) => b.takenAt.getTime() - a.takenAt.getTime())
      .map(listed),
    events: events.map((e) => ({
      id: e.id,
      what: e.what,
      openedAt: e.openedAt.getTime(),
      closedAt: e.closedAt?.getTime() ?? null,
    })),
    elementPoints,
    strainers,
  };
}

/** Filters with the element that is in, for the form that renews it. */
export async function elementsIn(circuitId: string) {
  return db()
    .select({
      componentId: components.id,
      lifeId: lives.id,
      name: components.name,
      since: lives.startedAt,
      element: lives.serial,
    })
    .from(components)
    .leftJoin(lives, and(eq(lives.componentId, components.id), isNull(lives.endedAt)))
    .where(
      and(eq(components.circuitId, circuitId), isNull(components.retiredAt), sql`${components.filter} is not null`),
    );
}
