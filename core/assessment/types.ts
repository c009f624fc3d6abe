/** What goes into an assessment and what comes out of it. Plain objects in core units. */
import type { Baseline } from "../baseline/baseline";
import type { LimitRule, Limits } from "../baseline/limit";
import type { Fluid } from "../fluid/viscosity";
import type { PeerLife, WearPrior } from "../forecast/prior";
import type { MeterChange } from "../hours/runningHours";
import type { MeasuredViscosity } from "../fluid/measured";
import type { ConditionState, Standing } from "../state/state";
import type { Decision } from "./decide";
import type { VerdictPart } from "../state/verdictPart";
import type { WearPathId } from "../forecast/wearPath";
import type { PointQuantityId } from "../units/quantities";
import type { Working } from "../working";

/** One reading of one life, in time order. */
export interface AssessReading {
  id: string;
  /** Epoch ms, UTC. */
  at: number;
  /** Running hours at the reading; null: taken from the duty. */
  hours: number | null;
  /** Core unit of the point's quantity. For a cycle: the greatest. */
  value: number;
  /** Load pressure, bar; null: not noted. */
  pressure: number | null;
  /** Oil temperature, °C; null: not noted. */
  temperature: number | null;
  /** Relative or absolute standard uncertainty of the instrument, core unit; null: the quantity's usual. */
  uncertainty: number | null;
  /** r/min; null or left out: not noted. */
  speed?: number | null;
  /** A person marked it as doubtful: kept, weighted down. */
  doubtful: boolean;
  /** Its instrument was found out of calibration: kept, not believed. */
  recalled: boolean;
  /** Taken before the part was repaired: kept, and no longer what is expected. Set by an assessment, not by a caller. */
  beforeRepair?: boolean;
}

export interface AssessPoint {
  quantity: PointQuantityId;
  limit: LimitRule | null;
  /** Reference condition of the correction; needed for leakage quantities. For a filter element the pressure does not count. */
  reference: { pressure: number; temperature: number } | null;
  /** Theoretical flow at the stated speed, L/min, where the point belongs to a pump or motor. */
  fullFlow: number | null;
  /** r/min at which the flow through a filter element is the usual one; left out: flow is not corrected for speed. */
  referenceSpeed?: number | null;
  /** Was the component new or of known condition when this life's first reading was taken? */
  knownWhenNew: boolean;
  /** The maker's figure for a new part, core unit, when there is one. */
  makersNew: number | null;
}

export interface AssessStop {
  id: string;
  at: number;
  /** When it is over, epoch ms; left out: its day. Until then it is a chance to help. */
  until?: number;
}

export interface AssessContext {
  now: number;
  /** As stated; the reference viscosity is always this one's. */
  fluid: Fluid | null;
  /** Viscosities that a laboratory found: readings are corrected with the oil as it was. */
  measured: readonly MeasuredViscosity[];
  /** Dirt came into this circuit then: wear may go faster since. */
  contamination: { at: number; factor: number } | null;
  prior: WearPrior;
  /** Duty of the machine: running hours a day, and the relative standard deviation of that figure. */
  duty: { hoursPerDay: number; deviation: number };
  stops: readonly AssessStop[];
  /** Days until a replacement part is there. */
  leadTimeDays: number | null;
  /** When a part that is ordered already will be there, epoch ms; null: none is ordered. */
  partReadyAt: number | null;
  runInHours: number;
  /** What the hour meter showed when the life began. */
  lifeStartHours: number;
  /** When the life began, epoch ms; null: not known. */
  lifeStartedAt: number | null;
  /** Changes of the machine's hour meter that were recorded. */
  meterChanges: readonly MeterChange[];
  /** Readings in the life where those given are a selection; null: those given are all. */
  readingsInAll: number | null;
  /** Where no stop is planned: days within which the plant could stop the machine for it. */
  nextChanceDays: number;
  /** The chance of the limit before it can be helped that the plant accepts, 0.01 to 0.5. */
  accepted: number;
  /** When work on the part began that repaired it in this life, epoch ms: readings before do not tell what it is now. Null: none did. */
  repairedAt: number | null;
  /** The word that was told of this life before, and what has changed since; null: nothing was told. */
  standing?: Standing | null;
  /** Of the point: its draws are its own, so that errors of many points do not add up. */
  seed: number;
}

/** What correcting a series needs of it: all but what peers tell. */
export type SeriesContext = Omit<AssessContext, "prior">;

/** A reading as a caller may give it: what is left out is not known. */
export type ReadingInput = Pick<AssessReading, "at" | "value"> & Partial<AssessReading>;
/** A point as a caller may give it. */
export type PointInput = Pick<AssessPoint, "quantity"> &
  Partial<Omit<AssessPoint, "limit">> & { limit?: (Partial<LimitRule> & { basis?: LimitRule["basis"] }) | null };
export type ContextInput = Partial<AssessContext>;

/** What is odd about a reading; it is kept all the same. */
export type ReadingMark =
  "outlier" | "unconfirmed" | "doubtful" | "recalled" | "beforeRepair" | "noConditions" | "offCondition";

export interface SeriesPoint {
  id: string;
  at: number;
  hours: number;
  raw: number;
  corrected: number;
  /** Standard uncertainty of the corrected value. */
  uncertainty: number;
  mark: ReadingMark | null;
}

export interface LevelAt {
  at: number;
  centre: number;
  deviation: number;
}

/** What an entry form needs to say which value is expected under conditions just typed. */
export interface Expectation {
  /** ln of (or, for plain quantities, the) value expected at the reference condition now. */
  centre: number;
  /** Standard deviation of a new reading about it, same scale. */
  deviation: number;
  scale: "log" | "plain";
  /** Oil as it is now, and dynamic viscosity at the reference condition (mPa·s); null: as stated. */
  fluidNow: Fluid | null;
  referenceViscosity: number | null;
  /** The level as it was, for readings that are entered late: date, centre and the standard deviation of the level itself, same scale. */
  behind: LevelAt[];
  /** The level to come, from the forecast, same scale. */
  ahead: LevelAt[];
  a: number;
  b: number;
  ua: number;
  ub: number;
  reference: { pressure: number; temperature: number } | null;
  /** Ranges of ln(p/p_ref) and ln(μ/μ_ref) among the readings that this was learned from. */
  seen: { lnPressure: [number, number]; lnViscosity: [number, number] } | null;
}

export interface AssessedForecast {
  /** Running hours after the last reading; null: beyond the horizon. */
  hours: { p5: number | null; p10: number | null; p50: number | null; p90: number | null };
  dates: { p5: number | null; p10: number | null; p50: number | null; p90: number | null };
  /** Dates of crossing at probabilities 0.5 %, 1.5 % … 99.5 %; null: beyond the horizon. */
  crossingDates: (number | null)[];
  /** Chance of crossing before each stop that was known. */
  beforeStops: { stopId: string; at: number; probability: number }[];
  horizonHours: number;
  crossed: number;
  crossedSince: number | null;
  rising: number;
  /** Chance that this life goes the way its peers went; null: none is known. */
  like: number | null;
  paths: { id: WearPathId; share: number }[];
  change: { probability: number; at: number | null };
  step: { probability: number; at: number | null };
  /** Fan in core units of the indicator, by date. */
  fan: { at: number; p10: number; p50: number; p90: number }[];
}

export interface Assessment {
  state: ConditionState;
  /** Orders states of the same word, larger is worse. */
  urgency: number;
  readings: number;
  lastAt: number | null;
  lastRaw: number | null;
  baseline: Baseline | null;
  limits: Limits | null;
  limitProblem: string | null;
  /** Chance that the level lies beyond a limit now. */
  beyond: number;
  /** The life stood beyond its limit when it was first read: there is no margin to forecast. */
  alreadyBeyond: boolean;
  /** Readings of a fast course, with the one that made it; 0: there is none. */
  course: number;
  /** The side of the limit that the chance of being beyond is about; null: no limit. */
  beyondSide: "upper" | "lower" | null;
  /** Nobody has read it for so long that what was said may no longer hold. */
  overdue: boolean;
  /** The newest reading cannot be believed on its own and is left out of the judgement until a second one agrees. */
  unconfirmed: { at: number; raw: number } | null;
  /** Margin used at the last reading: smoothed centre, P10, P90, and the place before the last reading. */
  margin: { value: number; low: number; high: number; before: number | null } | null;
  correction: {
    a: number;
    b: number;
    ua: number;
    ub: number;
    readings: number;
    reference: { pressure: number; temperature: number };
  } | null;
  series: SeriesPoint[];
  trend: {
    proved: boolean;
    mannKendall: { raw: number | null; corrected: number | null };
    /** Theil-Sen slope of the corrected values, core unit a month, with its 95 % interval. */
    slope: { perMonth: number; low: number; high: number } | null;
  };
  forecast: AssessedForecast | null;
  /** `slow`: it does move, towards its limit, and too slowly to be dated. */
  noTrend: { earliest: number | null; slow: boolean } | null;
  /** By when it must be decided what is done; null: no date, or beyond its limit already. */
  decide: Decision | null;
  /** The word stands from before: by itself what is known now would not have raised it. */
  held: boolean;
  expectation: Expectation | null;
  verdict: VerdictPart[];
  workings: { last: Working | null; baseline: Working | null; forecast: Working | null; word: Working | null };
  /** What a prior for peers needs. */
  life: PeerLife | null;
}
