/** What the simple tests share: where their figures come from, and the words for a value in its band. */
import type { Outcome } from "../calculators/types";

export const PRACTICE = "Common practice; the manufacturer's figure first.";
export const yesNo = [
  { value: "yes", label: "yes" },
  { value: "no", label: "no" },
] as const;

/** Words for a value and its band. */
export function bandOutcome(
  value: number,
  low: number | null,
  high: number | null,
  words: { below: string; within: string; above: string },
): Pick<Outcome, "tone"> & { said: string } {
  if (low !== null && value < low) return { tone: "bad", said: words.below };
  if (high !== null && value > high) return { tone: "bad", said: words.above };
  return { tone: "good", said: words.within };
}
