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

/** No number with its unit is longer than this; a longer text is not looked at. */
const LONGEST = 60;
/** Digits with their marks and separators, then an exponent, then the rest. Each character can belong to one part only. */
const shape = /^([+\-−]?)[ \t]*((?:[\d.,'\u00a0\u202f]|[ \t](?=\d))+)(?:e([+-]?\d{1,3}))?([^\r\n]*)$/i;

export interface NumberOptions {
  /** The decimal mark, where it is known; the other one then groups thousands. */
  decimalMark?: "." | ",";
}

/**
 * Read a number as people write it: "3.4", "3,4", "18 412", "1,234.5", "1.234,5", "1,234,567".
 * @param text as typed
 * @param options how to read it
 * @param options.decimalMark what a lone mark means. Left out: a lone comma is a decimal mark, but for "3,000", which
 *   some read as three thousand and others as three: that is no number until the mark is known.
 * @returns NaN when the text is no number, or cannot be read in one way only
 * @example parseNumber("1,234.5") // 1234.5
 * @example parseNumber("3,000") // NaN
 * @example parseNumber("3,000", { decimalMark: "." }) // 3000
 */
export function parseNumber(text: string, { decimalMark }: NumberOptions = {}): number {
  const trimmed = text.trim();
  const match = trimmed.length <= LONGEST ? shape.exec(trimmed) : null;
  if (!match || match[4]!.trim()) return Number.NaN;
  return numberFrom(match[1]!, match[2]!, match[3], decimalMark);
}

/** Could be three thousand, could be three. */
const ambiguous = /^[1-9]\d{0,2},\d{3}$/;
const grouped = (mark: string) => new RegExp(`^\\d{1,3}(\\${mark}\\d{3})+$`);

function numberFrom(sign: string, digits: string, exponent: string | undefined, decimalMark?: "." | ","): number {
  const spaced = digits.replace(/[\u00a0\u202f'\t]/g, " ").trim();
  // spaces group thousands, and nothing else
  if (spaced.includes(" ") && !/^\d{1,3}( \d{3})+([.,]\d*)?$/.test(spaced)) return Number.NaN;
  const bare = spaced.replaceAll(" ", "");
  if (!decimalMark && ambiguous.test(bare)) return Number.NaN;
  const mark = decimalMark ?? (bare.lastIndexOf(",") > bare.lastIndexOf(".") ? "," : ".");
  const other = mark === "," ? "." : ",";
  const parts = bare.split(mark);
  let plain: string;
  if (parts.length > 2) {
    // 1,234,567: the mark groups thousands
    if (decimalMark || !grouped(mark).test(bare)) return Number.NaN;
    plain = parts.join("");
  } else {
    const [whole = "", fraction = ""] = parts;
    if (fraction.includes(other) || (whole.includes(other) && !grouped(other).test(whole))) return Number.NaN;
    if (whole === "" && fraction === "") return Number.NaN;
    plain = `${whole.split(other).join("") || "0"}.${fraction || "0"}`;
  }
  const value = Number(`${plain}${exponent ? `e${exponent}` : ""}`);
  return sign === "-" || sign === "−" ? -value : value;
}

const dimensionNames: Record<string, string> = {
  pressure: "a pressure",
  flow: "a flow",
  temperature: "a temperature",
  temperatureDifference: "a temperature difference",
  length: "a length",
  speed: "a speed",
  volume: "a volume",
  time: "a time",
  duration: "a time",
  torque: "a torque",
  force: "a force",
  viscosity: "a viscosity",
};

/**
 * Read a typed value, with or without its unit, as a quantity.
 * @param given as typed: "3.4", "3,4 gal/min", "210bar"
 * @param quantityId what it is to be; its believable range is checked
 * @param options how to read it
 * @param options.assume unit of a bare number; left out: the quantity's usual one
 * @param options.decimalMark what a lone mark means, as in `parseNumber`
 * @returns the value in the core unit with what was written, or what is wrong in the reader's words
 * @example parseQuantity("0.9 gal/min", "caseDrainFlow").parsed // { value: 3.407, entered: 0.9, unit: "gal/min", stated: true }
 * @example parseQuantity("3000", "loadPressure")
 * // { ok: false, message: "3000 is outside the possible range for load, 0 to 1000 bar." }
 * @example parseQuantity("3,000", "runningHours") // { ok: false, message: "“3,000” can be read in two ways. Write 3000 or 3.000." }
 */
export function parseQuantity(
  given: string,
  quantityId: QuantityId,
  options: { assume?: string } & NumberOptions = {},
): ParseResult {
  const quantity = quantityOf(quantityId);
  const name = quantity.label;
  const trimmed = given.trim();
  if (trimmed === "") return { ok: false, message: `Enter a value for ${name.toLowerCase()}.` };
  const match = trimmed.length <= LONGEST ? shape.exec(trimmed) : null;
  const notANumber = {
    ok: false as const,
    message: `“${clip(trimmed)}” is not a number. Write for example 3.4 or 3.4 ${quantity.unit}.`,
  };
  if (!match) return notANumber;
  if (!options.decimalMark && ambiguous.test(match[2]!.trim())) {
    const [whole, thousandths] = match[2]!.trim().split(",");
    return {
      ok: false,
      message: `“${clip(trimmed)}” can be read in two ways. Write ${whole}${thousandths} or ${whole}.${thousandths}.`,
    };
  }
  const entered = numberFrom(match[1]!, match[2]!, match[3], options.decimalMark);
  if (!Number.isFinite(entered)) return notANumber;
  const written = match[4]!.trim();
  const unitText = written || (options.assume ?? quantity.unit);
  const unit = findUnit(unitText, quantity.dimension);
  if (!unit) {
    const meant = dimensionsWith(unitText)[0];
    const said = meant
      ? ` is ${dimensionNames[meant] ?? "another quantity"}; ${quantity.unit} is wanted here`
      : " is not a unit known here";
    return { ok: false, message: `“${clip(unitText)}”${said}. Use ${quantity.unit} or leave the unit out.` };
  }
  const value = toCore(entered, unit);
  if (value < quantity.least || value > quantity.greatest) {
    const usual = findUnit(quantity.unit, quantity.dimension)!;
    const bound = (core: number) => formatNumber(fromCore(core, usual), decimalsFor(fromCore(core, usual)));
    return {
      ok: false,
      message:
        `${clip(trimmed)} is outside the possible range for ${name.toLowerCase()}, ${bound(quantity.least)} ` +
        `to ${bound(quantity.greatest)} ${quantity.unit}.`,
    };
  }
  return { ok: true, parsed: { value, entered, unit: unit.symbol, stated: written !== "" } };
}

function clip(text: string): string {
  return text.length > 40 ? `${text.slice(0, 37)}…` : text;
}
