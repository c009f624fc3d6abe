/** Draws of what may come, shared by pieces of one circuit: dirt and duty wear all of its parts. */
import { MONTH } from "../units/time";
import { normalCdf } from "../numeric/normal";
import { random } from "../random/random";
import type { PlanPiece, PlanProblem } from "./types";

/** How much of what makes one part of a circuit fail early is common to all of them (assumed: a third of the variance). */
const COMMON = 1 / 3;
/** Crossings of which the forecast says nothing: so many years ahead. */
export const BEYOND_YEARS = 10;

/** Scenarios behind the spread of a plan's cost. */
const FATES = 400;
/** With caution every scenario is a row of the program: fewer of them for a large plan, so many figures at most. */
const MOST_ENTRIES = 250_000;
const MOST_CAUTIOUS = 200;
const FEWEST = 30;
/** The worst tenth: its mean is exact with counts that ten divides. */
export const TAIL = 0.1;

/** How many scenarios a plan is judged by. @param options of all its blocks */
export const fateCount = (caution: number, options: number): number =>
  caution > 0
    ? Math.floor(Math.max(FEWEST, Math.min(MOST_CAUTIOUS, MOST_ENTRIES / Math.max(1, options))) / 10) * 10
    : FATES;

/** When it crosses its limit and when it fails, epoch ms; one pair a scenario. */
export interface Fate {
  crosses: number;
  fails: number;
}

function seedOf(text: string): number {
  let hash = 2166136261;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 16777619);
  return hash >>> 0;
}

/** Month by month beyond the limit: the hazard, per month, of a chance of failing in each of them. */
export const hazardOf = (failsAMonth: number): number => Math.max(0, -Math.log(1 - Math.min(0.999, failsAMonth)));

/** Quantiles of the crossing as numbers: what lies beyond the forecast is years ahead. */
export const crossingsOf = (piece: Pick<PlanPiece, "crossings">, now: number): number[] =>
  piece.crossings.map((at) => at ?? now + BEYOND_YEARS * 12 * MONTH);

/**
 * What may come, by piece: `count` scenarios, the same for the same pieces. A piece's own draws follow from its id, so
 * that another piece beside it changes nothing.
 * @param count scenarios, from 1
 */
export function fatesOf({ pieces, now, costs }: PlanProblem, count: number): Fate[][] {
  const hazard = hazardOf(costs.failsAMonth);
  const shared = new Map<string, number[]>();
  const commonOf = (circuit: string) => {
    let draws = shared.get(circuit);
    if (!draws) {
      const rng = random(seedOf(circuit)).fork("common");
      draws = Array.from({ length: count }, () => rng.normal());
      shared.set(circuit, draws);
    }
    return draws;
  };
  return pieces.map((piece) => {
    const common = commonOf(piece.circuit);
    const quantiles = crossingsOf(piece, now);
    const rng = random(seedOf(piece.id)).fork("own");
    return common.map((z) => {
      const u = normalCdf(Math.sqrt(COMMON) * z + Math.sqrt(1 - COMMON) * rng.normal());
      const crosses = quantiles[Math.min(quantiles.length - 1, Math.floor(u * quantiles.length))]!;
      const wait = -Math.log(1 - rng.uniform());
      return { crosses, fails: hazard > 0 ? Math.max(now, crosses) + (wait / hazard) * MONTH : Infinity };
    });
  });
}

/** Chance that it has failed by a moment, once it crossed its limit at another. */
export function failedBy(at: number, crosses: number, now: number, hazard: number): number {
  const months = (at - Math.max(now, crosses)) / MONTH;
  return months <= 0 ? 0 : -Math.expm1(-hazard * months);
}
