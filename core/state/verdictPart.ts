/** A verdict is a sentence in parts, so that figures and dates are written in the units and the zone of who reads it. */
import type { QuantityId } from "../units/quantities";

export type VerdictPart =
  | { text: string; strong?: boolean }
  | { value: number; quantity: QuantityId; digits?: number; strong?: boolean }
  | { date: number; strong?: boolean; precision: "day" | "month" };
