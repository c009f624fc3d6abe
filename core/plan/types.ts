/** What a plan weighs: pieces of work, planned stops, costs, and what people wish. Money is in the site's own currency. */

export const trades = { mechanical: "fitter", electrical: "electrician" } as const;
export type Trade = keyof typeof trades;
export const tradeIds = Object.keys(trades) as Trade[];

/** Hours by trade; one that is left out needs or has none. */
export type CrewHours = Partial<Record<Trade, number>>;

export interface PlanStop {
  id: string;
  name: string;
  /** When it begins, epoch ms. */
  at: number;
  crew: CrewHours;
  /** Ids of the machines that stand; null: all of them. */
  machines: readonly string[] | null;
}

export interface PieceCosts {
  /** Value of the part that is renewed; 0: none. */
  part: number;
  /** Failing first: repair, part at short notice, downtime, damage downstream. */
  failure: number;
}

export interface NextReading {
  /** Margin used today, 0 as new, 1 at the limit. */
  level: number;
  /** Standard deviation of one reading about the true level, in the same shares; over 0. */
  deviation: number;
}

export interface PlanPiece {
  id: string;
  label: string;
  machine: string;
  circuit: string;
  hours: CrewHours;
  /** First moment at which its part can be there, epoch ms; null: it needs none. */
  partAt: number | null;
  /** Its part is ordered or on the shelf, so that `partAt` depends on nobody any more. */
  partSure: boolean;
  /** Quantiles of when the limit is crossed, ascending, epoch ms; null: beyond what the forecast says. At least one. */
  crossings: readonly (number | null)[];
  /** When its life began, epoch ms: what is left of it is thrown away. */
  since: number;
  costs: PieceCosts;
  /** What a reading tells of it; null: no forecast rests on readings. */
  reads: NextReading | null;
  /** A stop that somebody booked it into; "own": booked without one. */
  booked: string | null;
}

/** What a site sets once. */
export interface PlanCosts {
  currency: string;
  /** An hour of a fitter or an electrician. */
  crewHour: number;
  /** An hour over what a stop's crew has. */
  overHour: number;
  /** Isolating, draining and opening a machine, once a stop for all its work. */
  opening: number;
  /** A stop of its own beside the planned ones. */
  extraStop: number;
  /** An hour that a machine stands outside a planned stop. */
  standing: number;
  /** Chance of failing in each month beyond the limit, 0 to 1. */
  failsAMonth: number;
}

export interface Wishes {
  /** By piece: the option that it must take. */
  pinned: Readonly<Record<string, string>>;
  /** By piece: stops that it must not take. */
  forbidden: Readonly<Record<string, readonly string[]>>;
  /** Pieces that go together. */
  together: readonly (readonly string[])[];
  /** Stops that do not take place. */
  without: readonly string[];
  /** Hours more at every stop. */
  moreCrew: CrewHours;
  /** By stop: the hours that it has for this plan, where part of its crew is wanted elsewhere. */
  crewAt: Readonly<Record<string, CrewHours>>;
  /** Weight of the worst tenth of what may come, 0 (expected cost alone) to 1. */
  caution: number;
}

export const noWishes: Wishes = {
  pinned: {},
  forbidden: {},
  together: [],
  without: [],
  moreCrew: {},
  crewAt: {},
  caution: 0,
};

export interface PlanProblem {
  now: number;
  /** What is not done by then is done at the first chance after it. */
  until: number;
  stops: readonly PlanStop[];
  pieces: readonly PlanPiece[];
  costs: PlanCosts;
  wishes: Wishes;
}

/** A way to do one piece: at a planned stop, in a stop of its machine's own, or after the horizon. */
export interface PlanOption {
  /** Id of the stop, "own:" and the moment, or "wait". */
  id: string;
  kind: "stop" | "own" | "wait";
  at: number;
  /** Chance of the limit before it, and of failing before it. */
  crossed: number;
  fails: number;
  /** Expected cost and its parts, without what it shares with other pieces. */
  cost: number;
  parts: { failing: number; life: number; work: number; standing: number };
}

/** Something that the plan cannot heed, with what can be done. */
export interface PlanTrouble {
  piece: string | null;
  text: string;
  offers: string[];
}
