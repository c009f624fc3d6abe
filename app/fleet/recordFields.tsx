/** The fields of a record, by its description. */
import { findUnit, quantityOf } from "@core";
import { analyteLines, type AnalyteFigures } from "~/platform/analyteLines";
import { CheckField, SelectField, TextArea, TextField } from "~/ui/form";
import type { FieldSpec, RecordKind } from "./form";
import { recordSpecs } from "./form";

export type Choices = Record<string, { value: string; label: string }[]>;

/** A stored value as text of a field: quantities with their unit. */
export function fieldText(field: FieldSpec, value: unknown): string {
  if (value === null || value === undefined) return "";
  if (field.type === "quantity" && field.quantity) {
    const unit = findUnit(quantityOf(field.quantity).unit, quantityOf(field.quantity).dimension)!;
    return `${Number(Number(value).toPrecision(8))} ${unit.symbol}`;
  }
  if (field.type === "number") return String(Number(Number(value).toPrecision(8)));
  if (field.type === "figures") return analyteLines(value as AnalyteFigures);
  return String(value);
}

function Field({ field, value, choices }: { field: FieldSpec; value: string; choices: Choices }) {
  const common = { name: field.name, label: field.optional ? `${field.label} (may be left empty)` : field.label, ...(field.hint !== undefined && { hint: field.hint }) };
  if (field.type === "select") {
    const options = field.from ? (choices[field.from] ?? []) : (field.options ?? []);
    return <SelectField {...common} defaultValue={value || (field.optional ? "" : options[0]?.value)} options={field.optional ? [{ value: "", label: "none" }, ...options] : options} />;
  }
  if (field.type === "area" || field.type === "figures") return <TextArea {...common} defaultValue={value} />;
  if (field.type === "check") return <CheckField name={field.name} label={field.label} defaultChecked={value === "true"} />;
  return <TextField {...common} defaultValue={value} type={field.type === "date" ? "date" : "text"} inputMode={field.type === "number" ? "decimal" : "text"} maxLength={300} />;
}

export function RecordFields({ kind, values, choices }: { kind: RecordKind; values: Record<string, string>; choices: Choices }) {
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      {recordSpecs[kind].fields.map((field) => (
        <div key={field.name} className={field.type === "area" || field.type === "figures" ? "sm:col-span-2" : ""}><Field field={field} value={values[field.name] ?? ""} choices={choices} /></div>
      ))}
    </div>
  );
}
