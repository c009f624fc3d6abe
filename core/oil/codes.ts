/** Codes and classes of a sample by the three standards, with the working. */
import { as4059, nas1638, type CleanlinessClass } from "../contamination/classes";
import { countsOfCode, iso4406, parseIso4406, type Iso4406 } from "../contamination/iso4406";
import type { Working } from "../working";
import { countIds, countSizes, type CountId } from "./analytes";
import type { OilSample, Result } from "./sample";

export interface SampleCodes {
  iso: Iso4406;
  /** From counts, or the code as the laboratory wrote it. */
  from: "counts" | "code";
  nas: CleanlinessClass | null;
  as: CleanlinessClass | null;
  /** The laboratory wrote another code than its counts make. */
  disagrees: string | null;
  working: Working;
}

const PER_100 = 100;
/** The older calibration's band edges (5, 15, 25, 50, 100 µm) are these sizes in µm(c): SAE AS4059 (memory). */
const nasEdges = ["over6", "over14", "over21", "over38", "over70"] as const satisfies readonly CountId[];

const countOf = (result: Result | undefined) =>
  result === undefined ? null : result.above ? ("many" as const) : result.value;

/**
 * The ISO 4406 code of a sample alone, for lists and pictures.
 * @param sample counts per mL, or the code as the laboratory wrote it
 * @returns the code; null when it has neither
 * @throws {RangeError} for counts that rise with size, or a code that is none
 * @example sampleIso({ results: { over4: { value: 1000 }, over6: { value: 300 }, over14: { value: 40 } }, code: null }).text // "17/15/12"
 */
export function sampleIso({ results, code }: Pick<OilSample, "results" | "code">): Iso4406 | null {
  if (countIds.some((id) => results[id]))
    return iso4406({ over4: countOf(results.over4), over6: countOf(results.over6), over14: countOf(results.over14) });
  return code ? parseIso4406(code) : null;
}

/**
 * Codes of a sample by ISO 4406, NAS 1638 and SAE AS4059, with the working. A count reported as "less than" is taken at its bound,
 * so a code is never too good.
 * @param sample counts per mL, or the code as the laboratory wrote it
 * @returns the codes; null when it has neither counts nor a code
 * @throws {RangeError} for counts that rise with size, or a code that is none
 * @example sampleCodes({ results: { over4: { value: 1000 }, over6: { value: 300 }, over14: { value: 40 } }, code: null }).nas.class // "7"
 * @example sampleCodes({ results: {}, code: null }) // null
 */
export function sampleCodes(sample: Pick<OilSample, "results" | "code">): SampleCodes | null {
  const { results } = sample;
  const counted = countIds.filter((id) => results[id]);
  const written = sample.code ? parseIso4406(sample.code) : null;
  if (counted.length === 0) {
    if (!written) return null;
    return {
      iso: written,
      from: "code",
      nas: null,
      as: null,
      disagrees: null,
      working: {
        formula: "code as the laboratory wrote it",
        rows: codeRows(written),
        source: "ISO 4406. Without counts no class by the other standards follows from it.",
      },
    };
  }
  const iso = sampleIso(sample)!;
  const plain = (id: CountId) => {
    const result = results[id];
    return result && !result.above ? result.value * PER_100 : null;
  };
  const bands = nasEdges.map((id, i) => {
    const from = plain(id);
    const next = nasEdges[i + 1];
    if (from === null) return null;
    if (next === undefined) return from;
    const to = plain(next);
    return to === null ? null : Math.max(0, from - to);
  });
  const nas = bands.some((b) => b !== null) ? nas1638(bands) : null;
  const cumulative = countIds.map(plain);
  const as = cumulative.some((c) => c !== null) ? as4059(cumulative) : null;
  const below = counted.filter((id) => results[id]!.below);
  return {
    iso,
    from: "counts",
    nas,
    as,
    disagrees:
      written && written.text !== iso.text
        ? `The laboratory wrote ${written.text}; its counts make ${iso.text}. The counts are used.`
        : null,
    working: {
      formula: "scale number of each count per mL, upper bounds inclusive; classes by the worst size per 100 mL",
      rows: [
        ...counted.map((id) => ({
          label: `counted over ${countSizes[id]} µm(c)${results[id]!.below ? ", less than" : results[id]!.above ? ", more than" : ""}`,
          value: results[id]!.value,
          quantity: "count" as const,
        })),
        ...codeRows(iso),
        ...bands.flatMap((b, i) =>
          b === null
            ? []
            : [
                {
                  label: `NAS 1638 band ${["5 to 15", "15 to 25", "25 to 50", "50 to 100", "over 100"][i]} µm, per 100 mL: class ${nas!.classes[i]}`,
                  value: b,
                },
              ],
        ),
        ...(as
          ? countIds.flatMap((id, i) =>
              cumulative[i] === null
                ? []
                : [
                    {
                      label: `AS4059 over ${countSizes[id]} µm(c), per 100 mL: class ${as.classes[i]}`,
                      value: cumulative[i]!,
                    },
                  ],
            )
          : []),
      ],
      source: "ISO 4406, NAS 1638, SAE AS4059 (tables from memory; compare with the standard before a dispute).",
      ...(below.length > 0 && {
        note: "A count reported as less than a bound is taken at the bound: the true code may be better.",
      }),
    },
  };
}

function codeRows(iso: Iso4406) {
  return iso.codes.flatMap((code, i) =>
    typeof code === "number" && code <= 28
      ? [
          {
            label: `ISO 4406 number ${code} over ${[4, 6, 14][i]} µm(c) ends at`,
            value: countsOfCode(code).upTo,
            quantity: "count" as const,
          },
        ]
      : [],
  );
}

/**
 * Count over a size: as counted, else the middle (geometric) of what its code stands for.
 * @param sample counts per mL, or the code as the laboratory wrote it
 * @param id the size: over 4, 6 or 14 µm(c)
 * @returns per mL; null: neither, or too many to count
 * @throws {RangeError} for a code that is none
 * @example countFor({ results: { over6: { value: 300 } }, code: null }, "over6") // 300
 * @example countFor({ results: {}, code: "17/15/12" }, "over4") // 919.2
 */
export function countFor(sample: Pick<OilSample, "results" | "code">, id: "over4" | "over6" | "over14"): number | null {
  const result = sample.results[id];
  if (result) return result.value;
  if (countIds.some((c) => sample.results[c]) || !sample.code) return null;
  const code = parseIso4406(sample.code).codes[["over4", "over6", "over14"].indexOf(id)];
  if (typeof code !== "number" || code > 28) return null;
  const { over, upTo } = countsOfCode(code);
  return Math.sqrt(Math.max(over, upTo / 2) * upTo);
}
