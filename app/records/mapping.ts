/** Which column of a file is what, in any order and under any heading. */
import { boolean, number, object, string } from "yup";
import type { Delimiter } from "./csvText";

export const importFields = [
  { name: "point", label: "Point", hint: "Code, name or id of the point", heads: ["point", "point code", "code", "measuring point", "point name", "messpunkt"] },
  { name: "machine", label: "Machine", hint: "Only when the point column holds the bare name", heads: ["machine", "machine tag"] },
  { name: "component", label: "Component", hint: "Only with a machine column", heads: ["component"] },
  { name: "takenAt", label: "Taken at", hint: "Date, with or without time", heads: ["taken at", "taken_at", "taken", "date", "datetime", "date time", "timestamp", "datum", "read at"] },
  { name: "time", label: "Time of day", hint: "When it stands in a column of its own", heads: ["time", "uhrzeit"] },
  { name: "value", label: "Value", hint: "", heads: ["value", "reading", "greatest", "wert"] },
  { name: "unit", label: "Unit of the value", hint: "", heads: ["unit", "einheit"] },
  { name: "least", label: "Least over the cycle", hint: "", heads: ["least", "min", "minimum"] },
  { name: "temperature", label: "Oil temperature", hint: "", heads: ["oil", "oil temperature", "oil_c", "temperature", "oil temp"] },
  { name: "pressure", label: "Load pressure", hint: "", heads: ["load", "load pressure", "load_bar", "pressure"] },
  { name: "speed", label: "Speed", hint: "", heads: ["speed", "speed_rpm", "rpm"] },
  { name: "hours", label: "Running hours", hint: "", heads: ["hours", "running hours", "hours_h", "counter"] },
  { name: "state", label: "State", hint: "Refused when it is not the point's", heads: ["state"] },
  { name: "instrument", label: "Instrument", hint: "Its tag", heads: ["instrument", "meter", "gauge"] },
  { name: "note", label: "Note", hint: "", heads: ["note", "remark", "comment"] },
  { name: "by", label: "Read by", hint: "", heads: ["by", "read by", "taken_by", "technician"] },
] as const;

export type ImportField = (typeof importFields)[number]["name"];
export type DateOrder = "ymd" | "dmy" | "mdy";

export const dateOrders: { value: DateOrder; label: string }[] = [
  { value: "ymd", label: "2026-11-20 10:40" },
  { value: "dmy", label: "20.11.2026 or 20/11/2026" },
  { value: "mdy", label: "11/20/2026" },
];

export interface Mapping {
  delimiter: Delimiter;
  decimalMark: "." | ",";
  hasHeader: boolean;
  dateOrder: DateOrder;
  /** Column of each field, or null. */
  columns: Partial<Record<ImportField, number | null>>;
  /** Unit of a column where cells carry none; empty: the point's own, bar, °C, h, r/min. */
  units: { value: string; temperature: string; pressure: string };
  /** All rows belong to this point, when there is no point column. */
  pointId: string;
  skipBad: boolean;
}

const fold = (head: string) => head.toLowerCase().replace(/[[(].*?[\])]/g, "").replace(/[_\s]+/g, " ").trim();
const unitIn = (head: string) => /[[(]\s*([^\])]+?)\s*[\])]/.exec(head)?.[1] ?? "";

/** A first guess from the headings. */
export function guessColumns(head: readonly string[]): { columns: Mapping["columns"]; units: Mapping["units"]; hasHeader: boolean } {
  const columns: Mapping["columns"] = {};
  const taken = new Set<number>();
  for (const field of importFields) {
    const index = head.findIndex((h, i) => !taken.has(i) && (field.heads as readonly string[]).includes(fold(h)));
    columns[field.name] = index >= 0 ? index : null;
    if (index >= 0) taken.add(index);
  }
  const unitOf = (field: ImportField) => (typeof columns[field] === "number" ? unitIn(head[columns[field]] ?? "") : "");
  return { columns, units: { value: unitOf("value"), temperature: unitOf("temperature"), pressure: unitOf("pressure") }, hasHeader: head.some((h) => /[a-z]/i.test(h)) && taken.size > 0 };
}

/** The order of day, month and year that all sample dates allow. */
export function guessDateOrder(samples: readonly string[]): DateOrder {
  if (samples.some((s) => /^\s*\d{4}[-/.]/.test(s))) return "ymd";
  const pairs = samples.flatMap((s) => {
    const m = /^\s*(\d{1,2})[./-](\d{1,2})[./-]\d{2,4}/.exec(s);
    return m ? [[Number(m[1]), Number(m[2])] as const] : [];
  });
  if (pairs.some(([, second]) => second > 12)) return "mdy";
  return "dmy";
}

const column = number().integer().min(0).max(500).nullable().transform((v: number, o: unknown) => (o === "" || o === null ? null : v)).default(null);

export const mappingSchema = object({
  delimiter: string<Delimiter>().oneOf([",", ";", "\t", "|"]).required(),
  decimalMark: string<"." | ",">().oneOf([".", ","]).required(),
  hasHeader: boolean().default(false),
  dateOrder: string<DateOrder>().oneOf(["ymd", "dmy", "mdy"]).required(),
  columns: object(Object.fromEntries(importFields.map((f) => [f.name, column]))),
  units: object({ value: string().trim().max(20).default(""), temperature: string().trim().max(20).default(""), pressure: string().trim().max(20).default("") }),
  pointId: string().trim().default(""),
  skipBad: boolean().default(false),
});


/** The mapping as a form sends it. */
export function mappingOf(fields: Record<string, string>): unknown {
  return {
    delimiter: fields.delimiter === "tab" ? "\t" : fields.delimiter, decimalMark: fields.decimalMark, hasHeader: fields.hasHeader === "on", dateOrder: fields.dateOrder, pointId: fields.pointId ?? "", skipBad: fields.skipBad === "on",
    columns: Object.fromEntries(importFields.map((f) => [f.name, fields[`column-${f.name}`] ?? ""])),
    units: { value: fields["unit-value"] ?? "", temperature: fields["unit-temperature"] ?? "", pressure: fields["unit-pressure"] ?? "" },
  };
}
