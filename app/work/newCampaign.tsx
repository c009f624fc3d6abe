import { Form, redirect } from "react-router";
import type { Route } from "./+types/newCampaign";
import { componentKindIds, componentKinds } from "@core";
import { choices } from "~/domain/assets/index.server";
import { beginCampaign } from "~/domain/bookings/index.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, SelectField, TextArea, TextField } from "~/ui/form";
import { PageHead } from "~/ui/page";

export const meta = () => [{ title: "Begin a campaign · Juncteral" }];

export const loader = guard("engineer", async () => ({
  sites: (await choices(["sites"])).sites ?? [],
  submission: crypto.randomUUID(),
}));

export const action = guardAction("engineer", async ({ request, user }) => {
  const done = await beginCampaign(await formFields(request), user);
  return done.ok ? redirect(`/work/campaigns/${done.id}`) : refused(done);
});

export default function NewCampaign({ loaderData: { sites, submission }, actionData }: Route.ComponentProps) {
  return (
    <div className="max-w-2xl">
      <PageHead
        crumbs={[
          { label: "Work", to: "/work" },
          { label: "Due by date", to: "/work/due" },
          { label: "Begin a campaign" },
        ]}
        title="A manufacturer’s bulletin, part by part"
      >
        Every part of the kind is put on a list: its marking tells which variant it is, and the list tells which are
        done.
      </PageHead>
      <Form method="post" noValidate>
        <FormProblemsProvider problems={actionData?.problems}>
          <input type="hidden" name="submission" value={submission} />
          <div className="grid gap-4 sm:grid-cols-2">
            <TextField
              name="title"
              label="What is changed"
              maxLength={100}
              placeholder="Counterbalance instead of pilot check"
            />
            <TextField name="bulletin" label="Bulletin, number and revision" maxLength={100} />
            <SelectField name="siteId" label="Site" options={sites} />
            <TextField name="dueOn" label="Done by" type="date" hint="Empty: no day named" />
            <SelectField
              name="kind"
              label="Kind of part"
              options={componentKindIds.map((value) => ({ value, label: componentKinds[value].label }))}
            />
            <TextField name="model" label="Model, where only one is concerned" maxLength={100} />
          </div>
          <div className="mt-4 grid gap-4">
            <TextField name="marking" label="How the old variant is told from the new one" maxLength={300} />
            <TextArea name="why" label="Why" maxLength={1000} />
          </div>
          <div className="mt-4">
            <Button>Begin the campaign</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
