/** Pumps as the harbour has them, each with the points that are read of it and what is true of a sound one. */
import { absolute, fullFlowShare, maker, type Spread } from "./limits";
import type { ComponentPlan, PointPlan } from "../world";

interface PumpOptions {
  displacement: number;
  speed: number;
  pressure: number;
  meter?: string;
  leadTimeDays?: number;
  caseDrain?: Partial<PointPlan>;
  name: string;
}

export function pistonPump(
  { displacement, speed, pressure, meter = "F-07", leadTimeDays = 42, caseDrain, name }: PumpOptions,
  s: Spread,
): ComponentPlan {
  const full = (displacement * speed) / 1000;
  const reference = { pressure, temperature: 50 };
  return {
    kind: "axialPistonPump",
    name,
    model: `EP ${displacement}`,
    displacement,
    speed,
    maxPressure: 350,
    leadTimeDays,
    points: [
      {
        name: "Case drain flow",
        quantity: "caseDrainFlow",
        state: "fullStroke",
        asNew: full * s(0.017, 0.026),
        noise: 0.025,
        limit: fullFlowShare(10),
        reference,
        a: s(0.9, 1.05),
        b: s(0.5, 0.9),
        instrument: meter,
        conditions: "Oil above 40 °C, full stroke, case line open to tank",
        ...caseDrain,
      },
      {
        name: "Compensator pressure",
        quantity: "pressure",
        state: "idle",
        asNew: pressure + 12,
        noise: 0.008,
        limit: absolute(pressure + 35, pressure - 10),
        instrument: "P-05",
        conditions: "Consumers blocked, pump at idle",
      },
      {
        name: "Case temperature over tank",
        quantity: "temperatureRise",
        state: "fullStroke",
        asNew: s(7, 10),
        noise: 0.09,
        limit: absolute(25),
        instrument: "T-01",
        conditions: "After 20 min at work, same spot",
      },
      {
        name: "Inlet vacuum",
        quantity: "vacuum",
        state: "fullStroke",
        asNew: s(60, 100),
        noise: 0.07,
        limit: maker(250),
        conditions: "Oil above 30 °C, full stroke",
      },
      {
        name: "Case pressure",
        quantity: "pressure",
        state: "fullStroke",
        // through a laminar case line it goes with the flow in it, whatever the oil's temperature
        ...(caseDrain?.truth && { truth: caseDrain.truth }),
        asNew: s(0.5, 0.75),
        noise: 0.08,
        limit: maker(4),
        instrument: "P-09",
        conditions: "Full stroke, oil above 40 °C",
      },
    ],
  };
}

export function gearPump(name: string, displacement: number, pressure: number, s: Spread): ComponentPlan {
  const full = (displacement * 1450) / 1000;
  return {
    kind: "gearPump",
    name,
    model: `EG ${displacement}`,
    displacement,
    speed: 1450,
    maxPressure: 250,
    leadTimeDays: 14,
    points: [
      {
        name: "Flow at working pressure",
        quantity: "flow",
        state: "fullStroke",
        asNew: full * s(0.92, 0.95),
        noise: 0.012,
        limit: absolute(null, full * 0.75),
        conditions: "Through the test port, at working pressure",
      },
      {
        name: "Working pressure",
        quantity: "pressure",
        state: "fullStroke",
        asNew: pressure,
        noise: 0.015,
        limit: absolute(pressure + 30, pressure - 30),
        instrument: "P-02",
        conditions: "Rated load",
      },
      {
        name: "Inlet vacuum",
        quantity: "vacuum",
        state: "fullStroke",
        asNew: s(60, 110),
        noise: 0.07,
        limit: maker(300),
        conditions: "Oil above 30 °C",
      },
    ],
  };
}
