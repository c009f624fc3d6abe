/** Parts as the harbour has them, each with the points that are read of it and what is true of a sound one. */
import type { LimitRule } from "@core";
import type { ComponentPlan, PointPlan } from "./world";

const absolute = (upper: number | null, lower: number | null = null): LimitRule => ({
  basis: "absolute",
  upper,
  lower,
});
const maker = (upper: number | null, lower: number | null = null): LimitRule => ({ basis: "maker", upper, lower });
const fullFlowShare = (upper: number): LimitRule => ({ basis: "shareOfFullFlow", upper, lower: null });

/** The tenths of a unit that make one well pump differ from the next. */
export type Spread = (low: number, high: number) => number;

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

/** Elements last about fifteen months; their drop grows the faster the fuller they are. */
export function filter(s: Spread, change: Partial<ComponentPlan> = {}): ComponentPlan {
  const first = s(1500, 1800);
  const asNew = s(0.7, 1.0);
  return {
    kind: "filter",
    name: "Return filter",
    model: "EF 10",
    leadTimeDays: 3,
    elements: [first, first - s(430, 480), first - s(880, 960), first - s(1330, 1440)]
      .map(Math.round)
      .filter((d) => d > 20),
    filter: { beta: 200, size: 6, flow: 65, bypass: 3, element: "EF 10, 6 µm" },
    points: [
      {
        name: "Differential pressure",
        quantity: "pressureDrop",
        state: "fullStroke",
        asNew,
        noise: 0.045,
        limit: maker(2.8),
        reference: { pressure: 1, temperature: 50 },
        a: 0,
        b: -1,
        conditions: "Oil above 35 °C, full flow",
      },
    ],
    ...change,
  };
}

export function tank(temperature: number, limit = 70): ComponentPlan {
  return {
    kind: "other",
    name: "Reservoir",
    model: "",
    leadTimeDays: 0,
    points: [
      {
        name: "Oil temperature",
        quantity: "temperature",
        state: "fullStroke",
        asNew: temperature,
        noise: 0.03,
        limit: absolute(limit),
        conditions: "After an hour at work, level read hot",
      },
    ],
  };
}
