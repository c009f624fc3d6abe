/** What every import of a file shows: choosing it, how it is written, the fate of its rows. */
import { useEffect, type ReactNode } from "react";
import { Form, useRevalidator } from "react-router";
import { ConfirmButton } from "./confirm";
import { counted } from "./counted";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextField } from "./form";
import { Section } from "./page";

const lineText = (line: number) => `line ${line}`;

export function FileField({ limitMb, problem }: { limitMb: number; problem: string | undefined }) {
  return (
    <>
      <label htmlFor="f-file" className="mb-1 block text-sm text-ink-2">
        {`File, at most ${limitMb} MB`}
      </label>
      <input
        id="f-file"
        type="file"
        name="file"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        aria-invalid={problem ? true : undefined}
        aria-describedby="p-file"
        className="block w-full border border-line-2 bg-sheet p-3 file:mr-4 file:border-0 file:bg-sea-soft file:px-3 file:py-2 file:text-ink"
      />
      <p id="p-file" className="mt-1 min-h-5 text-sm font-medium text-verm">
        {problem}
      </p>
    </>
  );
}

type Options = readonly { value: string; label: string }[];

export function FormatFields({
  mapping,
  delimiters,
  dateOrders,
}: {
  mapping: { delimiter: string; decimalMark: string; dateOrder: string; hasHeader: boolean; titleLines: number };
  delimiters: Options;
  dateOrders: Options;
}) {
  const named = (delimiter: string) => (delimiter === "\t" ? "tab" : delimiter);
  return (
    <>
      <SelectField
        name="delimiter"
        label="Separated by"
        defaultValue={named(mapping.delimiter)}
        options={delimiters.map((d) => ({ value: named(d.value), label: d.label }))}
      />
      <SelectField
        name="decimalMark"
        label="Decimal mark"
        defaultValue={mapping.decimalMark}
        options={[
          { value: ".", label: "point, 3.4" },
          { value: ",", label: "comma, 3,4" },
        ]}
      />
      <SelectField name="dateOrder" label="Dates" defaultValue={mapping.dateOrder} options={dateOrders} />
      <TextField
        name="titleLines"
        label="Lines above the headings"
        inputMode="numeric"
        defaultValue={String(mapping.titleLines)}
        hint="A title, for example"
      />
      <div className="self-end">
        <CheckField name="hasHeader" label="First row is a heading" defaultChecked={mapping.hasHeader} />
      </div>
    </>
  );
}

/** Columns of the file as options of a field. */
export function columnOptions(head: readonly string[], hasHeader: boolean) {
  return [
    { value: "", label: "not in the file" },
    ...head.map((h, i) => ({
      value: String(i),
      label: hasHeader ? `${i + 1}: ${h.slice(0, 40)}` : `column ${i + 1} (${h.slice(0, 20)})`,
    })),
  ];
}

export const columnText = (column: number | null | undefined) =>
  column === null || column === undefined ? "" : String(column);

export interface FileFates {
  head: string[];
  rows: { line: number; cells: string[]; fate: "add" | "there" | "bad"; reason: string }[];
  bad: { line: number; reason: string }[];
  /** The same, one for all rows that have it. */
  faults: { reason: string; count: number; first: number; last: number }[];
  /** Added all the same, but somebody should look. */
  odd: { line: number; reason: string }[];
  counts: { add: number; there: number; bad: number };
}

/** "3 to add, 1 bad". */
export function fatesText({ counts }: FileFates): string {
  if (counts.add + counts.there + counts.bad === 0) return "The file has no rows";
  const parts = [`${counts.add} to add`];
  if (counts.there) parts.push(`${counts.there} there already`);
  if (counts.bad) parts.push(`${counts.bad} bad`);
  return parts.join(", ");
}

const fateText = { add: "will be added", there: "there already", bad: "bad" };

function BadRows({ fates: { bad, faults, counts }, skipBad }: { fates: FileFates; skipBad: boolean }) {
  if (bad.length === 0) return null;
  // a fault of many rows is one fault
  const told = faults.length < bad.length && faults.length > 0;
  return (
    <Section
      title="Bad rows, by line"
      aside={counts.bad > bad.length ? `the first ${bad.length} of ${counts.bad}` : undefined}
    >
      <ul className="max-h-56 overflow-y-auto text-sm" tabIndex={0} aria-label="Bad rows">
        {(told ? faults : bad.map((b) => ({ reason: b.reason, count: 1, first: b.line, last: b.line }))).map((f) => (
          <li key={`${f.first} ${f.reason}`} className="ruled grid grid-cols-[11rem_minmax(0,1fr)] py-1">
            <span className="text-ink-2">
              {f.count === 1 ? lineText(f.first) : `${f.count} rows, ${f.first} to ${f.last}`}
            </span>
            <span className="[overflow-wrap:anywhere]">{f.reason}</span>
          </li>
        ))}
      </ul>
      <CheckField
        name="skipBad"
        label={`Leave out the ${counted(counts.bad, "bad row")} and import the rest`}
        defaultChecked={skipBad}
      />
    </Section>
  );
}

function OddRows({ odd }: { odd: FileFates["odd"] }) {
  if (odd.length === 0) return null;
  return (
    <Section
      title="Values and running hours to look at"
      aside="imported as they are; hours that do not fit are not used"
    >
      <ul className="max-h-40 overflow-y-auto text-sm" tabIndex={0} aria-label="Rows to look at">
        {odd.map((o) => (
          <li key={o.line} className="ruled grid grid-cols-[5rem_minmax(0,1fr)] py-1">
            <span className="text-ink-2">{lineText(o.line)}</span>
            <span className="[overflow-wrap:anywhere]">{o.reason}</span>
          </li>
        ))}
      </ul>
    </Section>
  );
}

function FirstRows({ fates: { head, rows }, hasHeader }: { fates: FileFates; hasHeader: boolean }) {
  return (
    <Section title="First rows and what becomes of them">
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="First rows">
        <table className="w-full text-sm whitespace-nowrap [&_td]:py-1 [&_td]:pr-4 [&_th]:py-1 [&_th]:pr-4">
          <thead>
            <tr className="ruled">
              <th scope="col">line</th>
              <th scope="col">fate</th>
              {hasHeader
                ? head.slice(0, 16).map((h, i) => (
                    <th scope="col" key={i}>
                      {h}
                    </th>
                  ))
                : null}
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.line} className="ruled">
                <td className="text-ink-2">{r.line}</td>
                <td
                  className={
                    r.fate === "bad" ? "font-medium text-verm" : r.fate === "there" ? "text-ink-2" : "text-sea"
                  }
                >
                  {fateText[r.fate]}
                </td>
                {r.cells.map((c, i) => (
                  <td key={i}>{c}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Section>
  );
}

/** The mapping beside what becomes of the rows under it. `children`: the fields of the mapping. */
export function ImportForm({
  mapping,
  fates,
  noun,
  problems,
  unused = [],
  above,
  children,
}: {
  /** What is asked before the bad rows are told. */
  above?: ReactNode;
  /** Headings of columns that nothing is taken from. */
  unused?: readonly string[];
  mapping: { hasHeader: boolean; skipBad: boolean };
  fates: FileFates;
  noun: string;
  problems: Record<string, string> | undefined;
  children: ReactNode;
}) {
  const { counts } = fates;
  return (
    <Form method="post" key={JSON.stringify(mapping)} noValidate>
      <FormProblemsProvider problems={problems}>
        <div className="gap-x-8 max-xl:flex max-xl:flex-col xl:grid xl:grid-cols-[330px_minmax(0,1fr)]">
          <Section title="What is what" className="max-xl:order-2">
            <div className="mt-3 grid grid-cols-2 gap-3">{children}</div>
            <div className="mt-3">
              <Button tone="plain" name="intent" value="preview">
                Look again
              </Button>
            </div>
          </Section>
          <div className="min-w-0">
            {unused.length > 0 ? (
              <p className="mb-3 text-ink-2">{`Columns that nothing is taken from: ${unused.join(", ")}.`}</p>
            ) : null}
            {above}
            <BadRows fates={fates} skipBad={mapping.skipBad} />
            <OddRows odd={fates.odd} />
            {counts.add > 0 ? (
              <div className="mb-5">
                <Button name="intent" value="import">
                  {`Import ${counts.add} ${noun}${counts.add === 1 ? "" : "s"}`}
                </Button>
              </div>
            ) : (
              <Notice tone="ochre">
                {`There is nothing to add${counts.there ? ": every good row is recorded already" : " under this mapping"}.`}
              </Notice>
            )}
            <FirstRows fates={fates} hasHeader={mapping.hasHeader} />
          </div>
        </div>
      </FormProblemsProvider>
    </Form>
  );
}

/** A worker reads the file: how far it is, looked at again every second. */
export function ImportProgress({ stage, progress }: { stage: "previewing" | "importing"; progress: number | null }) {
  const { revalidate } = useRevalidator();
  useEffect(() => {
    const timer = setInterval(() => void revalidate(), 1000);
    return () => clearInterval(timer);
  }, [revalidate]);
  const share = Math.round((progress ?? 0) * 100);
  return (
    <div className="max-w-md" role="status">
      <p className="mb-2">
        {`${stage === "importing" ? "The rows are being stored." : "Every row is being looked at."} You ` +
          "may leave this page: it goes on by itself."}
      </p>
      <progress className="w-full" max={100} value={share} aria-label={stage === "importing" ? "Storing" : "Reading"}>
        {share} %
      </progress>
    </div>
  );
}

/** Taking back what a file brought in, asked once more. `explain`: what becomes of it. */
export function TakeBack({
  added,
  noun,
  explain,
  problem,
}: {
  added: number | null;
  noun: string;
  explain: string;
  problem: string | undefined;
}) {
  return (
    <Form method="post" className="mb-4">
      {problem ? <Notice tone="verm">{problem}</Notice> : null}
      <ConfirmButton
        intent="undo"
        label="Take this import back"
        question={`Take back all ${counted(added ?? 0, noun)} of this file?`}
        explain={explain}
      />
    </Form>
  );
}
