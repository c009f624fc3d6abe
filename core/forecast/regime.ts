/**
 * Regimes of wear: a path, whether nothing wears until a change comes, whether wear wanders, and how its rate keeps:
 * steady, changing often, or turning all the time. What peer lives share is their regime.
 */
import { courseClock } from "./clock";
import type { Course } from "./course";
import { COURSE_LABEL, wearPaths, type WearPath } from "./wearPath";

export interface Regime {
  id: string;
  path: WearPath;
  dormant: boolean;
  /** Share of the way to the limit that process noise may wander over one time scale. */
  wander: number;
  /** Changes of rate expected over one time scale. */
  changes: number;
  /** Random walk of the rate: standard deviation of its logarithm over one time scale. */
  turn: number;
  /** Uncertainty of the rate as new, share of the usual one. */
  rateSpread: number;
  /** Does it reach its limit at its time scale wherever it started? */
  anchored: boolean;
  /** Share before any life is known. */
  prior: number;
}

/** Even wear, or lumps. */
const WANDERS = [0.03, 0.15] as const;
/**
 * How the rate keeps: steady; changing often, rather too often than too late; or turning without a break, up or
 * down, as no path foretells.
 */
const RATES = [
  { id: "", changes: 0.5, turn: 0, share: 0.1 },
  { id: "restless", changes: 5, turn: 0, share: 0.65 },
  { id: "turning", changes: 0.5, turn: 2.5, share: 0.25 },
] as const;

const RATE_SPREAD = 1;
/** Rate of a part in which nothing wears yet. */
const DORMANT_SPREAD = 0.05;
/** A course tells the rate closely, and lives that keep to it change theirs in every fifth life. */
const COURSE_RATE_SPREAD = 0.05;
const COURSE_CHANGES = 0.2;

const ODDS = wearPaths.reduce((sum, path) => sum + path.prior, 0);

/** Every regime; the priors sum to one. */
export const regimes: readonly Regime[] = wearPaths.flatMap((path) =>
  [false, true]
    .filter((dormant) => !dormant || path.dormant)
    .flatMap((dormant) =>
      WANDERS.flatMap((wander) =>
        RATES.map(({ id, changes, turn, share }) => ({
          id: [
            path.id,
            ...(dormant ? ["dormant"] : []),
            ...(wander > 0.05 ? ["wandering"] : []),
            ...(id ? [id] : []),
          ].join("-"),
          path,
          dormant,
          wander,
          changes,
          turn,
          rateSpread: dormant ? DORMANT_SPREAD : RATE_SPREAD,
          anchored: false,
          prior: ((path.prior / ODDS) * (dormant ? path.dormant! : 1 - (path.dormant ?? 0)) * share) / WANDERS.length,
        })),
      ),
    ),
);

/** A course is followed steadily by this share of lives when none of them strays, by half of it when they stray so far. */
const FAITHFUL = 0.9;
const STRAYING = 0.15;
/** Of the lives that do not keep to it steadily, this share is restless, the rest turns. */
const RESTLESS = 0.6;

/** Regimes of a life that goes the way its peers went; the priors sum to one. */
export function courseRegimes(course: Course): Regime[] {
  const path: WearPath = { id: "course", lambda: 1, clock: courseClock(course.shape), label: COURSE_LABEL, prior: 1 };
  const steady = FAITHFUL / (1 + (course.wander / STRAYING) ** 2);
  const shares = { "": steady, restless: RESTLESS * (1 - steady), turning: (1 - RESTLESS) * (1 - steady) };
  return RATES.map(({ id, changes, turn }) => ({
    id: `course${id ? `-${id}` : ""}`,
    path,
    dormant: false,
    wander: course.wander,
    changes: id ? changes : COURSE_CHANGES,
    turn,
    rateSpread: COURSE_RATE_SPREAD,
    anchored: true,
    prior: shares[id],
  }));
}
