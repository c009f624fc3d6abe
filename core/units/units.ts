/**
 * Unit factors, each written once. Core units are the ones with factor 1 and no offset.
 * Exact by definition: 1 lbf = 4.4482216152605 N, 1 in = 25.4 mm, 1 US gal = 3.785411784 L
 * (NIST Special Publication 811). 1 inHg at 0 °C = 3386.389 Pa is rounded there.
 */
export type DimensionId =
  | "pressure"
  | "flow"
  | "temperature"
  | "temperatureDifference"
  | "length"
  | "displacement"
  | "speed"
  | "volume"
  | "viscosity"
  | "density"
  | "power"
  | "force"
  | "torque"
  | "vacuum"
  | "time"
  | "duration"
  | "count"
  | "ratio"
  | "voltage"
  | "drops"
  | "dynamicViscosity"
  | "area"
  | "pressureRate"
  | "temperatureRate"
  | "creepSpeed"
  | "concentration"
  | "ingress"
  | "acidNumber";

export interface Unit {
  /** Symbol as shown. */
  symbol: string;
  dimension: DimensionId;
  /** core value = (value + offset) · factor */
  factor: number;
  offset?: number;
  /** Other spellings accepted when typed; matched without regard to case and spaces. */
  aliases?: readonly string[];
}

const LBF_N = 4.4482216152605;
const INCH_M = 0.0254;
const US_GALLON_L = 3.785411784;
const PSI_BAR = LBF_N / INCH_M ** 2 / 1e5;
const INHG_HPA = 33.86389;

export const units: readonly Unit[] = [
  { symbol: "bar", dimension: "pressure", factor: 1, aliases: ["barg", "bars"] },
  { symbol: "psi", dimension: "pressure", factor: PSI_BAR, aliases: ["psig", "lb/in2", "lbf/in2"] },
  { symbol: "MPa", dimension: "pressure", factor: 10 },
  { symbol: "kPa", dimension: "pressure", factor: 0.01 },
  { symbol: "mbar", dimension: "pressure", factor: 0.001 },

  { symbol: "L/min", dimension: "flow", factor: 1, aliases: ["l/m", "lpm", "ltr/min", "liter/min", "litre/min"] },
  { symbol: "mL/min", dimension: "flow", factor: 0.001, aliases: ["cc/min", "cm3/min", "cm³/min"] },
  { symbol: "gal/min", dimension: "flow", factor: US_GALLON_L, aliases: ["gpm", "usgpm", "us gal/min"] },
  { symbol: "m³/h", dimension: "flow", factor: 1000 / 60, aliases: ["m3/h"] },

  { symbol: "°C", dimension: "temperature", factor: 1, aliases: ["c", "degc", "celsius"] },
  { symbol: "°F", dimension: "temperature", factor: 5 / 9, offset: -32, aliases: ["f", "degf", "fahrenheit"] },
  { symbol: "K", dimension: "temperature", factor: 1, offset: -273.15, aliases: ["kelvin"] },

  { symbol: "K", dimension: "temperatureDifference", factor: 1, aliases: ["°c", "c", "degc", "kelvin"] },
  { symbol: "°F", dimension: "temperatureDifference", factor: 5 / 9, aliases: ["f", "degf"] },

  { symbol: "µm", dimension: "length", factor: 1, aliases: ["um", "μm", "micron", "microns"] },
  { symbol: "mm", dimension: "length", factor: 1000 },
  { symbol: "in", dimension: "length", factor: 25_400, aliases: ["inch", '"'] },
  { symbol: "thou", dimension: "length", factor: 25.4, aliases: ["mil", "mils"] },

  { symbol: "cm³/rev", dimension: "displacement", factor: 1, aliases: ["cm3/rev", "cc/rev", "cc", "cm³", "cm3"] },
  { symbol: "in³/rev", dimension: "displacement", factor: 16.387064, aliases: ["in3/rev", "cir", "in³", "in3"] },

  { symbol: "r/min", dimension: "speed", factor: 1, aliases: ["rpm", "1/min", "min-1"] },

  { symbol: "L", dimension: "volume", factor: 1, aliases: ["litre", "liter", "ltr"] },
  { symbol: "mL", dimension: "volume", factor: 0.001, aliases: ["cc", "cm³", "cm3"] },
  { symbol: "gal", dimension: "volume", factor: US_GALLON_L, aliases: ["us gal", "gallon", "gallons"] },

  { symbol: "mm²/s", dimension: "viscosity", factor: 1, aliases: ["cst", "mm2/s"] },
  { symbol: "kg/m³", dimension: "density", factor: 1, aliases: ["kg/m3"] },
  { symbol: "kW", dimension: "power", factor: 1 },
  { symbol: "hp", dimension: "power", factor: (550 * LBF_N * 0.3048) / 1000 },
  { symbol: "N", dimension: "force", factor: 1 },
  { symbol: "kN", dimension: "force", factor: 1000 },
  { symbol: "lbf", dimension: "force", factor: LBF_N, aliases: ["lb"] },
  { symbol: "N·m", dimension: "torque", factor: 1, aliases: ["nm", "n.m", "n m"] },
  {
    symbol: "lbf·ft",
    dimension: "torque",
    factor: LBF_N * 0.3048,
    aliases: ["lbf ft", "lbft", "ft lb", "ft-lb", "lb-ft"],
  },
  { symbol: "hPa", dimension: "vacuum", factor: 1, aliases: ["mbar"] },
  { symbol: "inHg", dimension: "vacuum", factor: INHG_HPA, aliases: ["in hg", '"hg'] },

  { symbol: "h", dimension: "time", factor: 1, aliases: ["hr", "hrs", "hour", "hours"] },
  { symbol: "min", dimension: "time", factor: 1 / 60 },
  { symbol: "s", dimension: "duration", factor: 1, aliases: ["sec", "second", "seconds"] },
  { symbol: "ms", dimension: "duration", factor: 0.001 },
  { symbol: "min", dimension: "duration", factor: 60 },

  { symbol: "/mL", dimension: "count", factor: 1, aliases: ["per ml", "1/ml"] },
  { symbol: "/100 mL", dimension: "count", factor: 0.01, aliases: ["per 100 ml"] },
  { symbol: "%", dimension: "ratio", factor: 1, aliases: ["percent", "pct"] },
  { symbol: "mPa·s", dimension: "dynamicViscosity", factor: 1, aliases: ["mpas", "mpa s", "cp"] },
  { symbol: "mm²", dimension: "area", factor: 1, aliases: ["mm2"] },
  { symbol: "cm²", dimension: "area", factor: 100, aliases: ["cm2"] },
  { symbol: "in²", dimension: "area", factor: 645.16, aliases: ["in2", "sq in"] },
  { symbol: "bar/min", dimension: "pressureRate", factor: 1 },
  { symbol: "psi/min", dimension: "pressureRate", factor: PSI_BAR },
  { symbol: "K/min", dimension: "temperatureRate", factor: 1, aliases: ["°c/min", "c/min"] },
  { symbol: "°F/min", dimension: "temperatureRate", factor: 5 / 9, aliases: ["f/min"] },
  { symbol: "mm/min", dimension: "creepSpeed", factor: 1 },
  { symbol: "in/min", dimension: "creepSpeed", factor: 25.4 },
  { symbol: "ppm", dimension: "concentration", factor: 1, aliases: ["mg/kg"] },
  { symbol: "%", dimension: "concentration", factor: 10_000, aliases: ["percent"] },
  { symbol: "mg KOH/g", dimension: "acidNumber", factor: 1, aliases: ["mgkoh/g", "mg koh/g", "mgkoh per g"] },
  { symbol: "L/(mL·min)", dimension: "ingress", factor: 1, aliases: ["l/ml/min"] },

  { symbol: "V", dimension: "voltage", factor: 1, aliases: ["volt", "volts"] },
  { symbol: "drops/min", dimension: "drops", factor: 1, aliases: ["drop/min", "drops"] },
];

const fold = (text: string) => text.toLowerCase().replace(/\s+/g, "").replace(/μ/g, "µ");

const byDimension = new Map<DimensionId, Map<string, Unit>>();
for (const unit of units) {
  const table = byDimension.get(unit.dimension) ?? new Map<string, Unit>();
  byDimension.set(unit.dimension, table);
  for (const name of [unit.symbol, ...(unit.aliases ?? [])]) if (!table.has(fold(name))) table.set(fold(name), unit);
}

/**
 * The unit of a dimension by its symbol or another spelling.
 * @param text as written: case and blanks do not matter
 * @param dimension to which it must belong: "bar" is none of temperature
 * @returns the unit; undefined where the dimension has none of that name
 * @example findUnit("lpm", "flow").symbol // "L/min"
 * @example findUnit("bar", "flow") // undefined
 */
export function findUnit(text: string, dimension: DimensionId): Unit | undefined {
  return byDimension.get(dimension)?.get(fold(text));
}

/**
 * All units of a dimension, for choosing one.
 * @param dimension of the quantity
 * @returns the core unit first
 * @example unitsOf("vacuum").map((unit) => unit.symbol) // ["hPa", "inHg"]
 */
export function unitsOf(dimension: DimensionId): Unit[] {
  return units.filter((unit) => unit.dimension === dimension);
}

/** Any dimension that knows the spelling: to say "that is a temperature" instead of "unknown unit". */
export function dimensionsWith(text: string): DimensionId[] {
  return [...byDimension].filter(([, table]) => table.has(fold(text))).map(([dimension]) => dimension);
}

/**
 * Bring a value to the core unit of its dimension.
 * @param value in `unit`
 * @param unit of the value
 * @returns the same in the core unit
 * @example toCore(212, findUnit("°F", "temperature")) // 100
 */
export function toCore(value: number, unit: Unit): number {
  return (value + (unit.offset ?? 0)) * unit.factor;
}

/**
 * Bring a core value to another unit.
 * @param value in the core unit of its dimension
 * @param unit wanted, of the same dimension
 * @returns the same in `unit`
 * @example fromCore(100, findUnit("°F", "temperature")) // 212
 */
export function fromCore(value: number, unit: Unit): number {
  return value / unit.factor - (unit.offset ?? 0);
}

/**
 * Convert a value between two units of the same dimension, given as symbols or other spellings.
 * @param value in `fromUnit`, finite
 * @param fromUnit of the value
 * @param toUnit wanted
 * @returns the same in `toUnit`
 * @throws {RangeError} when no dimension has both units or the value is not finite.
 * @example convert(3000, "psi", "bar") // 206.8
 * @example convert(1, "psi", "°C") // RangeError
 */
export function convert(value: number, fromUnit: string, toUnit: string): number {
  if (!Number.isFinite(value)) throw new RangeError(`Not a number: ${value}.`);
  for (const table of byDimension.values()) {
    const from = table.get(fold(fromUnit));
    const to = table.get(fold(toUnit));
    if (from && to) return fromCore(toCore(value, from), to);
  }
  throw new RangeError(`No conversion from ${fromUnit} to ${toUnit}.`);
}
