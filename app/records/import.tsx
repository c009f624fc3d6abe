import { Form, Link, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/import";
import { guard, guardAction, idParam } from "~/platform/guard.server";
import { dateOrders } from "~/platform/csvCells";
import { delimiters } from "~/platform/csvText";
import { fieldsOf } from "~/platform/validate";
import { Button, CheckField, FormProblemsProvider, Notice, SelectField, TextField } from "~/ui/form";
import { PageHead, Section } from "~/ui/page";
import { importRecord, preview, runImport, saveMapping, type Preview } from "./import.server";
import { importFields, mappingOf } from "./mapping";
import { pointChoices } from "./queries.server";

export const meta = () => [{ title: "Import readings · Juncteral" }];

export const loader = guard("technician", async ({ params }) => {
  const record = await importRecord(idParam(params));
  const about = { id: record.id, fileName: record.fileName, bytes: record.bytes, done: record.doneAt !== null, added: record.added, there: record.alreadyThere };
  if (record.doneAt) return { about, preview: null, points: [] };
  return { about, preview: await preview(record), points: await pointChoices() };
});

export const action = guardAction("technician", async ({ params, request }) => {
  const id = idParam(params);
  const fields = fieldsOf(await request.formData());
  const problems = await saveMapping(id, mappingOf(fields));
  if (problems) return answerWith({ problems }, { status: 422 });
  if (fields.intent !== "import") return redirect(`/records/import/${id}`);
  const record = await importRecord(id);
  if (record.doneAt) return redirect(`/records/import/${id}`);
  const result = await runImport(record);
  if (!result.ok) return answerWith({ problems: { form: result.message } }, { status: 422 });
  return redirect(`/records/import/${id}`);
});

const fateText = { add: "will be added", there: "there already", bad: "bad" };

function finding({ counts }: Preview): string {
  if (counts.add + counts.there + counts.bad === 0) return "The file has no rows";
  const parts = [`${counts.add} to add`];
  if (counts.there) parts.push(`${counts.there} there already`);
  if (counts.bad) parts.push(`${counts.bad} bad`);
  return parts.join(", ");
}

export default function Import({ loaderData: { about, preview, points }, actionData }: Route.ComponentProps) {
  const crumbs = [{ label: "Records", to: "/records" }, { label: "Import", to: "/records/import" }, { label: about.fileName }];
  if (!preview) {
    return (
      <>
        <PageHead crumbs={crumbs} title={`${about.added} reading${about.added === 1 ? "" : "s"} added${about.there ? `, ${about.there} were there already` : ""}`}>The points they belong to are being assessed; Today shows it in a moment.</PageHead>
        <p className="flex gap-5"><Link to="/" className="act">Go to Today</Link><Link to="/records/import" className="way">Import another file</Link></p>
      </>
    );
  }
  const { mapping, head, rows, bad, counts } = preview;
  const columnOptions = [{ value: "", label: "not in the file" }, ...head.map((h, i) => ({ value: String(i), label: mapping.hasHeader ? `${i + 1}: ${h.slice(0, 40)}` : `column ${i + 1} (${h.slice(0, 20)})` }))];
  return (
    <>
      <PageHead crumbs={crumbs} title={finding(preview)}>{about.fileName}. Nothing is saved yet.</PageHead>
      <Form method="post" key={JSON.stringify(mapping)} noValidate>
        <FormProblemsProvider problems={actionData?.problems}>
          <div className="gap-x-8 max-lg:flex max-lg:flex-col lg:grid lg:grid-cols-[340px_minmax(0,1fr)]">
            <Section title="What is what" className="max-lg:order-2">
              <div className="mt-3 grid grid-cols-2 gap-3">
                <SelectField name="delimiter" label="Separated by" defaultValue={mapping.delimiter === "\t" ? "tab" : mapping.delimiter} options={delimiters.map((d) => ({ value: d.value === "\t" ? "tab" : d.value, label: d.label }))} />
                <SelectField name="decimalMark" label="Decimal mark" defaultValue={mapping.decimalMark} options={[{ value: ".", label: "point, 3.4" }, { value: ",", label: "comma, 3,4" }]} />
                <SelectField name="dateOrder" label="Dates" defaultValue={mapping.dateOrder} options={dateOrders} />
                <div className="self-end"><CheckField name="hasHeader" label="First row is a heading" defaultChecked={mapping.hasHeader} /></div>
                {importFields.map((f) => <SelectField key={f.name} name={`column-${f.name}`} label={f.label} defaultValue={mapping.columns[f.name] === null || mapping.columns[f.name] === undefined ? "" : String(mapping.columns[f.name])} options={columnOptions} />)}
                <TextField name="unit-value" label="Unit of bare values" defaultValue={mapping.units.value} hint="Empty: each point's own" />
                <TextField name="unit-pressure" label="Unit of bare loads" defaultValue={mapping.units.pressure} hint="Empty: bar" />
                <TextField name="unit-temperature" label="Unit of bare oil temperatures" defaultValue={mapping.units.temperature} hint="Empty: °C" />
                <SelectField name="pointId" label="Or all rows are of" defaultValue={mapping.pointId} options={[{ value: "", label: "the point in its column" }, ...points]} />
              </div>
              <div className="mt-3"><Button tone="plain" name="intent" value="preview">Look again</Button></div>
            </Section>
            <div className="min-w-0">
              {bad.length > 0 ? (
                <Section title="Bad rows, by line" aside={counts.bad > bad.length ? `the first ${bad.length} of ${counts.bad}` : undefined}>
                  <ul className="max-h-56 overflow-y-auto text-sm" tabIndex={0} aria-label="Bad rows">{bad.map((b) => <li key={b.line} className="ruled grid grid-cols-[5rem_minmax(0,1fr)] py-1"><span className="text-ink-2">line {b.line}</span><span className="[overflow-wrap:anywhere]">{b.reason}</span></li>)}</ul>
                  <CheckField name="skipBad" label={`Leave out the ${counts.bad} bad row${counts.bad === 1 ? "" : "s"} and import the rest`} defaultChecked={mapping.skipBad} />
                </Section>
              ) : null}
              {counts.add > 0 ? <div className="mb-5"><Button name="intent" value="import">Import {counts.add} reading{counts.add === 1 ? "" : "s"}</Button></div> : <Notice tone="ochre">There is nothing to add{counts.there ? ": every good row is recorded already" : " under this mapping"}.</Notice>}
              <Section title="First rows and what becomes of them">
                <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="First rows">
                  <table className="w-full text-sm whitespace-nowrap [&_td]:py-1 [&_td]:pr-4 [&_th]:py-1 [&_th]:pr-4">
                    <thead><tr className="ruled"><th scope="col">line</th><th scope="col">fate</th>{mapping.hasHeader ? head.slice(0, 16).map((h, i) => <th scope="col" key={i}>{h}</th>) : null}</tr></thead>
                    <tbody>
                      {rows.map((r) => (
                        <tr key={r.line} className="ruled"><td className="text-ink-2">{r.line}</td><td className={r.fate === "bad" ? "font-medium text-verm" : r.fate === "there" ? "text-ink-2" : "text-sea"}>{fateText[r.fate]}</td>{r.cells.map((c, i) => <td key={i}>{c}</td>)}</tr>
                      ))}
                    </tbody>
                  </table>
                </div>
              </Section>
            </div>
          </div>
        </FormProblemsProvider>
      </Form>
    </>
  );
}
