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
  /** Its forecast is believed: a trend is proved, or it is sure without one. */
  trendProved: boolean;
  /** Probability of crossing before the next chance to help: a stop at which the part can be there, or what the plant can do without one. */
  beforeUsableStop: number;
  /** That chance is a planned stop: before it there may still be time for another one. */
  stopIsPlanned?: boolean;
  /** The chance of the limit before the next chance to help that the plant accepts, 0.01 to 0.5; left out: `ACCEPTED`. */
  accepted?: number;
  /**
   * Time until it must be decided, in usual intervals between readings: by the middle date of its limit, which enters an alert, and
   * by the earliest, at which one is still kept; and by the middle date as if no stop were planned. Left out or Infinity: no date.
   */
  decideWithin?: { likely: number; earliest: number; withoutStops?: number };
  /** Readings that go on in one direction, fast: how many of them. */
  course?: number;
  /** The two newest readings lie beyond the same limit. */
  twoBeyond?: boolean;
  /** What was told before of this life; left out or null: nothing. */
  standing?: Standing | null;
}

/** A word that stands, and what has changed since it was told. */
export interface Standing {
  state: ConditionState;
  /**
   * "nothing" of this point: days, peers or the oil alone. "reading": it was read since. "all": the limit, the part, what was
   * read before, the duty or the chances to act, so that the earlier word binds no more.
   */
  changed: "nothing" | "reading" | "all";
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

/** A course of so many readings is an alarm, whatever their values; the one before it an alert. */
const COURSE_IS_ALARM = 3;

/** A chance of the limit before it can be helped that a plant accepts until it says otherwise (grade). */
export const ACCEPTED = 0.3;

/** Figures at which a word is entered, and those at which one that stands is still kept. */
interface Thresholds {
  beyond: number;
  maybe: number;
  /** Chance of the limit before the next chance to help that a plant does not accept. */
  tooLate: number;
  /** Usual intervals between readings within which it must be decided: entered by the middle date of the limit, kept by the earliest. */
  intervals: number;
}
/** Chosen on the tuned part of scripts/bench/alarms.ts; told on the other. */
const ENTER: Thresholds = { beyond: BEYOND, maybe: MAYBE_BEYOND, tooLate: ACCEPTED, intervals: 6 };
const KEEP: Thresholds = { beyond: 0.25, maybe: 0.05, tooLate: 0.03, intervals: 12 };
/** Before a planned stop the machine can still be stopped out of turn: so much likelier the limit must be for that to be decided now. */
const MORE_BEFORE_A_STOP = 0.4;
/** What a stop half a year ahead of the limit asks for has time until two readings before it must be ordered. */
const STOP_INTERVALS = 2;
/** A course is an alarm when it must be decided within two readings; until then an alert. */
const COURSE_INTERVALS = 2;
/** Of what is forecast to move the doubt about today's level is in the dates; only a larger one speaks for itself. */
const MAYBE_OF_DATED = 0.25;

/**
 * alarm: the act can no longer wait. Beyond the limit now, a chance that it is before it can be helped over what the plant accepts
 * (three in ten; by four in ten more where that is a planned stop), or the third reading of a fast course that must be decided within two more.
 * alert: it has to be decided soon. By the middle date of its limit within six usual readings (decide.ts), or within two
 * of when it must be ordered for a planned stop; the second reading of a fast course, or beyond by a reading or two that leave doubt.
 * drifting: a trend is proved. unread: nobody has read it. unproven: too few readings or no limit to judge by.
 *
 * A word is entered by one set of figures and left by another, and only when the point was read again, or what it is judged by
 * was changed: neither days that go by nor peers nor the oil take an alert or an alarm back.
 */
export function conditionState(f: StateFacts): ConditionState {
  const { standing, ...facts } = f;
  const entered = wordOf(facts, ENTER);
  if (!standing || standing.changed === "all" || rankOf(entered) >= rankOf(standing.state)) return entered;
  if (entered === "unread") return entered;
  if (rankOf(standing.state) < rankOf("drifting")) return entered;
  if (standing.changed === "nothing") return standing.state;
  // what stands needs no second proof, but no more than stood is kept
  const kept = standing.state === "drifting" ? entered : wordOf({ ...facts, trendProved: true }, KEEP);
  const least = rankOf(kept) > rankOf(standing.state) ? standing.state : kept;
  return least === "drifting" || rankOf(least) < rankOf(entered) ? entered : least;
}

function wordOf(f: Omit<StateFacts, "standing">, at: Thresholds): ConditionState {
  if (f.readings === 0) return "unread";
  if (!f.hasLimit) return "unproven";
  if (f.twoBeyond) return "alarm";
  if (f.beyond >= at.beyond) return f.readings >= FEW_READINGS || f.beyond >= SURELY_BEYOND ? "alarm" : "alert";
  const { likely, earliest, withoutStops = Infinity } = f.decideWithin ?? { likely: Infinity, earliest: Infinity };
  if ((f.course ?? 0) >= COURSE_IS_ALARM && likely <= COURSE_INTERVALS) return "alarm";
  if (f.course && (f.course >= COURSE_IS_ALARM || likely <= at.intervals)) return "alert";
  if (f.margin === null) return "unproven";
  if (f.readings < PROVED_READINGS) return f.beyond >= at.maybe ? "alert" : "unproven";
  const { accepted = ACCEPTED, stopIsPlanned = false } = f;
  const tooLate = at === KEEP ? at.tooLate : accepted + (stopIsPlanned ? MORE_BEFORE_A_STOP : 0);
  if (f.trendProved && f.beforeUsableStop >= tooLate) return "alarm";
  if (f.beyond >= (f.trendProved && at === ENTER ? MAYBE_OF_DATED : at.maybe)) return "alert";
  const soon =
    at === KEEP
      ? earliest <= at.intervals
      : withoutStops <= at.intervals || likely <= (stopIsPlanned ? STOP_INTERVALS : at.intervals);
  if (f.trendProved && soon) return "alert";
  if (f.trendProved) return "drifting";
  return f.knownWhenNew || f.readings >= 2 * PROVED_READINGS ? "steady" : "unproven";
}

const byRank: readonly ConditionState[] = ["steady", "unproven", "unread", "drifting", "alert", "alarm"];
const rankOf = (state: ConditionState) => byRank.indexOf(state);

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
