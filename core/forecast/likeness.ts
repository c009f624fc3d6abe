/**
 * Is this life like its peers? Two banks foretell each of its readings, one that knows the peers and one that does not.
 * Which of them did better so far says how much the peers may say, and a life may leave its peers at any reading.
 */

/** Before any reading a life is like its peers in so many of a hundred cases. */
const LIKE = 0.6;
/** And leaves them between two readings in so many; it comes back as often as keeps the share where readings tell nothing. */
const LEAVES = 0.01;
const RETURNS = (LEAVES * LIKE) / (1 - LIKE);
/** One reading alone decides no more than this, ln of odds. */
const MOST = 2;

/**
 * Share of probability that a life is like its peers, after each of its readings.
 * @param withPeers ln of the density that the bank which knows the peers gave each reading before it came
 * @param without the same of the bank which does not
 * @returns one share a reading, 0 to 1
 * @example likeness([0, 0], [0, 0]).length // 2
 */
export function likeness(withPeers: readonly number[], without: readonly number[]): number[] {
  let like = LIKE;
  return withPeers.map((ln, i) => {
    const stays = like * (1 - LEAVES) + (1 - like) * RETURNS;
    // the same in both, be it impossible in both, tells nothing
    const better = ln === without[i] ? 0 : ln - without[i]!;
    const odds = Math.exp(Math.min(MOST, Math.max(-MOST, better)));
    like = (stays * odds) / (stays * odds + 1 - stays);
    return like;
  });
}
