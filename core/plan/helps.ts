/** What would help a plan most: a part on the shelf, or one more reading before anything is decided. */
import { DAY } from "../units/time";
import { prepare, type Prepared } from "./blocks";
import { addedCost, bestOf } from "./improve";
import { amongAll } from "./lines";
import { outcomesOf, READ_AFTER_DAYS, readingWorth } from "./reading";
import type { PlanProblem } from "./types";
import { READING_HOURS } from "./usual";
import { addTo, loadOf, type Choice } from "./value";

export type PlanHelp = { piece: string; saves: number } & (
  | { kind: "part" }
  /** Read again on a day (epoch ms), then decide. Knowing the day of the limit would save `most`. */
  | { kind: "reading"; at: number; most: number }
);

const LEAST = 1e-6;

/**
 * What would save most, piece by piece with the others as planned: its part on the shelf today, or one more reading on the
 * best of some days, less what the reading costs.
 * @param solved the prepared problem
 * @param taken the option of each block, by its place
 * @returns the greatest saving first, in the money of the problem
 * @example
 * const costs = { part: 2000, failure: 20_000 };
 * const work = { hours: { mechanical: 6 }, partSure: false, since: -8.64e10, reads: null, booked: null, costs };
 * const piece = { id: "a", label: "a", machine: "m", circuit: "c", crossings: [8.64e8], partAt: 8.64e9, ...work };
 * const solved = preparePlan({ now: 0, until: 2.6e10, stops: [], pieces: [piece], costs: usualCosts, wishes: noWishes });
 * helpsOf(solved, [0])[0].kind // "part"
 */
export function helpsOf(solved: Prepared, taken: Choice): PlanHelp[] {
  const { prepared, choice } = amongAll(solved, taken);
  const { problem, blocks } = prepared;
  const found: PlanHelp[] = [];
  const withParts = prepare(shelved(problem), true);
  const load = loadOf(prepared, choice);
  blocks.forEach((b, i) => {
    if (b.pieces.length !== 1) return;
    const [place] = b.pieces as [number];
    const piece = problem.pieces[place]!;
    const chosen = b.options[choice[i]!]!;
    addTo(load, chosen, -1);
    const now = addedCost(prepared, load, chosen);
    const reading = bestReading(prepared, load, i, now);
    if (reading) found.push(reading);
    addTo(load, chosen, 1);
    if (piece.partAt === null || piece.partAt <= problem.now) return;
    const other = withParts.blocks.findIndex((x) => x.pieces.includes(place));
    const moved = withParts.blocks.map((x) =>
      x.options.findIndex((o) => o.id === chosenId(prepared, choice, x.pieces[0]!)),
    );
    // the others stay where they are; where one of them could not, nothing is claimed
    if (moved.some((j, k) => j < 0 && k !== other)) return;
    moved[other] = 0;
    const loaded = loadOf(withParts, moved);
    addTo(loaded, withParts.blocks[other]!.options[0]!, -1);
    found.push({
      piece: piece.id,
      kind: "part",
      saves: now - bestOf(withParts, loaded, withParts.blocks[other]!).least,
    });
  });
  return found.filter((h) => h.saves > LEAST).sort((p, q) => q.saves - p.saves);
}

const shelved = (problem: PlanProblem): PlanProblem => ({
  ...problem,
  pieces: problem.pieces.map((p) => ({ ...p, partAt: p.partAt === null ? null : problem.now })),
});

const chosenId = ({ blocks }: Prepared, choice: Choice, piece: number) => {
  const i = blocks.findIndex((b) => b.pieces.includes(piece));
  return blocks[i]!.options[choice[i]!]!.id;
};

/** The day on which one more reading of a block's piece would save most; undefined: none would. */
function bestReading(
  prepared: Prepared,
  load: ReturnType<typeof loadOf>,
  block: number,
  now: number,
): PlanHelp | undefined {
  const { problem, blocks } = prepared;
  const { options, pieces } = blocks[block]!;
  const piece = problem.pieces[pieces[0]!]!;
  if (!piece.reads || piece.reads.level >= 1) return undefined;
  const outcomes = outcomesOf(
    piece,
    options.map((o) => ({ option: o.own[0]!, beside: addedCost(prepared, load, o) - o.cost })),
    problem,
  );
  const { crossings, costs } = outcomes;
  const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length;
  const known = mean(crossings.map((_, k) => Math.min(...costs.map((row) => row[k]!))));
  const best = READ_AFTER_DAYS.map((days) => {
    const at = problem.now + days * DAY;
    return { at, cost: readingWorth(outcomes, piece, at, problem.now) };
  }).reduce((p, q) => (q.cost < p.cost ? q : p));
  const saves = now - best.cost - READING_HOURS * problem.costs.crewHour;
  return { piece: piece.id, kind: "reading", at: best.at, saves, most: now - known };
}
