/** Valves as the harbour has them, each with the points that are read of it and what is true of a sound one. */
import { absolute, maker, type Spread } from "./limits";
import type { ComponentPlan, PointPlan } from "../world";

export function reliefValve(
  setting: number,
  s: Spread,
  plan: { setting?: Partial<PointPlan>; rise?: Partial<PointPlan> } = {},
): ComponentPlan {
  return {
    kind: "reliefValve",
    name: "Relief valve",
    model: "ER 10",
    maxPressure: 350,
    leadTimeDays: 7,
    points: [
      {
        name: "Relief setting",
        quantity: "pressure",
        state: "holding",
        asNew: setting,
        noise: 0.008,
        limit: absolute(setting + 25, setting - 12),
        instrument: "P-05",
        conditions: "Raised until it just shows, gauge watched",
        ...plan.setting,
      },
      {
        name: "Valve temperature over line",
        quantity: "temperatureRise",
        state: "fullStroke",
        asNew: s(1.5, 2.5),
        noise: 0.18,
        limit: absolute(10),
        instrument: "T-01",
        conditions: "After 20 min at work",
        ...plan.rise,
      },
    ],
  };
}

export function directionalValve(name: string, s: Spread, months?: number): ComponentPlan {
  return {
    kind: "directionalValve",
    name,
    model: "ED 6",
    leadTimeDays: 10,
    points: [
      {
        name: "Valve temperature over line",
        quantity: "temperatureRise",
        state: "holding",
        asNew: s(1.5, 2.5),
        noise: 0.18,
        limit: absolute(9),
        instrument: "T-01",
        conditions: "Load held, 15 min",
        ...(months !== undefined && { months }),
      },
      {
        name: "Pilot pressure",
        quantity: "pressure",
        state: "holding",
        asNew: s(28, 32),
        noise: 0.02,
        limit: maker(40, 20),
        instrument: "P-02",
        conditions: "At the test port, valve driven",
        ...(months !== undefined && { months }),
      },
    ],
  };
}

/** Of what its leakage grows by, a valve's warmth over its line grows so much: oil throttled across it heats it. */
const HEATS = 0.36;

export function proportionalValve(
  name: string,
  s: Spread,
  plan: { leak?: Partial<PointPlan>; response?: Partial<PointPlan> } = {},
): ComponentPlan {
  return {
    kind: "proportionalValve",
    name,
    model: "EV 16",
    leadTimeDays: 56,
    points: [
      {
        name: "Null leakage",
        quantity: "leakageFlow",
        state: "holding",
        asNew: s(0.5, 0.7),
        noise: 0.03,
        limit: maker(2.5),
        reference: { pressure: 100, temperature: 45 },
        a: 0.95,
        b: 0.8,
        conditions: "Spool centred, consumers blocked, warm",
        ...plan.leak,
      },
      {
        name: "Response to a 50 % step",
        quantity: "responseTime",
        state: "holding",
        asNew: s(0.07, 0.09),
        noise: 0.03,
        limit: maker(0.15),
        conditions: "Command step, warm",
        ...plan.response,
      },
      {
        name: "Valve temperature over line",
        quantity: "temperatureRise",
        state: "holding",
        asNew: s(2.5, 3.5),
        ...(plan.leak?.truth && { truth: { ...plan.leak.truth, end: 1 + HEATS * (plan.leak.truth.end - 1) } }),
        noise: 0.13,
        limit: absolute(12),
        instrument: "T-01",
        conditions: "After 20 min at work",
      },
    ],
  };
}
