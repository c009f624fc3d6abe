/** Cylinders and motors as the harbour has them, each with the points that are read of it and what is true of a sound one. */
import { absolute, fullFlowShare, type Spread } from "./limits";
import type { ComponentPlan } from "../world";

export function cylinder(name: string, s: Spread): ComponentPlan {
  const stroke = s(18, 40);
  return {
    kind: "cylinder",
    name,
    model: "EC 125",
    leadTimeDays: 35,
    points: [
      {
        name: "Creep in 10 min",
        quantity: "creep",
        state: "holding",
        asNew: s(300, 600),
        noise: 0.13,
        limit: absolute(3000),
        conditions: "Rated load, valve shut, dial gauge",
      },
      {
        name: "Stroke time",
        quantity: "strokeTime",
        state: "fullStroke",
        asNew: stroke,
        noise: 0.015,
        limit: absolute(stroke * 1.3),
        conditions: "Stated stroke and load, oil above 40 °C",
      },
      {
        name: "Rod seal weep",
        quantity: "weep",
        state: "cycle",
        asNew: s(1, 2),
        noise: 0.2,
        limit: absolute(12),
        conditions: "Count for two minutes, card under the gland",
      },
    ],
  };
}

export function pistonMotor(
  name: string,
  displacement: number,
  s: Spread,
  plan: Partial<ComponentPlan> = {},
  months?: number,
): ComponentPlan {
  const full = (displacement * 200) / 1000;
  return {
    kind: "pistonMotor",
    name,
    model: `EM ${displacement}`,
    displacement,
    speed: 200,
    maxPressure: 250,
    leadTimeDays: 63,
    points: [
      {
        name: "Case drain flow",
        quantity: "caseDrainFlow",
        state: "fullStroke",
        asNew: full * s(0.018, 0.024),
        noise: 0.03,
        limit: fullFlowShare(10),
        reference: { pressure: 160, temperature: 50 },
        a: 0.95,
        b: 0.7,
        instrument: "F-07",
        conditions: "Rated load, oil above 40 °C",
        ...(months !== undefined && { months }),
      },
      {
        name: "Case temperature over tank",
        quantity: "temperatureRise",
        state: "fullStroke",
        asNew: s(6, 9),
        noise: 0.09,
        limit: absolute(25),
        instrument: "T-01",
        conditions: "After 20 min at work",
        ...(months !== undefined && { months }),
      },
    ],
    ...plan,
  };
}
