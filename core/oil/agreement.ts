/** Does the machine say what the oil says? A leakage before and after a moment, and both told in words. */
import { P10_P90 } from "../numeric/normal";
import { DAY } from "../units/time";
import type { VerdictPart } from "../state/verdictPart";
import { mannKendall } from "../trend/mannKendall";
import { median, robustSpread } from "../trend/robust";
import { theilSen } from "../trend/theilSen";

export interface LeakSeries {
  pointId: string;
  componentId: string;
  /** "hoist pump" and "case drain", as they stand in a sentence. */
  component: string;
  what: string;
  /** Corrected readings of the current life, in time order. */
  readings: readonly { at: number; value: number }[];
}

export interface LeakChange {
  pointId: string;
  componentId: string;
  component: string;
  what: string;
  /** Got worse against its own earlier course; null: too few readings to say. */
  worse: boolean | null;
  /** Newest level over what its earlier course foretold for then. */
  factor: number | null;
}

const FEWEST_BEFORE = 5;
const FEWEST_AFTER = 3;
/** Scatter of a corrected leakage reading, never taken smaller (relative). */
const LEAST_SCATTER = 0.02;
const CLEAR = 3;
const LEAST_FACTOR = 1.06;

/** Compare the readings after a moment with the earlier course (Theil-Sen on ln), carried on. */
export function leakSince(leak: LeakSeries, moment: number): LeakChange {
  const { readings: _readings, ...who } = leak;
  const usable = leak.readings.filter((r) => r.value > 0);
  const before = usable.filter((r) => r.at <= moment);
  const after = usable.filter((r) => r.at > moment);
  if (before.length < FEWEST_BEFORE || after.length < FEWEST_AFTER) return { ...who, worse: null, factor: null };
  const recent = before.slice(-24);
  const days = recent.map((r) => r.at / DAY);
  const logs = recent.map((r) => Math.log(r.value));
  const line = theilSen(days, logs, { confidence: 0.8 });
  const at = (t: number) => line.intercept + line.slope * (t / DAY);
  const scatter = Math.max(LEAST_SCATTER, robustSpread(logs.map((l, i) => l - at(recent[i]!.at))));
  const last = after.slice(-Math.max(3, Math.ceil(after.length / 3)));
  const excess = median(last.map((r) => Math.log(r.value) - at(r.at)));
  const reach = median(last.map((r) => r.at / DAY)) - median(days);
  const error = Math.hypot(
    scatter / Math.sqrt(last.length),
    (reach * (line.high - line.low)) / P10_P90,
    scatter / Math.sqrt(recent.length),
  );
  return { ...who, worse: excess > CLEAR * error && excess > Math.log(LEAST_FACTOR), factor: Math.exp(excess) };
}

/** Readings that a slow rise is looked for in. */
const SLOW = 24;

/** A leakage that rises over its last two dozen readings, for dirt that came slowly. */
export function leakRising(leak: LeakSeries): LeakChange {
  const { readings, ...who } = leak;
  const recent = readings.filter((r) => r.value > 0).slice(-SLOW);
  if (recent.length < 10) return { ...who, worse: null, factor: null };
  const logs = recent.map((r) => Math.log(r.value));
  const { slope } = theilSen(
    recent.map((r) => r.at / DAY),
    logs,
  );
  const factor = Math.exp((slope * (recent.at(-1)!.at - recent[0]!.at)) / DAY);
  return { ...who, worse: mannKendall(logs).p < 0.001 && factor > 1.1, factor };
}

const join = (list: readonly string[]) =>
  list.length < 2 ? (list[0] ?? "") : `${list.slice(0, -1).join(", ")} and ${list.at(-1)}`;
const upper = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** "the hoist pump's case drain", "pump A's case drain": a part with a letter or number of its own takes no article. */
export function leakName({ component, what }: Pick<LeakChange, "component" | "what">): string {
  return `${/\s([A-Z]|\d+)$/.test(component) ? "" : "the "}${component}'s ${what}`;
}

/**
 * Oil and machine in one sentence, with the moment as a date.
 * @param metals what rose, by name; empty: nothing
 */
export function agreementOf(
  metals: readonly string[],
  moment: number,
  changes: readonly LeakChange[],
): VerdictPart[] | null {
  const worse = changes.filter((c) => c.worse);
  const same = changes.filter((c) => c.worse === false);
  const leaks = (list: readonly LeakChange[]) => list.map(leakName);
  const said = (before: string, after: string): VerdictPart[] => [
    { text: before },
    { date: moment, precision: "day" },
    { text: after },
  ];
  if (metals.length > 0 && worse.length > 0) {
    const all = [...metals, ...leaks(worse)];
    return [
      ...said(`${upper(join(all))} ${all.length === 2 ? "both" : "all"} rose after `, ": "),
      { text: join([...new Set(worse.map((c) => c.component))]), strong: true },
      { text: "." },
    ];
  }
  if (metals.length > 0 && same.length > 0)
    return said(
      `${upper(join(metals))} rose after `,
      `, but ${join(leaks(same))} did not: look at parts that no point reads.`,
    );
  if (metals.length > 0)
    return said(
      `${upper(join(metals))} rose after `,
      "; no case drain or leakage is read here that could say which part.",
    );
  if (worse.length > 0)
    return said(
      `${upper(join(leaks(worse)))} rose after `,
      " without more metal in the oil: a seal or a widened gap rather than metal worn off, or a sample that does not show it.",
    );
  return null;
}
