import { Form, redirect } from "react-router";
import type { Route } from "./+types/upload";
import { guard, guardAction, problems } from "~/platform/guard.server";
import { storeUpload, uploadLimitMb, uploadOf } from "~/platform/imports.server";
import { Button, FormProblemsProvider } from "~/ui/form";
import { FileField } from "~/ui/importFile";
import { PageHead } from "~/ui/page";
import { upload as texts } from "./texts";

export const meta = () => [{ title: texts.importReadingsJuncteral }];

export const loader = guard("technician", async () => ({ limitMb: uploadLimitMb() }));

export const action = guardAction("technician", async ({ request, user }) => {
  const upload = await uploadOf(request);
  if (!upload.ok) return problems({ file: upload.message });
  return redirect(`/records/import/${await storeUpload(upload.name, upload.content, user.name)}`);
});

export default function Upload({ loaderData, actionData }: Route.ComponentProps) {
  const problem = actionData && "problems" in actionData ? actionData.problems : undefined;
  return (
    <div className="[&>:not(header)]:max-w-xl">
      <PageHead crumbs={[{ label: texts.records, to: "/records" }]} title={texts.importReadingsFromA}>
        {texts.columnsInAnyOrder}
      </PageHead>
      <Form method="post" encType="multipart/form-data">
        <FormProblemsProvider problems={problem}>
          <FileField limitMb={loaderData.limitMb} problem={problem?.file} />
          <div className="mt-3">
            <Button>{texts.lookAtTheFile}</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
