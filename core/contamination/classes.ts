/** Classes by NAS 1638 (particles in size bands) and SAE AS4059 (cumulative), per 100 mL. Full tables, row by row (memory). */

interface ClassTable {
  sizes: readonly string[];
  rows: readonly (readonly [name: string, ...limits: number[]])[];
}

/** NAS 1638: most particles per 100 mL in each band, µm of the older calibration. */
export const nas1638Table: ClassTable = {
  sizes: ["5-15", "15-25", "25-50", "50-100", "> 100"],
  rows: [
    ["00", 125, 22, 4, 1, 0],
    ["0", 250, 44, 8, 2, 0],
    ["1", 500, 89, 16, 3, 1],
    ["2", 1000, 178, 32, 6, 1],
    ["3", 2000, 356, 63, 11, 2],
    ["4", 4000, 712, 126, 22, 4],
    ["5", 8000, 1425, 253, 45, 8],
    ["6", 16_000, 2850, 506, 90, 16],
    ["7", 32_000, 5700, 1012, 180, 32],
    ["8", 64_000, 11_400, 2025, 360, 64],
    ["9", 128_000, 22_800, 4050, 720, 128],
    ["10", 256_000, 45_600, 8100, 1440, 256],
    ["11", 512_000, 91_200, 16_200, 2880, 512],
    ["12", 1_024_000, 182_400, 32_400, 5760, 1024],
  ],
};

/** SAE AS4059, cumulative: most particles per 100 mL over each size, µm(c). */
export const as4059Table: ClassTable = {
  sizes: ["> 4", "> 6", "> 14", "> 21", "> 38", "> 70"],
  rows: [
    ["000", 195, 76, 14, 3, 1, 0],
    ["00", 390, 152, 27, 5, 1, 0],
    ["0", 780, 304, 54, 10, 2, 0],
    ["1", 1560, 609, 109, 20, 4, 1],
    ["2", 3120, 1217, 217, 39, 7, 1],
    ["3", 6250, 2432, 432, 76, 13, 2],
    ["4", 12_500, 4864, 864, 152, 26, 4],
    ["5", 25_000, 9731, 1731, 306, 53, 8],
    ["6", 50_000, 19_462, 3462, 612, 106, 16],
    ["7", 100_000, 38_924, 6924, 1224, 212, 32],
    ["8", 200_000, 77_849, 13_849, 2449, 424, 64],
    ["9", 400_000, 155_698, 27_698, 4898, 848, 128],
    ["10", 800_000, 311_396, 55_396, 9796, 1696, 256],
    ["11", 1_600_000, 622_792, 110_792, 19_592, 3392, 512],
    ["12", 3_200_000, 1_245_584, 221_584, 39_184, 6784, 1024],
  ],
};

export interface CleanlinessClass {
  /** Class of each size; null: not counted; "> 12": worse than the last row. */
  classes: (string | null)[];
  /** Class of the sample: that of its worst size. */
  class: string;
  /** The size that decides, as written in the table. */
  decides: string;
  /** As said: "NAS 1638 class 8", "class 00 or better", "worse than class 12". */
  text: string;
}

type Counted = number | null | undefined;
/** Counts in the order of the table's sizes, or by name. */
export type NasCounts =
  readonly Counted[] | { from5?: Counted; from15?: Counted; from25?: Counted; from50?: Counted; over100?: Counted };
export type As4059Counts =
  | readonly Counted[]
  | { over4?: Counted; over6?: Counted; over14?: Counted; over21?: Counted; over38?: Counted; over70?: Counted };

function classOf(counts: readonly Counted[], table: ClassTable, standard: string): CleanlinessClass {
  if (counts.length > table.sizes.length) throw new RangeError(`${standard} has ${table.sizes.length} sizes.`);
  const indices = table.sizes.map((_, size) => {
    const count = counts[size];
    if (count === null || count === undefined) return null;
    if (!(count >= 0)) throw new RangeError("A particle count cannot be below zero.");
    const row = table.rows.findIndex((r) => count <= (r[size + 1] as number));
    return row === -1 ? table.rows.length : row;
  });
  const known = indices.filter((i): i is number => i !== null);
  if (known.length === 0) throw new RangeError("At least one size must be counted.");
  const worst = Math.max(...known);
  const last = table.rows[table.rows.length - 1]![0];
  const name = (i: number) => table.rows[i]?.[0] ?? `> ${last}`;
  return {
    classes: indices.map((i) => (i === null ? null : name(i))),
    class: name(worst),
    decides: table.sizes[indices.indexOf(worst)]!,
    text:
      worst === 0
        ? `${standard} class ${name(0)} or better`
        : worst === table.rows.length
          ? `${standard} worse than class ${last}`
          : `${standard} class ${name(worst)}`,
  };
}

/**
 * NAS 1638 class of counts per 100 mL in the bands 5-15, 15-25, 25-50, 50-100 and over 100 µm, in that order;
 * null where a band was not counted.
 * @throws {RangeError} for negative counts or none.
 */
export function nas1638(counts: NasCounts): CleanlinessClass {
  const listed =
    "length" in counts ? counts : [counts.from5, counts.from15, counts.from25, counts.from50, counts.over100];
  return classOf(listed, nas1638Table, "NAS 1638");
}

/**
 * SAE AS4059 class of cumulative counts per 100 mL over 4, 6, 14, 21, 38 and 70 µm(c), in that order; null
 * where a size was not counted.
 * @throws {RangeError} for negative counts, counts that rise with size, or none.
 */
export function as4059(counts: As4059Counts): CleanlinessClass {
  const listed =
    "length" in counts
      ? counts
      : [counts.over4, counts.over6, counts.over14, counts.over21, counts.over38, counts.over70];
  const known = listed.filter((c): c is number => typeof c === "number");
  if (known.some((c, i) => i > 0 && c > known[i - 1]!))
    throw new RangeError("Counts over a larger size cannot be more than over a smaller one.");
  return classOf(listed, as4059Table, "SAE AS4059");
}
