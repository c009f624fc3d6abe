import { Link, data as answerWith, redirect } from "react-router";
import type { Route } from "./+types/import";
import { analyteIds, analytes } from "@core";
import { dateOrders } from "~/platform/csvCells";
import { delimiters } from "~/platform/csvText";
import { guard, guardAction, idParam, refused } from "~/platform/guard.server";
import { beginStage, importRecord, isLarge } from "~/platform/imports.server";
import { mayAct } from "~/platform/permissions";
import { formFields } from "~/platform/request.server";
import { SelectField } from "~/ui/form";
import { columnOptions, FormatFields, ImportForm, ImportProgress, TakeBack } from "~/ui/importFile";
import { columnText, fatesText } from "~/ui/importFates";
import { PageHead } from "~/ui/page";
import { labPreview, runLabImport, saveLabMapping, type LabPreview, undoLabImport } from "~/domain/oil/index.server";
import { labMappingOf, placeFields } from "~/domain/oil/index";
import { counted } from "~/ui/counted";

export const meta = () => [{ title: "Import a laboratory’s file · Juncteral" }];

export const loader = guard("technician", async ({ params, user }) => {
  const record = await importRecord(idParam(params));
  const about = {
    id: record.id,
    fileName: record.fileName,
    laboratory: record.laboratory,
    done: record.doneAt !== null,
    added: record.added,
    there: record.alreadyThere,
    undone: record.undoneBy,
    mayUndo: mayAct(user.role, "engineer") && record.doneAt !== null && !record.undoneAt && (record.added ?? 0) > 0,
  };
  const stage = record.stage ? { stage: record.stage, progress: record.progress } : null;
  if (record.doneAt || stage || record.failure)
    return { about, stage, failure: record.doneAt ? null : record.failure, preview: null };
  const shown = (record.preview as LabPreview | null) ?? (isLarge(record) ? null : await labPreview(record));
  if (!shown) await beginStage(record.id, "previewing");
  return { about, stage: shown ? null : { stage: "previewing" as const, progress: 0 }, failure: null, preview: shown };
});

export const action = guardAction("technician", async ({ params, request, user }) => {
  const id = idParam(params);
  const fields = await formFields(request);
  if (fields.intent === "undo") {
    if (!mayAct(user.role, "engineer"))
      return answerWith({ problems: { form: "An engineer takes an import back." } }, { status: 403 });
    const undone = await undoLabImport(id, user);
    return undone.ok ? redirect(`/oil/import/${id}`) : refused(undone);
  }
  const wrong = await saveLabMapping(id, labMappingOf(fields));
  if (wrong) return answerWith({ problems: wrong }, { status: 422 });
  const record = await importRecord(id);
  if (record.doneAt || record.stage) return redirect(`/oil/import/${id}`);
  if (fields.intent !== "import" || isLarge(record)) {
    if (isLarge(record)) await beginStage(id, fields.intent === "import" ? "importing" : "previewing");
    return redirect(`/oil/import/${id}`);
  }
  const result = await runLabImport(record);
  return result.ok
    ? redirect(`/oil/import/${id}`)
    : answerWith({ problems: { form: result.message } }, { status: 422 });
});

const TAKEN_BACK = "Its samples stay on record as withdrawn and count no more; the file may be brought in again.";

const fromText = {
  file: "",
  laboratory: " Read as this laboratory’s last file.",
  guess: " Read by its headings: look whether each column is what it says.",
};

export default function LabImport({
  loaderData: { about, stage, failure, preview },
  actionData,
}: Route.ComponentProps) {
  const crumbs = [{ label: "Oil", to: "/oil" }, { label: "Import", to: "/oil/import" }, { label: about.fileName }];
  if (stage)
    return (
      <>
        <PageHead
          crumbs={crumbs}
          title={stage.stage === "importing" ? "The file is being imported" : "The file is being read"}
        >
          {about.fileName}
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
          <Link to="/oil/import" className="act">
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
              : `${counted(about.added ?? 0, "sample")} added${about.there ? `, ${about.there} were there already` : ""}`
          }
        >
          {about.undone ? (
            TAKEN_BACK
          ) : (
            <>
              The oils that they belong to are being judged; the list shows it in a moment. How {about.laboratory}{" "}
              writes its file is kept.
            </>
          )}
        </PageHead>
        {about.mayUndo ? (
          <TakeBack added={about.added} noun="sample" explain={TAKEN_BACK} problem={actionData?.problems.form} />
        ) : null}
        <p className="flex gap-5">
          <Link to="/oil" className="act">
            Go to Oil
          </Link>
          <Link to="/oil/import" className="way">
            Import another file
          </Link>
        </p>
      </>
    );
  }
  const { mapping, head } = preview;
  const options = columnOptions(head, mapping.hasHeader);
  const column = (name: string, label: string) => (
    <SelectField
      key={name}
      name={`column-${name}`}
      label={label}
      defaultValue={columnText(mapping.columns[name as keyof typeof mapping.columns])}
      options={options}
    />
  );
  return (
    <>
      <PageHead crumbs={crumbs} title={fatesText(preview)}>
        <>
          {about.fileName}, {about.laboratory}.{fromText[preview.from]} Nothing is saved yet.
        </>
      </PageHead>
      <ImportForm mapping={mapping} fates={preview} noun="sample" problems={actionData?.problems}>
        <FormatFields mapping={mapping} delimiters={delimiters} dateOrders={dateOrders} />
        {placeFields.map((f) => column(f.name, f.label))}
        <SelectField
          name="countsPer"
          label="Particles are"
          defaultValue={mapping.countsPer}
          options={[
            { value: "/mL", label: "per mL" },
            { value: "/100 mL", label: "per 100 mL" },
          ]}
        />
        <SelectField
          name="water"
          label="Bare water is"
          defaultValue={mapping.water}
          options={[
            { value: "ppm", label: "ppm" },
            { value: "%", label: "percent" },
          ]}
        />
        {analyteIds.map((id) => column(id, analytes[id].label))}
      </ImportForm>
    </>
  );
}
