/** What is typed at one point of a round, and what it becomes. */
import {
  expectedReading,
  judgeRepeats,
  parseQuantity,
  physicsQuestion,
  preferredUnit,
  questionHours,
  questionReading,
  readingProblems,
  quantityOf,
  type ExpectedRange,
  type Question,
  type UnitPreference,
} from "@core";
import type { WalkPoint } from "~/domain/rounds/index.server";

export interface Entry {
  value: string;
  least: string;
  temperature: string;
  pressure: string;
  hours: string;
}
export const emptyEntry: Entry = { value: "", least: "", temperature: "", pressure: "", hours: "" };
export type EntryField = keyof Entry;

export interface Judged {
  problems: Partial<Record<EntryField, string>>;
  /** Core units; null where empty or unreadable. */
  value: number | null;
  expected: ExpectedRange | null;
  question: Question | undefined;
}

/** A machine that runs round the clock is nothing odd: only the clock itself is held against the hours here. */
const HOURS_A_DAY = 24;

/** Read what is typed against what is expected under these conditions. `at`: epoch ms. */
export function judgeEntry(entry: Entry, point: WalkPoint, at: number, units: UnitPreference): Judged {
  const problems: Judged["problems"] = {};
  const read = (field: EntryField, id: Parameters<typeof parseQuantity>[1], required: boolean) => {
    if (entry[field].trim() === "" && !required) return null;
    const parsed = parseQuantity(entry[field], id, {
      assume: field === "value" || field === "least" ? point.unit : preferredUnit(id, units),
    });
    if (!parsed.ok) problems[field] = parsed.message;
    return parsed.ok ? parsed.parsed : null;
  };
  const temperature = read("temperature", "oilTemperature", false);
  const pressure = read("pressure", "loadPressure", false);
  const hours = read("hours", "runningHours", false);
  const value = read("value", point.quantity, true);
  const least = point.readState === "cycle" ? read("least", point.quantity, true) : null;
  // the clock of the tablet is not held against itself, and the round has one state a point
  const rules = readingProblems(
    { takenAt: null, value: value?.value ?? null, least: least?.value ?? null, state: null },
    point.readState,
    at,
  );
  if (rules.least) problems.least ??= rules.least;
  const expected = point.expectation
    ? expectedReading(point.expectation, point.fluid, {
        pressure: pressure?.value ?? null,
        temperature: temperature?.value ?? null,
        at,
      })
    : null;
  const odd =
    hours && point.last && point.last.hours !== null
      ? questionHours(
          { at, hours: hours.value },
          { at: point.last.at, hours: point.last.hours },
          null,
          HOURS_A_DAY,
          (moment) => new Date(moment).toISOString().slice(0, 10),
        )
      : undefined;
  const asked: Question | undefined =
    (value && physicsQuestion(point.quantity, value.value, point.known)) ??
    (odd ? { kind: "hours", message: odd } : undefined);
  const question = value
    ? (questionReading(
        { value: value.value, entered: value.entered, unit: value.unit },
        point.quantity,
        expected,
        point.last?.raw ?? null,
        point.unit,
      ) ?? asked)
    : undefined;
  return { problems, value: value?.value ?? null, expected, question };
}

/** Greatest difference between two readings of one point that agree: a quarter of the expected range, or 4 % of the value. */
export function agreement(point: WalkPoint, expected: ExpectedRange | null, value: number): number {
  return Math.max(
    quantityOf(point.quantity).floor,
    0.04 * Math.abs(value),
    expected ? (expected.high - expected.low) / 4 : 0,
  );
}

export function repeatsOf(values: readonly number[], point: WalkPoint, expected: ExpectedRange | null) {
  return judgeRepeats(values, agreement(point, expected, values[values.length - 1] ?? 0));
}
