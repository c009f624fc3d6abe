/** The common units as templates, of parts that are watched as experience has it. */
import {
  between,
  atLeast,
  point,
  rise,
  caseDrain,
  reservoir,
  plain,
  fixedPump,
  variablePump,
  relief,
  valve,
  proportional,
  cylinder,
  returnFilter,
  chargeFlow,
  loopPump,
  chargePump,
  loopSetting,
  clutch,
  REDUCED_SHARE,
  type TemplateComponent,
  type TemplateFigures,
} from "./templateParts";

interface Template {
  label: string;
  says: string;
  /** What its pump and pressure usually are, cm³ and bar: proposed, and read off the plate instead (common practice). */
  usual: { displacement: number; pressure: number };
  components: (f: TemplateFigures) => TemplateComponent[];
}

export const machineTemplates = {
  fixedRelief: {
    label: "Fixed pump with relief valve",
    says: "Gear pump, relief valve, directional valve, cylinder, return filter",
    usual: { displacement: 28, pressure: 160 },
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
    usual: { displacement: 45, pressure: 210 },
    components: (f) => [reservoir, variablePump(f), relief(f, 1.17), proportional, cylinder("Cylinder"), returnFilter],
  },
  hoist: {
    label: "Compensated pump and motor",
    says: "Pressure-compensated piston pump, relief valve, proportional valve, piston motor, return filter",
    usual: { displacement: 71, pressure: 250 },
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
    usual: { displacement: 16, pressure: 140 },
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
    usual: { displacement: 28, pressure: 180 },
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
    usual: { displacement: 28, pressure: 180 },
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
    usual: { displacement: 71, pressure: 320 },
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
    usual: { displacement: 28, pressure: 10 },
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
    usual: { displacement: 16, pressure: 25 },
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
