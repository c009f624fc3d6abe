/** What a report draws of a point: its readings at the reference condition, as new, limit, and what is forecast. */
import { sql } from "drizzle-orm";
import type { AssessedForecast, Assessment } from "@core";
import { ask } from "~/db/client.server";
import { isCurrent } from "~/domain/condition/index.server";

/** Readings drawn of one point; a longer life is thinned, and its last ones stay. */
const DRAWN = 90;

export interface ReportChart {
  /** Moment, value in core units, and whether the judgement leaves it out. */
  readings: { at: number; value: number; odd: boolean }[];
  asNew: number | null;
  limits: Assessment["limits"];
  ahead: AssessedForecast["fan"];
}

/** Every n-th, so that at most so many are left, the newest among them. */
export function thinned<T>(all: readonly T[], most: number): T[] {
  const step = Math.ceil(all.length / most);
  return all.filter((_, i) => (all.length - 1 - i) % step === 0);
}

export async function chartsOf(pointIds: readonly string[]): Promise<Record<string, ReportChart>> {
  if (pointIds.length === 0) return {};
  const rows = await ask<{
    id: string;
    series: Assessment["series"] | null;
    limits: Assessment["limits"];
    baseline: Assessment["baseline"];
    fan: ReportChart["ahead"] | null;
    proved: boolean | null;
  }>(sql`
    select a.point_id as id, a.detail -> 'series' as series, a.detail -> 'limits' as limits, a.detail -> 'baseline' as baseline,
           a.detail -> 'forecast' -> 'fan' as fan, (a.detail -> 'trend' ->> 'proved')::boolean as proved
    from assessments a where a.point_id = any(${sql.param([...pointIds])}::uuid[]) and ${isCurrent(sql`a`)}`);
  return Object.fromEntries(
    rows.map(({ id, series, limits, baseline, fan, proved }): [string, ReportChart] => [
      id,
      {
        readings: thinned(series ?? [], DRAWN).map((s) => ({
          at: s.at,
          value: s.corrected,
          odd: s.mark !== null && s.mark !== "offCondition",
        })),
        asNew: baseline?.centre ?? null,
        limits: limits ?? null,
        // where no trend is proved the page names the earliest date only, and draws nothing beyond today
        ahead: proved ? (fan ?? []) : [],
      },
    ]),
  );
}
