import { Form, redirect } from "react-router";
import type { Route } from "./+types/upload";
import { guard, guardAction, problems } from "~/platform/guard.server";
import { storeUpload, uploadLimitMb, uploadOf } from "~/platform/uploads.server";
import { Button, FormProblemsProvider } from "~/ui/form";
import { FileField } from "~/ui/importFile";
import { PageHead } from "~/ui/page";

export const meta = () => [{ title: "Import readings · Juncteral" }];

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
      <PageHead crumbs={[{ label: "Records", to: "/records" }]} title="Import readings from a CSV file">
        Columns in any order, comma, semicolon or tab, decimal points or commas. Nothing is saved before you have seen
        what becomes of every row.
      </PageHead>
      <Form method="post" encType="multipart/form-data">
        <FormProblemsProvider problems={problem}>
          <FileField limitMb={loaderData.limitMb} problem={problem?.file} />
          <div className="mt-3">
            <Button>Look at the file</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
