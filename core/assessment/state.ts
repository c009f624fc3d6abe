/** Which word a condition gets. One rule for every quantity. */
import type { ConditionState } from "./types";

export interface StateFacts {
  readings: number;
  knownWhenNew: boolean;
  hasLimit: boolean;
  /** Margin used; null: unknown. */
  margin: number | null;
  /** Probability that the limit is crossed now. */
  crossed: number;
  trendProved: boolean;
  /** Probability of crossing before the first stop at which a part can be there. */
  beforeUsableStop: number;
}

/** Readings below which nothing is proved about a life. */
export const PROVED_READINGS = 5;
const CROSSED = 0.5;
const TOO_LATE = 0.5;
const LIKELY = 0.1;
const NEAR_LIMIT = 0.75;

/**
 * alarm: beyond the limit, or more likely than not beyond it before a part can be fitted at a stop.
 * alert: at least one chance in ten of that, or three quarters of the margin used.
 * drifting: a trend is proved. unproven: too few readings or no limit to judge by.
 */
export function conditionState(f: StateFacts): ConditionState {
  if (!f.hasLimit || f.readings < PROVED_READINGS || f.margin === null) return "unproven";
  if (f.crossed >= CROSSED) return "alarm";
  if (f.trendProved && f.beforeUsableStop >= TOO_LATE) return "alarm";
  if (f.margin >= NEAR_LIMIT) return "alert";
  if (f.trendProved && f.beforeUsableStop >= LIKELY) return "alert";
  if (f.trendProved) return "drifting";
  return f.knownWhenNew || f.readings >= 2 * PROVED_READINGS ? "steady" : "unproven";
}

const rank: Record<ConditionState, number> = { alarm: 4, alert: 3, drifting: 2, unproven: 1, steady: 0 };
const byRank: readonly ConditionState[] = ["steady", "unproven", "drifting", "alert", "alarm"];

/** The state that an urgency was made for: the worst of many points follows from their greatest urgency. */
export function stateOfUrgency(urgency: number): ConditionState {
  return byRank[Math.min(4, Math.max(0, Math.floor(urgency / 10)))]!;
}

/** A number that sorts conditions worst first: the state, then the chance before a usable stop, then margin used. */
export function urgencyOf(state: ConditionState, beforeUsableStop: number, margin: number | null): number {
  return rank[state] * 10 + Math.min(1, beforeUsableStop) * 5 + Math.min(4, Math.max(0, margin ?? 0));
}
