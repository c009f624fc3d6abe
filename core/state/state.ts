/** Which word a condition gets. One rule for every quantity. */

export const conditionStates = ["unproven", "steady", "drifting", "alert", "alarm"] as const;
export type ConditionState = (typeof conditionStates)[number];

export interface StateFacts {
  readings: number;
  knownWhenNew: boolean;
  hasLimit: boolean;
  /** Margin used; null: unknown. */
  margin: number | null;
  /** Probability that the level lies beyond its limit now, whatever the baseline says. */
  beyond: number;
  trendProved: boolean;
  /** Probability of crossing before the first stop at which a part can be there. */
  beforeUsableStop: number;
}

/** Readings below which nothing is proved about a life. */
export const PROVED_READINGS = 5;
/** From this chance on a level counts as beyond its limit. */
export const BEYOND = 0.5;
/** Fewer readings than this must be surer than that to be an alarm: until then they ask for another reading. */
const FEW_READINGS = 3;
const SURELY_BEYOND = 0.95;
/** A chance of being beyond the limit that nobody calls steady. */
export const MAYBE_BEYOND = 0.1;
const TOO_LATE = 0.5;
const LIKELY = 0.1;
const NEAR_LIMIT = 0.75;

/**
 * alarm: beyond the limit now, or more likely than not beyond it before a part can be fitted at a stop.
 * alert: at least one chance in ten of that, three quarters of the margin used, or beyond by a reading or two that
 * leave doubt. drifting: a trend is proved. unproven: too few readings or no limit to judge by.
 */
export function conditionState(f: StateFacts): ConditionState {
  if (!f.hasLimit || f.readings === 0 || f.margin === null) return "unproven";
  if (f.beyond >= BEYOND) return f.readings >= FEW_READINGS || f.beyond >= SURELY_BEYOND ? "alarm" : "alert";
  if (f.readings < PROVED_READINGS) return f.beyond >= MAYBE_BEYOND ? "alert" : "unproven";
  if (f.trendProved && f.beforeUsableStop >= TOO_LATE) return "alarm";
  if (f.margin >= NEAR_LIMIT || f.beyond >= MAYBE_BEYOND) return "alert";
  if (f.trendProved && f.beforeUsableStop >= LIKELY) return "alert";
  if (f.trendProved) return "drifting";
  return f.knownWhenNew || f.readings >= 2 * PROVED_READINGS ? "steady" : "unproven";
}

const rank: Record<ConditionState, number> = { alarm: 4, alert: 3, drifting: 2, unproven: 1, steady: 0 };
const byRank: readonly ConditionState[] = ["steady", "unproven", "drifting", "alert", "alarm"];

/**
 * The state that an urgency was made for: the worst of many points follows from their greatest urgency.
 * @param urgency from an assessment
 * @returns its state
 * @example stateOfUrgency(43.2) // "alarm"
 */
export function stateOfUrgency(urgency: number): ConditionState {
  return byRank[Math.min(4, Math.max(0, Math.floor(urgency / 10)))]!;
}

/**
 * The urgencies that stand for a state, the inverse of `stateOfUrgency`, so that a database can filter by it.
 * @param state of a condition
 * @returns from the first figure up to, not with, the second
 * @example urgenciesOf("alert") // [30, 40]
 * @example urgenciesOf("alarm") // [40, Infinity]
 */
export function urgenciesOf(state: ConditionState): readonly [number, number] {
  const from = byRank.indexOf(state) * 10;
  return [state === "steady" ? -Infinity : from, state === "alarm" ? Infinity : from + 10];
}

/** A number that sorts conditions worst first: the state, then the chance before a usable stop, then margin used. */
export function urgencyOf(state: ConditionState, beforeUsableStop: number, margin: number | null): number {
  return rank[state] * 10 + Math.min(1, beforeUsableStop) * 5 + Math.min(4, Math.max(0, margin ?? 0));
}
