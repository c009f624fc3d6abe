/** The next best test: what tells most for the minutes and the risk that it takes. */
import { entropy } from "./bayes";
import { chancesOf, type IsolationCase, type Odds, type TestAt } from "./case";
import { causes, type CauseId } from "./knowledge/causes";
import { tests } from "./knowledge/tests";
import { preparations, risks, type Preparation, type Test } from "./knowledge/types";

export interface Proposal {
  test: TestAt;
  /** Bits of what is open about what to do that it is expected to settle. */
  tells: number;
  /** With what has to be made ready and is not yet. */
  minutes: number;
  prepare: Preparation;
  /** Is it held back for now, because it opens the circuit or closes an outlet while something safer still tells? */
  heldBack: boolean;
  /** bits an hour, risk counted as minutes. */
  worth: number;
}

export interface Acts {
  /** What is to be done, likeliest first, with its odds and the suspects that ask for it. */
  id: string;
  causes: { cause: CauseId; element: string | null }[];
  share: number;
}

export interface Advice {
  acts: Acts[];
  /** Chance that it is something else. */
  other: number;
  /** Best first; the first is the one to make. Empty: nothing is left that could change what to do. */
  proposals: Proposal[];
  /** Sure enough to act. */
  decided: boolean;
  /** None of what is known fits: something else is likelier than any cause. */
  noneFits: boolean;
}

/** Sure enough to act: the next test would have to be very cheap to be worth its time. */
const SURE = 0.9;
/** A test that settles less than this is not proposed, bits. */
const WORTH_A_TEST = 0.02;
/** While a safer test settles so much, one that opens the circuit waits. */
const STILL_TELLS = 0.1;

/** What a suspect asks for: the same act at the same place is one, whatever it is called for. */
function actOf(cause: CauseId, element: string | null): string {
  const { part, act } = causes[cause];
  return `${act.do} ${element ?? part}`;
}

/** What each possibility asks for. */
function actsOf(c: IsolationCase): string[] {
  return c.possibilities.map(({ suspects }) =>
    suspects.length === 0
      ? "else"
      : [...new Set(suspects.map((i) => actOf(c.suspects[i]!.cause, c.suspects[i]!.element)))].sort().join(" + "),
  );
}

const sumBy = (keys: readonly string[], shares: readonly number[]) => {
  const sums = new Map<string, number>();
  keys.forEach((key, i) => sums.set(key, (sums.get(key) ?? 0) + shares[i]!));
  return sums;
};

/** Bits about what to do that a test is expected to settle. */
function tellsOf(c: IsolationCase, test: TestAt, odds: Odds, acts: readonly string[], open: number): number {
  const chances = c.possibilities.map((p) => chancesOf(c, test, p));
  let left = 0;
  for (const result of Object.keys(tests[test.test].results)) {
    const joint = odds.possibilities.map((p, k) => p * chances[k]![result]!);
    const sum = joint.reduce((s, x) => s + x, 0);
    if (sum > 0) left += sum * entropy([...sumBy(acts, joint).values()].map((x) => x / sum));
  }
  return Math.max(0, open - left);
}

/**
 * What to do, and what to test next.
 * @param done ids of the tests that were made
 * @param ready what is made ready already; tests that need the same are quicker then
 * @param own tests as well that are outside the manufacturer's book; they are marked and never first
 */
export function adviceOf(
  c: IsolationCase,
  odds: Odds,
  done: ReadonlySet<string>,
  ready: ReadonlySet<Preparation> = new Set(["none"]),
): Advice {
  const acts = actsOf(c);
  const shares = sumBy(acts, odds.possibilities);
  const open = entropy(shares.values());
  const proposals = c.tests
    .filter((t) => !done.has(t.id))
    .map((test): Proposal => {
      const { minutes, prepare, risk }: Test = tests[test.test];
      const tells = tellsOf(c, test, odds, acts, open);
      const all = minutes + (ready.has(prepare) ? 0 : preparations[prepare].minutes);
      return { test, tells, minutes: all, prepare, heldBack: false, worth: (60 * tells) / (all + risks[risk]) };
    })
    .filter((p) => p.tells >= WORTH_A_TEST)
    .sort((a, b) => b.worth - a.worth);
  const safe = (p: Proposal) => ["none", "care"].includes(tests[p.test.test].risk);
  const saferTells = proposals.some((p) => safe(p) && p.tells >= STILL_TELLS);
  for (const p of proposals) p.heldBack = (!safe(p) && saferTells) || tests[p.test.test].outsideBook === true;
  const ordered = [...proposals.filter((p) => !p.heldBack), ...proposals.filter((p) => p.heldBack)];
  const ranked = [...shares]
    .filter(([id]) => id !== "else")
    .sort((a, b) => b[1] - a[1])
    .map(([id, share]): Acts => ({ id, share, causes: likeliestOf(c, odds, acts, id) }));
  const best = ranked[0]?.share ?? 0;
  return {
    acts: ranked,
    other: odds.other,
    proposals: ordered,
    decided: best >= SURE,
    noneFits: odds.other > Math.max(best, 0.5),
  };
}

/** The suspects of the likeliest possibility that asks for this. */
function likeliestOf(c: IsolationCase, odds: Odds, acts: readonly string[], id: string) {
  let best = -1;
  acts.forEach((act, k) => {
    if (act === id && (best < 0 || odds.possibilities[k]! > odds.possibilities[best]!)) best = k;
  });
  return c.possibilities[best]!.suspects.map((i) => ({ cause: c.suspects[i]!.cause, element: c.suspects[i]!.element }));
}
