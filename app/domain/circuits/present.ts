/** Gauges of a circuit as they stand now, for being held against its model. */
import { levelNow, type PresentGauge } from "@core";
import type { AssessmentParts } from "~/domain/condition/index.server";

/** The level of a gauge now; null: too few readings, or none when it was healthy. */
export function presentOf(pointId: string, parts: AssessmentParts | null): PresentGauge | null {
  if (!parts?.expectation || !parts.baseline) return null;
  const { value, deviation } = levelNow({ ...parts, expectation: parts.expectation, baseline: parts.baseline });
  return { pointId, value, uncertainty: Math.hypot(deviation, parts.baseline.uncertainty) };
}
