/** Solves a plan beside the page: the first plan at once, better ones as they are found, then what wishes cost. */
import { expose } from "comlink";
import loadHighs from "highs";
import wasm from "highs/runtime?url";
import {
  helpsOf,
  linesOf,
  noWishes,
  planValue,
  solvePlan,
  type PlanHelp,
  type PlanLine,
  type PlanProblem,
  type PlanTrouble,
  type PlanValue,
} from "@core";

/** A plan, better than the last one told. */
export interface Solved {
  /** By piece: the option that it takes. */
  choice: Record<string, string>;
  lines: PlanLine[];
  value: PlanValue;
  gap: number;
  troubles: PlanTrouble[];
  /** Told with the last one. */
  helps: PlanHelp[];
  /** ms since it was asked. */
  took: number;
}

/** Stops by itself at such a gap, or after so many seconds. */
interface Until {
  gap: number;
  seconds: number;
}

const solver = loadHighs({ locateFile: () => wasm });

const planner = {
  /** Plans, better and better: each is handed to `onStep`, the best comes back. */
  async solve(problem: PlanProblem, until: Until, onStep: (solved: Solved) => void): Promise<Solved> {
    const began = performance.now();
    const highs = await solver;
    const told = ({ prepared, step }: ReturnType<typeof solvePlan>, done: boolean): Solved => {
      const lines = linesOf(prepared, step.choice);
      return {
        choice: Object.fromEntries(lines.map((l) => [l.piece, l.option.id])),
        lines,
        value: planValue(prepared, step.choice),
        gap: step.gap,
        troubles: prepared.troubles,
        helps: done ? helpsOf(prepared, step.choice) : [],
        took: performance.now() - began,
      };
    };
    return told(
      solvePlan(problem, highs, { ...until, onStep: (step, prepared) => onStep(told({ step, prepared }, false)) }),
      true,
    );
  },
  /** Expected cost of the same pieces where nobody wishes anything. */
  async unwished(problem: PlanProblem, until: Until): Promise<number> {
    const { caution } = problem.wishes;
    const { prepared, step } = solvePlan({ ...problem, wishes: { ...noWishes, caution } }, await solver, until);
    return planValue(prepared, step.choice).expected;
  },
};
export type Planner = typeof planner;
expose(planner);
