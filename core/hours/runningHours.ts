/**
 * One axis of running hours from what hour meters showed. A meter is replaced, set back or misread; the machine's
 * hours only go forward. Changes of the meter that were recorded are taken as they are; what was noted is believed
 * where it fits its neighbours.
 */
import { DAY, HOUR } from "../units/time";

/** A change of the hour meter: what the old one (or the wrong figure) showed and what the new one shows, at one moment. */
export interface MeterChange {
  /** Epoch ms. */
  at: number;
  /** Hours shown before and after. */
  before: number;
  after: number;
}

export interface NotedHours {
  /** Epoch ms, in time order. */
  at: number;
  /** As the meter showed; null: not noted. */
  hours: number | null;
}

export interface HoursAxis {
  /** Running hours at each moment, never falling. */
  hours: number[];
  /** Was the figure noted there, and does it fit the others? */
  believed: boolean[];
}

/** Clocks and rounding: this many hours more than have passed are let through. */
const SLACK_HOURS = 2;
/** Daylight saving and clocks, as a share of the time that has passed. */
const SLACK_SHARE = 0.02;
/** What each explanation costs: a figure not believed, and a meter that was changed without a record. Two odd figures are dearer than one change. */
const DISBELIEVED = 1;
const UNRECORDED_CHANGE = 1.5;
/** Neighbours that a figure is held against. */
const REACH = 40;
/** A run of figures tells its own pace when it covers this long. */
const OWN_PACE_DAYS = 30;

/**
 * What to add to the figure of an hour meter, so that it goes on from the first one.
 * @param changes of the meter, in any order; hours before and after each
 * @param at epoch ms of the figure
 * @returns hours; 0 before the first change
 * @example meterOffset([{ at: 1000, before: 9300, after: 50 }], 2000) // 9250
 */
export function meterOffset(changes: readonly MeterChange[], at: number): number {
  return changes.reduce((sum, c) => (c.at <= at ? sum + c.before - c.after : sum), 0);
}

/**
 * May a meter that showed `from` show `to` after this time? It never runs backwards and never faster than the clock.
 * Both in hours of one meter; `ms` at least 0.
 */
export function hoursFit(from: number, to: number, ms: number): boolean {
  const passed = ms / HOUR;
  return to >= from - SLACK_HOURS / 2 && to - from <= passed * (1 + SLACK_SHARE) + SLACK_HOURS;
}

/**
 * One axis of running hours from what meters showed. A meter is replaced, set back or misread; the machine's hours only go
 * forward. Changes that were recorded are taken as they are; a figure is believed where it fits its neighbours.
 * @param noted in time order
 * @param machine its meter
 * @param machine.changes of the hour meter, in time order
 * @param machine.hoursPerDay duty, 0 to 24, for moments beyond what was noted
 * @param machine.start hours of the first meter at a moment, for when nothing was noted
 * @param machine.start.at epoch ms
 * @param machine.start.hours running hours
 * @returns hours at each moment, never falling, and which figures were believed
 * @example
 * const noted = [900, 11400, 1400, 1650].map((hours, month) => ({ at: month * 30 * DAY, hours }));
 * runningHours(noted, { hoursPerDay: 8 }) // { hours: [900, 1150, 1400, 1650], believed: [true, false, true, true] }
 */
export function runningHours(
  noted: readonly NotedHours[],
  {
    changes = [],
    hoursPerDay,
    start,
  }: { changes?: readonly MeterChange[]; hoursPerDay: number; start?: { at: number; hours: number } },
): HoursAxis {
  const figures = noted.flatMap((n, index) =>
    n.hours === null ? [] : [{ index, at: n.at, hours: n.hours + meterOffset(changes, n.at) }],
  );
  const anchors = joined(believedRuns(figures), hoursPerDay);
  const believed = noted.map(() => false);
  for (const a of anchors) believed[a.index] = true;
  const first = anchors[0] ?? { at: start?.at ?? noted[0]?.at ?? 0, hours: start?.hours ?? 0 };
  const last = anchors.at(-1) ?? first;
  let next = 0;
  let greatest = -Infinity;
  const hours = noted.map(({ at }) => {
    while (next < anchors.length && anchors[next]!.at < at) next++;
    const after = anchors[next];
    const before = anchors[next - 1];
    let value: number;
    if (after && after.at === at) value = after.hours;
    else if (after && before)
      value = before.hours + ((at - before.at) / (after.at - before.at)) * (after.hours - before.hours);
    else if (after) value = first.hours - ((first.at - at) / DAY) * hoursPerDay;
    else value = last.hours + ((at - last.at) / DAY) * hoursPerDay;
    greatest = Math.max(greatest, value);
    return greatest;
  });
  return { hours, believed };
}

interface Figure {
  index: number;
  at: number;
  hours: number;
}

/** The cheapest explanation of the figures: runs of one meter each, odd figures left out. */
function believedRuns(figures: readonly Figure[]): Figure[][] {
  const best: { cost: number; from: number; joins: boolean }[] = [];
  figures.forEach((figure, i) => {
    let chosen = { cost: i * DISBELIEVED, from: -1, joins: false };
    for (let j = i - 1; j >= Math.max(0, i - REACH); j--) {
      const joins = hoursFit(figures[j]!.hours, figure.hours, figure.at - figures[j]!.at);
      const cost = best[j]!.cost + (i - j - 1) * DISBELIEVED + (joins ? 0 : UNRECORDED_CHANGE);
      if (cost < chosen.cost) chosen = { cost, from: j, joins };
    }
    best.push(chosen);
  });
  let end = -1;
  let least = Infinity;
  best.forEach((b, i) => {
    const cost = b.cost + (figures.length - 1 - i) * DISBELIEVED;
    if (cost < least) [end, least] = [i, cost];
  });
  const runs: Figure[][] = [[]];
  for (let i = end; i >= 0; i = best[i]!.from) {
    runs[0]!.unshift(figures[i]!);
    if (!best[i]!.joins && best[i]!.from >= 0) runs.unshift([]);
  }
  return runs.filter((run) => run.length > 0);
}

/** Runs laid end to end: over the gap between two meters the machine ran at its own pace. */
function joined(runs: readonly (readonly Figure[])[], hoursPerDay: number): Figure[] {
  const axis: Figure[] = [];
  for (const run of runs) {
    const before = axis.at(-1);
    const first = run[0]!;
    const shift = before ? before.hours + ((first.at - before.at) / DAY) * paceOf(axis, hoursPerDay) - first.hours : 0;
    for (const figure of run)
      axis.push({ ...figure, hours: Math.max(axis.at(-1)?.hours ?? -Infinity, figure.hours + shift) });
  }
  return axis;
}

function paceOf(axis: readonly Figure[], hoursPerDay: number): number {
  const [first, last] = [axis[0]!, axis.at(-1)!];
  const days = (last.at - first.at) / DAY;
  return days >= OWN_PACE_DAYS ? (last.hours - first.hours) / days : hoursPerDay;
}
