/** The judgement of one point, as a thread of its own does it: plain data in, JSON out. */
import {
  assess,
  componentKinds,
  forecastBasis,
  learnPrior,
  outcomeOf,
  rememberForecast,
  rememberState,
  standingOf,
  usualPrior,
  type ComponentKind,
  type LifeOutcome,
  type AssessPoint,
  type AssessReading,
  type ReadingMark,
  type SeriesContext,
  type PeerLife,
} from "@core";
import type { AssessmentDetail, AssessmentMemory } from "~/db/schema";

export interface AssessTask {
  readings: readonly AssessReading[];
  point: AssessPoint;
  context: SeriesContext;
  /** What is expected of it before peers tell follows its kind. */
  kind: string;
  /** What peers tell, as stored; parsed here, since the page server must not wait for it. */
  peers: readonly string[];
  /** Its part was taken out. */
  ended?: boolean;
  /** What was told of this life before; left out or null: nothing. */
  before?: AssessmentMemory | null;
}

export interface AssessResult {
  detail: AssessmentDetail;
  /** The same as JSON text, ready for the database. */
  json: string;
  /** What this life tells its peers, as JSON; null: nothing yet. */
  life: string | null;
  reached: boolean;
  /** What came of it; null: too few readings, or no limit. */
  outcome: LifeOutcome | null;
}

/** Judge one point. Never throws on readings. */
export default function assessTask({
  readings,
  point,
  context,
  kind,
  peers,
  ended = false,
  before = null,
}: AssessTask): AssessResult {
  const prior = learnPrior(
    peers.map((text) => JSON.parse(text) as PeerLife),
    usualPrior(point.quantity, Object.hasOwn(componentKinds, kind) ? (kind as ComponentKind) : "other"),
  );
  const standing = standingOf(before?.word ?? null, readings, point, context);
  const { series, life, ...rest } = assess(readings, point, { ...context, prior, standing });
  const marks: Record<string, ReadingMark> = {};
  for (const r of series) if (r.mark) marks[r.id] = r.mark;
  const shown = rest.noTrend ? null : rest.forecast;
  const { p10, p50, p90 } = shown?.dates ?? { p10: null, p50: null, p90: null };
  const memory: AssessmentMemory = {
    ...rememberForecast(before, {
      at: context.now,
      dates: { p10, p50, p90 },
      basis: forecastBasis(readings, point, context, peers),
    }),
    word: rememberState(rest.state, readings, point, context, before?.word ?? null),
  };
  const detail = { ...rest, marks, memory };
  return {
    detail,
    json: JSON.stringify(detail),
    life: life ? JSON.stringify(life) : null,
    reached: life?.reached === true,
    outcome: outcomeOf(series, rest.limits, ended),
  };
}
