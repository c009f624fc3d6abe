/** What the model of a circuit predicts a test to show, where it has an answer; what it can predict is not typed. */
import type { CircuitElement, GaugeQuantity, Netlist } from "../circuit/netlist";
import type { ReadingState } from "../units/quantities";
import { normalCdf } from "../numeric/normal";
import type { GaugeEvidence } from "./explain";
import { causes } from "./knowledge/causes";
import type { TestId } from "./knowledge/tests";

interface Prediction {
  reads: GaugeQuantity;
  port: string;
  state: ReadingState;
  /** Results that stand for less and more than the healthy model shows. */
  less?: string;
  more?: string;
}

/** Tests that the model answers. */
const predictions: Partial<Record<TestId, Prediction>> = {
  "inlet.vacuum": { reads: "vacuum", port: "in", state: "fullStroke", less: "low", more: "high" },
  "pump.caseDrain": { reads: "flow", port: "case", state: "fullStroke", more: "high" },
  "motor.caseDrain": { reads: "flow", port: "case", state: "fullStroke", more: "high" },
  "filter.drop": { reads: "pressureDrop", port: "in", state: "fullStroke", less: "low", more: "high" },
  "valve.null": { reads: "nullLeakage", port: "T", state: "holding", more: "high" },
  "reduced.pressure": { reads: "pressure", port: "out", state: "fullStroke", less: "low", more: "high" },
  "setting.relief": { reads: "setting", port: "P", state: "idle", less: "low" },
};

/** The point of the model at which a test is made. */
const pointOf = (test: TestId, element: string) => `test:${test}@${element}`;

/**
 * A circuit with gauges where tests would be made, so that they are computed with the rest.
 * @returns the netlist and the states of the added gauges
 */
export function withTestGauges(netlist: Netlist): { netlist: Netlist; states: [string, ReadingState][] } {
  const added = Object.entries(predictions).flatMap(([test, { reads, port, state }]) =>
    netlist.elements
      .filter((e) => answers(e, test as TestId))
      .map((e) => ({ pointId: pointOf(test as TestId, e.id), element: e.id, port, reads, state })),
  );
  return {
    netlist: { ...netlist, gauges: [...netlist.gauges, ...added.map(({ state: _, ...g }) => g)] },
    states: added.map((a) => [a.pointId, a.state]),
  };
}

/** Kinds of element at which a prediction makes sense. */
const kindsOf: Partial<Record<TestId, readonly CircuitElement["kind"][]>> = {
  "inlet.vacuum": ["fixedPump", "compensatedPump"],
  "pump.caseDrain": ["fixedPump", "compensatedPump"],
  "motor.caseDrain": ["motor"],
  "filter.drop": ["filter"],
  "valve.null": ["directional", "proportional"],
  "reduced.pressure": ["reducing"],
  "setting.relief": ["relief"],
};

const answers = (element: CircuitElement, test: TestId) => kindsOf[test]?.includes(element.kind) ?? false;

/** A change smaller than this share of the healthy value is not called one, and one reading is good to this share. */
const CALLED = 0.12;
const READ = 0.05;
/** Shares of a prediction that come out otherwise all the same: misread, or the model is wrong there. */
const OTHERWISE = 0.03;

/**
 * Chance of each result that tells of something, as the model predicts it over the severities that the gauges leave.
 * @returns null: the model has no answer, and the typed table holds
 */
export function predictedResults(
  { evidence, netlist }: { evidence: GaugeEvidence; netlist: Netlist },
  at: { test: TestId; element: string | null },
  suspect: { cause: keyof typeof causes; element: string | null },
): Record<string, number> | null {
  const prediction = predictions[at.test];
  const { fault } = causes[suspect.cause];
  if (!prediction || at.element === null || suspect.element === null || !fault) return null;
  if (!netlist.elements.some((e) => e.id === at.element && answers(e, at.test))) return null;
  const point = pointOf(at.test, at.element);
  const healthy = evidence.values.get(point);
  const severities = evidence.faults.find((f) => f.element === suspect.element && f.fault === fault)?.severities;
  if (healthy === null || healthy === undefined || !severities || Math.abs(healthy) < 1e-6) return null;
  let [less, more] = [0, 0];
  for (const { share, values } of severities) {
    const value = values.get(point);
    if (value === null || value === undefined) return null;
    const change = (value - healthy) / Math.abs(healthy);
    const width = READ * Math.max(1, Math.abs(value / healthy));
    less += share * normalCdf((-CALLED - change) / width);
    more += share * (1 - normalCdf((CALLED - change) / width));
  }
  const found: Record<string, number> = {};
  const hold = (p: number) => OTHERWISE + (1 - 2 * OTHERWISE) * p;
  if (prediction.less) found[prediction.less] = hold(less);
  if (prediction.more) found[prediction.more] = hold(more);
  return found;
}
