/**
 * The plan as a mixed-integer program: x is the option of a block, y the opening of a machine at an option, o hours over
 * the crew of a stop; with caution also the worst tenth over scenarios, as z and η (conditional value at risk,
 * Rockafellar and Uryasev, Journal of Risk 2, 2000).
 */
import type { BlockOption, Prepared } from "./blocks";
import { costInFate } from "./options";
import { fateCount, fatesOf, TAIL } from "./scenarios";
import type { Choice } from "./value";

/** A minimisation in columns and rows, rows packed one after another (compressed sparse rows). */
export interface Program {
  cost: number[];
  lower: number[];
  upper: number[];
  /** Must it be a whole number? */
  whole: boolean[];
  rowLower: number[];
  rowUpper: number[];
  starts: number[];
  indices: number[];
  values: number[];
  /** By block: the column of its first option. */
  first: number[];
}

type Entry = readonly [column: number, factor: number];

class Builder {
  readonly program: Program = {
    cost: [],
    lower: [],
    upper: [],
    whole: [],
    rowLower: [],
    rowUpper: [],
    starts: [0],
    indices: [],
    values: [],
    first: [],
  };
  column(cost: number, { lower = 0, upper = Infinity, whole = false } = {}): number {
    const { program } = this;
    program.cost.push(cost);
    program.lower.push(lower);
    program.upper.push(upper);
    program.whole.push(whole);
    return program.cost.length - 1;
  }
  row(entries: Iterable<Entry>, lower: number, upper: number): void {
    const { program } = this;
    for (const [column, factor] of entries)
      if (factor !== 0) {
        program.indices.push(column);
        program.values.push(factor);
      }
    program.starts.push(program.indices.length);
    program.rowLower.push(lower);
    program.rowUpper.push(upper);
  }
}

/** The program of a prepared plan. */
export function programOf(prepared: Prepared): Program {
  const { blocks, problem, shared } = prepared;
  const { costs, wishes } = problem;
  const weight = 1 - wishes.caution;
  const builder = new Builder();
  const { program } = builder;
  const users = shared.openings.map(() => 0);
  for (const place of blocks.flatMap((b) => b.options.flatMap((o) => o.opens))) users[place]! += 1;
  /** Openings that one option alone can use are part of its cost and have no column. */
  const sole = (place: number) => users[place] === 1;
  const openedBy = (o: BlockOption) =>
    o.opens.reduce((sum, place) => sum + (sole(place) ? shared.openings[place]! : 0), 0);
  for (const b of blocks) {
    program.first.push(program.cost.length);
    for (const o of b.options) builder.column(weight * (o.cost + openedBy(o)), { upper: 1, whole: true });
  }
  const opened = shared.openings.map((cost, i) => (sole(i) ? -1 : builder.column(weight * cost, { upper: 1 })));
  const over = shared.crews.map(() => builder.column(weight * costs.overHour));
  const taken = shared.crews.map((_, i): Entry[] => [[over[i]!, -1]]);
  blocks.forEach((b, i) => {
    const first = program.first[i]!;
    builder.row(
      b.options.map((_, j) => [first + j, 1]),
      1,
      1,
    );
    b.options.forEach((o, j) => {
      const opens = (place: number): Entry[] => [
        [opened[place]!, 1],
        [first + j, -1],
      ];
      for (const place of o.opens) if (!sole(place)) builder.row(opens(place), 0, Infinity);
      for (const { crew, hours } of o.takes) taken[crew]!.push([first + j, hours]);
    });
  });
  shared.crews.forEach((has, i) => builder.row(taken[i]!, -Infinity, has));
  if (wishes.caution > 0) {
    const paid: Entry[] = [
      ...opened.flatMap((y, i): Entry[] => (y < 0 ? [] : [[y, shared.openings[i]!]])),
      ...over.map((o): Entry => [o, costs.overHour]),
    ];
    addCaution(prepared, builder, paid, openedBy);
  }
  return program;
}

/** η + Σ z/(tail · scenarios), z ≥ what a scenario costs − η. */
function addCaution(
  { blocks, problem }: Prepared,
  builder: Builder,
  paid: readonly Entry[],
  openedBy: (option: BlockOption) => number,
): void {
  const { program } = builder;
  const { caution } = problem.wishes;
  const count = fateCount(
    caution,
    blocks.reduce((sum, b) => sum + b.options.length, 0),
  );
  const fates = fatesOf(problem, count);
  const eta = builder.column(caution, { lower: -Infinity });
  for (let s = 0; s < count; s++) {
    const z = builder.column(caution / (TAIL * count));
    const entries: Entry[] = [
      [z, 1],
      [eta, 1],
    ];
    blocks.forEach((b, i) =>
      b.options.forEach((o, j) => {
        const cost = b.pieces.reduce(
          (sum, piece, k) => sum + costInFate(problem.pieces[piece]!, o.own[k]!, fates[piece]![s]!, problem.costs),
          0,
        );
        entries.push([program.first[i]! + j, -cost - openedBy(o)]);
      }),
    );
    for (const [column, cost] of paid) entries.push([column, -cost]);
    builder.row(entries, 0, Infinity);
  }
}

/** The choice in a solution: by block, the option whose x is one. null: a block has none. */
export function choiceIn({ blocks }: Prepared, { first }: Program, values: ArrayLike<number>): Choice | null {
  const choice = blocks.map((b, i) => b.options.findIndex((_, j) => (values[first[i]! + j] ?? 0) > 0.5));
  return choice.includes(-1) ? null : choice;
}
