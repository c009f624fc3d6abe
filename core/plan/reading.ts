/**
 * What one more reading of a part is worth: the expected cost when the decision waits for it. Bayes over the quantiles of
 * the forecast: each of them says where the level would stand on that day, and the reading is off by its own scatter.
 */
import { normalQuantile } from "../numeric/normal";
import { costAt } from "./options";
import { crossingsOf } from "./scenarios";
import type { PlanOption, PlanPiece, PlanProblem } from "./types";

/** Days after which one more reading is tried. */
export const READ_AFTER_DAYS = [14, 30, 60, 90, 150];
/** Crossings that stand for the forecast, and errors that stand for the scatter: each as likely as the others. */
const CROSSINGS = 24;
const ERRORS = Array.from({ length: 7 }, (_, i) => normalQuantile((i + 0.5) / 7));

export interface Outcomes {
  options: readonly PlanOption[];
  /** Equally likely moments of the limit, epoch ms. */
  crossings: readonly number[];
  /** By option, by crossing: what it costs when the limit comes then. */
  costs: readonly (readonly number[])[];
}

/**
 * What every option costs under every crossing that may come.
 * @param offered the options, each with what it costs beside its own (openings, hours over the crew)
 */
export function outcomesOf(
  piece: PlanPiece,
  offered: readonly { option: PlanOption; beside: number }[],
  problem: Pick<PlanProblem, "now" | "costs">,
): Outcomes {
  const all = crossingsOf(piece, problem.now);
  const count = Math.min(CROSSINGS, all.length);
  const crossings = Array.from({ length: count }, (_, i) => all[Math.floor(((i + 0.5) * all.length) / count)]!);
  const costs = offered.map(({ option, beside }) =>
    crossings.map(
      (crosses) => costAt({ ...piece, crossings: [crosses] }, option.at, problem).cost + option.parts.standing + beside,
    ),
  );
  return { options: offered.map((o) => o.option), crossings, costs };
}

/**
 * Expected cost when the part is read at a moment and the cheapest way is taken by what was read. The level goes straight
 * from today's to the limit. A part that is not ordered yet comes later by as long as the decision waits.
 * @param at when it is read, epoch ms
 * @returns Infinity: after it nothing could be done
 */
export function readingWorth(
  { options, crossings, costs }: Outcomes,
  { reads, partAt, partSure }: PlanPiece,
  at: number,
  now: number,
): number {
  const part = partAt === null || partSure ? (partAt ?? now) : partAt + (at - now);
  const open = options.flatMap((o, i) => (o.kind === "wait" || o.at >= Math.max(at, part) ? [i] : []));
  if (!reads || open.length === 0) return Infinity;
  const levels = crossings.map((crosses) =>
    crosses <= now ? Math.max(1, reads.level) : reads.level + ((1 - reads.level) * (at - now)) / (crosses - now),
  );
  const total = levels.reduce((sum, level, k) => {
    const after = ERRORS.map((error) => {
      const read = level + error * reads.deviation;
      const odds = levels.map((l) => Math.exp(-0.5 * ((read - l) / reads.deviation) ** 2));
      const expected = (i: number) => odds.reduce((s, w, j) => s + w * costs[i]![j]!, 0);
      const taken = open.reduce((best, i) => (expected(i) < expected(best) ? i : best));
      return costs[taken]![k]!;
    });
    return sum + after.reduce((s, c) => s + c, 0) / ERRORS.length;
  }, 0);
  return total / levels.length;
}
