/** Solves a plan beside the page: the first plan at once, better ones as they are found, then what wishes cost. */
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

export interface Solve {
  id: number;
  problem: PlanProblem;
  /** Stops by itself at such a gap, or after so many seconds. */
  gap: number;
  seconds: number;
}

export interface Solved {
  id: number;
  kind: "step" | "done" | "failed";
  /** By piece: the option that it takes. */
  choice: Record<string, string>;
  lines: PlanLine[];
  value: PlanValue;
  gap: number;
  troubles: PlanTrouble[];
  helps: PlanHelp[];
  /** ms since it was asked. */
  took: number;
  problem?: string;
}

/** Expected cost of the same pieces where nobody wishes anything. */
export interface Unwished {
  id: number;
  kind: "unwished";
  expected: number;
}

const solver = loadHighs({ locateFile: () => wasm });

addEventListener("message", ({ data }: MessageEvent<Solve>) => {
  void solve(data);
});

async function solve({ id, problem, gap, seconds }: Solve): Promise<void> {
  const began = performance.now();
  try {
    const highs = await solver;
    const tell = (kind: Solved["kind"], { prepared, step }: ReturnType<typeof solvePlan>) => {
      const lines = linesOf(prepared, step.choice);
      postMessage({
        id,
        kind,
        choice: Object.fromEntries(lines.map((l) => [l.piece, l.option.id])),
        lines,
        value: planValue(prepared, step.choice),
        gap: step.gap,
        troubles: prepared.troubles,
        helps: kind === "done" ? helpsOf(prepared, step.choice) : [],
        took: performance.now() - began,
      } satisfies Solved);
    };
    const onStep: NonNullable<Parameters<typeof solvePlan>[2]>["onStep"] = (step, prepared) =>
      tell("step", { step, prepared });
    tell("done", solvePlan(problem, highs, { gap, seconds, onStep }));
    const { caution } = problem.wishes;
    const free = solvePlan({ ...problem, wishes: { ...noWishes, caution } }, highs, { gap, seconds });
    const { expected } = planValue(free.prepared, free.step.choice);
    postMessage({ id, kind: "unwished", expected } satisfies Unwished);
  } catch (error) {
    const nothing = { choice: {}, lines: [], gap: 1, troubles: [], helps: [], took: performance.now() - began };
    const problemText = error instanceof Error ? error.message : "The plan cannot be solved.";
    postMessage({ id, kind: "failed", ...nothing, problem: problemText });
  }
}
