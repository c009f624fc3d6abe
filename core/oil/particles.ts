/** Counts of particles over time: the step that dirt makes, the trend, and the margin that they have used. */
import { P90 } from "../numeric/normal";
import { iso4406Bounds } from "../contamination/iso4406";
import { mannKendall } from "../trend/mannKendall";
import { theilSen } from "../trend/theilSen";
import { YEAR } from "../units/time";
import { countFor } from "./codes";
import type { OilSample } from "./sample";
import { stepUp } from "./step";
import type { CircuitTarget } from "./target";
import type { CountTrend, OilAssessment } from "./types";

const SIZES = ["over4", "over6", "over14"] as const;
/** ln scatter of a count (common practice). */
const SCATTER = 0.3;

/** ISO 4406 number as a continuous figure: a doubling is one. */
function exactNumber(count: number): number {
  return Math.log2(Math.max(count, iso4406Bounds[0] / 2) / iso4406Bounds[0]);
}

/** The clearest step over the sizes; `still`: the newest sample stands on the new level. */
export function countStep(samples: readonly OilSample[], target: CircuitTarget | null): OilAssessment["step"] {
  let best: (NonNullable<OilAssessment["step"]> & { size: (typeof SIZES)[number] }) | null = null;
  for (const size of SIZES) {
    const counted = samples.flatMap((s) => {
      const count = countFor(s, size);
      return count === null ? [] : [{ at: s.at, ln: Math.log(Math.max(count, 0.01)) }];
    });
    const step = stepUp(counted.map((c) => c.ln));
    if (!step) continue;
    const factor = Math.exp(step.size);
    if (best && factor <= best.factor) continue;
    const before = counted[step.index]!.ln - step.size;
    best = {
      after: counted[step.index - 1]!.at,
      by: counted[step.index]!.at,
      factor,
      size,
      still: counted.at(-1)!.ln > before + step.size / 2,
    };
  }
  // what was long ago, and is clean again, is history
  if (best && !best.still && target && samples.at(-1)!.at - best.by > 2 * YEAR) return null;
  return best;
}

/** How fast a count doubles, over its newest samples; null: too few. */
export function countTrend(samples: readonly OilSample[], size: "over4" | "over14"): CountTrend | null {
  const counted = samples
    .flatMap((s) => {
      const count = countFor(s, size);
      return count === null ? [] : [{ at: s.at, log2: Math.log2(Math.max(count, 0.01)) }];
    })
    .slice(-24);
  if (counted.length < 6) return null;
  const { slope } = theilSen(
    counted.map((c) => c.at / YEAR),
    counted.map((c) => c.log2),
  );
  return slope === 0 ? null : { doublingYears: 1 / slope, p: mannKendall(counted.map((c) => c.log2)).p };
}

/** 0: two numbers cleaner than the target, 1: at the target; null: no target, or nothing counted. */
export function particleMargin(samples: readonly OilSample[], target: CircuitTarget | null): OilAssessment["margin"] {
  if (!target || samples.length === 0) return null;
  const of = (s: OilSample) => {
    const shares = SIZES.flatMap((size, i) => {
      const count = countFor(s, size);
      return count === null ? [] : [1 + (exactNumber(count) - target.codes[i]!) / 2];
    });
    return shares.length ? Math.max(...shares) : null;
  };
  const value = of(samples.at(-1)!);
  if (value === null) return null;
  const doubt = (P90 * SCATTER) / Math.LN2 / 2;
  return {
    value,
    low: value - doubt,
    high: value + doubt,
    before: samples.length > 1 ? of(samples.at(-2)!) : null,
    of: "particles",
  };
}
