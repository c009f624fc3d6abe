import { Form, redirect } from "react-router";
import type { Route } from "./+types/upload";
import { config } from "~/platform/config.server";
import { guard, guardAction, problems } from "~/platform/guard.server";
import { Button, FormProblemsProvider } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { storeUpload } from "./import.server";

export const meta = () => [{ title: "Import readings · Juncteral" }];

export const loader = guard("technician", async () => ({ limitMb: Math.floor(config.uploadLimit / 1_048_576) }));

export const action = guardAction("technician", async ({ request, user }) => {
  const file = (await request.formData()).get("file");
  if (!(file instanceof File) || file.size === 0) return problems({ file: "Choose a file with at least one row." });
  const content = Buffer.from(await file.arrayBuffer());
  if (content.subarray(0, 4).toString("latin1") === "PK\u0003\u0004") return problems({ file: "That is a workbook, not CSV. Save it as CSV from the spreadsheet and choose that." });
  if (content.subarray(0, 4096).includes(0) && !(content[0] === 0xff || content[0] === 0xfe)) return problems({ file: "That is not a text file. Save the sheet as CSV." });
  const id = await storeUpload(file.name, content, user.name);
  return redirect(`/records/import/${id}`);
});

export default function Upload({ loaderData, actionData }: Route.ComponentProps) {
  const problem = actionData && "problems" in actionData ? (actionData.problems as Record<string, string>) : undefined;
  return (
    <div className="max-w-xl">
      <PageHead crumbs={[{ label: "Records", to: "/records" }]} title="Import readings from a CSV file">
        Columns in any order, comma, semicolon or tab, decimal points or commas. Nothing is saved before you have seen what becomes of every row.
      </PageHead>
      <Form method="post" encType="multipart/form-data">
        <FormProblemsProvider problems={problem}>
          <label htmlFor="f-file" className="mb-1 block text-sm text-ink-2">File, at most {loaderData.limitMb} MB</label>
          <input id="f-file" type="file" name="file" accept=".csv,.txt,.tsv,text/csv,text/plain" aria-invalid={problem?.file ? true : undefined} aria-describedby="p-file" className="block w-full border border-line-2 bg-sheet p-3 file:mr-4 file:border-0 file:bg-sea-soft file:px-3 file:py-2 file:text-ink" />
          <p id="p-file" className="mt-1 min-h-5 text-sm font-medium text-verm">{problem?.file}</p>
          <div className="mt-3"><Button>Look at the file</Button></div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
