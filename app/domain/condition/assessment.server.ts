/**
 * Assessments are made here, when a reading lands and in jobs; pages only read them.
 * A point is stale from the moment something about it changes (in the same transaction) until it has been assessed
 * again, so an assessment that was lost on the way is made by the next sweep. Nothing is locked while it is worked
 * out: what changes meanwhile counts `asked` on, and an assessment of an older count leaves the point stale.
 */
import { and, eq, inArray, isNull, ne, sql, type SQL } from "drizzle-orm";
import { DAY, dayStart, urgenciesOf, type AssessStop, type PointQuantityId } from "@core";
import { db, isDatabaseDown, type Queryable } from "~/db/client.server";
import { oilAssessments } from "~/db/oilTables";
import {
  assessments,
  circuitDiagnoses,
  forecastsIssued,
  points,
  sites,
  stops,
  type AssessmentDetail,
  type AssessmentMemory,
} from "~/db/schema";
import { claimStale, inParallel, sweep } from "./claims.server";
import { now } from "~/runtime/clock.server";
import { keepEvidence, peersOf, readEndedLives } from "./peerEvidence.server";
import { log } from "~/runtime/log.server";
import { notOver } from "./chances.server";
import { assessPointOf, contextOf, countOfLife, pointSetups, readingsOfLife, type PointSetup } from "./setups.server";
import { assessInThread, type AssessResult } from "./threads.server";
import { errorText } from "~/runtime/errors";

/**
 * Shape of the JSON that an assessment stores. Count it on when it changes, or when
 * the words of verdicts do: what has another shape is not read, and made again.
 */
export const ASSESSMENT_SHAPE = 11;

/** What the pages of a machine and its circuits read of an assessment: a fraction of it. */
export type AssessmentParts = Pick<AssessmentDetail, "baseline" | "limits" | "expectation" | "lastAt" | "margin">;
export const partsOf = (alias: SQL) => sql<AssessmentParts | null>`case when ${alias}.shape = ${ASSESSMENT_SHAPE} then
  jsonb_build_object('baseline', ${alias}.detail -> 'baseline', 'limits', ${alias}.detail -> 'limits',
    'expectation', ${alias}.detail -> 'expectation', 'lastAt', ${alias}.detail -> 'lastAt', 'margin', ${alias}.detail -> 'margin') end`;
export const currentParts = partsOf(sql`${assessments}`);

/** The stored assessment where it has the shape that this version reads, else null. */
export const currentDetail = sql<AssessmentDetail | null>`case when ${assessments.shape} = ${ASSESSMENT_SHAPE} then ${assessments.detail} end`;

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

const asDate = (ms: number | null | undefined) => (ms === null || ms === undefined ? null : new Date(ms));

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

/** Chance of standing beyond the limit from which nothing is forecast any more. */
const CROSSED = 0.5;
/** Dates nearer than this to those last issued are the same forecast: a day, or this share of the time to them. */
const SAME_DAYS = DAY;
const SAME_SHARE = 0.1;

/** What an assessment shows of the future, to be held to account later; null: nothing. Dates are epoch ms. */
export function issuedOf({ forecast, noTrend, beyond, lastAt, readings }: Omit<AssessmentDetail, "marks">) {
  if (!forecast || lastAt === null || beyond >= CROSSED) return null;
  const nothing = { p10: null, p50: null, p90: null };
  return {
    lastReadingAt: lastAt,
    readings,
    noTrend: noTrend !== null,
    ...(noTrend ? { p5: noTrend.earliest, ...nothing } : forecast.dates),
    paths: forecast.paths,
    like: forecast.like,
  };
}

/** A forecast as a row of the record. */
export const issuedRow = (
  pointId: string,
  lifeId: string,
  issuedAt: number,
  { lastReadingAt, p5, p10, p50, p90, ...rest }: NonNullable<ReturnType<typeof issuedOf>>,
): typeof forecastsIssued.$inferInsert => ({
  pointId,
  lifeId,
  issuedAt: new Date(issuedAt),
  lastReadingAt: new Date(lastReadingAt),
  p5: asDate(p5),
  p10: asDate(p10),
  p50: asDate(p50),
  p90: asDate(p90),
  ...rest,
  model: ASSESSMENT_SHAPE,
});

/** Keep a forecast as it is shown, where it says something else than the last one of this life. */
async function issue(
  tx: Queryable,
  pointId: string,
  lifeId: string,
  forecast: NonNullable<ReturnType<typeof issuedOf>>,
): Promise<void> {
  const [last] = await tx
    .select()
    .from(forecastsIssued)
    .where(and(eq(forecastsIssued.pointId, pointId), eq(forecastsIssued.lifeId, lifeId)))
    .orderBy(sql`${forecastsIssued.issuedAt} desc`)
    .limit(1);
  const same = (before: Date | null, after: number | null) => {
    if (before === null || after === null) return before === after;
    return Math.abs(before.getTime() - after) <= Math.max(SAME_DAYS, SAME_SHARE * Math.abs(after - now()));
  };
  const keys = ["p5", "p10", "p50", "p90"] as const;
  if (last && keys.every((key) => same(last[key], forecast[key]))) return;
  await tx.insert(forecastsIssued).values(issuedRow(pointId, lifeId, now(), forecast));
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
