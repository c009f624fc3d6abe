/**
 * Wear paths. The indicator s (as new: 1) is a straight line after a power transform z = (s^λ − 1)/λ
 * (ln s for λ = 0), drawn over an operational clock of the running hours since the part was new. λ bends the
 * line by what is worn already, the clock by age. The physical wear laws of practice are members.
 */
import { powerClock, runInClock, saturatingClock, type Clock } from "./clock";

export interface WearPath {
  id: WearPathId;
  lambda: number;
  clock: Clock;
  label: string;
  /** Odds among the paths, before any reading. */
  prior: number;
  /** Share of it in which nothing wears until a change comes. */
  dormant?: number;
}

export type WearPathId =
  | "fading"
  | "saturating"
  | "bedded"
  | "levelling"
  | "linear"
  | "clearance"
  | "exponential"
  | "runaway"
  | "ageing"
  | "lateOnset"
  | "course";

/** The path that is no law: what peer lives did. */
export const COURSE_LABEL = "as its peers went";

export const wearPaths: readonly WearPath[] = [
  { id: "fading", lambda: 1, clock: powerClock(0.5), label: "slowing down", prior: 0.06 },
  { id: "saturating", lambda: 1, clock: saturatingClock(2), label: "coming to a stand", prior: 0.08 },
  { id: "bedded", lambda: 1, clock: runInClock(0.22, 0.05), label: "bedded in, then steady", prior: 0.08 },
  { id: "levelling", lambda: 2.5, clock: powerClock(1), label: "levelling off", prior: 0.1 },
  { id: "linear", lambda: 1, clock: powerClock(1), label: "steady rate", prior: 0.3, dormant: 0.4 },
  { id: "clearance", lambda: 1 / 3, clock: powerClock(1), label: "clearance growth (cube law)", prior: 0.1 },
  { id: "exponential", lambda: 0, clock: powerClock(1), label: "exponential", prior: 0.1 },
  { id: "runaway", lambda: -0.5, clock: powerClock(1), label: "faster than exponential", prior: 0.05 },
  { id: "ageing", lambda: 1, clock: powerClock(2), label: "growing with age", prior: 0.15 },
  { id: "lateOnset", lambda: 1, clock: powerClock(3.5), label: "late and fast", prior: 0.2 },
];

/** Every path that a forecast may name. */
export const wearPathIds: readonly WearPathId[] = [...wearPaths.map(({ id }) => id), "course"];

/**
 * What a wear path is called.
 * @param id of the path, or "course": that of its peers
 * @returns its name within a sentence
 * @example pathLabel("clearance") // "clearance growth (cube law)"
 */
export function pathLabel(id: WearPathId): string {
  return wearPaths.find((path) => path.id === id)?.label ?? COURSE_LABEL;
}

const LEAST = 0.02;

/** z of an indicator s > 0. */
export function toPath(s: number, lambda: number): number {
  return lambda === 0 ? Math.log(s) : (s ** lambda - 1) / lambda;
}

/** Indicator s at z. */
export function fromPath(z: number, lambda: number): number {
  return Math.exp(lnIndicator(z, lambda));
}

/** ln s at z; z beyond a path's own bound is held just inside it. */
export function lnIndicator(z: number, lambda: number): number {
  return lambda === 0 ? z : Math.log(Math.max(LEAST, 1 + lambda * z)) / lambda;
}

/** d ln s / dz at z. */
export function lnIndicatorSlope(z: number, lambda: number): number {
  return lambda === 0 ? 1 : 1 / Math.max(LEAST, 1 + lambda * z);
}
