import { Link, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/import";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { mayAct } from "~/platform/permissions";
import { dateOrders } from "~/platform/csvCells";
import { delimiters } from "~/platform/csvText";
import { formFields } from "~/platform/request.server";
import { Button, CheckField, SelectField, TextField } from "~/ui/form";
import { counted } from "~/ui/counted";
import { PageHead, Section } from "~/ui/page";
import { beginStage, importRecord, isLarge } from "~/platform/imports.server";
import { columnOptions, FormatFields, ImportForm, ImportProgress, TakeBack } from "~/ui/importFile";
import { columnText, fatesText } from "~/ui/importFates";
import {
  preview,
  runImport,
  saveMapping,
  storedPreview,
  namesOf,
  tieNames,
  type NameInFile,
  undoImport,
  pointChoices,
} from "~/domain/readings/index.server";
import { importFields, mappingOf } from "~/domain/readings/index";

const READINGS_STAY = "Its readings stay on record as superseded and count no more; the file may be brought in again.";

export const meta = () => [{ title: "Import readings · Juncteral" }];

export const loader = guard("technician", async ({ params, user }) => {
  const record = await importRecord(idParam(params));
  const about = {
    id: record.id,
    fileName: record.fileName,
    bytes: record.bytes,
    done: record.doneAt !== null,
    added: record.added,
    there: record.alreadyThere,
    undone: record.undoneBy,
    mayUndo: mayAct(user.role, "engineer") && record.doneAt !== null && !record.undoneAt && (record.added ?? 0) > 0,
  };
  const stage = record.stage ? { stage: record.stage, progress: record.progress } : null;
  if (record.doneAt || stage || record.failure)
    return { about, stage, failure: record.doneAt ? null : record.failure, preview: null, points: [] };
  const shown = storedPreview(record) ?? (isLarge(record) ? null : await preview(record));
  if (!shown) await beginStage(record.id, "previewing");
  return {
    about,
    stage: shown ? null : { stage: "previewing" as const, progress: 0 },
    failure: null,
    preview: shown,
    points: await pointChoices(),
  };
});

export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  if (fields.intent === "undo") {
    if (!mayAct(user.role, "engineer"))
      return answerWith({ problems: { form: "An engineer takes an import back." } }, { status: 403 });
    const undone = await undoImport(id, user);
    return undone.ok ? redirect(`/records/import/${id}`) : refused(undone);
  }
  const problems = (await tieNames(namesOf(fields), user)) ?? (await saveMapping(id, mappingOf(fields)));
  if (problems) return answerWith({ problems }, { status: 422 });
  const record = await importRecord(id);
  if (record.doneAt || record.stage) return redirect(`/records/import/${id}`);
  if (fields.intent !== "import" || isLarge(record)) {
    if (isLarge(record)) await beginStage(id, fields.intent === "import" ? "importing" : "previewing");
    return redirect(`/records/import/${id}`);
  }
  const result = await runImport(record);
  if (!result.ok) return answerWith({ problems: { form: result.message } }, { status: 422 });
  return redirect(`/records/import/${id}`);
});

/** Names that no code of the fleet explains: each is tied to its point once. */
function Names({
  names,
  points,
}: {
  names: readonly NameInFile[];
  points: readonly { value: string; label: string }[];
}) {
  if (names.length === 0) return null;
  return (
    <Section title="Names that are not known here" aside="said once, known from then on">
      <div className="mt-3 grid gap-3 sm:grid-cols-2">
        {names.map((n, i) => (
          <div key={n.key}>
            <input type="hidden" name={`key-${i}`} value={n.key} />
            <TextField
              name={`name-${i}`}
              label={`${n.text}, ${counted(n.rows, "row")}`}
              defaultValue={n.code ?? ""}
              list="points"
              placeholder="Machine/Component/Point"
            />
          </div>
        ))}
      </div>
      <datalist id="points">
        {points.map((p) => (
          <option key={p.value} value={p.label} />
        ))}
      </datalist>
      <div className="mt-3">
        <Button tone="plain" name="intent" value="preview">
          Keep these names and look again
        </Button>
      </div>
    </Section>
  );
}

export default function Import({
  loaderData: { about, stage, failure, preview, points },
  actionData,
}: Route.ComponentProps) {
  const crumbs = [
    { label: "Records", to: "/records" },
    { label: "Import", to: "/records/import" },
    { label: about.fileName },
  ];
  if (stage)
    return (
      <>
        <PageHead
          crumbs={crumbs}
          title={stage.stage === "importing" ? "The file is being imported" : "The file is being read"}
        >
          {`${about.fileName}, ${Math.ceil(about.bytes / 1024)} kB.`}
        </PageHead>
        <ImportProgress stage={stage.stage} progress={stage.progress} />
      </>
    );
  if (failure)
    return (
      <>
        <PageHead crumbs={crumbs} title="Nothing was imported">
          {failure}
        </PageHead>
        <p>
          <Link to="/records/import" className="act">
            Choose the file again
          </Link>
        </p>
      </>
    );
  if (!preview) {
    return (
      <>
        <PageHead
          crumbs={crumbs}
          title={
            about.undone
              ? `Taken back by ${about.undone}`
              : `${counted(about.added ?? 0, "reading")} added${about.there ? `, ${about.there} were there already` : ""}`
          }
        >
          {about.undone ? READINGS_STAY : "The points they belong to are being assessed; Today shows it in a moment."}
        </PageHead>
        {about.mayUndo ? (
          <TakeBack added={about.added} noun="reading" explain={READINGS_STAY} problem={actionData?.problems.form} />
        ) : null}
        <p className="flex gap-5">
          <Link to="/" className="act">
            Go to Today
          </Link>
          <Link to="/records/import" className="way">
            Import another file
          </Link>
        </p>
      </>
    );
  }
  const { mapping, head } = preview;
  const options = columnOptions(head, mapping.hasHeader);
  return (
    <>
      <PageHead crumbs={crumbs} title={fatesText(preview)}>
        {`${about.fileName}. Nothing is saved yet.`}
      </PageHead>
      <ImportForm
        mapping={mapping}
        fates={preview}
        noun="reading"
        problems={actionData?.problems}
        unused={preview.unused}
        above={<Names names={preview.names} points={points} />}
      >
        <FormatFields mapping={mapping} delimiters={delimiters} dateOrders={dateOrders} />
        {importFields.map((f) => (
          <SelectField
            key={f.name}
            name={`column-${f.name}`}
            label={f.label}
            defaultValue={columnText(mapping.columns[f.name])}
            options={options}
          />
        ))}
        <TextField
          name="unit-value"
          label="Unit of bare values"
          defaultValue={mapping.units.value}
          hint="Empty: each point's own"
        />
        <TextField
          name="unit-pressure"
          label="Unit of bare loads"
          defaultValue={mapping.units.pressure}
          hint="Empty: bar"
        />
        <TextField
          name="unit-temperature"
          label="Unit of bare oil temperatures"
          defaultValue={mapping.units.temperature}
          hint="Empty: °C"
        />
        <SelectField
          name="pointId"
          label="Or all rows are of"
          defaultValue={mapping.pointId}
          options={[{ value: "", label: "the point in its column" }, ...points]}
        />
        <div className="col-span-2">
          <CheckField
            name="beginLives"
            label="Begin these lives at their first reading, where it is older than “fitted on”"
            defaultChecked={mapping.beginLives}
          />
        </div>
      </ImportForm>
    </>
  );
}
