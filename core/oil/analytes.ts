/** What a laboratory reports about a sample of oil. Values are kept in core units; counts are cumulative, per mL. */
import type { QuantityId } from "../units/quantities";

export type AnalyteGroup = "count" | "condition" | "wear" | "contaminant" | "additive";

export interface Analyte {
  label: string;
  /** In running text. */
  short: string;
  group: AnalyteGroup;
  quantity: QuantityId;
  /** No laboratory can find more, core unit. */
  greatest: number;
  /** Headings under which laboratories write it, folded: lower case, no unit. */
  heads: readonly string[];
}

const define = <T extends Record<string, Analyte>>(table: T): T => table;

const count = (size: number, ...more: string[]): Analyte => ({
  label: `Over ${size} µm(c)`,
  short: `particles over ${size} µm`,
  group: "count",
  quantity: "count",
  greatest: 1e8,
  heads: [
    `>${size}`,
    `> ${size}`,
    `>${size}µm`,
    `>${size}um`,
    `> ${size}um`,
    `> ${size} µm`,
    `>${size} um`,
    `>${size} µm`,
    `>${size} µm(c)`,
    `over ${size}`,
    `over ${size} µm`,
    `over ${size} um`,
    `particles >${size}`,
    `particles > ${size} µm`,
    `${size} µm`,
    `${size} um`,
    ...more,
  ],
});
const metal = (
  label: string,
  symbol: string,
  group: "wear" | "contaminant" | "additive",
  greatest = 20_000,
): Analyte => ({
  label,
  short: label.toLowerCase(),
  group,
  quantity: "concentration",
  greatest,
  heads: [label.toLowerCase(), symbol.toLowerCase(), `${label.toLowerCase()} ${symbol.toLowerCase()}`],
});

export const analytes = define({
  over4: count(4),
  over6: count(6),
  over14: count(14),
  over21: count(21),
  over38: count(38),
  over70: count(70),
  water: {
    label: "Water",
    short: "water",
    group: "condition",
    quantity: "concentration",
    greatest: 1_000_000,
    heads: [
      "water",
      "water content",
      "h2o",
      "water kf",
      "karl fischer",
      "wasser",
      "wassergehalt",
      "vesi",
      "vatten",
      "eau",
    ],
  },
  waterShare: {
    label: "Share of water saturation",
    short: "share of saturation",
    group: "condition",
    quantity: "share",
    greatest: 100,
    heads: ["water saturation", "saturation", "rh", "relative humidity"],
  },
  kv40: {
    label: "Viscosity at 40 °C",
    short: "viscosity at 40 °C",
    group: "condition",
    quantity: "viscosity",
    greatest: 5000,
    heads: [
      "viscosity at 40",
      "viscosity 40",
      "viscosity 40c",
      "visc 40",
      "visc 40c",
      "visc. 40",
      "visc @ 40c",
      "viskosität 40",
      "viskositeetti 40",
      "viskositet 40",
      "kv40",
      "v40",
      "viscosity at 40 °c",
      "viscosity 40 °c",
    ],
  },
  kv100: {
    label: "Viscosity at 100 °C",
    short: "viscosity at 100 °C",
    group: "condition",
    quantity: "viscosity",
    greatest: 500,
    heads: [
      "viscosity at 100",
      "viscosity 100",
      "viscosity 100c",
      "visc 100",
      "visc 100c",
      "viskosität 100",
      "kv100",
      "v100",
      "viscosity at 100 °c",
      "viscosity 100 °c",
    ],
  },
  acidNumber: {
    label: "Acid number",
    short: "acid number",
    group: "condition",
    quantity: "acidNumber",
    greatest: 50,
    heads: [
      "acid number",
      "acid no",
      "acid no.",
      "acidity",
      "an",
      "tan",
      "neutralisation number",
      "neutralization number",
      "säurezahl",
      "happoluku",
      "syratal",
    ],
  },
  iron: metal("Iron", "Fe", "wear"),
  chromium: metal("Chromium", "Cr", "wear"),
  copper: metal("Copper", "Cu", "wear"),
  tin: metal("Tin", "Sn", "wear"),
  lead: metal("Lead", "Pb", "wear"),
  aluminium: { ...metal("Aluminium", "Al", "wear"), heads: ["aluminium", "aluminum", "al", "aluminium al"] },
  nickel: metal("Nickel", "Ni", "wear"),
  silicon: metal("Silicon", "Si", "contaminant"),
  sodium: metal("Sodium", "Na", "contaminant"),
  zinc: metal("Zinc", "Zn", "additive"),
  phosphorus: metal("Phosphorus", "P", "additive"),
  calcium: metal("Calcium", "Ca", "additive"),
});

export type AnalyteId = keyof typeof analytes;
export const analyteIds = Object.keys(analytes) as AnalyteId[];

/**
 * Is a text the id of an analyte? For what comes from a form or a file.
 * @param text of unknown origin
 * @returns true for an id of the table
 * @example isAnalyte("iron") // true
 * @example isAnalyte("gold") // false
 */
export function isAnalyte(text: string): text is AnalyteId {
  return Object.hasOwn(analytes, text);
}

export const countIds = [
  "over4",
  "over6",
  "over14",
  "over21",
  "over38",
  "over70",
] as const satisfies readonly AnalyteId[];
export type CountId = (typeof countIds)[number];
/** Sizes of the counts, µm(c). */
export const countSizes: Record<CountId, number> = {
  over4: 4,
  over6: 6,
  over14: 14,
  over21: 21,
  over38: 38,
  over70: 70,
};

export const wearMetalIds = analyteIds.filter((id) => analytes[id].group === "wear") as WearMetalId[];
export type WearMetalId = "iron" | "chromium" | "copper" | "tin" | "lead" | "aluminium" | "nickel";
