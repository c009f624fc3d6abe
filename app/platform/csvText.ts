/** Reading a CSV file as it comes: byte order marks, encodings, separators, decimal commas. */

export type Delimiter = "," | ";" | "\t" | "|";
export const delimiters: { value: Delimiter; label: string }[] = [
  { value: ",", label: "comma" },
  { value: ";", label: "semicolon" },
  { value: "\t", label: "tab" },
  { value: "|", label: "bar" },
];

/** Bytes to text: UTF-8 with or without a mark, UTF-16 as a spreadsheet's “Unicode text”, else Windows Latin. */
export function decode(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder("utf-16le").decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder("utf-16be").decode(bytes);
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

/** The separator that splits most of the first lines into the same number of cells; a title above them does not count against it. */
export function guessDelimiter(text: string): Delimiter {
  const lines = text.slice(0, 20_000).split(/\r?\n/).filter(Boolean).slice(0, 12);
  let best: { value: Delimiter; score: number } = { value: ",", score: 0 };
  for (const { value } of delimiters) {
    const counts = lines.map((line) => line.replace(/"[^"]*"/g, "").split(value).length - 1);
    const often = new Map<number, number>();
    for (const c of counts) if (c > 0) often.set(c, (often.get(c) ?? 0) + 1);
    const [cells, times] = [...often].sort((p, q) => q[1] - p[1] || q[0] - p[0])[0] ?? [0, 0];
    const score =
      Math.min(cells, 4) * (times / Math.max(1, counts.length)) ** 2 + (value === ";" && cells > 0 ? 0.1 : 0);
    if (score > best.score) best = { value, score };
  }
  return best.value;
}

/** Files that separate by semicolon or tab usually write decimals with a comma when a number has one. */
export function guessDecimalMark(text: string, delimiter: Delimiter): "." | "," {
  if (delimiter === ",") return ".";
  const cells = text
    .slice(0, 20_000)
    .split(/\r?\n/)
    .flatMap((line) => line.split(delimiter))
    .map((c) => c.replace(/"/g, "").trim());
  const commas = cells.filter((c) => /^[+-]?\d+,\d+\b/.test(c)).length;
  const points = cells.filter((c) => /^[+-]?\d+\.\d+(?![.\d])/.test(c)).length;
  return commas > points ? "," : ".";
}
