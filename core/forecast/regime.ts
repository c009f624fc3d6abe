/**
 * Regimes of wear: a path, whether nothing wears until a change comes, whether wear wanders, and how its rate keeps:
 * steady, changing often, or turning all the time. What sister lives share is their regime.
 */
import { wearPaths, type WearPath } from "./wearPath";

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
  /** Share before any life is known. */
  prior: number;
}

/** Even wear, or lumps. */
const WANDERS = [0.015, 0.1] as const;
/**
 * How the rate keeps: steady; changing often, rather too often than too late; or turning without a break, up or
 * down, as no path foretells.
 */
const RATES = [{ id: "", changes: 0.5, turn: 0, share: 0.1 }, { id: "restless", changes: 5, turn: 0, share: 0.65 }, { id: "turning", changes: 0.5, turn: 2.5, share: 0.25 }] as const;

const ODDS = wearPaths.reduce((sum, path) => sum + path.prior, 0);

/** Every regime; the priors sum to one. */
export const regimes: readonly Regime[] = wearPaths.flatMap((path) =>
  [false, true].filter((dormant) => !dormant || path.dormant).flatMap((dormant) =>
    WANDERS.flatMap((wander) =>
      RATES.map(({ id, changes, turn, share }) => ({
        id: [path.id, ...(dormant ? ["dormant"] : []), ...(wander > 0.05 ? ["wandering"] : []), ...(id ? [id] : [])].join("-"),
        path, dormant, wander, changes, turn,
        prior: ((path.prior / ODDS) * (dormant ? path.dormant! : 1 - (path.dormant ?? 0)) * share) / WANDERS.length,
      })))));
