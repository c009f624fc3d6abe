/**
 * How peers really ended. Beside the laws and lifetimes that they tell, each of them says what was left of it when it stood at
 * this level, and what was left of it at this age.
 */
import type { EndedCourse } from "./course";
import type { Rng } from "./draws";

/** Lives differ from the peer that is drawn by so much, ln units (grade). */
const SPREAD = 0.3;
/** Fewer peers that ended say too little. */
const FEWEST = 3;

/**
 * Draws of the time that is left, as it was left of peers.
 * @param ended peers that ran to their limit, with their courses from as new
 * @param margin share of the way to the limit that this life has gone
 * @param age of it, running hours since new
 * @returns a draw in running hours; null: too few peers ended, or none of them had anything left here
 */
export function leftOfPeers(ended: readonly EndedCourse[], margin: number, age: number): ((rng: Rng) => number) | null {
  if (ended.length < FEWEST) return null;
  const left = ended.flatMap((peer) => {
    const atLevel = peer.hours - hoursAt(peer, margin);
    const atAge = peer.hours - age;
    return [atLevel, ...(atAge > 0 ? [atAge] : [])].filter((hours) => hours > 0);
  });
  if (left.length === 0) return null;
  return (rng) =>
    left[Math.min(left.length - 1, Math.floor(rng.uniform() * left.length))]! * Math.exp(SPREAD * rng.normal());
}

/** Running hours at which a peer had last gone so far; 0: it never stood below. */
function hoursAt({ hours, points }: EndedCourse, margin: number): number {
  let last = { hours: 0, margin: 0 };
  for (const point of [...points.filter((p) => p.hours < hours), { hours, margin: 1 }]) {
    if (point.margin >= margin && point.margin > last.margin) {
      const share = Math.min(1, Math.max(0, (margin - last.margin) / (point.margin - last.margin)));
      return last.hours + share * (point.hours - last.hours);
    }
    if (point.margin > last.margin) last = point;
  }
  return last.hours;
}
