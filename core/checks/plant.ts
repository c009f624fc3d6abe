/** Tests that a plant writes for itself: readings, each against its bounds. */
import { calculator, maybe, say, type FieldSpec } from "../calculators/types";
import { quantityOf } from "../units/quantities";
import type { PlantTest, Check } from "./types";

/**
 * A plant's own test as a guided test: every reading against its bounds.
 * @param id under which it is kept
 * @param test as the plant wrote it, bounds in core units
 * @returns the guided test
 * @example
 * const bound = { label: "Charge pressure", quantity: "pressure", least: 18, greatest: 24 };
 * const test = { title: "Charge", asks: "", kinds: [], before: [], caution: "", steps: [], alters: [], readings: [bound] };
 * runCalculator(plantCheck("own", test).calculation, { r0: "15 bar" }).outcome.tone // "bad"
 */
export function plantCheck(id: string, test: PlantTest): Check {
  const fields: Record<string, FieldSpec> = Object.fromEntries(
    test.readings.map((r, i) => [`r${i}`, maybe(r.quantity, { label: r.label })]),
  );
  const calculation = calculator({
    id,
    group: "pump",
    title: test.title,
    asks: test.asks,
    fields,
    compute(values) {
      const read = test.readings.map((r, i) => ({
        ...r,
        value: (values as Record<string, number | null>)[`r${i}`] ?? null,
      }));
      if (read.every((r) => r.value === null)) throw new RangeError("Enter at least one reading.");
      const outside = read.filter(
        (r) =>
          r.value !== null &&
          ((r.least !== null && r.value < r.least) || (r.greatest !== null && r.value > r.greatest)),
      );
      const missing = read.filter((r) => r.value === null);
      return {
        answer: say(
          {
            text:
              outside.length === 0
                ? "Within its bounds."
                : `Outside: ${outside.map((r) => r.label.toLowerCase()).join(", ")}.`,
            strong: true,
          },
          missing.length ? ` Not read: ${missing.map((r) => r.label.toLowerCase()).join(", ")}.` : "",
        ),
        tone: outside.length ? "bad" : missing.length ? "doubt" : "good",
        working: {
          formula: "each reading against its bounds",
          source: "The plant's own test.",
          rows: read
            .filter((r) => r.value !== null)
            .map((r) => ({ label: r.label, value: r.value!, quantity: r.quantity })),
        },
      };
    },
  });
  return {
    id,
    title: test.title,
    kinds: test.kinds,
    before: test.before,
    caution: test.caution,
    makersWay: "The manufacturer's current manual.",
    steps: test.steps,
    alters: test.alters,
    calculation,
  };
}

/**
 * What is wrong with a plant's own test before it is kept.
 * @param test as the plant wrote it, bounds in core units
 * @returns a message; undefined when nothing is wrong
 * @example plantTestProblem({ readings: [] }) // "Give at least one reading."
 * @example plantTestProblem({ readings: [{ label: "Charge", quantity: "pressure", least: 24, greatest: 18 }] })
 * // "Charge: the upper bound must lie above the lower one."
 */
export function plantTestProblem(test: PlantTest): string | undefined {
  if (test.readings.length === 0) return "Give at least one reading.";
  if (test.readings.length > 20) return "At most 20 readings.";
  for (const r of test.readings) {
    const q = quantityOf(r.quantity);
    if (r.least !== null && r.greatest !== null && r.least >= r.greatest)
      return `${r.label}: the upper bound must lie above the lower one.`;
    for (const bound of [r.least, r.greatest])
      if (bound !== null && (bound < q.least || bound > q.greatest))
        return `${r.label}: a bound lies outside what ${q.label.toLowerCase()} can be.`;
  }
  return undefined;
}
