/** Pieces that go together become one block, so that everything behind has one choice a block to make. */
import { crewAt, hoursOf, optionsOf, standsAt, stopsOf } from "./options";
import { tradeIds, type CrewHours, type PlanOption, type PlanProblem, type PlanTrouble, type Trade } from "./types";

export interface BlockOption {
  id: string;
  kind: PlanOption["kind"];
  at: number;
  cost: number;
  /** The same option of each piece, in the order of the block's pieces. */
  own: readonly PlanOption[];
  /** What it opens, and of whose hours it takes how many: places in what is shared. */
  opens: readonly number[];
  takes: readonly { crew: number; hours: number }[];
}

/** What pieces share: a machine opened at an option costs once, hours over what a crew has cost by the hour. */
export interface Shared {
  openings: number[];
  crews: number[];
}

export interface Block {
  /** Places in the problem's pieces. */
  pieces: readonly number[];
  machines: readonly string[];
  hours: CrewHours;
  options: readonly BlockOption[];
}

export interface Prepared {
  problem: PlanProblem;
  blocks: Block[];
  shared: Shared;
  troubles: PlanTrouble[];
}

/**
 * What is paid once for a machine at an option, whatever is done there: isolating, draining, opening.
 * @param kind of the option
 * @param problem its costs
 * @returns money
 * @example openingOf("own", { costs: { ...usualCosts, opening: 400, extraStop: 1800 } }) // 2200
 * @example openingOf("stop", { costs: { ...usualCosts, opening: 400, extraStop: 1800 } }) // 400
 */
export const openingOf = (kind: PlanOption["kind"], { costs }: Pick<PlanProblem, "costs">): number =>
  costs.opening + (kind === "own" ? costs.extraStop : 0);

/** Groups that share a piece are one: A with B and B with C are A, B and C. */
function groupsOf(problem: PlanProblem): number[][] {
  const place = new Map(problem.pieces.map((p, i) => [p.id, i]));
  const root = problem.pieces.map((_, i) => i);
  const find = (i: number): number => (root[i] === i ? i : (root[i] = find(root[i]!)));
  for (const group of problem.wishes.together) {
    const [first, ...rest] = group.flatMap((id) => place.get(id) ?? []);
    for (const other of rest) root[find(other)] = find(first!);
  }
  const groups = new Map<number, number[]>();
  problem.pieces.forEach((_, i) => {
    const own = groups.get(find(i));
    if (own) own.push(i);
    else groups.set(find(i), [i]);
  });
  return [...groups.values()];
}

/** Why a piece cannot take the option that it is pinned to, and what can be done. */
function whyNot(problem: PlanProblem, piece: number, pin: string): PlanTrouble {
  const { label, machine, partAt, id } = problem.pieces[piece]!;
  const trouble = (text: string, offers: string[]): PlanTrouble => ({ piece: id, text: `${label}: ${text}`, offers });
  const stop = problem.stops.find((s) => s.id === pin);
  if (!stop)
    return pin.startsWith("own")
      ? trouble("its part is not there by then.", ["expedite the part", "pin it to a later day"])
      : trouble("the stop that it is pinned to is gone.", ["choose another stop"]);
  if (stop.at < problem.now) return trouble(`${stop.name} has passed.`, ["choose another stop", "a stop of its own"]);
  if (stop.at > problem.until) return trouble(`${stop.name} lies beyond the plan.`, ["plan further ahead"]);
  if (problem.wishes.without.includes(pin))
    return trouble(`${stop.name} is left out of this plan.`, ["choose another stop", "keep the stop"]);
  if (!standsAt(stop, machine))
    return trouble(`its machine does not stand at ${stop.name}.`, ["let the machine stand there", "a stop of its own"]);
  if (partAt !== null && partAt > stop.at)
    return trouble(`its part is not there by ${stop.name}.`, [
      "expedite the part",
      "watch it more closely until a later stop",
      "repair it in the meantime",
    ]);
  return trouble(`it is both wished for and forbidden at ${stop.name}.`, ["take back one of the two wishes"]);
}

/** What cannot be heeded whatever is chosen. */
function troublesOf(problem: PlanProblem): PlanTrouble[] {
  const found: PlanTrouble[] = [];
  const ahead = stopsOf(problem);
  for (const stop of ahead)
    if (hoursOf(crewAt(problem, stop)) + hoursOf(problem.wishes.moreCrew) <= 0)
      found.push({ piece: null, text: `${stop.name} has no crew.`, offers: ["give it crew hours", "leave it out"] });
  for (const p of problem.pieces) {
    const stands = ahead.filter((s) => standsAt(s, p.machine));
    if (ahead.length > 0 && stands.length === 0)
      found.push({
        piece: p.id,
        text: `${p.label}: its machine stands at no planned stop.`,
        offers: ["a stop of its own", "let it stand at a planned stop"],
      });
    else if (stands.length > 0 && p.partAt !== null && stands.every((s) => s.at < p.partAt!))
      found.push({
        piece: p.id,
        text: `${p.label}: its part comes after every planned stop.`,
        offers: ["expedite the part", "a stop of its own when it is there", "watch it more closely", "repair instead"],
      });
  }
  return found;
}

/** Hours by the trade that has them: a stop that does not tell its electricians apart has one crew for everything. */
function crewTaken(hours: CrewHours, crew: CrewHours): { trade: Trade; hours: number }[] {
  const taken: CrewHours = {};
  for (const t of tradeIds) {
    const trade = crew[t] === undefined ? "mechanical" : t;
    if (hours[t]) taken[trade] = (taken[trade] ?? 0) + hours[t];
  }
  return tradeIds.flatMap((trade) => (taken[trade] ? [{ trade, hours: taken[trade] }] : []));
}

type Unshared = Omit<Block, "options"> & { options: Omit<BlockOption, "opens" | "takes">[] };

/** Options that all pieces of a block have, cut down to what is pinned. */
function blockOf(problem: PlanProblem, pieces: number[], options: PlanOption[][], troubles: PlanTrouble[]): Unshared {
  const [first, ...rest] = pieces.map((i) => options[i]!);
  let shared = first!.flatMap((o) => {
    const own = [o, ...rest.flatMap((list) => list.find((other) => other.id === o.id) ?? [])];
    const at = Math.max(...own.map((x) => x.at));
    const cost = own.reduce((sum, x) => sum + x.cost, 0);
    return own.length === pieces.length ? [{ id: o.id, kind: o.kind, at, cost, own }] : [];
  });
  for (const i of pieces) {
    const { id, label } = problem.pieces[i]!;
    const pin = problem.wishes.pinned[id];
    if (pin === undefined) continue;
    const fits = (o: Pick<PlanOption, "id" | "kind">) => (pin === "own" ? o.kind === "own" : o.id === pin);
    const allowed = shared.filter(fits);
    if (allowed.length > 0) shared = allowed;
    else if (options[i]!.some(fits))
      troubles.push({
        piece: id,
        text: `${label}: what it goes together with cannot be done there.`,
        offers: ["take them apart", "pin them to the same stop"],
      });
    else troubles.push(whyNot(problem, i, pin));
  }
  const hours: CrewHours = {};
  for (const i of pieces)
    for (const t of tradeIds) {
      const own = problem.pieces[i]!.hours[t] ?? 0;
      if (own > 0) hours[t] = (hours[t] ?? 0) + own;
    }
  const machines = [...new Set(pieces.map((i) => problem.pieces[i]!.machine))];
  return { pieces, machines, hours, options: shared };
}

/**
 * Options that can be best: one that costs more in any case than an option open to everybody, with all that it would pay
 * there, is never taken. Stops of its own and waiting have no crew to run short of.
 */
function worth(
  { options, machines }: Unshared,
  problem: PlanProblem,
  inAnyCase: (o: Unshared["options"][number]) => number,
): Unshared["options"] {
  if (problem.wishes.caution > 0) return options;
  const sure = options
    .filter((o) => o.kind !== "stop")
    .map((o) => o.cost + machines.length * openingOf(o.kind, problem));
  const least = Math.min(...sure);
  return options.filter((o) => inAnyCase(o) <= least + 1e-9);
}

/**
 * The problem as blocks with their options; a wish that cannot be heeded is put aside and told.
 * @param problem what is to be planned, moments as epoch ms
 * @param all keep the options that are never best too, so that it can be told what they would cost
 * @returns blocks of pieces that go together, and what they share
 * @example
 * const costs = { part: 2000, failure: 20_000 };
 * const work = { hours: { mechanical: 6 }, partAt: null, partSure: true, since: -1000, reads: null, booked: null, costs };
 * const pieces = ["a", "b"].map((id) => ({ id, label: id, machine: "m", circuit: "c", crossings: [500], ...work }));
 * const problem = { now: 0, until: 1000, stops: [], pieces, costs: usualCosts, wishes: { ...noWishes, together: [["a", "b"]] } };
 * preparePlan(problem).blocks.map((block) => block.pieces) // [[0, 1]]
 */
export function prepare(problem: PlanProblem, all = false): Prepared {
  const options = optionsOf(problem);
  const troubles = troublesOf(problem);
  const whole = groupsOf(problem).map((pieces) => blockOf(problem, pieces, options, troubles));
  const users = new Map<string, number>();
  for (const b of whole)
    for (const key of b.options.flatMap((o) => b.machines.map((m) => `${m} ${o.id}`)))
      users.set(key, (users.get(key) ?? 0) + 1);
  /** What a block pays there in any case: its own cost, and the openings that nobody can share with it. */
  const alone = (b: Unshared, o: Unshared["options"][number]) =>
    b.machines.filter((m) => users.get(`${m} ${o.id}`) === 1).length * openingOf(o.kind, problem);
  const unshared = whole.map((b) => ({
    ...b,
    options: all ? b.options : worth(b, problem, (o) => o.cost + alone(b, o)),
  }));
  const crewOf = new Map(stopsOf(problem).map((s) => [s.id, crewAt(problem, s)]));
  const shared: Shared = { openings: [], crews: [] };
  const places = new Map<string, number>();
  const placeOf = (list: number[], key: string, value: number) => {
    const place = places.get(key) ?? list.push(value) - 1;
    places.set(key, place);
    return place;
  };
  const blocks = unshared.map((b): Block => ({
    ...b,
    options: b.options.map((o) => ({
      ...o,
      opens: b.machines.map((m) => placeOf(shared.openings, `opens ${m} ${o.id}`, openingOf(o.kind, problem))),
      takes:
        o.kind === "stop"
          ? crewTaken(b.hours, crewOf.get(o.id)!).map(({ trade, hours }) => {
              const has = (crewOf.get(o.id)?.[trade] ?? 0) + (problem.wishes.moreCrew[trade] ?? 0);
              return { crew: placeOf(shared.crews, `crew ${trade} ${o.id}`, has), hours };
            })
          : [],
    })),
  }));
  return { problem, blocks, shared, troubles };
}
