/** What the chart of a point draws: a thinned series, lives, counts. */
import type { CorrectedReading, ReadingMark } from "@core";
import { assessReadingOf } from "~/domain/condition/index.server";
import { countInLife, MOST_COUNTED } from "./pointQueries.server";

/** Most readings that a chart gets for one life; more are thinned on the server. */
const CHART_READINGS = 400;

export interface ChartReading {
  at: number;
  raw: number;
  corrected: number;
  mark: ReadingMark | null;
}

export interface ChartLife {
  id: string;
  startedAt: number;
  endedAt: number | null;
  serial: string;
  readings: ChartReading[];
}

/** Keep the shape of a long series: the least and the greatest of each stretch. */
export function thin(series: readonly ChartReading[]): ChartReading[] {
  if (series.length <= CHART_READINGS) return [...series];
  const stretch = Math.ceil((series.length * 2) / CHART_READINGS);
  const kept: ChartReading[] = [];
  for (let i = 0; i < series.length; i += stretch) {
    const part = series.slice(i, i + stretch);
    const low = part.reduce((m, r) => (r.corrected < m.corrected ? r : m));
    const high = part.reduce((m, r) => (r.corrected > m.corrected ? r : m));
    kept.push(...(low === high ? [low] : low.at < high.at ? [low, high] : [high, low]));
  }
  return kept;
}

export interface TableReading extends CorrectedReading {
  entered: string;
  least: number | null;
  pressure: number | null;
  temperature: number | null;
  noted: number | null;
  by: string;
  instrument: string | null;
  note: string;
  keptBecause: string;
}

/** A reading of a life that is no longer shown: as it was read. */
export function uncorrected(row: Parameters<typeof assessReadingOf>[0]): CorrectedReading {
  const r = assessReadingOf(row);
  return {
    id: r.id,
    at: r.at,
    hours: r.hours ?? 0,
    raw: r.value,
    corrected: r.value,
    uncertainty: 0,
    lnPressure: 0,
    lnViscosity: 0,
    mark: null,
    doubtful: r.doubtful,
    recalled: r.recalled,
  };
}

export interface Counted {
  count: number;
  /** There are more than were counted. */
  over: boolean;
}

const counted = (n: number): Counted => ({ count: Math.min(n, MOST_COUNTED), over: n > MOST_COUNTED });

/** Readings in all, and in the life that goes on. */
export async function countsOf(
  point: string,
  byLife: readonly { lifeId: string; n: number }[],
  life: string | undefined,
): Promise<{ total: Counted; inLife: Counted }> {
  const total = counted(byLife.reduce((sum, l) => sum + l.n, 0));
  if (!life) return { total, inLife: counted(0) };
  // of a point with more than were counted, others' readings may have been counted before its own
  const n = total.over ? (await countInLife({ point, life }))[0]!.n : (byLife.find((l) => l.lifeId === life)?.n ?? 0);
  return { total, inLife: counted(n) };
}
