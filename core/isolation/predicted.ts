/** What the model of a circuit predicts a test to show, where it has an answer; what it can predict is not typed. */
import type { Readout } from "../circuit/gauges";
import type { ElementKindId } from "../circuit/kinds";
import type { GaugeQuantity, Netlist } from "../circuit/netlist";
import { normalCdf } from "../numeric/normal";
import type { ReadingState } from "../units/readingStates";
import { parts } from "./knowledge/parts";
import type { TestId } from "./knowledge/tests";

export interface Prediction {
  kinds: readonly ElementKindId[];
  reads: GaugeQuantity;
  port: string;
  state: ReadingState;
  /** A change smaller than this share of the healthy value is not called one, and one reading is good to this share. */
  called: number;
  good: number;
  /** Results that stand for less and more than the healthy model shows. */
  less?: string;
  more?: string;
}

const suctionPumps = ["fixedPump", "compensatedPump"] as const;

/** Tests that the model answers. */
export const predictions: Partial<Record<TestId, Prediction>> = {
  "inlet.vacuum": {
    kinds: suctionPumps,
    reads: "vacuum",
    port: "in",
    state: "fullStroke",
    called: 0.15,
    good: 0.05,
    less: "low",
    more: "high",
  },
  "pump.caseDrain": {
    kinds: parts.pump.kinds,
    reads: "flow",
    port: "case",
    state: "fullStroke",
    called: 0.2,
    good: 0.06,
    more: "high",
  },
  "motor.caseDrain": {
    kinds: ["motor"],
    reads: "flow",
    port: "case",
    state: "fullStroke",
    called: 0.2,
    good: 0.06,
    more: "high",
  },
  // what the low side stands at is the charge less the spring of its check valve
  "loop.charge": {
    kinds: ["closedLoopPump"],
    reads: "pressure",
    port: "B",
    state: "fullStroke",
    called: 0.1,
    good: 0.03,
    less: "low",
  },
  "filter.drop": {
    kinds: ["filter"],
    reads: "pressureDrop",
    port: "in",
    state: "fullStroke",
    called: 0.2,
    good: 0.06,
    less: "low",
    more: "high",
  },
  "valve.null": {
    kinds: ["directional", "proportional"],
    reads: "nullLeakage",
    port: "T",
    state: "holding",
    called: 0.2,
    good: 0.06,
    more: "high",
  },
  "reduced.pressure": {
    kinds: ["reducing"],
    reads: "pressure",
    port: "out",
    state: "fullStroke",
    called: 0.05,
    good: 0.015,
    less: "low",
    more: "high",
  },
  "setting.relief": {
    kinds: ["relief"],
    reads: "setting",
    port: "P",
    state: "idle",
    called: 0.03,
    good: 0.01,
    less: "low",
  },
};

/** What the model would say of a test; undefined: nothing. */
export const predictionOf = (test: string): Prediction | undefined => predictions[test as TestId];

/**
 * A test at an element, as its point of the model and as a case knows it.
 * @param test id of the test
 * @param element id; null: at the circuit as a whole
 * @returns an id for both
 * @example testAtOf("filter.drop", "f1") // "filter.drop@f1"
 */
export const testAtOf = (test: string, element: string | null): string =>
  element === null ? test : `${test}@${element}`;

const placed = (netlist: Netlist) =>
  (Object.entries(predictions) as [TestId, Prediction][]).flatMap(([test, prediction]) =>
    netlist.elements
      .filter((e) => prediction.kinds.includes(e.kind))
      .map((e) => ({ id: testAtOf(test, e.id), element: e.id, ...prediction })),
  );

/**
 * A circuit with gauges where tests would be made, so that they are computed with the rest.
 * @returns the netlist and the states of the added gauges
 */
export function withTestGauges(netlist: Netlist): { netlist: Netlist; states: [string, ReadingState][] } {
  const added = placed(netlist);
  const gauges = added.map(({ id, element, port, reads }) => ({ pointId: id, element, port, reads }));
  return {
    netlist: { ...netlist, gauges: [...netlist.gauges, ...gauges] },
    states: added.map(({ id, state }) => [id, state]),
  };
}

/** Tests that read what a gauge of the circuit reads that was read already, with its point. */
export function readAlready(netlist: Netlist, read: ReadonlySet<string>): Record<string, string> {
  return Object.fromEntries(
    placed(netlist).flatMap(({ id, element, port, reads }) => {
      const gauge = netlist.gauges.find(
        (g) => g.element === element && g.port === port && g.reads === reads && read.has(g.pointId),
      );
      return gauge ? [[id, gauge.pointId] as const] : [];
    }),
  );
}

/** Shares of a prediction that come out otherwise all the same: misread, or the model is wrong there. */
const OTHERWISE = 0.03;

/** Chance of each result that tells of something, by its id. */
export type Predicted = Record<string, number>;

/** What every test that the model answers would show over the severities of a fault. */
export function predictedBy(
  netlist: Netlist,
  healthyValues: Readout["values"],
  severities: readonly { share: number; values: Readout["values"] }[],
): Record<string, Predicted> {
  const found: Record<string, Predicted> = {};
  for (const { id, less, more, called, good } of placed(netlist)) {
    const healthy = healthyValues.get(id);
    if (typeof healthy !== "number" || Math.abs(healthy) < 1e-6) continue;
    let [below, above, known] = [0, 0, 0];
    for (const { share, values } of severities) {
      const value = values.get(id);
      if (typeof value !== "number") continue;
      const change = (value - healthy) / Math.abs(healthy);
      const width = good * Math.max(1, Math.abs(value / healthy));
      known += share;
      below += share * normalCdf((-called - change) / width);
      above += share * (1 - normalCdf((called - change) / width));
    }
    if (known < 0.5) continue;
    const hold = (p: number) => Number((OTHERWISE + (1 - 2 * OTHERWISE) * (p / known)).toFixed(4));
    found[id] = { ...(less && { [less]: hold(below) }), ...(more && { [more]: hold(above) }) };
  }
  return found;
}
