/** The ways in which each piece can be done, and what each would cost by itself. */
import { DAY } from "../units/time";
import { crossingsOf, failedBy, hazardOf, type Fate } from "./scenarios";
import { tradeIds, type CrewHours, type PlanOption, type PlanPiece, type PlanProblem, type PlanStop } from "./types";

/** A machine's own stop is tried at steps of so many days. */
const OWN_STEP = 14;

/** The hours that a stop has for this plan: its own, or those that a wish leaves it. */
export const crewAt = ({ wishes }: Pick<PlanProblem, "wishes">, stop: PlanStop): CrewHours =>
  wishes.crewAt[stop.id] ?? stop.crew;

/**
 * Hours of all trades together.
 * @param hours by trade; one that is left out has none
 * @returns hours
 * @example hoursOf({ mechanical: 5, electrical: 2 }) // 7
 */
export const hoursOf = (hours: CrewHours): number => tradeIds.reduce((sum, t) => sum + (hours[t] ?? 0), 0);

/**
 * Does this machine stand at this stop?
 * @param stop a planned stop; without a list of machines all of them stand
 * @param machine id
 * @returns true where it does
 * @example standsAt({ machines: ["m1"] }, "m2") // false
 * @example standsAt({ machines: null }, "m2") // true
 */
export const standsAt = (stop: PlanStop, machine: string): boolean =>
  stop.machines === null || stop.machines.includes(machine);

/** Stops that take place and are to come, by time. */
export const stopsOf = ({ stops, now, until, wishes }: PlanProblem): PlanStop[] =>
  stops
    .filter((s) => s.at >= now - DAY && s.at <= until && !wishes.without.includes(s.id))
    .sort((a, b) => a.at - b.at || a.id.localeCompare(b.id));

/** Expected cost of one piece done at a moment: failing first, life thrown away, the work. */
export function costAt(
  piece: PlanPiece,
  at: number,
  { now, costs }: Pick<PlanProblem, "now" | "costs">,
): Pick<PlanOption, "crossed" | "fails" | "cost" | "parts"> {
  const hazard = hazardOf(costs.failsAMonth);
  const quantiles = crossingsOf(piece, now);
  let [crossed, fails, left] = [0, 0, 0];
  for (const crosses of quantiles) {
    const failed = failedBy(at, crosses, now, hazard);
    fails += failed;
    if (crosses <= at) crossed += 1;
    else left += (crosses - at) / Math.max(DAY, crosses - piece.since);
  }
  const n = quantiles.length;
  fails /= n;
  const work = (1 - fails) * (hoursOf(piece.hours) * costs.crewHour + piece.costs.part);
  const parts = { failing: fails * piece.costs.failure, life: (left / n) * piece.costs.part, work, standing: 0 };
  return { crossed: crossed / n, fails, cost: parts.failing + parts.life + parts.work, parts };
}

/**
 * Moments at which a machine may be stopped for itself, shared by its pieces so that they can go together: today, when
 * each part is there, and where each piece would be cheapest by itself.
 */
function ownMoments(pieces: readonly PlanPiece[], problem: PlanProblem): number[] {
  const { now, until } = problem;
  const day = (ms: number) => now + Math.ceil((ms - now) / DAY) * DAY;
  const found = new Set([now]);
  for (const piece of pieces) {
    const from = day(Math.max(now, piece.partAt ?? now));
    found.add(from);
    let [cheapest, least] = [from, Infinity];
    for (let at = from; at <= until; at += OWN_STEP * DAY) {
      const { cost } = costAt(piece, at, problem);
      if (cost < least) [cheapest, least] = [at, cost];
    }
    found.add(cheapest);
  }
  return [...found].filter((at) => at <= until).sort((p, q) => p - q);
}

/** What one piece costs in one scenario, done at a moment. */
export function costInFate(piece: PlanPiece, option: PlanOption, fate: Fate, costs: PlanProblem["costs"]): number {
  if (fate.fails <= option.at) return piece.costs.failure;
  const left = Math.max(0, fate.crosses - option.at) / Math.max(DAY, fate.crosses - piece.since);
  return hoursOf(piece.hours) * costs.crewHour + piece.costs.part * (1 + left) + option.parts.standing;
}

/**
 * All options of every piece. What its part or its machine makes impossible, or a wish forbids, is left out;
 * "wait" is always there.
 * @param problem what is to be planned, moments as epoch ms
 * @returns by piece, each with its expected cost
 * @example
 * const costs = { part: 2000, failure: 20_000 };
 * const work = { hours: { mechanical: 6 }, partAt: 2e10, partSure: true, since: -8.64e10, reads: null, booked: null, costs };
 * const piece = { id: "a", label: "a", machine: "m", circuit: "c", crossings: [8.64e8], ...work };
 * const stop = { id: "s", name: "Winter stop", at: 1e10, crew: {}, machines: null };
 * const problem = { now: 0, until: 1.5e10, stops: [stop], pieces: [piece], costs: usualCosts, wishes: noWishes };
 * optionsOf(problem)[0].map((option) => option.id).includes("s") // false: its part comes after the stop
 * optionsOf(problem)[0].at(-1).id // "wait"
 */
export function optionsOf(problem: PlanProblem): PlanOption[][] {
  const { pieces, now, until, costs, wishes } = problem;
  const stops = stopsOf(problem);
  const moments = new Map<string, number[]>();
  for (const machine of new Set(pieces.map((p) => p.machine)))
    moments.set(
      machine,
      ownMoments(
        pieces.filter((p) => p.machine === machine),
        problem,
      ),
    );
  return pieces.map((piece) => {
    const from = piece.partAt ?? now;
    const never = wishes.forbidden[piece.id] ?? [];
    const at = (id: string, kind: PlanOption["kind"], moment: number): PlanOption => {
      const priced = costAt(piece, moment, problem);
      const standing = kind === "own" ? hoursOf(piece.hours) * costs.standing : 0;
      return { id, kind, at: moment, ...priced, cost: priced.cost + standing, parts: { ...priced.parts, standing } };
    };
    return [
      ...stops.filter((s) => standsAt(s, piece.machine) && s.at >= from).map((s) => at(s.id, "stop", s.at)),
      ...moments.get(piece.machine)!.flatMap((m) => (m >= from ? [at(`own:${m}`, "own", m)] : [])),
      at("wait", "wait", Math.max(until, from)),
    ].filter((o) => o.kind === "wait" || !never.includes(o.kind === "own" ? "own" : o.id));
  });
}
