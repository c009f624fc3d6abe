/** Fields of a step or a finding: texts, quantities as typed, choices; each with its message. */
import { preferredUnit, type QuantityId, type UnitPreference } from "@core";
import { fieldClass } from "~/ui/form";

export interface TypedField {
  name: string;
  label: string;
  quantity?: QuantityId | null;
  options?: readonly { id: string; label: string }[] | undefined;
  day?: boolean | undefined;
  optional?: boolean;
}

const idOf = (form: string, field: string) => `${form}-${field}`;

/** Go to the first field with a message. */
export function focusFirst(form: string, problems: Readonly<Record<string, string>>): void {
  const [first] = Object.keys(problems);
  if (first) document.getElementById(idOf(form, first))?.focus();
}

export function TypedFields({
  form,
  fields,
  values,
  problems,
  units,
  wide = () => false,
  onSet,
  onEnter,
}: {
  /** What its ids begin with. */
  form: string;
  fields: readonly TypedField[];
  values: Readonly<Record<string, string>>;
  problems: Readonly<Record<string, string>>;
  units: UnitPreference;
  /** Does a field take the whole width? */
  wide?: (field: TypedField) => boolean;
  onSet(name: string, text: string): void;
  onEnter(): void;
}) {
  return (
    <div className="grid gap-3 sm:grid-cols-3">
      {fields.map((f) => {
        const id = idOf(form, f.name);
        const problem = problems[f.name];
        const shared = {
          id,
          className: `${fieldClass} min-h-12`,
          value: values[f.name] ?? "",
          "aria-invalid": problem ? (true as const) : undefined,
          "aria-describedby": problem ? `p-${id}` : undefined,
        };
        return (
          <div key={f.name} className={wide(f) ? "sm:col-span-3" : ""}>
            <label htmlFor={id} className="mb-0.5 block text-sm text-ink-2">
              {f.label}
              {f.quantity ? ` (${preferredUnit(f.quantity, units)})` : ""}
              {f.optional ? ", where known" : ""}
            </label>
            {f.options ? (
              <select {...shared} onChange={(e) => onSet(f.name, e.target.value)}>
                <option value="">Choose</option>
                {f.options.map((o) => (
                  <option key={o.id} value={o.id}>
                    {o.label}
                  </option>
                ))}
              </select>
            ) : (
              <input
                {...shared}
                type={f.day ? "date" : "text"}
                maxLength={300}
                autoComplete="off"
                inputMode={f.quantity || f.name === "count" || f.name === "passes" ? "decimal" : "text"}
                onChange={(e) => onSet(f.name, e.target.value)}
                onKeyDown={(e) => (e.key === "Enter" ? onEnter() : undefined)}
              />
            )}
            {problem ? (
              <p id={`p-${id}`} className="mt-1 text-sm font-medium text-verm">
                {problem}
              </p>
            ) : null}
          </div>
        );
      })}
    </div>
  );
}
