/** The fields of a record, by its description. */
import { findUnit, fromCore, preferredUnit, quantityOf, type QuantityId, type UnitPreference } from "@core";
import { analyteLines, type FieldSpec, type RecordKind, recordSpecs } from "~/domain/assets/index";
import { CheckField, SelectField, TextArea, TextField } from "~/ui/form";

export type Choices = Record<string, { value: string; label: string }[]>;

/** A stored value as text of a field: quantities with their unit. */
export function fieldText(
  field: FieldSpec,
  value: unknown,
  units: UnitPreference,
  record: Record<string, unknown>,
): string {
  if (value === null || value === undefined) return "";
  if (field.type === "quantity") {
    // a field without a quantity of its own is of the one that the point reads
    const id = field.quantity ?? (record.quantity as QuantityId);
    const unit =
      findUnit(field.quantity ? preferredUnit(id, units) : String(record.unit), quantityOf(id).dimension) ??
      findUnit(quantityOf(id).unit, quantityOf(id).dimension)!;
    return `${Number(fromCore(Number(value), unit).toPrecision(8))} ${unit.symbol}`;
  }
  if (field.type === "number") return String(Number(Number(value).toPrecision(8)));
  if (field.type === "figures") return analyteLines(value);
  return String(value);
}

function Field({ field, value, choices }: { field: FieldSpec; value: string; choices: Choices }) {
  const common = {
    name: field.name,
    label: field.optional ? `${field.label} (may be left empty)` : field.label,
    ...(field.hint !== undefined && { hint: field.hint }),
  };
  if (field.type === "select") {
    const options = field.from ? (choices[field.from] ?? []) : (field.options ?? []);
    return (
      <SelectField
        {...common}
        defaultValue={value || (field.optional ? "" : options[0]?.value)}
        options={field.optional ? [{ value: "", label: "none" }, ...options] : options}
      />
    );
  }
  if (field.type === "area" || field.type === "figures") return <TextArea {...common} defaultValue={value} />;
  if (field.type === "check")
    return <CheckField name={field.name} label={field.label} defaultChecked={value === "true"} />;
  return (
    <TextField
      {...common}
      defaultValue={value}
      type={field.type === "date" ? "date" : "text"}
      inputMode={field.type === "number" ? "decimal" : "text"}
      maxLength={300}
    />
  );
}

export function RecordFields({
  kind,
  values,
  choices,
}: {
  kind: RecordKind;
  values: Record<string, string>;
  choices: Choices;
}) {
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      {recordSpecs[kind].fields.map((field) => (
        <div key={field.name} className={field.type === "area" || field.type === "figures" ? "sm:col-span-2" : ""}>
          <Field field={field} value={values[field.name] ?? ""} choices={choices} />
        </div>
      ))}
    </div>
  );
}
