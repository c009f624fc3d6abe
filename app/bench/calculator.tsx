import { useEffect, useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Route } from "./+types/calculator";
import { calculatorGroups, calculatorOf, preferredUnit, runCalculator, type Cell, type FieldSpec, type Outcome } from "@core";
import { guard, isUuid, notFound } from "~/platform/guard.server";
import { ChartCanvas } from "~/ui/charts/canvas";
import { ComponentPicker } from "~/ui/componentPicker";
import { Button, FormProblemsProvider, Notice, SelectField, TextArea, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { useShow, useSite } from "~/ui/site";
import { Verdict } from "~/ui/verdict";
import { WorkingTable } from "~/ui/working";
import { asText } from "./asText";
import { calculatorChart } from "./chart";
import { factsOf } from "./queries.server";
import { addressOf, cellNumber, typedFrom, type Typed } from "./typed";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `${calculatorOf(params.calculator ?? "")?.title ?? "Bench"} · Juncteral` }];

export const loader = guard("viewer", async ({ params, request }) => {
  const calculator = calculatorOf(params.calculator ?? "");
  if (!calculator) throw notFound("calculation");
  const { search, searchParams } = new URL(request.url);
  const from = searchParams.get("from");
  return { id: calculator.id, search, taken: from && isUuid(from) ? await factsOf(from) : null };
});

export default function CalculatorPage({ loaderData }: Route.ComponentProps) {
  return <Calculation key={loaderData.id + loaderData.search} {...loaderData} />;
}

const tones: Record<Outcome["tone"], string> = { plain: "border-line-2", good: "border-sea", doubt: "border-ochre", bad: "border-verm" };

function Calculation({ id, search, taken }: Route.ComponentProps["loaderData"]) {
  const calculator = calculatorOf(id)!;
  const site = useSite();
  const navigate = useNavigate();
  const [typed, setTyped] = useState<Typed>(() => typedFrom(calculator, new URLSearchParams(search), taken?.facts ?? {}, site.units));
  const [copied, setCopied] = useState<string | null>(null);
  const result = useMemo(() => runCalculator(calculator, typed, site.units), [calculator, typed, site.units]);
  const address = addressOf(calculator, typed, taken?.componentId ?? null);
  const outcome = result.ok ? result.outcome : null;
  const makeChart = useMemo(() => (outcome?.chart ? calculatorChart(outcome.chart, site.units) : null), [outcome, site.units]);
  const takes = Object.values(calculator.fields).some((f) => f.take);

  // the address follows what is typed; no request is made for it
  useEffect(() => {
    const timer = setTimeout(() => window.history.replaceState(window.history.state, "", address), 250);
    return () => clearTimeout(timer);
  }, [address]);

  const copy = (what: string, text: string) => navigator.clipboard.writeText(text).then(() => setCopied(`${what} copied.`), () => setCopied("The browser does not allow copying here."));
  return (
    <>
      <PageHead crumbs={[{ label: "Bench", to: "/bench" }, { label: calculatorGroups[calculator.group] }, { label: calculator.title }]} title={calculator.asks} />
      <div className="grid gap-x-8 gap-y-4 xl:grid-cols-[280px_minmax(0,1fr)]">
        <div>
          {takes ? (
            <div className="mb-3">
              <ComponentPicker label="Take values from a component" placeholder="Take from a component" onPick={(componentId) => void navigate(`/bench/${calculator.id}?from=${componentId}`)} />
              {taken ? <p className="mt-1 text-sm text-ink-2">Taken from {taken.name}; what you change is yours. <Link to={`/bench/${calculator.id}`} className="way">Leave it</Link></p> : null}
            </div>
          ) : null}
          <form onSubmit={(e) => e.preventDefault()} noValidate aria-label="What is given">
            <FormProblemsProvider problems={result.ok ? {} : result.problems} focus={false}>
              <div className={`grid grid-cols-2 gap-x-3 gap-y-2.5 ${result.ok ? "items-end" : ""}`}>
                {Object.entries(calculator.fields).map(([name, field]) => <GivenField key={name} name={name} field={field} value={typed[name] ?? ""} onChange={(value) => { setTyped((t) => ({ ...t, [name]: value })); setCopied(null); }} />)}
              </div>
            </FormProblemsProvider>
          </form>
        </div>
        <div className="min-w-0">
          <div aria-live="polite" className={`border-l-4 pl-4 ${tones[outcome?.tone ?? "plain"]}`}>
            <p className="text-[1.05rem] leading-relaxed text-ink-2">{outcome ? <Verdict parts={outcome.answer} /> : "The answer stands here as soon as every field can be read."}</p>
            {outcome?.notes?.map((note) => <p key={note} className="mt-1 text-sm text-ink-2">{note}</p>)}
          </div>
          {outcome && makeChart ? <div className="mt-4"><ChartCanvas make={makeChart} height={270} label={`${calculator.title}: ${outcome.chart!.y.label} over ${outcome.chart!.x.label}. The working holds the numbers.`} /></div> : null}
          {outcome?.table ? <OutcomeTable table={outcome.table} /> : null}
          {calculator.caution ? <div className="mt-4"><Notice tone="ochre" live={false}>{calculator.caution}</Notice></div> : null}
          {outcome ? (
            <Section title="How this was worked out" className="mt-5"><WorkingTable working={outcome.working} /></Section>
          ) : null}
          {outcome ? (
            <p className="flex flex-wrap items-center gap-3">
              <Button type="button" tone="plain" onClick={() => void copy("Text", asText(calculator, typed, outcome, site, window.location.origin + address))}>Copy as text</Button>
              <Button type="button" tone="plain" onClick={() => void copy("Address", window.location.origin + address)}>Copy the address</Button>
              <span role="status" className="text-sm text-ink-2">{copied}</span>
            </p>
          ) : null}
        </div>
      </div>
    </>
  );
}

function GivenField({ name, field, value, onChange }: { name: string; field: FieldSpec; value: string; onChange(value: string): void }) {
  const site = useSite();
  const label = field.label;
  if (field.kind === "choice") return <div className="col-span-2"><SelectField name={name} label={label} value={value} onChange={(e) => onChange(e.target.value)} options={field.options} /></div>;
  if (field.kind === "rows") return <div className="col-span-2"><TextArea name={name} label={label} hint={field.hint} rows={7} value={value} onChange={(e) => onChange(e.target.value)} className="leading-snug" /></div>;
  const suffix = field.kind === "quantity" ? (/[a-z°µ"%/]/i.test(value) ? "" : preferredUnit(field.quantity, site.units)) : (field.suffix ?? "");
  const wide = suffix.length > 9 || field.hint !== undefined;
  return <div className={wide ? "col-span-2" : ""}><TextField name={name} label={label} hint={field.hint} suffix={suffix} inputMode="text" placeholder={field.optional ? "left out" : undefined} value={value} onChange={(e) => onChange(e.target.value)} maxLength={60} /></div>;
}

function OutcomeTable({ table }: { table: NonNullable<Outcome["table"]> }) {
  const show = useShow();
  const text = (cell: Cell) => (typeof cell === "string" ? cell : cell.quantity ? show(cell.value, cell.quantity, cell.digits === undefined ? {} : { digits: cell.digits }) : cellNumber(cell.value));
  return (
    <div className="mt-4 overflow-x-auto">
      <table className="w-full text-sm [&_td]:py-1 [&_td]:pr-4 [&_th]:py-1 [&_th]:pr-4">
        <thead><tr className="ruled">{table.head.map((h, i) => <th key={i} scope="col" className={typeof table.rows[0]?.[i] === "string" ? "" : "text-right"}>{h}</th>)}</tr></thead>
        <tbody>{table.rows.map((row, i) => <tr key={i} className="ruled">{row.map((cell, k) => <td key={k} className={typeof cell === "string" ? "" : "text-right whitespace-nowrap"}>{text(cell)}</td>)}</tr>)}</tbody>
      </table>
    </div>
  );
}
