/** What a plan costs: expected, its spread over what may come, and where the money goes. */
import type { BlockOption, Prepared } from "./blocks";
import { costInFate } from "./options";
import { fateCount, fatesOf, TAIL } from "./scenarios";

/** By block: the place of its option. */
export type Choice = readonly number[];

/** How many use each opening, and the hours taken of each crew. */
export interface Load {
  users: Int32Array;
  hours: Float64Array;
}

/** Nobody has chosen anything yet. */
export const emptyLoad = ({ shared }: Prepared): Load => ({
  users: new Int32Array(shared.openings.length),
  hours: new Float64Array(shared.crews.length),
});

/** What is shared under a choice. */
export function loadOf(prepared: Prepared, choice: Choice): Load {
  const load = emptyLoad(prepared);
  prepared.blocks.forEach((b, i) => addTo(load, b.options[choice[i]!]!, 1));
  return load;
}

/** Put an option into the load, or take it out (`sign` -1). */
export function addTo({ users, hours }: Load, option: BlockOption, sign: 1 | -1): void {
  for (const place of option.opens) users[place]! += sign;
  for (const take of option.takes) hours[take.crew]! += sign * take.hours;
}

/** Cost of what a choice shares: openings, and hours over the crew. */
export function sharedCost(prepared: Prepared, choice: Choice): { opening: number; over: number } {
  const { shared, problem } = prepared;
  const { users, hours } = loadOf(prepared, choice);
  const opening = shared.openings.reduce((sum, cost, i) => sum + (users[i]! > 0 ? cost : 0), 0);
  const over = shared.crews.reduce((sum, has, i) => sum + Math.max(0, hours[i]! - has), 0);
  return { opening, over: over * problem.costs.overHour };
}

export interface PlanValue {
  /** Expected cost. */
  expected: number;
  parts: { failing: number; life: number; work: number; standing: number; opening: number; over: number };
  /** Over the scenarios. */
  low: number;
  high: number;
  /** Mean of the worst tenth. */
  worst: number;
  /** Failures that are to be expected. */
  failures: number;
}

const tailOf = (sorted: readonly number[]) => {
  const tail = sorted.slice(-Math.round(sorted.length * TAIL));
  return tail.reduce((sum, v) => sum + v, 0) / tail.length;
};

/**
 * What a choice costs, with its spread over scenarios that are the same for every plan of the same pieces.
 * @param prepared the problem
 * @param choice the option of each block, by its place
 * @returns money: expected, by its parts, its P10 and P90, and the mean of the worst tenth
 * @example
 * const costs = { part: 2000, failure: 20_000 };
 * const work = { hours: { mechanical: 6 }, partAt: null, partSure: true, since: -8.64e10, reads: null, booked: null, costs };
 * const piece = { id: "a", label: "a", machine: "m", circuit: "c", crossings: [null], ...work };
 * const solved = preparePlan({ now: 0, until: 2.6e10, stops: [], pieces: [piece], costs: usualCosts, wishes: noWishes });
 * planValue(solved, [0]).failures // 0: nothing foretells a crossing
 */
export function valueOf(prepared: Prepared, choice: Choice): PlanValue {
  const { blocks, problem } = prepared;
  const { opening, over } = sharedCost(prepared, choice);
  const parts = { failing: 0, life: 0, work: 0, standing: 0, opening, over };
  let failures = 0;
  const count = fateCount(
    problem.wishes.caution,
    blocks.reduce((sum, b) => sum + b.options.length, 0),
  );
  const fates = fatesOf(problem, count);
  const totals = new Array<number>(count).fill(opening + over);
  blocks.forEach((b, i) => {
    b.pieces.forEach((piece, k) => {
      const option = b.options[choice[i]!]!.own[k]!;
      failures += option.fails;
      for (const key of ["failing", "life", "work", "standing"] as const) parts[key] += option.parts[key];
      fates[piece]!.forEach((fate, s) => {
        totals[s]! += costInFate(problem.pieces[piece]!, option, fate, problem.costs);
      });
    });
  });
  totals.sort((a, b) => a - b);
  return {
    expected: Object.values(parts).reduce((sum, v) => sum + v, 0),
    parts,
    low: totals[Math.floor(0.1 * count)]!,
    high: totals[Math.floor(0.9 * count)]!,
    worst: tailOf(totals),
    failures,
  };
}

/** What is minimised: the expected cost, and by the weight of caution the worst tenth of it. */
export function objectiveOf(prepared: Prepared, choice: Choice): number {
  const { caution } = prepared.problem.wishes;
  if (caution > 0) {
    const { expected, worst } = valueOf(prepared, choice);
    return (1 - caution) * expected + caution * worst;
  }
  const { opening, over } = sharedCost(prepared, choice);
  return prepared.blocks.reduce((sum, b, i) => sum + b.options[choice[i]!]!.cost, opening + over);
}
