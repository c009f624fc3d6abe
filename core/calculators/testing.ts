/** For tests of calculations: run one on its worked example, with some fields typed otherwise. */
import { calculatorOf } from "./index";
import { exampleOf, runCalculator } from "./run";
import type { Outcome } from "./types";
import type { UnitPreference } from "../units/preference";

const resultOf = (id: string, typed: Readonly<Record<string, string>>, preference: UnitPreference = {}) => {
  const calculator = calculatorOf(id)!;
  return runCalculator(calculator, { ...exampleOf(calculator), ...typed }, preference);
};

/**
 * Its outcome.
 * @throws {Error} with the problems by field, where there is none
 */
export function outcomeOf(
  id: string,
  typed: Readonly<Record<string, string>> = {},
  preference: UnitPreference = {},
): Outcome {
  const result = resultOf(id, typed, preference);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.outcome;
}

/** What is said of its fields; empty where it gives an answer. */
export function problemsOf(id: string, typed: Readonly<Record<string, string>>): Record<string, string> {
  const result = resultOf(id, typed);
  return result.ok ? {} : result.problems;
}

/**
 * A figure of the working, by its label.
 * @throws {Error} where the working has no such row
 */
export function rowOf(outcome: Outcome, label: string): number {
  const row = outcome.working.rows.find((r) => r.label === label);
  if (!row) throw new Error(`${label} is no row of ${outcome.working.rows.map((r) => r.label).join(", ")}`);
  return row.value;
}

/** The answer as a sentence, figures to four digits in core units. */
export const textOf = (outcome: Outcome): string =>
  outcome.answer.map((p) => ("text" in p ? p.text : "value" in p ? p.value.toPrecision(4) : "")).join("");
