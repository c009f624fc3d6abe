/**
 * May this reading be? One set of rules for every way in: a point's page, a tablet, a CSV file.
 * Each way reads its own text into core units first, and asks here what speaks against the result.
 */
import { readingStates, type ReadingState } from "../units/readingStates";

/** How far a device's clock may run ahead of ours before its reading counts as one from the future. ms. */
export const CLOCK_SLACK = 5 * 60_000;

export interface ReadingFacts {
  /** Epoch ms; NaN where the moment cannot be read; null where this way in has none to check. */
  takenAt: number | null;
  /** In the unit of the core; null: empty or unreadable, which its own message says. */
  value: number | null;
  /** The least over a cycle, in the same unit; null: none given. */
  least: number | null;
  /** The state it was read in; null where nobody was asked. */
  state: ReadingState | null;
}

export interface FittedPeriod {
  startedAt: number;
  /** null: still fitted. */
  endedAt: number | null;
}

export type ReadingProblems = Partial<Record<"takenAt" | "value" | "least" | "state", string>>;

/**
 * What speaks against a reading, by the field that has to change.
 * @param reading what was read, in core units
 * @param seriesState the state its point is always read in
 * @param now this machine's clock, epoch ms
 * @returns empty when nothing does
 * @example readingProblems({ takenAt: 0, value: 3, least: 4, state: null }, "cycle", 1) // { least: "The least is above the greatest." }
 */
export function readingProblems(reading: ReadingFacts, seriesState: ReadingState, now: number): ReadingProblems {
  const problems: ReadingProblems = {};
  if (reading.takenAt !== null) {
    if (Number.isNaN(reading.takenAt)) problems.takenAt = "Write the date and time as 2026-11-20 10:40.";
    else if (reading.takenAt > now + CLOCK_SLACK)
      problems.takenAt = "That is in the future. Check the date, and the clock of the device it was taken with.";
  }
  if (reading.least !== null && reading.value !== null && reading.least > reading.value)
    problems.least = "The least is above the greatest.";
  if (seriesState === "cycle" && reading.value !== null && reading.least === null)
    problems.least = "This point is read over a cycle: enter the least as well.";
  if (reading.state !== null && reading.state !== seriesState)
    problems.state = `This series is read ${readingStates[seriesState]} and never mixes states. Add a point for the other state.`;
  return problems;
}

/**
 * The period in which the part that was read was fitted.
 * @param periods newest or oldest first; they do not overlap
 * @param at epoch ms; the start belongs to a period, its end does not
 * @returns the period; undefined: nothing was fitted then
 * @example fittedAt([{ startedAt: 0, endedAt: 100 }, { startedAt: 100, endedAt: null }], 100) // { startedAt: 100, endedAt: null }
 */
export function fittedAt<P extends FittedPeriod>(periods: readonly P[], at: number): P | undefined {
  return periods.find((p) => p.startedAt <= at && (p.endedAt === null || p.endedAt > at));
}

/** What is said where no part was fitted at the time of a reading. */
export const NOT_FITTED = "The part was not fitted then. Check the date, or the start of its life.";
