/** The forms of the oil: a sample's results as typed, fills, targets, filters. */
import { FORM_IS_OLD } from "~/domain/answer";
import { number, object, string } from "yup";
import {
  analyteIds,
  analytes,
  parseIso4406,
  parseQuantity,
  sampleProblems,
  samplePlaces,
  sampleStates,
  type AnalyteId,
  type Result,
  type Results,
  type SamplePlace,
  type SampleState,
} from "@core";
import { analyteField } from "~/domain/assets/index";
import { quantityField, textField } from "~/platform/validate";

export const placeOptions = (Object.keys(samplePlaces) as SamplePlace[]).map((value) => ({
  value,
  label: samplePlaces[value],
}));
export const stateOptions = (Object.keys(sampleStates) as SampleState[]).map((value) => ({
  value,
  label: sampleStates[value],
}));
export const sludgeOptions = ["", "none", "traces", "heavy"].map((value) => ({
  value,
  label: value || "not looked at",
}));

/** A unit that bare numbers are in. */
export interface BareUnits {
  counts: "/mL" | "/100 mL";
  water: "ppm" | "%";
  decimalMark?: "." | ",";
}

/** A result as a laboratory writes it: 12, < 5, >20000, 0.05 %. Null: left empty; a text: what is wrong. */
export function parseResult(text: string, id: AnalyteId, units: BareUnits): Result | null | string {
  const trimmed = text.trim();
  if (trimmed === "" || trimmed === "-" || trimmed === "–" || /^n\.?\s?[ad]\.?$/i.test(trimmed)) return null;
  const match = /^(<=?|≤|>=?|≥)?\s*(.*)$/s.exec(trimmed)!;
  const analyte = analytes[id];
  const assume = analyte.group === "count" ? units.counts : id === "water" ? units.water : undefined;
  const parsed = parseQuantity(match[2]!, analyte.quantity, {
    ...(assume && { assume }),
    ...(units.decimalMark && { decimalMark: units.decimalMark }),
  });
  if (!parsed.ok) return parsed.message;
  const sign = match[1]?.[0];
  return {
    value: parsed.parsed.value,
    ...((sign === "<" || sign === "≤") && { below: true }),
    ...((sign === ">" || sign === "≥") && { above: true }),
  };
}

/** All results of a form or a row. `cell` gives what stands for an analyte. */
export function parseResults(
  cell: (id: AnalyteId) => string,
  code: string,
  units: BareUnits,
): { results: Results; problems: Record<string, string> } {
  const results: Results = {};
  const problems: Record<string, string> = {};
  for (const id of analyteIds) {
    const result = parseResult(cell(id), id, units);
    if (typeof result === "string") problems[id] = result;
    else if (result) results[id] = result;
  }
  for (const [field, message] of Object.entries(sampleProblems(results, code || null))) problems[field] ??= message;
  return { results, problems };
}

export const sampleSchema = object({
  number: string().trim().required("Give the bottle's number.").max(60, "At most 60 characters."),
  hours: quantityField("runningHours"),
  place: string<SamplePlace>()
    .oneOf(Object.keys(samplePlaces) as SamplePlace[], "Choose where it was taken.")
    .required("Choose where it was taken."),
  state: string<SampleState>()
    .oneOf(Object.keys(sampleStates) as SampleState[], "Choose how it was taken.")
    .required("Choose how it was taken."),
  colour: textField(100),
  sludge: textField(40),
  laboratory: textField(100),
  takenBy: textField(100),
  note: textField(1000),
  submission: string().uuid(FORM_IS_OLD).required(),
});

/** A code as a person writes it, or empty. */
export const codeField = () =>
  string()
    .trim()
    .default("")
    .test("code", (text, context) => {
      if (!text) return true;
      try {
        return (
          parseIso4406(text).codes.every((c) => typeof c === "number") ||
          context.createError({ message: "Three numbers are needed, for example 18/16/13." })
        );
      } catch (error) {
        return context.createError({ message: (error as Error).message });
      }
    });

/** Metals and dirt that a laboratory states limits for. */
export const limitedMetals = analyteIds.filter(
  (id) => analytes[id].group === "wear" || analytes[id].group === "contaminant",
);

/** Months of a longest interval. */
const months = number()
  .transform((v: number, o: unknown) => (typeof o === "string" && o.trim() === "" ? null : v))
  .nullable()
  .typeError("Write a number of months.")
  .min(1, "At least one month.")
  .max(600, "At most 600 months.")
  .default(null);

export const targetSchema = object({
  targetCode: codeField(),
  targetReason: textField(300),
  startTemperature: quantityField("oilTemperature"),
  volume: quantityField("volume"),
  longestHours: quantityField("runningHours"),
  longestMonths: months,
  metalLimits: analyteField(limitedMetals),
  version: number().required(),
})
  .test(
    "reason",
    (v, context) =>
      !v.targetCode ||
      v.targetReason.trim().length >= 3 ||
      context.createError({ path: "targetReason", message: "Say why: the next person wants to know." }),
  )
  .test(
    "interval",
    (v, context) =>
      v.longestHours === null ||
      v.longestHours.value >= 1 ||
      context.createError({ path: "longestHours", message: "At least one hour." }),
  );

const ratio = (message: string) =>
  number()
    .transform((v: number, o: unknown) => (typeof o === "string" && o.trim() === "" ? null : v))
    .nullable()
    .typeError("Write a number.")
    .min(1.0001, message)
    .max(1e6, "Less than a million.")
    .default(null);

/** What a component is to the oil: the maker's code, materials, what it does when stuck, its range of viscosity, the filter's data. */
export const componentSchema = object({
  makersCode: codeField(),
  materials: textField(500),
  symptomIfStuck: textField(300),
  least: quantityField("viscosity"),
  bestLow: quantityField("viscosity"),
  bestHigh: quantityField("viscosity"),
  greatestAtStart: quantityField("viscosity"),
  beta: ratio("A filtration ratio is above 1."),
  size: ratio("A size in µm above 1."),
  flow: quantityField("flow"),
  bypass: quantityField("pressureDrop"),
  element: textField(100),
  version: number().required(),
});

export const oilEventSchema = object({
  kind: string<"fill" | "change" | "topUp" | "drained" | "level">()
    .oneOf(["fill", "change", "topUp", "drained", "level"], "Choose what was done.")
    .required(),
  litres: quantityField("litresFilled"),
  fluidId: string().trim().default(""),
  level: textField(200),
  condition: textField(300),
  hours: quantityField("runningHours"),
  changeBackBy: string().trim().default(""),
  note: textField(500),
  submission: string().uuid(FORM_IS_OLD).required(),
});
