import { Form, redirect } from "react-router";
import type { Route } from "./+types/newCampaign";
import { componentKindIds, componentKinds } from "@core";
import { choices } from "~/domain/assets/queries.server";
import { beginCampaign } from "~/domain/work/campaigns.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { formFields } from "~/platform/request.server";
import { Button, FormProblemsProvider, SelectField, TextArea, TextField } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { newCampaign as texts } from "./texts";

export const meta = () => [{ title: texts.beginACampaignJuncteral }];

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
          { label: texts.work, to: "/work" },
          { label: texts.dueByDate, to: "/work/due" },
          { label: texts.beginACampaign },
        ]}
        title={texts.aManufacturerBulletinPart}
      >
        {texts.everyPartOfThe}
      </PageHead>
      <Form method="post" noValidate>
        <FormProblemsProvider problems={actionData?.problems}>
          <input type="hidden" name="submission" value={submission} />
          <div className="grid gap-4 sm:grid-cols-2">
            <TextField
              name="title"
              label={texts.whatIsChanged}
              maxLength={100}
              placeholder={texts.counterbalanceInsteadOfPilot}
            />
            <TextField name="bulletin" label={texts.bulletinNumberAndRevision} maxLength={100} />
            <SelectField name="siteId" label={texts.site} options={sites} />
            <TextField name="dueOn" label={texts.doneBy} type="date" hint={texts.emptyNoDayNamed} />
            <SelectField
              name="kind"
              label={texts.kindOfPart}
              options={componentKindIds.map((value) => ({ value, label: componentKinds[value].label }))}
            />
            <TextField name="model" label={texts.modelWhereOnlyOne} maxLength={100} />
          </div>
          <div className="mt-4 grid gap-4">
            <TextField name="marking" label={texts.howTheOldVariant} maxLength={300} />
            <TextArea name="why" label={texts.why} maxLength={1000} />
          </div>
          <div className="mt-4">
            <Button>{texts.beginTheCampaign}</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
