/**
 * What sister lives say before a life has readings of its own: time scale, noise and how often the
 * rate of wear changes. Empirical Bayes with a weak default.
 */
import { wearPaths, type WearPathId } from "./wearPath";

export interface WearPrior {
  /** Running hours from as new to the limit, centre of a wide range. */
  timeScale: number;
  /** How far the time scale may be off before any reading, ln units. */
  spread: number;
  /** Standard deviation of a reading after correction, relative. */
  noise: number;
  /** Changes of rate expected over one time scale. */
  changes: number;
  /** Share of each wear path; left out: the paths' own. */
  paths?: Partial<Record<WearPathId, number>>;
  /** Running hours at which dirt came in: the rate may well have changed then, for the worse. */
  dirtAt?: number;
  /** Lives that it was learned from; 0: the default. */
  lives: number;
}

/** Weak default: a hydraulic pump lasts of the order of 20 000 h (common practice). */
export const defaultPrior: WearPrior = { timeScale: 25_000, spread: 0.9, noise: 0.03, changes: 4, lives: 0 };

export interface SisterLife {
  /** Running hours to the limit: reached, or the median forecast. */
  hours: number;
  /** True when the life ended before the limit or is still far from it: `hours` is a least value. */
  censored: boolean;
  /** Relative spread of its readings about its trend. */
  noise: number;
  /** Shares of the wear paths that its own readings ended with. */
  paths?: readonly { id: WearPathId; share: number }[];
  /** Probability that its rate changed. */
  changed?: number;
}

const PSEUDO_LIVES = 1.5;
/** Like parts still differ this much in the hours they last, ln units. */
const LEAST_SPREAD = 0.3;
/** Lives that the usual paths and the usual hazard count for: a sister's shares are themselves in doubt. */
const PSEUDO_PATHS = 1.5;

/**
 * Prior from sister lives: geometric mean of their hours, shrunk to the default as if that were three
 * lives. A censored life counts only when it lasted longer than the mean so far, since it says "at least".
 */
export function learnPrior(sisters: readonly SisterLife[], base: WearPrior = defaultPrior): WearPrior {
  const reached = sisters.filter((s) => !s.censored && s.hours > 0);
  let weight = PSEUDO_LIVES;
  let ln = PSEUDO_LIVES * Math.log(base.timeScale);
  for (const s of reached) {
    ln += Math.log(s.hours);
    weight += 1;
  }
  for (const s of sisters) {
    if (s.censored && s.hours > Math.exp(ln / weight)) {
      ln += Math.log(s.hours);
      weight += 1;
    }
  }
  const noises = sisters.filter((s) => s.noise > 0);
  const noise = noises.reduce((sum, s) => sum + Math.log(s.noise), PSEUDO_LIVES * Math.log(base.noise)) / (noises.length + PSEUDO_LIVES);
  const spread = LEAST_SPREAD + ((base.spread - LEAST_SPREAD) * PSEUDO_LIVES) / (reached.length + PSEUDO_LIVES);
  const shown = sisters.filter((s) => s.paths && !s.censored);
  const paths = Object.fromEntries(wearPaths.map((p) => {
    const usual = base.paths?.[p.id] ?? p.prior;
    return [p.id, (PSEUDO_PATHS * usual + shown.reduce((sum, s) => sum + (s.paths!.find((q) => q.id === p.id)?.share ?? 0), 0)) / (PSEUDO_PATHS + shown.length)];
  }));
  const changed = sisters.filter((s) => s.changed !== undefined && !s.censored);
  const changes = (PSEUDO_PATHS * base.changes + changed.reduce((sum, s) => sum + s.changed!, 0)) / (PSEUDO_PATHS + changed.length);
  return { timeScale: Math.exp(ln / weight), spread, noise: Math.exp(noise), changes, paths, lives: sisters.length };
}
