/** A newest reading that cannot be believed on its own: it asks for a second one before it changes a judgement. */
import { median, robustSpread } from "../trend/robust";

interface Level {
  value: number;
  /** Standard uncertainty, same unit. */
  uncertainty: number;
}

/** So many standard deviations from everything before it. */
const FAR = 5;
/** And this many times more or less: a unit, a digit or a state mixed up, not wear between two readings. */
const FACTOR = Math.log(2.2);
/** Earlier readings that tell the level and its scatter. */
const NEIGHBOURS = 8;
const LEVEL = 5;
/** Scatter of a corrected reading, relative, before the readings tell (common practice), and never less than a little. */
const USUAL_SCATTER = 0.05;
const LEAST_SCATTER = 0.02;
const TELLS_SCATTER = 4;

/**
 * Does the newest of these levels (in time order) lie so far from all before it that one reading is not enough?
 * Two that agree with one another are believed: the reading before the last is a witness of its own.
 * @param floor smallest value that can be told from nought, core unit
 * @param span distance from baseline to limit, for quantities that may be nought or below
 */
export function isUnconfirmed(levels: readonly Level[], floor: number, span: number | null): boolean {
  const last = levels.at(-1);
  if (!last || levels.length < 2) return false;
  const before = levels.slice(-1 - NEIGHBOURS, -1);
  const inLogs = before.every((l) => l.value > 0) && last.value >= 0;
  const scale = (value: number) => (inLogs ? Math.log(Math.max(value, floor)) : value);
  const doubt = (l: Level) => (inLogs ? l.uncertainty / Math.max(l.value, floor) : l.uncertainty);
  const values = before.map((l) => scale(l.value));
  const centre = median(values.slice(-LEVEL));
  const steps = values.slice(1).map((v, i) => (v - values[i]!) / Math.SQRT2);
  const usual = inLogs ? USUAL_SCATTER : Math.abs(centre) * USUAL_SCATTER;
  const scatter = Math.max(
    values.length < TELLS_SCATTER ? usual : Math.max(robustSpread(steps), inLogs ? LEAST_SCATTER : 0),
    median(before.map(doubt)),
    inLogs ? 0 : floor,
  );
  const threshold = Math.max(FAR * scatter, inLogs ? FACTOR : (span ?? Math.abs(centre)));
  const far = (from: number) => Math.abs(scale(last.value) - from) > threshold;
  return far(centre) && far(values.at(-1)!);
}
