import { Form, redirect } from "react-router";
import type { Route } from "./+types/upload";
import { guard, guardAction, problems } from "~/platform/guard.server";
import { storeUpload, uploadLimitMb, uploadOf } from "~/platform/uploads.server";
import { Button, FormProblemsProvider, TextField } from "~/ui/form";
import { FileField } from "~/ui/importFile";
import { PageHead } from "~/ui/page";
import { laboratoryNames } from "~/domain/oil/index.server";

export const meta = () => [{ title: "Import a laboratory’s file · Juncteral" }];

export const loader = guard("technician", async () => ({
  limitMb: uploadLimitMb(),
  laboratories: await laboratoryNames(),
}));

export const action = guardAction("technician", async ({ request, user }) => {
  const upload = await uploadOf(request);
  const laboratory = String(upload.fields.get("laboratory") ?? "")
    .trim()
    .slice(0, 100);
  const wrong = {
    ...(!upload.ok && { file: upload.message }),
    ...(!laboratory && { laboratory: "Name the laboratory: how it writes its files is kept under that name." }),
  };
  if (!upload.ok || !laboratory) return problems(wrong);
  return redirect(`/oil/import/${await storeUpload(upload.name, upload.content, user.name, laboratory)}`);
});

export default function LabUpload({ loaderData, actionData }: Route.ComponentProps) {
  const wrong = actionData && "problems" in actionData ? actionData.problems : undefined;
  return (
    <div className="[&>:not(header)]:max-w-xl">
      <PageHead crumbs={[{ label: "Oil", to: "/oil" }]} title="Import a laboratory’s file">
        One row a sample, columns in any order and under any heading. What you map once for a laboratory is kept for its
        next file. Nothing is saved before you have seen what becomes of every row.
      </PageHead>
      <Form method="post" encType="multipart/form-data" noValidate>
        <FormProblemsProvider problems={wrong}>
          <div className="mb-3">
            <TextField
              name="laboratory"
              label="Laboratory"
              list="laboratories"
              maxLength={100}
              defaultValue={loaderData.laboratories[0] ?? ""}
            />
            <datalist id="laboratories">
              {loaderData.laboratories.map((l) => (
                <option key={l} value={l} />
              ))}
            </datalist>
          </div>
          <FileField limitMb={loaderData.limitMb} problem={wrong?.file} />
          <div className="mt-3">
            <Button>Look at the file</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
