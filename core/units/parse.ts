/** Typed entry: a number with or without a unit, in the ways people write them. */
import { decimalsFor, formatNumber } from "./format";
import { dimensionsWith, findUnit, fromCore, toCore } from "./units";
import { quantityOf, type QuantityId } from "./quantities";

export interface ParsedQuantity {
  /** Value in the core unit. */
  value: number;
  /** Number as entered. */
  entered: number;
  /** Symbol of the unit as entered, or the one assumed. */
  unit: string;
  /** Was a unit written, or assumed? */
  stated: boolean;
}

export type ParseResult = { ok: true; parsed: ParsedQuantity } | { ok: false; message: string };

const shape = /^([+\-−]?)\s*(\d[\d\s\u00a0\u202f'.,]*|[.,]\d+)(?:e([+-]?\d+))?\s*(.*)$/i;

/**
 * Read a number as people write it: "3.4", "3,4", "18 412", "1,234.5", "1.234,5".
 * A lone comma or point followed by exactly three digits after a non-zero group is read as a decimal
 * mark only when `decimalComma` says so; a lone comma is a decimal mark otherwise, since a reading
 * entered as "18,412" is more often 18.412 in a plant that writes commas than a thousand.
 * Returns NaN when the text is no number.
 */
export function parseNumber(text: string, { decimalMark }: { decimalMark?: "." | "," } = {}): number {
  const match = shape.exec(text.trim());
  if (!match || match[4]) return Number.NaN;
  return numberFrom(match[1]!, match[2]!, match[3], decimalMark);
}

function numberFrom(sign: string, digits: string, exponent: string | undefined, decimalMark?: "." | ","): number {
  const bare = digits.replace(/[\s\u00a0\u202f']/g, "");
  const lastComma = bare.lastIndexOf(",");
  const lastPoint = bare.lastIndexOf(".");
  const mark = decimalMark ?? (lastComma > lastPoint ? "," : ".");
  const other = mark === "," ? "." : ",";
  const marks = bare.split(mark).length - 1;
  if (marks > 1) {
    // 1,234,567: the mark groups thousands
    if (decimalMark || !new RegExp(`^\\d{1,3}(\\${mark}\\d{3})+$`).test(bare)) return Number.NaN;
    return Number(`${sign ? "-" : ""}${bare.split(mark).join("")}`);
  }
  const [whole = "", fraction] = bare.split(mark);
  if (fraction?.includes(other)) return Number.NaN;
  if (whole.includes(other) && !new RegExp(`^\\d{1,3}(\\${other}\\d{3})+$`).test(whole)) return Number.NaN;
  const plain = `${whole.split(other).join("") || "0"}.${fraction || "0"}${exponent ? `e${exponent}` : ""}`;
  const value = Number(plain);
  return sign === "-" || sign === "−" ? -value : value;
}

const dimensionNames: Record<string, string> = {
  pressure: "a pressure", flow: "a flow", temperature: "a temperature", temperatureDifference: "a temperature difference", length: "a length", speed: "a speed",
  volume: "a volume", time: "a time", duration: "a time", torque: "a torque", force: "a force", viscosity: "a viscosity",
};

/**
 * Parse a typed value with an optional unit for a quantity. Without a unit, `assume` (or the core
 * unit) applies. The message says what is wrong in the reader's words.
 */
export function parseQuantity(text: string, quantityId: QuantityId, options: { assume?: string; decimalMark?: "." | "," } = {}): ParseResult {
  const quantity = quantityOf(quantityId);
  const name = quantity.label;
  const trimmed = text.trim();
  if (trimmed === "") return { ok: false, message: `Enter a value for ${name.toLowerCase()}.` };
  const match = shape.exec(trimmed);
  if (!match) return { ok: false, message: `“${clip(trimmed)}” is not a number. Write for example 3.4 or 3.4 ${quantity.unit}.` };
  const entered = numberFrom(match[1]!, match[2]!, match[3], options.decimalMark);
  if (!Number.isFinite(entered)) return { ok: false, message: `“${clip(trimmed)}” is not a number. Write for example 3.4 or 3.4 ${quantity.unit}.` };
  const written = match[4]!.trim();
  const unitText = written || (options.assume ?? quantity.unit);
  const unit = findUnit(unitText, quantity.dimension);
  if (!unit) {
    const meant = dimensionsWith(unitText)[0];
    const said = meant ? ` is ${dimensionNames[meant] ?? "another quantity"}; ${quantity.unit} is wanted here` : " is not a unit known here";
    return { ok: false, message: `“${clip(unitText)}”${said}. Use ${quantity.unit} or leave the unit out.` };
  }
  const value = toCore(entered, unit);
  if (value < quantity.least || value > quantity.greatest) {
    const usual = findUnit(quantity.unit, quantity.dimension)!;
    const bound = (core: number) => formatNumber(fromCore(core, usual), decimalsFor(fromCore(core, usual)));
    return { ok: false, message: `${clip(trimmed)} cannot be: ${name.toLowerCase()} lies between ${bound(quantity.least)} and ${bound(quantity.greatest)} ${quantity.unit}.` };
  }
  return { ok: true, parsed: { value, entered, unit: unit.symbol, stated: written !== "" } };
}

function clip(text: string): string {
  return text.length > 40 ? `${text.slice(0, 37)}…` : text;
}
