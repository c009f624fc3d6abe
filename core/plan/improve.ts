/**
 * A plan without a solver, in a second or two: simulated annealing over moves of one block or of several of a
 * machine (Kirkpatrick, Gelatt and Vecchi, Science 220, 1983), then moves that save. The solver starts from it.
 */
import { random } from "../random/random";
import type { Block, BlockOption, Prepared } from "./blocks";
import { addTo, emptyLoad, loadOf, type Choice, type Load } from "./value";

/** Moves that are tried for each block, and in all. */
const MOVES_A_BLOCK = 5000;
const MOST_MOVES = 1_500_000;
/** Temperature at first, as a share of what opening a machine costs, and at the end as a share of that. */
const HOT = 2;
const COLD = 0.004;
/** Share of the moves that take one block by itself. */
const ALONE = 0.9;
/** Rounds of moves that save, at the end. */
const ROUNDS = 30;
const LEAST = 1e-6;

/** What an option costs a block that is not in the load: its own cost, what it opens, and hours over the crew. */
export function addedCost({ problem, shared }: Prepared, { users, hours }: Load, option: BlockOption): number {
  let { cost } = option;
  for (const place of option.opens) if (users[place] === 0) cost += shared.openings[place]!;
  for (const take of option.takes) {
    const has = shared.crews[take.crew]!;
    const taken = hours[take.crew]!;
    const more = Math.max(0, taken + take.hours - has) - Math.max(0, taken - has);
    if (more > 0) cost += more * problem.costs.overHour;
  }
  return cost;
}

/** The cheapest option of a block beside what is planned for the others, and the next cheapest; -1: there is none. */
export function bestOf(prepared: Prepared, load: Load, { options }: Block) {
  let [best, next, least, second] = [-1, -1, Infinity, Infinity];
  options.forEach((o, j) => {
    const cost = addedCost(prepared, load, o);
    if (cost < least) [next, second, best, least] = [best, least, j, cost];
    else if (cost < second) [next, second] = [j, cost];
  });
  return { best, least, next, second };
}

/** Blocks that share a machine with each, itself first. */
function beside({ blocks }: Prepared): number[][] {
  const byMachine = new Map<string, number[]>();
  blocks.forEach((b, i) => {
    for (const m of b.machines) byMachine.set(m, [...(byMachine.get(m) ?? []), i]);
  });
  return blocks.map((b, i) => [...new Set([i, ...b.machines.flatMap((m) => byMachine.get(m)!)])]);
}

/** A plan that no move of one block betters; the same for the same problem. */
export function improve(prepared: Prepared): Choice {
  const { blocks, problem } = prepared;
  const choice = blocks.map((b) => bestOf(prepared, emptyLoad(prepared), b).best);
  const load = loadOf(prepared, choice);
  const free = blocks.flatMap((b, i) => (b.options.length > 1 ? [i] : []));
  const moves = free.length === 0 ? 0 : Math.min(MOST_MOVES, MOVES_A_BLOCK * free.length);
  const near = beside(prepared);
  const placeOf = blocks.map((b) => new Map(b.options.map((o, j) => [o.id, j])));
  const rng = random(blocks.length + 7);
  let temperature = HOT * Math.max(1, problem.costs.opening);
  const cooling = Math.exp(Math.log(COLD) / Math.max(1, moves));
  /** Take the moved blocks to their options; what that adds is the result. */
  const swap = (moved: readonly number[], to: readonly number[]) => {
    let more = 0;
    for (const i of moved) {
      addTo(load, blocks[i]!.options[choice[i]!]!, -1);
      more -= addedCost(prepared, load, blocks[i]!.options[choice[i]!]!);
    }
    moved.forEach((i, k) => {
      choice[i] = to[k]!;
      more += addedCost(prepared, load, blocks[i]!.options[to[k]!]!);
      addTo(load, blocks[i]!.options[to[k]!]!, 1);
    });
    return more;
  };
  /** Is a move that costs so much more taken? Early ones often, late ones hardly ever. */
  const taken = (more: number) => more <= 0 || rng.uniform() < Math.exp(-more / temperature);
  const alone = (i: number, j: number) => {
    const { options } = blocks[i]!;
    const before = options[choice[i]!]!;
    addTo(load, before, -1);
    const moved = taken(addedCost(prepared, load, options[j]!) - addedCost(prepared, load, before));
    if (moved) choice[i] = j;
    addTo(load, moved ? options[j]! : before, 1);
  };
  // with some of its machine's other blocks: they share what is paid once
  const along = (i: number, id: string) => {
    const some = near[i]!.filter((k) => k === i || rng.uniform() < 0.5);
    const moved = some.filter((k) => placeOf[k]!.has(id) && blocks[k]!.options[choice[k]!]!.id !== id);
    const before = moved.map((k) => choice[k]!);
    const to = moved.map((k) => placeOf[k]!.get(id)!);
    if (moved.length > 0 && !taken(swap(moved, to))) swap(moved, before);
  };
  for (let m = 0; m < moves; m++) {
    temperature *= cooling;
    const i = free[Math.floor(rng.uniform() * free.length)]!;
    const { options } = blocks[i]!;
    const j = Math.floor(rng.uniform() * options.length);
    if (rng.uniform() >= ALONE) along(i, options[j]!.id);
    else if (j !== choice[i]) alone(i, j);
  }
  const settle = () =>
    blocks.reduce((saved, b, i) => {
      const before = b.options[choice[i]!]!;
      addTo(load, before, -1);
      const { best, least } = bestOf(prepared, load, b);
      const better = least < addedCost(prepared, load, before) - LEAST;
      if (better) choice[i] = best;
      addTo(load, b.options[choice[i]!]!, 1);
      return saved || better;
    }, false);
  for (let round = 0; round < ROUNDS && settle(); round++);
  return choice;
}
