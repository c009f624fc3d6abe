/** Figures of an oil as a person writes them, one a line: "iron: 40 ppm", "acid number: 0.45". */
import { analytes, findUnit, parseQuantity, quantityOf, type AnalyteId } from "@core";
import { mixed } from "yup";

export type AnalyteFigures = Partial<Record<AnalyteId, number>>;

/** Core values by name, or what is wrong with the first bad line. */
export function parseAnalyteLines(text: string, allowed: readonly AnalyteId[]): AnalyteFigures | string {
  const figures: AnalyteFigures = {};
  for (const line of text
    .split(/[;\n]/)
    .map((l) => l.trim())
    .filter(Boolean)) {
    const [name = "", amount = ""] = line.split(":").map((p) => p.trim());
    const id = allowed.find((a) => analytes[a].heads.includes(name.toLowerCase()));
    if (!id)
      return (
        `“${name.slice(0, 30)}” is not one of ${allowed.map((a) => analytes[a].short).join(", ")}. Write one a ` +
        `line, as “${analytes[allowed[0]!].short}: 25”.`
      );
    if (figures[id] !== undefined) return `${analytes[id].label} stands twice.`;
    const parsed = parseQuantity(amount, analytes[id].quantity);
    if (!parsed.ok) return `${analytes[id].label}: ${parsed.message}`;
    if (parsed.parsed.value < 0 || parsed.parsed.value > analytes[id].greatest)
      return `${analytes[id].label}: between 0 and ${analytes[id].greatest}.`;
    figures[id] = parsed.parsed.value;
  }
  return figures;
}

/** Figures as lines, to be edited. */
export function analyteLines(figures: AnalyteFigures): string {
  return (Object.entries(figures) as [AnalyteId, number][])
    .map(
      ([id, value]) =>
        `${analytes[id].short}: ${Number(value.toPrecision(6))} ` +
        `${findUnit(quantityOf(analytes[id].quantity).unit, quantityOf(analytes[id].quantity).dimension)!.symbol}`,
    )
    .join("\n");
}

/** Such lines in a form. */
export function analyteField(allowed: readonly AnalyteId[]) {
  return mixed<AnalyteFigures>()
    .transform((_value, original: unknown) =>
      parseAnalyteLines(typeof original === "string" ? original.slice(0, 1000) : "", allowed),
    )
    .test("figures", (value, context) => (typeof value === "string" ? context.createError({ message: value }) : true))
    .default({});
}
