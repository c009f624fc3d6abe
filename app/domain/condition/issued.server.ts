/** Forecasts as issued, so that what came can be held against what was said. */
import { and, eq, sql } from "drizzle-orm";
import { DAY } from "@core";
import type { Queryable } from "~/db/client.server";
import { forecastsIssued, type AssessmentDetail } from "~/db/schema";
import { now } from "~/runtime/clock.server";
import { ASSESSMENT_SHAPE, asDate } from "./shape.server";

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
export async function issue(
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
