/** The one inference of the house: odds over possibilities, moved by what each says of a piece of evidence. */

/** Nothing is impossible and nothing certain: a likelihood is held within these. */
const LEAST = 0.005;
const MOST = 0.995;

/** A likelihood that no single piece of evidence can decide with. */
export const clamped = (p: number): number => Math.min(MOST, Math.max(LEAST, p));

/**
 * Bayes' rule over possibilities of which one is true (Bayes' theorem).
 * @param priors weights before the evidence, not negative, one a possibility; they need not add up to 1
 * @param evidence ln of the likelihood of each piece of evidence under each possibility
 * @returns probabilities in the order of the priors; they add up to 1. Empty where there is no possibility
 * @throws {RangeError} where all priors are zero, or a piece of evidence has another length
 * @example posterior([1, 1], [[Math.log(0.9), Math.log(0.1)]])[0] // 0.9
 */
export function posterior(priors: readonly number[], evidence: readonly (readonly number[])[]): number[] {
  if (priors.length === 0) return [];
  if (evidence.some((e) => e.length !== priors.length))
    throw new RangeError("Every piece of evidence needs a likelihood for every possibility.");
  const logs = priors.map((prior, i) => Math.log(prior) + evidence.reduce((sum, e) => sum + e[i]!, 0));
  const most = Math.max(...logs);
  if (!Number.isFinite(most)) throw new RangeError("No possibility has a weight.");
  const weights = logs.map((log) => Math.exp(log - most));
  const sum = weights.reduce((s, w) => s + w, 0);
  return weights.map((w) => w / sum);
}

/**
 * How much is open among shares that add up to 1.
 * @returns bits: 0 where one has all of it, 1 where two have half each
 */
export const entropy = (shares: Iterable<number>): number => {
  let bits = 0;
  for (const p of shares) if (p > 0) bits -= p * Math.log2(p);
  return bits;
};

/**
 * A sign that several causes bring: each alone would, independently of the others (noisy-OR).
 * @param chances chance of the sign with each cause alone, 0 to 1
 */
export const anyOf = (...chances: number[]): number => 1 - chances.reduce((none, p) => none * (1 - p), 1);
