/** What is entered at a step: which fields it has, and what is wrong with them. */
import { calendarDay } from "../units/day";
import { parseNumber, parseQuantity } from "../units/parse";
import { preferredUnit, type UnitPreference } from "../units/preference";
import { quantityOf, type QuantityId } from "../units/quantities";
import { formatQuantity } from "../units/format";
import type { Ask, WorkStep } from "./types";

export interface AskField {
  name: string;
  label: string;
  optional: boolean;
  quantity: QuantityId | null;
  /** A calendar day. */
  day?: true;
  /** Of a choice. */
  options?: readonly { id: string; label: string }[];
}

/**
 * The fields that a step's question has.
 * @param ask what the step asks; undefined: nothing
 * @returns the fields in order; none where nothing is asked
 * @example fieldsOfAsk({ kind: "torque" }).map((field) => field.name) // ["stated", "reached", "passes"]
 * @example fieldsOfAsk(undefined) // []
 */
export function fieldsOfAsk(ask: Ask | undefined): AskField[] {
  const field = (name: string, label: string, quantity: QuantityId | null = null, optional = false) => ({
    name,
    label,
    optional,
    quantity,
  });
  switch (ask?.kind) {
    case undefined:
      return [];
    case "text":
      return [field("text", ask.label, null, ask.optional ?? false)];
    case "count":
      return [field("count", ask.label)];
    case "value":
      return [field("value", ask.label, ask.quantity, ask.optional ?? false)];
    case "torque":
      return [
        field("stated", "Manufacturer's torque", "torque"),
        field("reached", "Torque reached", "torque"),
        field("passes", "Passes"),
      ];
    case "day":
      return [{ ...field("day", ask.label, null, ask.optional ?? false), day: true }];
    case "lines":
      return [field("tags", "Tags, separated by commas")];
    case "choice":
      return [{ ...field("choice", ask.label), options: ask.options }];
  }
}

/** Beyond this share of the stated torque something was read wrong, or is wrong. The maker's own tolerance goes first. */
const TORQUE_TOLERANCE = 0.1;
const MOST_PIECES = 500;
const MOST_TEXT = 300;

type Problems = Record<string, string>;

function countProblem(text: string): string | null {
  const n = parseNumber(text);
  return Number.isInteger(n) && n >= 0 && n <= MOST_PIECES ? null : `Write a whole number up to ${MOST_PIECES}.`;
}

function quantityProblem(text: string, quantity: QuantityId, units: UnitPreference): string | null {
  const result = parseQuantity(text, quantity, { assume: preferredUnit(quantity, units) });
  return result.ok ? null : result.message;
}

const inCore = (text: string | undefined, quantity: QuantityId, units: UnitPreference): number | null => {
  const result = parseQuantity(text ?? "", quantity, { assume: preferredUnit(quantity, units) });
  return result.ok ? result.parsed.value : null;
};

function boundsProblem(ask: Extract<Ask, { kind: "value" }>, value: number): string | null {
  const { unit } = quantityOf(ask.quantity);
  const show = (v: number) => formatQuantity(v, ask.quantity, { unit });
  if (ask.least !== undefined && value < ask.least) return `At least ${show(ask.least)} before you go on.`;
  if (ask.greatest !== undefined && value > ask.greatest) return `At most ${show(ask.greatest)} before you go on.`;
  return null;
}

/** A setting against the one that it must exceed, and against the one that it must not reach. */
function orderProblem(
  ask: Extract<Ask, { kind: "value" }>,
  value: number,
  others: Parameters<typeof stepProblems>[2],
  units: UnitPreference,
): string | null {
  const { unit } = quantityOf(ask.quantity);
  const setAt = (step: string | undefined) =>
    step === undefined ? null : inCore(others[step]?.value, ask.quantity, units);
  const text = (other: number) => formatQuantity(other, ask.quantity, { unit });
  const [least, most] = [setAt(ask.above), setAt(ask.below)];
  if (least !== null && value <= least)
    return `It must lie above the ${text(least)} set before, by the stated gap. Set it again, or skip it with the reason.`;
  if (most !== null && value >= most)
    return `The ${text(most)} set after it must lie above it. Set this lower, or take that step back first and set it anew.`;
  return null;
}

/**
 * What is wrong with what was entered at a step, by field.
 * @param step the step
 * @param values as typed
 * @param others values of other steps as typed, by step: a count is held against its pair, a setting against the one it must exceed
 * @param units units of bare numbers
 * @returns messages by field; empty: nothing is wrong
 * @example
 * Object.keys(stepProblems({ id: "plugs", text: "Count", ask: { kind: "count", label: "Plugs" } }, { count: "two" }, {})).length // 1
 */
export function stepProblems(
  step: WorkStep,
  values: Readonly<Record<string, string>>,
  others: Readonly<Record<string, Readonly<Record<string, string>> | undefined>>,
  units: UnitPreference = {},
): Problems {
  const problems: Problems = {};
  const { ask } = step;
  for (const field of fieldsOfAsk(ask)) {
    const text = (values[field.name] ?? "").trim();
    if (text === "") {
      if (!field.optional) problems[field.name] = "Write it down before you go on.";
    } else if (text.length > MOST_TEXT) problems[field.name] = `At most ${MOST_TEXT} characters.`;
    else if (field.quantity) {
      const wrong = quantityProblem(text, field.quantity, units);
      if (wrong) problems[field.name] = wrong;
    }
  }
  if (!ask || Object.keys(problems).length > 0) return problems;
  const set = (name: string, problem: string | null | undefined) => {
    if (problem) problems[name] = problem;
  };
  if (ask.kind === "count") {
    set("count", countProblem(values.count!));
    const pair = ask.equals === undefined ? undefined : others[ask.equals]?.count;
    if (!problems.count && pair !== undefined && parseNumber(pair) !== parseNumber(values.count!))
      problems.count = `${pair} went out, ${values.count} came back. Find the difference before anything is closed.`;
  }
  if (ask.kind === "value") {
    const value = inCore(values.value, ask.quantity, units);
    if (value !== null) set("value", boundsProblem(ask, value) ?? orderProblem(ask, value, others, units));
  }
  if (ask.kind === "torque") {
    set("passes", countProblem(values.passes!));
    const stated = inCore(values.stated, "torque", units)!;
    const reached = inCore(values.reached, "torque", units)!;
    if (Math.abs(reached - stated) > TORQUE_TOLERANCE * stated)
      problems.reached =
        "More than a tenth away from the manufacturer's torque. Tighten again, or skip it with the reason.";
  }
  if (ask.kind === "day" && values.day?.trim() && !calendarDay(values.day))
    problems.day = "Write the date as 2027-01-18.";
  if (ask.kind === "choice") {
    const chosen = ask.options.find((o) => o.id === values.choice);
    set("choice", chosen ? chosen.stops : "Choose one.");
  }
  return problems;
}

/**
 * What was entered at a step, in words for the record.
 * @param ask what the step asks
 * @param values as typed
 * @returns one line; empty where nothing was asked or entered
 * @example answerText({ kind: "torque" }, { stated: "200 N·m", reached: "200 N·m", passes: "3" })
 * // "200 N·m, stated 200 N·m, in 3 passes"
 */
export function answerText(ask: Ask | undefined, values: Readonly<Record<string, string>>): string {
  switch (ask?.kind) {
    case undefined:
      return "";
    case "text":
      return values.text ?? "";
    case "count":
      return values.count ?? "";
    case "value":
      return values.value ?? "";
    case "torque":
      return values.reached ? `${values.reached}, stated ${values.stated}, in ${values.passes} passes` : "";
    case "day":
      return values.day ?? "";
    case "lines":
      return values.tags ?? "";
    case "choice":
      return ask.options.find((o) => o.id === values.choice)?.label ?? "";
  }
}
