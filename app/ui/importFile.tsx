/** What every import of a file shows: choosing it, how it is written, the fate of its rows. */
import { useEffect, type ReactNode } from "react";
import { Form, useRevalidator } from "react-router";
import { ConfirmButton } from "./confirm";
import { counted } from "./counted";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextField } from "./form";
import { Section } from "./page";
import { type FileFates, BadRows, OddRows, FirstRows } from "./importFates";

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
