import { Form, redirect } from "react-router";
import type { Route } from "./+types/plantTest";
import { componentKindIds, componentKinds, pointQuantityIds } from "@core";
import { formOf } from "~/platform/request.server";
import { guard, guardAction, refused } from "~/platform/guard.server";
import { fieldsOf } from "~/platform/validate";
import { Button, FormProblemsProvider, TextArea, TextField } from "~/ui/form";
import { PageHead } from "~/ui/page";
import { addPlantTest } from "~/domain/procedures/commands.server";
import { plantTest as texts } from "./texts";

export const meta = () => [{ title: texts.aTestOfYour }];

export const loader = guard("engineer", async () => null);

export const action = guardAction("engineer", async ({ request, user }) => {
  const form = await formOf(request);
  const added = await addPlantTest(fieldsOf(form), form.getAll("kinds").map(String), user);
  return added.ok ? redirect(`/tests/${added.id}`) : refused(added);
});

export default function PlantTestPage({ actionData }: Route.ComponentProps) {
  return (
    <div className="max-w-2xl">
      <PageHead crumbs={[{ label: texts.tests, to: "/tests" }]} title={texts.addATestOf}>
        {texts.readingsWithTheirBounds}
      </PageHead>
      <Form method="post" noValidate>
        <FormProblemsProvider problems={actionData?.problems}>
          <div className="grid gap-4">
            <TextField name="title" label={texts.name} maxLength={120} />
            <TextField
              name="asks"
              label={texts.theQuestionThatIt}
              maxLength={220}
              placeholder={texts.doesTheLatchLet}
            />
            <fieldset>
              <legend className="text-sm text-ink-2">{texts.onWhichKindsOf}</legend>
              <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-3">
                {componentKindIds.map((k) => (
                  <label key={k} className="flex min-h-9 items-center gap-2 max-lg:min-h-11">
                    <input type="checkbox" name="kinds" value={k} className="size-4 accent-sea" />
                    {componentKinds[k].label}
                  </label>
                ))}
              </div>
              {actionData?.problems.kinds ? (
                <p className="text-sm font-medium text-verm">{actionData.problems.kinds}</p>
              ) : null}
            </fieldset>
            <TextArea name="before" label={texts.whatMustBeTrue} hint={texts.oneALine} rows={3} />
            <TextArea name="caution" label={texts.caution} rows={2} />
            <TextArea name="steps" label={texts.steps} hint={texts.oneALine} rows={3} />
            <TextArea name="alters" label={texts.whatIsAlteredFor} hint={texts.oneALinePut} rows={2} />
            <TextArea
              name="readings"
              label={texts.readings}
              hint={texts.oneALineName(pointQuantityIds.join(", "))}
              rows={4}
              placeholder={texts.latchPressurePressure40}
            />
            <Button>{texts.addTheTest}</Button>
          </div>
        </FormProblemsProvider>
      </Form>
    </div>
  );
}
