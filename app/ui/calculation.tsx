/** A calculation on a screen: its fields, and its answer with notes, chart, table, caution and working. */
import { useMemo } from "react";
import { preferredUnit, type Cell, type FieldSpec, type Outcome } from "@core";
import { calculatorChart } from "./charts/calculation";
import { ChartCanvas } from "./charts/canvas";
import { FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "./form";
import { Section } from "./page";
import { useShow, useSite } from "./site";
import { cellNumber, type Typed } from "./typed";
import { Verdict } from "./verdict";
import { WorkingTable } from "./working";

export function GivenFields({
  fields,
  typed,
  problems,
  focus = false,
  examples = false,
  onChange,
}: {
  fields: Record<string, FieldSpec>;
  typed: Typed;
  problems: Record<string, string>;
  focus?: boolean;
  /** Show an example in an empty field. */ examples?: boolean;
  onChange(name: string, value: string): void;
}) {
  const told = Object.keys(problems).length > 0;
  return (
    <FormProblemsProvider problems={problems} focus={focus}>
      <div className={`grid grid-cols-2 gap-x-3 gap-y-2.5 ${told ? "" : "items-end"}`}>
        {Object.entries(fields).map(([name, field]) => (
          <GivenField
            key={name}
            name={name}
            field={field}
            example={examples}
            value={typed[name] ?? ""}
            onChange={(value) => onChange(name, value)}
          />
        ))}
      </div>
    </FormProblemsProvider>
  );
}

const tones: Record<Outcome["tone"], string> = {
  plain: "border-line-2",
  good: "border-sea",
  doubt: "border-ochre",
  bad: "border-verm",
};

export function OutcomeView({
  title,
  outcome,
  caution,
}: {
  title: string;
  outcome: Outcome | null;
  caution?: string | undefined;
}) {
  const site = useSite();
  const makeChart = useMemo(
    () => (outcome?.chart ? calculatorChart(outcome.chart, site.units) : null),
    [outcome, site.units],
  );
  return (
    <>
      <div aria-live="polite" className={`border-l-4 pl-4 ${tones[outcome?.tone ?? "plain"]}`}>
        <p className="text-[1.05rem] leading-relaxed text-ink-2">
          {outcome ? (
            <Verdict parts={outcome.answer} />
          ) : (
            "The result appears as soon as every field is filled in correctly."
          )}
        </p>
        {outcome?.notes?.map((note) => (
          <p key={note} className="mt-1 text-sm text-ink-2">
            {note}
          </p>
        ))}
      </div>
      {outcome && makeChart ? (
        <div className="mt-4">
          <ChartCanvas
            make={makeChart}
            height={270}
            label={`${title}: ${outcome.chart!.y.label} over ${outcome.chart!.x.label}. The working holds the numbers.`}
          />
        </div>
      ) : null}
      {outcome?.table ? <OutcomeTable table={outcome.table} /> : null}
      {caution ? (
        <div className="mt-4">
          <Notice tone="ochre" live={false}>
            {caution}
          </Notice>
        </div>
      ) : null}
      {outcome ? (
        <Section title="How this was worked out" className="mt-5">
          <WorkingTable working={outcome.working} />
        </Section>
      ) : null}
    </>
  );
}

function GivenField({
  name,
  field,
  value,
  example,
  onChange,
}: {
  name: string;
  field: FieldSpec;
  value: string;
  example: boolean;
  onChange(value: string): void;
}) {
  const site = useSite();
  const label = field.label;
  if (field.kind === "choice")
    return (
      <div className="col-span-2">
        <SelectField
          name={name}
          label={label}
          value={value}
          onChange={(e) => onChange(e.target.value)}
          options={value === "" ? [{ value: "", label: "choose" }, ...field.options] : field.options}
        />
      </div>
    );
  if (field.kind === "rows")
    return (
      <div className="col-span-2">
        <TextArea
          name={name}
          label={label}
          hint={field.hint}
          rows={7}
          placeholder={example ? field.example.split("\n").slice(0, 2).join("\n") : undefined}
          value={value}
          onChange={(e) => onChange(e.target.value)}
          className="leading-snug"
        />
      </div>
    );
  const suffix =
    field.kind === "quantity"
      ? /[a-z°µ"%/]/i.test(value)
        ? ""
        : preferredUnit(field.quantity, site.units)
      : (field.suffix ?? "");
  const wide = suffix.length > 9 || field.hint !== undefined;
  return (
    <div className={wide ? "col-span-2" : ""}>
      <TextField
        name={name}
        label={label}
        hint={field.hint}
        suffix={suffix}
        inputMode="text"
        placeholder={field.optional ? "left out" : example && field.example ? `such as ${field.example}` : undefined}
        value={value}
        onChange={(e) => onChange(e.target.value)}
        maxLength={60}
      />
    </div>
  );
}

function OutcomeTable({ table }: { table: NonNullable<Outcome["table"]> }) {
  const show = useShow();
  const text = (cell: Cell) =>
    typeof cell === "string"
      ? cell
      : cell.quantity
        ? show(cell.value, cell.quantity, cell.digits === undefined ? {} : { digits: cell.digits })
        : cellNumber(cell.value);
  return (
    <div className="mt-4 overflow-x-auto">
      <table className="w-full text-sm [&_td]:py-1 [&_td]:pr-4 [&_th]:py-1 [&_th]:pr-4">
        <thead>
          <tr className="ruled">
            {table.head.map((h, i) => (
              <th key={i} scope="col" className={typeof table.rows[0]?.[i] === "string" ? "" : "text-right"}>
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row, i) => (
            <tr key={i} className="ruled">
              {row.map((cell, k) => (
                <td key={k} className={typeof cell === "string" ? "" : "text-right whitespace-nowrap"}>
                  {text(cell)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
