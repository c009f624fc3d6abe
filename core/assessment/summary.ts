/** A long life told by a few hundred of its readings: a logger must not cost more than a notebook. */
import type { AssessReading } from "./types";

/** Readings that a judgement looks at, at the most. */
export const MOST_READINGS = 300;
/** Of them the first, from which the baseline and the exponents come, and the newest, as they are. */
const FIRST = 40;
const LAST = 120;

/**
 * At most `MOST_READINGS` of a life's readings, in time order: the first and the newest as they are, and of each
 * stretch between them the reading with the middle value, so that no odd one stands for many. A reading that is
 * doubtful or recalled stands for its stretch only when all are.
 */
export function summarise(readings: readonly AssessReading[]): readonly AssessReading[] {
  if (readings.length <= MOST_READINGS) return readings;
  const between = readings.slice(FIRST, -LAST);
  const stretches = MOST_READINGS - FIRST - LAST;
  const chosen = Array.from({ length: stretches }, (_, i) => {
    const stretch = between.slice(
      Math.floor((i * between.length) / stretches),
      Math.floor(((i + 1) * between.length) / stretches),
    );
    const sound = stretch.filter((r) => !r.doubtful && !r.recalled);
    const ranked = [...(sound.length > 0 ? sound : stretch)].sort((p, q) => p.value - q.value);
    return ranked[ranked.length >> 1]!;
  });
  return [...readings.slice(0, FIRST), ...chosen, ...readings.slice(-LAST)];
}
