/** Which word a condition gets. One rule for every quantity. */

export const conditionStates = ["unread", "unproven", "steady", "drifting", "alert", "alarm"] as const;
export type ConditionState = (typeof conditionStates)[number];

/** What a state is called where a person reads it. */
export const stateWords: Readonly<Record<ConditionState, string>> = {
  unread: "not read yet",
  unproven: "unproven",
  steady: "steady",
  drifting: "drifting",
  alert: "alert",
  alarm: "alarm",
};

export interface StateFacts {
  readings: number;
  knownWhenNew: boolean;
  hasLimit: boolean;
  /** Margin used; null: unknown. */
  margin: number | null;
  /** Probability that the level lies beyond its limit now, whatever the baseline says. */
  beyond: number;
  trendProved: boolean;
  /** Probability of crossing before the next chance to help: a stop at which the part can be there, or what the plant can do without one. */
  beforeUsableStop: number;
  /** The same by twice the time to that chance: from then on it has to be decided. */
  beforeTwice?: number;
  /** Readings that go on in one direction, fast: how many of them. */
  course?: number;
  /** The two newest readings lie beyond the same limit. */
  twoBeyond?: boolean;
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

/** A course of so many readings is an alarm, whatever their values; the one before it an alert. */
const COURSE_IS_ALARM = 3;

/**
 * alarm: beyond the limit now, more likely than not beyond it before it can be helped, or the third reading of a fast course.
 * alert: at least one chance in ten that it is beyond by twice that time, three quarters of the margin used, the second reading of
 * a fast course, or beyond by a reading or two that leave doubt. drifting: a trend is proved. unread: nobody has read it.
 * unproven: too few readings or no limit to judge by.
 */
export function conditionState(f: StateFacts): ConditionState {
  if (f.readings === 0) return "unread";
  if (!f.hasLimit) return "unproven";
  if ((f.course ?? 0) >= COURSE_IS_ALARM || f.twoBeyond) return "alarm";
  if (f.beyond >= BEYOND) return f.readings >= FEW_READINGS || f.beyond >= SURELY_BEYOND ? "alarm" : "alert";
  if (f.course) return "alert";
  if (f.margin === null) return "unproven";
  if (f.readings < PROVED_READINGS) return f.beyond >= MAYBE_BEYOND ? "alert" : "unproven";
  if (f.trendProved && f.beforeUsableStop >= TOO_LATE) return "alarm";
  if (f.margin >= NEAR_LIMIT || f.beyond >= MAYBE_BEYOND) return "alert";
  if (f.trendProved && (f.beforeTwice ?? f.beforeUsableStop) >= LIKELY) return "alert";
  if (f.trendProved) return "drifting";
  return f.knownWhenNew || f.readings >= 2 * PROVED_READINGS ? "steady" : "unproven";
}

const byRank: readonly ConditionState[] = ["steady", "unproven", "unread", "drifting", "alert", "alarm"];

/**
 * The state that an urgency was made for: the worst of many points follows from their greatest urgency.
 * @param urgency from an assessment
 * @returns its state
 * @example stateOfUrgency(53.2) // "alarm"
 */
export function stateOfUrgency(urgency: number): ConditionState {
  return byRank[Math.min(byRank.length - 1, Math.max(0, Math.floor(urgency / 10)))]!;
}

/**
 * The urgencies that stand for a state, the inverse of `stateOfUrgency`, so that a database can filter by it.
 * @param state of a condition
 * @returns from the first figure up to, not with, the second
 * @example urgenciesOf("alert") // [40, 50]
 * @example urgenciesOf("alarm") // [50, Infinity]
 */
export function urgenciesOf(state: ConditionState): readonly [number, number] {
  const from = byRank.indexOf(state) * 10;
  return [state === "steady" ? -Infinity : from, state === "alarm" ? Infinity : from + 10];
}

/**
 * A number that sorts conditions, what is nearer to harm first: the word, then the chance of the limit before it can be helped, then
 * the margin used. One rule for Today, Fleet and every list.
 */
export function urgencyOf(state: ConditionState, beforeUsableStop: number, margin: number | null): number {
  return byRank.indexOf(state) * 10 + Math.min(1, beforeUsableStop) * 5 + Math.min(4, Math.max(0, margin ?? 0));
}
