/** Why a suspect stands where it stands: what each piece of evidence says for it or against it. */
import { chancesUnderAll, gaugeLogs, oddsOf, type Doubts, type IsolationCase, type TestResult } from "./case";

export interface Reason {
  /** Test at its place; null: the gauges. */
  at: string | null;
  /** Tenths of a power of ten in its favour (decibans): 10 makes the odds ten times as good. */
  decibans: number;
}

const DECIBANS = 10 / Math.LN10;

/**
 * What each piece of evidence says of one suspect against all that leave it out.
 * @param c the case
 * @param suspect its place in the case
 * @param results of tests, in the order in which they came
 * @param doubts evidence that somebody took out
 * @returns decibans, in the order of the results, the gauges first
 * @example
 * const c = beginCase("lowPressure", null);
 * const [test] = c.tests;
 * reasonsOf(c, 0, [{ at: test.id, result: Object.keys(test.about.results)[0] }]).map((reason) => reason.at === test.id) // [true]
 */
export function reasonsOf(
  c: IsolationCase,
  suspect: number,
  results: readonly TestResult[],
  doubts: Doubts = {},
): Reason[] {
  const reasons: Reason[] = [];
  const weigh = (at: string | null, logs: readonly number[], before: readonly number[]) => {
    const most = Math.max(...logs);
    let [own, ownShare, rest, restShare] = [0, 0, 0, 0];
    c.possibilities.forEach((p, k) => {
      const weight = before[k]! * Math.exp(logs[k]! - most);
      if (p.suspects.includes(suspect)) {
        own += weight;
        ownShare += before[k]!;
      } else {
        rest += weight;
        restShare += before[k]!;
      }
    });
    if (ownShare === 0 || restShare === 0) return;
    const ratio = Math.max(own / ownShare, 1e-9) / Math.max(rest / restShare, 1e-9);
    reasons.push({ at, decibans: DECIBANS * Math.log(ratio) });
  };
  const gauges = doubts.gauges ? null : gaugeLogs(c);
  if (gauges) weigh(null, gauges, oddsOf(c, [], { gauges: true }).possibilities);
  results.forEach(({ at, result }, n) => {
    const test = c.tests.find((t) => t.id === at);
    if (!test) return;
    const before = oddsOf(c, results.slice(0, n), doubts).possibilities;
    weigh(
      at,
      chancesUnderAll(c, test).map((chances) => Math.log(chances[result] ?? 1)),
      before,
    );
  });
  return reasons;
}
