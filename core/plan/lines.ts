/** A plan line by line: when, at what risk, and what the next best would cost. */
import { prepare, type Prepared } from "./blocks";
import { addedCost } from "./improve";
import type { PlanOption } from "./types";
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

/** A choice among all options that there are, those that are never best too. */
export function amongAll({ problem, blocks }: Prepared, choice: Choice): { prepared: Prepared; choice: Choice } {
  const ids = blocks.map((b, i) => b.options[choice[i]!]!.id);
  const prepared = prepare(problem, true);
  return { prepared, choice: prepared.blocks.map((b, i) => b.options.findIndex((o) => o.id === ids[i])) };
}

/**
 * Every piece of a plan, in the order of the problem's pieces: how it is done, and what every other way would cost more.
 * @param solved the prepared problem
 * @param taken the option of each block, by its place
 * @returns a line a piece
 * @example
 * const costs = { part: 2000, failure: 20_000 };
 * const work = { hours: { mechanical: 6 }, partAt: null, partSure: true, since: -8.64e10, reads: null, booked: null, costs };
 * const piece = { id: "a", label: "a", machine: "m", circuit: "c", crossings: [8.64e8], ...work };
 * const solved = preparePlan({ now: 0, until: 2.6e10, stops: [], pieces: [piece], costs: usualCosts, wishes: noWishes });
 * linesOf(solved, [0]).map((line) => [line.piece, line.option.id === solved.blocks[0].options[0].id]) // [["a", true]]
 */
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
