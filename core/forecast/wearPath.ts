/**
 * Wear paths: the indicator s (as new: 1) is a straight line after a power transform,
 * z = (s^λ − 1)/λ, and ln s for λ = 0. The physical wear laws of practice are members.
 */
export interface WearPath {
  id: WearPathId;
  lambda: number;
  label: string;
}

export type WearPathId = "saturating" | "linear" | "clearance" | "exponential" | "runaway";

export const wearPaths: readonly WearPath[] = [
  { id: "saturating", lambda: 2, label: "slowing down" },
  { id: "linear", lambda: 1, label: "steady rate" },
  { id: "clearance", lambda: 1 / 3, label: "clearance growth (cube law)" },
  { id: "exponential", lambda: 0, label: "exponential" },
  { id: "runaway", lambda: -0.3, label: "faster than exponential" },
];

const LEAST = 0.02;

/** z of an indicator s > 0. */
export function toPath(s: number, lambda: number): number {
  return lambda === 0 ? Math.log(s) : (s ** lambda - 1) / lambda;
}

/** ln s at z; z beyond a path's own bound is held just inside it. */
export function lnIndicator(z: number, lambda: number): number {
  return lambda === 0 ? z : Math.log(Math.max(LEAST, 1 + lambda * z)) / lambda;
}

/** d ln s / dz at z. */
export function lnIndicatorSlope(z: number, lambda: number): number {
  return lambda === 0 ? 1 : 1 / Math.max(LEAST, 1 + lambda * z);
}
