/**
 * Regimes of wear: a path, whether nothing wears until a change comes, whether wear wanders, and whether its rate
 * changes often. What sister lives share is their regime.
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
  /** Share before any life is known. */
  prior: number;
}

/** Even wear, or lumps. */
const WANDERS = [0.015, 0.1] as const;
/** A steady life, or one whose rate changes often: rather too often than too late. */
const CHANGES = [{ changes: 0.5, share: 0.15 }, { changes: 5, share: 0.85 }] as const;

const ODDS = wearPaths.reduce((sum, path) => sum + path.prior, 0);

/** Every regime; the priors sum to one. */
export const regimes: readonly Regime[] = wearPaths.flatMap((path) =>
  [false, true].filter((dormant) => !dormant || path.dormant).flatMap((dormant) =>
    WANDERS.flatMap((wander) =>
      CHANGES.map(({ changes, share }) => ({
        id: [path.id, ...(dormant ? ["dormant"] : []), ...(wander > 0.05 ? ["wandering"] : []), ...(changes > 1 ? ["restless"] : [])].join("-"),
        path, dormant, wander, changes,
        prior: ((path.prior / ODDS) * (dormant ? path.dormant! : 1 - (path.dormant ?? 0)) * share) / WANDERS.length,
      })))));
