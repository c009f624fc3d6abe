/** A plan line by line: when, at what risk, and what the next best would cost; and what would help most. */
import { prepare, type Prepared } from "./blocks";
import { addedCost, bestOf } from "./improve";
import { crossingsOf, failedBy, hazardOf } from "./scenarios";
import type { PlanOption, PlanProblem } from "./types";
import { addTo, loadOf, type Choice } from "./value";

export interface PlanLine {
  piece: string;
  /** How it is done. */
  option: PlanOption;
  /** Other pieces of the same machine at the same time: opened once for all. */
  shares: number;
  /** The next best with everything else as planned; null: there is no other way. */
  next: { option: PlanOption; more: number } | null;
  /** What every other way would cost more, by option id, with everything else as planned. */
  more: Record<string, number>;
}

const LEAST = 1e-6;

/** A choice among all options that there are, those that are never best too. */
function amongAll({ problem, blocks }: Prepared, choice: Choice): { prepared: Prepared; choice: Choice } {
  const ids = blocks.map((b, i) => b.options[choice[i]!]!.id);
  const prepared = prepare(problem, true);
  return { prepared, choice: prepared.blocks.map((b, i) => b.options.findIndex((o) => o.id === ids[i])) };
}

/** Every piece of a plan, in the order of the problem's pieces. */
export function linesOf(solved: Prepared, taken: Choice): PlanLine[] {
  const { prepared, choice } = amongAll(solved, taken);
  const { blocks, problem } = prepared;
  const load = loadOf(prepared, choice);
  const lines = blocks.flatMap((b, i) => {
    const chosen = b.options[choice[i]!]!;
    addTo(load, chosen, -1);
    const own = addedCost(prepared, load, chosen);
    const others = b.options
      .map((o, j) => ({ o, j, more: addedCost(prepared, load, o) - own }))
      .filter(({ j }) => j !== choice[i])
      .sort((p, q) => p.more - q.more);
    const shares = Math.max(0, ...chosen.opens.map((place) => load.users[place]!));
    addTo(load, chosen, 1);
    const [best] = others;
    return b.pieces.map((piece, k) => ({
      place: piece,
      line: {
        piece: problem.pieces[piece]!.id,
        option: chosen.own[k]!,
        shares: shares + b.pieces.length - 1,
        next: best ? { option: best.o.own[k]!, more: Math.max(0, best.more) } : null,
        more: Object.fromEntries(others.map(({ o, more }) => [o.id, more])),
      },
    }));
  });
  return lines.sort((p, q) => p.place - q.place).map((l) => l.line);
}

export interface PlanHelp {
  piece: string;
  /** The part on the shelf today, or knowing exactly when the limit comes: what it would save, at most. */
  kind: "part" | "knowing";
  saves: number;
}

/**
 * What would save most, piece by piece with the others as planned: its part on the shelf today, or knowing when its limit
 * comes. Knowing is an upper bound of what further readings are worth: none tells everything.
 */
export function helpsOf(solved: Prepared, taken: Choice): PlanHelp[] {
  const { prepared, choice } = amongAll(solved, taken);
  const { problem, blocks } = prepared;
  const found: PlanHelp[] = [];
  const shelf = shelved(problem);
  const withParts = prepare(shelf, true);
  const load = loadOf(prepared, choice);
  blocks.forEach((b, i) => {
    if (b.pieces.length !== 1) return;
    const [place] = b.pieces as [number];
    const piece = problem.pieces[place]!;
    const chosen = b.options[choice[i]!]!;
    addTo(load, chosen, -1);
    const now = addedCost(prepared, load, chosen);
    found.push({ piece: piece.id, kind: "knowing", saves: now - knowing(prepared, load, i) });
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

/** Expected cost of a piece whose crossing is known beforehand: each time the cheapest option for it. */
function knowing(prepared: Prepared, load: ReturnType<typeof loadOf>, block: number): number {
  const { problem, blocks } = prepared;
  const { options, pieces } = blocks[block]!;
  const piece = problem.pieces[pieces[0]!]!;
  const hazard = hazardOf(problem.costs.failsAMonth);
  const quantiles = crossingsOf(piece, problem.now);
  const shared = options.map((o) => addedCost(prepared, load, o) - o.cost);
  const total = quantiles.reduce((sum, crosses) => {
    const costs = options.map((o, j) => {
      const fails = failedBy(o.at, crosses, problem.now, hazard);
      const left = Math.max(0, crosses - o.at) / Math.max(86_400_000, crosses - piece.since);
      const own = o.own[0]!;
      const done = own.fails < 1 ? own.parts.work / (1 - own.fails) : 0;
      return (
        fails * piece.costs.failure + (1 - fails) * done + left * piece.costs.part + own.parts.standing + shared[j]!
      );
    });
    return sum + Math.min(...costs);
  }, 0);
  return total / quantiles.length;
}
