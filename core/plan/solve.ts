/** From pieces and stops to a plan: one found at once, then proven or bettered by HiGHS. */
import type { Highs, Model } from "highs";
import { prepare, type Prepared } from "./blocks";
import { improve } from "./improve";
import { choiceIn, programOf, type Program } from "./program";
import type { PlanProblem } from "./types";
import { objectiveOf, type Choice } from "./value";

export interface SolveStep {
  choice: Choice;
  /** What is minimised, under this choice; below `bound` no plan can be. */
  objective: number;
  bound: number;
  /** (objective − bound)/objective, 0 to 1. */
  gap: number;
}

export interface SolveLimits {
  /** Stops when the gap is proven to be so small, 0 to 1. */
  gap?: number;
  seconds?: number;
  /** Each better plan, and each better bound. */
  onStep?: (step: SolveStep, prepared: Prepared) => void;
}

const gapOf = (objective: number, bound: number) =>
  Number.isFinite(bound) ? Math.max(0, (objective - bound) / Math.max(1e-9, Math.abs(objective))) : 1;

/** Hand a program to the solver, with its whole numbers or without. */
function passTo(model: Model, program: Program, whole: boolean): void {
  const { cost, lower, upper, rowLower, rowUpper, starts, indices, values } = program;
  model.passModel({
    numCols: cost.length,
    numRows: rowLower.length,
    colCost: cost,
    colLower: lower,
    colUpper: upper,
    rowLower,
    rowUpper,
    matrix: { format: "csr", numRows: rowLower.length, numCols: cost.length, starts, indices, values },
    ...(whole && { integrality: Int32Array.from(program.whole, Number) }),
  });
  model.options.set("output_flag", false);
}

/** A proven gap that counts as none: what the solver leaves by rounding. */
const PROVEN = 1e-6;

/**
 * Solve a plan. The plan of the rule of thumb comes first; the solver starts from it and cannot end with a worse one.
 * @param problem what is to be planned, money in one currency, moments as epoch ms
 * @param highs the solver, loaded
 * @param limits when it stops: a gap of 0.0001 or after 60 s where they are left out
 * @returns the prepared problem with the best plan found and how near to the best it is proven to be
 * @example
 * const problem = { now: 0, until: DAY, stops: [], pieces: [], costs: usualCosts, wishes: noWishes };
 * solvePlan(problem, null).step.gap // 0: without a piece there is nothing to solve
 */
export function solvePlan(
  problem: PlanProblem,
  highs: Highs,
  limits: SolveLimits = {},
): { prepared: Prepared; step: SolveStep } {
  const { gap = 1e-4, seconds = 60, onStep } = limits;
  const until = Date.now() + seconds * 1000;
  const prepared = prepare(problem);
  const start = improve(prepared);
  const objective = objectiveOf(prepared, start);
  let step: SolveStep = { choice: start, objective, bound: -Infinity, gap: 1 };
  if (prepared.blocks.length === 0) return { prepared, step: { ...step, bound: 0, gap: 0 } };
  onStep?.(step, prepared);
  const program = programOf(prepared);
  const left = () => Math.max(0.1, (until - Date.now()) / 1000);
  const better = (values: ArrayLike<number> | undefined, bound: number) => {
    const choice = values ? choiceIn(prepared, program, values) : null;
    const found = choice ? objectiveOf(prepared, choice) : Infinity;
    const raised = Math.max(step.bound, Math.min(bound, step.objective));
    if (!(found < step.objective - 1e-9) && !(raised > step.bound)) return;
    const now = choice && found < step.objective ? { choice, objective: found } : step;
    step = { choice: now.choice, objective: now.objective, bound: raised, gap: gapOf(now.objective, raised) };
    onStep?.(step, prepared);
  };
  // the relaxed program is quick and bounds every plan; often that proves the plan found at once to be near enough
  highs.withModel((model) => {
    passTo(model, program, false);
    model.options.set("presolve", "off");
    model.options.set("time_limit", left());
    model.run();
    if (model.getModelStatus() === highs.constants.modelStatus.optimal) better(undefined, model.getObjectiveValue());
  });
  if (step.gap <= Math.max(gap, PROVEN)) return { prepared, step };
  highs.withModel((model) => {
    passTo(model, program, true);
    model.options.set("mip_rel_gap", gap);
    model.options.set("time_limit", left());
    model.setSolution({
      indices: prepared.blocks.flatMap((b, i) => b.options.map((_, j) => program.first[i]! + j)),
      values: prepared.blocks.flatMap((b, i) => b.options.map((_, j) => (start[i] === j ? 1 : 0))),
    });
    const { mipImprovingSolution, mipLogging } = highs.constants.callbackType;
    model.run({
      [mipImprovingSolution]: ({ data }: { data: { mip_solution?: Float64Array; mip_dual_bound?: number } }) =>
        better(data.mip_solution, data.mip_dual_bound ?? -Infinity) as undefined,
      [mipLogging]: ({ data }: { data: { mip_dual_bound?: number } }) =>
        better(undefined, data.mip_dual_bound ?? -Infinity) as undefined,
    });
    const proven = model.getModelStatus() === highs.constants.modelStatus.optimal;
    const bound = Number(model.info.get("mip_dual_bound"));
    better(model.getSolution().colValue, Number.isFinite(bound) ? bound : -Infinity);
    if (proven && step.gap <= PROVEN) step = { ...step, gap: 0 };
  });
  return { prepared, step };
}
