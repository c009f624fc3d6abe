/** Cleanliness code by ISO 4406: three scale numbers for particles over 4, 6 and 14 µm(c) per mL. */

/** Upper bounds of scale numbers 0 to 28, particles per mL; a bound belongs to its number. ISO 4406 (memory). */
export const iso4406Bounds = [
  0.01, 0.02, 0.04, 0.08, 0.16, 0.32, 0.64, 1.3, 2.5, 5, 10, 20, 40, 80, 160, 320, 640, 1300, 2500, 5000, 10_000,
  20_000, 40_000, 80_000, 160_000, 320_000, 640_000, 1_300_000, 2_500_000,
] as const;

/** Particles per mL over a size; null: not counted; "many": too many to count. */
export type Count = number | null | "many";

export interface Iso4406 {
  /** Scale numbers; 29 stands for over 28, null for not counted, "*" for too many to count. */
  codes: [Code, Code, Code];
  /** As written: "18/16/13". */
  text: string;
}
export type Code = number | null | "*";

/** Fewest raw particles counted for a code without ≥. */
const FEWEST = 20;

/**
 * ISO 4406 scale number of a count; each number up doubles the count.
 * @param perMl particles per mL over one size, 0 or more
 * @returns 0 to 28; 29 stands for >28
 * @throws {RangeError} for a negative count, or none
 * @example scaleNumber(1000) // 17: above 640, up to 1300
 */
export function scaleNumber(perMl: number): number {
  if (!(perMl >= 0)) throw new RangeError("A particle count cannot be below zero.");
  const index = iso4406Bounds.findIndex((bound) => perMl <= bound);
  return index === -1 ? 29 : index;
}

/**
 * Range of counts that a scale number stands for.
 * @param code whole number, 0 to 29
 * @returns particles per mL: above `over`, up to and including `upTo`
 * @throws {RangeError} for what is no scale number
 * @example countsOfCode(17) // { over: 640, upTo: 1300 }
 */
export function countsOfCode(code: number): { over: number; upTo: number } {
  if (!Number.isInteger(code) || code < 0 || code > 29) throw new RangeError("A scale number lies between 0 and 28.");
  return { over: code === 0 ? 0 : iso4406Bounds[code - 1]!, upTo: iso4406Bounds[code] ?? Infinity };
}

/**
 * ISO 4406 code of counts per mL, cumulative (over each size). `raw`: particles really counted at each size;
 * fewer than 20 make that number carry ≥.
 * @throws {RangeError} for a negative count, or one that rises with size.
 */
export function iso4406(
  { over4, over6, over14 }: { over4: Count; over6: Count; over14: Count },
  { raw }: { raw?: { over4?: number; over6?: number; over14?: number } } = {},
): Iso4406 {
  const counts = [over4, over6, over14] as const;
  const counted = counts.filter((c): c is number => typeof c === "number");
  if (counted.some((c, i) => i > 0 && c > counted[i - 1]!))
    throw new RangeError("Counts over a larger size cannot be more than over a smaller one.");
  const codes = counts.map((c): Code => (c === null ? null : c === "many" ? "*" : scaleNumber(c))) as Iso4406["codes"];
  const raws = [raw?.over4, raw?.over6, raw?.over14];
  const text = codes
    .map(
      (code, i) => (raws[i] !== undefined && raws[i] < FEWEST && typeof code === "number" ? "≥" : "") + codeText(code),
    )
    .join("/");
  return { codes, text };
}

function codeText(code: Code): string {
  return code === null ? "–" : code === 29 ? ">28" : String(code);
}

/**
 * Read a code as written: "18/16/13", an asterisk for a number that could not be counted, "–/16/13".
 * @param text three numbers of 0 to 28, none higher than the one before it
 * @returns the code
 * @throws {RangeError} when it is none.
 * @example parseIso4406("≥18/16/13") // { codes: [18, 16, 13], text: "18/16/13" }
 * @example parseIso4406("13/16/18") // RangeError
 */
export function parseIso4406(text: string): Iso4406 {
  const parts = text
    .trim()
    .split("/")
    .map((p) => p.trim());
  if (parts.length !== 3) throw new RangeError("Write three numbers, for example 18/16/13.");
  const codes = parts.map((p): Code => {
    if (p === "*") return "*";
    if (p === "–" || p === "-") return null;
    if (p === ">28") return 29;
    const code = /^≥?(\d{1,2})$/.exec(p);
    if (!code || Number(code[1]) > 28)
      throw new RangeError(`“${p.slice(0, 12)}” is not a scale number: 0 to 28, >28, * or –.`);
    return Number(code[1]);
  }) as Iso4406["codes"];
  const numbers = codes.filter((c): c is number => typeof c === "number");
  if (numbers.some((c, i) => i > 0 && c > numbers[i - 1]!))
    throw new RangeError("A code over a larger size cannot be higher than over a smaller one.");
  return { codes, text: codes.map(codeText).join("/") };
}
