/**
 * Parts of the common units, and the points by which each is watched, with the limits that experience sets where the manufacturer
 * states none. Every such limit says that it is a rule of thumb (common practice).
 */
import type { LimitRule } from "../baseline/limit";
import type { PointQuantityId } from "../units/quantities";
import type { ReadingState } from "../units/readingStates";
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

const upper = (value: number): LimitRule => ({ basis: "absolute", upper: value, lower: null });
/** A limit with both ends, in the unit of the quantity. */
export const between = (lower: number, above: number): LimitRule => ({ basis: "absolute", upper: above, lower });
/** A limit with a least value, in the unit of the quantity. */
export const atLeast = (value: number): LimitRule => ({ basis: "absolute", upper: null, lower: value });

/** A point with a limit by rule of thumb; `reason` says the rule, `conditions` how it is read. */
export const point = (
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
/** Temperature over the tank or the line next to it; `most` in K. */
export const rise = (name: string, most: number, state: ReadingState) =>
  point(
    name,
    "temperatureRise",
    state,
    upper(most),
    `no more than ${most} K`,
    "After 20 min at work, always the same spot",
  );

/** Case drain of a piston machine, limited by its share of full flow. */
export const caseDrain = (f: TemplateFigures) =>
  point(
    "Case drain flow",
    "caseDrainFlow",
    "fullStroke",
    { basis: "shareOfFullFlow", upper: 10, lower: null },
    "10 % of full flow",
    "Oil above 40 °C, full stroke or rated load, case line open to tank",
    { pressure: f.pressure, temperature: 50 },
  );

/** The tank, read at its temperature. */
export const reservoir: TemplateComponent = {
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
/** A part without displacement or speed of its own. */
export const plain = (kind: ComponentKind, name: string, points: TemplatePoint[]): TemplateComponent => ({
  kind,
  name,
  displacement: null,
  speed: null,
  points,
});

/** A pump of fixed displacement: its flow, its pressure, its inlet. */
export const fixedPump = (f: TemplateFigures): TemplateComponent => ({
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
/** A pressure-compensated pump: its case drain, its setting, its inlet. */
export const variablePump = (f: TemplateFigures): TemplateComponent => ({
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
/** A relief valve set to `above` times the working pressure. */
export const relief = (f: TemplateFigures, above = 1.1) =>
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
/** A directional valve, read by its temperature over the line. */
export const valve = (name: string) =>
  plain("directionalValve", name, [rise("Valve temperature over line", 9, "holding")]);
/** A proportional valve, read by its null leakage. */
export const proportional = plain("proportionalValve", "Proportional valve", [
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
/** A cylinder, read by its creep and by what weeps past its rod. */
export const cylinder = (name: string) =>
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
/** A return filter, read by what it takes to pass the oil. */
export const returnFilter = plain("filter", "Return filter", [
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
/** What the charge pump gives, L/min. */
export const chargeFlow = (f: TemplateFigures) => (CHARGE_SHARE * f.displacement * f.speed) / 1000;
/** The pump of a closed loop. */
export const loopPump = (f: TemplateFigures): TemplateComponent => ({
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
/** The pump that feeds a closed loop. */
export const chargePump = (f: TemplateFigures): TemplateComponent => ({
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
/** The relief valves of a closed loop, one point for both sides. */
export const loopSetting = (f: TemplateFigures) =>
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
/** A clutch on reduced pilot pressure. */
export const clutch = (name: string, f: TemplateFigures) =>
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
