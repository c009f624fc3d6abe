/**
 * Assessments are made here, when a reading lands and in jobs; pages only read them.
 * A point is stale from the moment something about it changes (in the same transaction) until it has been assessed
 * again, so an assessment that was lost on the way is made by the next sweep. Nothing is locked while it is worked
 * out: what changes meanwhile counts `asked` on, and an assessment of an older count leaves the point stale.
 */
import { and, eq, inArray, isNull, ne, sql } from "drizzle-orm";
import { DAY, dayStart, type AssessStop } from "@core";
import { db, isDatabaseDown, type Queryable } from "~/db/client.server";
import { assessments, points, sites, stops, type AssessmentMemory } from "~/db/schema";
import { claimStale, inParallel, sweep } from "./claims.server";
import { now } from "~/runtime/clock.server";
import { keepEvidence, peersOf, readEndedLives } from "./peerEvidence.server";
import { log } from "~/runtime/log.server";
import { notOver } from "./chances.server";
import { assessPointOf, contextOf, countOfLife, pointSetups, readingsOfLife, type PointSetup } from "./setups.server";
import { assessInThread, type AssessResult } from "./threads.server";
import { errorText } from "~/runtime/errors";
import { issuedOf, issue } from "./issued.server";
import { markDiagnosisStale } from "./marking.server";
import { ASSESSMENT_SHAPE, currentDetail, asDate } from "./shape.server";

/** Stops to come of the sites, and those under way, by site. A stop is a day of its site. */
export async function stopsBySite(tx: Queryable, siteIds: readonly string[]): Promise<Map<string, AssessStop[]>> {
  const bySite = new Map<string, AssessStop[]>();
  if (siteIds.length === 0) return bySite;
  const rows = await tx
    .select({
      id: stops.id,
      siteId: stops.siteId,
      startsOn: stops.startsOn,
      days: stops.days,
      timeZone: sites.timeZone,
    })
    .from(stops)
    .innerJoin(sites, eq(sites.id, stops.siteId))
    .where(and(inArray(stops.siteId, [...new Set(siteIds)]), isNull(stops.retiredAt), notOver()));
  for (const row of rows) {
    const list = bySite.get(row.siteId) ?? [];
    const at = dayStart(row.startsOn, row.timeZone);
    list.push({ id: row.id, at, until: at + row.days * DAY });
    bySite.set(row.siteId, list);
  }
  return bySite;
}

/** Assess one point now and store the result. `ended`: read what its ended lives tell first. A failure is noted at the point, unless the database is away. */
export async function assessPoint(pointId: string, { ended = false } = {}): Promise<void> {
  const [row] = await db()
    .select({
      asked: assessments.asked,
      lifeId: assessments.lifeId,
      memory: sql<AssessmentMemory | null>`${currentDetail} -> 'memory'`,
    })
    .from(assessments)
    .where(eq(assessments.pointId, pointId));
  const [setup] = await pointSetups(db()).where(eq(points.id, pointId));
  if (!setup) return;
  const asked = row?.asked ?? 0;
  try {
    if (ended) await readEndedLives(db(), setup);
    const lifeReadings = setup.lifeId ? await readingsOfLife(db(), pointId, setup.lifeId) : [];
    const readingsInAll = setup.lifeId ? await countOfLife(db(), pointId, setup.lifeId) : 0;
    const siteStops = (await stopsBySite(db(), [setup.siteId])).get(setup.siteId) ?? [];
    const result = await assessInThread({
      readings: lifeReadings,
      point: assessPointOf(setup),
      context: { ...contextOf(setup, siteStops), readingsInAll },
      kind: setup.componentKind,
      peers: await peersOf(db(), setup),
      before: row && row.lifeId === setup.lifeId ? row.memory : null,
    });
    await db().transaction((tx) => store(tx, setup, result, asked));
  } catch (error) {
    if (isDatabaseDown(error)) throw error;
    log.error({ err: errorText(error), pointId }, "a point could not be assessed");
    await db()
      .update(assessments)
      .set({ failure: errorText(error), failures: sql`${assessments.failures} + 1`, triedAt: new Date() })
      .where(eq(assessments.pointId, pointId));
  }
}

async function store(
  tx: Queryable,
  setup: PointSetup,
  { detail, json, life, reached, outcome }: AssessResult,
  asked: number,
): Promise<void> {
  const shown = detail.noTrend ? null : detail.forecast;
  const values = {
    lifeId: setup.lifeId,
    state: detail.state,
    urgency: detail.urgency,
    readings: detail.readings,
    lastAt: asDate(detail.lastAt),
    lastRaw: detail.lastRaw,
    margin: detail.margin,
    verdict: detail.verdict,
    p10: asDate(shown?.dates.p10),
    p50: asDate(shown?.dates.p50),
    p90: asDate(shown?.dates.p90),
    detail: sql`${json}::jsonb`,
    shape: ASSESSMENT_SHAPE,
    asksAgain: detail.unconfirmed !== null,
    failure: null,
    failures: 0,
    triedAt: null,
    assessedAt: new Date(now()),
  };
  // what was stored by another version was judged otherwise: the plant has not changed by it
  const changed = sql`${assessments.state} <> excluded.state and ${assessments.shape} = excluded.shape`;
  await tx
    .insert(assessments)
    .values({ pointId: setup.pointId, ...values, stale: false })
    .onConflictDoUpdate({
      target: assessments.pointId,
      set: {
        ...values,
        stale: sql`${assessments.asked} <> ${asked}`,
        stateBefore: sql`case when ${changed} then ${assessments.state} else ${assessments.stateBefore} end`,
        stateSince: sql`case when ${changed} then excluded.assessed_at else ${assessments.stateSince} end`,
      },
    });
  await markDiagnosisStale(tx, setup.circuitId);
  if (!setup.lifeId) return;
  await keepEvidence(tx, setup, setup.lifeId, { life, reached, outcome });
  const issued = issuedOf(detail);
  if (issued) await issue(tx, setup.pointId, setup.lifeId, issued);
}

/** Assess these points, one after another. */
export async function assessPoints(pointIds: readonly string[]): Promise<void> {
  await inParallel(pointIds, (id) => assessPoint(id));
}

/** Assess every stale point, oldest first, until none is left or the time is up. Several workers may run it: each claims its own. */
export async function assessStalePoints(until = Infinity): Promise<void> {
  await db()
    .update(assessments)
    .set({ stale: true })
    .where(and(ne(assessments.shape, ASSESSMENT_SHAPE), eq(assessments.stale, false)));
  await sweep(
    () => claimStale("assessments", "point_id"),
    (id) => assessPoint(id, { ended: true }),
    until,
  );
}
