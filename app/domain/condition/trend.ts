/** The margin that a point has used over its life, as a small line draws it. */
import { MONTH, marginHistory } from "@core";
import type { AssessmentParts } from "./shape.server";

export interface MarginTrend {
  /** From the first moment to the last. */
  months: number;
  /** Share of that time, and of the margin. */
  points: [number, number][];
}

/** null: too few readings, or no limit. */
export function marginTrendOf(parts: AssessmentParts | null): MarginTrend | null {
  const history = parts ? marginHistory(parts) : [];
  const [first, last] = [history[0], history.at(-1)];
  if (!first || !last || last.at <= first.at) return null;
  const share = (at: number) => (at - first.at) / (last.at - first.at);
  return {
    months: Math.max(1, Math.round((last.at - first.at) / MONTH)),
    points: history.map(({ at, used }) => [Number(share(at).toFixed(3)), Number(used.toFixed(3))]),
  };
}
