/** What a report draws of a point: its readings at the reference condition, as new, limit, and what is forecast. */
import { eq, inArray, sql } from "drizzle-orm";
import { correctSeries, type AssessedForecast, type Assessment } from "@core";
import { db } from "~/db/client.server";
import { assessments, instruments, lives, points, readings } from "~/db/schema";
import {
  assessedColumns,
  assessPointOf,
  assessReadingOf,
  contextOf,
  currentDetail,
  pointSetups,
} from "~/domain/condition/index.server";

/** Readings drawn of one point; a longer life is thinned, and its last ones stay. */
const DRAWN = 90;
/** Newest readings of a life that are read for it. */
const READ = 270;

export interface ReportChart {
  /** Moment, value in core units, and whether the judgement leaves it out. */
  readings: { at: number; value: number; odd: boolean }[];
  asNew: number | null;
  limits: Assessment["limits"];
  ahead: AssessedForecast["fan"];
}

/** Every n-th, so that at most so many are left, the newest among them. */
function thinned<T>(all: readonly T[], most: number): T[] {
  const step = Math.ceil(all.length / most);
  return all.filter((_, i) => (all.length - 1 - i) % step === 0);
}

/** The newest readings of the lives that the points have now, oldest first. */
const newestReadings = (ids: readonly string[]) =>
  db()
    .select(assessedColumns)
    .from(readings)
    .leftJoin(instruments, eq(instruments.id, readings.instrumentId))
    .where(
      sql`${readings.id} in (select r.id from assessments a cross join lateral
        (select n.id from readings n where n.point_id = a.point_id and n.life_id = a.life_id and n.superseded_at is null
         order by n.taken_at desc limit ${READ}) r where a.point_id = any(${sql.param([...ids])}::uuid[]))`,
    )
    .orderBy(readings.takenAt);

/** Charts of some points, by point; a point that was never read has none. */
export async function chartsOf(pointIds: readonly string[]): Promise<Record<string, ReportChart>> {
  if (pointIds.length === 0) return {};
  const [setups, rows, stored] = await Promise.all([
    pointSetups(db()).where(inArray(points.id, [...pointIds])),
    newestReadings(pointIds),
    db()
      .select({ id: assessments.pointId, life: lives, detail: currentDetail })
      .from(assessments)
      .innerJoin(lives, eq(lives.id, assessments.lifeId))
      .where(inArray(assessments.pointId, [...pointIds])),
  ]);
  return Object.fromEntries(
    stored.flatMap(({ id, life, detail }): [string, ReportChart][] => {
      const setup = setups.find((s) => s.pointId === id);
      const read = rows.filter((r) => r.pointId === id);
      if (!setup || read.length === 0 || !detail) return [];
      const { readings: series } = correctSeries(
        read.map(assessReadingOf),
        assessPointOf(setup),
        contextOf(setup, [], life),
      );
      const drawn = thinned(series, DRAWN).map((s) => {
        const mark = detail.marks[s.id] ?? s.mark;
        return { at: s.at, value: s.corrected, odd: mark !== null && mark !== "offCondition" };
      });
      // where no trend is proved the page names the earliest date only, and draws nothing beyond today
      const ahead = detail.trend.proved ? (detail.forecast?.fan ?? []) : [];
      // a part that was first read beyond its limit has no level as new
      const asNew = detail.alreadyBeyond ? null : (detail.baseline?.centre ?? null);
      return [[id, { readings: drawn, asNew, limits: detail.limits, ahead }]];
    }),
  );
}
