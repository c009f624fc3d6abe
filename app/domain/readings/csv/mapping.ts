/** Which column of a file is what, in any order and under any heading. */
import { boolean, object, string } from "yup";
import type { DateOrder } from "~/platform/csvCells";
import { columnField, findColumns, looksLikeHeadings, titleLinesField, unitIn } from "~/platform/csvCells";
import type { Delimiter } from "~/platform/csvText";

export const importFields = [
  {
    name: "point",
    label: "Point",
    hint: "Code, name or id of the point",
    heads: [
      "point",
      "point code",
      "code",
      "measuring point",
      "point name",
      "messpunkt",
      "messstelle",
      "mittauspiste",
      "mätpunkt",
      "point de mesure",
    ],
  },
  {
    name: "machine",
    label: "Machine",
    hint: "Only when the point column holds the bare name",
    heads: ["machine", "machine tag", "asset", "equipment", "maschine", "anlage", "kone", "maskin"],
  },
  {
    name: "component",
    label: "Component",
    hint: "Only with a machine column",
    heads: ["component", "part", "komponente", "bauteil", "komponentti", "osa", "komponent", "composant"],
  },
  {
    name: "takenAt",
    label: "Taken at",
    hint: "Date, with or without time",
    heads: [
      "taken at",
      "taken_at",
      "taken",
      "date",
      "datetime",
      "date time",
      "timestamp",
      "datum",
      "read at",
      "reading date",
      "zeitstempel",
      "zeitpunkt",
      "messzeit",
      "aika",
      "päivä",
      "päivämäärä",
      "tid",
      "horodatage",
    ],
  },
  {
    name: "time",
    label: "Time of day",
    hint: "When it stands in a column of its own",
    heads: ["time", "uhrzeit", "kello", "klockslag", "heure"],
  },
  {
    name: "value",
    label: "Value",
    hint: "",
    heads: ["value", "reading", "greatest", "max", "wert", "messwert", "arvo", "värde", "mätvärde", "valeur"],
  },
  {
    name: "unit",
    label: "Unit of the value",
    hint: "",
    heads: ["unit", "units", "einheit", "yksikkö", "enhet", "unité"],
  },
  { name: "least", label: "Least over the cycle", hint: "", heads: ["least", "min", "minimum"] },
  {
    name: "temperature",
    label: "Oil temperature",
    hint: "",
    heads: [
      "oil",
      "oil temperature",
      "oil_c",
      "temperature",
      "oil temp",
      "temp",
      "öl",
      "öltemperatur",
      "temperatur",
      "öljy",
      "öljyn lämpötila",
      "olja",
      "oljetemperatur",
      "huile",
      "température",
    ],
  },
  {
    name: "pressure",
    label: "Load pressure",
    hint: "",
    heads: ["load", "load pressure", "load_bar", "pressure", "druck", "paine", "tryck", "pression"],
  },
  {
    name: "speed",
    label: "Speed",
    hint: "",
    heads: ["speed", "speed_rpm", "rpm", "drehzahl", "nopeus", "varvtal", "vitesse"],
  },
  {
    name: "hours",
    label: "Running hours",
    hint: "",
    heads: [
      "hours",
      "running hours",
      "run hours",
      "hours_h",
      "hour meter",
      "operating hours",
      "counter",
      "betriebsstunden",
      "käyttötunnit",
      "drifttimmar",
      "heures",
    ],
  },
  { name: "state", label: "State", hint: "Refused when it is not the point's", heads: ["state"] },
  {
    name: "instrument",
    label: "Instrument",
    hint: "Its tag",
    heads: ["instrument", "meter", "gauge", "messgerät", "mittari"],
  },
  {
    name: "note",
    label: "Note",
    hint: "",
    heads: ["note", "notes", "remark", "remarks", "comment", "bemerkung", "huomautus", "anmärkning", "remarque"],
  },
  {
    name: "entered",
    label: "As entered",
    hint: "Kept beside the value where it says the same",
    heads: ["as_entered", "as entered"],
  },
  { name: "keptBecause", label: "Why it was kept", hint: "", heads: ["kept_because", "kept because"] },
  { name: "doubtful", label: "Doubtful", hint: "true or false", heads: ["doubtful"] },
  { name: "superseded", label: "Superseded", hint: "Such rows are left out", heads: ["superseded"] },
  { name: "by", label: "Read by", hint: "", heads: ["by", "read by", "taken_by", "technician"] },
] as const;

export type ImportField = (typeof importFields)[number]["name"];
export interface Mapping {
  delimiter: Delimiter;
  decimalMark: "." | ",";
  hasHeader: boolean;
  /** Lines above the headings, a title for example. */
  titleLines: number;
  dateOrder: DateOrder;
  /** Column of each field, or null. */
  columns: Partial<Record<ImportField, number | null>>;
  /** Unit of a column where cells carry none; empty: the point's own, bar, °C, h, r/min. */
  units: { value: string; temperature: string; pressure: string };
  /** All rows belong to this point, when there is no point column. */
  pointId: string;
  skipBad: boolean;
  /** Rows from before a part was fitted, as the record has it, begin its life earlier. */
  beginLives: boolean;
}

/** A first guess from the headings. */
export function guessColumns(head: readonly string[]): {
  columns: Mapping["columns"];
  units: Mapping["units"];
  hasHeader: boolean;
} {
  const { columns, found } = findColumns(head, importFields);
  // "Case drain [l/min]": the one heading left over with a unit is the value, under its own name
  if (columns.value === null) {
    const taken = new Set(Object.values(columns));
    const index = head.findIndex((h, i) => !taken.has(i) && unitIn(h) !== "");
    if (index >= 0) columns.value = index;
  }
  const unitOf = (field: ImportField) => (typeof columns[field] === "number" ? unitIn(head[columns[field]] ?? "") : "");
  return {
    columns,
    units: { value: unitOf("value"), temperature: unitOf("temperature"), pressure: unitOf("pressure") },
    hasHeader: looksLikeHeadings(head) && found > 0,
  };
}

const unitField = string().trim().max(20, "At most 20 characters.").default("");

export const mappingSchema = object({
  delimiter: string<Delimiter>().oneOf([",", ";", "\t", "|"]).required(),
  decimalMark: string<"." | ",">().oneOf([".", ","]).required(),
  hasHeader: boolean().default(false),
  titleLines: titleLinesField,
  dateOrder: string<DateOrder>().oneOf(["ymd", "dmy", "mdy"]).required(),
  columns: object(Object.fromEntries(importFields.map((f) => [f.name, columnField]))),
  units: object({ value: unitField, temperature: unitField, pressure: unitField }),
  pointId: string().trim().default(""),
  skipBad: boolean().default(false),
  beginLives: boolean().default(false),
});

/** The mapping as a form sends it. */
export function mappingOf(fields: Record<string, string>): unknown {
  return {
    delimiter: fields.delimiter === "tab" ? "\t" : fields.delimiter,
    decimalMark: fields.decimalMark,
    hasHeader: fields.hasHeader === "on",
    titleLines: fields.titleLines ?? "",
    dateOrder: fields.dateOrder,
    pointId: fields.pointId ?? "",
    skipBad: fields.skipBad === "on",
    beginLives: fields.beginLives === "on",
    columns: Object.fromEntries(importFields.map((f) => [f.name, fields[`column-${f.name}`] ?? ""])),
    units: {
      value: fields["unit-value"] ?? "",
      temperature: fields["unit-temperature"] ?? "",
      pressure: fields["unit-pressure"] ?? "",
    },
  };
}
