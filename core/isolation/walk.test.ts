/** Walks of whole cases: the truth's own results lead to the truth. */
import { describe, expect, test } from "@jest/globals";
import { random } from "../random/random";
import { beginCase, chancesOf, type IsolationCase } from "./case";
import { symptomIds } from "./knowledge/symptoms";
import { bestTest, walk } from "./walk";

/** Results drawn from the tables themselves: what the walk makes of them, not whether the tables are right. */
function answers(c: IsolationCase, truth: number, seed: number) {
  const rng = random(seed);
  return (at: IsolationCase["tests"][number]) => {
    let left = rng.fork(at.id).uniform();
    const chances = chancesOf(c, at, { suspects: [truth], weight: 1 });
    return Object.keys(chances).find((r) => (left -= chances[r]!) <= 0) ?? Object.keys(chances)[0]!;
  };
}

describe("the house's own walk", () => {
  test("finds four in five of the causes that brought a symptom, by tests that open nothing before safer ones", () => {
    let [right, cases, openedFirst] = [0, 0, 0];
    for (const [n, symptom] of symptomIds.entries()) {
      const c = beginCase(symptom, null);
      for (let truth = 0; truth < Math.min(6, c.suspects.length); truth++) {
        const w = walk(c, answers(c, truth, 1000 * n + truth));
        const top = w.odds.suspects.indexOf(Math.max(...w.odds.suspects));
        cases++;
        if (top === truth) right++;
        const [first] = w.steps;
        if (first && ["opens", "deadhead"].includes(first.test.about.risk)) openedFirst++;
      }
    }
    expect(cases).toBeGreaterThan(100);
    expect(right / cases).toBeGreaterThan(0.8);
    expect(openedFirst).toBe(0);
  });
  test("ends where no test can be made, and where a chooser repeats itself", () => {
    const c = beginCase("creeps", null);
    expect(walk(c, () => null).steps).toEqual([]);
    const first = c.tests[0]!;
    expect(
      walk(
        c,
        () => Object.keys(first.about.results)[0]!,
        () => first,
      ).steps,
    ).toHaveLength(1);
  });
  test("minutes are those of the tests and of what had to be made ready, once", () => {
    const c = beginCase("runsHot", null);
    const w = walk(c, answers(c, 0, 5), bestTest);
    expect(w.minutes).toBe(w.steps.reduce((s, x) => s + x.minutes, 0));
  });
});
