/**
 * How long the plan takes: drawn problems, tight crews, four in ten stops with all machines standing.
 *
 *   npx tsx scripts/bench/planSolve.ts [pieces] [stops] [seconds] [seed]
 */
import loadHighs from "highs";
import { noWishes, random, solvePlan, usualCosts, type PlanPiece, type PlanProblem } from "@core";

const DAY = 86_400_000;
const MONTH = 30 * DAY;
const [pieces = 200, stops = 40, seconds = 60, seed = 1] = process.argv.slice(2).map(Number);
const rng = random(seed);
const now = Date.UTC(2026, 10, 24);
const machines = Array.from({ length: Math.ceil(pieces / 4) }, (_, i) => `m${i}`);

function drawPiece(i: number): PlanPiece {
  const median = rng.uniform() * stops * MONTH * 1.3;
  const spread = 0.4 + 1.2 * rng.uniform();
  return {
    id: `p${i}`,
    label: `p${i}`,
    machine: rng.pick(machines),
    circuit: `c${i >> 1}`,
    hours: { mechanical: 2 + Math.round(rng.uniform() * 16), ...(rng.uniform() < 0.2 && { electrical: 2 }) },
    partAt: now + rng.uniform() * 120 * DAY,
    partSure: false,
    crossings: Array.from({ length: 100 }, (_, k) => now + median * Math.exp(spread * ((k + 0.5) / 50 - 1))),
    since: now - 1000 * DAY,
    costs: { part: 500 + rng.uniform() * 6000, failure: 5000 + rng.uniform() * 40_000 },
    reads: null,
    booked: null,
  };
}

const problem: PlanProblem = {
  now,
  until: now + stops * MONTH,
  wishes: noWishes,
  costs: usualCosts,
  stops: Array.from({ length: stops }, (_, i) => ({
    id: `s${i}`,
    name: `s${i}`,
    at: now + (i + 0.5) * MONTH,
    crew: { mechanical: (pieces / stops) * 9, electrical: 8 },
    machines: rng.uniform() < 0.4 ? null : machines.filter(() => rng.uniform() < 0.6),
  })),
  pieces: Array.from({ length: pieces }, (_, i) => drawPiece(i)),
};
const highs = await loadHighs();
const began = performance.now();
const line = (text: string) => process.stdout.write(`${((performance.now() - began) / 1000).toFixed(1)} s: ${text}\n`);
const percent = (share: number) => `${(share * 100).toFixed(2)} %`;
const { step } = solvePlan(problem, highs, {
  gap: 1e-3,
  seconds,
  onStep: ({ objective, gap }) => line(`${objective.toFixed(0)}, gap ${gap === 1 ? "not known" : percent(gap)}`),
});
line(`${pieces} pieces, ${stops} stops: gap ${percent(step.gap)}`);
