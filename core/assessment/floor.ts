/** The smallest difference that can be told at a point. */
import { resolveLimits, type Limits } from "../baseline/limit";
import { quantityOf } from "../units/quantities";
import type { AssessPoint } from "./types";

/** Limits that rest on no baseline. */
export function limitsWithoutBaseline({ limit, fullFlow }: AssessPoint): Limits | null {
  const resolved = limit ? resolveLimits(limit, fullFlow === null ? {} : { fullFlow }) : null;
  return resolved?.ok ? resolved.limits : null;
}

/** Share of a limit, or of the distance between two, that an instrument chosen for them tells apart. */
const OF_LIMIT = 0.01;

/**
 * The smallest difference that can be told at a point: no instrument of the trade does better for its quantity, and one that was
 * chosen for a small limit (a vacuum of -0.30 bar, a pilot pressure) tells smaller ones.
 */
export function floorOf(point: AssessPoint): number {
  const { floor } = quantityOf(point.quantity);
  const limits = limitsWithoutBaseline(point);
  const size =
    limits && limits.upper !== null && limits.lower !== null
      ? limits.upper - limits.lower
      : Math.abs(limits?.upper ?? limits?.lower ?? 0);
  return size > 0 ? Math.min(floor, OF_LIMIT * size) : floor;
}
