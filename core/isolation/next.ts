/** The next best test: what tells most for the minutes and the risk that it takes. */
import { entropy } from "../numeric/bayes";
import { chancesUnderAll, type IsolationCase, type Odds, type TestAt } from "./case";
import { effortOf } from "./effort";
import { actOf } from "./knowledge/causes";
import { preparations, risks, type Cause, type Preparation, type Risk } from "./knowledge/types";

export interface Proposal {
  test: TestAt;
  /** Bits of what is open about what to do that it is expected to settle. */
  tells: number;
  /** With what has to be made ready and is not yet. */
  minutes: number;
  prepare: Preparation;
  risk: Risk;
  /** Is it held back for now, because it opens the circuit or closes an outlet while something safer still tells? */
  heldBack: boolean;
  /** bits an hour, risk counted as minutes. */
  worth: number;
}

/** Something that may have to be done, with the chance that it has, and the suspects that ask for it. */
export interface ActChance {
  id: string;
  share: number;
  causes: { cause: string; about: Cause; element: string | null; share: number }[];
}

export interface Advice {
  /** Likeliest first. */
  acts: ActChance[];
  /** Chance that it is something else. */
  other: number;
  /** Best first; the first is the one to make. Empty: nothing is left that could change what to do. */
  proposals: Proposal[];
  /** Does a test that neither opens the circuit nor closes an outlet still tell enough to come first? */
  saferTells: boolean;
  /** Sure enough to act. */
  decided: boolean;
  /** None of what is known fits: something else is likelier than any cause. */
  noneFits: boolean;
}

/**
 * Sure enough to act: the next test would have to be very cheap to be worth its time. A setting that was touched in vain is
 * put back; a part that was renewed in vain, or a stop for it, is paid for.
 */
const SURE = { undone: 0.9, paid: 0.95 };
/** Readings alone are enough to act on from so many points of the circuit on; with fewer a test comes first. */
const FEWEST_READ = 3;
/** A test that settles less than this is not proposed, bits. */
const WORTH_A_TEST = 0.03;
/** While a safer test settles so much, one that opens the circuit waits. */
const STILL_TELLS = 0.1;

/** What each possibility asks for: one act, two, or none that is known. */
function actsOf(c: IsolationCase): { ids: string[]; of: number[][] } {
  const ids: string[] = [];
  const of = c.possibilities.map(({ suspects }) => {
    const own = suspects.map((i) => actOf(c.suspects[i]!.about, c.suspects[i]!.element));
    return [...new Set(own)].map((id) => {
      const at = ids.indexOf(id);
      return at >= 0 ? at : ids.push(id) - 1;
    });
  });
  return { ids, of };
}

type ActsOfCase = ReturnType<typeof actsOf>;

/** Chance that each act is called for, alone or with another; last, that something else is. */
function chancesOfActs({ ids, of }: ActsOfCase, shares: readonly number[]): number[] {
  const sums = [...ids.map(() => 0), 0];
  of.forEach((own, k) => {
    if (own.length === 0) sums[ids.length]! += shares[k]!;
    for (const act of own) sums[act]! += shares[k]!;
  });
  return sums;
}

/** What is open about each act, in bits: is it called for or not? */
const openAbout = (chances: readonly number[]) => chances.reduce((sum, p) => sum + entropy([p, 1 - p]), 0);

/** Bits about what to do that a test is expected to settle. */
function tellsOf(c: IsolationCase, test: TestAt, odds: Odds, acts: ActsOfCase, open: number): number {
  const chances = chancesUnderAll(c, test);
  let left = 0;
  for (const result of Object.keys(test.about.results)) {
    const joint = odds.possibilities.map((p, k) => p * chances[k]![result]!);
    const sum = joint.reduce((s, x) => s + x, 0);
    if (sum > 0)
      left +=
        sum *
        openAbout(
          chancesOfActs(
            acts,
            joint.map((x) => x / sum),
          ),
        );
  }
  return Math.max(0, open - left);
}

/**
 * What to do, and what to test next: what tells most for the minutes and the risk that it takes.
 * @param c the case
 * @param odds after what is known
 * @param done ids of the tests that were made
 * @param ready what is made ready already; tests that need the same are quicker then
 * @returns acts, likeliest first; tests, best first; and whether it is sure enough to act
 * @example
 * const c = beginCase("lowPressure", null);
 * const { proposals, decided } = adviceOf(c, oddsOf(c, []), new Set());
 * proposals[0].heldBack // false
 * decided // false
 */
export function adviceOf(
  c: IsolationCase,
  odds: Odds,
  done: ReadonlySet<string>,
  ready: ReadonlySet<Preparation> = new Set(["none"]),
): Advice {
  const acts = actsOf(c);
  const shares = chancesOfActs(acts, odds.possibilities);
  const open = openAbout(shares);
  const proposals = c.tests
    .filter((t) => !done.has(t.id))
    .map((test): Proposal => {
      const { minutes, prepare, risk } = effortOf(c, test);
      const tells = tellsOf(c, test, odds, acts, open);
      const all = minutes + (ready.has(prepare) ? 0 : preparations[prepare].minutes);
      return { test, tells, minutes: all, prepare, risk, heldBack: false, worth: (60 * tells) / (all + risks[risk]) };
    })
    .filter((p) => p.tells >= WORTH_A_TEST)
    .sort((a, b) => b.worth - a.worth);
  const safe = (p: Proposal) => p.risk === "none" || p.risk === "care";
  const saferTells = proposals.some((p) => safe(p) && p.tells >= STILL_TELLS);
  for (const p of proposals) p.heldBack = (!safe(p) && saferTells) || p.test.about.outsideBook === true;
  const ordered = [...proposals.filter((p) => !p.heldBack), ...proposals.filter((p) => p.heldBack)];
  const ranked = acts.ids
    .map((id, act): ActChance => ({ id, share: shares[act]!, causes: suspectsOf(c, odds, acts, act) }))
    .sort((x, y) => y.share - x.share);
  const best = ranked[0]?.share ?? 0;
  const looked = done.size > 0 || (c.gauges?.evidence.read?.length ?? 0) >= FEWEST_READ;
  const costs = ranked[0]?.causes.some(({ about }) => about.act.part || about.act.stop) ?? false;
  return {
    acts: ranked,
    other: odds.other,
    proposals: ordered,
    saferTells,
    decided: looked && best >= (costs ? SURE.paid : SURE.undone),
    noneFits: odds.other > Math.max(best, 0.5),
  };
}

/** The suspects that ask for an act, likeliest first. */
function suspectsOf(c: IsolationCase, odds: Odds, acts: ActsOfCase, act: number): ActChance["causes"] {
  return c.suspects
    .map((s, i) => ({ cause: s.cause, about: s.about, element: s.element, share: odds.suspects[i]! }))
    .filter((s) => actOf(s.about, s.element) === acts.ids[act])
    .sort((a, b) => b.share - a.share);
}
