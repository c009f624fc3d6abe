/**
 * The common units as templates: their components and the points by which each is watched, with the limits that experience
 * sets where the manufacturer states none. Every such limit says that it is a rule of thumb (common practice).
 */
import type { LimitRule } from "../baseline/limit";
import type { PointQuantityId, ReadingState } from "../units/quantities";
import type { ComponentKind } from "./kinds";

export interface TemplatePoint {
  name: string;
  quantity: PointQuantityId;
  state: ReadingState;
  limit: LimitRule;
  reason: string;
  /** Readings are brought to this condition; null: as read. */
  reference: { pressure: number; temperature: number } | null;
  conditions: string;
}

export interface TemplateComponent {
  kind: ComponentKind;
  name: string;
  displacement: number | null;
  speed: number | null;
  points: TemplatePoint[];
}

export interface TemplateFigures {
  /** cm³, r/min, bar. */
  displacement: number;
  speed: number;
  pressure: number;
}

interface Template {
  label: string;
  says: string;
  components: (f: TemplateFigures) => TemplateComponent[];
}

const upper = (value: number): LimitRule => ({ basis: "absolute", upper: value, lower: null });
const between = (lower: number, above: number): LimitRule => ({ basis: "absolute", upper: above, lower });
const atLeast = (value: number): LimitRule => ({ basis: "absolute", upper: null, lower: value });

const point = (
  name: string,
  quantity: PointQuantityId,
  state: ReadingState,
  limit: LimitRule,
  reason: string,
  conditions: string,
  reference: TemplatePoint["reference"] = null,
): TemplatePoint => ({ name, quantity, state, limit, reason: `Rule of thumb: ${reason}`, conditions, reference });

const vacuum = point(
  "Inlet vacuum",
  "vacuum",
  "fullStroke",
  upper(250),
  "at most 250 hPa at the inlet; the manufacturer's figure comes first",
  "Oil above 30 °C, full flow",
);
const rise = (name: string, most: number, state: ReadingState) =>
  point(
    name,
    "temperatureRise",
    state,
    upper(most),
    `no more than ${most} K`,
    "After 20 min at work, always the same spot",
  );

const caseDrain = (f: TemplateFigures) =>
  point(
    "Case drain flow",
    "caseDrainFlow",
    "fullStroke",
    { basis: "shareOfFullFlow", upper: 10, lower: null },
    "10 % of full flow",
    "Oil above 40 °C, full stroke or rated load, case line open to tank",
    { pressure: f.pressure, temperature: 50 },
  );

const reservoir: TemplateComponent = {
  kind: "other",
  name: "Reservoir",
  displacement: null,
  speed: null,
  points: [
    point(
      "Oil temperature",
      "temperature",
      "fullStroke",
      upper(65),
      "mineral oil ages fast above 65 °C",
      "After an hour at work",
    ),
  ],
};
const plain = (kind: ComponentKind, name: string, points: TemplatePoint[]): TemplateComponent => ({
  kind,
  name,
  displacement: null,
  speed: null,
  points,
});

const fixedPump = (f: TemplateFigures): TemplateComponent => ({
  kind: "gearPump",
  name: "Pump",
  displacement: f.displacement,
  speed: f.speed,
  points: [
    point(
      "Flow at working pressure",
      "flow",
      "fullStroke",
      atLeast((0.8 * f.displacement * f.speed) / 1000),
      "80 % of the theoretical flow",
      "Through the test port, at working pressure",
    ),
    point(
      "Working pressure",
      "pressure",
      "fullStroke",
      between(0.8 * f.pressure, 1.15 * f.pressure),
      "20 % below to 15 % above the stated working pressure",
      "Rated load",
    ),
    vacuum,
  ],
});
const variablePump = (f: TemplateFigures): TemplateComponent => ({
  kind: "axialPistonPump",
  name: "Pump",
  displacement: f.displacement,
  speed: f.speed,
  points: [
    caseDrain(f),
    point(
      "Compensator pressure",
      "pressure",
      "idle",
      between(0.95 * f.pressure, 1.15 * f.pressure),
      "5 % below to 15 % above the stated working pressure",
      "Consumers blocked, pump at idle",
    ),
    rise("Case temperature over tank", 25, "fullStroke"),
    vacuum,
  ],
});
const relief = (f: TemplateFigures, above = 1.1) =>
  plain("reliefValve", "Relief valve", [
    point(
      "Relief setting",
      "pressure",
      "holding",
      between((above - 0.04) * f.pressure, (above + 0.12) * f.pressure),
      `about ${Math.round((above - 1) * 100)} % above the working pressure, and never above the weakest hose`,
      "Raised until it just shows, gauge watched",
    ),
    rise("Valve temperature over line", 10, "fullStroke"),
  ]);
const valve = (name: string) => plain("directionalValve", name, [rise("Valve temperature over line", 9, "holding")]);
const proportional = plain("proportionalValve", "Proportional valve", [
  point(
    "Null leakage",
    "leakageFlow",
    "holding",
    upper(2.5),
    "2.5 L/min at 100 bar; the data sheet comes first",
    "Spool centred, consumers blocked, warm",
    {
      pressure: 100,
      temperature: 50,
    },
  ),
  rise("Valve temperature over line", 12, "holding"),
]);
const cylinder = (name: string) =>
  plain("cylinder", name, [
    point(
      "Creep in 10 min",
      "creep",
      "holding",
      upper(3000),
      "3 mm in ten minutes",
      "Rated load, valve shut, dial gauge",
    ),
    point("Rod seal weep", "weep", "cycle", upper(12), "12 drops a minute", "Card under the gland, two minutes"),
  ]);
const returnFilter = plain("filter", "Return filter", [
  point(
    "Differential pressure",
    "pressureDrop",
    "fullStroke",
    upper(2),
    "two thirds of a 3 bar bypass setting",
    "Oil above 35 °C, full flow",
  ),
]);

/** A charge pump has this share of the main pump's displacement (common practice). */
const CHARGE_SHARE = 0.2;
const chargeFlow = (f: TemplateFigures) => (CHARGE_SHARE * f.displacement * f.speed) / 1000;
const loopPump = (f: TemplateFigures): TemplateComponent => ({
  kind: "closedLoopPump",
  name: "Loop pump",
  displacement: f.displacement,
  speed: f.speed,
  points: [
    caseDrain(f),
    point(
      "Loop pressure, side A",
      "pressure",
      "fullStroke",
      between(0.8 * f.pressure, 1.15 * f.pressure),
      "20 % below to 15 % above the stated working pressure",
      "Rated load, full stroke towards A",
    ),
    rise("Case temperature over tank", 25, "fullStroke"),
  ],
});
const chargePump = (f: TemplateFigures): TemplateComponent => ({
  kind: "gearPump",
  name: "Charge pump",
  displacement: CHARGE_SHARE * f.displacement,
  speed: f.speed,
  points: [
    point(
      "Charge pressure",
      "pressure",
      "fullStroke",
      between(15, 32),
      "15 to 32 bar, in both directions; the manufacturer's figure comes first",
      "Loop at work, hot",
    ),
    vacuum,
  ],
});
const loopSetting = (f: TemplateFigures) =>
  point(
    "Loop relief setting",
    "pressure",
    "holding",
    between(1.06 * f.pressure, 1.4 * f.pressure),
    "above the working pressure, and never above the weakest hose",
    "Motor held, stroke raised slowly, gauge watched; by the manufacturer's order",
  );

/** A reducing valve gives this share of the pilot pump's pressure. */
export const REDUCED_SHARE = 0.6;
const clutch = (name: string, f: TemplateFigures) =>
  plain("other", name, [
    point(
      "Clutch pressure",
      "pressure",
      "fullStroke",
      between(0.85 * REDUCED_SHARE * f.pressure, 1.1 * REDUCED_SHARE * f.pressure),
      "15 % below to 10 % above what the reducing valve gives; the manufacturer's figure comes first",
      "Engaged, warm, gauge at the clutch",
    ),
  ]);

export const machineTemplates = {
  fixedRelief: {
    label: "Fixed pump with relief valve",
    says: "Gear pump, relief valve, directional valve, cylinder, return filter",
    components: (f) => [
      reservoir,
      fixedPump(f),
      relief(f),
      valve("Directional valve"),
      cylinder("Cylinder"),
      returnFilter,
    ],
  },
  compensated: {
    label: "Compensated pump and consumers",
    says: "Pressure-compensated piston pump, relief valve, proportional valve, cylinder, return filter",
    components: (f) => [reservoir, variablePump(f), relief(f, 1.17), proportional, cylinder("Cylinder"), returnFilter],
  },
  hoist: {
    label: "Compensated pump and motor",
    says: "Pressure-compensated piston pump, relief valve, proportional valve, piston motor, return filter",
    components: (f) => [
      reservoir,
      variablePump(f),
      relief(f, 1.17),
      proportional,
      plain("pistonMotor", "Motor", [rise("Case temperature over tank", 25, "fullStroke")]),
      returnFilter,
    ],
  },
  unloading: {
    label: "Pump with unloader and accumulator",
    says: "Gear pump, unloader, accumulator, relief valve above the cut-out, directional valve, cylinder",
    components: (f) => [
      reservoir,
      fixedPump(f),
      plain("unloaderValve", "Unloader", [
        point(
          "Cut-out pressure",
          "pressure",
          "fullStroke",
          between(0.95 * f.pressure, 1.06 * f.pressure),
          "within 5 % of its setting, and always below the relief valve",
          "Pressure rising slowly, gauge watched",
        ),
      ]),
      plain("accumulator", "Accumulator", []),
      relief(f, 1.12),
      valve("Directional valve"),
      cylinder("Cylinder"),
    ],
  },
  loadHolding: {
    label: "Load-holding cylinder",
    says: "Gear pump, relief valve, directional valve, pilot-operated check valve, cylinder",
    components: (f) => [
      reservoir,
      fixedPump(f),
      relief(f),
      valve("Directional valve"),
      plain("loadHoldingValve", "Pilot-operated check valve", [
        point(
          "Pilot check margin",
          "pilotMargin",
          "holding",
          atLeast(10),
          "at least 10 bar before it opens by itself",
          "Load parked and propped, both chamber pressures after 10 min",
        ),
      ]),
      cylinder("Cylinder"),
      returnFilter,
    ],
  },
  parallel: {
    label: "Two cylinders side by side",
    says: "Gear pump, relief valve, directional valve, two cylinders, return filter",
    components: (f) => [
      reservoir,
      fixedPump(f),
      relief(f),
      valve("Directional valve"),
      cylinder("Cylinder, left"),
      cylinder("Cylinder, right"),
      returnFilter,
    ],
  },
  hydrostatic: {
    label: "Closed loop with charge pump",
    says: "Closed-loop pump and motor, charge pump with filter and relief valve, loop relief valves, flushing valve, cooler",
    components: (f) => [
      reservoir,
      loopPump(f),
      chargePump(f),
      plain("reliefValve", "Charge relief valve", []),
      plain("reliefValve", "Loop relief valve, A", [loopSetting(f)]),
      plain("reliefValve", "Loop relief valve, B", [loopSetting(f)]),
      plain("flushingValve", "Flushing valve", [
        point(
          "Flow out of the flushing valve",
          "flow",
          "fullStroke",
          atLeast(0.25 * chargeFlow(f)),
          "a quarter of the charge flow",
          "Meter or timed can in its drain, loop at work, both directions",
        ),
      ]),
      plain("pistonMotor", "Motor", [caseDrain(f), rise("Case temperature over tank", 25, "fullStroke")]),
      { ...returnFilter, name: "Charge filter" },
      plain("other", "Cooler", []),
    ],
  },
  filterCooler: {
    label: "Filter and cooler loop",
    says: "Circulation pump with relief valve, filter and cooler, off the main circuit",
    components: (f) => [
      reservoir,
      fixedPump(f),
      relief(f, 1.5),
      { ...returnFilter, name: "Loop filter" },
      plain("other", "Cooler", []),
    ],
  },
  pilotClutch: {
    label: "Pilot circuit with clutches",
    says: "Pilot pump with relief valve, filter, reducing valve, directional valve and two clutches",
    components: (f) => [
      reservoir,
      fixedPump(f),
      relief(f),
      plain("reducingValve", "Reducing valve", [
        point(
          "Reduced pressure",
          "pressure",
          "fullStroke",
          between(0.9 * REDUCED_SHARE * f.pressure, 1.1 * REDUCED_SHARE * f.pressure),
          "within 10 % of its setting, here taken as 60 % of the pilot pump's pressure",
          "Clutch engaged, oil warm",
        ),
      ]),
      valve("Clutch valve"),
      clutch("Clutch, forward", f),
      clutch("Clutch, reverse", f),
      returnFilter,
    ],
  },
} as const satisfies Record<string, Template>;

export type TemplateId = keyof typeof machineTemplates;
export const templateIds = Object.keys(machineTemplates) as TemplateId[];

/** Mineral oils by grade: viscosities at 40 and 100 °C of a usual oil of viscosity index near 100 (memory). */
export const oilGrades = {
  "VG 32": { kv40: 32, kv100: 5.4 },
  "VG 46": { kv40: 46, kv100: 6.8 },
  "VG 68": { kv40: 68, kv100: 8.7 },
} as const;

export type OilGrade = keyof typeof oilGrades;
