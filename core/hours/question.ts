/** Questions about a typed figure of running hours, against what was noted before and after it. */
import { DAY } from "../units/time";
import { formatQuantity } from "../units/format";
import { hoursFit } from "./runningHours";

export interface NotedMoment {
  at: number;
  /** On the machine's one axis (meterOffset added). */
  hours: number;
  /** As the meter showed it, where that is another figure: it is what a message repeats. */
  shown?: number;
}

/** So many times the usual duty over at least so many hours is asked about, though the clock would let it pass. */
const UNUSUAL = 3;
const UNUSUAL_HOURS = 200;

/**
 * What to ask about running hours as typed: do they run backwards, faster than the clock, or much faster than usual?
 * @param typed the figure with its moment
 * @param before newest figure noted before; null: none
 * @param after first figure noted after; null: none
 * @param hoursPerDay usual duty, 0 to 24
 * @param day writes a moment as a date
 * @returns a question with what to do; undefined when nothing is odd
 * @example
 * const [monday, friday] = [{ at: 0, hours: 900 }, { at: 4 * DAY, hours: 930 }];
 * questionHours(friday, monday, null, 8, String) // undefined
 * questionHours({ ...friday, hours: 9300 }, monday, null, 8, String) // "9300\u00a0h is ten times the 900\u00a0h of 0. Is a digit too many?"
 */
export function questionHours(
  typed: NotedMoment,
  before: NotedMoment | null,
  after: NotedMoment | null,
  hoursPerDay: number,
  day: (at: number) => string,
): string | undefined {
  const hours = (value: number) => formatQuantity(value, "runningHours");
  const said = (n: NotedMoment) => hours(n.shown ?? n.hours);
  if (before && !hoursFit(before.hours, typed.hours, typed.at - before.at)) {
    if (typed.hours < before.hours)
      return (
        `The meter showed ${said(before)} on ${day(before.at)}, so ${said(typed)} runs backwards. Was the ` +
        `meter replaced or reset? Record that at the machine. Else put the figure right, or keep it and say why.`
      );
    if (Math.abs(typed.hours / Math.max(before.hours, 1) - 10) < 1)
      return `${said(typed)} is ten times the ${said(before)} of ${day(before.at)}. Is a digit too many?`;
    return `${said(typed)} is more than has passed since ${day(before.at)}, when the meter showed ${said(before)}. Put it right, or keep it and say why.`;
  }
  if (after && !hoursFit(typed.hours, after.hours, after.at - typed.at))
    return `The meter shows ${said(after)} on ${day(after.at)}, which does not fit ${said(typed)}. Put it right, or keep it and say why.`;
  const days = before ? (typed.at - before.at) / DAY : 0;
  if (before && days > 0 && typed.hours - before.hours > Math.max(UNUSUAL_HOURS, UNUSUAL * hoursPerDay * days))
    return (
      `${hours(typed.hours - before.hours)} in ${Math.round(days)} days is much more than the usual ` +
      `${hoursPerDay} h a day. Put it right, or keep it and say why.`
    );
  return undefined;
}
