/** How a laboratory writes its file: which column is what, and what its bare numbers are in. Kept for each laboratory. */
import { boolean, object, string } from "yup";
import { analyteIds, analytes, type AnalyteId } from "@core";
import {
  columnField,
  findColumns,
  fold,
  looksLikeHeadings,
  titleLinesField,
  unitIn,
  type DateOrder,
} from "~/platform/csvCells";
import type { Delimiter } from "~/platform/csvText";

export const placeFields = [
  {
    name: "number",
    label: "Sample number",
    heads: [
      "sample number",
      "sample no",
      "sample no.",
      "sample",
      "number",
      "bottle",
      "bottle number",
      "sample id",
      "report",
      "report no",
      "report no.",
      "report number",
      "lab number",
      "lab no",
      "sample ref",
      "reference",
      "probe",
      "probennummer",
      "näyte",
      "näytenumero",
      "prov",
      "provnummer",
      "échantillon",
    ],
  },
  {
    name: "machine",
    label: "Machine or circuit",
    heads: ["machine", "machine tag", "unit", "equipment", "asset", "circuit", "tag"],
  },
  {
    name: "takenAt",
    label: "Taken on",
    heads: [
      "taken on",
      "taken",
      "sampled",
      "sample date",
      "date sampled",
      "sampling date",
      "date",
      "taken at",
      "probenahme",
      "probedatum",
      "näytteenottopäivä",
      "provdatum",
      "date de prélèvement",
    ],
  },
  { name: "time", label: "Time of day", heads: ["time", "time of day"] },
  {
    name: "hours",
    label: "Machine hours",
    heads: [
      "hours",
      "machine hours",
      "running hours",
      "counter",
      "hours on machine",
      "betriebsstunden",
      "käyttötunnit",
      "drifttimmar",
    ],
  },
  { name: "place", label: "Taken from", heads: ["taken from", "place", "sample point", "sampling point", "point"] },
  { name: "state", label: "Taken how", heads: ["taken how", "state", "condition", "how"] },
  { name: "code", label: "ISO 4406 code", heads: ["iso 4406", "iso code", "code", "iso 4406 code", "cleanliness"] },
  { name: "colour", label: "Colour", heads: ["colour", "color", "appearance"] },
  { name: "takenBy", label: "Taken by", heads: ["taken by", "by", "sampled by"] },
  {
    name: "note",
    label: "Remark",
    heads: [
      "remark",
      "remarks",
      "note",
      "comment",
      "comments",
      "diagnosis",
      "bemerkung",
      "huomautus",
      "anmärkning",
      "remarque",
    ],
  },
] as const;

export type PlaceField = (typeof placeFields)[number]["name"];
export type LabField = PlaceField | AnalyteId;

const fields: { name: LabField; heads: readonly string[] }[] = [
  ...placeFields,
  ...analyteIds.map((name) => ({ name, heads: [fold(analytes[name].label), ...analytes[name].heads] })),
];

export interface LabMapping {
  delimiter: Delimiter;
  decimalMark: "." | ",";
  hasHeader: boolean;
  titleLines: number;
  dateOrder: DateOrder;
  columns: Partial<Record<LabField, number | null>>;
  countsPer: "/mL" | "/100 mL";
  water: "ppm" | "%";
  skipBad: boolean;
}

/** A first guess from the headings. */
export function guessLabColumns(
  head: readonly string[],
): Pick<LabMapping, "columns" | "countsPer" | "water" | "hasHeader"> {
  const { columns, found } = findColumns(head, fields);
  const counts = typeof columns.over4 === "number" ? (head[columns.over4] ?? "") : "";
  const water = typeof columns.water === "number" ? unitIn(head[columns.water] ?? "") : "";
  return {
    columns,
    countsPer: /100\s*ml/i.test(counts) || head.some((h) => /per 100\s*ml/i.test(h)) ? "/100 mL" : "/mL",
    water: water === "%" ? "%" : "ppm",
    hasHeader: looksLikeHeadings(head) && found > 0,
  };
}

/** Does a kept mapping fit this file: do its columns stand under headings that there are? */
export function fits(mapping: LabMapping, head: readonly string[], keptHead: readonly string[]): boolean {
  return head.length === keptHead.length && head.every((h, i) => fold(h) === fold(keptHead[i]!)) && mapping.hasHeader;
}

export const labMappingSchema = object({
  delimiter: string<Delimiter>().oneOf([",", ";", "\t", "|"]).required(),
  decimalMark: string<"." | ",">().oneOf([".", ","]).required(),
  hasHeader: boolean().default(false),
  titleLines: titleLinesField,
  dateOrder: string<DateOrder>().oneOf(["ymd", "dmy", "mdy"]).required(),
  columns: object(Object.fromEntries(fields.map((f) => [f.name, columnField]))),
  countsPer: string<"/mL" | "/100 mL">().oneOf(["/mL", "/100 mL"]).required(),
  water: string<"ppm" | "%">().oneOf(["ppm", "%"]).required(),
  skipBad: boolean().default(false),
});

/** The mapping as a form sends it. */
export function labMappingOf(form: Record<string, string>): unknown {
  return {
    delimiter: form.delimiter === "tab" ? "\t" : form.delimiter,
    decimalMark: form.decimalMark,
    hasHeader: form.hasHeader === "on",
    titleLines: form.titleLines ?? "",
    dateOrder: form.dateOrder,
    countsPer: form.countsPer,
    water: form.water,
    skipBad: form.skipBad === "on",
    columns: Object.fromEntries(fields.map((f) => [f.name, form[`column-${f.name}`] ?? ""])),
  };
}
