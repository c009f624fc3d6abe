/** A whole isolation in one go, where every test's result is known beforehand: for trials, and for the best path of a debrief. */
import { oddsOf, type IsolationCase, type Odds, type TestAt, type TestResult } from "./case";
import { effortOf } from "./effort";
import { preparations, type Preparation } from "./knowledge/types";
import { adviceOf, type Advice } from "./next";

export interface Step {
  test: TestAt;
  result: string;
  minutes: number;
  odds: Odds;
}

export interface Walk {
  steps: Step[];
  minutes: number;
  odds: Odds;
  advice: Advice;
}

/** Which test is made next; undefined: none, it ends. */
export type Chooser = (advice: Advice, odds: Odds, results: readonly TestResult[]) => TestAt | undefined;

/** The proposal of the house: the best one, until it is sure enough. */
export const bestTest: Chooser = ({ decided, proposals }) =>
  decided ? undefined : proposals.find((p) => !p.test.about.outsideBook)?.test;

const MOST_STEPS = 40;

/**
 * Walk a case to its end.
 * @param answer what a test shows; null: it cannot be made here, and the next one is taken
 * @param choose which test is next
 * @param known results that are there before the first test, for nothing
 */
export function walk(
  c: IsolationCase,
  answer: (test: TestAt) => string | null,
  choose: Chooser = bestTest,
  known: readonly TestResult[] = [],
): Walk {
  const results = [...known];
  const done = new Set(known.map((r) => r.at));
  const ready = new Set<Preparation>(["none"]);
  const steps: Step[] = [];
  let minutes = 0;
  for (;;) {
    const odds = oddsOf(c, results);
    const advice = adviceOf(c, odds, done, ready);
    const test = steps.length < MOST_STEPS ? choose(advice, odds, results) : undefined;
    if (!test || done.has(test.id)) return { steps, minutes, odds, advice };
    done.add(test.id);
    const result = answer(test);
    if (result === null) continue;
    const { minutes: own, prepare } = effortOf(c, test);
    const took = own + (ready.has(prepare) ? 0 : preparations[prepare].minutes);
    // what is isolated for one test is isolated for the next only until it runs again
    if (prepare !== "isolated") ready.add(prepare);
    results.push({ at: test.id, result });
    minutes += took;
    steps.push({ test, result, minutes: took, odds: oddsOf(c, results) });
  }
}
