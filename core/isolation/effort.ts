/** What a test takes: minutes, what has to be made ready, and its risk; less where a test point is fitted. */
import type { IsolationCase, TestAt } from "./case";
import type { Preparation, Risk, Test } from "./knowledge/types";

export interface Effort {
  /** Without what has to be made ready. */
  minutes: number;
  prepare: Preparation;
  risk: Risk;
}

/** Minutes to couple an instrument to a test point, under pressure and without tools (common practice). */
const COUPLED = 2;

/** Can a fitted test point serve this test? One for a gauge, or one for a meter that otherwise goes into an opened line. */
export const servedByPoint = (test: Test): boolean => test.prepare === "gauge" || test.prepare === "meter";

/** What a test takes at its place in this case. */
export function effortOf({ fitted }: Pick<IsolationCase, "fitted">, at: TestAt): Effort {
  const test = at.about;
  const { minutes, prepare, risk } = test;
  if (!fitted?.has(at.id) || !servedByPoint(test)) return { minutes, prepare, risk };
  return { minutes: minutes + COUPLED, prepare: "none", risk: risk === "opens" ? "care" : risk };
}
