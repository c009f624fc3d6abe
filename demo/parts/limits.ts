/** Limits as parts of the harbour have them, and how one well part differs from the next. */
import type { LimitRule } from "@core";

export const absolute = (upper: number | null, lower: number | null = null): LimitRule => ({
  basis: "absolute",
  upper,
  lower,
});
export const maker = (upper: number | null, lower: number | null = null): LimitRule => ({
  basis: "maker",
  upper,
  lower,
});
export const fullFlowShare = (upper: number): LimitRule => ({ basis: "shareOfFullFlow", upper, lower: null });

/** The tenths of a unit that make one well pump differ from the next. */
export type Spread = (low: number, high: number) => number;
